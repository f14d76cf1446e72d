"""`sandboa service`: a systemd unit that runs the application from now on."""

import argparse
import shutil
import sys
from pathlib import Path
from typing import Final

from sandboa.cli.house_folder import add_data_folder
from sandboa.core.errors import NotPlausible

#: Lines after the unit, for whoever reads it: what to do with it.
_HOW: Final = {
    False: """# Keep it as ~/.config/systemd/user/sandboa.service, then:
#   systemctl --user enable --now sandboa
#   loginctl enable-linger        so that it runs while nobody is signed in
""",
    True: """# Keep it as /etc/systemd/system/sandboa.service, then:
#   systemctl enable --now sandboa
""",
}


def add_arguments(command: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    add_data_folder(command)
    command.add_argument(
        "--system", metavar="USER",
        help="a unit of the whole machine that runs as USER, instead of one of your own",
    )  # fmt: skip
    command.add_argument(
        "flags", nargs=argparse.REMAINDER, metavar="FLAGS",
        help="what `sandboa serve` is given, after --, like: -- --home",
    )  # fmt: skip


def run(asked: argparse.Namespace) -> int:
    """Print the unit."""
    flags = [one for one in asked.flags if one != "--"]
    print(unit(_command(), asked.data.absolute(), flags, asked.system), end="")
    return 0


def unit(command: str, folder: Path, flags: list[str], user: str | None) -> str:
    """The unit's text.

    `command` is the absolute path of `sandboa`, `folder` the house's, `flags`
    go to `serve`, `user` runs a unit of the whole machine (None: one's own).
    Raises NotPlausible for what cannot stand in a unit.
    """
    for word in (command, str(folder), user or "", *flags):
        if any(sign in word for sign in "\r\n\0"):
            raise NotPlausible("flags", "a line break can stand in no unit")
    line = " ".join(_quoted(one) for one in (command, "serve", *flags))
    own = f"User={user}\n" if user else ""
    return f"""[Unit]
Description=Sandboa, a house of ball python clutches
Wants=network-online.target
After=network-online.target

[Service]
Type=exec
{own}Environment={_quoted(f"SANDBOA_DATA={folder}", variables=False)}
ExecStart={line}
Restart=on-failure
RestartSec=10
# The house is closed on SIGTERM: its one file is whole then.
TimeoutStopSec=60
UMask=0077
NoNewPrivileges=yes
PrivateTmp=yes
ProtectSystem=full
RestrictAddressFamilies=AF_UNIX AF_INET AF_INET6 AF_NETLINK
RestrictSUIDSGID=yes
LockPersonality=yes

[Install]
WantedBy={"multi-user" if user else "default"}.target

{_HOW[bool(user)]}"""


def _quoted(word: str, *, variables: bool = True) -> str:
    """As systemd reads words: in quotes, specifiers and variables (where it knows them) kept."""
    inner = word.replace("\\", "\\\\").replace('"', '\\"').replace("%", "%%")
    return f'"{inner.replace("$", "$$") if variables else inner}"'


def _command() -> str:
    """Where this command is, for one that is called without a path."""
    called = Path(sys.argv[0])
    found = shutil.which("sandboa") if not called.is_file() else None
    return str(Path(found or called).absolute())
