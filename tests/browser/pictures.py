"""Pictures to be taken at a place, as files."""

import io
from pathlib import Path

from PIL import Image


def photo(folder: Path, name: str) -> Path:
    """A photo of nothing much, with a place in its EXIF."""
    image = Image.new("RGB", (600, 400), (120, 90, 60))
    exif = Image.Exif()
    exif[0x010F] = "A camera"
    exif.get_ifd(0x8825)[1] = "N"
    held = io.BytesIO()
    image.save(held, "JPEG", exif=exif)
    file = folder / name
    file.write_bytes(held.getvalue())
    return file
