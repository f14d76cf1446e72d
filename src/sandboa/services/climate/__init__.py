"""A cabinet as it stands: its faults, whether it is ready for eggs, its trace."""
