"""What is told to the command by the environment or by its one file, for services that start it.

A flag given on the command line counts first, then SANDBOA_FLAG, then the
line `flag = ...` of the file, then what the command does by itself.
"""

import argparse
import os
from collections.abc import Iterable
from functools import cache
from pathlib import Path
from typing import Any, Final

#: Names the file, where it is not in its usual place.
FILE_VARIABLE: Final = "SANDBOA_CONFIG"
FILE_NAME: Final = "sandboa.toml"
_YES: Final = frozenset({"1", "yes", "true", "on"})
_NO: Final = frozenset({"0", "no", "false", "off"})


class SaidWrongly(Exception):
    """What the environment or the file says cannot be taken; the text says which and why."""


def variable(flag: str) -> str:
    """The name of the variable for a flag like --data."""
    return f"SANDBOA_{flag.strip('-').replace('-', '_').upper()}"


def said(flag: str) -> tuple[str, str] | None:
    """What is said of a flag like --data, and where; None when nothing is."""
    name = variable(flag)
    told = os.environ.get(name)
    if told:
        return told, name
    key = flag.strip("-")
    if key in (lines := _lines(os.environ.get(FILE_VARIABLE))):
        return _text(lines[key]), f"{key} in {_path(os.environ.get(FILE_VARIABLE))}"
    return None


def take(parser: argparse.ArgumentParser, flags: Iterable[str] | None = None) -> None:
    """Let the parser's flags be said outside the command line too; None: all that take part.

    Raises SaidWrongly where what is said is none of what the flag takes.
    """
    wanted = None if flags is None else set(flags)
    for action in parser._actions:
        flag = next((one for one in action.option_strings if one.startswith("--")), None)
        if flag in (None, "--help", "--version") or (wanted is not None and flag not in wanted):
            continue
        action.help = f"{action.help or ''} (or {variable(str(flag))})".strip()
        if (told := said(str(flag))) is not None:
            action.default = _taken(action, *told)


def require_known(known: Iterable[str]) -> None:
    """Refuse a file that says what no command takes: SaidWrongly. A slip must not pass unseen."""
    path = os.environ.get(FILE_VARIABLE)
    keys = sorted(one.strip("-") for one in known)
    for key in _lines(path):
        if key not in keys:
            raise SaidWrongly(f'{_path(path)} says "{key}"; it may say: {", ".join(keys)}')


def _taken(action: argparse.Action, text: str, where: str) -> Any:
    if action.nargs == 0:
        if text.lower() in _YES | _NO:
            return text.lower() in _YES
        raise SaidWrongly(f'{where} is "{text[:40]}": say yes or no')
    if action.choices is not None and text not in action.choices:
        raise SaidWrongly(f'{where} is "{text[:40]}": say one of {", ".join(action.choices)}')
    kind = action.type
    try:
        return kind(text) if callable(kind) else text
    except (TypeError, ValueError) as error:
        raise SaidWrongly(f'{where} is "{text[:40]}", which cannot be taken') from error


def _text(value: object) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    return ",".join(map(str, value)) if isinstance(value, list) else str(value)


@cache
def _path(named: str | None) -> Path:
    import platformdirs

    return Path(named) if named else platformdirs.user_config_path("sandboa") / FILE_NAME


@cache
def _lines(named: str | None) -> dict[str, object]:
    path = _path(named)
    if not path.is_file():
        if named:
            raise SaidWrongly(f"{FILE_VARIABLE} names {path}, which is no file")
        return {}
    import tomllib

    try:
        return tomllib.loads(path.read_text(encoding="utf-8"))
    except (OSError, UnicodeDecodeError, tomllib.TOMLDecodeError) as error:
        raise SaidWrongly(f"{path} cannot be read: {error}") from error
