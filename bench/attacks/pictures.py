"""Pictures changed at random, of every kind: each is taken in or refused in words, within two gigabytes and twenty seconds."""

import io
import random
import time
from pathlib import Path

import numpy as np
import pillow_heif
from PIL import Image, PngImagePlugin

from bench.attacks.counts import Counts
from yarrow_lane.desk.photographs import ARRIVAL_LIMITS, in_a_worker
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.workers.pool import Workers

_BASE_BYTES = 400_000_000  # our choice: what a worker has before a question, its libraries among it


def originals() -> list[bytes]:
    """One of each kind and colour, with everything a file may tell of itself."""
    pillow_heif.register_heif_opener()
    dice = np.random.default_rng(5)
    smooth = np.cumsum(dice.normal(0, 9, (90, 120, 3)), axis=1)
    picture = np.clip(128 + smooth, 0, 255).astype(np.uint8)
    exif = Image.Exif()
    exif[0x0110], exif[0x0112] = "Telephone", 6
    exif.get_ifd(0x8769).update({0x9003: "2026:03:01 10:00:00", 0x920A: (50, 1)})
    exif.get_ifd(0x8825).update({1: "N", 2: (50.0, 9.0, 3.25)})
    text = PngImagePlugin.PngInfo()
    text.add_text("Comment", "at 50.15090, -5.07013", zip=True)
    image = Image.fromarray(picture)
    kinds: list[tuple[Image.Image, str, dict[str, object]]] = [
        (image, "JPEG", {"exif": exif, "xmp": b"<x:xmpmeta exif:GPSLatitude='1'></x:xmpmeta>"}),
        (image, "JPEG", {"progressive": True}),
        (image.convert("CMYK"), "JPEG", {}),
        (image, "PNG", {"exif": exif, "pnginfo": text}),
        (image.convert("RGBA"), "PNG", {}),
        (image.convert("P"), "PNG", {}),
        (Image.fromarray(picture[..., 0].astype(np.uint16) * 257), "PNG", {}),
        (image, "TIFF", {"compression": "tiff_lzw"}),
        (image, "TIFF", {"big_tiff": True}),
        (image, "WEBP", {"exif": exif}),
        (image.convert("RGBA"), "WEBP", {"lossless": True}),
        (image, "HEIF", {"exif": exif}),
    ]
    found = []
    for each, kind, how in kinds:
        out = io.BytesIO()
        each.save(out, kind, **how)
        found.append(out.getvalue())
    return found


def changed(data: bytes, other: bytes, dice: random.Random) -> bytes:
    """The file with a few bytes that are other ones, a piece lost, doubled, moved, or another file's."""
    out = bytearray(data)
    for _ in range(dice.choice((1, 1, 2, 5))):
        at, length = dice.randrange(len(out) + 1), dice.choice((1, 2, 4, 16, 300))
        match dice.randrange(8):
            case 0 | 1:
                out[at : at + length] = dice.randbytes(len(out[at : at + length]))
            case 2:
                out[at : at + length] = bytes((dice.choice((0, 255, 127)),)) * len(out[at : at + length])
            case 3:
                del out[at : at + length]
            case 4:
                out[at:at] = out[at : at + length]
            case 5:
                out[at:at] = other[dice.randrange(len(other)) :][:length]
            case 6:
                head = dice.randrange(min(64, len(out)) or 1)  # heads tell sizes: that is where the bombs are
                out[head : head + 2] = dice.choice((b"\xff\xff", b"\x7f\xff", b"\0\0", b"\x40\0"))
            case _:
                del out[at:]
        out = out or bytearray(b"\0")
    return bytes(out)


def attack(count: int, seed: int) -> Counts:
    """Show `count` changed pictures to a worker as they would arrive."""
    dice, counts, files = random.Random(seed), Counts(), originals()
    workers = Workers(1)
    look = in_a_worker(workers)
    try:
        for number in range(count):
            counts.tried += 1
            data = changed(dice.choice(files), dice.choice(files), dice)
            where = f"picture {number} of seed {seed}"
            begin = time.monotonic()
            try:
                look(data, "changed.jpg")
                counts.held += 1
            except Trouble as trouble:
                counts.said += 1
                if "changed.jpg" not in trouble.sentence:
                    counts.unseen.append(f"{where}: {trouble.sentence}")
            except Exception as error:
                counts.tracebacks.append(f"{where}: {getattr(error, 'places', error)}")
            seconds = time.monotonic() - begin
            if seconds > ARRIVAL_LIMITS.seconds + 2:  # the time it takes to end a process on a busy machine
                counts.too_slow.append(f"{where}: {seconds:.0f} s")
            for worker in workers._free:
                if _peak(worker._process.pid) > ARRIVAL_LIMITS.memory_bytes + _BASE_BYTES:
                    counts.too_much_memory.append(where)
    finally:
        workers.close()
    return counts


def _peak(pid: int) -> int:
    """The most memory a process ever held, bytes."""
    lines = Path(f"/proc/{pid}/status").read_text().splitlines()
    return next(int(line.split()[1]) for line in lines if line.startswith("VmHWM")) * 1024
