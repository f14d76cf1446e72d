"""The built front end as the application serves it, and the wheel that carries it."""

import gzip
import subprocess
import sys
import zipfile
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from first_load import first_load_scripts
from sandboa.web.front_end.pages import STATIC
from web.asking import description

ROOT = Path(__file__).parents[2]
#: Script that Today needs before it can be used, compressed (product requirement).
MOST_SCRIPT_BYTES = 180_000


def test_every_place_of_the_single_page_is_served_and_never_cached(http: TestClient) -> None:
    for place in ("/", "/clutches/26-04", "/lay-day", "/nowhere"):
        page = http.get(place)
        assert page.status_code == 200
        assert '<div id="root">' in page.text
        assert page.headers["cache-control"] == "no-cache"


@pytest.mark.parametrize(
    ("taken", "encoding", "suffix"),
    [
        ("gzip, deflate, br, zstd", "br", ".br"),
        ("gzip, deflate", "gzip", ".gz"),
        ("br;q=0.5", "br", ".br"),
        ("identity", None, ""),
        ("brotli-like", None, ""),
    ],
)
def test_hashed_assets_are_kept_for_good_and_sent_as_small_as_they_are_taken(
    http: TestClient, taken: str, encoding: str | None, suffix: str
) -> None:
    script = next(STATIC.glob("assets/index-*.js"))
    with http.stream("GET", f"/assets/{script.name}", headers={"Accept-Encoding": taken}) as sent:
        body = b"".join(sent.iter_raw())
    assert "immutable" in sent.headers["cache-control"]
    assert sent.headers.get("content-encoding") == encoding
    assert sent.headers["content-type"].startswith("text/javascript")
    assert body == script.with_name(script.name + suffix).read_bytes()
    assert "Accept-Encoding" in sent.headers.get("vary", "") or encoding is None


def test_what_is_compressed_is_what_it_stands_for(http: TestClient) -> None:
    for file in STATIC.glob("assets/*.gz"):
        assert gzip.decompress(file.read_bytes()) == file.with_suffix("").read_bytes()
    assert http.get("/assets/nothing.js").status_code == 404


def test_the_first_load_is_small() -> None:
    sizes = [path.with_name(f"{path.name}.gz").stat().st_size for path in first_load_scripts()]
    assert 0 < sum(sizes) <= MOST_SCRIPT_BYTES
    # What is large and comes once the page is drawn: the store of visits, and forms.
    texts = [path.read_text() for path in first_load_scripts()]
    assert not any("indexedDB" in text and "Dexie" in text for text in texts)


def test_nothing_in_the_built_front_end_points_off_this_machine() -> None:
    """The page asks for its own files only; fonts and icons ship with it."""
    page = (STATIC / "index.html").read_text()
    assert 'src="http' not in page
    assert 'href="http' not in page
    for sheet in STATIC.glob("assets/*.css"):
        assert "url(http" not in sheet.read_text()
    assert list(STATIC.glob("assets/*.woff2"))


def test_a_path_that_climbs_out_finds_nothing(http: TestClient) -> None:
    for path in ("/assets/../../app.py", "/..%2f..%2fapp.py", "/%2e%2e/app.py"):
        answer = http.get(path)
        assert "create_app" not in answer.text


@pytest.fixture(scope="module")
def wheel(tmp_path_factory: pytest.TempPathFactory) -> Path:
    folder = tmp_path_factory.mktemp("wheel")
    subprocess.run(
        [sys.executable, "-m", "build", "--wheel", "--no-isolation", "--outdir", folder, ROOT],
        check=True,
        capture_output=True,
    )
    return next(folder.glob("*.whl"))


def test_the_wheel_carries_front_end_migrations_and_command(wheel: Path) -> None:
    with zipfile.ZipFile(wheel) as archive:
        names = archive.namelist()
        assert "sandboa/web/static/index.html" in names
        assert any(name.startswith("sandboa/web/static/assets/index-") for name in names)
        assert any(name.endswith(".woff2") for name in names)
        assert "sandboa/records/migrations/0001_first_slice.py" in names
        assert not any(name.startswith(("tests/", "frontend/", "benchmarks/")) for name in names)
        (points,) = (n for n in names if n.endswith("entry_points.txt"))
        assert "sandboa = sandboa.cli:main" in archive.read(points).decode()


def test_the_description_names_every_field_with_its_unit(http: TestClient) -> None:
    """SI units stand in the names; a bare `temperature` or `mass` is a field nobody can read."""
    schemas = description()["components"]["schemas"]
    fields = {field for schema in schemas.values() for field in schema.get("properties", {})}
    assert not fields & {"temperature", "mass", "weight", "water", "volume", "time", "date"}
    assert {"temperature_c", "water_g", "humidity", "laid_at"} <= fields
    assert http.get("/api/openapi.json").json()["info"]["title"] == "Sandboa"
