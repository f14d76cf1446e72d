"""Paper entered in any order: what the house judges depends on when things were seen alone."""

from collections.abc import Iterator
from datetime import datetime, timedelta
from functools import cache
from pathlib import Path
from random import Random
from tempfile import TemporaryDirectory
from typing import Any, NamedTuple

from fastapi.testclient import TestClient
from hypothesis import given, settings
from hypothesis import strategies as st

from houses import put_empty_house
from samples import DAY_S, NOW, NOW_S
from sandboa.core.box import usual_places
from sandboa.records.database import database
from sandboa.web.app import create_app
from sandboa.web.clock import StoppedClock
from web.asking import LAID

SHELF = {"cabinet": "North", "shelf": "lower"}
#: Where the house says what it makes of the record.
PLACES = (
    "clutches/26-01", "round", "today", "animals/{dam}", "hatch-watch", "losses",
    "clutches/26-01/hatch", "cabinets/North", "probes",
)  # fmt: skip
#: What only tells when a thing was entered, or which act did.
_ENTRY = {"log", "act", "seen_act", "revision", "id", "photos"}


class Entry(NamedTuple):
    """A line of paper; `needs` are names of what must stand in the record before it."""

    name: str
    path: str
    body: dict[str, Any]
    needs: tuple[str, ...] = ()


def at(days_ago: float) -> str:
    return (NOW - timedelta(days=days_ago)).isoformat()


def visit(days_ago: float, box: str = "26-01", needs: tuple[str, ...] = (), **more: Any) -> Entry:
    key = f"paper-{box}-{days_ago}"
    body = {"key": key, "box": box, "opened_at": at(days_ago), "closed_at": at(days_ago), **more}
    return Entry(key, "/api/visits", {"visits": [body]}, needs)


def egg(number: int, path: str, days_ago: float, **more: Any) -> Entry:
    name = f"{path} {number}"
    return Entry(name, f"/api/clutches/26-01/eggs/{number}/{path}", {"at": at(days_ago), **more})


def season() -> Iterator[Entry]:
    """Fifty-six days of a clutch that is split, dried out, drunk from, and is pipping."""
    fresh = {"medium": "perlite", "water_g": 200.0, "mass_g": 1400.0}
    yield visit(55.5, fresh=fresh, rest_as_before=False)
    yield visit(50.0, eggs=[{"number": 3, "vessels": "weak"}])
    yield visit(44.0, eggs=[{"number": 1, "grade": 1}, {"number": 2, "grade": 1}])
    yield visit(40.0, mass_g=1380.0, signs=[{"kind": "lid", "value": "none"}])
    apart = {"name": "26-01 B", "medium": "vermiculite"}
    yield visit(
        36.0,
        eggs=[{"number": 3, "signs": [{"kind": "mould", "value": "spot"}]}],
        moved=[{"eggs": [{"number": 3}, {"number": 4}], "new": apart}],
    )
    yield visit(35.0, "26-01 B", ("paper-26-01-36.0",), eggs=[{"number": 4, "grade": 2}])
    yield visit(33.0, eggs=[{"number": 1, "grade": 2}], water_g=30.0)
    yield visit(30.0, mass_g=1180.0)
    yield visit(28.0, "26-01 B", ("paper-26-01-36.0",))
    yield visit(27.0, eggs=[{"number": 6, "acts": ["removed"], "mass_g": 70.0}])
    yield visit(26.0, closing="lid with 1-2 pin holes", acts=["aired"])
    yield visit(20.0, eggs=[{"number": 1, "grade": 0}, {"number": 2, "grade": 0}])
    yield visit(14.0)
    yield visit(9.0, "26-01 B", ("paper-26-01-36.0",), eggs=[{"number": 3, "grade": 1}])
    yield visit(2.0)
    yield egg(5, "grades", 38.0, grade=1)
    yield egg(5, "candlings", 49.0, vessels="strong", disc="top")
    yield egg(1, "pip", 1.5)
    yield egg(1, "emergence", 0.5)
    yield egg(2, "pip", 1.0)
    water = {"water_g": 20.0, "at": at(31.0)}
    yield Entry("water", "/api/boxes/26-01/waterings", water)
    for days_ago, shelf in ((22.0, "upper"), (12.0, "lower")):
        moved = {"cabinet": "North", "shelf": shelf, "at": at(days_ago)}
        yield Entry(f"move {shelf}", "/api/boxes/26-01/moves", moved)
    for days_ago, c in ((45.0, 32.0), (25.0, 31.0)):
        point = {"temperature_c": c, "at": at(days_ago)}
        yield Entry(f"set {c}", "/api/cabinets/North/set-points", point)
    for days_ago, shelf in ((24.0, "upper"), (13.0, "lower")):
        hung = {"place": {"cabinet": "North", "shelf": shelf}, "at": at(days_ago)}
        yield Entry(f"hang {shelf}", "/api/probes/{probe}/moves", hung)
    check = {"kind": "reference", "shown": 31.2, "reference_c": 31.0, "at": at(18.0)}
    yield Entry("check", "/api/probes/{probe}/checks", check)
    altered = {"what": "Drilled for a cable", "at": at(48.0)}
    yield Entry("alter", "/api/cabinets/North/alterations", altered)
    for days_ago, c in ((41.0, 31.2), (21.0, 30.4), (3.0, 31.0)):
        read = {"place": SHELF, "temperature_c": c, "at": at(days_ago)}
        yield Entry(f"read {days_ago}", "/api/readings/by-hand", read)
    for days_ago, g in ((55.0, 1450.0), (30.0, 1600.0), (10.0, 1750.0)):
        weight = {"mass_g": g, "at": at(days_ago), "confirmed": True}
        yield Entry(f"weigh {g}", "/api/animals/{dam}/weights", weight)
    for days_ago, taken in ((52.0, False), (47.0, True), (29.0, True)):
        meal = {"taken": taken, "prey": "rat", "at": at(days_ago)}
        yield Entry(f"meal {days_ago}", "/api/animals/{dam}/meals", meal)


