"""The `sandboa` command: its fixed forms, the same numbers as the Bench, one line on refusal."""

import json
from datetime import datetime, timedelta
from pathlib import Path

import pytest

from sandboa.cli import main

FORECAST = ["forecast", "--laid", "2026-03-01T09:00+00:00", "--eggs", "6"]
AS_OF = ["--as-of", "2026-03-26T09:00+00:00"]
LAID = datetime.fromisoformat("2026-03-01T09:00+00:00")


def told(capsys, *arguments: str) -> dict:
    assert main(list(arguments)) == 0
    return json.loads(capsys.readouterr().out)


def test_forecast_json_has_its_fixed_form_and_known_values(capsys) -> None:
    said = told(capsys, *FORECAST, "--set-point", "31.5C", *AS_OF, "--json")
    assert list(said) == [
        "as_of", "day", "development", "measured_share", "none_alive", "overdue",
        "first_pip", "typical_pip", "last_pip", "next_out", "all_out",
    ]  # fmt: skip
    assert (said["day"], said["measured_share"]) == (25.0, 0.0)
    assert (said["none_alive"], said["overdue"]) == (0.04, False)
    assert said["development"] == pytest.approx(25 * 12.5 / 735, abs=1e-6)
    assert list(said["typical_pip"]) == ["p10", "p25", "p50", "p75", "p90"]
    typical = datetime.fromisoformat(said["typical_pip"]["p50"])
    assert (typical - LAID) / timedelta(days=1) == pytest.approx(58.8, abs=0.01)


def test_fahrenheit_equals_celsius(capsys) -> None:
    celsius = told(capsys, *FORECAST, "--set-point", "31.5C", *AS_OF, "--json")
    fahrenheit = told(capsys, *FORECAST, "--set-point", "88.7F", *AS_OF, "--json")
    assert celsius == fahrenheit


def test_readings_from_a_file_and_the_share_measured(capsys, tmp_path: Path) -> None:
    file = tmp_path / "my log.csv"
    rows = [f"{(LAID + timedelta(hours=h)).isoformat()},30.0" for h in range(25 * 24) if h < 426]
    file.write_text("time,temp_c\n" + "\n".join(rows))
    said = told(
        capsys, *FORECAST, "--set-point", "31.5C", *AS_OF, "--readings", str(file), "--json"
    )
    assert said["measured_share"] == pytest.approx(425 / 600, abs=1e-6)
    # Where the logger is silent, what was usual between it and the set point still holds.
    expected = 600 * 11 / 24 / 735
    assert said["development"] == pytest.approx(expected, abs=1e-6)


def test_times_without_offset_are_taken_as_those_of_lay_and_said_so(capsys, tmp_path) -> None:
    file = tmp_path / "log.csv"
    file.write_text("time,temp\n2026-03-01 09:00,30\n2026-03-01 10:00,30\nbad,30\n")
    said = [*FORECAST, "--set-point", "31.5C", *AS_OF, "--readings", str(file), "--json"]
    assert main(said) == 0
    captured = capsys.readouterr()
    assert json.loads(captured.out)["measured_share"] == pytest.approx(1 / 600, abs=1e-5)
    assert "taken as that of --laid" in captured.err
    assert "line 4 left out" in captured.err


def test_an_overdue_clutch_is_flagged_and_has_no_dates(capsys) -> None:
    """Day 76 at 31.5 °C is 129 %: hardly anything speaks for a pip still to come."""
    late = ["--set-point", "31.5C", "--as-of", "2026-05-16T09:00+00:00"]
    said = told(capsys, *FORECAST, *late, "--json")
    assert said["overdue"] is True
    assert said["none_alive"] > 0.9
    assert all(said[w] is None for w in ("first_pip", "typical_pip", "last_pip", "all_out"))
    assert main([*FORECAST, *late]) == 0
    out = capsys.readouterr().out
    assert "none will pip" in out
    assert "2026" not in out.replace("over 125 %", "")


def test_a_rough_shell_excuses_one_egg_and_no_box(capsys) -> None:
    rough = ["--development", "0.38", "--grade", "1", "--rough", "--json"]
    box = told(capsys, "dimple", *rough, "--live-eggs", "8", "--eggs-as-bad", "7")
    assert (box["scope"], box["excess"]) == ("box", 1)
    alone = told(capsys, "dimple", *rough, "--live-eggs", "8", "--eggs-as-bad", "1")
    assert (alone["scope"], alone["excess"]) == ("none", 0)


