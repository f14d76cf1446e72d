"""What speaks around the house, and which of it is stored."""

from collections.abc import Iterator

from fastapi import APIRouter

from sandboa.formats.sensor_payloads import Announced, Seems, Value
from sandboa.services.acts.revisions import revision_of, saved_over
from sandboa.services.forms.people_and_things import heard_form
from sandboa.services.probes.heard_values import (
    HeardValue,
    Quantity,
    Source,
    ValueUnit,
    all_values,
    name_values,
)
from sandboa.services.snapshot.snapshot import Snapshot
from sandboa.web.background.heard import Spoken
from sandboa.web.background.heard_sensors import name_of, weakness
from sandboa.web.heard.schemas import (
    HeardResponse,
    NamedValueResponse,
    NameRequest,
    ValueResponse,
)
from sandboa.web.house import House, NowS, TheHouse
from sandboa.web.requests.revisions import Seen
from sandboa.web.schemas.common import ActResponse, at_or_none
from sandboa.web.security.permissions import LOOK, RECORD

router = APIRouter(prefix="/api/heard", tags=["devices"])


@router.get("", dependencies=[LOOK])
def get_heard(house: TheHouse) -> list[HeardResponse]:
    """Every topic and device that spoke since the start, announced itself or was named; the one
    that spoke last first."""
    snapshot = house.snapshot()
    named = all_values()
    told = []
    for spoken in _sources(house, named):
        name = name_of(spoken.source, snapshot)
        if name is not None:
            told.append(_told(spoken, name, named.get(spoken.source, []), house, snapshot))
    return told


@router.put("", dependencies=[RECORD])
def name(asked: NameRequest, seen: Seen, house: TheHouse, now_s: NowS) -> ActResponse:
    """Say what the values of a topic's or device's messages are; with none they are not stored."""
    source = asked.source()
    with saved_over(seen, lambda: heard_form(source)):
        act = name_values(source, asked.commands(), now_s)
    house.follow_named()
    return ActResponse.of(act)


def _sources(house: House, named: dict[Source, list[HeardValue]]) -> Iterator[Spoken]:
    """Those that spoke, those that only announced themselves, and those that were named and are
    silent."""
    spoken = house.heard.spoken()
    yield from spoken
    silent = [Source(topic=topic) for topic in house.heard.announced_topics()]
    heard = {one.source for one in spoken}
    for source in dict.fromkeys([*silent, *named]):
        if source not in heard:
            yield Spoken(source, 0.0, 0, None)


def _told(
    spoken: Spoken, name: str, named: list[HeardValue], house: House, snapshot: Snapshot
) -> HeardResponse:
    source, message = spoken.source, spoken.message
    said = house.heard.announced(source.topic) if source.topic is not None else {}
    values = {value.path: value for value in message.values} if message is not None else {}
    by_path = {row.path: row for row in named}
    # A value that was announced or named and is not in the last message is told all the same.
    paths = dict.fromkeys([*values, *said, *by_path])
    refused = house.senders.refused().get(source)
    return HeardResponse(
        topic=source.topic,
        device=source.device,
        name=next((one.name for one in said.values() if one.name), name),
        at=at_or_none(spoken.at_s if spoken.count else None),
        count=spoken.count,
        kept=spoken.kept,
        values=[
            _value(path, values.get(path), said.get(path), by_path.get(path), snapshot)
            for path in paths
        ],
        weakness=weakness(message) if message is not None else None,
        refused=refused.reason if refused is not None else None,
        revision=revision_of(heard_form(source)),
    )


def _value(
    path: str,
    value: Value | None,
    said: Announced | None,
    named: HeardValue | None,
    snapshot: Snapshot,
) -> ValueResponse:
    seems = value.seems if value is not None else None
    unit = value.unit if value is not None else None
    if said is not None:
        humid = ValueUnit(said.unit).quantity is Quantity.HUMIDITY
        seems, unit = Seems.HUMIDITY if humid else Seems.TEMPERATURE, said.unit
    probe = snapshot.probes.get(named.probe_id) if named is not None else None
    return ValueResponse(
        path=path,
        text=value.text if value is not None else "",
        seems=seems,
        unit=ValueUnit(unit) if unit is not None else None,
        named=None
        if named is None or probe is None
        else NamedValueResponse(
            unit=ValueUnit(named.unit), probe=named.probe_id, probe_name=probe.name
        ),
    )
