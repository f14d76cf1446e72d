"""The house kept safe, through HTTP: backups, the way back, a damaged house, who is told."""

import sqlite3
import threading
from concurrent.futures import ThreadPoolExecutor
from contextlib import closing
from datetime import timedelta
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from samples import DAY_S, NOW, NOW_S
from sandboa.records import readings
from sandboa.records.database import check_quickly, close_database, damage, database, house_file
from sandboa.records.integrity.check import check
from sandboa.services.alarms.delivery import _told_of_damage
from sandboa.services.safekeeping.backups import (
    MISSED_S,
    RETRY_S,
    back_up_now,
    backup_due,
)
from sandboa.web.app import create_app
from sandboa.web.background import alarm_monitor
from sandboa.web.background.alarm_monitor import look_round
from sandboa.web.background.night import night_if_due
from sandboa.web.clock import StoppedClock
from web.asking import lay, problem


def dams(http: TestClient) -> set[str]:
    return {a["name"] for a in http.get("/api/animals").json() if a["role"] == "dam"}


def wait_for_restore(http: TestClient) -> dict:
    """The restore, ended; it runs in a thread of its own."""
    for thread in threading.enumerate():
        if thread.name == "restore":
            thread.join(60)
    told = http.get("/api/house/restore").json()
    assert told["ended_at"] is not None
    return told


def house_of(http: TestClient):
    return http.app.state.house  # type: ignore[attr-defined]


