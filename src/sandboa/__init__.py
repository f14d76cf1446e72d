"""Sandboa: follows ball python clutches from the egg to the first meal."""

#: Also the version of the package, which is read from here: asking for it costs no import.
__version__ = "0.1.0"
