"""Alarms on a phone: what a push service gets, who it is from, and what it refuses."""

from collections.abc import Iterator

import pytest
from cryptography.exceptions import InvalidTag

from push_service import Phone, push_service, sender_of, told
from sandboa.core.errors import NotPlausible
from sandboa.devices.messengers import CARRIERS
from sandboa.devices.messengers.push_keys import push_keys
from sandboa.records.database import house_file
from sandboa.records.secret_box import KEY_FILE
from sandboa.services.alarms.delivery import NotSent
from sandboa.services.snapshot.cache import SnapshotCache

PUSH = CARRIERS["push"]


@pytest.fixture
def phone(house: SnapshotCache) -> Iterator[Phone]:
    with push_service() as phone:
        yield phone


def test_an_alarm_reaches_the_phone_and_it_alone_reads_it(phone: Phone) -> None:
    target = PUSH.check(phone.target)
    assert PUSH.send(target, "Sandboa alarm: North", "33.9 °C at the top shelf") == "taken with 201"
    assert phone.messages == [{"about": "Sandboa alarm: North", "text": "33.9 °C at the top shelf"}]
    (headers,) = phone.headers
    assert headers["content-encoding"] == "aes128gcm"
    assert headers["urgency"] == "high"
    assert int(headers["ttl"]) > 24 * 3600
    # The message is from this house, and says so to the service it went to.
    key, token = sender_of(headers)
    assert key == push_keys().for_browsers
    assert token["aud"].startswith("http://127.0.0.1")
    assert token["sub"].startswith("mailto:")
    with pytest.raises(InvalidTag):
        Phone().read(phone.bodies[0])


def test_a_long_text_is_cut_where_a_service_takes_no_more(phone: Phone) -> None:
    PUSH.send(PUSH.check(phone.target), "Sandboa", "é" * 4_000)
    text = phone.messages[0]["text"]
    assert text == "é" * 1_500


@pytest.mark.parametrize(
    ("status", "why"),
    [
        (404, "takes no more messages"),
        (410, "takes no more messages"),
        (403, "add the phone again"),
        (429, "answered 429"),
        (500, "answered 500"),
    ],
)
def test_a_refusal_says_what_to_do(phone: Phone, status: int, why: str) -> None:
    phone.status = status
    with pytest.raises(NotSent, match=why):
        PUSH.send(PUSH.check(phone.target), "Sandboa", "too hot")


def test_a_service_that_is_not_there_is_named(house: SnapshotCache) -> None:
    target = {**Phone(url="http://127.0.0.1:9/send").target}
    with pytest.raises(NotSent, match=r"127\.0\.0\.1"):
        PUSH.send(PUSH.check(target), "Sandboa", "too hot")


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        ({"url": ""}, "url"),
        ({"url": "http://push.example/send"}, "url"),
        ({"url": "https://push.example/a b"}, "url"),
        ({"url": "file:///etc/passwd"}, "url"),
        ({"url": "https://push.example:99999/"}, "url"),
        ({"phone_key": "short"}, "phone_key"),
        ({"phone_key": "€"}, "phone_key"),
        ({"secret": told(b"too short")}, "phone_key"),
    ],
)
def test_what_no_browser_says_is_refused(changes: dict[str, str], field: str) -> None:
    target = {**Phone(url="https://push.example/send").target, **changes}
    with pytest.raises(NotPlausible) as refused:
        PUSH.check(target)
    assert refused.value.field == field


def test_a_house_keeps_its_key_and_gets_another_where_it_was_left_behind(
    house: SnapshotCache,
) -> None:
    first = push_keys()
    assert push_keys() == first
    house_file().with_name(KEY_FILE).unlink()
    assert push_keys().for_browsers != first.for_browsers
