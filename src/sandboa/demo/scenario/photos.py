"""Photos of the demo: one egg by torch on four days, drawn, for no real animal stands here."""

import io
import math
from collections.abc import Callable, Iterator
from functools import partial
from typing import Final

from PIL import Image, ImageDraw, ImageFilter

from sandboa.formats.picture_decoding import decode
from sandboa.services.acts.preconditions import clutch_called
from sandboa.services.clutches.photos import PhotoCommand, Picture, attach

_DAY_S: Final = 86_400.0
_SIZE: Final = (640, 480)
#: Days ago, how strongly the vessels show (0-1), and how far the egg has sunk (0-1).
_DAYS: Final = ((18.9, 0.6, 0.0), (12.5, 0.75, 0.0), (4.0, 0.35, 0.15), (0.2, 0.0, 0.45))
_EGG: Final = 3


def photos(code: str, now_s: float) -> Iterator[tuple[float, Callable[[], object]]]:
    """The failing egg of clutch `code`, told at the times it was photographed."""
    for days_ago, vessels, sunk in _DAYS:
        at_s = now_s - days_ago * _DAY_S
        yield at_s + 60, partial(_attach, code, vessels, sunk, at_s)


def _attach(code: str, vessels: float, sunk: float, at_s: float) -> None:
    made = decode(torchlit_egg(vessels, sunk))
    picture = Picture(made.jpeg, made.small, made.width, made.height)
    owner = clutch_called(code).entity_id
    attach(PhotoCommand(owner, picture, at_s, egg=_EGG, step="candling"), at_s + 60)


def torchlit_egg(vessels: float, sunk: float) -> bytes:
    """A candled egg as JPEG: warm glow on black, vessels that fade, a side that sinks."""
    image = Image.new("RGB", _SIZE, (4, 2, 2))
    draw = ImageDraw.Draw(image)
    middle, half = (320, 240), (230, 160)
    outline = []
    for i in range(180):
        turn = math.tau * i / 180
        dent = sunk * 44 * math.exp(-(((turn - 5.1) / 0.42) ** 2))
        outline.append(
            (middle[0] + half[0] * math.cos(turn), middle[1] + (half[1] - dent) * math.sin(turn))
        )
    draw.polygon(outline, fill=(196, 96, 52))
    draw.ellipse((190, 120, 470, 330), fill=(222, 128, 74))
    image = image.filter(ImageFilter.GaussianBlur(14))
    draw = ImageDraw.Draw(image)
    red = (150, 34, 26)
    for arm in range(round(12 * vessels)):
        turn = math.tau * arm / 11 + 0.3
        x, y = 320.0, 180.0
        for step in range(18):
            bend = turn + 0.35 * math.sin(step / 4 + arm)
            nx, ny = x + 8 * math.cos(bend), y + 6 * math.sin(bend)
            draw.line((x, y, nx, ny), fill=red, width=max(1, 5 - step // 4))
            x, y = nx, ny
    draw.ellipse((306, 168, 334, 192), fill=(128, 22, 20))
    out = io.BytesIO()
    image.filter(ImageFilter.GaussianBlur(1.4)).save(out, "JPEG", quality=86)
    return out.getvalue()
