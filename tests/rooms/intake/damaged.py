"""Forty-eight damaged files, each in its own way: made here, none from outside."""

import io
import struct
import zlib
from collections.abc import Iterator

import numpy as np
import pillow_heif
from PIL import Image

pillow_heif.register_heif_opener()
KINDS = {"JPEG": "jpg", "PNG": "png", "TIFF": "tif", "WEBP": "webp", "HEIF": "heic"}


def encoded(picture: np.ndarray, kind: str, **how: object) -> bytes:
    out = io.BytesIO()
    Image.fromarray(picture).save(out, kind, **how)
    return out.getvalue()


def bomb_png(width: int, height: int) -> bytes:
    """A PNG whose head promises more than any machine holds (PNG 1.2: IHDR is width, height, depth, colour…)."""

    def chunk(kind: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    head = struct.pack(">IIBBBBB", width, height, 8, 2, 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", zlib.compress(b"\0" * 1000)) + chunk(b"IEND", b"")


def bomb_jpeg(data: bytes) -> bytes:
    """The same picture with a frame head (SOF0) of 65500 x 65500."""
    at = data.index(b"\xff\xc0")
    return data[: at + 5] + struct.pack(">HH", 65500, 65500) + data[at + 9 :]


def refused(picture: np.ndarray) -> Iterator[tuple[str, bytes]]:
    """Forty files that hold no picture: name and bytes."""
    for kind, ending in KINDS.items():
        whole = encoded(picture, kind)
        yield f"empty.{ending}", b""
        for share in (0.02, 0.3, 0.7):
            # A TIFF is read by its directory, which may lie at either end: cut in the middle it loses its pixels.
            yield f"cut-{share:g}.{ending}", whole[: max(9, int(len(whole) * share))]
        yield f"zeros.{ending}", bytes(len(whole))
        yield f"noise.{ending}", np.random.default_rng(len(whole)).bytes(3000)
    yield "letter.jpg", b"Dear painter, please find attached"
    yield "page.png", b"<!doctype html><title>not found</title>"
    yield "film.heic", b"\0\0\0\x18ftypmp42" + bytes(400)
    yield "drawing.jpg", b"%PDF-1.4\n%%EOF"
    yield "moving.gif", encoded(picture, "GIF")
    yield "old.bmp", encoded(picture, "BMP")
    yield "bomb-wide.png", bomb_png(60000, 60000)
    yield "bomb-tall.png", bomb_png(3, 2**31 - 1)
    yield "bomb.jpg", bomb_jpeg(encoded(picture, "JPEG"))
    yield "head-only.jpg", encoded(picture, "JPEG")[:40]


def odd(picture: np.ndarray) -> Iterator[tuple[str, bytes]]:
    """Eight files that are wrong in what they say about themselves, yet hold a picture."""
    yield "really-a-png.jpg", encoded(picture, "PNG")
    yield "really-a-jpeg.png", encoded(picture, "JPEG")
    yield "no-ending", encoded(picture, "WEBP")
    yield "really-heic.jpg", encoded(picture, "HEIF")
    for number, (tag, value) in enumerate(((0x0112, 77), (0x0132, "yesterday, I think"))):
        exif = Image.Exif()
        exif[tag] = value
        yield f"absurd-{number}.jpeg.txt", encoded(picture, "JPEG", exif=exif)
    yield "absurd-block.data", encoded(picture, "JPEG", exif=b"Exif\0\0II*\0\xff\xff\xff\x7f" + b"\xff" * 40)
    yield "absurd-profile.raw", encoded(picture, "PNG", icc_profile=b"no profile at all")
