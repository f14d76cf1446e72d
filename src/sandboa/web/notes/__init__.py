"""Notes on anything: written, corrected, found."""
