"""Why eggs were lost: openings recorded, evidence gathered from the house, causes ranked."""
