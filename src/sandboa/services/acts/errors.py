"""What a use case says when it cannot be carried out; each text is a sentence for a keeper."""


class NotFound(LookupError):
    """There is no such thing in this house."""


class Conflict(ValueError):
    """It contradicts what is recorded."""


class Question(Conflict):
    """It may be right, but the keeper is asked first; `confirm` names the answer that allows it."""

    def __init__(self, text: str, confirm: str) -> None:
        super().__init__(text)
        self.confirm = confirm
