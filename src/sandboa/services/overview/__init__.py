"""Places that look at the whole house: Today, the calendar, the bench."""
