"""Photos from a phone or camera, made safe to keep: re-encoded, upright, without metadata."""

import io
import warnings
from typing import Final

from PIL import Image, ImageOps, UnidentifiedImageError
from pillow_heif import register_heif_opener

from sandboa.journal.photos import Picture

# iPhones keep their photos as HEIC.
register_heif_opener()

#: Bytes of a photo as it comes (assumption: a phone's are 2-12 MB).
LARGEST_PHOTO_BYTES: Final = 25 * 1024 * 1024
#: Pixels of a photo (assumption: a phone's have up to 50 million).
MOST_PIXELS: Final = 80_000_000
#: px of the longer side as kept, and of the small one.
LONGER_SIDE: Final = 2048
SMALL_SIDE: Final = 360
_FORMATS: Final = ("JPEG", "PNG", "WEBP", "HEIF")


class NotAPicture(ValueError):
    """It cannot be kept as a photo; the text says why."""


def readable_picture(content: bytes) -> Picture:
    """Read a JPEG, PNG, WebP or HEIC and make it new.

    The picture is turned upright, scaled to at most 2048 px, and encoded as
    JPEG from its pixels alone: place, camera and everything else that
    travels in a photo is left behind. Raises NotAPicture.
    """
    if not content:
        raise NotAPicture("the photo is empty")
    if len(content) > LARGEST_PHOTO_BYTES:
        raise NotAPicture(f"the photo is larger than {LARGEST_PHOTO_BYTES // 2**20} MB")
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            with Image.open(io.BytesIO(content), formats=_FORMATS) as opened:
                if opened.width * opened.height > MOST_PIXELS:
                    raise NotAPicture("the photo has too many pixels")
                upright = ImageOps.exif_transpose(opened).convert("RGB")
    except NotAPicture:
        raise
    except (
        UnidentifiedImageError,
        OSError,
        ValueError,
        SyntaxError,
        Warning,
        MemoryError,
    ) as error:
        raise NotAPicture("this is not a photo that can be read (JPEG, PNG, WebP, HEIC)") from error
    except Image.DecompressionBombError as error:
        raise NotAPicture("the photo has too many pixels") from error
    whole = ImageOps.contain(upright, (LONGER_SIDE, LONGER_SIDE))
    if max(upright.size) <= LONGER_SIDE:
        whole = upright
    small = ImageOps.contain(upright, (SMALL_SIDE, SMALL_SIDE))
    return Picture(_jpeg(whole, 86), _jpeg(small, 78), whole.width, whole.height)


def _jpeg(image: Image.Image, quality: int) -> bytes:
    # Pasted onto a new canvas: nothing but pixels goes along.
    bare = Image.new("RGB", image.size)
    bare.paste(image)
    out = io.BytesIO()
    bare.save(out, "JPEG", quality=quality, optimize=True)
    return out.getvalue()
