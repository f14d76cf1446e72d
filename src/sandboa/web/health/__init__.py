"""The health of the house itself: damage, a restore under way, the watch, the clock."""
