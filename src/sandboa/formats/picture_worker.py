"""A process of its own that decodes pictures: what one of them does to it, the house survives.

Run as `python -m sandboa.formats.picture_worker LOCK`, LOCK being a file. On standard input comes a
picture as its length (8 bytes) and its bytes; the answer on standard output is
a status (1 byte: 0 well, 1 not a picture) and parts, each as its length and its bytes.
"""

import os
import struct
import sys
from typing import IO, Final

#: Bytes of address space: a picture of 50 million pixels, decoded, turned and encoded (assumption).
MOST_MEMORY: Final = 800 * 2**20
_LENGTH: Final = struct.Struct(">Q")


def read_part(source: IO[bytes]) -> bytes | None:
    """One part, None where the other side is gone."""
    head = source.read(_LENGTH.size)
    if len(head) < _LENGTH.size:
        return None
    length: int = _LENGTH.unpack(head)[0]
    content = source.read(length)
    return content if len(content) == length else None


def write_parts(target: IO[bytes], *parts: bytes) -> None:
    """Each part with its length before it."""
    for part in parts:
        target.write(_LENGTH.pack(len(part)))
        target.write(part)
    target.flush()


def main() -> None:
    """Decode what comes until nothing does."""
    _bound_memory()
    _step_back()
    from filelock import FileLock

    from sandboa.formats.picture_decoding import NotAPicture, decode

    # One lock for all workers: heavy pictures come one after another.
    heavy = FileLock(sys.argv[1]).acquire
    source, target = sys.stdin.buffer, sys.stdout.buffer
    while (content := read_part(source)) is not None:
        try:
            made = decode(content, heavy)
        except NotAPicture as error:
            target.write(b"\1")
            write_parts(target, str(error).encode())
        else:
            target.write(b"\0")
            size = struct.pack(">II", made.width, made.height)
            write_parts(target, made.jpeg, made.small, size)


def _step_back() -> None:
    """Whoever asks the house for something comes before a photo that is being made new."""
    if hasattr(os, "nice"):
        os.nice(10)


def _bound_memory() -> None:
    if sys.platform != "win32":
        import resource

        resource.setrlimit(resource.RLIMIT_AS, (MOST_MEMORY, MOST_MEMORY))
        resource.setrlimit(resource.RLIMIT_CORE, (0, 0))


if __name__ == "__main__":
    main()
