"""Numbers of the climate: what is fine, what harms, what is told (rule E)."""

from collections.abc import Iterator

from sandboa.core.climate.rules import DEFAULT_CLIMATE as FINE
from sandboa.core.settings.setting import Quantity, Setting
from sandboa.core.units import SECONDS_PER_HOUR

_GROUP = "Climate"


def climate() -> Iterator[Setting]:
    """Limits a keeper is told of."""
    warm, apart = Quantity.TEMPERATURE, Quantity.DIFFERENCE
    (hot_c, hot_s), (hotter_c, hotter_s) = FINE.hot_emergencies
    cold_c, cold_s = FINE.cold_emergency
    for name, label, unit, default, limits, reason, quantity in (
        ("harm_above_c", "Harm adds up above", "", FINE.harm_above_c, (31.5, 36.0),
         "More deformities, weaker hatchlings.", warm),
        ("slow_below_c", "Eggs wait below", "", FINE.slow_below_c, (22.0, 30.0),
         "They mostly take it well; they take longer.", warm),
        ("hot_c", "Emergency above", "", hot_c, (33.0, 38.0), "Beyond the hours below.", warm),
        ("hot_hours", "for", "hours", hot_s / SECONDS_PER_HOUR, (0.5, 24.0),
         "Time beyond adds up; a door opened does not start it anew.", Quantity.PLAIN),
        ("hotter_c", "Emergency above", "", hotter_c, (34.0, 40.0), "Sooner.", warm),
        ("hotter_hours", "for", "hours", hotter_s / SECONDS_PER_HOUR, (0.1, 6.0),
         "An hour so hot can kill.", Quantity.PLAIN),
        ("cold_c", "Emergency below", "", cold_c, (10.0, 25.0), "Beyond the hours below.", warm),
        ("cold_hours", "for", "hours", cold_s / SECONDS_PER_HOUR, (2.0, 72.0),
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
