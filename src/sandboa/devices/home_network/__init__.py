"""The house in its keeper's network: its names, its own certificate, and how it makes itself heard.

The command uses it for `sandboa serve --home`; nothing here knows what a house holds.
"""

from sandboa.devices.home_network.announcement import multicast
from sandboa.devices.home_network.authority import Unreadable
from sandboa.devices.home_network.home import HomeNetwork
from sandboa.devices.home_network.names import machine_names

__all__ = ["HomeNetwork", "Unreadable", "machine_names", "multicast"]
