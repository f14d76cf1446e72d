"""What the core says when it is asked something that cannot be true."""


class NotPlausible(ValueError):
    """A value that cannot be true. `field` names it, `reason` is a sentence for a keeper."""

    def __init__(self, field: str, reason: str) -> None:
        super().__init__(reason)
        self.field = field
        self.reason = reason
