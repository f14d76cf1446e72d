"""Notes on anything in the house: written, corrected, listed and found."""
