"""A house's files are for whoever runs it, and for nobody else on the machine."""

from contextlib import suppress
from pathlib import Path
from typing import Final

_FOLDER: Final = 0o700
_FILE: Final = 0o600
#: Folders beside the house that Sandboa makes.
_FOLDERS: Final = ("photos", "backups", "practice")
#: What of a mode lets others in.
_OTHERS: Final = 0o077


def make_private(path: Path) -> None:
    """Shut others out of the house at `path` that was made before everybody was.

    The folder is shut as well, so that nothing in it is reached, unless
    something else lies in it: then it may be others' too. What belongs to
    somebody else is left as it is.
    """
    for file in (*path.parent.glob(f"{path.name}*"), *path.parent.glob("*.key")):
        _restrict(file, _FILE)
    folders = [path.parent / name for name in _FOLDERS]
    if all(_is_ours(file.name, path.name) for file in path.parent.iterdir()):
        folders.append(path.parent)
    for folder in folders:
        if folder.is_dir():
            _restrict(folder, _FOLDER)


def _is_ours(name: str, house: str) -> bool:
    """Whether a file or folder beside the house is one that Sandboa made."""
    return name in (*_FOLDERS, "house.key") or name.startswith((house, "replaced-"))


def _restrict(path: Path, mode: int) -> None:
    with suppress(OSError):
        if path.stat().st_mode & _OTHERS:
            path.chmod(mode)
