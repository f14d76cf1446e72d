"""Request bodies sent compressed: unpacked within a limit, so that a small bomb stays small."""

import zlib

from sandboa.core.errors import NotPlausible

_GZIP = 16 + zlib.MAX_WBITS


class TooLargeUnpacked(Exception):
    """More than the limit came out."""


def unpacked(body: bytes, encoding: str | None, limit: int) -> bytes:
    """The body as it was before compression; only gzip is known.

    Raises NotPlausible for another encoding or damaged data, TooLargeUnpacked
    when more than `limit` bytes come out.
    """
    if encoding in (None, "", "identity"):
        return body
    if encoding != "gzip":
        raise NotPlausible("Content-Encoding", f'"{(encoding or "")[:40]}" is not known: send gzip')
    unpacker = zlib.decompressobj(_GZIP)
    try:
        whole = unpacker.decompress(body, limit + 1)
    except zlib.error as error:
        raise NotPlausible("body", "the compressed data is damaged") from error
    if len(whole) > limit:
        raise TooLargeUnpacked
    if not unpacker.eof:
        raise NotPlausible("body", "the compressed data is cut off")
    return whole
