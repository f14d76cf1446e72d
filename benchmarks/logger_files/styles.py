"""The styles in which loggers, hubs and spreadsheets write readings."""

from collections.abc import Iterator, Sequence
from typing import Final

from benchmarks.logger_files.truth import MEASURED
from benchmarks.logger_files.workbooks import ods, xlsx
from benchmarks.logger_files.writing import (
    C_COMMA,
    ISO,
    LOW_C,
    LOW_RH,
    RH,
    RH_COMMA,
    C,
    Cell,
    Style,
    fahrenheit,
    kelvin,
    number,
    serial,
    stamp,
    upper_c,
    written,
)
from sandboa.formats.logger_files import ColumnUse

#: Heading of date, clock, temperature and humidity, as loggers of that language write it.
LANGUAGES: Final = {
    "English": "Date;Time;Temperature (°C);Relative humidity (%)",
    "German": "Datum;Uhrzeit;Temperatur [°C];rel. Feuchte [%]",
    "French": "Date;Heure;Température (°C);Humidité relative (%)",
    "Italian": "Data;Ora;Temperatura (°C);Umidità relativa (%)",
    "Spanish": "Fecha;Hora;Temperatura (°C);Humedad relativa (%)",
    "Portuguese": "Data;Hora;Temperatura (°C);Umidade relativa (%)",
    "Polish": "Data;Godzina;Temperatura (°C);Wilgotność względna (%)",
    "Dutch": "Datum;Tijd;Temperatuur (°C);Relatieve vochtigheid (%)",
    "Romanian": "Data;Ora;Temperatură (°C);Umiditate relativă (%)",
    "Russian": "Дата;Время;Температура (°C);Влажность (%)",
    "Ukrainian": "Дата;Час;Температура (°C);Вологість (%)",
    "Czech": "Datum;Čas;Teplota (°C);Relativní vlhkost (%)",
    "Swedish": "Datum;Tid;Temperatur (°C);Luftfuktighet (%)",
    "Turkish": "Tarih;Saat;Sıcaklık (°C);Nem (%)",
}
#: Times, each in a form of its own; "asked" where day and month cannot be told apart.
TIMES: Final = {
    "ISO with a space": ("%Y-%m-%d %H:%M", False),
    "ISO with a T and no zone": ("%Y-%m-%dT%H:%M:%S", False),
    "ISO with fractions of a second": ("%Y-%m-%dT%H:%M:%S.250", False),
    "year first with slashes": ("%Y/%m/%d %H:%M:%S", False),
    "day first with dots": ("%d.%m.%Y %H:%M", True),
    "day first, clock with dots": ("%d.%m.%Y %H.%M", True),
    "slashes, 24 hours": ("%d/%m/%Y %H:%M:%S", True),
    "slashes, two digits of a year": ("%d/%m/%y %H:%M", True),
    "AM and PM": ("%m/%d/%Y %I:%M:%S %p", True),
    "month by name": ("%d-%b-%Y %H:%M:%S", False),
    "month by name first": ('"%b %d, %Y %I:%M %p"', False),
}
_MONTHS: Final = {
    "German": "3. April 2026",
    "French": "3 avril 2026",
    "Spanish": "3 de abril de 2026",
    "Polish": "3 kwietnia 2026",
    "Russian": "3 апреля 2026",
}


def styles() -> Iterator[Style]:
    """All of them."""
    both = ("upper",)
    for language, heading in LANGUAGES.items():
        cells = (stamp("%d.%m.%Y"), stamp("%H:%M:%S"), C_COMMA, RH_COMMA)
        yield Style(
            f"headings in {language}", written(heading, cells, delimiter=";"), both, ("order",)
        )
    for form, (pattern, asked) in TIMES.items():
        data = written("Time,Temperature (°C),Humidity (%)", (stamp(pattern), C, RH))
        yield Style(f"times: {form}", data, both, ("order",) if asked else ())
    for language, day in _MONTHS.items():
        cells = (lambda m, day=day: f"{day} {m.local:%H:%M}", C_COMMA, RH_COMMA)
        yield Style(
            f"months by name in {language}", written("Time;Temp;Hum", cells, delimiter=";"), both
        )
    yield from _clocks()
    yield from _units()
    yield from _shapes()
    yield from _several()
    yield from _doubtful()
    yield from _spreadsheets()


