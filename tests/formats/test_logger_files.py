"""A logger's file: every form the issue names, what is asked, and what is refused."""

from contextlib import suppress
from datetime import UTC, datetime

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.formats.logger_files import Choices, Columns, ColumnUse, NotReadable, read_logger_file
from sandboa.formats.logger_files import table as reading_module

BERLIN = Choices(zone="Europe/Berlin")


def read(text: str, choices: Choices = BERLIN):
    return read_logger_file(text.encode(), choices)


def at(*when: int) -> int:
    return int(datetime(*when, tzinfo=UTC).timestamp())  # type: ignore[misc]


@pytest.mark.parametrize("delimiter", [",", ";", "\t"])
@pytest.mark.parametrize("order", [(0, 1, 2), (2, 1, 0), (1, 2, 0)])
def test_any_column_order_and_delimiter(delimiter: str, order: tuple[int, ...]) -> None:
    lines = [
        ("Timestamp", "Temperature (C)", "RH %"),
        ("2026-03-01 09:00", "31.5", "95"),
        ("2026-03-01 09:10", "31.6", "96"),
    ]
    text = "\n".join(delimiter.join(line[i] for i in order) for line in lines)
    file = read(text)
    assert file.rows == [(at(2026, 3, 1, 8, 0), 31.5, 0.95), (at(2026, 3, 1, 8, 10), 31.6, 0.96)]
    assert file.questions == ()


@pytest.mark.parametrize(
    ("delimiter", "lines"),
    [
        # A decimal comma in each cell, and commas in the page before.
        (";", ("Logger 7, north, upper shelf", "Zeit;Temp;Feuchte", "13.03.2026 09:00;31,5;95,0",
               "13.03.2026 09:10;31,6;95,5")),
        ("\t", ("time\ttemp, °C", "2026-03-01 09:00\t31,5", "2026-03-01 09:10\t31,6")),
        ("|", ("time|temp", "2026-03-01 09:00|31.5", "2026-03-01 09:10|31.6")),
        (",", ("time,temp,note", '2026-03-01 09:00,31.5,"door; wiped; shut"',
               "2026-03-01 09:10,31.6,")),
        (";", ("Datum;Uhrzeit;Temp", "13.03.2026;09:00;31,5", "13.03.2026;09:10;31,6")),
        (",", ("Mar 13, 2026 21:05", "time,temp", '"Mar 1, 2026 09:00",31.5',
               '"Mar 1, 2026 09:10",31.6')),
    ],
)  # fmt: skip
def test_the_delimiter_is_the_one_that_makes_readings(
    delimiter: str, lines: tuple[str, ...]
) -> None:
    file = read("\r\n".join(lines))
    assert file.written == delimiter
    assert [row[1] for row in file.rows] == [31.5, 31.6]
    assert file.bad_rows == []


@pytest.mark.parametrize(
    "heading",
    [
        "Date;Time;Temperature;Humidity", "Datum;Uhrzeit;Temperatur °C;rel. Feuchte %",
        "Date;Heure;Température (°C);Humidité (%)", "Data;Ora;Temperatura;Umidità relativa",
        "Fecha;Hora;Temperatura;Humedad", "Data;Hora;Temperatura (℃);Umidade",
        "Data;Godzina;Temperatura;Wilgotność", "Datum;Tijd;Temperatuur;Luchtvochtigheid",
        "Data;Ora;Temperatură;Umiditate", "Дата;Время;Температура;Влажность",
        "Дата;Час;Температура;Вологість", "Datum;Čas;Teplota;Vlhkost",
        "Datum;Tid;Temperatur;Luftfuktighet", "Dátum;Idő;Hőmérséklet;Páratartalom",
        "Ημερομηνία;Ώρα;Θερμοκρασία;Υγρασία", "Tarih;Saat;Sıcaklık;Nem",
    ],
)  # fmt: skip
def test_headings_in_the_languages_of_europe(heading: str) -> None:
    """The clock stands apart: where it was overlooked all readings were of midnight."""
    file = read(f"{heading}\n13.03.2026;09:00:00;31,5;95\n13.03.2026;09:10:00;31,6;96\n")
    assert file.rows == [
        (at(2026, 3, 13, 8, 0), 31.5, 0.95), (at(2026, 3, 13, 8, 10), 31.6, 0.96),
    ]  # fmt: skip