def test_text_output_says_what_it_rests_on(capsys) -> None:
    assert main([*FORECAST, "--set-point", "31.5C", *AS_OF]) == 0
    out = capsys.readouterr().out
    assert "day 25.0, 43 % developed" in out
    assert "rests on the set point" in out
    assert "29 Apr 2026" in out


def test_mix_and_dimple(capsys) -> None:
    assert main(["mix", "--medium", "vermiculite", "--mass", "200g", "--ratio", "1"]) == 0
    assert "200 g water" in capsys.readouterr().out
    mixed = told(capsys, "mix", "--medium", "perlite", "--volume", "2l", "--json")
    assert (mixed["water_g"], mixed["dry_low_g"]) == (200, 140)
    judged = told(
        capsys, "dimple", "--development", "0.45", "--grade", "2", "--live-eggs", "6",
        "--eggs-as-bad", "5", "--json",
    )  # fmt: skip
    assert list(judged) == ["allowed_grade", "excess", "scope", "urgency", "advice"]
    assert (judged["allowed_grade"], judged["excess"], judged["scope"]) == (0, 2, "box")
    normal = told(capsys, "dimple", "--development", "0.9", "--grade", "2", "--json")
    assert (normal["scope"], normal["urgency"]) == ("none", "none")


@pytest.mark.parametrize(
    "arguments",
    [
        [],
        ["hatch"],
        [*FORECAST],
        [*FORECAST, "--set-point", "31.5"],
        [*FORECAST, "--set-point", "nanC"],
        [*FORECAST, "--set-point", "451F"],
        ["forecast", "--laid", "2026-03-01", "--set-point", "31C", "--eggs", "6"],
        ["forecast", "--laid", "soon", "--set-point", "31C", "--eggs", "6"],
        ["forecast", "--laid", "2999-03-01T09:00Z", "--set-point", "31C", "--eggs", "6"],
        ["forecast", "--laid", "2026-03-01T09:00Z", "--set-point", "31C", "--eggs", "0"],
        ["forecast", "--laid", "2026-03-01T09:00Z", "--set-point", "31C", "--eggs", "40"],
        [*FORECAST, "--set-point", "31C", "--as-of", "2026-02-01T09:00Z"],
        [*FORECAST, "--set-point", "31C", "--readings", "/nowhere/log.csv"],
        [*FORECAST, "--set-point", "31C", "--readings", "/"],
        ["mix", "--medium", "sawdust", "--mass", "200g"],
        ["mix", "--medium", "perlite"],
        ["mix", "--medium", "perlite", "--mass", "200"],
        ["dimple", "--development", "0.45", "--grade", "7"],
        ["dimple", "--development", "nan", "--grade", "1"],
        ["dimple", "--development", "0.45", "--grade", "1", "--eggs-as-bad", "3"],
        ["check", "--data", "/nowhere"],
        ["demo", "--today", "tomorrow"],
    ],
)  # fmt: skip
def test_wrong_input_exits_2_with_one_clear_line(capsys, arguments: list[str]) -> None:
    try:
        code = main(arguments)
    except SystemExit as ended:
        code = ended.code
    captured = capsys.readouterr()
    assert code == 2
    assert captured.out == ""
    assert captured.err.count("\n") == 1
    assert captured.err.startswith("sandboa")


def test_an_ambiguous_or_binary_file_is_refused_in_one_line(capsys, tmp_path) -> None:
    for content in (b"time,temp\n03/04/2026 09:00,30\n", b"\0\1\2" * 99, b""):
        file = tmp_path / "log.csv"
        file.write_bytes(content)
        assert main([*FORECAST, "--set-point", "31C", "--readings", str(file)]) == 2
        assert capsys.readouterr().err.count("\n") == 1


