"""Opening a client's picture: upright, in sRGB, or one clear sentence why not."""

import importlib
import io
import warnings
from contextlib import suppress
from dataclasses import dataclass, replace
from datetime import datetime
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np

from yarrow_lane.intake.blocks import TIFF_HEADS
from yarrow_lane.measure.late import late
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture, halvings, resized
from yarrow_lane.measure.trouble import Trouble

if TYPE_CHECKING:
    import pi_heif
    from PIL import ExifTags, Image, ImageCms, ImageOps
else:
    pi_heif = late("pi_heif")
    ExifTags, Image, ImageCms, ImageOps = (late(f"PIL.{name}") for name in ("ExifTags", "Image", "ImageCms", "ImageOps"))

MOST_FILE_BYTES = 300_000_000  # our choice: no camera's file is larger
# Our choice: 400 megapixels of 8-bit RGB. Other pictures count by their channels and depth.
MOST_DECODED_BYTES = 1_200_000_000
ENDINGS = {
    "JPEG": (".jpg", ".jpeg", ".jpe", ".jfif"),
    "MPO": (".jpg", ".jpeg", ".mpo"),
    "PNG": (".png",),
    "TIFF": (".tif", ".tiff"),
    "WEBP": (".webp",),
    "HEIF": (".heic", ".heif", ".hif"),
}
_PLUGINS = {"JPEG": "JpegImagePlugin", "PNG": "PngImagePlugin", "TIFF": "TiffImagePlugin", "WEBP": "WebPImagePlugin"}
_OTHERS = ((b"GIF8", "GIF"), (b"BM", "BMP"), (b"%PDF", "PDF"), (b"8BPS", "a layered document"), (b"\0\0\1\0", "an icon"))
LOOK_PX = 400  # our choice
_NEUTRAL = (140, 140, 140)  # the surround grey: what lies under a transparent picture
# Absurd EXIF is common in what passes through messengers; the painter is told nothing, since nothing is lost by it.
warnings.filterwarnings("ignore", "Corrupt EXIF data", UserWarning)


class PictureTrouble(Trouble):
    """A picture that cannot be opened; the sentence names the file and the cause."""


@dataclass(frozen=True)
class PictureFacts:
    """What the file itself says. Sizes are of the upright picture in pixels.

    `remark` is a sentence for the painter when the file is usable but odd.
    """

    width_px: int
    height_px: int
    format: str
    orientation: int = 1
    taken: datetime | None = None
    focal_mm: float | None = None
    focal_35_mm: float | None = None
    has_location: bool = False
    remark: str = ""


@dataclass(frozen=True)
class Opened:
    """An upright sRGB picture, (height, width, 3) uint8, with its facts."""

    picture: Picture
    facts: PictureFacts


def _identify(source: Path | bytes, name: str) -> "Image.Image":
    size = len(source) if isinstance(source, bytes) else _size_of(source, name)
    if size == 0:
        raise PictureTrouble(f"“{name}” holds no picture", "the file is empty", "ask for it to be sent again")
    if size > MOST_FILE_BYTES:
        raise PictureTrouble(
            f"“{name}” is too large to open",
            f"the file has {size / 1e6:.0f} MB and the limit is {MOST_FILE_BYTES / 1e6:.0f}",
            "ask for a smaller copy",
        )
    stream: io.BytesIO | Path = io.BytesIO(source) if isinstance(source, bytes) else source
    head = source[:12] if isinstance(source, bytes) else _head_of(source)
    kind = _kind_of(head)
    if not kind:
        other = next((words for mark, words in _OTHERS if head.startswith(mark)), "")
        what = f"“{name}” is not taken in" if other else f"“{name}” is not a picture we can open"
        why = (
            f"{other} is no kind we read"
            if other
            else "its content is no JPEG, PNG, TIFF, WebP or HEIC, whatever its name says"
        )
        raise PictureTrouble(
            what, why, "save it as JPEG, PNG, TIFF, WebP or HEIC" if other else "ask for the original photograph"
        )
    if kind == "HEIF":
        pi_heif.register_heif_opener()
    else:
        importlib.import_module(f"PIL.{_PLUGINS[kind]}")
    # Pillow's own limit is below ours; it is checked here, with words, before any pixel is decoded.
    Image.MAX_IMAGE_PIXELS = None
    try:
        image = Image.open(stream, formats=(kind,))  # no other parser ever sees what comes from outside
    except MemoryError as error:
        raise _too_much(name) from error
    except Exception as error:  # broken headers raise many kinds: struct, Syntax, Value, OS
        why = "its beginning is damaged"
        if kind == "WEBP":  # its decoder tells want of memory no other way
            why += ", or it needs more memory than we give it"
        raise PictureTrouble(f"“{name}” cannot be opened", why, "ask for it to be sent again") from error
    try:
        _accept(image, name)
    except PictureTrouble:
        image.close()
        raise
    return image