@pytest.mark.parametrize(
    "heading",
    [
        "Datum/Uhrzeit;Temp;Feuchte", "Data e ora;Temperatura;Umidità",
        "Datum a čas;Teplota;Vlhkost",
        "Datum och tid;Temperatur;Fuktighet", "Date and time;Temperature;Humidity",
        "Zeitstempel;Temperatur;Feuchte", "Horodatage;Température;Humidité",
    ],
)  # fmt: skip
def test_a_heading_of_date_and_clock_together(heading: str) -> None:
    file = read(f"{heading}\n13.03.2026 09:00;31,5;95\n")
    assert file.rows == [(at(2026, 3, 13, 8, 0), 31.5, 0.95)]


def test_a_clock_that_is_not_recognised_is_asked_for() -> None:
    file = read("Datum;Kello;Temp\n13.03.2026;09:00;31,5\n13.03.2026;09:10;31,6\n")
    assert [question.about for question in file.questions] == ["columns"]
    assert file.rows == []
    chosen = Choices(
        zone="Europe/Berlin",
        columns=Columns((ColumnUse.TIME, ColumnUse.CLOCK, ColumnUse.TEMPERATURE)),
    )
    assert [
        row[0]
        for row in read(
            "Datum;Kello;Temp\n13.03.2026;09:00;31,5\n13.03.2026;09:10;31,6\n", chosen
        ).rows
    ] == [at(2026, 3, 13, 8, 0), at(2026, 3, 13, 8, 10)]
    # One reading a day is of a thermometer read by hand.
    assert read("Datum;Temp\n13.03.2026;31,5\n14.03.2026;31,6\n").questions == ()


@pytest.mark.parametrize("nothing", ["NaN", "", "n/a", "--", "null", "ERR", "#N/A", "—"])
def test_a_cell_without_a_reading_costs_that_cell(nothing: str) -> None:
    told = read(f"time,temp,rh\n2026-03-01 09:00,31.5,{nothing}\n2026-03-01 09:10,{nothing},95\n")
    assert told.rows == [(at(2026, 3, 1, 8, 0), 31.5, None)]
    assert [(bad.line, bad.reason) for bad in told.bad_rows] == [(3, "the temperature is missing")]


def test_a_degree_sign_in_one_letter_is_understood() -> None:
    assert read("time,temp\n2026-03-01 09:00,31.5℃").rows[0][1] == 31.5
    assert read("time,temp\n2026-03-01 09:00,88.7℉").rows[0][1] == pytest.approx(31.5)


@pytest.mark.parametrize(
    "written",
    [
        "2026-03-13 21:05", "2026-03-13T20:05Z", "2026/03/13 21:05:00", "13.03.2026 21:05",
        "13/03/2026 21:05", "3/13/2026 9:05 PM", "13 Mar 2026 21:05", "Mar 13, 2026 21:05",
        "1773432300", "1773432300000", "2026-03-13T21:05:00+01:00", "13-Mar-2026 21:05",
    ],
)  # fmt: skip
def test_common_date_forms(written: str) -> None:
    quoted = f'"{written}"'
    file = read(f"time,temp_c\n{quoted},31\n")
    assert file.rows == [(at(2026, 3, 13, 20, 5), 31.0, None)]


def test_units_are_told_by_heading_or_by_size() -> None:
    assert read("time,temp (F)\n2026-03-01 09:00,88.7").rows[0][1] == pytest.approx(31.5)
    assert read("time,temp\n2026-03-01 09:00,88.7").rows[0][1] == pytest.approx(31.5)
    assert read("time,temp,hum\n2026-03-01 09:00,31.5,0.93").rows[0][2] == 0.93
    assert read("time;temp;rh\n2026-03-01 09:00;31,5;93,5").rows[0][1:] == (31.5, 0.935)
    contradicting = read("time,temp (C)\n2026-03-01 09:00,88.7")
    assert [q.about for q in contradicting.questions] == ["unit"]
    assert contradicting.rows == []
    assert read("time,temp of shelf\n2026-03-01 09:00,31.5").questions == ()


def test_an_ambiguous_day_is_asked_not_guessed_unless_the_file_proves_it() -> None:
    ambiguous = "time,temp\n03/04/2026 09:00,31\n04/04/2026 09:00,31\n"
    assert [q.about for q in read(ambiguous).questions] == ["order"]
    assert read(ambiguous).rows == []
    answered = read(ambiguous, Choices(zone="UTC", order="mdy"))
    assert answered.rows[0][0] == at(2026, 3, 4, 9)
    proven = read(ambiguous + "13/04/2026 09:00,31\n", Choices(zone="UTC"))
    assert (proven.order, proven.rows[0][0]) == ("dmy", at(2026, 4, 3, 9))


def test_a_zone_is_asked_only_when_the_times_carry_none() -> None:
    naive = "time,temp\n2026-03-01 09:00,31\n"
    assert [q.about for q in read(naive, Choices()).questions] == ["zone"]
    assert read("time,temp\n2026-03-01T09:00+02:00,31\n", Choices()).questions == ()


