"""Numbers of why eggs were lost: where each cause starts, and what each sign is worth (rule G)."""

from collections.abc import Iterator

from sandboa.core.causes.kinds import Cause
from sandboa.core.causes.scores import SCORES, STARTS
from sandboa.core.messages import Message
from sandboa.core.settings.setting import Setting


def losses() -> Iterator[Setting]:
    for cause, score in STARTS.items():
        if cause is not Cause.UNKNOWN:
            yield Setting(
                f"start.{cause}", Message("{cause}: to begin with", cause=cause.capitalize()),
                "log score", score, (-10.0, 0.0),
                "Against 0 for unknown: how much has to speak for it before it leads.",
                "Causes of loss", deep=True,
            )  # fmt: skip
    for line in SCORES.values():
        yield Setting(
            line.name, Message("{cause}: {sign}", cause=line.cause.capitalize(), sign=line.words),
            "log score",
            line.score, (-15.0, 15.0),
            "Above 0 speaks for that cause of a loss, below against it.", "Causes of loss",
            deep=True,
        )  # fmt: skip
