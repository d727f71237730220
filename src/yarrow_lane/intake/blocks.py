"""Where a picture file keeps what is not picture: the blocks of its metadata, found by walking the file's own structure.

JPEG: ITU-T T.81 and EXIF 2.32; PNG 1.2; WebP container (RIFF); TIFF 6.0 and BigTIFF. In HEIC the items lie among the picture data;
they are found there by the words they begin with.
"""

import re
import struct
from collections.abc import Generator, Iterator
from dataclasses import dataclass
from typing import Literal

Kind = Literal["exif", "xmp", "iptc", "text", "png text", "tail"]
_EXIF, _XMP, _MORE_XMP = b"Exif\0\0", b"http://ns.adobe.com/xap/1.0/\0", b"http://ns.adobe.com/xmp/extension/\0"
TIFF_HEADS = (b"II*\0", b"MM\0*", b"II+\0", b"MM\0+")
_PNG = b"\x89PNG\r\n\x1a\n"
# Between scans a JPEG holds anything but a marker; stuffed zeros and restart marks belong to the picture (T.81, B.1.1.2).
_MARKER = re.compile(rb"\xff[^\x00\xd0-\xd7\xff]")
_XMP_PACKET = re.compile(rb"<x:xmpmeta.*?</x:xmpmeta>", re.DOTALL)
_SOI, _EOI, _SOS, _COM = 0xD8, 0xD9, 0xDA, 0xFE
_KEEP_APPS = (0xE0, 0xE2, 0xEE)  # JFIF, profile and list of further pictures, colour transform: none holds a place


@dataclass(frozen=True)
class Block:
    """Bytes `start` to `end` of the file; "exif" starts at its TIFF head, "png text" at the chunk's length."""

    kind: Kind
    start: int
    end: int


def blocks_of(data: bytes) -> list[Block]:
    """Every block that may tell a place; an empty list for what is no picture of ours. Never raises."""
    try:
        return list(_walk(data))
    except struct.error:
        return []


def _walk(data: bytes) -> Iterator[Block]:
    if data[:2] == b"\xff\xd8":
        yield from _jpegs(data)
    elif data[:8] == _PNG:
        yield from _png(data)
    elif data[:4] == b"RIFF" and data[8:12] == b"WEBP":
        yield from _webp(data)
    elif data[:4] in TIFF_HEADS:
        yield Block("exif", 0, len(data))
    elif data[4:8] == b"ftyp":
        yield from _heic(data)


def _jpegs(data: bytes) -> Iterator[Block]:
    """One JPEG after the other: cameras put further pictures behind the first, each with blocks of its own."""
    at = 0
    while at >= 0:
        end = yield from _jpeg(data, at)
        following = data.find(b"\xff\xd8\xff", end)
        rest = following if following >= 0 else len(data)
        if rest > end:
            yield Block("tail", end, rest)
        at = following


def _jpeg(data: bytes, at: int) -> Generator[Block, None, int]:
    """The blocks of the JPEG that begins there; comes back with where it ends."""
    at += 2
    while at + 4 <= len(data):
        if data[at] != 0xFF:
            return at
        marker = data[at + 1]
        if marker == 0xFF:  # a fill byte
            at += 1
            continue
        if marker == _EOI:
            return at + 2
        (length,) = struct.unpack_from(">H", data, at + 2)
        start, end = at + 4, min(at + 2 + length, len(data))
        if marker == _COM or (0xE0 <= marker <= 0xEF and marker not in _KEEP_APPS):
            yield from _app(data, marker, start, end)
        at = end
        if marker == _SOS:
            found = _MARKER.search(data, at)
            if found is None:
                return len(data)
            at = found.start()
    return len(data)


def _app(data: bytes, marker: int, start: int, end: int) -> Iterator[Block]:
    head = data[start : min(end, start + 40)]
    if head.startswith(_EXIF):
        yield Block("exif", start + len(_EXIF), end)
    elif head.startswith((_XMP, _MORE_XMP)):
        yield Block("xmp", start + head.index(b"\0") + 1, end)
    else:
        yield Block("iptc" if marker == 0xED else "text", start, end)


def _png(data: bytes) -> Iterator[Block]:
    at = len(_PNG)
    while at + 12 <= len(data):
        (length,) = struct.unpack_from(">I", data, at)
        kind, end = data[at + 4 : at + 8], at + 12 + length
        if end > len(data):
            return
        if kind == b"eXIf":
            yield Block("exif", at + 8, end - 4)
        elif kind in (b"tEXt", b"zTXt", b"iTXt"):
            yield Block("png text", at, end)
        at = end
        if kind == b"IEND":
            break
    if at < len(data):
        yield Block("tail", at, len(data))


def _webp(data: bytes) -> Iterator[Block]:
    at = 12
    while at + 8 <= len(data):
        (length,) = struct.unpack_from("<I", data, at + 4)
        start, end = at + 8, min(at + 8 + length, len(data))
        if data[at : at + 4] == b"EXIF":
            yield Block("exif", start + (6 if data[start : start + 6] == _EXIF else 0), end)
        elif data[at : at + 4] == b"XMP ":
            yield Block("xmp", start, end)
        at = end + length % 2


def _heic(data: bytes) -> Iterator[Block]:
    at = data.find(_EXIF)
    while at >= 0:
        if data[at + 6 : at + 10] in TIFF_HEADS:
            yield Block("exif", at + 6, len(data))
        at = data.find(_EXIF, at + 1)
    for packet in _XMP_PACKET.finditer(data):
        yield Block("xmp", packet.start(), packet.end())
