"""What a file that is none is refused with."""


class NotReadable(ValueError):
    """The file as a whole cannot be read as readings; the text says why."""
