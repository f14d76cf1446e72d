"""Calls made up from the API's own description: each is answered as the description says."""

from collections.abc import Iterator
from typing import Any

import pytest
import schemathesis
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, Phase, given, settings
from openapi_spec_validator import validate
from schemathesis import GenerationMode

from samples import NOW_S
from sandboa.records.database import database
from sandboa.web.app import create_app
from sandboa.web.clock import StoppedClock
from web.asking import description, lay

#: Of each operation, so many calls that fit its description, and as many that do not.
EACH = 2
#: A stream that goes on; and a package, which other tests send whole and broken.
NOT_CALLED = {("get", "/api/live"), ("post", "/api/house/package")}

DESCRIPTION: dict[str, Any] = description()
# What fits the description can still not be true: the core says so with 422, in words.
_CONFIG = schemathesis.Config.from_dict(
    {
        "checks": {
            "positive_data_acceptance": {"expected-statuses": ["2xx", 401, 403, 404, 409, 412, 422]}
        }
    }
)
SCHEMA = schemathesis.openapi.from_dict(DESCRIPTION, config=_CONFIG)
OPERATIONS = [
    (method, path)
    for path, operations in DESCRIPTION["paths"].items()
    for method in operations
    if (method, path) not in NOT_CALLED
]


@pytest.fixture(scope="module")
def asked(tmp_path_factory: pytest.TempPathFactory) -> Iterator[TestClient]:
    """A house with a clutch, whatever the calls before have made of it."""
    folder = tmp_path_factory.mktemp("asked")
    with TestClient(create_app(folder / "house.sqlite3", StoppedClock(NOW_S))) as client:
        lay(client)
        del client.headers["If-Match"]
        yield client
    database.close()


def test_the_description_is_valid() -> None:
    validate(DESCRIPTION)


def _can_be_wrong(method: str, path: str) -> bool:
    """Whether the operation takes anything."""
    operation = DESCRIPTION["paths"][path][method]
    return bool(operation.get("parameters")) or "requestBody" in operation


@pytest.mark.parametrize(
    ("method", "path", "mode"),
    [
        (method, path, mode)
        for method, path in OPERATIONS
        for mode in GenerationMode
        if mode is GenerationMode.POSITIVE or _can_be_wrong(method, path)
    ],
)
def test_every_answer_is_described(
    asked: TestClient, method: str, path: str, mode: GenerationMode
) -> None:
    operation = SCHEMA[path][method.upper()]

    @settings(
        max_examples=EACH, deadline=None, derandomize=True, database=None,
        phases=[Phase.generate], suppress_health_check=list(HealthCheck),
    )  # fmt: skip
    @given(case=operation.as_strategy(generation_mode=mode))
    def whatever_is_sent(case: Any) -> None:
        sent = case.as_transport_kwargs(base_url="http://localhost")
        asked.cookies = sent.pop("cookies", None)
        if isinstance(sent.get("data"), bytes | str):
            sent["content"] = sent.pop("data")
        answer = asked.request(**sent)
        assert answer.status_code < 500, answer.text
        case.validate_response(answer)

    whatever_is_sent()
