"""The house as it stands: current facts and reading series, kept while they hold.

Screens ask many questions of the same facts. They are read once and held
until an act is recorded; a new reading costs its own row, not the season's.
"""

from collections import defaultdict
from dataclasses import dataclass, field
from threading import Lock
from typing import TypeVar

import numpy as np

from sandboa.core.development import ReadingSeries, SetPoints
from sandboa.core.development.clock import FloatArray
from sandboa.journal.cabinets import set_points
from sandboa.journal.herd import Herd, read_herd
from sandboa.records import readings
from sandboa.records.clutches import Box, Candling, Clutch, Egg, EggEvent, Turgor, Watering
from sandboa.records.facts import Fact, newest_act
from sandboa.records.house import Animal, Cabinet, Probe, SetPoint, Shelf
from sandboa.records.methods import ClutchMethod

FactT = TypeVar("FactT", bound=Fact)


@dataclass(frozen=True)
class Facts:
    """Current facts by entity or by what they belong to."""

    version: int
    animals: dict[int, Animal]
    cabinets: dict[int, Cabinet]
    shelves: dict[int, Shelf]
    set_points: dict[int, SetPoints]
    probes: dict[int, Probe]
    probes_at: dict[int, list[Probe]]
    clutches: list[Clutch]
    boxes: dict[int, Box]
    eggs: dict[int, list[Egg]]
    methods: dict[int, ClutchMethod]
    turgor: dict[int, list[Turgor]]
    candlings: dict[int, list[Candling]]
    egg_events: dict[int, list[EggEvent]]
    waterings: dict[int, list[Watering]]


@dataclass
class _HeldSeries:
    version: int
    readings: int
    series: ReadingSeries


@dataclass
class HouseNow:
    """Answers with current facts and series; safe to share between threads."""

    _facts: Facts | None = None
    _herd: tuple[int, Herd] | None = None
    _series: dict[int, _HeldSeries] = field(default_factory=dict)
    _lock: Lock = field(default_factory=Lock)

    def facts(self) -> Facts:
        """Everything that holds now; read again only after a new act."""
        version = newest_act()
        held = self._facts
        if held is None or held.version != version:
            held = self._facts = _read_facts(version)
        return held

    def herd(self) -> Herd:
        """The animals as they stand; read again only after a new act."""
        version = newest_act()
        held = self._herd
        if held is None or held[0] != version:
            held = self._herd = (version, read_herd())
        return held[1]

    def series(self, probe: int, version: int) -> ReadingSeries:
        """All readings of a probe as of `version`, that of the facts it is used with.

        New readings at the end are appended to what is held.
        """
        with self._lock:
            held = self._series.get(probe)
            if held is not None and held.version == version:
                return held.series
            fresh = self._extended(probe, held) if held else None
            times, values = fresh or readings.series(probe)
            series = ReadingSeries(times, values)
            self._series[probe] = _HeldSeries(version, len(times), series)
            return series

    def _extended(self, probe: int, held: _HeldSeries) -> tuple[FloatArray, FloatArray] | None:
        """The held series with what came after it; None when it changed before its end."""
        if held.readings == 0 or readings.withdrawn_since(probe, held.version):
            return None
        times, values = readings.series(probe, after_s=int(held.series.times_s[-1]))
        if held.readings + len(times) != readings.count(probe):
            return None
        if len(times) == 0:
            return held.series.times_s, held.series.temperature_c
        return (
            np.concatenate([held.series.times_s, times]),
            np.concatenate([held.series.temperature_c, values]),
        )


def _read_facts(version: int) -> Facts:
    set_point_rows = _grouped(SetPoint, "cabinet")
    probes = Probe.current()
    return Facts(
        version=version,
        animals=_by_entity(Animal),
        cabinets=_by_entity(Cabinet),
        shelves=_by_entity(Shelf),
        set_points={
            cabinet: set_points(sorted(rows, key=lambda r: r.from_s))
            for cabinet, rows in set_point_rows.items()
        },
        probes={p.entity: p for p in probes},
        probes_at=_by(probes, "place"),
        clutches=sorted(Clutch.current(), key=lambda c: (c.laid_s, c.code)),
        boxes={b.clutch: b for b in Box.current()},
        eggs=_grouped(Egg, "clutch", order="number"),
        methods={m.clutch: m for m in ClutchMethod.current()},
        turgor=_grouped(Turgor, "egg", order="seen_s"),
        candlings=_grouped(Candling, "egg", order="seen_s"),
        egg_events=_grouped(EggEvent, "egg", order="at_s"),
        waterings=_grouped(Watering, "box", order="poured_s"),
    )


def _by_entity(table: type[FactT]) -> dict[int, FactT]:
    return {row.entity: row for row in table.current()}


def _grouped(table: type[FactT], owner: str, order: str = "id") -> dict[int, list[FactT]]:
    return _by(sorted(table.current(), key=lambda r: (getattr(r, order), r.id)), owner)


def _by(rows: list[FactT], owner: str) -> dict[int, list[FactT]]:
    groups: dict[int, list[FactT]] = defaultdict(list)
    for row in rows:
        groups[getattr(row, owner)].append(row)
    return dict(groups)
