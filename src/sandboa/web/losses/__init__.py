"""Losses: each failed egg and clutch, what was found on opening, causes with their evidence."""
