"""Water of a box: how much to mix in, how much is left, and how much to put back."""
