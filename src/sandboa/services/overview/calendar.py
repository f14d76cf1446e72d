"""What a calendar of the house holds: visits that fall due, and windows of what is expected."""

from collections.abc import Iterator
from dataclasses import dataclass
from urllib.parse import quote

from sandboa.core.development import Window
from sandboa.core.messages import Words
from sandboa.services.breeding.lay_windows import DamLaySeason, lay_season
from sandboa.services.clutches.clutch_view import ClutchNow, boxes_standing, clutches_standing
from sandboa.services.hatching.overview import HatchingClutch, hatch_overview
from sandboa.services.moment.as_of import at_hand
from sandboa.services.rounds.due_now import next_visit
from sandboa.services.snapshot.snapshot import Snapshot


@dataclass(frozen=True, slots=True)
class CalendarEntry:
    """Whole days from that of `from_s` to that of `until_s` (s).

    `key` stays the same while dates move, so that a calendar moves the entry
    and makes no second one. `likely_s` is the middle of a window; `place` the
    path of the page that tells more. `past` has been, and nobody is reminded of it.
    """

    key: str
    from_s: float
    until_s: float
    words: Words
    place: str
    why: Words = ""
    likely_s: float | None = None
    past: bool = False


def calendar(snapshot: Snapshot, as_of_s: float) -> list[CalendarEntry]:
    """Everything that falls due or is expected from `as_of_s` on, in order of time.

    A window already begun is told as long as it lasts. Clutches that are
    closed and animals that have retired have no entries.
    """
    entries: list[CalendarEntry] = []
    at = at_hand(snapshot, as_of_s)
    for box in boxes_standing(at):
        visit = next_visit(at, box)
        if visit is not None:
            at_s, words = visit
            name = box.box.name
            entries.append(
                CalendarEntry(
                    f"visit.{box.box.entity_id}", at_s, at_s, f"Open box {name}: {words}",
                    f"/round/{quote(name, safe='')}", f"{box.cabinet}, {box.shelf.name}",
                )
            )  # fmt: skip
    for now in clutches_standing(at):
        entries += _of_clutch(now)
    for hatching in hatch_overview(snapshot, as_of_s):
        entries += _of_hatchlings(hatching)
    told = lay_season(snapshot.herd, as_of_s)
    for dam in told.dams:
        entries += _of_dam(dam)
    for planned in told.plan:
        visit_s = max(planned.visit.from_s, as_of_s)
        entries.append(
            CalendarEntry(
                f"pairing.{planned.visit.dam}.{planned.visit.sire}", visit_s, visit_s,
                f"{planned.sire} to {planned.dam}", "/animals", " ".join(planned.warnings),
            )
        )  # fmt: skip
    return sorted((e for e in entries if e.until_s >= as_of_s), key=lambda e: (e.from_s, e.key))


def _of_clutch(now: ClutchNow) -> Iterator[CalendarEntry]:
    forecast = now.forecast
    if forecast is None or forecast.overdue:
        return
    code = now.clutch.code
    # Once the first has pipped, the next is what is waited for.
    for key, what, window in (
        ("first pip", "first pip likely", forecast.first_pip),
        ("last pip", "last pip likely", forecast.last_pip),
        ("all out", "the last is out", forecast.all_out),
    ):
        if window is not None:
            yield _window(
                f"{key}.{now.clutch.entity_id}", f"{code}: {what}", window, f"/hatch/{code}"
            )


def _of_hatchlings(hatching: HatchingClutch) -> Iterator[CalendarEntry]:
    code, entity = hatching.now.clutch.code, hatching.now.clutch.entity_id
    hatchlings = [h for egg in hatching.eggs for h in egg.hatchlings]
    for key, what, windows in (
        ("shed", "first sheds", [h.shed_window for h in hatchlings if h.shed_window]),
        ("meal", "first meals", [h.meal_window for h in hatchlings if h.meal_window]),
    ):
        if windows:
            count = f"{len(windows)} of them" if len(windows) > 1 else "one of them"
            yield CalendarEntry(
                f"{key}.{entity}",
                min(w.p10 for w in windows),
                max(w.p90 for w in windows),
                f"{code}: {what} ({count})",
                f"/hatch/{code}",
            )


def _of_dam(dam: DamLaySeason) -> Iterator[CalendarEntry]:
    place = f"/animals/{dam.dam}"
    for line in dam.preparations:
        if line.done_s is None:
            yield CalendarEntry(
                f"prepare.{dam.dam}.{line.line.task.value}", line.line.from_s, line.line.by_s,
                f"{dam.name}: {line.line.text}", place,
            )  # fmt: skip
    if dam.forecast is not None and dam.forecast.window is not None:
        yield _window(f"lay.{dam.dam}", f"{dam.name} likely lays", dam.forecast.window, place)


def _window(key: str, words: str, window: Window, place: str) -> CalendarEntry:
    return CalendarEntry(key, window.p10, window.p90, words, place, likely_s=window.p50)
