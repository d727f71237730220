"""Taking the place where a photograph was made out of the file, without touching a pixel."""

import re
import struct
import zlib

_GPS_POINTER = 0x8825  # EXIF 2.32, 4.6.3: pointer to the GPS attribute block
_SIZES = {1: 1, 2: 1, 3: 2, 4: 4, 5: 8, 6: 1, 7: 1, 8: 2, 9: 4, 10: 8, 11: 4, 12: 8}
_XMP_PLACE = re.compile(rb'(exif:GPS(?:Latitude|Longitude|Altitude)[A-Za-z]*(?:="|>))([^"<]*)')


def without_location(data: bytes) -> bytes:
    """The same file with its GPS block blanked: entries, values and XMP copies overwritten in place.

    The length stays the same, so that nothing else in the file moves. Files without a place come back as they are.
    """
    changed = bytearray(data)
    for start in _tiff_heads(data):
        _blank_gps(changed, start)
    for match in _XMP_PLACE.finditer(data):
        changed[match.start(2) : match.end(2)] = b" " * (match.end(2) - match.start(2))
    if data[:8] == b"\x89PNG\r\n\x1a\n" and bytes(changed) != data:
        _seal_png(changed)
    return bytes(changed)


def _tiff_heads(data: bytes) -> list[int]:
    """Where TIFF blocks begin: the file itself, after "Exif" marks, in PNG eXIf and WebP EXIF chunks."""
    heads = [0] if data[:4] in (b"II*\0", b"MM\0*") else []
    for mark, after in ((b"Exif\0\0", 6), (b"eXIf", 4), (b"EXIF", 8)):
        at = data.find(mark)
        while at >= 0:
            if data[at + after : at + after + 4] in (b"II*\0", b"MM\0*"):
                heads.append(at + after)
            at = data.find(mark, at + 1)
    return heads


def _blank_gps(data: bytearray, start: int) -> None:
    order = "<" if data[start : start + 2] == b"II" else ">"
    try:
        (first,) = struct.unpack_from(order + "I", data, start + 4)
        for entry in _entries(data, start + first, order):
            tag, _, _, value = struct.unpack_from(order + "HHII", data, entry)
            if tag == _GPS_POINTER:
                gps = start + value
                for inner in _entries(data, gps, order):
                    _blank_entry(data, start, inner, order)
                struct.pack_into(order + "H", data, gps, 0)
    except struct.error:
        return  # a block that ends early holds no place that could be read


def _entries(data: bytearray, directory: int, order: str) -> list[int]:
    (count,) = struct.unpack_from(order + "H", data, directory)
    return [directory + 2 + 12 * n for n in range(min(count, 200))]


def _blank_entry(data: bytearray, start: int, entry: int, order: str) -> None:
    _, kind, count, value = struct.unpack_from(order + "HHII", data, entry)
    length = _SIZES.get(kind, 1) * min(count, 4096)
    if length > 4 and start + value + length <= len(data):
        data[start + value : start + value + length] = bytes(length)
    data[entry : entry + 12] = bytes(12)


def _seal_png(data: bytearray) -> None:
    """Chunks carry a checksum (PNG 1.2, 3.2): write it anew for the eXIf chunk."""
    at = 8
    while at + 12 <= len(data):
        (length,) = struct.unpack_from(">I", data, at)
        kind = bytes(data[at + 4 : at + 8])
        if kind in (b"eXIf", b"iTXt") and at + 12 + length <= len(data):
            struct.pack_into(">I", data, at + 8 + length, zlib.crc32(data[at + 4 : at + 8 + length]))
        at += 12 + length
