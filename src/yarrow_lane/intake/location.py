"""Taking the place where a photograph was made out of the file, without touching a pixel.

Only bytes inside the blocks of the metadata are overwritten, so that the length stays and nothing else moves. What the file then
says is looked at once more by another reader (`arriving`).
"""

import re
import struct
import zlib
from collections.abc import Iterator

from yarrow_lane.intake.blocks import TIFF_HEADS, Block, blocks_of
from yarrow_lane.intake.exif_place import ExifBlock

# Names of properties that tell a place: XMP for EXIF, Photoshop and IPTC (Core, Extension), the geo vocabulary; and in plain words.
_TELLS = re.compile(
    rb"GPS|latitude|longitude|(?:photoshop:|Iptc4xmp(?:Core|Ext):|\b)(?:City|State|Country|Location|ProvinceState|CountryCode|CountryName|Sublocation"
    rb"|LocationCreated|LocationShown|WorldRegion)\b|geo:(?:lat|long)|\xa9xyz|\bloci|\bstreet\b|\baddress\b"
    rb"|-?\d{1,3}\.\d{3,}\s*[,;/ ]\s*-?\d{1,3}\.\d{3,}",
    re.IGNORECASE,
)
# Data sets of IPTC-IIM 4.2, record 2: content location, city, sublocation, state, country.
IPTC_PLACES = (26, 27, 90, 92, 95, 100, 101)
_IPTC_SET = re.compile(rb"\x1c\x02(.)", re.DOTALL)
# What follows the picture may be a whole film: only a few words are looked for, which is quick. QuickTime and 3GPP name a place so.
_TAIL_TELLS = (b"GPS", b"Latitude", b"latitude", b"\xa9xyz", b"loci", b"location", b"Location", b"Exif\0\0")
_MOST_UNPACKED = 20_000_000  # our choice: no real text is longer
_HIDDEN_CHUNK = b"yaGo"  # private and ancillary (PNG 1.2, 3.3): every reader passes it over


def place_told(data: bytes) -> bool:
    """Whether the file's metadata tells where the picture was made."""
    return bool(_taken_out(data))


def without_location(data: bytes) -> bytes:
    """The same file with everything that tells its place overwritten; a file without a place comes back as it is."""
    taken = _taken_out(data)
    if not taken:
        return data
    changed = bytearray(data)
    for start, end, fill in taken:
        changed[start:end] = fill * (end - start)
    if data[:8] == b"\x89PNG\r\n\x1a\n":
        _seal_png(changed, {start for start, _, _ in taken})
    return bytes(changed)


def _taken_out(data: bytes) -> list[tuple[int, int, bytes]]:
    """Ranges that tell the place, and with what they are filled."""
    found = [part for block in blocks_of(data) for part in _told_in(data, block)]
    return [(start, end, fill) for start, end, fill in found if end > start and data[start:end].strip(fill)]


def _told_in(data: bytes, block: Block) -> Iterator[tuple[int, int, bytes]]:
    if block.kind == "exif":  # which may be the whole file: it is not copied
        yield from _told_in_exif(data, block)
        return
    inside = data[block.start : block.end]
    if block.kind == "xmp":
        if _TELLS.search(inside):
            yield block.start, block.end, b" "
    elif block.kind == "iptc":
        if _TELLS.search(inside) or _iptc_tells(inside):
            yield block.start, block.end, b"\0"
    elif block.kind == "png text":
        if _png_text_tells(inside):
            yield block.start + 4, block.end - 4, b"\0"
    elif block.kind == "tail":
        if any(mark in inside for mark in _TAIL_TELLS):
            yield block.start, block.end, b"\0"
    elif _TELLS.search(inside):  # comments
        yield block.start, block.end, b"\0"


def _told_in_exif(data: bytes, block: Block) -> Iterator[tuple[int, int, bytes]]:
    ranges = ExifBlock(data, block.start, block.end).ranges()
    placed = any(r.what == "gps" and data[r.start : r.end].strip(b"\0") for r in ranges)
    for r in ranges:
        inside = data[r.start : r.end]
        if r.what == "gps":
            yield r.start, r.end, b"\0"
        elif placed or _TELLS.search(inside) or _TELLS.search(inside[::2]) or _iptc_tells(inside):
            # Words in UTF-16 are looked at by every other letter. With a place on record all words about the picture go.
            yield r.start, r.end, b"\0" if r.what == "packet" else b" "


def _iptc_tells(data: bytes) -> bool:
    return any(found[1][0] in IPTC_PLACES for found in _IPTC_SET.finditer(data))


def _png_text_tells(chunk: bytes) -> bool:
    """A whole chunk, from its length to its checksum; what is packed in it is unpacked, what is written in hexadecimal read."""
    kind, body = chunk[4:8], chunk[8:-4]
    keyword, _, rest = body.partition(b"\0")
    text = body
    try:
        if kind == b"zTXt":
            text = keyword + b" " + _unpacked(rest[1:])
        elif kind == b"iTXt" and rest[:1] == b"\1":
            text = keyword + b" " + _unpacked(rest[2:].split(b"\0", 2)[2])
    except (zlib.error, IndexError):
        return True  # it cannot be read here, and perhaps elsewhere: it is not kept
    if keyword.startswith(b"Raw profile type"):
        digits = re.sub(rb"[^0-9a-fA-F]", b"", text.split(b"\n", 3)[-1]).decode()
        raw = bytes.fromhex(digits[: len(digits) // 2 * 2])
        head = min((at for at in (raw.find(h) for h in TIFF_HEADS) if at >= 0), default=-1)
        exif = head >= 0 and bool(list(_told_in_exif(raw, Block("exif", head, len(raw)))))
        return exif or bool(_TELLS.search(raw)) or _iptc_tells(raw)
    return bool(_TELLS.search(text))


def _unpacked(data: bytes) -> bytes:
    stream = zlib.decompressobj()
    text = stream.decompress(data, _MOST_UNPACKED)
    if stream.unconsumed_tail:
        raise zlib.error("too long")
    return text


def _seal_png(data: bytearray, blanked: set[int]) -> None:
    """Blanked text becomes a chunk nobody reads; chunks carry a checksum (PNG 1.2, 3.2), which is written anew."""
    at = 8
    while at + 12 <= len(data):
        (length,) = struct.unpack_from(">I", data, at)
        if at + 12 + length > len(data):
            return
        if at + 4 in blanked:
            data[at + 4 : at + 8] = _HIDDEN_CHUNK
        if at + 4 in blanked or data[at + 4 : at + 8] == b"eXIf":
            struct.pack_into(">I", data, at + 8 + length, zlib.crc32(data[at + 4 : at + 8 + length]))
        at += 12 + length