def _clocks() -> Iterator[Style]:
    both = ("upper",)
    heading = "timestamp,temperature,humidity"
    yield Style("epoch seconds", written(heading, (lambda m: int(m.at.timestamp()), C, RH)), both)
    yield Style(
        "epoch milliseconds",
        written(heading, (lambda m: int(m.at.timestamp() * 1000), C, RH)),
        both,
    )
    yield Style(
        "ISO in UTC", written(heading, (lambda m: f"{m.at:%Y-%m-%dT%H:%M:%SZ}", C, RH)), both
    )
    yield Style(
        "ISO with an offset", written(heading, (lambda m: m.local.isoformat(), C, RH)), both
    )
    yield Style(
        "zone in the heading",
        written('"Date Time, GMT+02:00","Temp, °C","RH, %"', (stamp("%Y-%m-%d %H:%M:%S"), C, RH)),
        both,
    )
    yield Style(
        "UTC in the heading",
        written("Time (UTC),Temp,RH", (lambda m: f"{m.at:%Y-%m-%d %H:%M}", C, RH)),
        both,
    )
    yield Style(
        "spreadsheet serials",
        written("Time,Temp °C,RH %", (lambda m: f"{serial(m):.9f}", C, RH)),
        both,
    )
    yield Style(
        "spreadsheet serials with a comma",
        written(
            "Zeit;Temp °C;Feuchte %",
            (lambda m: f"{serial(m):.8f}".replace(".", ","), C_COMMA, RH_COMMA),
            delimiter=";",
        ),
        both,
    )
    yield Style(
        "serials, date and clock apart",
        written(
            "Date;Time;Temp;RH",
            (lambda m: int(serial(m)), lambda m: f"{serial(m) % 1:.8f}", C, RH),
            delimiter=";",
        ),
        both,
    )
    yield Style(
        "UTC beside local time",
        written("UTC time,Local time,Temp,RH", (lambda m: f"{m.at:%Y-%m-%d %H:%M}", ISO, C, RH)),
        both,
    )


def _units() -> Iterator[Style]:
    both = ("upper",)
    in_f, in_k = number(fahrenheit(upper_c), 2), number(kelvin(upper_c), 2)
    fraction = number(lambda m: m.upper_rh / 100.0, 3)
    for name, heading, cells in (
        ("°F in the heading", "Time,Temp (°F),RH", (ISO, in_f, RH)),
        ("°F by size alone", "Time,Temp,RH", (ISO, in_f, RH)),
        ("K in the heading", "Time,Temperature [K],RH", (ISO, in_k, RH)),
        ("kelvin by size alone", "time,temperature,humidity", (ISO, in_k, fraction)),
        ("℃ as one letter", "Time,Temperature(℃),Humidity(%RH)", (ISO, C, RH)),
        ("humidity as a fraction", "time,temp,hum", (ISO, C, fraction)),
        (
            "units behind the values",
            "Time,Temp,Hum",
            (ISO, lambda m: f"{m.upper_c:.1f} °C", lambda m: f"{m.upper_rh:.0f} %"),
        ),
        (
            "°C and °F of the same sensor",
            "Time,Temp (°C),Temp (°F),RH (%)",
            (ISO, C, in_f, RH),
        ),
        (
            "°F and °C of the same sensor",
            "Time,Temperature_F,Temperature_C,Humidity",
            (ISO, in_f, C, RH),
        ),
    ):
        yield Style(name, written(heading, cells), both)


