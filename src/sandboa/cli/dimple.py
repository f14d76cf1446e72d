"""`sandboa dimple`: is this dent normal at this stage, and is it the egg or the box?"""

import argparse
import json

from sandboa.core.dimples import BoxDents, EggTurgor, advice, judge_egg


def add_arguments(command: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    command.add_argument(
        "--development", required=True, type=float, metavar="0.45", help="share developed, 0-2"
    )
    command.add_argument("--grade", required=True, type=int, metavar="2", help="turgor grade 0-4")
    command.add_argument("--live-eggs", type=int, default=1, help="live eggs in the box")
    command.add_argument("--eggs-as-bad", type=int, default=1, help="early eggs, this one included")
    command.add_argument(
        "--rough", "--thin-shell", dest="rough", action="store_true", help="rough or windowed shell"
    )
    command.add_argument(
        "--water-short", action="store_true", help="by weight, feel or lid the box lacks water"
    )
    command.add_argument("--rose-fast", action="store_true", help="up 2 grades within 7 days")
    command.add_argument("--json", action="store_true", help="print JSON")


def run(asked: argparse.Namespace) -> int:
    """Print the judgement of rule B."""
    judged = judge_egg(
        asked.development,
        EggTurgor("1", asked.grade, asked.rough, asked.rose_fast),
        BoxDents(asked.live_eggs, asked.eggs_as_bad, asked.water_short),
    )
    words = advice(judged, asked.grade, early_eggs=asked.eggs_as_bad, live_eggs=asked.live_eggs)
    if asked.json:
        told = {
            "allowed_grade": judged.allowed_grade,
            "excess": judged.excess,
            "scope": judged.scope,
            "urgency": judged.urgency,
            "advice": words,
        }
        print(json.dumps(told))
    else:
        print(words)
    return 0
