"""The key a house proves itself with to the push services of phones (VAPID, RFC 8292)."""

from dataclasses import dataclass
from typing import Final

from sandboa.records import secret_box
from sandboa.records.database import house_file, transaction
from sandboa.records.machine import machine_setting, set_machine_setting

_NAME: Final = "push key"
#: Stands between the private and the public key where both are sealed as one.
_BETWEEN: Final = "\n\n"


@dataclass(frozen=True, slots=True)
class PushKeys:
    """Both keys in PEM, and the public one as browsers take it."""

    private: bytes
    public: bytes
    for_browsers: str


def push_keys() -> PushKeys:
    """The house's own pair, made when it is first asked for.

    It is sealed with the key beside the house; come here without that, the house gets another pair
    and phones have to be added again.
    """
    # Here, for only whoever sends to phones waits for it.
    from cryptography.hazmat.primitives.serialization import load_pem_public_key
    from webpush.vapid import VAPID

    # Two phones that ask at once are given the same.
    with transaction():
        sealed = machine_setting(_NAME)
        held = secret_box.opened(house_file(), sealed) if sealed else None
        if held is None:
            private, public, _ = VAPID.generate_keys()
            held = f"{private.decode()}{_BETWEEN}{public.decode()}"
            set_machine_setting(_NAME, secret_box.seal(house_file(), held))
    private_pem, public_pem = (part.encode() for part in held.split(_BETWEEN))
    told = VAPID.get_application_server_key(load_pem_public_key(public_pem))
    return PushKeys(private_pem, public_pem, told)
