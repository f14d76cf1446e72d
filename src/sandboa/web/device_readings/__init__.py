"""Live intake: what devices post with their token, and what was held back of it."""
