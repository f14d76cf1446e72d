"""What is said of accuracy was measured with the rules in force, by the command."""

import pytest
from benchmarks import accuracy

PAGE = accuracy.PAGE.read_text(encoding="utf-8")


@pytest.mark.parametrize("name", accuracy.PARTS)
def test_no_figure_is_older_than_the_rules_it_speaks_of(name: str) -> None:
    held = accuracy.measured_rules(PAGE).get(name)
    now = accuracy.rules_hash(accuracy.PARTS[name].rules)
    assert held == now, f"the rules of {name} have changed: run ./do accuracy {name}"


def test_a_part_is_written_with_its_date_its_version_and_its_seeds() -> None:
    page = accuracy.written(PAGE, "water", "Day of drying: 12 %", "3 May 2031")
    assert "Measured on 3 May 2031 by `./do accuracy water`, version " in page
    assert "seeds 520,000 on." in page
    assert "```text\nDay of drying: 12 %\n```" in page
    assert accuracy.written(page, "water", "Day of drying: 12 %", "3 May 2031") == page
    with pytest.raises(ValueError, match="no place"):
        accuracy.written("nothing", "water", "", "")


def test_words_are_no_rules_and_numbers_are(tmp_path, monkeypatch) -> None:
    folder = tmp_path / "water"
    folder.mkdir()
    monkeypatch.setattr(accuracy, "CORE", tmp_path)
    file = folder / "rule.py"
    hashes = []
    for text in ('"""One."""\nX = 1\n', '"""Two."""\n# why\nX = 1\n', "X = 2\n"):
        file.write_text(text, encoding="utf-8")
        hashes.append(accuracy.rules_hash(("water",)))
    assert hashes[0] == hashes[1] != hashes[2]
