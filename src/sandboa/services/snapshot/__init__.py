"""What the house knows now: read once, kept while it holds, and the keeper's numbers."""
