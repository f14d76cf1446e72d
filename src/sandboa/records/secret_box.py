"""Secrets that have to be read again, sealed with a key that lies beside the house.

The key is in no copy and in no export: whoever carries those away has no
password, and whoever puts a house up elsewhere is asked for them again.
"""

import os
from pathlib import Path
from typing import Final

from cryptography.fernet import Fernet, InvalidToken

KEY_FILE: Final = "house.key"


def seal(house: Path, secret: str) -> str:
    """A secret as it may be stored in the house at `house`; its key is made when there is none."""
    return Fernet(_key(house, make=True)).encrypt(secret.encode()).decode()


def opened(house: Path, sealed: str) -> str | None:
    """The secret, or None when the key it was sealed with is not here."""
    try:
        return Fernet(_key(house, make=False)).decrypt(sealed.encode()).decode()
    except (InvalidToken, OSError, ValueError):
        return None


def _key(house: Path, *, make: bool) -> bytes:
    path = house.with_name(KEY_FILE)
    if make and not path.exists():
        made = Fernet.generate_key()
        # Readable by its owner from the first moment on.
        handle = os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
        with os.fdopen(handle, "wb") as file:
            file.write(made)
            file.flush()
            os.fsync(file.fileno())
        return made
    return path.read_bytes()
