"""What was recorded last, and undo."""
