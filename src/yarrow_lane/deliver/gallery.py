"""A picture of the painting for the web: small, in sRGB, without what a camera writes into a file, with the painter's name on it if wished."""

import io
from importlib import resources

import numpy as np
from PIL import Image, ImageDraw, ImageFont

from yarrow_lane.measure.raster import Picture
from yarrow_lane.measure.trouble import Trouble

LEAST_PX, MOST_PX = 400, 4000
USUAL_PX = 1600  # our choice: fills a screen, too small to print
_MARK_SHARE = 0.035  # of the shorter side, the height of the name
_QUALITY = 90


class GalleryTrouble(Trouble):
    """A picture that may not be made."""


def gallery_jpeg(picture: Picture, longer_px: int, name: str = "") -> bytes:
    """The picture (H, W, 3) sRGB, its longer side so many px at most, never enlarged; with `name` as a mark. Raises `GalleryTrouble`."""
    if not LEAST_PX <= longer_px <= MOST_PX:
        raise GalleryTrouble(
            "The gallery picture was not made", f"{longer_px} px are outside {LEAST_PX} to {MOST_PX}", "choose another size"
        )
    image = Image.fromarray(np.ascontiguousarray(picture))
    image.thumbnail((longer_px, longer_px), Image.Resampling.LANCZOS)
    if name.strip():
        image = _marked(image, name.strip())
    out = io.BytesIO()
    image.save(out, "JPEG", quality=_QUALITY, optimize=True)
    return out.getvalue()


def _marked(image: Image.Image, name: str) -> Image.Image:
    """The name low at the right, half through, light on dark and dark on light."""
    size = max(10, round(_MARK_SHARE * min(image.size)))
    data = resources.files("yarrow_lane").joinpath("fonts", "YarrowSerif-Medium.ttf").read_bytes()
    font = ImageFont.truetype(io.BytesIO(data), size)
    layer = Image.new("RGBA", image.size, (0, 0, 0, 0))
    draw = ImageDraw.Draw(layer)
    left, top, right, bottom = draw.textbbox((0, 0), name, font=font)
    x = max(size // 2, image.width - (right - left) - size)
    y = image.height - (bottom - top) - size
    under = np.asarray(image.convert("L"))[y : y + size, x:].mean()
    ink = (20, 20, 20, 150) if under > 128 else (250, 250, 250, 150)
    draw.text((x - left, y - top), name, font=font, fill=ink)
    return Image.alpha_composite(image.convert("RGBA"), layer).convert("RGB")
