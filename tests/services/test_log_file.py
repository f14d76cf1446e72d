"""The end of the program's log: whole lines, bounded, and nothing where there is none."""

from pathlib import Path

from hypothesis import given
from hypothesis import strategies as st

from sandboa.services.safekeeping.log_file import last_lines


@given(lengths=st.lists(st.integers(0, 3_000), max_size=80), most=st.integers(1, 60))
def test_the_last_lines_are_whole_and_in_order(
    tmp_path_factory, lengths: list[int], most: int
) -> None:
    path = tmp_path_factory.mktemp("log") / "sandboa.log"
    written = [f"{number} {'x' * length}" for number, length in enumerate(lengths)]
    path.write_text("".join(f"{line}\n" for line in written))
    read = last_lines(path, most)
    assert len(read) <= most
    assert read == written[len(written) - len(read) :]
    if sum(lengths) < 50_000:
        assert len(read) == min(most, len(written))


def test_no_file_is_no_lines_and_torn_bytes_are_no_fault(tmp_path: Path) -> None:
    assert last_lines(tmp_path / "none.log", 5) == []
    (tmp_path / "torn.log").write_bytes(b"\xff\xfe torn\nwhole\n")
    assert last_lines(tmp_path / "torn.log", 1) == ["whole"]
