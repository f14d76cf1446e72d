"""Animals: dams and sires, what they weigh and eat, and the season they are in."""
