"""Numbers of why eggs were lost: from where on something is a sign of a cause, where each cause
starts, and what each sign is worth (rule G)."""

from collections.abc import Iterator

from sandboa.core.causes.kinds import Cause
from sandboa.core.causes.rules import CauseLimits
from sandboa.core.causes.scores import SCORES, STARTS
from sandboa.core.messages import Message
from sandboa.core.settings.setting import Quantity, Setting

_GROUP, _DEEPER = "Losses", "Causes of loss"
_WARM, _APART, _SHARE, _PLAIN = (
    Quantity.TEMPERATURE,
    Quantity.DIFFERENCE,
    Quantity.SHARE,
    Quantity.PLAIN,
)
#: By field of CauseLimits: what is set, its unit, its range, why, and what it is.
_LIMITS = {
    "early_days": (
        "Heat is suspected when siblings are early by", "days", (1.0, 20.0),
        "Against what the set point gives; clutches of one house differ by some days.", _PLAIN),
    "late_days": (
        "Cold is suspected when siblings are late by", "days", (1.0, 20.0),
        "Against what the set point gives; clutches of one house differ by some days.", _PLAIN),
    "never_hot_c": (
        "It was never hot up to", "", (31.0, 35.0), "Then heat is not to blame.", _WARM),
    "hot_degree_hours": (
        "Too hot from", "Celsius degree-hours", (0.5, 19.0),
        "Above where harm adds up, before it died.", _PLAIN),
    "very_hot_degree_hours": (
        "Much too hot from", "Celsius degree-hours", (19.5, 200.0),
        "Above where harm adds up, before it died.", _PLAIN),
    "cold_hours": (
        "Too cold from", "hours in a row", (4.0, 71.0), "Eggs mostly wait; they seldom die.",
        _PLAIN),
    "very_cold_hours": (
        "Very cold from", "hours in a row", (71.5, 480.0), "Three days cost some eggs.", _PLAIN),
    "deep_cold_c": (
        "Deep cold below", "", (10.0, 26.0), "However short it was.", _WARM),
    "swing_days": (
        "Unstable from", "days of large swings", (1.0, 7.0), "One bad day is none.", _PLAIN),
    "many_swing_days": (
        "Very unstable from", "days of large swings", (7.5, 60.0), "A week and more.", _PLAIN),
    "calm_swing_c": (
        "A day is calm up to a swing of", "", (0.2, 2.0), "Then swings are not to blame.", _APART),
    "measured_enough": (
        "“Never” is said where measured", "of the time", (0.3, 1.0),
        "What nobody measured may have been hot.", _SHARE),
    "fault_reach": (
        "A death is laid to a fault for", "of the term", (0.02, 0.5),
        "After it; some days pass before an egg that was hurt is lost.", _SHARE),
    "longest_outage_hours": (
        "An outage lasts up to", "hours", (6.0, 240.0), "Longer, it is a cold stretch.", _PLAIN),
    "harmless_c": (
        "A fault is harmless below", "", (0.5, 8.0), "Off the usual temperature.", _APART),
    "severe_c": (
        "A fault is severe from", "", (1.0, 12.0), "Off the usual temperature.", _APART),
    "severe_hours": (
        "A fault is severe when it lasts", "hours", (1.0, 72.0), "Then it counts more.", _PLAIN),
    "air_from": (
        "Air can be short from", "developed", (0.4, 0.95),
        "Before it eggs need little: crack the film from then on.", _SHARE),
    "rarely_days": (
        "Rarely opened from", "days", (2.0, 40.0), "Unopened, with the film sealed.", _PLAIN),
    "soon_after": (
        "Soon after a knock is within", "of the term", (0.02, 1.0), "Some two weeks.", _SHARE),
    "in_sequence": (
        "Touching eggs lost in sequence within", "of the term", (0.02, 1.0),
        "Mould takes its time from egg to egg.", _SHARE),
    "long_pipped_hours": (
        "Pipped for long from", "hours", (12.0, 120.0), "Most are out within two days.", _PLAIN),
    "full_term": (
        "Opened too early before", "developed", (0.80, 1.0),
        "The yolk is not taken in before.", _SHARE),
    "high_slug_share": (
        "Many slugs of a dam or sire from", "of its eggs", (0.05, 0.9),
        "Then the pairing is looked at.", _SHARE),
    "enough_eggs": (
        "Her or his record counts from", "eggs", (2.0, 50.0), "Fewer say little.", _PLAIN),
    "strong_record": (
        "A dam's record is strong from", "hatched", (0.5, 1.0),
        "Then her condition is less likely to blame.", _SHARE),
    "same_stage": (
        "Deaths are of one stage within", "of the term", (0.02, 0.5),
        "As a gene that kills would have it.", _SHARE),
    "whole_clutch": (
        "A clutch is poor as a whole from", "lost", (0.3, 1.0),
        "Then the dam is looked at.", _SHARE),
    "new_days": (
        "A cabinet is new for", "days", (10.0, 730.0), "New foam and glue give off vapours.",
        _PLAIN),
    "batch_from_days": (
        "Vapours kill a batch from day", "", (1.0, 35.0), "After lay.", _PLAIN),
    "batch_to_days": (
        "Vapours kill a batch until day", "", (36.0, 90.0), "After lay.", _PLAIN),
    "batch_share": (
        "A batch is lost from", "of its eggs", (0.2, 1.0), "In one cabinet, at one age.", _SHARE),
    "wrong_notes": (
        "Notes on opening are wrong in", "of them", (0.001, 0.4),
        "So that no single note settles a cause.", _SHARE),
    "together_from": (
        "Two causes are told from a share of", "each", (0.05, 0.5),
        "Either may have done it, or both.", _SHARE),
}  # fmt: skip


def losses() -> Iterator[Setting]:
    defaults = CauseLimits()
    for name, (label, unit, limits, reason, quantity) in _LIMITS.items():
        yield Setting(
            f"losses.{name}", label, unit, getattr(defaults, name), limits, reason, _GROUP, quantity
        )
    for cause, score in STARTS.items():
        if cause is not Cause.UNKNOWN:
            yield Setting(
                f"start.{cause}", Message("{cause}: to begin with", cause=cause.capitalize()),
                "log score", score, (-10.0, 0.0),
                "Against 0 for unknown: how much has to speak for it before it leads.",
                _DEEPER, deep=True,
            )  # fmt: skip
    for line in SCORES.values():
        yield Setting(
            line.name, Message("{cause}: {sign}", cause=line.cause.capitalize(), sign=line.words),
            "log score",
            line.score, (-15.0, 15.0),
            "Above 0 speaks for that cause of a loss, below against it.", _DEEPER,
            deep=True,
        )  # fmt: skip
