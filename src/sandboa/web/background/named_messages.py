"""Messages whose values a keeper has named, on their way into the house: by MQTT and by HTTP."""

from sandboa.formats.sensor_payloads import SensorMessage
from sandboa.services.probes.heard_values import Source, values_of
from sandboa.services.readings.intake import TakenIn
from sandboa.services.readings.named_values import take_in_named
from sandboa.web.house import House


def take_in_message(
    house: House, source: Source, message: SensorMessage, came_s: float | None
) -> TakenIn | None:
    """Store what is named in a message, of the time it tells or else of when it came (s).

    None, with nothing stored, where nobody has named it, or nobody knows of
    when it is. Raises NotPlausible for a value that cannot be.
    """
    named = values_of(source)
    at_s = came_s if message.at_s is None else message.at_s
    if not named or at_s is None:
        return None
    now_s = house.clock.now_s()
    return take_in_named(named, message.numbers(), at_s, now_s, house.lone_humidities)
