"""Lists of old records: columns by their headings, cells as people write them."""

import io
from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st
from openpyxl import Workbook

from sandboa.core.clutch_count import ClutchCount
from sandboa.core.errors import NotPlausible
from sandboa.core.past_clutches.card import ClutchCard
from sandboa.formats.logger_files import NotReadable
from sandboa.formats.old_records import (
    Field,
    order_of,
    read_line,
    read_record_list,
    texts_of,
)
from sandboa.formats.old_records.cells import (
    read_count,
    read_day,
    read_kept,
    read_mass,
    read_role,
    read_year,
)
from sandboa.services.old_records.lines import (
    AnimalLine,
    ClutchLine,
    OldLine,
    PairingLine,
    RecordKind,
    WeightLine,
)

HEADINGS = {
    "Dam;Sire;Laid;Eggs-Slugs;Hatched;First pip": "dam sire laid count hatched first_pip",
    "Clutch,Female,Male,Lay date,Eggs,Slugs,Hatched,Hatch date,Temp": (
        "code dam sire laid eggs slugs hatched first_pip kept"
    ),
    "Gelege;Weibchen;Männchen;gelegt am;Eier;unbefruchtet;geschlüpft;Schlupf": (
        "code dam sire laid eggs slugs hatched first_pip"
    ),
    "Femelle;Mâle;Ponte;Oeufs;Clairs;Éclos;Éclosion": (
        "dam sire laid eggs slugs hatched first_pip"
    ),
    "Hembra;Macho;Puesta;Huevos;Infértiles;Nacidos": "dam sire laid eggs slugs hatched",
    "Femmina;Maschio;Deposizione;Uova;Sterili;Schiuse": "dam sire laid eggs slugs hatched",
    "Samica;Samiec;Zniesione;Jaja;Niezapłodnione;Wyklute": "dam sire laid eggs slugs hatched",
    "Vrouw;Man;Gelegd;Eieren;Onbevrucht;Uitgekomen": "dam unused laid eggs slugs hatched",
}


def lines_of(data: bytes, kind: RecordKind | None = None) -> list[OldLine | None]:
    """Every line of a list as it is read."""
    told = read_record_list(data, kind)
    order, _ = order_of(texts for *_, texts in told.lines)
    return [read_line(told.kind, texts, order).line for *_, texts in told.lines]


@pytest.mark.parametrize("heading", HEADINGS)
def test_columns_are_known_by_their_headings(heading: str) -> None:
    told = read_record_list(f"{heading}\nA,B\n".encode())
    assert told.kind is RecordKind.CLUTCHES
    assert told.complete
    assert " ".join(told.fields) == HEADINGS[heading]


@pytest.mark.parametrize(
    ("heading", "kind"),
    [
        ("Name,Sex,Hatch year,Morph,Dam,Sire", RecordKind.ANIMALS),
        ("Tier;Geschlecht;Jahrgang", RecordKind.ANIMALS),
        ("Animal,Date,Weight (g)", RecordKind.WEIGHTS),
        ("Tier;Datum;Gewicht", RecordKind.WEIGHTS),
        ("Dam,Sire,From,Until", RecordKind.PAIRINGS),
        ("Weibchen;Männchen;von;bis", RecordKind.PAIRINGS),
    ],
)
def test_what_a_list_is_of_is_known_by_its_headings(heading: str, kind: RecordKind) -> None:
    assert read_record_list(f"{heading}\nA,B\n".encode()).kind is kind


def test_a_list_of_clutches_as_people_write_them() -> None:
    listed = lines_of(
        b"Our clutches\n\nDam;Sire;Laid;Eggs-Slugs;Hatched;First pip;Temp\n"
        b"Sorrel;Flint;12.06.2019;7-2;5;8.8.2019;31,5\n"
        b"Tansy;?;14.6.2019;7/2;4;;88.7F\n"
        b"Yarrow;-;1.7.19;6;;unknown;\n"
    )
    assert listed == [
        ClutchLine(
            "Sorrel",
            "Flint",
            ClutchCard(date(2019, 6, 12), ClutchCount(7, 2), 5, date(2019, 8, 8), 31.5),
        ),
        ClutchLine(
            "Tansy",
            None,
            ClutchCard(date(2019, 6, 14), ClutchCount(7, 2), 4, None, pytest.approx(31.5)),
        ),
        ClutchLine("Yarrow", None, ClutchCard(date(2019, 7, 1), ClutchCount(6, 0))),
    ]


def test_animals_weights_and_pairings() -> None:
    assert lines_of(
        "Name,Sex,Born,Morph,Dam,Sire\nFlint,1.0,2014-07-01,Pastel,,\n"
        "Sorrel,♀,2016,,Tansy,Flint\n".encode()
    ) == [
        AnimalLine("Flint", "sire", None, 2014, "Pastel"),
        AnimalLine("Sorrel", "dam", None, 2016, "", "Tansy", "Flint"),
    ]
    assert lines_of(
        b"Animal,Date,Weight (kg)\nSorrel,2019-03-01,1.85\nSorrel,2019-04-01,1900 g"
    ) == [
        WeightLine("Sorrel", date(2019, 3, 1), 1850.0),
        WeightLine("Sorrel", date(2019, 4, 1), 1900.0),
    ]
    assert lines_of(
        b"Dam,Sire,From,Until\nSorrel,Flint,2018-12-01,2018-12-03\nSorrel,Flint,2019-01-05,"
    ) == [
        PairingLine("Sorrel", "Flint", date(2018, 12, 1), date(2018, 12, 3)),
        PairingLine("Sorrel", "Flint", date(2019, 1, 5)),
    ]


