"""Alarms: raised, told, acknowledged, ended; and the messages that carry them out."""

import json
import math
from collections.abc import Mapping
from typing import Any

import pytest

from samples import DAY_S, NOW_S, lay_day
from sandboa.core.errors import NotPlausible
from sandboa.journal import cabinet_faults
from sandboa.journal.acts import undo
from sandboa.journal.cabinet_faults import FaultsNow
from sandboa.journal.cabinets import CabinetKind, CabinetSaid, add_cabinet
from sandboa.journal.devices import add_device
from sandboa.journal.errors import Conflict, NotFound
from sandboa.journal.house_now import HouseNow
from sandboa.journal.intake import take_in
from sandboa.journal.lay_day import lay_clutch
from sandboa.journal.messages import (
    REPEAT_S,
    RETRY_S,
    MessengerSaid,
    NotSent,
    add_messenger,
    correct_messenger,
    deliver,
    remove_messenger,
)
from sandboa.journal.probes import ProbePlace, hang_probe
from sandboa.journal.watch import acknowledge, look, watch
from sandboa.records.alarms import Alarm, Message, Messenger, open_alarms
from sandboa.records.house import Device

HOUR_S = 3600.0


class Room:
    """North with one probe; `feed` sends its readings up to a time."""

    def __init__(self, house: HouseNow, eggs: bool = True) -> None:
        self.house, self.faults = house, FaultsNow()
        lay_clutch(lay_day(cabinet="North" if eggs else "Small"), NOW_S - 9 * DAY_S)
        lay_clutch(lay_day(dam="Tansy", cabinet="North" if eggs else "Small"), NOW_S - 9 * DAY_S)
        if not eggs:
            add_cabinet(
                CabinetSaid("North", CabinetKind.BOUGHT, ("lower",)),
                31.5, NOW_S - 9 * DAY_S, NOW_S,
            )  # fmt: skip
        self.device: Device = add_device("Gateway", NOW_S).device
        hang_probe("Lower", ProbePlace(cabinet="North", shelf="lower"), NOW_S - 9 * DAY_S, NOW_S,
                   device=self.device.entity)  # fmt: skip
        self.fed_s, self.last_c = NOW_S - 8 * DAY_S, 31.5

    def feed(self, hours: float, degrees: float) -> None:
        until_s = self.fed_s + hours * HOUR_S
        times = range(int(self.fed_s), int(until_s), 300)
        # No cabinet jumps: it goes there within an hour.
        away = self.last_c - degrees
        wave = [
            degrees + away * math.exp(-(t - self.fed_s) / 900) + 0.01 * ((t // 300) % 5)
            for t in times
        ]
        self.last_c = degrees
        take_in(
            self.device, [(None, t, c, None) for t, c in zip(times, wave, strict=True)], until_s
        )
        self.fed_s = until_s

    def watch(self) -> Any:
        return watch(self.house, self.faults, self.fed_s)

    def raised(self, kind: str) -> Any:
        """The alarm of that kind which a look raises; a wide swing comes with every leap."""
        (found,) = (alarm for alarm in self.watch().raised if alarm.kind == kind)
        return found


@pytest.fixture
def room(house: HouseNow) -> Room:
    room = Room(house)
    room.feed(48, 31.5)
    return room


def test_an_alarm_is_raised_once_and_ends_when_it_is_over(room: Room) -> None:
    assert not room.watch()
    room.feed(2, 34.2)
    raised = room.raised("harm")
    assert raised.severity == "alarm"
    assert "above 33.5 °C" in raised.text
    room.feed(2, 34.2)
    assert not room.watch()
    room.feed(2, 31.5)
    (ended,) = (a for a in room.watch().ended if a.kind == "harm")
    assert ended.ended_s == int(room.fed_s)
    assert Alarm.select().where(Alarm.kind == "harm").count() == 1


def test_an_emergency_follows_the_hours(room: Room) -> None:
    room.feed(5.9, 35.6)
    assert {a.severity for a in room.watch().raised} == {"alarm", "notice"}
    room.feed(2, 35.6)
    assert room.raised("hot emergency").severity == "emergency"


def test_a_silent_probe_is_a_notice_that_ends_when_it_speaks(room: Room) -> None:
    assert not room.watch()
    room.fed_s += 3 * HOUR_S
    (raised,) = room.watch().raised
    assert (raised.kind, raised.severity) == ("unplugged", "notice")
    assert raised.text.startswith("Lower: no reading for 2 h")
    room.feed(1, 31.5)
    assert [a.kind for a in room.watch().ended] == ["unplugged"]


def test_a_cabinet_without_eggs_raises_nothing_but_notices(house: HouseNow) -> None:
    room = Room(house, eggs=False)
    room.feed(48, 31.5)
    room.feed(2, 37.9)
    troubles = look(house, room.faults, room.fed_s)
    assert troubles
    assert {t.severity for t in troubles} == {"notice"}
    assert any("no eggs in it" in t.text for t in troubles)


def test_an_acknowledged_alarm_stays_open_and_in_the_log(room: Room) -> None:
    room.feed(2, 34.2)
    raised = room.raised("harm")
    seen = acknowledge(raised.id, room.fed_s)
    with pytest.raises(Conflict):
        acknowledge(raised.id, room.fed_s)
    with pytest.raises(NotFound):
        acknowledge(9999, room.fed_s)
    assert raised.id in [a.id for a in open_alarms()]
    undo(seen.id, room.fed_s)
    acknowledge(raised.id, room.fed_s)


class Pigeon:
    """A carrier that keeps what it is given, or refuses."""

    def __init__(self) -> None:
        self.carried: list[tuple[str, str]] = []
        self.refuses = False

    def check(self, target: Mapping[str, Any]) -> dict[str, Any]:
        return dict(target)

    def send(self, target: Mapping[str, Any], about: str, text: str) -> str:
        if self.refuses:
            raise NotSent("lost its way")
        self.carried.append((about, text))
        return "arrived"


@pytest.fixture
def pigeon(room: Room) -> Pigeon:
    return Pigeon()


def said(**changes: Any) -> MessengerSaid:
    values = {"kind": "shelf", "name": "Pigeon", "zone": "UTC", "target": {}, **changes}
    return MessengerSaid(**values)


def test_an_alarm_is_told_once_an_emergency_until_it_is_acknowledged(
    room: Room, pigeon: Pigeon
) -> None:
    carriers = {"shelf": pigeon}
    add_messenger(said(), carriers, NOW_S)
    room.feed(9, 35.6)
    room.watch()
    deliver(carriers, room.fed_s)
    about = [a for a, _ in pigeon.carried]
    assert len(about) == 3
    assert sum("emergency" in a for a in about) == 1
    assert deliver(carriers, room.fed_s + 60) == 0
    assert deliver(carriers, room.fed_s + REPEAT_S) == 1
    assert "too hot for eggs" in pigeon.carried[-1][1]
    emergency = next(a for a in open_alarms() if a.severity == "emergency")
    acknowledge(emergency.id, room.fed_s)
    assert deliver(carriers, room.fed_s + 5 * REPEAT_S) == 0


def test_quiet_hours_hold_back_all_but_emergencies(room: Room, pigeon: Pigeon) -> None:
    """20:30 in Berlin when the readings end; quiet from 20:00 to 06:00 there."""
    carriers = {"shelf": pigeon}
    night = said(zone="Europe/Berlin", quiet_from_min=20 * 60, quiet_until_min=6 * 60)
    add_messenger(night, carriers, NOW_S)
    room.feed(2, 34.2)
    room.watch()
    evening_s = NOW_S - 6 * DAY_S
    assert deliver(carriers, evening_s) == 0
    # The alarm, and the notice that it swung so far within a day.
    assert deliver(carriers, evening_s + 10 * HOUR_S) == 2
    room.feed(8, 35.6)
    room.watch()
    assert deliver(carriers, evening_s + DAY_S) == 1
    assert "emergency" in pigeon.carried[-1][0]


def test_what_could_not_be_sent_is_noted_and_tried_again(room: Room, pigeon: Pigeon) -> None:
    carriers = {"shelf": pigeon}
    add_messenger(said(), carriers, NOW_S)
    room.feed(2, 34.2)
    room.watch()
    pigeon.refuses = True
    assert deliver(carriers, room.fed_s) == 0
    assert [(m.sent, m.outcome) for m in Message.select()] == [(0, "lost its way")] * 2
    pigeon.refuses = False
    assert deliver(carriers, room.fed_s + RETRY_S / 2) == 0
    assert deliver(carriers, room.fed_s + RETRY_S) == 2


def test_messengers_are_corrected_with_their_secrets_kept_and_removed(pigeon: Pigeon) -> None:
    carriers = {"shelf": pigeon}
    add_messenger(said(target={"url": "a", "secret": "s"}), carriers, NOW_S)
    with pytest.raises(Conflict):
        add_messenger(said(name="pigeon"), carriers, NOW_S)
    (held,) = Messenger.current()
    correct_messenger(held.entity, said(target={"url": "b", "secret": ""}), carriers, NOW_S)
    (held,) = Messenger.current()
    assert json.loads(held.target) == {"url": "b", "secret": "s"}
    remove_messenger(held.entity, NOW_S)
    with pytest.raises(NotFound):
        remove_messenger(held.entity, NOW_S)


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        ({"zone": "Atlantis/City"}, "zone"),
        ({"kind": "drum"}, "kind"),
        ({"quiet_from_min": 60}, "quiet_until_min"),
    ],
)
def test_messengers_that_cannot_be_are_refused(pigeon: Pigeon, changes, field) -> None:
    with pytest.raises(NotPlausible) as refused:
        add_messenger(said(**changes), {"shelf": pigeon}, NOW_S)
    assert refused.value.field == field


