"""The probe that a command names."""

import argparse

from sandboa.cli.house_folder import existing
from sandboa.core.errors import NotPlausible
from sandboa.records.database import open_database
from sandboa.records.house import Probe, named


def open_at_probe(asked: argparse.Namespace) -> Probe:
    """Open the house and find its probe; NotPlausible with the names there are."""
    open_database(existing(asked))
    return probe_called(asked.probe)


def probe_called(name: str) -> Probe:
    """The probe of the open house with that name; NotPlausible with the names there are."""
    probe = named(Probe, name)
    if probe is None:
        known = ", ".join(sorted(p.name for p in Probe.current())) or "none yet"
        raise NotPlausible("probe", f'no probe "{name[:60]}" in this house; there is: {known}')
    return probe