def spoil(path: Path) -> None:
    """Tear a page in the middle of the closed file, as a failing disk does."""
    with path.open("r+b") as file:
        size = path.stat().st_size
        file.seek(size // 2 // 4096 * 4096)
        file.write(bytes(range(256)) * 16)


def test_a_backup_now_is_told_with_its_size_and_can_be_found(http: TestClient) -> None:
    lay(http)
    assert http.get("/api/house/backups").json()["last_good"] is None
    made = http.post("/api/house/backups").json()
    assert made["trouble"] is None
    assert made["size_bytes"] > 100_000
    told = http.get("/api/house/backups").json()
    assert (told["beside"], told["held"], told["last_good"]) == (True, 1, made)
    assert told["folder"] == str(house_file().parent / "backups")
    assert check(Path(made["file"])).problems == ()
    (copy,) = http.get("/api/house/copies").json()
    assert (copy["kind"], copy["size_bytes"]) == ("backup", made["size_bytes"])


@pytest.mark.parametrize(
    ("folder", "words"),
    [
        ("backups", "the whole path"),
        ("/nowhere/at/all", "no folder"),
        ("{house}", "The house itself"),
        ("{house}/photos", "The house itself"),
    ],
)
def test_a_folder_that_cannot_take_backups_is_refused(
    http: TestClient, folder: str, words: str
) -> None:
    house = house_file().parent
    (house / "photos").mkdir(exist_ok=True)
    asked = {"folder": folder.format(house=house)}
    told = problem(http.put("/api/house/backups/folder", json=asked), 422)
    assert words in told["detail"]
    assert told["errors"][0]["field"] == "folder"


def test_a_folder_that_takes_no_files_is_refused_whatever_its_rights_say(http: TestClient) -> None:
    told = problem(http.put("/api/house/backups/folder", json={"folder": "/proc"}), 422)
    assert told["detail"] == "Nothing can be written to /proc"


def test_backups_go_to_another_disk_and_back(http: TestClient, tmp_path: Path) -> None:
    disk = tmp_path / "disk"
    disk.mkdir()
    told = http.put("/api/house/backups/folder", json={"folder": str(disk)}).json()
    assert (told["folder"], told["beside"]) == (str(disk), False)
    made = http.post("/api/house/backups").json()
    assert Path(made["file"]).parent == disk
    disk.rename(tmp_path / "unplugged")
    failed = http.post("/api/house/backups").json()
    assert "cannot be used" in failed["trouble"] or "there is no folder" in failed["trouble"]
    told = http.get("/api/house/backups").json()
    assert told["last_failed"]["trouble"] == failed["trouble"]
    assert told["last_good"] == made
    assert http.put("/api/house/backups/folder", json={"folder": ""}).json()["beside"]


def test_two_backups_at_once_are_two_backups(http: TestClient) -> None:
    lay(http)
    with ThreadPoolExecutor(4) as pool:
        made = list(pool.map(lambda n: back_up_now(NOW_S + n * DAY_S), range(4)))
    assert [tried.trouble for tried in made] == [""] * 4
    assert http.get("/api/house/backups").json()["held"] == 4


def test_a_night_comes_once_a_day_and_a_failed_one_again_in_an_hour(
    http: TestClient, clock: StoppedClock, monkeypatch
) -> None:
    from datetime import UTC

    assert backup_due(NOW_S, UTC)
    back_up_now(NOW_S)
    assert not backup_due(NOW_S, UTC)
    night_s = (NOW.replace(hour=3, minute=0, second=0) + timedelta(days=1)).timestamp()
    assert not backup_due(night_s - 1.0, UTC)
    assert backup_due(night_s, UTC)
    disk = house_file().parent / "backups"
    disk.rename(disk.with_name("gone"))
    disk.write_text("a file where the folder was")
    assert back_up_now(night_s).trouble
    assert not backup_due(night_s + RETRY_S - 1.0, UTC)
    assert backup_due(night_s + RETRY_S, UTC)


def test_three_days_without_a_backup_are_an_alarm_until_there_is_one(
    http: TestClient, clock: StoppedClock
) -> None:
    lay(http)
    look_round(house_of(http))
    clock.at_s = NOW_S + MISSED_S
    look_round(house_of(http))
    assert not [a for a in http.get("/api/alarms").json() if a["kind"] == "no backup"]
    clock.at_s += 60.0
    look_round(house_of(http))
    (alarm,) = [a for a in http.get("/api/alarms").json() if a["kind"] == "no backup"]
    assert (alarm["severity"], alarm["cabinet"], alarm["ended_at"]) == ("alarm", None, None)
    assert "no backup for 3 days" in alarm["text"]
    back_up_now(clock.at_s)
    look_round(house_of(http))
    (alarm,) = [a for a in http.get("/api/alarms").json() if a["kind"] == "no backup"]
    assert alarm["ended_at"] is not None


def test_the_house_goes_back_to_a_copy_and_on_from_there(http: TestClient) -> None:
    lay(http)
    before = house_of(http).generation
    copy = http.post("/api/house/backups").json()
    lay(http, dam="Tansy")
    assert len(dams(http)) == 2
    asked = {"copy_name": Path(copy["file"]).name}
    assert http.post("/api/house/restore", json=asked).status_code == 202
    told = wait_for_restore(http)
    assert told["problem"] is None
    assert dams(http) == {"Sorrel"}
    assert house_of(http).generation != before
    assert http.get("/api/health").json()["restoring"] is None
    # What was replaced is whole, listed, and the way forward again.
    (replaced,) = [c for c in http.get("/api/house/copies").json() if c["kind"] == "replaced"]
    assert Path(told["aside"]).name == replaced["name"]
    http.post("/api/house/restore", json={"copy_name": replaced["name"]})
    assert wait_for_restore(http)["problem"] is None
    assert len(dams(http)) == 2
    lay(http, dam="Yarrow")
    close_database()
    assert check(house_file()).problems == ()


def test_while_it_is_taken_back_the_house_is_read_and_nothing_is_stored(
    http: TestClient, monkeypatch
) -> None:
    from sandboa.services.safekeeping import restores

    lay(http)
    made = http.post("/api/house/backups").json()
    staged, go_on = threading.Event(), threading.Event()
    real = restores.stage

    def slowly(*given):
        staged.set()
        assert go_on.wait(60)
        return real(*given)

    monkeypatch.setattr(restores, "stage", slowly)
    asked = {"copy_name": Path(made["file"]).name}
    assert http.post("/api/house/restore", json=asked).status_code == 202
    assert staged.wait(60)
    assert http.get("/api/health").json()["restoring"] == asked["copy_name"]
    assert dams(http) == {"Sorrel"}
    refused = http.post("/api/animals", json={"role": "dam", "name": "Tansy"})
    assert "nothing was stored" in problem(refused, 503)["detail"]
    assert refused.headers["retry-after"]
    assert http.post("/api/house/restore", json=asked).status_code == 409
    go_on.set()
    assert wait_for_restore(http)["problem"] is None
    assert http.post("/api/animals", json={"role": "dam", "name": "Tansy"}).status_code == 201


def test_a_copy_that_is_not_whole_leaves_the_house_as_it_is(http: TestClient) -> None:
    lay(http)
    made = Path(http.post("/api/house/backups").json()["file"])
    with closing(sqlite3.connect(made)) as copy, copy:
        copy.execute("UPDATE egg_stay SET x = x / 2")
    lay(http, dam="Tansy")
    http.post("/api/house/restore", json={"copy_name": made.name})
    assert "The house is as it was" in wait_for_restore(http)["problem"]
    assert len(dams(http)) == 2
    for name in ("../house.sqlite3", "/etc/passwd", "house.sqlite3", ""):
        assert http.post("/api/house/restore", json={"copy_name": name}).status_code == 404


def test_a_damaged_house_is_shown_and_not_written_to(tmp_path: Path, clock: StoppedClock) -> None:
    path = tmp_path / "house.sqlite3"
    with TestClient(create_app(path, clock)) as http:
        lay(http)
        made = Path(http.post("/api/house/backups").json()["file"])
    close_database()
    with closing(sqlite3.connect(path)) as house, house:
        # An index that is not that of its table: what is in the table can still be read.
        house.execute("PRAGMA writable_schema = 1")
        house.execute(
            "UPDATE sqlite_master SET rootpage = (SELECT rootpage FROM sqlite_master "
            "WHERE name = 'egg_act') WHERE name = 'turgor_act'"
        )
    content = path.read_bytes()
    with TestClient(create_app(path, clock)) as http:
        health = http.get("/api/health").json()
        assert health["damage"]
        assert dams(http) == {"Sorrel"}
        refused = http.post("/api/animals", json={"role": "dam", "name": "Tansy"})
        assert "restore the house from a backup" in problem(refused, 503)["detail"]
        look_round(house_of(http))
        assert path.read_bytes() == content
        # The way out is open all the same.
        http.post("/api/house/restore", json={"copy_name": made.name})
        assert wait_for_restore(http)["problem"] is None
        assert http.get("/api/health").json()["damage"] == []
        assert http.post("/api/animals", json={"role": "dam", "name": "Tansy"}).status_code == 201
        assert [c["kind"] for c in http.get("/api/house/copies").json()].count("replaced") == 1
    close_database()


def test_damage_that_comes_while_it_runs_is_noticed_and_told(
    http: TestClient, clock: StoppedClock
) -> None:
    lay(http)
    http.post("/api/messengers", json={"kind": "record only", "name": "Shelf", "zone": "UTC"})
    database.execute_sql("PRAGMA wal_checkpoint(TRUNCATE)")
    sound = house_file().read_bytes()
    spoil(house_file())
    assert check_quickly()
    assert damage()
    refused = http.post("/api/animals", json={"role": "dam", "name": "Tansy"})
    assert problem(refused, 503)
    _told_of_damage.clear()
    look_round(house_of(http))
    assert len(_told_of_damage) == 1
    # A cable that was pushed in again: the file is sound, and written to again.
    house_file().write_bytes(sound)
    assert check_quickly() == ()
    assert http.post("/api/animals", json={"role": "dam", "name": "Tansy"}).status_code == 201


def test_a_record_changed_from_outside_is_found_at_night_told_and_can_be_accepted(
    http: TestClient, clock: StoppedClock
) -> None:
    lay(http)
    with closing(sqlite3.connect(house_file())) as other, other:
        other.execute("UPDATE egg_stay SET x = x / 2 WHERE id = 3")
    # Whoever asks for a backup is told at once, and not only the next night.
    assert "is not what was recorded" in http.post("/api/house/backups").json()["trouble"]
    assert len(http.get("/api/health").json()["changed"]) == 1
    clock.at_s = NOW_S + DAY_S
    assert night_if_due(house_of(http), threading.Event())
    (changed,) = http.get("/api/health").json()["changed"]
    assert "is not what was recorded" in changed
    look_round(house_of(http))
    (alarm,) = [a for a in http.get("/api/alarms").json() if a["kind"] == "record changed"]
    assert "changed from outside" in alarm["text"]
    assert http.post("/api/house/acceptance").json()["accepted"] == [changed]
    assert http.get("/api/health").json()["changed"] == []
    assert http.post("/api/house/backups").json()["trouble"] is None
    assert any("accepted" in e["text"] for e in http.get("/api/house/security").json())


def test_a_clock_behind_the_record_is_told(http: TestClient, clock: StoppedClock) -> None:
    lay(http)
    clock.at_s = NOW_S - 5 * DAY_S
    assert http.get("/api/health").json()["clock_behind_s"] == pytest.approx(5 * DAY_S)
    look_round(house_of(http))
    (alarm,) = [a for a in http.get("/api/alarms").json() if a["kind"] == "clock behind"]
    assert "5 days behind what is recorded" in alarm["text"]
    assert readings.newest_received_s() is None


def test_a_watch_that_does_not_look_is_told(http: TestClient, clock: StoppedClock) -> None:
    look_round(house_of(http))
    told = http.get("/api/health").json()
    assert (told["watch_late"], told["looked_at"]) == (
        False,
        NOW.isoformat().replace("+00:00", "Z"),
    )
    clock.at_s += 301.0
    assert http.get("/api/health").json()["watch_late"]


def test_a_look_that_fails_is_none(
    http: TestClient, clock: StoppedClock, monkeypatch: pytest.MonkeyPatch
) -> None:
    def fails(*_: object) -> None:
        raise RuntimeError("a probe nobody thought of")

    monkeypatch.setattr(alarm_monitor, "update_alarms", fails)
    clock.at_s += 301.0
    with pytest.raises(RuntimeError):
        look_round(house_of(http))
    assert http.get("/api/health").json()["watch_late"]


def test_what_looks_after_services_is_told_how_the_house_is(
    http: TestClient, clock: StoppedClock
) -> None:
    told = http.get("/healthz")
    assert (told.status_code, told.json()["status"]) == (200, "well")
    assert told.json()["backup_at"] is None
    assert http.post("/api/house/backups").is_success
    assert http.get("/healthz").json()["backup_at"] is not None
    # Nobody looked at the cabinets for ten minutes: whoever watches services should look.
    house = house_of(http)
    house.looked_s = clock.now_s() - 600.0
    late = http.get("/healthz")
    assert (late.status_code, late.json()["status"]) == (503, "watch late")
    house.looked_s = clock.now_s()
    house.problems = ("act 7 is not as it was recorded",)
    assert http.get("/healthz").json()["status"] == "damaged"
    house.problems = ()
    assert http.get("/healthz").status_code == 200
