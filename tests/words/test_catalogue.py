"""Every template there is: listed for translators, and told in °F without a °C left."""

import ast
import re
from pathlib import Path

import pytest

import sandboa
from sandboa.cli import main
from sandboa.core import messages
from sandboa.core.messages import Message
from sandboa.core.units import TemperatureUnit
from sandboa.words import Reader, sentence
from sandboa.words.catalogue import Template, templates

PACKAGE = Path(sandboa.__file__).parent
TEMPLATES = templates()
#: Where °C is the thing itself: an SI form for logs, a unit's name, a file's own unit, a question.
OWN_UNIT = {
    "core/messages.py", "core/units.py", "cli/simulate.py",
    "formats/logger_files/read.py", "formats/logger_files/rows.py",
    # A package's numbers are °C for whoever reads it.
    "formats/data_package/field_words.py",
}  # fmt: skip
_EXAMPLES = {
    "Temperature": messages.Temperature(31.5),
    "TemperatureRange": messages.TemperatureRange(31.1, 32.0),
    "Difference": messages.Difference(2.0),
    "Mass": messages.Mass(45.0),
    "Share": messages.Share(0.42),
    "Moment": messages.Moment(1_780_500_000.0),
    "Day": messages.Day(1_780_500_000.0),
    "Message": Message("{warmth}", warmth=messages.Temperature(31.5)),
}


def filled(template: Template) -> Message:
    """The template with an example in each of its places."""
    values = {
        name: _EXAMPLES.get(kind, 3 if f"{{{name}:" in template.text else "something")
        for name, kind in template.values
    }
    return Message(template.text, **values)


@pytest.mark.parametrize("template", TEMPLATES, ids=lambda t: t.text[:60])
def test_in_fahrenheit_no_celsius_is_left(template: Template) -> None:
    told = sentence(filled(template), Reader(TemperatureUnit.FAHRENHEIT))
    assert "°C" not in told
    assert "C°" not in told
    kinds = dict(template.values).values()
    if {"Temperature", "TemperatureRange", "Difference"} & set(kinds):
        assert "°F" in told


@pytest.mark.parametrize("template", TEMPLATES, ids=lambda t: t.text[:60])
def test_every_place_of_a_template_has_its_value(template: Template) -> None:
    places = set(re.findall(r"{(\w+)", template.text))
    assert places == {name for name, _ in template.values}


def test_no_sentence_has_a_degree_written_into_it() -> None:
    found = [
        f"{path.relative_to(PACKAGE)}:{node.lineno}"
        for path in PACKAGE.rglob("*.py")
        if path.relative_to(PACKAGE).as_posix() not in OWN_UNIT
        if not {"simulation", "migrations"} & set(path.parts)
        for node in _texts(ast.parse(path.read_text(encoding="utf-8")))
        if re.search(r"°\s*[CF]|[CF]°", node.value)
    ]
    assert found == []


def _texts(tree: ast.Module) -> list[ast.Constant]:
    """Every string but docstrings and the bounds given to a check."""
    passed_over = set()
    for node in ast.walk(tree):
        if isinstance(node, ast.Expr):
            passed_over.add(id(node.value))
        if isinstance(node, ast.Call) and getattr(node.func, "id", "") == "require_range":
            passed_over |= {id(argument) for argument in node.args}
        if isinstance(node, ast.keyword) and node.arg in ("description", "unit"):
            passed_over.add(id(node.value))
    return [
        node
        for node in ast.walk(tree)
        if isinstance(node, ast.Constant)
        if isinstance(node.value, str) and id(node) not in passed_over
    ]


def test_the_command_lists_each_template_once_with_where_it_is_said(capsys) -> None:
    assert main(["messages"]) == 0
    told = capsys.readouterr().out
    assert told.count("Ran cold, down to {lowest}: pips about {days} later.\n") == 1
    assert "services/overview/today.py:" in told
    assert main(["messages", "--json"]) == 0
    assert '"lowest": "Temperature"' in capsys.readouterr().out
