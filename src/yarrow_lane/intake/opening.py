"""Opening a client's picture: upright, in sRGB, or one clear sentence why not."""

import io
import warnings
from dataclasses import dataclass, replace
from datetime import datetime
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np

from yarrow_lane.intake.copies import difference_hash
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

# Our choice: above this a single picture needs more than 1.2 GB once decoded.
MOST_PIXELS = 400_000_000
ENDINGS = {
    "JPEG": (".jpg", ".jpeg", ".jpe", ".jfif"),
    "MPO": (".jpg", ".jpeg", ".mpo"),
    "PNG": (".png",),
    "TIFF": (".tif", ".tiff"),
    "WEBP": (".webp",),
    "HEIF": (".heic", ".heif", ".hif"),
}
_GLANCE_PX = 400  # our choice
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


@dataclass(frozen=True)
class Glance:
    """What a quick look at a file shows: its facts, and the hash by which copies of one shot are recognised."""

    facts: PictureFacts
    shot: str


def _identify(source: Path | bytes, name: str) -> "Image.Image":
    size = len(source) if isinstance(source, bytes) else _size_of(source, name)
    if size == 0:
        raise PictureTrouble(f"“{name}” holds no picture", "the file is empty", "ask for it to be sent again")
    stream: io.BytesIO | Path = io.BytesIO(source) if isinstance(source, bytes) else source
    head = source[:12] if isinstance(source, bytes) else _head_of(source)
    if head[4:8] == b"ftyp":
        pi_heif.register_heif_opener()
    # Pillow's own limit is below ours; it is checked here, with words, before any pixel is decoded.
    Image.MAX_IMAGE_PIXELS = None
    try:
        image = Image.open(stream)
    except Image.UnidentifiedImageError as error:
        raise PictureTrouble(
            f"“{name}” is not a picture we can open",
            "its content is no JPEG, PNG, TIFF, WebP or HEIC, whatever its name says",
            "ask for the original photograph",
        ) from error
    except Exception as error:  # broken headers raise many kinds: struct, Syntax, Value, OS
        raise PictureTrouble(f"“{name}” cannot be opened", "its beginning is damaged", "ask for it to be sent again") from error
    try:
        _accept(image, name)
    except PictureTrouble:
        image.close()
        raise
    return image


def _accept(image: "Image.Image", name: str) -> None:
    """Raises `PictureTrouble` for a kind we do not read and for more pixels than we decode."""
    if image.format not in ENDINGS:
        raise PictureTrouble(
            f"“{name}” is not taken in", f"{image.format} is no kind we read", "save it as JPEG, PNG, TIFF, WebP or HEIC"
        )
    if image.width * image.height > MOST_PIXELS:
        raise PictureTrouble(
            f"“{name}” is too large to open",
            f"it has {image.width * image.height / 1e6:.0f} megapixels and the limit is {MOST_PIXELS / 1e6:.0f}",
            "ask for a smaller copy",
        )


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

    With `preview_px` a JPEG is decoded at the smallest of 1/1, 1/2, 1/4, 1/8 whose
    longer side still has that many pixels: a quick first look. `facts` always tells
    the full size. Raises `PictureTrouble`.
    """
    with _identify(source, name) as image:
        facts = _facts(image, name)
        if preview_px is not None and image.format in ("JPEG", "MPO"):
            scale = preview_px / max(image.size)
            image.draft("RGB", (round(image.width * scale), round(image.height * scale)))
        try:
            image.load()
            upright = _upright(image)
            picture = np.asarray(_in_srgb(upright))
        except Exception as error:  # decoders raise OSError, SyntaxError, ValueError, struct.error, MemoryError
            # The decoder's own words speak of boxes and streams: they would tell the painter nothing.
            why = "its picture data is damaged or cut short"
            if isinstance(error, MemoryError):
                why = "this machine has too little memory for it"
            raise PictureTrouble(f"“{name}” cannot be opened", why, "ask for it to be sent again") from error
    if preview_px is None or facts.format not in ("JPEG", "MPO"):
        # Some decoders turn the picture while they load it: what is seen decides, not what the head of the file says.
        facts = replace(facts, width_px=picture.shape[1], height_px=picture.shape[0])
    return Opened(picture, facts)


def glance(source: Path | bytes, name: str, progress: Progress = SILENT) -> Glance:
    """Decode once, small: enough to see damage and to tell shots apart. Raises `PictureTrouble`."""
    progress.at(0.0)
    opened = open_picture(source, name, _GLANCE_PX)
    return Glance(opened.facts, difference_hash(opened.picture))


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


def _upright(image: "Image.Image") -> "Image.Image":
    try:
        return ImageOps.exif_transpose(image)
    except Exception:  # the rest of the EXIF block may be absurd; the orientation alone then counts as unsaid
        return image


def _in_srgb(image: "Image.Image") -> "Image.Image":
    """8-bit RGB in sRGB; 16-bit greys are scaled, transparency lies on the neutral grey."""
    if image.mode.startswith("I") or image.mode == "F":
        values = np.asarray(image, dtype=np.float64)
        top = 65535.0 if image.mode.startswith("I;16") or values.max(initial=0) > 255 else 255.0
        image = Image.fromarray(np.clip(values / top * 255 + 0.5, 0, 255).astype(np.uint8))
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
