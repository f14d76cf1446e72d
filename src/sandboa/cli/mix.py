"""`sandboa mix`: water for a mass of dry medium."""

import argparse
import json

from sandboa.core.errors import NotPlausible
from sandboa.core.units import parse_mass, parse_volume
from sandboa.core.water.mixing import dry_mass_from_volume, mix


def add_arguments(command: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    command.add_argument("--medium", required=True)
    command.add_argument("--mass", metavar="200g", help="dry mass, with g or oz")
    command.add_argument("--volume", metavar="2l", help="dry volume instead: rough, weighing wins")
    command.add_argument("--ratio", type=float, help="g of water per g of dry medium")
    command.add_argument("--json", action="store_true", help="print JSON")


def run(asked: argparse.Namespace) -> int:
    """Print the water to mix in."""
    if (asked.mass is None) == (asked.volume is None):
        raise NotPlausible("mass", "give either --mass or --volume")
    rough = dry_mass_from_volume(asked.medium, parse_volume(asked.volume)) if asked.volume else None
    mixed = mix(asked.medium, rough.mass_g if rough else parse_mass(asked.mass), asked.ratio)
    if asked.json:
        told = {
            "medium": mixed.medium,
            "dry_mass_g": round(mixed.dry_mass_g, 3),
            "ratio": mixed.ratio,
            "water_g": round(mixed.water_g, 3),
            "total_g": round(mixed.total_g, 3),
        }
        if rough:
            told |= {"dry_low_g": round(rough.low_g, 3), "dry_high_g": round(rough.high_g, 3)}
        print(json.dumps(told))
        return 0
    print(
        f"{mixed.dry_mass_g:g} g {mixed.medium} + {mixed.water_g:g} g water "
        f"= {mixed.total_g:g} g (1 : {mixed.ratio:g} by weight)"
    )
    if rough:
        print(f"from volume: {rough.low_g:g} to {rough.high_g:g} g dry, weigh it if you can")
    return 0
