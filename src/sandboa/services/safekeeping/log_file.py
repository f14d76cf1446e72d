"""The log the house keeps of itself, read for its keepers."""

import os
from collections import deque
from pathlib import Path
from typing import Final

#: Bytes from the file's end that are looked at: some hundreds of lines.
_LOOKED_AT: Final = 64 * 1024


def last_lines(path: Path, most: int) -> list[str]:
    """At most `most` lines from the end of the file, oldest first; none where there is no file."""
    try:
        with path.open("rb") as file:
            size = file.seek(0, os.SEEK_END)
            begin = max(0, size - _LOOKED_AT)
            file.seek(begin)
            text = file.read(_LOOKED_AT).decode("utf-8", errors="replace")
    except OSError:
        return []
    lines = text.splitlines()
    # The first is torn where the look began in the middle of it.
    return list(deque(lines[1:] if begin else lines, maxlen=most))
