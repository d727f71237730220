"""A picture as it comes in: looked at, its place taken out, and looked at again to see that nothing else changed."""

import hashlib
import io
from dataclasses import dataclass, replace
from pathlib import Path
from typing import TYPE_CHECKING

from yarrow_lane.intake.copies import difference_hash
from yarrow_lane.intake.location import IPTC_PLACES, place_told, without_location
from yarrow_lane.intake.opening import LOOK_PX, PictureFacts, PictureTrouble, open_picture, read_file
from yarrow_lane.measure.late import late
from yarrow_lane.measure.progress import SILENT, Progress

if TYPE_CHECKING:
    from PIL import ExifTags, Image, ImageFile, IptcImagePlugin
else:
    ExifTags, Image, IptcImagePlugin = (late(f"PIL.{name}") for name in ("ExifTags", "Image", "IptcImagePlugin"))


@dataclass(frozen=True)
class Arrived:
    """Its facts, the hash by which copies of one shot are recognised, and its bytes where they are not to be kept as they came."""

    facts: PictureFacts
    shot: str
    data: bytes | None = None


def arrive(source: Path | bytes, name: str, keep_place: bool = False, progress: Progress = SILENT) -> Arrived:
    """Look at a file once, small: enough to see damage, to tell shots apart, and to take the place out.

    Raises `PictureTrouble` for what is no picture of ours, and when the place cannot be taken out without touching the picture.
    """
    progress.at(0.0)
    opened = open_picture(source, name, LOOK_PX)
    data = read_file(source, name)
    told = place_told(data)
    found = Arrived(replace(opened.facts, has_location=told or opened.facts.has_location), difference_hash(opened.picture))
    if keep_place or not found.facts.has_location:
        return found
    progress.at(0.3)
    return replace(found, data=_without_place(data, name, progress))


def _without_place(data: bytes, name: str, progress: Progress) -> bytes:
    clean = without_location(data)
    if _still_told(clean):
        raise _kept_out(name, "it tells where it was made in a way we cannot take out")
    before = _pixels(data, name)
    progress.at(0.7)
    if _pixels(clean, name) != before:
        raise _kept_out(name, "its place could not be taken out without touching the picture")
    return clean


def _kept_out(name: str, why: str) -> PictureTrouble:
    return PictureTrouble(
        f"“{name}” was not taken in", why, "ask for a copy without its place, or tick “Keep the place in new photographs”"
    )


def _pixels(data: bytes, name: str) -> str:
    """A hash over the whole decoded picture."""
    picture = open_picture(data, name).picture
    return hashlib.sha256(repr(picture.shape).encode() + picture.tobytes()).hexdigest()


def _still_told(data: bytes) -> bool:
    """Whether another reader (Pillow) still finds a place in any of the pictures of a file; one it cannot read is not trusted."""
    try:
        with Image.open(io.BytesIO(data)) as image:
            if any(_told_by(image, number) for number in range(getattr(image, "n_frames", 1))):
                return True
    except Exception:  # absurd metadata raises many kinds
        return True
    return place_told(data)


def _told_by(image: "ImageFile.ImageFile", number: int) -> bool:
    image.seek(number)
    exif = image.getexif()
    texts = [value for value in (*image.info.values(), *exif.values()) if isinstance(value, str | bytes)]
    iptc = IptcImagePlugin.getiptcinfo(image) or {}
    return (
        bool(exif.get_ifd(ExifTags.IFD.GPSInfo))
        or any(_tells(text) for text in texts)
        or any((2, dataset) in iptc for dataset in IPTC_PLACES)
    )


def _tells(text: str | bytes) -> bool:
    plain = text.decode("latin-1") if isinstance(text, bytes) else text
    return any(word in plain for word in ("GPSLatitude", "GPSLongitude", "photoshop:City", "Iptc4xmpCore:Location", "geo:lat"))
