"""What a torch shows of a simulated egg, drawn from its hidden state: for photos and for practice.

`TorchState` says what is true inside, `draw` makes the picture of it. Nothing else decides what an
egg looks like by torch, so two eggs of one state look alike, and a picture gives away no more than
a torch would.
"""

from sandboa.devices.simulation.torchlight.picture import FRAMES, draw, sprite
from sandboa.devices.simulation.torchlight.state import (
    TorchState,
    inside_of,
    lies_aside,
    readable,
    shows_body,
    state_of,
)

__all__ = [
    "FRAMES",
    "TorchState",
    "draw",
    "inside_of",
    "lies_aside",
    "readable",
    "shows_body",
    "sprite",
    "state_of",
]
