"""The picture of an egg by torch, pixel by pixel, from its state alone.

A torch below shines through: the shell glows, vessels and the disc stand red against it, the
animal's body is a shadow from below, curdled contents are clouds. It is dim, grainy and soft, as
what is seen in a dark room is.
"""

import io
import math
from collections.abc import Iterator
from itertools import islice
from typing import Final

import numpy as np
from PIL import Image, ImageDraw, ImageFilter

from sandboa.devices.simulation.torchlight.state import TorchState

#: px; pictures of other sizes are these, scaled.
_WIDE: Final = 360
_HIGH: Final = 300
#: Half axes of the egg, px.
_HALF: Final = (146.0, 104.0)
#: Moments drawn of an egg that is looked at: a hand shakes, an animal stirs.
FRAMES: Final = 3
#: Colours of the light that comes through, RGB 0-1: a living egg, one that curdled, a blank.
_LIVING: Final = np.array([0.92, 0.46, 0.30])
_CURDLED: Final = np.array([0.62, 0.40, 0.20])
_BLANK: Final = np.array([0.93, 0.74, 0.34])
#: What blood and a body take away of the light, RGB 0-1.
_BLOOD_TAKES: Final = np.array([0.38, 0.86, 0.84])
_BODY_TAKES: Final = np.array([0.90, 0.95, 0.95])
_DIM: Final = 0.86


def draw(state: TorchState, frame: int = 0) -> np.ndarray:
    """The picture at one of `FRAMES` moments; uint8 of shape (300, 360, 3)."""
    return next(islice(_frames(state), frame, None))


def sprite(state: TorchState, quality: int = 78) -> bytes:
    """All moments of an egg below one another, as WebP of 360 by 900."""
    out = io.BytesIO()
    Image.fromarray(np.concatenate(list(_frames(state)))).save(out, "WEBP", quality=quality)
    return out.getvalue()


def _frames(state: TorchState) -> Iterator[np.ndarray]:
    """The picture at every moment; what does not change between them is worked out once."""
    grain = np.random.default_rng([state.seed, 5])
    x, y, inside, edge = _egg(state)
    clouds = _clouds(grain) * state.clouds * 0.55
    # Light leaks a little over the rim, and the shell is thicker towards it.
    rim = np.clip(1.15 - 0.55 * edge**2, 0.0, 1.0) * inside * (1.0 - clouds) * _DIM
    still = _light(state, x, y, grain) * (1.0 - _blood(state)[..., None] * _BLOOD_TAKES)
    still *= rim[..., None]
    phase, lumps = grain.uniform(0.0, math.tau), grain.uniform(0.05, 0.11)
    speckle = grain.normal(0.0, 0.016, x.shape) + 0.012
    for frame in range(FRAMES):
        body = _body(state, (x, y), frame, (phase, lumps))
        shown = still * (1.0 - body[..., None] * _BODY_TAKES)
        shown += np.roll(speckle, 31 * frame)[..., None]
        whole = Image.fromarray((np.clip(shown, 0.0, 1.0) * 255).astype(np.uint8))
        yield np.asarray(whole.filter(ImageFilter.GaussianBlur(1.1)))


def _egg(state: TorchState) -> tuple[np.ndarray, np.ndarray, np.ndarray, np.ndarray]:
    """x and y from the middle in half axes (y upwards), how far inside a pixel is, 0-1, and how
    near the rim; each (300, 360)."""
    rows, columns = np.mgrid[0:_HIGH, 0:_WIDE].astype(np.float32)
    x = (columns - _WIDE / 2.0) / _HALF[0]
    y = (_HIGH / 2.0 - rows) / _HALF[1]
    turn = np.arctan2(y, x)
    where = np.random.default_rng([state.seed, 3]).uniform(0.5, 2.6)
    fallen = 0.42 * state.sunk * np.exp(-(((turn - where) / 0.5) ** 2))
    radius = np.hypot(x, y) / (1.0 - fallen)
    inside = 1.0 / (1.0 + np.exp((radius - 1.0) / 0.018))
    return x, y, inside, np.minimum(radius, 1.0)


def _light(
    state: TorchState, x: np.ndarray, y: np.ndarray, grain: np.random.Generator
) -> np.ndarray:
    """What comes through of the torch, RGB; (300, 360, 3). Shells differ: some are brown anyway."""
    turned = min(1.0, 0.85 * state.clouds + float(grain.uniform(0.0, 0.35)))
    colour = _BLANK if state.blank else _LIVING + turned * (_CURDLED - _LIVING)
    near = np.exp(-(((x - 0.12) / 1.15) ** 2 + ((y + 0.25) / 1.25) ** 2))
    return np.asarray((0.42 + 0.58 * near)[..., None] * colour)