def entered(order: list[Entry]) -> dict[str, Any]:
    """What the house says of everything once the lines stand in it."""
    with TemporaryDirectory() as folder:
        path = put_empty_house(Path(folder) / "house.sqlite3")
        with TestClient(create_app(path, StoppedClock(NOW_S))) as http:
            cabinet = {"name": "North", "shelves": ["lower", "upper"], "set_point_c": 31.5,
                       "since": at(60.0)}  # fmt: skip
            post(http, "/api/cabinets", cabinet)
            eggs = [{"x": x, "y": y, "slug": i == 5} for i, (x, y) in enumerate(usual_places(6))]
            clutch = {**LAID, "laid_at": at(56.0), "eggs": eggs}
            post(http, "/api/clutches", clutch)
            dam = next(a["id"] for a in http.get("/api/animals").json() if a["role"] == "dam")
            probe = {"name": "lower", "place": SHELF, "since": at(58.0)}
            hung = post(http, "/api/probes", probe)["id"]
            for entry in order:
                post(http, entry.path.format(dam=dam, probe=hung), entry.body)
            told = {place: get(http, place.format(dam=dam)) for place in PLACES}
        database.close()
        return told


def get(http: TestClient, place: str) -> Any:
    answer = http.get(f"/api/{place}")
    assert answer.status_code == 200, f"{place}: {answer.text}"
    return without_entry(answer.json())


def post(http: TestClient, path: str, body: dict[str, Any]) -> dict[str, Any]:
    answer = http.post(path, json=body)
    assert answer.status_code in (200, 201), f"{path} {body}: {answer.text}"
    refused = [o for o in answer.json().get("outcomes", []) if o["state"] == "refused"]
    assert not refused, f"{body}: {refused}"
    told: dict[str, Any] = answer.json()
    return told


def without_entry(told: Any) -> Any:
    if isinstance(told, dict):
        return {key: without_entry(value) for key, value in told.items() if key not in _ENTRY}
    return [without_entry(value) for value in told] if isinstance(told, list) else told


def shuffled(entries: list[Entry], random: Random) -> list[Entry]:
    """In any order in which what a line needs stands before it."""
    waiting, order = random.sample(entries, len(entries)), []
    while waiting:
        known = {entry.name for entry in order}
        following = next(e for e in waiting if known.issuperset(e.needs))
        waiting.remove(following)
        order.append(following)
    return order


def days_ago(entry: Entry) -> float:
    moment = entry.body.get("at") or entry.body["visits"][0]["closed_at"]
    return (NOW - datetime.fromisoformat(moment)).total_seconds() / DAY_S


@cache
def as_it_happened() -> dict[str, Any]:
    return entered(sorted(season(), key=days_ago, reverse=True))


@given(st.randoms(use_true_random=False))
@settings(max_examples=6)
def test_a_season_entered_in_any_order_is_judged_alike(random: Random) -> None:
    told = entered(shuffled(list(season()), random))
    assert list(differences(told, as_it_happened(), "")) == []


def differences(one: Any, other: Any, where: str) -> Iterator[str]:
    """Where two answers differ."""
    if isinstance(one, dict) and isinstance(other, dict) and one.keys() == other.keys():
        for key in one:
            yield from differences(one[key], other[key], f"{where}.{key}")
    elif isinstance(one, list) and isinstance(other, list) and len(one) == len(other):
        for number, (mine, theirs) in enumerate(zip(one, other, strict=True)):
            yield from differences(mine, theirs, f"{where}[{number}]")
    elif one != other:
        yield f"{where}: {one!r} and {other!r}"
