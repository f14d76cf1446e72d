"""What a use case says when it cannot be carried out; `reason` is said to a keeper."""

from sandboa.core.messages import Words


class NotFound(LookupError):
    """There is no such thing in this house."""

    def __init__(self, reason: Words) -> None:
        super().__init__(str(reason))
        self.reason = reason


class Conflict(ValueError):
    """It contradicts what is recorded."""

    def __init__(self, reason: Words) -> None:
        super().__init__(str(reason))
        self.reason = reason


class Question(Conflict):
    """It may be right, but the keeper is asked first; `confirm` names the answer that allows it."""

    def __init__(self, reason: Words, confirm: str) -> None:
        super().__init__(reason)
        self.confirm = confirm
