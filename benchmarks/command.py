"""What the command costs before it answers: processor time against an empty Python's."""

import resource
import subprocess
import sys
from collections.abc import Sequence
from typing import Final

#: Runs of each; the cheapest counts, for only what the machine does besides is above it.
_RUNS: Final = 7
#: The command, and how many times an empty Python it may cost.
_AIMS: Final[tuple[tuple[tuple[str, ...], float], ...]] = (
    (("--version",), 6.0),
    (("mix", "--medium", "perlite", "--mass", "200g"), 15.0),
    (("dimple", "--development", "0.4", "--grade", "2"), 15.0),
    (
        ("forecast", "--laid", "2026-03-01T09:00+00:00", "--set-point", "31.5C", "--eggs", "6",
         "--as-of", "2026-04-01T09:00+00:00"),
        40.0,
    ),
)  # fmt: skip


def report() -> str:
    """The table that `./do bench command` prints."""
    empty_s = _processor_s(["-c", "pass"])
    lines = [f"An empty Python takes {empty_s:.3f} s of processor.", ""]
    for arguments, aim in _AIMS:
        ratio = _processor_s(["-m", "sandboa", *arguments]) / empty_s
        verdict = "" if ratio <= aim else "  ABOVE ITS AIM"
        lines.append(f"sandboa {arguments[0]:<10} {ratio:5.1f} times that; aim {aim:g}{verdict}")
    return "\n".join(lines)


def _processor_s(arguments: Sequence[str]) -> float:
    """The least processor time of several runs, user and system, s."""
    return min(_once(arguments) for _ in range(_RUNS))


def _once(arguments: Sequence[str]) -> float:
    before = resource.getrusage(resource.RUSAGE_CHILDREN)
    subprocess.run([sys.executable, *arguments], check=True, stdout=subprocess.DEVNULL)
    after = resource.getrusage(resource.RUSAGE_CHILDREN)
    return after.ru_utime + after.ru_stime - before.ru_utime - before.ru_stime