def test_a_count_that_a_spreadsheet_made_a_date_of_is_the_count() -> None:
    """Whichever way round it was made: there are never more slugs than eggs."""
    for made in ("2026-02-07", "2026-07-02", "2026-07-02 00:00:00"):
        assert str(read_count(made)) == "7-2"


def test_sheets_with_the_same_headings_are_one_list() -> None:
    book = Workbook()
    for year, name in ((2018, "Sorrel"), (2019, "Tansy")):
        sheet = book.create_sheet(str(year))
        sheet.append(["Dam", "Laid", "Eggs"])
        sheet.append([name, date(year, 6, 12), "7-2"])
    book.remove(book.worksheets[0])
    notes = book.create_sheet("notes")
    notes.append(["clean the racks", "buy bulbs"])
    packed = io.BytesIO()
    book.save(packed)
    told = read_record_list(packed.getvalue())
    assert (told.sheet, told.sheets) == ("2018", (("2018", "2019"), ("notes",)))
    assert [own[:2] for own in told.lines] == [("2018", 2), ("2019", 2)]
    named = [line.dam for line in lines_of(packed.getvalue()) if isinstance(line, ClutchLine)]
    assert named == ["Sorrel", "Tansy"]


def test_days_that_can_be_read_two_ways_are_asked_about() -> None:
    told = read_record_list(b"Dam,Laid,Eggs\nSorrel,6/7/2019,7-2\nTansy,5/8/2019,6-0\n")
    assert order_of(texts for *_, texts in told.lines) == (None, True)
    first = told.lines[0][2]
    for order, day in (("dmy", date(2019, 7, 6)), ("mdy", date(2019, 6, 7))):
        line = read_line(told.kind, first, order).line  # type: ignore[arg-type]
        assert isinstance(line, ClutchLine)
        assert line.told.laid == day


def test_the_keeper_says_what_a_column_holds() -> None:
    data = "Mutti,Tag,Stück\nSorrel,2019-06-12,7-2\n".encode()
    assert not read_record_list(data).complete
    chosen = (Field.DAM, Field.LAID, Field.COUNT)
    told = read_record_list(data, RecordKind.CLUTCHES, chosen)
    assert told.complete
    assert dict(told.lines[0][2]) == {
        Field.DAM: "Sorrel", Field.LAID: "2019-06-12", Field.COUNT: "7-2",
    }  # fmt: skip


def test_every_cell_that_cannot_be_read_is_told_of() -> None:
    read = read_line(
        RecordKind.CLUTCHES,
        {Field.LAID: "summer", Field.COUNT: "2-7", Field.HATCHED: "some", Field.KEPT: "warm"},
        None,
    )
    assert read.line is None
    assert [field for field, _ in read.problems] == ["dam", "laid", "count", "hatched", "kept"]
    assert all(str(words) for _, words in read.problems)


@pytest.mark.parametrize("text", ["dam", "Female", "f", "W", "weiblich", "0.1", "♀", "femelle"])
def test_words_for_a_dam(text: str) -> None:
    assert read_role(text) == "dam"


@pytest.mark.parametrize("text", ["sire", "Male", "m", "männlich", "1.0", "♂", "mâle"])
def test_words_for_a_sire(text: str) -> None:
    assert read_role(text) == "sire"


def test_cells_that_are_none() -> None:
    for read in (
        lambda: read_role("x"), lambda: read_mass("heavy", "g"), lambda: read_kept("warm"),
        lambda: read_day("laid", "31.2.2019", "dmy"), lambda: read_year("18", None),
        lambda: read_count("a few"),
    ):  # fmt: skip
        with pytest.raises(NotPlausible):
            read()


def test_a_temperature_alone_is_whichever_eggs_live_at() -> None:
    assert read_kept("31.5") == 31.5
    assert read_kept("89") == pytest.approx(31.667, abs=1e-3)


def test_no_list_is_no_list() -> None:
    with pytest.raises(NotReadable, match="no headings"):
        read_record_list(b"1,2,3\n4,5,6\n")
    with pytest.raises(NotReadable, match="at once"):
        read_record_list(b"Dam,Laid,Eggs\n" + b"Sorrel,2019-06-12,7-2\n" * 2001)


days = st.dates(date(1980, 1, 1), date(2199, 12, 31))
names = st.sampled_from(["Sorrel", "Nefertari II", "Ø-4"])
counts = st.tuples(st.integers(1, 20), st.integers(0, 20)).map(
    lambda own: ClutchCount(own[0], min(own))
)
clutches = st.builds(
    ClutchLine,
    names,
    st.none() | names,
    st.builds(
        ClutchCard, days, counts, st.none() | st.integers(0, 20), st.none() | days,
        st.none() | st.integers(240, 360).map(lambda tenths: tenths / 10),
    ),
    st.none() | st.just("19-04"),
)  # fmt: skip
others = (
    st.builds(
        AnimalLine, names, st.sampled_from(["dam", "sire"]), hatch_year=st.integers(1980, 2100)
    )
    | st.builds(WeightLine, names, days, st.integers(20, 6000).map(float))
    | st.builds(PairingLine, names, names, days, st.none() | days)
)


@given(line=clutches | others)
def test_what_is_shown_of_a_line_reads_as_the_same_line(line: OldLine) -> None:
    kinds = {
        ClutchLine: RecordKind.CLUTCHES, AnimalLine: RecordKind.ANIMALS,
        WeightLine: RecordKind.WEIGHTS, PairingLine: RecordKind.PAIRINGS,
    }  # fmt: skip
    assert read_line(kinds[type(line)], texts_of(line), None).line == line
