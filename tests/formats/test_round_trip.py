"""Whatever the API accepts, in any order: exported, imported, and equal."""

import io
from datetime import timedelta
from typing import Any

from fastapi.testclient import TestClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from houses import open_empty_house, put_empty_house
from samples import NOW, NOW_S
from sandboa.cli.house_folder import DATABASE
from sandboa.formats.data_package import read_package, write_package
from sandboa.records import whole_house
from sandboa.records.database import close_database, house_file
from sandboa.records.integrity.check import check
from sandboa.web.app import create_app
from sandboa.web.clock import StoppedClock
from web.asking import LAID

#: What a spreadsheet would run, what ends a line somewhere, what is hardly there, what is long.
HOSTILE = (
    "=1+1", "+49", "-", "@SUM(A1)", "'", "''quoted", "\t=x", "\r", "a\r\nb", "a\rb", '"', 'x","y',
    "\u2028", "\u202e", "\u0000", "\ufeff", "e\u0301", "\U0001f40d", "9" * 30, "NaN", "null",
    "1e400", "=" * 60, "<b>", "../../x", "%00", "\\N", "x" * 61,
)  # fmt: skip
TEXTS = st.one_of(st.sampled_from(HOSTILE), st.text(max_size=40))
NUMBERS = st.one_of(
    st.sampled_from([0.0, -0.0, 1e-308, 31.5, 31.499999999999996, 1_134.0, 1e308, -1.0]),
    st.floats(allow_nan=False, allow_infinity=False),
)
MOMENTS = st.one_of(
    st.sampled_from(
        ["1979-12-31T23:59:59Z", "1980-01-01T00:00:00Z", "2199-12-31T23:59:59-14:00",
         "2026-06-14T18:30:00.999999+13:45", "0001-01-01T00:00:00+14:00", "2026-02-29T00:00:00Z"]
    ),
    st.integers(0, 60 * 24 * 30).map(lambda m: (NOW - timedelta(minutes=m)).isoformat()),
)  # fmt: skip
SMALL = st.integers(1, 6)


def _call(path: str, *, method: str = "post", **fields: st.SearchStrategy[Any]):
    """A request to that path; `{n}` in it is one of the first ids or eggs."""
    return st.tuples(
        st.just(method),
        SMALL.map(lambda n: path.replace("{n}", str(n))),
        st.fixed_dictionaries(fields),
    )


CALLS = st.one_of(
    _call(
        "/api/animals", role=st.sampled_from(["dam", "sire"]), name=TEXTS, traits_text=TEXTS,
        code=st.one_of(st.none(), TEXTS),
    ),
    _call("/api/animals/{n}/weights", mass_g=NUMBERS, at=MOMENTS, confirmed=st.booleans()),
    _call("/api/animals/{n}/meals", taken=st.booleans(), prey=TEXTS, mass_g=NUMBERS, at=MOMENTS),
    _call("/api/clutches/26-01/eggs/{n}/grades", grade=st.integers(0, 4), seen_at=MOMENTS),
    _call("/api/clutches/26-01/eggs/{n}/pip", seen_at=MOMENTS, confirmed=st.just(True)),
    _call("/api/boxes/26-01/waterings", water_g=NUMBERS, poured_at=MOMENTS),
    _call(
        "/api/clutches/26-01/eggs/{n}/opening", method="put", findings=st.just([]), note=TEXTS,
        opened_at=MOMENTS,
    ),
    _call("/api/devices", name=TEXTS),
    _call(
        "/api/probes", name=TEXTS, place=st.just({"cabinet": "North", "shelf": "lower"}),
        since=MOMENTS,
    ),
    _call(
        "/api/readings/by-hand", place=st.just({"cabinet": "North"}), at=MOMENTS,
        temperature_c=NUMBERS, humidity=st.one_of(st.none(), NUMBERS),
    ),
    _call(
        "/api/cabinets", name=TEXTS, kind=st.just("bought"), shelves=st.lists(TEXTS, max_size=3),
        set_point_c=NUMBERS,
    ),
    _call("/api/messengers", kind=st.just("shelf"), name=TEXTS, zone=st.just("Europe/Berlin")),
    _call("/api/people", name=TEXTS, role=st.sampled_from(["keeper", "helper"])),
    _call("/api/lay-day-drafts", dam=TEXTS, sire=TEXTS, laid_at=MOMENTS),
    _call("/api/acts/{n}/undo"),
)  # fmt: skip


def contents() -> dict[str, list[Any]]:
    return {table.name: list(whole_house.rows_of(table)) for table in whole_house.tables()}


@settings(max_examples=12, suppress_health_check=[HealthCheck.too_slow])
@given(st.lists(CALLS, min_size=1, max_size=25))
def test_whatever_is_accepted_comes_back_equal(tmp_path_factory, calls: list[Any]) -> None:
    folder = tmp_path_factory.mktemp("trip")
    http = TestClient(create_app(put_empty_house(folder / "old" / DATABASE), StoppedClock(NOW_S)))
    assert http.post("/api/clutches", json=LAID).status_code == 201
    for method, path, body in calls:
        answer = http.request(method, path, json=body or None)
        assert answer.status_code < 500, (method, path, body, answer.text)
    package = io.BytesIO()
    write_package(package, NOW_S)
    held = contents()
    old = house_file()
    close_database()
    assert check(old).problems == ()
    open_empty_house(folder / "new" / DATABASE)
    read_package(package)
    assert contents() == held
    new = house_file()
    close_database()
    assert check(new).problems == ()
