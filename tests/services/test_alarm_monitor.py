"""Alarms: raised, told, acknowledged, ended; and the messages that carry them out."""

import itertools
import json
import math
import re
from collections.abc import Mapping
from typing import Any

import pytest

from samples import DAY_S, NOW_S, lay_day
from sandboa.core.errors import NotPlausible
from sandboa.records.alarms import Alarm, Messenger, SentMessage, open_alarms
from sandboa.records.house import Device
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.recording import undo
from sandboa.services.alarms.delivery import (
    REPEAT_S,
    RETRY_S,
    NotSent,
    Post,
    deliver,
    state_of,
    target_of,
)
from sandboa.services.alarms.messengers import (
    MessengerCommand,
    add_messenger,
    correct_messenger,
    remove_messenger,
)
from sandboa.services.alarms.monitor import acknowledge, update_alarms
from sandboa.services.alarms.trouble import Severity
from sandboa.services.alarms.troubles import DEAD_LOGGER_S, look
from sandboa.services.cabinets.commands import (
    CabinetCommand,
    CabinetKind,
    add_cabinet,
    change_set_point,
)
from sandboa.services.climate import faults
from sandboa.services.lay_day import lay_clutch
from sandboa.services.overview.today import today
from sandboa.services.probes.commands import ProbePlace, hang_probe
from sandboa.services.probes.devices import add_device
from sandboa.services.readings.commands import store_readings
from sandboa.services.readings.intake import take_in
from sandboa.services.snapshot.cache import SnapshotCache
from sandboa.services.snapshot.settings import set_setting
from sandboa.words import to_reader

HOUR_S = 3600.0


class Room:
    """North with one probe; `feed` sends its readings up to a time."""

    def __init__(self, house: SnapshotCache, eggs: bool = True) -> None:
        self.house = house
        lay_clutch(lay_day(cabinet="North" if eggs else "Small"), NOW_S - 9 * DAY_S)
        lay_clutch(lay_day(dam="Tansy", cabinet="North" if eggs else "Small"), NOW_S - 9 * DAY_S)
        if not eggs:
            add_cabinet(
                CabinetCommand("North", CabinetKind.BOUGHT, ("lower",)),
                31.5, NOW_S - 9 * DAY_S, NOW_S,
            )  # fmt: skip
        self.device: Device = add_device("Gateway", NOW_S).device
        hang_probe("Lower", ProbePlace(cabinet="North", shelf="lower"), NOW_S - 9 * DAY_S, NOW_S,
                   device=self.device.entity_id)  # fmt: skip
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

    def look(self) -> Any:
        return update_alarms(self.house.current(), self.fed_s)

    def raised(self, kind: str) -> Any:
        """The alarm of that kind which a look raises; a wide swing comes with every leap."""
        (found,) = (alarm for alarm in self.look().raised if alarm.kind == kind)
        return found


@pytest.fixture
def room(house: SnapshotCache) -> Room:
    room = Room(house)
    room.feed(48, 31.5)
    return room


def test_an_alarm_is_raised_once_and_ends_when_it_is_over(room: Room) -> None:
    assert not room.look()
    room.feed(2, 34.2)
    raised = room.raised("harm")
    assert raised.severity == "alarm"
    assert "above 33.5 °C" in raised.text
    room.feed(2, 34.2)
    assert not room.look()
    room.feed(2, 31.5)
    (ended,) = (a for a in room.look().ended if a.kind == "harm")
    assert ended.ended_s == int(room.fed_s)
    assert Alarm.select().where(Alarm.kind == "harm").count() == 1


def test_an_emergency_follows_the_hours(room: Room) -> None:
    room.feed(5.9, 35.6)
    assert {a.severity for a in room.look().raised} == {"alarm", "notice"}
    room.feed(2, 35.6)
    assert room.raised("hot emergency").severity == "emergency"


