"""The house kept safe: backups, the way back to a copy, who came in; for keepers."""
