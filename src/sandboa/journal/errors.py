"""What the journal answers when it cannot do as asked."""


class NotFound(LookupError):
    """There is no such clutch, egg, probe or act; the text is a sentence."""


class Conflict(RuntimeError):
    """The request contradicts what is recorded; the text is a sentence."""
