"""Every style a logger writes in: right, or asked about; silently wrong in none."""

import io
import zipfile

import pytest
from benchmarks.logger_files.page import PAGE, written
from benchmarks.logger_files.report import Outcome, outcomes, report
from openpyxl import Workbook

from sandboa.formats.logger_files import (
    Choices,
    Columns,
    ColumnUse,
    NotReadable,
    read_logger_file,
)

OUTCOMES = outcomes()


@pytest.mark.parametrize("outcome", OUTCOMES, ids=[one.style.name for one in OUTCOMES])
def test_it_is_understood_or_asked_about(outcome: Outcome) -> None:
    assert outcome.right
    assert {*outcome.asked} - {"zone"} == {*outcome.style.asks}


def test_there_are_many_and_the_page_tells_of_each() -> None:
    assert len(OUTCOMES) >= 60
    page = PAGE.read_text(encoding="utf-8")
    assert written(page, report()) == page, "run python -m benchmarks.logger_files"
    with pytest.raises(ValueError, match="no place"):
        written("nothing", "")


def test_sensors_are_called_what_the_file_calls_them() -> None:
    names = {one.style.name: one.style.data for one in OUTCOMES}
    for style, expected in (
        ("two sensors side by side", ["Upper", "Lower"]),
        ("two channels, numbered", ["1", "2"]),
        ("two channels of a hub", ["CH1", "CH2"]),
        ("long: a row for each sensor", ["upper", "lower"]),
        ("long: names of a hub", ["sensor upper", "sensor lower"]),
        ("two temperatures without names", ["column 2", "column 3"]),
        ("temperature alone", [""]),
    ):
        file = read_logger_file(names[style], Choices(zone="UTC"))
        assert [sensor.name for sensor in file.sensors] == expected


def test_a_file_of_several_sensors_is_not_taken_for_one() -> None:
    names = {one.style.name: one.style.data for one in OUTCOMES}
    file = read_logger_file(names["two channels, numbered"], Choices(zone="UTC"))
    with pytest.raises(NotReadable, match="of 2 sensors: “1”, “2”"):
        _ = file.rows


def packed(size: int) -> bytes:
    held = io.BytesIO()
    with zipfile.ZipFile(held, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("xl/worksheets/sheet1.xml", b"0" * size)
    return held.getvalue()


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (packed(100), "no spreadsheet"),
        (b"PK\x03\x04" + bytes(300), "damaged"),
    ],
)
def test_what_is_packed_and_no_spreadsheet_is_refused_in_words(data: bytes, words: str) -> None:
    with pytest.raises(NotReadable, match=words):
        read_logger_file(data)


def test_a_small_file_that_unpacks_to_gigabytes_is_not_unpacked() -> None:
    with pytest.raises(NotReadable, match=r"unpacks to 5\d\d MB"):
        read_logger_file(packed(500_000_000))


def test_a_cell_far_out_ends_its_own_process_and_no_other() -> None:
    """A stray cell in the last corner: a table of seventeen billion cells, from five kilobytes."""
    book = Workbook()
    book.active.append(["Time", "Temp"])
    book.active.cell(row=1_048_576, column=16_384).value = 1
    held = io.BytesIO()
    book.save(held)
    with pytest.raises(NotReadable, match="a cell far out"):
        read_logger_file(held.getvalue())


@pytest.mark.parametrize(
    "data",
    [
        # Words and brackets without an end, each name another, and a column for each of them.
        b"time," + b"a" * 2_000_000 + b",temp\n2026-03-01 09:00,1,31\n",
        b"time," + b"(" * 2_000_000 + b",temp\n2026-03-01 09:00,1,31\n",
        b"time,sensor,quantity,value\n"
        + b"".join(b"2026-03-01 09:00,s%d,temperature,31\n" % n for n in range(20_000)),
    ],
    ids=["a long word", "brackets", "names that never come again"],
)
def test_no_file_takes_forever_or_all_the_memory_there_is(data: bytes) -> None:
    file = read_logger_file(data, Choices(zone="UTC"))
    assert len(file.sensors) <= 2


def test_a_column_that_names_thousands_is_no_column_of_sensors() -> None:
    rows = b"".join(b"2026-03-01 09:00,s%d,31\n" % n for n in range(200))
    uses = Columns((ColumnUse.TIME, ColumnUse.SENSOR, ColumnUse.TEMPERATURE))
    with pytest.raises(NotReadable, match="holds 200 of them; at most 64"):
        read_logger_file(b"time,name,temp\n" + rows, Choices(zone="UTC", columns=uses))
