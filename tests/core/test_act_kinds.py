"""Kinds of act: what each touches decides what is worked out anew and who may take it back."""

import ast
from pathlib import Path

import pytest

import sandboa
from sandboa.core.act_kinds import ActKind, Touch

SOURCE = Path(sandboa.__file__).parent
#: Recorded by migrations, which have what they need in themselves.
BY_MIGRATIONS = {ActKind.MENDED, ActKind.CLEARED}

MEASURED = {"probe", "check", "left out", "set point", "readings", "move", "setting"}
TAKEN_BACK = {"undo", "redo", "mended"}
EVERYDAY = {
    "visit", "candle", "grade", "water", "postpone", "task", "photo", "meal", "shed", "lock",
    "reading", "sign", "alarm", "device", "messenger", "note", "tub", "departure", "heard",
}  # fmt: skip


def test_what_is_worked_out_anew_after_each_kind() -> None:
    assert set(ActKind.touching(Touch.EVERY_CLUTCH)) == MEASURED | TAKEN_BACK
    assert set(ActKind.touching(Touch.LOSSES)) == {kind.value for kind in ActKind} - EVERYDAY
    assert set(ActKind.touching(Touch.FATES)) == {"pip", "cut", "emergence", "fate"}
    assert set(ActKind.touching(Touch.RUNNING)) == {
        "setting", "method", "person", "device", "messenger",
    }  # fmt: skip


@pytest.mark.parametrize("kind", ActKind)
def test_a_kind_is_found_by_what_is_stored(kind: ActKind) -> None:
    assert ActKind.touched_by(kind.value) is kind.touches
    assert str(kind) == kind.value


def test_of_a_kind_that_is_not_known_everything_is_worked_out_anew() -> None:
    for touch in Touch:
        assert touch in ActKind.touched_by("of a Sandboa to come")


def test_every_kind_is_recorded_somewhere() -> None:
    used = {
        node.attr
        for folder in ("services", "web")
        for file in (SOURCE / folder).rglob("*.py")
        for node in ast.walk(ast.parse(file.read_text()))
        if isinstance(node, ast.Attribute) and ast.unparse(node.value) == "ActKind"
    }
    assert used >= {kind.name for kind in ActKind} - {kind.name for kind in BY_MIGRATIONS}
    told = "".join(file.read_text() for file in (SOURCE / "records/migrations").glob("0*.py"))
    assert all(f"'{kind.value}'" in told for kind in BY_MIGRATIONS)
