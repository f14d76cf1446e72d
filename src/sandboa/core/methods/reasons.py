"""What speaks for each choice of a method, or what it asks for (keeper practice)."""

from typing import Final

from sandboa.core.box import Closing
from sandboa.core.dam_care.aftercare import TubSchool
from sandboa.core.messages import Message, Temperature, TemperatureRange, Words
from sandboa.core.methods.method import (
    ClumpSchool,
    Contact,
    CuttingSchool,
    DamSchool,
    LastDays,
    Method,
    MouldSchool,
    Visits,
)
from sandboa.core.water.mixing import medium_named

#: °C above which incubation is discouraged: more deformities, weak hatchlings (rule P4).
DISCOURAGED_ABOVE_C: Final = 32.8
#: °C that most keepers incubate at (rule P4).
STANDARD_RANGE_C: Final = (31.1, 32.0)
#: °C above which a set point belongs to a school, its name, and what it means (rule P4).
TEMPERATURE_SCHOOLS: Final[tuple[tuple[float, str, Words], ...]] = (
    (0.0, "low", "Far below what most use: weeks longer, and chilled by any fault."),
    (29.2, "cool and slow", "Slower by a week and more, and forgiving of peaks."),
    (
        30.5,
        "standard",
        Message(
            "{standard} is standard; cooler is slower and forgiving of peaks.",
            standard=TemperatureRange(*STANDARD_RANGE_C),
        ),
    ),
    (
        DISCOURAGED_ABOVE_C,
        "discouraged",
        Message(
            "Discouraged: more deformities and weak hatchlings above {limit}.",
            limit=Temperature(DISCOURAGED_ABOVE_C),
        ),
    ),
)

#: What speaks for each choice of each line, or what it asks for (shown beside it; keeper practice).
REASONS: Final[dict[str, dict[str, Words]]] = {
    "medium": {
        "vermiculite": "It holds its water longest, so a missed week is forgiven.",
        "perlite": "Airy and clean; its water lasts about half as long as in vermiculite.",
        "saturated perlite": "Much water in store; eggs lie on a grid and must not touch it.",
        "half and half": "Airier than vermiculite, and it holds water longer than perlite.",
        "ready-mixed": "Nothing to mix; what it holds only the scale can tell.",
        "sponges": "Quickly made; soaked again when they dry, and eggs lie on a grid.",
        "water under a grid": "The dampest air of all; it must never be tipped or carried about.",
    },
    "contact": {
        Contact.BEDDED: "Bedded eggs do not roll and lose water slowest.",
        Contact.GRID: "Nothing wet touches them; they dry sooner if the air does.",
    },
    "closing": {
        Closing.SEALED_FILM: "It keeps its water for the whole term; air it from 70 % developed.",
        Closing.PIN_HOLES: "One or two pin holes let air in and keep the water for weeks.",
        Closing.SMALL_HOLES: "Air enough for many eggs; weigh it every week or two.",
        Closing.CRACKED_CORNER: "Air enough at full term; it dries in about a month.",
        Closing.LOOSE_LID: "Aired by itself; it dries fastest, weigh it weekly.",
    },
    "visits": {
        Visits.SET_AND_FORGET: "Nothing disturbs them, and nothing is seen in time.",
        Visits.EVERY_14_DAYS: "Enough for a box that holds its water; a dry one shows late.",
        Visits.EVERY_7_DAYS: "A week is short enough to see a box go dry in time.",
        Visits.EVERY_2_3_DAYS: "Everything is seen early; each opening dries the box a little.",
    },
    "mould": {
        MouldSchool.LEAVE: "Mould is mostly the result of a dying egg; rubbing harms good ones.",
        MouldSchool.ISOLATE: "Its neighbours are safe; it can be moved only without turning it.",
        MouldSchool.POWDER: "It may stop a spot; keep powder out of your lungs and their air.",
        MouldSchool.DISCARD: "Ugly eggs hatch now and then: look and smell more than once.",
    },
    "cutting": {
        CuttingSchool.NEVER: "Strong ones come out by themselves; cutting is for the last one.",
        CuttingSchool.AFTER_FIRST_PIP: "The first pip proves that the clutch is at term.",
        CuttingSchool.FULL_TERM: "All eggs deflated at full term: late enough for most.",
        CuttingSchool.SET_DAY: "A day is not development: it is held against the heat they got.",
    },
    "last_days": {
        LastDays.LEAVE: "Every move in the last days is a risk of its own.",
        LastDays.MOVE: "Warm damp paper keeps wet hatchlings clean; move eggs without turning.",
    },
    "clump": {
        ClumpSchool.KEEP: "A clump does not roll and has less surface to dry.",
        ClumpSchool.SEPARATE: "Each can be seen and taken out; only while fresh, or it tears.",
    },
    "tub": {
        TubSchool.AT_ONCE: "A tub that smells of eggs keeps her brooding.",
        TubSchool.REST_FIRST: "She rests where she knows it; she may brood and eat later.",
    },
    "dam": {
        DamSchool.TAKEN: "Eggs in a box can be watched and watered.",
        DamSchool.MATERNAL: "She does the work and fasts for it; little is seen before they pip.",
    },
}  # fmt: skip


def temperature_school(temperature_c: float) -> tuple[str, Words]:
    """The school of a set point (°C) and what it means; the lowest for all below it."""
    own = [(name, words) for above_c, name, words in TEMPERATURE_SCHOOLS if temperature_c > above_c]
    return own[-1] if own else TEMPERATURE_SCHOOLS[0][1:]


def reasons_of(method: Method) -> dict[str, Words]:
    """What speaks for each line of a method as it is chosen, by the line's name."""
    told = {line: choices[str(getattr(method, line))] for line, choices in REASONS.items()}
    told["ratio"] = medium_named(method.medium).how
    told["temperature_c"] = temperature_school(method.temperature_c)[1]
    return told