def _too_much(name: str) -> PictureTrouble:
    return PictureTrouble(f"“{name}” cannot be opened", "it needs more memory than we give it", "ask for a smaller copy")


def _kind_of(head: bytes) -> str:
    """Which of our kinds the first twelve bytes promise; empty for none."""
    if head[:2] == b"\xff\xd8":
        return "JPEG"
    if head[:8] == b"\x89PNG\r\n\x1a\n":
        return "PNG"
    if head[:4] in TIFF_HEADS:
        return "TIFF"
    if head[:4] == b"RIFF" and head[8:12] == b"WEBP":
        return "WEBP"
    return "HEIF" if head[4:8] == b"ftyp" else ""


def _accept(image: "Image.Image", name: str) -> None:
    """Raises `PictureTrouble` for more than we decode."""
    each = max(3, len(image.getbands()) * (4 if image.mode in ("I", "F") else 2 if image.mode.startswith("I;") else 1))
    if image.width * image.height * each > MOST_DECODED_BYTES:
        raise PictureTrouble(
            f"“{name}” is too large to open",
            f"it has {image.width * image.height / 1e6:.0f} megapixels and the limit for its kind is {MOST_DECODED_BYTES / each / 1e6:.0f}",
            "ask for a smaller copy",
        )


def read_file(source: Path | bytes, name: str) -> bytes:
    """The bytes of a file that was opened before. Raises `PictureTrouble`."""
    if isinstance(source, bytes):
        return source
    try:
        return source.read_bytes()
    except OSError as error:
        raise PictureTrouble(
            f"“{name}” cannot be read", error.strerror or str(error), "check that it is still there"
        ) from error


def _size_of(path: Path, name: str) -> int:
    try:
        return path.stat().st_size
    except OSError as error:
        raise PictureTrouble(
            f"“{name}” cannot be read", error.strerror or str(error), "check that it is still there"
        ) from error


def _head_of(path: Path) -> bytes:
    try:
        with path.open("rb") as stream:
            return stream.read(12)
    except OSError as error:
        raise PictureTrouble(
            f"“{path.name}” cannot be read", error.strerror or str(error), "check the folder's permissions"
        ) from error


def _number(value: object) -> float | None:
    """An EXIF rational as a plain positive number, or nothing when it is absurd."""
    try:
        number = float(value)  # type: ignore[arg-type]
    except (TypeError, ValueError, ZeroDivisionError, OverflowError):
        return None
    return number if 0 < number < 1e5 else None


def _taken(value: object) -> datetime | None:
    try:
        return datetime.strptime(str(value).strip("\x00 "), "%Y:%m:%d %H:%M:%S")
    except ValueError:
        return None


def _facts(image: "Image.Image", name: str) -> PictureFacts:
    try:
        exif = image.getexif()
        detail = exif.get_ifd(ExifTags.IFD.Exif)
        location = bool(exif.get_ifd(ExifTags.IFD.GPSInfo))
    except Exception:  # absurd EXIF must never cost the picture; the parser raises many kinds
        exif, detail, location = Image.Exif(), {}, False
    orientation = exif.get(ExifTags.Base.Orientation, 1)
    if orientation not in range(1, 9):
        orientation = 1
    sideways = orientation >= 5
    kind = str(image.format)
    ending = Path(name).suffix.lower()
    remark = ""
    if ending not in ENDINGS[kind]:
        said = f"its name ends in “{ending}”" if ending else "its name has no ending"
        remark = f"“{name}” is really a {kind} picture though {said}; it was taken in as what it is."
    return PictureFacts(
        width_px=image.height if sideways else image.width,
        height_px=image.width if sideways else image.height,
        format=kind,
        orientation=int(orientation),
        taken=_taken(detail.get(ExifTags.Base.DateTimeOriginal, exif.get(ExifTags.Base.DateTime, ""))),
        focal_mm=_number(detail.get(ExifTags.Base.FocalLength)),
        focal_35_mm=_number(detail.get(ExifTags.Base.FocalLengthIn35mmFilm)),
        has_location=location,
        remark=remark,
    )


