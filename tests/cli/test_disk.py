"""A disk that is full, shut or open to others: said in one line, and nothing is left half."""

import errno
import resource
import shutil
import stat
import subprocess
import sys
from pathlib import Path

import pytest

from samples import NOW_S
from sandboa.cli import main
from sandboa.cli.house_folder import DATABASE
from sandboa.formats.data_package import write_package
from sandboa.records.database import close_database, database, open_database
from sandboa.records.integrity.check import check


@pytest.fixture(scope="module")
def furnished(demo_house: Path, tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A copy: it is opened, and an import goes into it."""
    return Path(shutil.copytree(demo_house, tmp_path_factory.mktemp("made") / "furnished"))


def bounded(size: int, *arguments: str) -> subprocess.CompletedProcess[str]:
    """`sandboa ARGUMENTS` where no file grows beyond `size` bytes: as on a full disk."""
    return subprocess.run(
        [sys.executable, "-m", "sandboa", *arguments],
        preexec_fn=lambda: resource.setrlimit(resource.RLIMIT_FSIZE, (size, size)),
        capture_output=True,
        text=True,
        check=False,
    )


def test_a_backup_on_a_full_disk_says_so_and_leaves_nothing(
    furnished: Path, tmp_path: Path
) -> None:
    asked = ("backup", str(tmp_path / "copy.sqlite3"), "--data", str(furnished))
    told = bounded(300_000, *asked)
    assert told.returncode == 2, told
    assert told.stderr.count("\n") == 1
    assert "sandboa backup: " in told.stderr
    assert list(tmp_path.iterdir()) == []


def test_an_import_on_a_full_disk_says_so_and_leaves_no_house(
    furnished: Path, tmp_path: Path
) -> None:
    open_database(furnished / DATABASE)
    package = tmp_path / "house.zip"
    write_package(package, NOW_S)
    close_database()
    told = bounded(300_000, "import", str(package), "--data", str(tmp_path / "house"))
    assert told.returncode == 2, told
    assert told.stderr.count("\n") == 1
    assert not (tmp_path / "house").exists()


def test_a_folder_that_cannot_be_written_to_is_noticed_at_the_start(
    tmp_path: Path, capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch
) -> None:
    def shut(*_: object) -> int:
        raise OSError(errno.EROFS, "Read-only file system")

    monkeypatch.setattr(Path, "write_bytes", shut)
    assert main(["serve", "--data", str(tmp_path / "house"), "--port", "0"]) == 2
    said = capsys.readouterr().err
    assert "Read-only file system" in said
    assert said.count("\n") == 1
    assert not (tmp_path / "house").exists()


def test_a_house_that_others_could_read_is_shut_to_them(tmp_path: Path) -> None:
    folder = tmp_path / "house"
    open_database(folder / DATABASE)
    close_database()
    for path, mode in ((folder, 0o755), (folder / DATABASE, 0o644)):
        path.chmod(mode)
    open_database(folder / DATABASE)
    close_database()
    assert stat.S_IMODE(folder.stat().st_mode) == 0o700
    assert stat.S_IMODE((folder / DATABASE).stat().st_mode) == 0o600


def test_a_folder_that_holds_something_else_stays_open_to_others(tmp_path: Path) -> None:
    (tmp_path / "letters").write_text("somebody's")
    tmp_path.chmod(0o755)
    open_database(tmp_path / DATABASE)
    close_database()
    assert stat.S_IMODE(tmp_path.stat().st_mode) == 0o755


def test_what_was_changed_from_outside_can_be_accepted_from_the_command_line(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    house = tmp_path / DATABASE
    open_database(house)
    database.execute_sql("INSERT INTO machine_setting (name, value) VALUES ('folder', '/else')")
    close_database()
    assert check(house).problems
    assert main(["check", "--accept", "--data", str(tmp_path)]) == 0
    assert "accepted: row 1 of machine_setting" in capsys.readouterr().out
    assert main(["check", "--data", str(tmp_path)]) == 0
    assert main(["check", "--accept", "--data", str(tmp_path)]) == 0
    assert "nothing to accept" in capsys.readouterr().out
