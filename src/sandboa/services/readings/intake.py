"""What devices send: stored at once and for good, or held back where its time cannot be."""

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from sandboa.core.act_kinds import ActKind
from sandboa.core.errors import NotPlausible
from sandboa.records import held_readings, readings
from sandboa.records.database import transaction
from sandboa.records.facts import Act
from sandboa.records.held_readings import Held
from sandboa.records.house import Device, Probe
from sandboa.records.readings import Batch, ReadingRow
from sandboa.services.acts.recording import act
from sandboa.services.probes.commands import find_probe
from sandboa.services.readings.commands import LOGGER_GRACE_S

#: s by which held readings may be moved: a logger's calendar can be years off.
_MOST_SHIFT_S: Final = 60 * 365.25 * 86_400

#: (probe's name, or None for a device's only one; time s; °C; humidity 0-1 or None)
SentReading = tuple[str | None, int, float, float | None]


@dataclass(frozen=True, slots=True)
class TakenIn:
    """What became of a delivery: counts of rows."""

    new: int
    known: int
    conflicting: int
    held: int


def take_in(
    device: Device, sent: Sequence[SentReading], now_s: float, sent_s: float | None = None
) -> TakenIn:
    """Store a delivery, in any order, in one transaction: all of it or nothing.

    The same delivery again changes nothing. A time already stored keeps its
    first value. Held back and shown are: readings more than 5 minutes ahead
    of now, those from before the probe first hung, and a whole delivery whose
    `sent_s`, the sender's own now, is off by more than that. Raises
    NotPlausible for a probe that is not this device's.
    """
    off_s = 0.0 if sent_s is None else sent_s - now_s
    return take_in_of_probes(_by_probe(device, sent), now_s, off_s)


def take_in_of_probes(
    by_probe: Mapping[Probe, list[ReadingRow]], now_s: float, off_s: float = 0.0
) -> TakenIn:
    """As `take_in`, of rows of known probes; the sender's clock is off by `off_s`."""
    new = known = conflicting = held = 0
    with transaction():
        for probe, rows in by_probe.items():
            fitting, doubtful = _sorted_out(probe, rows, now_s, off_s)
            stored = readings.store(probe.entity_id, readings.LIVE, fitting, now_s)
            for reason, (reason_rows, reason_off_s) in doubtful.items():
                held_readings.hold(probe.entity_id, reason_rows, now_s, reason, reason_off_s)
                held += len(reason_rows)
            new, known = new + stored.new, known + stored.known
            conflicting += len(stored.conflicting)
    return TakenIn(new, known, conflicting, held)


def _sorted_out(
    probe: Probe, rows: list[ReadingRow], now_s: float, off_s: float
) -> tuple[list[ReadingRow], dict[str, tuple[list[ReadingRow], float]]]:
    """Rows whose time can be, and by reason those whose time cannot, with how far off it seems."""
    if abs(off_s) > LOGGER_GRACE_S:
        reason = held_readings.AHEAD if off_s > 0 else held_readings.BEHIND
        return [], {reason: (rows, off_s)}
    latest_s, since_s = now_s + LOGGER_GRACE_S, probe.since_s
    times = [row[0] for row in rows]
    if not times or (since_s <= min(times) and max(times) <= latest_s):
        return rows, {}
    doubtful = {
        # The newest of them is taken to be of now.
        held_readings.AHEAD: ([r for r in rows if r[0] > latest_s], max(times) - now_s),
        held_readings.BEFORE: ([r for r in rows if r[0] < since_s], 0.0),
    }
    fitting = [row for row in rows if since_s <= row[0] <= latest_s]
    return fitting, {reason: told for reason, told in doubtful.items() if told[0]}


