"""What goes wrong over days in the cabinets: off target, slowly warmer, drier; notices only."""

from collections import defaultdict
from collections.abc import Iterator, Sequence
from functools import partial

import numpy as np

from sandboa.core.climate.slow_limits import (
    DAYS_BACK,
    SLOW_CHANGE_DAYS,
    days_off,
    dry_air_in_box,
    humidity_fall,
    lasting_off,
    slow_change_c,
)
from sandboa.core.messages import Difference, Message, Share
from sandboa.core.units import SECONDS_PER_DAY, SECONDS_PER_HOUR
from sandboa.records.house import Cabinet, Probe
from sandboa.services.alarms.trouble import Severity, Trouble
from sandboa.services.probes.calibrated_readings import record_of, with_humidity_offset
from sandboa.services.snapshot.snapshot import Snapshot

#: A probe and the place (cabinet, shelf or box) it hangs in.
Hanging = tuple[Probe, int]


def slow_troubles(
    snapshot: Snapshot, cabinet: Cabinet, hanging: Sequence[Hanging], now_s: float
) -> list[Trouble]:
    """Troubles of a cabinet that took days to come; worked out once an hour."""
    stamp = (snapshot.version, int(now_s // SECONDS_PER_HOUR))
    return snapshot.kept.held(
        f"slow troubles of {cabinet.entity_id}",
        stamp,
        partial(_looked, snapshot, cabinet, hanging, now_s),
    )


def _looked(
    snapshot: Snapshot, cabinet: Cabinet, hanging: Sequence[Hanging], now_s: float
) -> list[Trouble]:
    return [
        *_of_temperature(snapshot, cabinet, hanging, now_s),
        *_of_humidity(snapshot, cabinet, hanging, now_s),
    ]


def _of_temperature(
    snapshot: Snapshot, cabinet: Cabinet, hanging: Sequence[Hanging], now_s: float
) -> Iterator[Trouble]:
    set_points = snapshot.cabinet(cabinet.entity_id).set_points
    rules = snapshot.settings.rules.climate
    if set_points is None:
        return
    #: By what is wrong: the probes it shows in, with how far (°C) and since when (s).
    off: dict[str, list[tuple[str, float, float]]] = defaultdict(list)
    for probe, place in hanging:
        series = record_of(snapshot, probe, place, now_s - DAYS_BACK * SECONDS_PER_DAY, now_s)
        days = days_off(series, set_points, now_s)
        lasting, change_c = lasting_off(days, rules), slow_change_c(days, rules)
        if lasting is not None:
            kind = "warm for days" if lasting.off_c > 0 else "cool for days"
            since_s = now_s - lasting.days * SECONDS_PER_DAY
            off[kind].append((probe.name, lasting.off_c, since_s))
        elif change_c is not None:
            kind = "slowly warmer" if change_c > 0 else "slowly cooler"
            since_s = now_s - SLOW_CHANGE_DAYS * SECONDS_PER_DAY
            off[kind].append((probe.name, change_c, since_s))
    for kind, found in off.items():
        since_s = min(since_s for _, _, since_s in found)
        most = Difference(max(abs(off_c) for _, off_c, _ in found), 1)
        probes = ", ".join(name for name, _, _ in found)
        words = _temperature_words(kind, probes, most, round((now_s - since_s) / SECONDS_PER_DAY))
        yield Trouble(kind, Severity.NOTICE, cabinet.entity_id, None, words, since_s)


def _temperature_words(kind: str, probes: str, off: Difference, days: int) -> Message:
    match kind:
        case "warm for days":
            return Message(
                "{probes}: {off} above the set point for {days} days. Forecasts use what is "
                "measured; lower the set point if you did not mean it",
                probes=probes, off=off, days=days,
            )  # fmt: skip
        case "cool for days":
            return Message(
                "{probes}: {off} below the set point for {days} days. Forecasts use what is "
                "measured; raise the set point if you did not mean it",
                probes=probes, off=off, days=days,
            )  # fmt: skip
        case "slowly warmer":
            return Message(
                "{probes}: {off} warmer than two weeks ago, bit by bit: the room, the "
                "thermostat, or eggs late in term",
                probes=probes, off=off,
            )  # fmt: skip
        case _:
            return Message(
                "{probes}: {off} cooler than two weeks ago, bit by bit: the room, the "
                "thermostat, or a heater that tires",
                probes=probes, off=off,
            )  # fmt: skip


def _of_humidity(
    snapshot: Snapshot, cabinet: Cabinet, hanging: Sequence[Hanging], now_s: float
) -> Iterator[Trouble]:
    rules = snapshot.settings.rules.climate
    for probe, place in hanging:
        since_s = max(_hung_since_s(snapshot, probe), now_s - DAYS_BACK * SECONDS_PER_DAY)
        times, _, humidity = snapshot.readings.single(probe.entity_id, since_s, now_s).T
        if not len(humidity) or np.isnan(humidity).all():
            continue
        moved = partial(_moved, snapshot, probe, now_s)
        if place in snapshot.boxes:
            dry = dry_air_in_box(times, moved(humidity), now_s, rules)
            if dry is not None:
                yield Trouble(
                    "dry air", Severity.NOTICE, cabinet.entity_id, probe.entity_id,
                    Message(
                        "{probe}: the air in the box is at {now}, under {least}: is it shut, and "
                        "is the medium damp?",
                        probe=probe.name, now=Share(dry), least=Share(rules.dry_box_below),
                    ),
                    now_s - SECONDS_PER_DAY / 8.0,
                )  # fmt: skip
        elif (fell := humidity_fall(times, moved(humidity), now_s, rules)) is not None:
            yield Trouble(
                "drier air", Severity.NOTICE, cabinet.entity_id, probe.entity_id,
                Message(
                    "{probe}: humidity fell from {before} to {now}: boxes dry faster, weigh them",
                    probe=probe.name, before=Share(fell.before), now=Share(fell.now),
                ),
                now_s - SECONDS_PER_DAY,
            )  # fmt: skip


def _moved(snapshot: Snapshot, probe: Probe, now_s: float, humidity: np.ndarray) -> np.ndarray:
    """Humidity as it counts by the probe's last salt test, within 0 to 1."""
    offset = with_humidity_offset(snapshot, probe, 0.5, now_s) - 0.5
    return np.clip(humidity + offset, 0.0, 1.0)


def _hung_since_s(snapshot: Snapshot, probe: Probe) -> float:
    return float(snapshot.probe(probe.entity_id).locations.from_s[-1])