def test_a_silent_probe_is_a_notice_that_ends_when_it_speaks(room: Room) -> None:
    assert not room.look()
    room.fed_s += 3 * HOUR_S
    (raised,) = room.look().raised
    assert (raised.kind, raised.severity) == ("unplugged", "notice")
    assert raised.text.startswith("Lower: no reading for 2 h")
    (silent,) = today(room.house.current(), room.fed_s).silent
    assert (silent.name, silent.from_files) == ("Lower", False)
    room.feed(1, 31.5)
    assert [a.kind for a in room.look().ended] == ["unplugged"]


def test_a_cabinet_without_eggs_raises_nothing_but_notices(house: SnapshotCache) -> None:
    room = Room(house, eggs=False)
    room.feed(48, 31.5)
    room.feed(2, 37.9)
    troubles = look(house.current(), room.fed_s)
    assert troubles
    assert {t.severity for t in troubles} == {"notice"}
    assert any("no eggs in it" in str(t.text) for t in troubles)


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


def said(**changes: Any) -> MessengerCommand:
    values = {"kind": "record only", "name": "Pigeon", "zone": "UTC", "target": {}, **changes}
    return MessengerCommand(**values)


def test_an_alarm_is_told_once_an_emergency_until_it_is_acknowledged(
    room: Room, pigeon: Pigeon
) -> None:
    carriers = {"record only": pigeon}
    add_messenger(said(), carriers, NOW_S)
    room.feed(9, 35.6)
    room.look()
    deliver(Post(carriers, to_reader), room.fed_s)
    about = [a for a, _ in pigeon.carried]
    assert len(about) == 3
    assert sum("emergency" in a for a in about) == 1
    assert deliver(Post(carriers, to_reader), room.fed_s + 60) == 0
    assert deliver(Post(carriers, to_reader), room.fed_s + REPEAT_S) == 1
    assert "too hot for eggs" in pigeon.carried[-1][1]
    emergency = next(a for a in open_alarms() if a.severity == "emergency")
    acknowledge(emergency.id, room.fed_s)
    assert deliver(Post(carriers, to_reader), room.fed_s + 5 * REPEAT_S) == 0


def test_quiet_hours_hold_back_all_but_emergencies(room: Room, pigeon: Pigeon) -> None:
    """20:30 in Berlin when the readings end; quiet from 20:00 to 06:00 there."""
    carriers = {"record only": pigeon}
    night = said(zone="Europe/Berlin", quiet_from_min=20 * 60, quiet_until_min=6 * 60)
    add_messenger(night, carriers, NOW_S)
    room.feed(2, 34.2)
    room.look()
    evening_s = NOW_S - 6 * DAY_S
    assert deliver(Post(carriers, to_reader), evening_s) == 0
    # The alarm, and the notice that it swung so far within a day.
    assert deliver(Post(carriers, to_reader), evening_s + 10 * HOUR_S) == 2
    room.feed(8, 35.6)
    room.look()
    assert deliver(Post(carriers, to_reader), evening_s + DAY_S) == 1
    assert "emergency" in pigeon.carried[-1][0]


def test_what_could_not_be_sent_is_noted_and_tried_again(room: Room, pigeon: Pigeon) -> None:
    carriers = {"record only": pigeon}
    add_messenger(said(), carriers, NOW_S)
    room.feed(2, 34.2)
    room.look()
    pigeon.refuses = True
    assert deliver(Post(carriers, to_reader), room.fed_s) == 0
    # The second waits with the first: a dead server is not asked for every alarm.
    assert [(m.sent, m.outcome) for m in SentMessage.select()] == [(0, "lost its way")]
    pigeon.refuses = False
    assert deliver(Post(carriers, to_reader), room.fed_s + RETRY_S / 2) == 0
    assert deliver(Post(carriers, to_reader), room.fed_s + RETRY_S) == 2