def _shapes() -> Iterator[Style]:
    both = ("upper",)
    dew = number(lambda m: m.upper_c - 2.0)
    yield Style("tab", written("Time\tTemp\tRH", (ISO, C_COMMA, RH_COMMA), delimiter="\t"), both)
    yield Style("bar", written("Time|Temp|RH", (ISO, C, RH), delimiter="|"), both)
    yield Style("everything quoted", written('"Time","Temp","RH"', (ISO, C, RH), quoted=True), both)
    yield Style(
        "a page before",
        written(
            "No.,Time,Temperature,Humidity",
            (lambda m: MEASURED.index(m) + 1, ISO, C, RH),
            before="Logger 7\r\nSerial: 00123, firmware 2.1\r\nStart: 03.04.2026\r\n\r\n",
        ),
        both,
    )
    yield Style(
        "Windows letters",
        written(
            "Zeit;Temperatur (°C);Feuchte (%)",
            (ISO, C_COMMA, RH_COMMA),
            delimiter=";",
            encoding="cp1252",
        ),
        both,
    )
    yield Style(
        "UTF-16", written("Time\tTemp\tRH", (ISO, C, RH), delimiter="\t", encoding="utf-16"), both
    )
    yield Style(
        "UTF-8 with a mark", written("Time,Temp,RH", (ISO, C, RH), encoding="utf-8-sig"), both
    )
    yield Style(
        "dew point between", written("Time,Temp,Dew Point (°C),RH", (ISO, C, dew, RH)), both
    )
    yield Style(
        "lowest and highest beside",
        written("Time,Temp min,Temp max,Temp avg,Hum avg", (ISO, dew, dew, C, RH)),
        both,
    )
    yield Style(
        "battery in % before",
        written("Time,Battery (%),Temperature,Humidity", (ISO, lambda _: 87, C, RH)),
        both,
    )
    yield Style(
        "pressure and VPD",
        written(
            "Time,Pressure hPa,Temp,RH,VPD (kPa),Abs. humidity g/m³",
            (ISO, lambda _: 1013, C, RH, lambda _: 0.4, lambda _: 28.1),
        ),
        both,
    )
    yield Style(
        "set point beside",
        written("Time,Set point (°C),Temperature (°C)", (ISO, lambda _: 31.5, C)),
        ("upper dry",),
    )
    yield Style("temperature alone", written("Time,Temperature", (ISO, C)), ("upper dry",))
    yield Style("humidity first", written("Time,Humidity,Temperature", (ISO, RH, C)), both)
    yield Style(
        "NaN where nothing was read",
        written("Time,Temp,RH", (ISO, C, lambda _: "NaN")),
        ("upper dry",),
    )
    yield Style(
        "time last", written("Temp;RH;Zeitstempel", (C_COMMA, RH_COMMA, ISO), delimiter=";"), both
    )
    yield Style(
        "spaces that do not break",
        written(
            "Time;Temp;RH",
            (ISO, lambda m: f"{m.upper_c:.1f}\xa0°C", lambda m: f"{m.upper_rh:.0f}\u202f%"),
            delimiter=";",
        ),
        both,
    )


def _several() -> Iterator[Style]:
    two = ("upper", "lower")
    wide = (ISO, C, RH, LOW_C, LOW_RH)
    for name, heading in (
        (
            "two sensors side by side",
            "Time,Upper Temp (°C),Upper RH (%),Lower Temp (°C),Lower RH (%)",
        ),
        ("two channels, numbered", "Time,T1,H1,T2,H2"),
        ("two channels, numbered behind", "Time,Temperature 1,Humidity 1,Temperature 2,Humidity 2"),
        (
            "two channels of a hub",
            "Time,CH1 Temperature(℃),CH1 Humidity(%RH),CH2 Temperature(℃),CH2 Humidity(%RH)",
        ),
    ):
        yield Style(name, written(heading, wide), two)
    yield Style(
        "temperatures first, then humidities",
        written(
            "Time,Upper temperature,Lower temperature,Upper humidity,Lower humidity",
            (ISO, C, LOW_C, RH, LOW_RH),
        ),
        two,
    )
    yield Style(
        "two temperatures without names",
        written("Time,Temperature,Temperature", (ISO, C, LOW_C)),
        ("upper dry", "lower dry"),
    )
    yield Style(
        "long: a row for each sensor",
        _long(
            "time,sensor,temperature,humidity",
            (
                lambda m: f"{ISO(m)},upper,{C(m)},{RH(m)}",
                lambda m: f"{ISO(m)},lower,{LOW_C(m)},{LOW_RH(m)}",
            ),
        ),
        two,
    )
    yield Style(
        "long: a row for each value",
        _long(
            "time,sensor,quantity,value",
            (
                lambda m: f"{ISO(m)},upper,temperature,{C(m)}",
                lambda m: f"{ISO(m)},upper,humidity,{RH(m)}",
                lambda m: f"{ISO(m)},lower,temperature,{LOW_C(m)}",
                lambda m: f"{ISO(m)},lower,humidity,{LOW_RH(m)}",
            ),
        ),
        two,
    )
    yield Style(
        "long: names of a hub",
        _long(
            "entity_id,state,last_changed",
            (
                lambda m: f"sensor.upper_temperature,{C(m)},{m.at:%Y-%m-%dT%H:%M:%S.000Z}",
                lambda m: f"sensor.upper_humidity,{RH(m)},{m.at:%Y-%m-%dT%H:%M:%S.000Z}",
                lambda m: f"sensor.lower_temperature,{LOW_C(m)},{m.at:%Y-%m-%dT%H:%M:%S.000Z}",
                lambda m: f"sensor.lower_humidity,{LOW_RH(m)},{m.at:%Y-%m-%dT%H:%M:%S.000Z}",
            ),
        ),
        two,
    )
    yield Style(
        "sensors that take turns",
        _long(
            "Time,Upper Temp,Upper RH,Lower Temp,Lower RH",
            (
                lambda m: f"{ISO(m)},{C(m)},{RH(m)},,",
                lambda m: f"{ISO(m)},,,{LOW_C(m)},{LOW_RH(m)}",
            ),
        ),
        two,
    )


