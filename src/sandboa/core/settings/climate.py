"""Numbers of the climate: what is fine, what harms, what is told (rule E)."""

from collections.abc import Iterator

from sandboa.core.climate.faults.rules import DEFAULT_FAULTS as FAULTS
from sandboa.core.climate.rules import DEFAULT_CLIMATE as FINE
from sandboa.core.settings.setting import Quantity, Setting
from sandboa.core.units import SECONDS_PER_HOUR, SECONDS_PER_MINUTE

_GROUP = "Climate"


def climate() -> Iterator[Setting]:
    """Limits a keeper is told of."""
    warm, apart = Quantity.TEMPERATURE, Quantity.DIFFERENCE
    (hot_c, hot_s), (hotter_c, hotter_s) = FINE.hot_emergencies
    cold_c, cold_s = FINE.cold_emergency
    for name, label, unit, default, limits, reason, quantity in (
        ("fine_off_c", "All is fine within", "", FINE.fine_off_c, (0.1, 2.0),
         "Off the set point.", apart),
        ("swing_good_c", "A day's swing is good up to", "", FINE.swing_good_c, (0.2, 2.0),
         "Above it a day is watched.", apart),
        ("saturated_humidity", "A sensor is saturated from", "of 1", FINE.saturated_humidity,
         (0.90, 1.0), "It says no number then.", Quantity.SHARE),
        ("harm_above_c", "Harm adds up above", "", FINE.harm_above_c, (31.5, 36.0),
         "More deformities, weaker hatchlings.", warm),
        ("slow_below_c", "Eggs wait below", "", FINE.slow_below_c, (22.0, 30.0),
         "They mostly take it well; they take longer.", warm),
        ("hot_c", "Heat is an emergency above", "", hot_c, (33.0, 38.0), "After some hours.", warm),
        ("hot_hours", "Heat is an emergency after", "hours", hot_s / SECONDS_PER_HOUR, (0.5, 24.0),
         "Time beyond adds up; a door opened does not start it anew.", Quantity.PLAIN),
        ("hotter_c", "Great heat is an emergency above", "", hotter_c, (34.0, 40.0), "Sooner.",
         warm),
        ("hotter_hours", "Great heat is an emergency after", "hours", hotter_s / SECONDS_PER_HOUR,
         (0.1, 6.0),
         "An hour so hot can kill.", Quantity.PLAIN),
        ("cold_c", "Cold is an emergency below", "", cold_c, (10.0, 25.0), "After many hours.",
         warm),
        ("cold_hours", "Cold is an emergency after", "hours", cold_s / SECONDS_PER_HOUR,
         (2.0, 72.0),
         "Eggs survive a cool night.", Quantity.PLAIN),
        ("off_target_c", "Alarm when off the set point by", "", FINE.off_target_c, (0.5, 4.0),
         "For half an hour.", apart),
        ("swing_c", "Told when a day swings by more than", "", FINE.swing_c, (0.8, 5.0),
         "Half of it is good; as much as that wants an act.", apart),
        ("lasting_off_c", "Told when off for three days by", "", FINE.lasting_off_c, (0.3, 3.0),
         "Half a degree is fine.", apart),
        ("slow_change_c", "Told when it moves in two weeks by", "", FINE.slow_change_c,
         (0.3, 3.0), "The room, the thermostat, or eggs late in term.", apart),
        ("humidity_fall", "Told when humidity falls in a day by", "of 1", FINE.humidity_fall,
         (0.05, 0.5), "Against the week before: boxes dry faster then.", Quantity.SHARE),
        ("dry_box_below", "Dry air in a box below", "of 1", FINE.dry_box_below, (0.6, 0.97),
         "A damp box stands at 90 % and more.", Quantity.SHARE),
        ("ready_swing_c", "Ready: swing of a day at most", "", FINE.ready_swing_c, (0.3, 3.0),
         "Before eggs come, over 48 hours.", apart),
        ("ready_off_c", "Ready: mean off target at most", "", FINE.ready_off_c, (0.1, 2.0),
         "Before eggs come, over 48 hours.", apart),
    ):  # fmt: skip
        yield Setting(f"climate.{name}", label, unit, default, limits, reason, _GROUP, quantity)
    for name, label, unit, default, limits, reason, quantity in (
        ("power_c", "Fault, power cut: colder by", "", FAULTS.power_c, (0.3, 5.0),
         "On all shelves at once.", apart),
        ("power_minutes", "Fault, power cut: for", "minutes",
         FAULTS.power_s / SECONDS_PER_MINUTE, (5.0, 240.0), "Shorter ones harm nothing.",
         Quantity.PLAIN),
        ("door_c", "Fault, open door: colder by", "", FAULTS.door_c, (0.1, 5.0),
         "At once, and the humidity with it.", apart),
        ("door_minutes", "Fault, open door: for", "minutes",
         FAULTS.door_s / SECONDS_PER_MINUTE, (2.0, 240.0), "A visit is shorter.", Quantity.PLAIN),
        ("door_humidity", "Fault, open door: drier by", "of 1", FAULTS.door_humidity,
         (0.01, 0.5), "Without it a cold hour is no door.", Quantity.SHARE),
        ("apart_c", "Fault, fan: shelves apart by", "", FAULTS.apart_c, (0.3, 5.0),
         "More than they usually are.", apart),
        ("apart_hours", "Fault, fan: for", "hours", FAULTS.apart_hours, (0.25, 24.0),
         "A door stirs them for an hour.", Quantity.PLAIN),
        ("sawtooth_c", "Fault, thermostat: up and down by", "", FAULTS.sawtooth_c, (0.3, 5.0),
         "Again and again, through hours.", apart),
        ("stuck_hours", "Fault, stuck probe: the same for", "hours", FAULTS.stuck_hours,
         (0.5, 48.0), "To the last digit, longer than chance makes likely.", Quantity.PLAIN),
        ("step_c", "Fault, fallen probe: a step of", "", FAULTS.step_c, (0.3, 5.0),
         "In one probe, while the others stay.", apart),
        ("drift_c", "Fault, drifting probe: by", "", FAULTS.drift_c, (0.1, 3.0),
         "Against the others and the set point.", apart),
        ("drift_days", "Fault, drifting probe: over", "days", FAULTS.drift_days, (3.0, 30.0),
         "A straight line, for so long at least.", Quantity.PLAIN),
        ("egg_heat_low_c", "Heat of the eggs: from", "", FAULTS.egg_heat_low_c, (0.1, 0.7),
         "Late in term they warm their place.", apart),
        ("egg_heat_high_c", "Heat of the eggs: up to", "", FAULTS.egg_heat_high_c, (0.8, 4.0),
         "More of it is something else.", apart),
    ):  # fmt: skip
        yield Setting(f"fault.{name}", label, unit, default, limits, reason, _GROUP, quantity)
