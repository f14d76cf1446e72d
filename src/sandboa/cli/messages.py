"""`sandboa messages`: every template of what is said to a keeper, for whoever translates it."""

import argparse
import json

from sandboa.words.catalogue import templates


def add_arguments(command: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    command.add_argument("--json", action="store_true", help="print JSON")


def run(asked: argparse.Namespace) -> int:
    """Print each template once, with where it is said and what stands in its places."""
    found = templates()
    if asked.json:
        told = [
            {"template": t.text, "said_in": list(t.places), "values": dict(t.values)} for t in found
        ]
        print(json.dumps(told, ensure_ascii=False, indent=1))
        return 0
    for template in found:
        print(f"{template.text}\n    {', '.join(template.places)}")
    return 0
