"""The short form of `./do bench faults-injected`: what was acknowledged is there, whole.

Time and memory are the benchmark's business.
"""

from pathlib import Path

import pytest
from benchmarks.injected import faults, report


@pytest.fixture(scope="module")
def furnished(tmp_path_factory: pytest.TempPathFactory) -> Path:
    faults.make_ready()
    return report.furnish(tmp_path_factory.mktemp("faults") / "furnished")


@pytest.mark.parametrize("fault", report.FAULTS)
def test_nothing_acknowledged_is_lost_or_halved(
    furnished: Path, tmp_path: Path, fault: str
) -> None:
    came = report.outcome(fault, furnished, tmp_path / "house", rounds=2)
    assert came.acknowledged >= 3
    assert (came.lost, came.halves) == (0, 0)
    assert (came.told, came.problems) == (came.of, ())
    assert came.back_s < float("inf")


def test_a_bit_flipped_in_every_table_is_told(furnished: Path, tmp_path: Path) -> None:
    came = report.flips(tmp_path, furnished / "house.sqlite3", rounds=1)
    assert came.of > 30
    assert (came.told, came.problems) == (came.of, ())


@pytest.mark.parametrize("fault", ["read error", "disk full"])
def test_what_failed_is_said_as_it_happened(furnished: Path, tmp_path: Path, fault: str) -> None:
    came = report.outcome(fault, furnished, tmp_path / "house", rounds=2)
    assert sum(came.refused.values()) > 0
    assert not any("rollback" in words or words.startswith("500") for words in came.refused)
