"""The house at one moment: how far its eggs are, worked out once, and carried on while it holds."""