def test_readings_elsewhere_do_not_have_a_cabinet_looked_through_again(
    house: HouseNow, monkeypatch
) -> None:
    """Twelve loggers that post apart would have every cabinet recognised twelve times a minute."""
    room = Room(house)
    room.feed(24 * 8, 31.5)
    add_cabinet(CabinetSaid("Far", CabinetKind.BOUGHT, ("one",)), 31.5, NOW_S - DAY_S, NOW_S)
    hang_probe("Far", ProbePlace(cabinet="Far"), NOW_S - DAY_S, NOW_S, device=room.device.entity)
    recognised: list[str] = []
    known = cabinet_faults._recognised

    def counted(house, facts, cabinet, until_s, days):
        recognised.append(cabinet.name)
        return known(house, facts, cabinet, until_s, days)

    monkeypatch.setattr(cabinet_faults, "_recognised", counted)
    facts = house.facts()
    north, far = (next(c for c in facts.cabinets.values() if c.name == n) for n in ("North", "Far"))
    at_s = NOW_S // 300 * 300 + 10
    for cabinet in (north, far):
        room.faults.of(house, facts, cabinet, at_s)
    take_in(room.device, [("Far", int(at_s), 31.0, None)], at_s)
    for cabinet in (north, far):
        room.faults.of(house, facts, cabinet, at_s + 5)
    assert recognised == ["North", "Far", "Far"]
    # The watch waits a little for what shows only over many minutes.
    take_in(room.device, [("Far", int(at_s) + 6, 31.0, None)], at_s + 6)
    room.faults.of(house, facts, far, at_s + 6, patience_s=55.0)
    assert recognised == ["North", "Far", "Far"]
    room.faults.of(house, facts, far, at_s + 66, patience_s=55.0)
    assert recognised[3:] == ["Far"]
