"""Today: what to do now, by cabinet and shelf, with the reason."""
