"""People of the house: roles, passphrases, sessions, private links."""
