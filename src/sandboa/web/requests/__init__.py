"""What a request passes through and is read by: bodies, revisions, deadlines, how many at once."""