def _blood(state: TorchState) -> np.ndarray:
    """Where blood is between the light and the eye, 0-1; (300, 360)."""
    if state.blank:
        return np.zeros((_HIGH, _WIDE))
    canvas = Image.new("L", (_WIDE, _HIGH), 0)
    pen = ImageDraw.Draw(canvas)
    if state.vessels > 0.03:
        ink = int(255 * min(1.0, 0.25 + 0.75 * state.vessels))
        for line, width in _vessels(state):
            pen.line(line, fill=ink, width=width, joint="curve")
    drawn = np.asarray(canvas.filter(ImageFilter.GaussianBlur(1.2)), dtype=float) / 255.0
    return np.asarray(np.clip(drawn * min(1.0, 0.25 + state.vessels) + _disc(state), 0.0, 1.0))


def _disc(state: TorchState) -> np.ndarray:
    """The disc early in the term, and the ring that is left of one that died; (300, 360)."""
    rows, columns = np.mgrid[0:_HIGH, 0:_WIDE].astype(np.float32)
    at_x, at_y = _px(*state.disc)
    away = np.hypot(columns - at_x, (rows - at_y) * 1.15)
    size = 11.0 + 130.0 * min(state.share, 0.2)
    early = max(0.0, 1.0 - state.share / 0.22)
    eye = 0.75 * np.exp(-((away / (0.35 * size)) ** 2)) * early * (1.0 - state.clouds)
    halo = 0.45 * np.exp(-(((away - size) / 4.0) ** 2)) * early * (1.0 - state.clouds)
    ring = 0.8 * state.ring * np.exp(-(((away - 1.5 * size) / 7.0) ** 2))
    return np.asarray(eye + halo + ring)


def _vessels(state: TorchState) -> Iterator[tuple[list[tuple[float, float]], int]]:
    """Lines (px) and their widths: trunks from the disc that branch, as far as they reach."""
    random = np.random.default_rng([state.seed, 11])
    trunks = 7
    for trunk in range(trunks):
        turn = math.tau * (trunk + random.uniform(-0.25, 0.25)) / trunks
        yield from _branch(state, random, _px(*state.disc), turn, 1.0)


def _branch(
    state: TorchState,
    random: np.random.Generator,
    start: tuple[float, float],
    turn: float,
    size: float,
) -> Iterator[tuple[list[tuple[float, float]], int]]:
    length = 205.0 * size * state.reach
    line, (x, y) = [start], start
    bend = random.normal(0.0, 0.05)
    forks = []
    for step in range(9):
        turn += bend + random.normal(0.0, 0.10)
        x, y = x + math.cos(turn) * length / 9, y + 0.8 * math.sin(turn) * length / 9
        line.append((x, y))
        if step in (2, 4, 6) and size > 0.3:
            side = 0.6 if random.random() < 0.5 else -0.6
            forks.append(((x, y), turn + side))
    yield line, max(1, round(3.4 * size))
    for at, towards in forks:
        yield from _branch(state, random, at, towards, size * 0.55)


def _body(
    state: TorchState,
    at: tuple[np.ndarray, np.ndarray],
    frame: int,
    lie: tuple[float, float],
) -> np.ndarray:
    """The shadow of the animal, 0-1, from below upwards; of one that moves another each moment.

    `at` are x and y; `lie` is how its back curves: a phase, and how high its lumps are.
    """
    (x, y), (phase, lumps) = at, lie
    if state.blank or state.body <= 0.0:
        return np.zeros_like(x)
    stir = (0.0, 0.16, -0.10)[frame] if state.moves else 0.0
    top = -1.05 + 1.75 * state.body
    back = top + lumps * np.sin(4.2 * x + phase + 3.0 * stir) + stir * np.sin(2.1 * x + phase)
    return np.asarray(0.93 / (1.0 + np.exp(np.clip((y - back) / 0.07, -40.0, 40.0))))


def _clouds(grain: np.random.Generator) -> np.ndarray:
    """Soft blotches, 0-1; (300, 360)."""
    coarse = (grain.random((6, 7)) * 255).astype(np.uint8)
    wide = Image.fromarray(coarse).resize((_WIDE, _HIGH), Image.Resampling.BICUBIC)
    return np.asarray(wide, dtype=float) / 255.0


def _px(x: float, y: float) -> tuple[float, float]:
    return _WIDE / 2.0 + x * _HALF[0], _HIGH / 2.0 - y * _HALF[1]
