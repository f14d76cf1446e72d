"""What was forecast on certain days, and what finished clutches taught: kept, not facts."""

from collections.abc import Sequence
from dataclasses import dataclass

from sandboa.records.database import database
from sandboa.records.integrity import seals

_COLUMNS = "clutch_id, day, told_s, again, p10_s, p25_s, p50_s, p75_s, p90_s"
_LESSON = (
    "clutch_id, after_act_id, cabinet_id, mean_pip_s, log_development, sd, eggs, "
    "stage_development, probe, probe_sd"
)


@dataclass(frozen=True, slots=True)
class IssuedForecast:
    """The typical pip as forecast on `day` after lay; `again`: worked out afterwards."""

    clutch_id: int
    day: int
    told_s: int
    again: bool
    quantiles_s: tuple[float, float, float, float, float]


@dataclass(frozen=True, slots=True)
class Lesson:
    """ln D at the mean pip of a finished clutch, and how far its record may be off (1 sd).

    It holds for the acts up to `after_act_id`; what was recorded since may change it.
    `stage_development` is how far it was (D) when a torch showed its stage, as its pips told; None
    where its age was not told by torch. What its main `probe` may be off by, `probe_sd` of ln D,
    is not in `sd`.
    """

    clutch_id: int
    after_act_id: int
    cabinet_id: int
    mean_pip_s: float
    log_development: float
    sd: float
    eggs: int
    stage_development: float | None = None
    probe: str | None = None
    probe_sd: float = 0.0


def keep(told: IssuedForecast) -> None:
    """Keep a forecast; the first one of a day stays."""
    with database.atomic("IMMEDIATE"):
        written = database.execute_sql(
            f"INSERT OR IGNORE INTO forecast_told ({_COLUMNS}) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)",
            (told.clutch_id, told.day, told.told_s, int(told.again), *told.quantiles_s),
        )
        if written.rowcount:
            _seal("forecast_told", "clutch_id = ? AND day = ?", told.clutch_id, told.day)


def all_told() -> list[IssuedForecast]:
    """What was told of all clutches, in order of clutch and day."""
    rows = database.execute_sql(f"SELECT {_COLUMNS} FROM forecast_told ORDER BY clutch_id, day")
    return [IssuedForecast(row[0], row[1], row[2], bool(row[3]), tuple(row[4:])) for row in rows]


@dataclass(frozen=True, slots=True)
class IssuedStanding:
    """What was told of an egg on `day` after lay: the chances (0-1) that it lives, and that it will
    hatch; None before migration 0018."""

    egg_id: int
    day: int
    alive: float
    will_hatch: float | None


def keep_standings(told: Sequence[IssuedStanding]) -> None:
    """Keep what was told of eggs; the first one of an egg and a day stays."""
    with database.atomic("IMMEDIATE"):
        for egg in told:
            written = database.execute_sql(
                "INSERT OR IGNORE INTO standing_told (egg_id, day, alive, will_hatch) "
                "VALUES (?, ?, ?, ?)",
                (egg.egg_id, egg.day, egg.alive, egg.will_hatch),
            )
            if written.rowcount:
                _seal("standing_told", "egg_id = ? AND day = ?", egg.egg_id, egg.day)


def all_standings_told() -> list[IssuedStanding]:
    """What was told of eggs, in order of egg and day."""
    rows = database.execute_sql(
        "SELECT egg_id, day, alive, will_hatch FROM standing_told ORDER BY egg_id, day"
    )
    return [IssuedStanding(*row) for row in rows]


def learn(lesson: Lesson) -> None:
    """Keep what a clutch taught, in place of what it taught before."""
    with database.atomic("IMMEDIATE"):
        database.execute_sql(
            f"INSERT OR REPLACE INTO lesson ({_LESSON}) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
            (
                lesson.clutch_id, lesson.after_act_id, lesson.cabinet_id, lesson.mean_pip_s,
                lesson.log_development, lesson.sd, lesson.eggs, lesson.stage_development,
                lesson.probe, lesson.probe_sd,
            ),
        )  # fmt: skip
        _seal("lesson", "clutch_id = ?", lesson.clutch_id)


def forget(clutch: int) -> None:
    """What a clutch taught no longer holds: its pips, or that it was done, were undone."""
    database.execute_sql("DELETE FROM lesson WHERE clutch_id = ?", (clutch,))


def lessons() -> dict[int, Lesson]:
    """What every clutch taught, by clutch."""
    rows = database.execute_sql(f"SELECT {_LESSON} FROM lesson")
    return {row[0]: Lesson(*row) for row in rows}


def lessons_stamp() -> tuple[int, int]:
    """Changes whenever a lesson is learned, or learned anew."""
    row = database.execute_sql(
        "SELECT count(*), coalesce(sum(after_act_id), 0) FROM lesson"
    ).fetchone()
    return int(row[0]), int(row[1])


def changed_since(clutch: int, act: int, kinds: tuple[str, ...]) -> bool:
    """Whether an act after that one was about the clutch, or of a kind that may touch any."""
    marks = ", ".join("?" * len(kinds))
    row = database.execute_sql(
        f"SELECT 1 FROM act WHERE id > ? AND (clutch_id = ? OR kind IN ({marks})) LIMIT 1",
        (act, clutch, *kinds),
    ).fetchone()
    return row is not None


def _seal(table: str, where: str, *asked: int) -> None:
    seals.reseal(database.connection(), table, where, *asked)
