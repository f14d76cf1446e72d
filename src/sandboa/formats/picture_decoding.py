"""Decoding a picture somebody sent: nothing but Pillow, so that a process of its own is small."""

import io
import warnings
from collections.abc import Callable
from contextlib import AbstractContextManager, nullcontext
from dataclasses import dataclass
from typing import Final

from PIL import Image, ImageOps, UnidentifiedImageError
from pillow_heif import register_heif_opener

# iPhones keep their photos as HEIC.
register_heif_opener()

#: Pixels of a photo (product requirement: a phone's have up to 50 million).
MOST_PIXELS: Final = 50_000_000
#: Pixels above which pictures are opened one after another (assumption: each takes 4 bytes).
HEAVY_PIXELS: Final = 5_000_000
#: px of the longer side as kept, and of the small one.
LONGER_SIDE: Final = 2048
SMALL_SIDE: Final = 360
_FORMATS: Final = ("JPEG", "PNG", "WEBP", "HEIF")

TOO_MANY_PIXELS: Final = f"the photo has too many pixels: {MOST_PIXELS // 10**6} million fit"
UNREADABLE: Final = "this is not a photo that can be read (JPEG, PNG, WebP, HEIC)"


class NotAPicture(ValueError):
    """It cannot be kept as a photo; the text says why."""


@dataclass(frozen=True, slots=True)
class Decoded:
    """JPEG bytes of the picture and of a small one, and the size of the first in px."""

    jpeg: bytes
    small: bytes
    width: int
    height: int


def decode(
    content: bytes, heavy: Callable[[], AbstractContextManager[object]] = nullcontext
) -> Decoded:
    """Read a JPEG, PNG, WebP or HEIC and make it new.

    `heavy` is entered for as long as a picture of more than HEAVY_PIXELS is
    worked on: of those there should be one at a time.

    The picture is turned upright, scaled to at most 2048 px, and encoded as
    JPEG from its pixels alone: place, camera and everything else that
    travels in a photo is left behind. Raises NotAPicture.
    """
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            with Image.open(io.BytesIO(content), formats=_FORMATS) as opened:
                if opened.width * opened.height > MOST_PIXELS:
                    raise NotAPicture(TOO_MANY_PIXELS)
                # A JPEG that is scaled down anyway is decoded at an eighth to a half of its size.
                opened.draft("RGB", (LONGER_SIDE, LONGER_SIDE))
                with heavy() if opened.width * opened.height > HEAVY_PIXELS else nullcontext():
                    return _made_new(opened)
    except NotAPicture:
        raise
    except Image.DecompressionBombError as error:
        raise NotAPicture(TOO_MANY_PIXELS) from error
    except (
        UnidentifiedImageError, OSError, ValueError, SyntaxError, Warning, MemoryError,
    ) as error:  # fmt: skip
        raise NotAPicture(UNREADABLE) from error


def _made_new(opened: Image.Image) -> Decoded:
    # In place: of all the pixels there is never a second copy.
    opened.thumbnail((LONGER_SIDE, LONGER_SIDE), reducing_gap=1.1)
    upright = ImageOps.exif_transpose(opened).convert("RGB")
    small = ImageOps.contain(upright, (SMALL_SIDE, SMALL_SIDE))
    return Decoded(_jpeg(upright, 86), _jpeg(small, 78), upright.width, upright.height)


def _jpeg(image: Image.Image, quality: int) -> bytes:
    # Pasted onto a new canvas: nothing but pixels goes along.
    bare = Image.new("RGB", image.size)
    bare.paste(image)
    out = io.BytesIO()
    bare.save(out, "JPEG", quality=quality, optimize=True)
    return out.getvalue()
