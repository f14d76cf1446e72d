"""The season: lay windows, preparation, pairings and the plan of visits."""
