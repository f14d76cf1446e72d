"""Sandboa: follows ball python clutches from the egg to the first meal."""

from importlib.metadata import PackageNotFoundError, version

try:
    __version__ = version("sandboa")
except PackageNotFoundError:  # a source tree that was never installed
    __version__ = "0+source"
