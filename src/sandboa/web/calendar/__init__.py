"""The house's calendar: as a file, and by a private link to subscribe to."""
