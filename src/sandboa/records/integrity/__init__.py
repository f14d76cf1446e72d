"""Proof that what lies in the file is what was recorded: chain of acts, checksums, the check."""