def take_in_as_said(device: Device, sent: Sequence[SentReading], now_s: float) -> TakenIn:
    """As `take_in`, of a device that knows nothing of Sandboa: what it calls its only sensor need
    not be what the keeper calls its only probe."""
    own = {probe.name.casefold() for probe in Probe.current(device_id=device.entity_id)}
    called = {name.casefold() for name, *_ in sent if name}
    if len(own) == 1 and len(called) == 1 and not called & own:
        sent = [(None, *rest) for _, *rest in sent]  # type: ignore[misc]
    return take_in(device, sent, now_s)


def held() -> list[Held]:
    """Everything that is held back and waits for a decision, by probe."""
    return held_readings.held()


def let_in(probe_entity: int, reason: str, shift_s: float, now_s: float) -> Act:
    """Take held readings in with every time moved by `shift_s`, as one act that can be undone.

    Those held because the probe did not hang yet say that it did: it is
    recorded as hanging there since the first of them. Raises NotPlausible
    when after the move any of them would still lie ahead, or before the probe
    hung, or when nothing is held.
    """
    probe = find_probe(probe_entity)
    waiting = _waiting(probe, reason)
    if abs(shift_s) > _MOST_SHIFT_S:
        raise NotPlausible("shift_s", "that is more than 60 years")
    shift = round(shift_s)
    if waiting.last_s + shift > now_s + LOGGER_GRACE_S:
        raise NotPlausible("shift_s", "moved like this the last of them still lies ahead of now")
    hung_earlier = reason == held_readings.BEFORE and waiting.first_s + shift < probe.since_s
    if waiting.first_s + shift < probe.since_s and not hung_earlier:
        raise NotPlausible(
            "shift_s", f"moved like this the first lies before {probe.name} hung there"
        )
    what = f"{waiting.count:,} readings" if waiting.count != 1 else "1 reading"
    why = "it hung there by then" if hung_earlier else "clock put right"
    with act(ActKind.READINGS, f"{what} of {probe.name} let in, {why}", now_s) as letting:
        if hung_earlier:
            probe.correct(letting, since_s=waiting.first_s + shift)
        batch = Batch.record(letting, probe_id=probe_entity, source="held", file_name="")
        held_readings.let_in(probe_entity, reason, batch, shift)
    return letting


def drop_held(probe_entity: int, reason: str, now_s: float) -> Act:
    """Decide against held readings: they stay kept aside, and undoing this shows them again."""
    probe = find_probe(probe_entity)
    waiting = _waiting(probe, reason)
    with act(
        ActKind.READINGS, f"{waiting.count:,} held readings of {probe.name} discarded", now_s
    ) as a:
        batch = Batch.record(a, probe_id=probe_entity, source="held", file_name="")
        held_readings.drop(probe_entity, reason, batch)
    return a


def _waiting(probe: Probe, reason: str) -> held_readings.Held:
    for waiting in held_readings.held():
        if (waiting.probe_id, waiting.reason) == (probe.entity_id, reason):
            return waiting
    raise NotPlausible("reason", f"nothing of {probe.name} is held back for that")


def _by_probe(device: Device, sent: Iterable[SentReading]) -> dict[Probe, list[ReadingRow]]:
    own = {p.name.casefold(): p for p in Probe.current(device_id=device.entity_id)}
    rows: dict[str, list[ReadingRow]] = defaultdict(list)
    for name, at_s, temperature_c, humidity in sent:
        rows[name or ""].append((at_s, temperature_c, humidity))
    only = next(iter(own)) if len(own) == 1 else None
    if "" in rows and only is None:
        have = "has no probe yet" if not own else "has more than one"
        raise NotPlausible("probe", f"which probe? Device {device.name} {have}")
    grouped: dict[Probe, list[ReadingRow]] = {}
    for name, own_rows in rows.items():
        probe = own.get(name.casefold() or only or "")
        if probe is None:
            known = ", ".join(sorted(p.name for p in own.values())) or "none yet"
            raise NotPlausible(
                "probe", f'device {device.name} has no probe "{name[:60]}"; it has: {known}'
            )
        grouped.setdefault(probe, []).extend(own_rows)
    return grouped
