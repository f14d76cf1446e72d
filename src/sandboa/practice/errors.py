"""What practice says when something asked of it cannot be done; `reason` is said to the learner."""

from sandboa.core.messages import Words


class NoSuchSession(LookupError):
    """There is no such session in this person's practice."""

    def __init__(self, reason: Words) -> None:
        super().__init__(str(reason))
        self.reason = reason


class Refused(ValueError):
    """It contradicts what was done in the session, or what this version knows."""

    def __init__(self, reason: Words) -> None:
        super().__init__(str(reason))
        self.reason = reason