def test_messengers_are_corrected_with_their_secrets_kept_and_removed(pigeon: Pigeon) -> None:
    carriers = {"record only": pigeon}
    add_messenger(said(target={"url": "a", "secret": "s"}), carriers, NOW_S)
    with pytest.raises(Conflict):
        add_messenger(said(name="pigeon"), carriers, NOW_S)
    (held,) = Messenger.current()
    correct_messenger(held.entity_id, said(target={"url": "b", "secret": ""}), carriers, NOW_S)
    (held,) = Messenger.current()
    assert {**target_of(held), "password": ""} == {"url": "b", "secret": "s", "password": ""}
    assert json.loads(held.target) == {"sealed": ["secret", "url"]}
    remove_messenger(held.entity_id, NOW_S)
    with pytest.raises(NotFound):
        remove_messenger(held.entity_id, NOW_S)


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
        add_messenger(said(**changes), {"record only": pigeon}, NOW_S)
    assert refused.value.field == field


def test_readings_elsewhere_do_not_have_a_cabinet_looked_through_again(
    house: SnapshotCache, monkeypatch
) -> None:
    """Twelve loggers that post apart would have every cabinet recognised twelve times a minute."""
    room = Room(house)
    room.feed(24 * 8, 31.5)
    add_cabinet(CabinetCommand("Far", CabinetKind.BOUGHT, ("one",)), 31.5, NOW_S - DAY_S, NOW_S)
    hang_probe("Far", ProbePlace(cabinet="Far"), NOW_S - DAY_S, NOW_S, device=room.device.entity_id)
    recognised: list[str] = []
    known = faults._recognised

    def counted(snapshot, cabinet, until_s, days):
        recognised.append(cabinet.name)
        return known(snapshot, cabinet, until_s, days)

    monkeypatch.setattr(faults, "_recognised", counted)
    facts = house.current()
    north, far = (next(c for c in facts.cabinets.values() if c.name == n) for n in ("North", "Far"))
    at_s = NOW_S // 300 * 300 + 10
    for cabinet in (north, far):
        faults.cabinet_faults(facts, cabinet, at_s)
    take_in(room.device, [("Far", int(at_s), 31.0, None)], at_s)
    for cabinet in (north, far):
        faults.cabinet_faults(facts, cabinet, at_s + 5)
    assert recognised == ["North", "Far", "Far"]
    # The watch waits a little for what shows only over many minutes.
    take_in(room.device, [("Far", int(at_s) + 6, 31.0, None)], at_s + 6)
    faults.cabinet_faults(facts, far, at_s + 6, patience_s=55.0)
    assert recognised == ["North", "Far", "Far"]
    faults.cabinet_faults(facts, far, at_s + 66, patience_s=55.0)
    assert recognised[3:] == ["Far"]


def tries(
    carriers: Mapping[str, Any], from_s: float, hours: float, every_s: float = 30.0
) -> list[float]:
    """Minutes after `from_s` at which something was tried, looked for every so many seconds."""
    known = SentMessage.select().count()
    tried = []
    for step in range(int(hours * 3_600 / every_s)):
        deliver(Post(carriers, to_reader), from_s + every_s * step)
        if (now := SentMessage.select().count()) > known:
            known = now
            tried.append(every_s * step / 60)
    return tried


def test_a_dead_server_is_tried_at_growing_pauses(room: Room, pigeon: Pigeon) -> None:
    carriers = {"record only": pigeon}
    add_messenger(said(), carriers, NOW_S)
    room.feed(2, 34.2)
    room.look()
    pigeon.refuses = True
    # 2, 4, 8, 16, 32 minutes, and for an alarm never more than an hour.
    assert tries(carriers, room.fed_s, 4)[:7] == [0, 2, 6, 14, 30, 62, 122]
    (held,) = Messenger.current()
    state = state_of(held, room.fed_s + 4 * HOUR_S)
    assert (state.sent_s, state.failure) == (None, "lost its way")
    assert state.next_try_s is not None
    # An emergency waits no longer than for its repetition.
    room.feed(9, 35.6)
    room.look()
    gaps = tries(carriers, room.fed_s + 5 * HOUR_S, 2)
    assert max(b - a for a, b in itertools.pairwise(gaps)) <= REPEAT_S / 60
    pigeon.refuses = False
    deliver(Post(carriers, to_reader), room.fed_s + 8 * HOUR_S)
    assert state_of(held, room.fed_s + 8 * HOUR_S).next_try_s is None


