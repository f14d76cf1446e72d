"""What the core says when it is asked something that cannot be true."""

from sandboa.core.messages import Words


class NotPlausible(ValueError):
    """A value that cannot be true. `field` names it, `reason` is said to a keeper."""

    def __init__(self, field: str, reason: Words) -> None:
        super().__init__(str(reason))
        self.field = field
        self.reason = reason
