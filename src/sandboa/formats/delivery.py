"""What a device sends, over HTTP or MQTT: readings as JSON, in any order."""

from datetime import datetime
from typing import Annotated, Final, NotRequired

from pydantic import AwareDatetime, BaseModel, ConfigDict, Field
from typing_extensions import TypedDict

from sandboa.core.errors import NotPlausible
from sandboa.core.messages import Words
from sandboa.core.units import READING_RANGE_C, require_device_clock
from sandboa.services.readings.intake import SentReading

#: Bytes of one delivery, packed or not: some 100,000 readings (assumption).
LARGEST_DELIVERY_BYTES: Final = 9_000_000

_ProbeName = Annotated[str, Field(max_length=200)]


class ReadingSent(TypedDict):
    """One reading of a delivery; `at` is RFC 3339 with its offset.

    A plain dictionary with a plain string: a season is 100,000 of these, and
    an object and a zone for each would cost more than storing them.
    """

    __pydantic_config__ = ConfigDict(extra="forbid", allow_inf_nan=False)  # type: ignore[misc]

    at: Annotated[str, Field(max_length=40, json_schema_extra={"format": "date-time"})]
    temperature_c: Annotated[float, Field(ge=READING_RANGE_C[0], le=READING_RANGE_C[1])]
    humidity: NotRequired[Annotated[float, Field(ge=0, le=1)] | None]
    probe: NotRequired[_ProbeName | None]


class Delivery(BaseModel):
    """Readings of the named probe, of the probe each names, or of the device's only one.

    `sent_at` is the device's own now: with it a wrong clock is noticed at once.
    """

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    readings: Annotated[list[ReadingSent], Field(max_length=100_000)]
    probe: _ProbeName | None = None
    sent_at: AwareDatetime | None = None

    def rows(self) -> list[SentReading]:
        """As the services take them; NotPlausible names the first time that is none."""
        read = datetime.fromisoformat
        try:
            moments = [read(reading["at"]) for reading in self.readings]
        except ValueError:
            moments = []
        if len(moments) < len(self.readings) or None in {m.tzinfo for m in moments}:
            raise self._first_bad_time()
        times = [int(moment.timestamp()) for moment in moments]
        for end_s in {min(times), max(times)} if times else ():
            require_device_clock(f"readings.{times.index(end_s)}.at", end_s)
        own = self.probe
        return [
            (
                reading.get("probe") or own,
                at_s,
                reading["temperature_c"],
                reading.get("humidity"),
            )
            for at_s, reading in zip(times, self.readings, strict=True)
        ]

    @property
    def sent_s(self) -> float | None:
        if self.sent_at is None:
            return None
        return require_device_clock("sent_at", self.sent_at.timestamp())

    def _first_bad_time(self) -> NotPlausible:
        for number, reading in enumerate(self.readings):
            field = f"readings.{number}.at"
            try:
                if datetime.fromisoformat(reading["at"]).tzinfo is None:
                    return NotPlausible(field, f"{field} needs its offset from UTC")
            except ValueError:
                return NotPlausible(field, f'{field} "{reading["at"]}" is not a date and time')
        raise AssertionError("every time is one")


def is_delivery(payload: bytes) -> bool:
    """Whether a message is a delivery, and not what a sensor says in words of its own."""
    if b'"readings"' not in payload:
        return False
    return b'"temperature_c"' in payload or b"temp" not in payload.lower()


def refusal_words(error: Exception) -> Words:
    """Why a delivery was refused, in a line: a validation's first reason, with its field."""
    if isinstance(error, NotPlausible):
        return error.reason
    told = getattr(error, "errors", None)
    if told is None:
        return str(error)
    first = told()[0]
    place = ".".join(str(part) for part in first["loc"] if part != "body")
    return f"{place}: {first['msg']}"
