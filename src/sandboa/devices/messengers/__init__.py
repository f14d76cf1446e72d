"""The ways a message leaves the house, and the one that only records, which stands in for them."""

from collections.abc import Mapping
from typing import Final

from sandboa.devices.messengers.email import Email
from sandboa.devices.messengers.push import Push
from sandboa.devices.messengers.record_only import RecordOnly
from sandboa.devices.messengers.webhook import Webhook
from sandboa.services.alarms.delivery import Carrier, Post
from sandboa.words import to_reader

#: By the kind a messenger is recorded with.
CARRIERS: Final[Mapping[str, Carrier]] = {
    "email": Email(),
    "webhook": Webhook(),
    "push": Push(),
    "record only": RecordOnly(),
}
#: How messages go out of a house.
POST: Final = Post(CARRIERS, to_reader)
