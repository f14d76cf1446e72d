"""docs/rules.md: every number there is the core's, and every rule the source names is there."""

import re
from pathlib import Path

import pytest
from docs.refresh_rules import ROOT, RULES, prose, refreshed

TEXT = RULES.read_text()
RULE = re.compile(r"^#{2,3} ([A-Z]\d{0,2})\. ", re.MULTILINE)
NAMED = re.compile(r"\b[Rr]ules? ([A-Z]\d{0,2}(?:(?:,| and) [A-Z]\d{0,2})*)\b")
SOURCES = [
    file
    for folder, kind in (
        ("src", "py"),
        ("tests", "py"),
        ("benchmarks", "py"),
        ("frontend/src", "ts*"),
    )
    for file in sorted((ROOT / folder).rglob(f"*.{kind}"))
    if "static" not in file.parts and file != Path(__file__)
]


def test_the_tables_are_as_the_core_has_them() -> None:
    assert refreshed(TEXT) == TEXT, "run ./do rules"
    assert TEXT.count("| core/") > 150


def test_every_rule_that_the_source_names_is_there() -> None:
    there = set(RULE.findall(TEXT))
    assert there >= {"A1", "B", "C", "D5", "E", "F", "G", "H", "P1"}
    named = {
        rule
        for file in SOURCES
        for found in NAMED.findall(file.read_text())
        for rule in re.split(r", | and ", found)
    }
    assert len(named) > 20
    assert named - there - {rule[0] for rule in there} == set()


def test_no_number_stands_outside_the_tables() -> None:
    """A number in a sentence would be one that nothing compares."""
    text = re.sub(
        r"^#.*$|`[^`]*`|\brules? [A-Z]\d*|\b[A-HP]\d{1,2}\b|\b(19|20)\d\d\b",
        "",
        prose(TEXT),
        flags=re.MULTILINE,
    )
    assert re.findall(r".*\d.*", text) == []


@pytest.mark.parametrize("word", ["handbook", r"issue \d"])
def test_nothing_refers_to_what_is_not_here(word: str) -> None:
    found = [str(f) for f in SOURCES if re.search(word, f.read_text(), re.IGNORECASE)]
    assert found == []
