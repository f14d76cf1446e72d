"""Photos from a phone or camera, made safe to keep, in processes of their own."""

import atexit
import struct
import subprocess
import sys
from contextlib import suppress
from dataclasses import dataclass, field
from pathlib import Path
from tempfile import TemporaryDirectory
from threading import BoundedSemaphore, Lock, Timer
from typing import Final

from sandboa.formats.picture_decoding import NotAPicture
from sandboa.formats.picture_worker import read_part, write_parts
from sandboa.services.clutches.photos import Picture

__all__ = ["NotAPicture", "PictureReaders", "readable_picture"]

#: Bytes of a photo as it comes (assumption: a phone's are 2-12 MB).
LARGEST_PHOTO_BYTES: Final = 25 * 1024 * 1024
#: Pictures decoded at a time (product requirement), and s that one may take on a slow computer
#: (assumption).
AT_A_TIME: Final = 2
PATIENCE_S: Final = 60.0
#: Pictures after which a process is replaced, whatever it kept.
_USES: Final = 50
_TOO_MUCH: Final = "the photo takes too much memory or time to be read"


@dataclass
class _Worker:
    process: subprocess.Popen[bytes]
    uses: int = 0

    def end(self) -> None:
        self.process.kill()
        for pipe in (self.process.stdin, self.process.stdout):
            if pipe is not None:
                with suppress(OSError):
                    pipe.close()
        self.process.wait()


@dataclass
class PictureReaders:
    """At most two processes that decode pictures, started when the first one comes."""

    patience_s: float = PATIENCE_S
    _turns: BoundedSemaphore = field(default_factory=lambda: BoundedSemaphore(AT_A_TIME))
    _idle: list[_Worker] = field(default_factory=list)
    _lock: Lock = field(default_factory=Lock)
    #: Where the file lies that workers lock while they hold a heavy picture.
    _heavy: TemporaryDirectory[str] = field(
        default_factory=lambda: TemporaryDirectory(prefix="sandboa-pictures-")
    )

    def read(self, content: bytes) -> Picture:
        """The picture made new (see picture_decoding). Raises NotAPicture.

        One that takes too long or too much memory ends its process, and is none.
        """
        _require_size(content)
        # Whoever is ahead is done, or ended, within `patience_s`; how many wait is bounded outside.
        with self._turns:
            worker = self._worker()
            try:
                answer = self._ask(worker, content)
            except BaseException:
                worker.end()
                raise
            self._give_back(worker)
            if isinstance(answer, NotAPicture):
                raise answer
            return answer

    def close(self) -> None:
        """End the processes."""
        with self._lock:
            idle, self._idle = self._idle, []
        for worker in idle:
            worker.end()

    def give_up(self) -> None:
        """End the processes for good."""
        self.close()
        self._heavy.cleanup()

    def _ask(self, worker: _Worker, content: bytes) -> Picture | NotAPicture:
        """The picture, or why it is none; raises NotAPicture when the process was lost over it."""
        given, taken = worker.process.stdin, worker.process.stdout
        assert given is not None
        assert taken is not None
        # A picture that keeps its process busy for ever is ended with it.
        timer = Timer(self.patience_s, worker.process.kill)
        timer.start()
        try:
            write_parts(given, content)
            status = taken.read(1)
            first = read_part(taken)
            if status == b"\1" and first is not None:
                return NotAPicture(first.decode())
            small, size = read_part(taken), read_part(taken)
        except OSError as error:
            raise NotAPicture(_TOO_MUCH) from error
        finally:
            timer.cancel()
        if status != b"\0" or first is None or small is None or size is None:
            raise NotAPicture(_TOO_MUCH)
        width, height = struct.unpack(">II", size)
        return Picture(first, small, width, height)

    def _worker(self) -> _Worker:
        with self._lock:
            while self._idle:
                worker = self._idle.pop()
                if worker.process.poll() is None:
                    return worker
                worker.end()
        command = [
            sys.executable,
            "-m",
            "sandboa.formats.picture_worker",
            str(Path(self._heavy.name) / "heavy"),
        ]
        return _Worker(
            subprocess.Popen(
                command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL
            )
        )

    def _give_back(self, worker: _Worker) -> None:
        worker.uses += 1
        if worker.uses >= _USES:
            worker.end()
            return
        with self._lock:
            self._idle.append(worker)


_readers: Final = PictureReaders()
atexit.register(_readers.give_up)


def readable_picture(content: bytes) -> Picture:
    """The picture made new, by a process of its own. Raises NotAPicture."""
    return _readers.read(content)


def close_readers() -> None:
    """End the processes that decode pictures; the next picture starts others."""
    _readers.close()


def _require_size(content: bytes) -> None:
    if not content:
        raise NotAPicture("the photo is empty")
    if len(content) > LARGEST_PHOTO_BYTES:
        raise NotAPicture(f"the photo is larger than {LARGEST_PHOTO_BYTES // 2**20} MB")
