"""How many files and connections this process may have open."""

import sys
from typing import Final

#: Descriptors that are never given to connections: the database of every thread, backups, photos,
#: messages going out (assumption: 40 threads with three each, and as many again).
DESCRIPTORS_KEPT: Final = 240
_WANTED: Final = 4_096


def raise_descriptor_limit() -> int:
    """Ask for as many as the system lets this process have; returns how many it has now."""
    if sys.platform == "win32":
        return _WANTED
    import resource

    soft, hard = resource.getrlimit(resource.RLIMIT_NOFILE)
    wanted = _WANTED if hard == resource.RLIM_INFINITY else min(_WANTED, hard)
    if soft != resource.RLIM_INFINITY and soft < wanted:
        resource.setrlimit(resource.RLIMIT_NOFILE, (wanted, hard))
        soft = wanted
    return _WANTED if soft == resource.RLIM_INFINITY else soft