def _long(heading: str, rows: Sequence[Cell]) -> bytes:
    return "\n".join([heading, *(row(m) for m in MEASURED for row in rows)]).encode()


def _doubtful() -> Iterator[Style]:
    both, ask = ("upper",), ("columns",)
    time, temp, hum, no = (
        ColumnUse.TIME,
        ColumnUse.TEMPERATURE,
        ColumnUse.HUMIDITY,
        ColumnUse.UNUSED,
    )
    yield Style("no heading", written("", (ISO, C, RH)), both, ask, (time, temp, hum))
    yield Style(
        "no heading, humidity first", written("", (ISO, RH, C)), both, ask, (time, hum, temp)
    )
    yield Style(
        "headings in no language known here",
        written("Aika,Lampotila,Kosteus", (ISO, C, RH)),
        both,
        ask,
        (time, temp, hum),
    )
    yield Style(
        "values under each other's heading",
        written("Time,Temp,RH", (ISO, number(lambda m: m.upper_rh), C)),
        both,
        ask,
        (time, hum, temp),
    )
    yield Style(
        "a fraction headed temperature",
        written("Time,Temp,Value", (ISO, number(lambda m: m.upper_rh / 100, 3), C)),
        both,
        ask,
        (time, hum, temp),
    )
    yield Style(
        "a clock that is not recognised",
        written("Datum;Kello;Temp;RH", (stamp("%Y-%m-%d"), stamp("%H:%M"), C, RH), delimiter=";"),
        both,
        ask,
        (time, ColumnUse.CLOCK, temp, hum),
    )
    yield Style(
        "rows of sensors that are not recognised",
        _long(
            "time,shelf,temperature,humidity",
            (
                lambda m: f"{ISO(m)},a,{C(m)},{RH(m)}",
                lambda m: f"{ISO(m)},b,{LOW_C(m)},{LOW_RH(m)}",
            ),
        ),
        ("upper", "lower"),
        ask,
        (time, ColumnUse.SENSOR, temp, hum),
    )
    yield Style(
        "°F headed °C",
        written("Time,Temp (°C),RH", (ISO, number(fahrenheit(upper_c)), RH)),
        both,
        ("unit",),
    )
    yield Style(
        "a row number before, no heading",
        written("", (lambda m: MEASURED.index(m) + 1, ISO, C, RH)),
        both,
        ask,
        (no, time, temp, hum),
    )


def _spreadsheets() -> Iterator[Style]:
    heading = ["Date", "Temperature (°C)", "Humidity (%)"]
    rows = [[m.local.replace(tzinfo=None), m.upper_c, m.upper_rh] for m in MEASURED]
    yield Style("XLSX", xlsx({"Data": [heading, *rows]}), ("upper",))
    about = [["Logger", "7"], ["Serial", 123], [], heading, *rows]
    yield Style(
        "XLSX with a page before and a sheet about it",
        xlsx({"Summary": [["Logger", 7], ["Highest", 32.1]], "Data": about}),
        ("upper",),
    )
    lower = [[m.local.replace(tzinfo=None), m.lower_c, m.lower_rh] for m in MEASURED]
    yield Style(
        "XLSX with two sheets of readings",
        xlsx({"Upper": [heading, *rows], "Lower": [heading, *lower]}),
        ("lower",),
        ("sheet",),
        sheet="Lower",
    )
    yield Style("ODS", ods([heading, *rows]), ("upper",))
