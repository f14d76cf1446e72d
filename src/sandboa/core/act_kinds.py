"""Kinds of act, and what each of them touches: so what it makes stale, and who takes it back."""

from enum import Flag, StrEnum, auto
from typing import Self


class Touch(Flag):
    """What an act of a kind may change besides the record of its own clutch or animal."""

    NOTHING = 0
    #: What the record says of any clutch: what was measured, where, and the keeper's numbers.
    EVERY_CLUTCH = auto()
    #: Why eggs of closed clutches died, as far as the record tells.
    LOSSES = auto()
    #: What became of eggs: on these the fates of a closed clutch rest.
    FATES = auto()
    #: How the house is run: only a keeper does these, and takes them back.
    RUNNING = auto()


class ActKind(StrEnum):
    """What an act is, as it is stored; `touches` is what it may change."""

    touches: Touch

    def __new__(cls, stored: str, touches: Touch) -> Self:
        kind = str.__new__(cls, stored)
        kind._value_ = stored
        kind.touches = touches
        return kind

    # Of the whole house.
    UNDO = "undo", Touch.EVERY_CLUTCH | Touch.LOSSES
    REDO = "redo", Touch.EVERY_CLUTCH | Touch.LOSSES
    SETTING = "setting", Touch.EVERY_CLUTCH | Touch.LOSSES | Touch.RUNNING
    METHOD = "method", Touch.LOSSES | Touch.RUNNING
    PERSON = "person", Touch.LOSSES | Touch.RUNNING
    DEVICE = "device", Touch.RUNNING
    MESSENGER = "messenger", Touch.RUNNING
    ALARM_SEEN = "alarm", Touch.NOTHING
    #: What migrations told of: facts they corrected, and records they took out.
    MENDED = "mended", Touch.EVERY_CLUTCH | Touch.LOSSES
    CLEARED = "cleared", Touch.LOSSES

    # Of cabinets and what is measured in them.
    CABINET = "cabinet", Touch.LOSSES
    ALTERATION = "alteration", Touch.LOSSES
    SET_POINT = "set point", Touch.EVERY_CLUTCH | Touch.LOSSES
    PROBE = "probe", Touch.EVERY_CLUTCH | Touch.LOSSES
    #: What a sensor's messages say of which probe: of what comes from then on.
    HEARD = "heard", Touch.NOTHING
    PROBE_CHECK = "check", Touch.EVERY_CLUTCH | Touch.LOSSES
    LEFT_OUT = "left out", Touch.EVERY_CLUTCH | Touch.LOSSES
    #: A box set up or put away.
    BOX = "box", Touch.LOSSES
    #: A file of readings, or one by hand from before a clutch was closed.
    READINGS = "readings", Touch.EVERY_CLUTCH | Touch.LOSSES
    #: One reading by hand that no closed clutch can have had.
    READING_NOW = "reading", Touch.NOTHING

    # Of animals.
    ANIMAL = "animal", Touch.LOSSES
    #: A list of before Sandboa, whatever it is about; and a past clutch corrected.
    OLD_RECORDS = "old records", Touch.LOSSES
    GENE = "gene", Touch.LOSSES
    PAIR = "pair", Touch.LOSSES
    PAIRING = "pairing", Touch.LOSSES
    LOCK = "lock", Touch.NOTHING
    SIGN = "sign", Touch.NOTHING
    WEIGH = "weigh", Touch.LOSSES
    MEAL = "meal", Touch.NOTHING
    SHED = "shed", Touch.NOTHING
    TUB = "tub", Touch.NOTHING
    HELD_BACK = "held back", Touch.LOSSES
    DEPARTURE = "departure", Touch.NOTHING

    # Of one clutch.
    LAY = "lay", Touch.LOSSES
    CORRECT = "correct", Touch.LOSSES
    ORIGIN = "origin", Touch.LOSSES
    MOVE = "move", Touch.EVERY_CLUTCH | Touch.LOSSES
    VISIT = "visit", Touch.NOTHING
    CANDLE = "candle", Touch.NOTHING
    GRADE = "grade", Touch.NOTHING
    WATER = "water", Touch.NOTHING
    POSTPONE = "postpone", Touch.NOTHING
    TASK = "task", Touch.NOTHING
    PHOTO = "photo", Touch.NOTHING
    NOTE = "note", Touch.NOTHING
    PIP = "pip", Touch.LOSSES | Touch.FATES
    CUT = "cut", Touch.LOSSES | Touch.FATES
    EMERGENCE = "emergence", Touch.LOSSES | Touch.FATES
    HATCHLING = "hatchling", Touch.LOSSES
    FATE = "fate", Touch.LOSSES | Touch.FATES
    OPENING = "opening", Touch.LOSSES
    FINISHED = "finished", Touch.LOSSES
    REOPENED = "reopened", Touch.LOSSES

    @classmethod
    def touched_by(cls, stored: str) -> Touch:
        """What an act stored with that kind may change: for an unknown kind, everything."""
        known = cls._value2member_map_.get(stored)
        return known.touches if isinstance(known, ActKind) else ~Touch.NOTHING

    @classmethod
    def stored_as(cls, stored: str) -> Self:
        """The kind that is stored so; ValueError for an unknown one."""
        for kind in cls:
            if kind.value == stored:
                return kind
        raise ValueError(f"no kind of act is stored as {stored!r}")

    @classmethod
    def touching(cls, what: Touch) -> tuple[str, ...]:
        """The kinds that may change `what`, as they are stored."""
        return tuple(kind.value for kind in cls if what in kind.touches)
