"""What comes in and goes out as files."""