def open_picture(source: Path | bytes, name: str, preview_px: int | None = None) -> Opened:
    """Decode a photograph: EXIF orientation applied, embedded profile converted to sRGB.

    With `preview_px` it is made smaller by the largest whole number that leaves the
    longer side that many pixels, a JPEG by 1, 2, 4 or 8 while it is decoded: a quick first look. `facts` always tells
    the full size. Raises `PictureTrouble`.
    """
    with _identify(source, name) as image:
        facts = _facts(image, name)
        scaled = preview_px is not None and image.format in ("JPEG", "MPO")
        if preview_px is not None and scaled:
            scale = preview_px / max(image.size)
            image.draft("RGB", (round(image.width * scale), round(image.height * scale)))
        try:
            image.load()
            small = image if preview_px is None else _reduced(image, preview_px)
            upright = _upright(small)
            if not scaled:  # some decoders turn the picture while they load it: what is seen decides, not what the head says
                turned = small.size != upright.size
                width, height = image.size[::-1] if turned else image.size
                facts = replace(facts, width_px=width, height_px=height)
            picture = np.asarray(_in_srgb(upright))
        except MemoryError as error:
            raise _too_much(name) from error
        except Exception as error:  # decoders raise OSError, SyntaxError, ValueError, struct.error
            # The decoder's own words speak of boxes and streams: they would tell the painter nothing.
            why = "its picture data is damaged or cut short"
            raise PictureTrouble(f"“{name}” cannot be opened", why, "ask for it to be sent again") from error
    return Opened(picture, facts)


def open_sized(source: Path | bytes, name: str, longer_px: int, progress: Progress = SILENT) -> Picture:
    """A photograph with its longer side at most `longer_px`, (H, W, 3) sRGB upright. Raises `PictureTrouble`."""
    progress.at(0.0)
    return resized(open_picture(source, name, longer_px).picture, longer_px)


def open_whole(source: Path | bytes, name: str, progress: Progress = SILENT) -> Picture:
    """A photograph at its full size, (H, W, 3) sRGB upright. Raises `PictureTrouble`."""
    progress.at(0.0)
    return open_picture(source, name).picture


def open_halvings(path: Path, name: str, smallest_px: int, progress: Progress = SILENT) -> tuple[Picture, ...]:
    """A photograph at its full size and its halvings down to `smallest_px`. Raises `PictureTrouble`, `Cancelled`."""
    return halvings(open_whole(path, name, progress), smallest_px, progress)


def _reduced(image: "Image.Image", preview_px: int) -> "Image.Image":
    """Smaller by a whole number before anything else is done with it: every further step would take the memory of the whole."""
    factor = max(image.size) // preview_px
    if factor >= 2 and image.mode.startswith("I;16"):
        return _with_info(Image.fromarray(np.asarray(image)[factor // 2 :: factor, factor // 2 :: factor]), image)
    if factor < 2 or image.mode not in ("L", "LA", "RGB", "RGBA", "CMYK", "YCbCr", "I", "F"):
        return image
    return _with_info(image.reduce(factor), image)


def _with_info(small: "Image.Image", image: "Image.Image") -> "Image.Image":
    """What the colours and the upright picture need; the rest of the metadata may be absurd and stays behind."""
    small.info = {key: image.info[key] for key in ("icc_profile", "transparency") if key in image.info}
    # Some decoders turn the picture while they load it and then say so; an absurd EXIF block leaves the orientation unsaid.
    with suppress(Exception):
        small.getexif()[ExifTags.Base.Orientation] = image.getexif().get(ExifTags.Base.Orientation, 1)
    return small


def _upright(image: "Image.Image") -> "Image.Image":
    try:
        return ImageOps.exif_transpose(image)
    except Exception:  # the rest of the EXIF block may be absurd; the orientation alone then counts as unsaid
        return image


def _in_srgb(image: "Image.Image") -> "Image.Image":
    """8-bit RGB in sRGB; 16-bit greys are scaled, transparency lies on the neutral grey."""
    if image.mode.startswith("I") or image.mode == "F":
        values = np.asarray(image)
        top = 65535.0 if image.mode.startswith("I;16") or values.max(initial=0) > 255 else 255.0
        scaled = values.astype(np.float32)  # 24 bits of a number are enough for 16
        scaled *= 255.0 / top
        scaled += 0.5
        image = Image.fromarray(np.clip(scaled, 0, 255, out=scaled).astype(np.uint8))
    profile = image.info.get("icc_profile")
    if image.mode in ("P", "PA") or "transparency" in image.info or image.mode == "LA":
        image = image.convert("RGBA")
    if profile and image.mode in ("RGB", "RGBA", "CMYK", "L"):
        image = _converted(image, profile)
    if image.mode == "RGBA":
        ground = Image.new("RGB", image.size, _NEUTRAL)
        ground.paste(image, mask=image.getchannel("A"))
        return ground
    return image if image.mode == "RGB" else image.convert("RGB")


def _converted(image: "Image.Image", profile: bytes) -> "Image.Image":
    try:
        embedded = ImageCms.ImageCmsProfile(io.BytesIO(profile))
        target = ImageCms.createProfile("sRGB")
        mode = "RGBA" if image.mode == "RGBA" else "RGB"
        return ImageCms.profileToProfile(image, embedded, target, outputMode=mode) or image
    except (ImageCms.PyCMSError, OSError):
        return image  # a damaged profile says nothing: the pixels are then read as sRGB, the usual meaning
