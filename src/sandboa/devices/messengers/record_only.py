"""The stand-in: sends nothing, keeps what would have been sent, to be looked at."""

from collections.abc import Mapping
from typing import Any


class RecordOnly:
    """Every message ends among those shown in Settings, and nowhere else."""

    def check(self, target: Mapping[str, Any]) -> dict[str, Any]:  # noqa: ARG002
        return {}

    def send(self, target: Mapping[str, Any], about: str, text: str) -> str:  # noqa: ARG002
        return "kept here, sent nowhere"
