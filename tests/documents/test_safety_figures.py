"""docs/safety.md gives limits for whoever keeps a house: each is the one that the code holds to."""

from pathlib import Path

import pytest
from limits import RateLimitItem

from sandboa.cli import application, logs
from sandboa.core import retention
from sandboa.formats import picture_decoding, picture_worker, pictures
from sandboa.records.copies import backups
from sandboa.services.people import signing_in
from sandboa.services.safekeeping import backups as nightly
from sandboa.web.requests import concurrency, connections
from sandboa.web.security import request_limits, sign_in_attempts

TEXT = " ".join((Path(__file__).parents[2] / "docs" / "safety.md").read_text().split())
PAGES, PHOTOS, DELIVERIES = (
    concurrency.pages_that_listen(), concurrency.photos_that_come(), concurrency.deliveries(),
)  # fmt: skip
WORDS = {2: "two", 3: "three", 8: "eight"}


def spans(limits: tuple[RateLimitItem, ...]) -> str:
    """10 in 5 min, 30 an hour, 80 a day."""
    names = {60: "minute", 3_600: "an hour", 86_400: "a day"}
    return ", ".join(
        f"{each.amount} {names[each.get_expiry()]}"
        if each.get_expiry() in names
        else f"{each.amount} in {each.get_expiry() // 60} min"
        for each in limits
    )


def kb(size: int) -> str:
    return f"{size // 1024} kB"


def mb(size: int) -> str:
    return f"{size // 2**20} MB"


LINES = {
    "headers": f"{connections.HEADERS_S:.0f} s, {kb(application.LARGEST_HEADERS)}",
    "body": f"{connections.BODY_BYTES // 1000} kB in every {connections.BODY_S:.0f} s; "
    f"{kb(request_limits.LARGEST_BODY_BYTES)}, "
    f"{kb(request_limits.SIGNING_IN_BYTES)} for signing in",
    "answer": f"{connections.ANSWER_S:.0f} s",
    "connections": f"{connections.MOST_CONNECTIONS} in all, "
    f"{connections.MOST_OF_ONE_ADDRESS} an address",
    "pages": f"{PAGES.most} in all, {PAGES.most_of_one} of one person or address",
    "photos": f"{PHOTOS.most} in all, {PHOTOS.most_of_one} of one person",
    "deliveries": f"{DELIVERIES.most} in all, {DELIVERIES.most_of_one} of one device",
    "pictures": f"{WORDS[pictures.AT_A_TIME]} at a time, in processes of their own with "
    f"{mb(picture_worker.MOST_MEMORY)} and {picture_decoding.MOST_PIXELS // 10**6} megapixels, "
    f"{pictures.PATIENCE_S:.0f} s each; above {picture_decoding.HEAVY_PIXELS // 10**6} megapixels "
    "one after another",
    "hashes": f"{WORDS[signing_in.HASHING_AT_A_TIME]} at a time, "
    f"{WORDS[signing_in.WAITING_TO_BE_HASHED]} waiting",
    "tries of an address": f"by address {spans(sign_in_attempts.FROM_ONE_ADDRESS)}",
    "tries at a person": f"by person {spans(sign_in_attempts.AT_ONE_PERSON)}",
    "log": f"one of a kind in {logs.SPAN_S:.0f} s",
    "night": f"Every night after {nightly.BACKUP_HOUR}",
    "kept": f"the newest of {retention.KEPT_DAYS} days, {retention.KEPT_WEEKS} weeks and "
    f"{retention.KEPT_MONTHS} months",
    "free": f"{mb(backups.LEFT_FREE)} stay free",
    "missed": f"{WORDS[round(nightly.MISSED_S / 86_400)].capitalize()} days without a good one",
    "sessions": f"after {signing_in.SESSION_DAYS} days unused, after "
    f"{signing_in.LONGEST_SESSION_DAYS} in any case",
}


@pytest.mark.parametrize("line", LINES.values(), ids=LINES)
def test_the_document_says_what_the_code_does(line: str) -> None:
    assert line in TEXT
