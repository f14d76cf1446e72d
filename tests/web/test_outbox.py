"""Messages leave in threads of their own: a mute server keeps no other waiting."""

from collections.abc import Mapping
from threading import Event
from typing import Any

import pytest

from samples import NOW_S
from sandboa.records.alarms import Alarm, SentMessage
from sandboa.services.alarms.delivery import Post
from sandboa.services.alarms.messengers import MessengerCommand, add_messenger
from sandboa.services.snapshot.cache import SnapshotCache
from sandboa.web.background.outbox import Outbox
from sandboa.words import to_reader


class Carrier:
    """Sends at once, or not before it is let go."""

    def __init__(self, waits_for: Event | None = None) -> None:
        self.waits_for, self.begun, self.sent = waits_for, Event(), Event()
        self.texts: list[str] = []

    def check(self, target: Mapping[str, Any]) -> dict[str, Any]:
        return dict(target)

    def send(self, target: Mapping[str, Any], about: str, text: str) -> str:
        self.begun.set()
        if self.waits_for is not None:
            assert self.waits_for.wait(20)
        self.texts.append(text)
        self.sent.set()
        return "arrived"


@pytest.fixture
def alarm(house: SnapshotCache) -> Alarm:
    made: Alarm = Alarm.create(
        kind="harm", severity="alarm", cabinet_id=1, text="Lower: above 33.5 °C",
        began_s=int(NOW_S), raised_s=int(NOW_S),
    )  # fmt: skip
    return made


def test_a_mute_server_holds_up_no_other(alarm: Alarm) -> None:
    let_go = Event()
    mute, lively = Carrier(let_go), Carrier()
    carriers = {"email": mute, "webhook": lively}
    for kind in carriers:
        add_messenger(MessengerCommand(kind, f"By {kind}", "UTC", {}), carriers, NOW_S)
    outbox = Outbox(Post(carriers, to_reader))
    outbox.deliver(NOW_S)
    assert mute.begun.wait(20)
    assert lively.sent.wait(20)
    # While one letter is under way nothing is sent twice.
    outbox.deliver(NOW_S + 60)
    let_go.set()
    outbox.close(20)
    outbox.deliver(NOW_S + 120)
    outbox.close(20)
    assert (len(mute.texts), len(lively.texts)) == (1, 1)
    assert [m.sent for m in SentMessage.select()] == [1, 1]