def test_import_export_backup_and_check(capsys, tmp_path: Path) -> None:
    from samples import NOW_S, lay_day
    from sandboa.cli.house_folder import DATABASE
    from sandboa.records.clutches import Clutch
    from sandboa.records.database import database, open_database
    from sandboa.services.clutches.photos import PhotoCommand, Picture, attach
    from sandboa.services.lay_day import lay_clutch
    from sandboa.services.probes.commands import ProbePlace, hang_probe

    open_database(tmp_path / DATABASE)
    lay_clutch(lay_day(), NOW_S)
    hang_probe("Lower", ProbePlace("26-01"), NOW_S - 9 * 86_400, NOW_S)
    database.close()
    file = tmp_path / "log.csv"
    file.write_text("time,temp_c,rh\n2026-06-10T09:00Z,31.5,95\n2026-06-10T10:00Z,x,95\n")
    data = ["--data", str(tmp_path)]
    assert main(["import", str(file), "--probe", "lower", *data]) == 1
    assert "line 3 left out" in capsys.readouterr().err
    assert main(["export", "--probe", "Lower", *data]) == 0
    assert capsys.readouterr().out == (
        "time,temperature_c,humidity\n2026-06-10T09:00:00+00:00,31.5,0.95\n"
    )
    assert main(["import", str(file), "--probe", "Nobody", *data]) == 2
    two = tmp_path / "two.csv"
    two.write_text("time,T1,T2\n2026-06-11T09:00Z,31.5,31.9\n")
    capsys.readouterr()
    assert main(["import", str(two), "--probe", "Lower", *data]) == 2
    assert 'of the sensors "1", "2": say --probe SENSOR=NAME' in capsys.readouterr().err
    assert main(["import", str(two), "--probe", "2=Lower", *data]) == 0
    assert "Lower: 1 new" in capsys.readouterr().out
    columns = ["--columns", "time,temperature"]
    assert main(["import", str(two), "--probe", "Lower", *columns, *data]) == 0
    assert "1 contradict" in capsys.readouterr().out
    assert main(["import", str(two), "--probe", "Lower", "--columns", "when", *data]) == 2
    assert "there is: time, clock" in capsys.readouterr().err
    assert main(["backup", str(tmp_path / "copy.sqlite3"), *data]) == 0
    assert main(["backup", str(tmp_path / "copy.sqlite3"), *data]) == 2
    (clutch,) = Clutch.current()
    attach(PhotoCommand(clutch.entity_id, Picture(b"a", b"b", 1, 1), NOW_S), NOW_S)
    elsewhere = tmp_path / "elsewhere"
    elsewhere.mkdir()
    capsys.readouterr()
    assert main(["backup", str(elsewhere / "house.sqlite3"), *data]) == 0
    assert "photos beside it: 1" in capsys.readouterr().out
    assert len(list((elsewhere / "photos").iterdir())) == 2
    assert main(["check", *data]) == 0
    assert capsys.readouterr().out.startswith("sound: 5 acts, 2 animals, 1 clutches, 6 eggs")
    database.close()


def test_a_whole_house_goes_out_and_into_an_empty_folder(capsys, tmp_path: Path) -> None:
    from samples import NOW_S, lay_day
    from sandboa.cli.house_folder import DATABASE
    from sandboa.records.database import database, open_database
    from sandboa.services.lay_day import lay_clutch

    old, new, package = tmp_path / "old", tmp_path / "new", tmp_path / "house.zip"
    open_database(old / DATABASE)
    lay_clutch(lay_day(), NOW_S)
    database.close()
    assert main(["export", "--package", str(package), "--data", str(old)]) == 0
    database.close()
    assert main(["export", "--package", str(package), "--data", str(old)]) == 2
    assert "exists already" in capsys.readouterr().err
    assert main(["import", str(package), "--data", str(new)]) == 0
    database.close()
    assert main(["import", str(package), "--data", str(new)]) == 2
    assert "cannot be merged" in capsys.readouterr().err
    damaged = tmp_path / "damaged.zip"
    damaged.write_bytes(package.read_bytes()[:-200])
    assert main(["import", str(damaged), "--data", str(tmp_path / "third")]) == 2
    assert "damaged" in capsys.readouterr().err
    assert not list((tmp_path / "third").glob("*"))
    assert main(["import", str(tmp_path / "log.csv"), "--data", str(new)]) == 2
    assert "--probe" in capsys.readouterr().err


def test_serve_refuses_what_it_cannot_open_and_ports_it_cannot_have(capsys, tmp_path) -> None:
    import socket

    from sandboa.cli.house_folder import DATABASE

    (tmp_path / DATABASE).write_text("this is a letter, not a database. " * 40)
    assert main(["serve", "--data", str(tmp_path), "--port", "0"]) == 2
    assert "cannot open" in capsys.readouterr().err
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = str(taken.getsockname()[1])
        assert main(["serve", "--data", str(tmp_path / "new"), "--port", port]) == 2
    captured = capsys.readouterr()
    assert f"cannot listen on 127.0.0.1:{port}" in captured.err
    assert main(["serve", "--data", str(tmp_path / "new"), "--port", "99999"]) == 2


def test_the_demo_never_writes_over_a_house(capsys, tmp_path: Path) -> None:
    from sandboa.cli.house_folder import DATABASE

    (tmp_path / DATABASE).touch()
    assert main(["demo", "--data", str(tmp_path)]) == 2
    assert "holds a house already" in capsys.readouterr().err