class Bomb(Pigeon):
    """A carrier whose library fails in a way nobody foresaw."""

    def send(self, target: Mapping[str, Any], about: str, text: str) -> str:
        raise UnicodeEncodeError("ascii", "Bär", 1, 2, "ordinal not in range(128)")


def test_no_messenger_harms_another(room: Room, pigeon: Pigeon) -> None:
    carriers = {"email": Bomb(), "record only": pigeon}
    add_messenger(said(kind="email", name="A bomb"), carriers, NOW_S)
    add_messenger(said(name="Pigeon"), carriers, NOW_S)
    room.feed(2, 34.2)
    room.look()
    assert deliver(Post(carriers, to_reader), room.fed_s) == len(pigeon.carried) == 2
    bomb = next(m for m in Messenger.current() if m.name == "A bomb")
    assert "UnicodeEncodeError" in (state_of(bomb, room.fed_s).failure or "")


def test_who_was_told_of_an_alarm_is_told_that_it_is_over(room: Room, pigeon: Pigeon) -> None:
    carriers = {"record only": pigeon}
    add_messenger(said(), carriers, NOW_S)
    room.feed(2, 34.2)
    room.look()
    deliver(Post(carriers, to_reader), room.fed_s)
    told = len(pigeon.carried)
    room.feed(30, 31.5)
    room.look()
    deliver(Post(carriers, to_reader), room.fed_s)
    over = [text for about, text in pigeon.carried[told:] if about.startswith("Sandboa, over:")]
    assert len(over) == told
    assert all(re.match(r"It is over, from .+ to .+: Lower: ", text) for text in over)
    assert deliver(Post(carriers, to_reader), room.fed_s + 60) == 0
    # Who was told nothing is told no end.
    add_messenger(said(name="Late"), carriers, NOW_S)
    assert deliver(Post(carriers, to_reader), room.fed_s + 120) == 0


def test_what_goes_to_whom_is_by_gravity(room: Room, pigeon: Pigeon) -> None:
    carriers = {"record only": pigeon}
    add_messenger(said(gravity=Severity.EMERGENCY), carriers, NOW_S)
    room.feed(2, 34.2)
    room.look()
    assert deliver(Post(carriers, to_reader), room.fed_s) == 0
    room.feed(8, 35.6)
    room.look()
    assert deliver(Post(carriers, to_reader), room.fed_s) == 1
    assert "emergency" in pigeon.carried[0][0]


def test_a_sign_of_life_comes_once_a_day(room: Room, pigeon: Pigeon) -> None:
    carriers = {"record only": pigeon}
    add_messenger(said(zone="Europe/Berlin", life_at_min=9 * 60), carriers, NOW_S)
    # 20:30 in Berlin: the one of this morning is still to come.
    came = tries(carriers, NOW_S, 50, every_s=600.0)
    assert [about for about, _ in pigeon.carried] == ["Sandboa is running"] * 3
    assert [round(minutes / 60, 1) for minutes in came] == [0.0, 12.5, 36.5]
    assert "no alarm is open" in pigeon.carried[0][1]


def silent(room: Room, hours: float) -> list[Any]:
    room.fed_s += hours * HOUR_S
    room.look()
    return [a for a in open_alarms() if a.kind == "dead logger"]


def test_a_dead_logger_over_eggs_is_an_alarm_after_six_hours(room: Room, pigeon: Pigeon) -> None:
    carriers = {"record only": pigeon}
    quiet = said(quiet_from_min=0, quiet_until_min=1439, gravity=Severity.ALARM)
    add_messenger(quiet, carriers, NOW_S)
    room.feed(24, 31.5)
    assert silent(room, DEAD_LOGGER_S / HOUR_S - 0.5) == []
    (dead,) = silent(room, 1.0)
    assert (dead.severity, dead.any_hour) == ("alarm", 1)
    assert "nothing else measures there" in dead.text
    # At any hour, quiet or not; and it lasts as long as the silence does.
    assert deliver(Post(carriers, to_reader), room.fed_s) == 1
    assert silent(room, 24 * 20)
    room.feed(1, 31.5)
    assert silent(room, 0.0) == []