def test_the_hour_shown_twice_in_autumn_and_never_in_spring() -> None:
    autumn = read("time,temp\n2026-10-25 02:30,31\n2026-10-25 02:45,31\n2026-10-25 02:30,32\n")
    assert [row[0] for row in autumn.rows] == [
        at(2026, 10, 25, 0, 30), at(2026, 10, 25, 0, 45), at(2026, 10, 25, 1, 30),
    ]  # fmt: skip
    spring = read("time,temp\n2026-03-29 01:50,31\n2026-03-29 02:30,31\n")
    assert len(spring.rows) == 1
    assert "does not exist" in spring.bad_rows[0].reason


def test_unreadable_rows_are_listed_with_line_and_reason_and_the_rest_goes_in() -> None:
    file = read(
        "time,temp,rh\n2026-03-01 09:00,31.5,95\nrubbish,31,95\n2026-03-01 09:02,nan,95\n"
        "2026-03-01 09:03,451,95\n2026-03-01 09:04,31,140\n2026-13-01 09:05,31,95\n"
        "2026-03-01 09:06,inf,95\n2026-03-01 09:07\n2026-03-01 09:08,-40,95\n"
        "2026-03-01 09:09,31.6,\n"
    )
    assert [row[1] for row in file.rows] == [31.5, 31.6]
    assert [bad.line for bad in file.bad_rows] == [3, 4, 5, 6, 7, 8, 9, 10]
    assert "451" in file.bad_rows[2].reason
    assert "humidity" in file.bad_rows[3].reason


def test_preamble_no_heading_and_apart_date_and_clock() -> None:
    preamble = (
        "Logger 7\nSerial: 123\n\nNo.,Time,Temperature,Humidity\n1,2026-03-01 09:00,31.5,95\n"
    )
    assert read(preamble).rows == [(at(2026, 3, 1, 8), 31.5, 0.95)]
    unnamed = read("2026-03-01 09:00,31.5,95\n")
    assert [(q.about, unnamed.rows) for q in unnamed.questions] == [("columns", [])]
    # What was suggested is what is meant, once the keeper has said so.
    said = Choices(zone="Europe/Berlin", columns=unnamed.columns)
    assert read("2026-03-01 09:00,31.5,95\n", said).rows == [(at(2026, 3, 1, 8), 31.5, 0.95)]
    apart = "Datum;Uhrzeit;Temp;rH\n13.03.2026;09:00:00;31,5;95\n"
    assert read(apart).rows == [(at(2026, 3, 13, 8), 31.5, 0.95)]
    windows = "Zeit;Temperatur (°C)\n13.03.2026 09:00;31,5\n".encode("cp1252")
    assert read_logger_file(windows, BERLIN).rows == [(at(2026, 3, 13, 8), 31.5, None)]
    assert read_logger_file("time,temp\n2026-03-01 09:00,31\n".encode("utf-16"), BERLIN).rows


@pytest.mark.parametrize(
    "data",
    [
        b"",
        b"  \n ",
        b"\x00\x01\x02\x03" * 200,
        b"\x89PNG\r\n\x1a\n" + bytes(300),
        b"hello\nworld\n",
    ],
)
def test_what_is_no_table_of_readings_is_refused_in_words(data: bytes) -> None:
    with pytest.raises(NotReadable):
        read_logger_file(data, BERLIN)


def test_a_file_too_large_is_refused_before_it_is_read(monkeypatch) -> None:
    monkeypatch.setattr(reading_module, "LARGEST_FILE_BYTES", 50)
    with pytest.raises(NotReadable, match="MB"):
        read("time,temp\n" + "2026-03-01 09:00,31\n" * 4)


@given(st.binary(max_size=400))
def test_no_bytes_make_it_fall_over(data: bytes) -> None:
    with suppress(NotReadable):
        read_logger_file(data, BERLIN)


@given(st.lists(st.floats(20, 40).map(lambda v: round(v, 2)), min_size=1, max_size=30))
def test_fahrenheit_and_celsius_files_say_the_same(values: list[float]) -> None:
    celsius = "time,temp (C)\n" + "".join(
        f"2026-03-01 09:{i:02d},{v}\n" for i, v in enumerate(values)
    )
    fahrenheit = "time,temp (F)\n" + "".join(
        f"2026-03-01 09:{i:02d},{v * 1.8 + 32:.4f}\n" for i, v in enumerate(values)
    )
    a, b = read(celsius).rows, read(fahrenheit).rows
    assert [r[0] for r in a] == [r[0] for r in b]
    assert [r[1] for r in a] == pytest.approx([r[1] for r in b], abs=1e-3)
