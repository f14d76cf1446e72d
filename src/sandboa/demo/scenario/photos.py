"""Photos of the demo: one egg by torch on four days, drawn, for no real animal stands here."""

import io
from collections.abc import Callable, Iterator
from functools import partial
from typing import Final

from PIL import Image

from sandboa.devices.simulation.torchlight import TorchState, draw
from sandboa.formats.picture_decoding import decode
from sandboa.services.acts.preconditions import clutch_called
from sandboa.services.clutches.photos import PhotoCommand, Picture, attach

_DAY_S: Final = 86_400.0
#: px, as wide and high as what is drawn.
_SIZE: Final = (576, 480)
_EGG: Final = 3
#: Days ago, and what was true inside: it grew, its vessels faded, it sank.
_DAYS: Final = (
    (18.9, TorchState(seed=3, share=0.05, vessels=0.8, reach=0.3)),
    (12.5, TorchState(seed=3, share=0.15, vessels=0.9, reach=0.5)),
    (4.0, TorchState(seed=3, share=0.25, vessels=0.35, reach=0.65, clouds=0.3, sunk=0.2)),
    (0.2, TorchState(seed=3, share=0.25, vessels=0.0, reach=0.65, clouds=0.8, sunk=0.5)),
)


def photos(code: str, now_s: float) -> Iterator[tuple[float, Callable[[], object]]]:
    """The failing egg of clutch `code`, told at the times it was photographed."""
    for days_ago, state in _DAYS:
        at_s = now_s - days_ago * _DAY_S
        yield at_s + 60, partial(_attach, code, state, at_s)


def _attach(code: str, state: TorchState, at_s: float) -> None:
    made = decode(torchlit_egg(state))
    picture = Picture(made.jpeg, made.small, made.width, made.height)
    owner = clutch_called(code).entity_id
    attach(PhotoCommand(owner, picture, at_s, egg=_EGG, step="candling"), at_s + 60)


def torchlit_egg(state: TorchState) -> bytes:
    """A candled egg as JPEG, as a phone's camera keeps it."""
    out = io.BytesIO()
    drawn = Image.fromarray(draw(state)).resize(_SIZE, Image.Resampling.LANCZOS)
    drawn.save(out, "JPEG", quality=86)
    return out.getvalue()
