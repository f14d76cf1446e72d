"""Ten years of minute readings of 12 probes against one year of them: size and speed."""

import time
from pathlib import Path

import httpx2
from tests.running import running

from benchmarks.house_of_years import furnish

#: Houses are kept there, for they take minutes to make.
_FOLDER = Path(".scale")
_AIM = 1.3
_REPEAT = 60
#: Told without an aim: an act makes the house read its facts anew, and ten years have more.
_ANEW = "Today, right after an act"


def report(folder: Path = _FOLDER, years: int = 10) -> str:
    """Size on disk, and the ratio of answers of the long house to those of the short one."""
    lines, times = [], []
    for span in (1, years):
        place = folder / f"{span}-years"
        place.mkdir(parents=True, exist_ok=True)
        start = time.perf_counter()
        rows = furnish(place, span)
        size = sum(f.stat().st_size for f in place.iterdir() if f.is_file())
        lines.append(
            f"  {span:2} years: {rows:,} readings, {size / 1e9:.2f} GB on disk, "
            f"made in {time.perf_counter() - start:.0f} s"
        )
        times.append(_measured(place))
    lines.insert(0, f"{years} years against one (aim {_AIM}x)")
    for what in times[0]:
        ratio = times[1][what] / times[0][what]
        met = "no aim" if what == _ANEW else "met" if ratio <= _AIM else "MISSED"
        lines.append(
            f"  {what:34} {ratio:.2f}x  {met:6}  "
            f"({1000 * times[1][what]:.0f} ms against {1000 * times[0][what]:.0f})"
        )
    return "\n".join(lines)


def _measured(place: Path) -> dict[str, float]:
    """Best times (s) of each question to a running house, once it is warm."""
    with (
        running("serve", "--data", str(place)) as address,
        httpx2.Client(base_url=address, timeout=120.0) as client,
    ):
        client.get("/api/alive")
        code = client.get("/api/today").json()["boxes"][0]["name"]
        questions = {
            "Today": "/api/today",
            "Cabinet": "/api/cabinets/North",
            "climate trace of a season": "/api/cabinets/North/trace",
            "one clutch with its forecast": f"/api/clutches/{code}",
        }
        found = {}
        for what, path in questions.items():
            client.get(path).raise_for_status()
            found[what] = min(_once(client, path) for _ in range(_REPEAT))
        found[_ANEW] = min(_after_an_act(client, code) for _ in range(5))
    return found


def _once(client: httpx2.Client, path: str) -> float:
    start = time.perf_counter()
    client.get(path).raise_for_status()
    return time.perf_counter() - start


def _after_an_act(client: httpx2.Client, code: str) -> float:
    client.post(f"/api/clutches/{code}/eggs/1/grades", json={"grade": 0}).raise_for_status()
    return _once(client, "/api/today")


if __name__ == "__main__":
    print(report())