def test_where_another_logger_measures_a_dead_one_waits_for_daylight(room: Room) -> None:
    other = add_device("Other", NOW_S).device
    hang_probe("Air", ProbePlace(cabinet="North"), NOW_S - 9 * DAY_S, NOW_S, device=other.entity_id)
    room.feed(24, 31.5)
    at_s = room.fed_s + 7 * HOUR_S
    take_in(other, [("Air", int(at_s) - 60, 31.4, None)], at_s)
    (dead,) = [a for a in silent(room, 7.0) if a.text.startswith("Lower")]
    assert dead.any_hour == 0


def test_over_no_eggs_a_dead_logger_is_no_alarm(house: SnapshotCache) -> None:
    room = Room(house, eggs=False)
    room.feed(24, 31.5)
    assert silent(room, 30.0) == []


def test_a_shelf_off_its_target_for_days_is_a_notice_and_ends_with_the_set_point(
    house: SnapshotCache,
) -> None:
    room = Room(house)
    room.feed(5 * 24, 32.5)
    raised = room.raised("warm for days")
    assert (raised.severity, raised.probe_id) == ("notice", None)
    assert raised.text.startswith("Lower: 1.0 °C above the set point for")
    change_set_point("North", 32.5, room.fed_s, room.fed_s)
    room.feed(2, 32.5)
    assert [a.kind for a in room.look().ended] == ["warm for days"]


def test_a_rise_over_two_weeks_is_told_where_no_single_day_shows_it(house: SnapshotCache) -> None:
    room = Room(house)
    room.fed_s = NOW_S - 8 * DAY_S
    for day in range(15):
        room.feed(24, 31.0 + 0.06 * day)
    assert room.raised("slowly warmer").severity == "notice"


def test_air_that_fell_within_a_day_is_told_once(room: Room) -> None:
    def damp(hours: float, humidity: float) -> None:
        until_s = room.fed_s + hours * HOUR_S
        rows = [(None, t, 31.5 + 0.01 * (t // 600 % 7), humidity + 0.002 * (t // 600 % 5))
                for t in range(int(room.fed_s), int(until_s), 600)]  # fmt: skip
        take_in(room.device, rows, until_s)
        room.fed_s = until_s

    damp(6 * 24, 0.62)
    room.look()
    damp(24, 0.38)
    raised = room.raised("drier air")
    assert raised.text == "Lower: humidity fell from 62 % to 38 %: boxes dry faster, weigh them"


def test_a_logger_read_from_files_is_not_silent_between_them(house: SnapshotCache) -> None:
    lay_clutch(lay_day(cabinet="North"), NOW_S - 9 * DAY_S)
    card, _ = hang_probe(
        "Card", ProbePlace(cabinet="North", shelf="lower"), NOW_S - 9 * DAY_S, NOW_S
    )
    rows = [(NOW_S - 4 * DAY_S + 600.0 * n, 31.5 + 0.01 * (n % 7), None) for n in range(300)]
    store_readings(card.entity_id, rows, "file", "card.csv", NOW_S)
    assert look(house.current(), NOW_S) == []
    assert today(house.current(), NOW_S).silent == ()
    week_s = NOW_S + 6 * DAY_S
    assert look(house.current(), week_s) == []
    (due,) = today(house.current(), week_s).silent
    assert (due.name, due.from_files) == ("Card", True)


def test_a_limit_the_keeper_set_holds_in_the_house(room: Room) -> None:
    room.feed(2, 32.3)
    assert not room.look()
    set_setting("climate.off_target_c", 0.6, room.fed_s)
    assert room.raised("off target").severity == "alarm"
