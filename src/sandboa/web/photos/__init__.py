"""Photos: taken in, listed, shown; always re-encoded, never by a name the user gave."""
