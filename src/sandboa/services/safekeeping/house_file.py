"""The house's file, as those above the record may ask of it: opened, looked at, let go of."""

from pathlib import Path

from sandboa.records import database, secret_box


def open_house(path: Path) -> None:
    """Open the house at `path`, brought up to date; CannotOpen when it cannot be."""
    database.open_database(path)


def house_path() -> Path:
    """The file of the open house, absolute."""
    return database.house_file()


def damage() -> tuple[str, ...]:
    """Why the open house is only read from; nothing when it is sound."""
    return database.damage()


def let_go() -> None:
    """Close this thread's connection, as whoever works in a thread of its own does at the end."""
    database.database.close()


def sealed(said: str) -> str:
    """The text as only this house can read it."""
    return secret_box.seal(database.house_file(), said)


def unsealed(text: str) -> str | None:
    """What was sealed by this house; None for anything else."""
    return secret_box.opened(database.house_file(), text)
