"""The real command serving a house, in its own process."""

import re
import subprocess
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path


@contextmanager
def running(data: Path) -> Iterator[str]:
    """Yields the address; the command listens before it says so."""
    command = [sys.executable, "-m", "sandboa", "serve", "--data", str(data), "--port", "0"]
    process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
    assert process.stdout is not None
    try:
        found = re.search(r"http://\S+?(?=/ )", process.stdout.readline())
        assert found is not None
        yield found[0]
    finally:
        process.terminate()
        process.wait()
        process.stdout.close()
