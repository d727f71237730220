"""The stock sizes nearest to a crop: what each would cut off it and add to it."""

import math
from dataclasses import dataclass, replace

from yarrow_lane.compose.composition import Compose, frame
from yarrow_lane.compose.formats import Format
from yarrow_lane.measure.plane import Point, Rect

# Logarithms that count alike: our choice, a canvas of a tenth of the size is not near however its sides fit.
_PROPORTION, _AREA = 0.08, math.log(2)
_SAME_PROPORTION = 0.005  # of its logarithm: our choice, sizes closer than this differ in nothing that is seen


@dataclass(frozen=True)
class Near:
    """A stock size as the canvas lies now, and the crop it would take, upright px.

    `cuts` is the share of the present crop that falls off, `adds` the share of the new crop that was not in it, 0 to 1.
    """

    format: Format
    composed: Compose
    crop: Rect
    cuts: float
    adds: float


def nearest_sizes(compose: Compose, photo_size: Point, formats: tuple[Format, ...], most: int = 3) -> tuple[Near, ...]:
    """Those of other proportion nearest to the canvas in proportion and area, one for each proportion; none without a crop.

    The nearest comes first. Each takes as much of the photograph as the present crop where that is there to take, about the same
    centre.
    """
    if not compose.framed or compose.background is None:
        return ()
    chosen: list[Format] = []
    for f in sorted(formats, key=lambda f: distance(compose, f)):
        seen = (_longness(compose), *(c.long_mm / c.short_mm for c in chosen))
        if all(abs(math.log(f.long_mm / f.short_mm / longness)) > _SAME_PROPORTION for longness in seen):
            chosen.append(f)
    return tuple(_near(compose, compose.background.crop, photo_size, f) for f in chosen[:most])


def distance(compose: Compose, f: Format) -> float:
    """How far a stock size is from the canvas, without a unit: 8 % of proportion count like a doubled area."""
    off = math.log((f.long_mm / f.short_mm) / _longness(compose))
    size = math.log(f.short_mm * f.long_mm / (compose.width_mm * compose.height_mm))
    return math.hypot(off / _PROPORTION, size / _AREA)


def _longness(compose: Compose) -> float:
    return max(compose.width_mm, compose.height_mm) / min(compose.width_mm, compose.height_mm)


def _near(compose: Compose, present: Rect, photo_size: Point, f: Format) -> Near:
    width, height = (f.long_mm, f.short_mm) if compose.lies else (f.short_mm, f.long_mm)
    sized = replace(compose, width_mm=width, height_mm=height, format_name=f"{f.series} {f.name}", background=None)
    wide = math.sqrt(present.width * present.height * width / height)
    assert compose.background is not None
    composed = frame(sized, compose.background.photo_id, photo_size, wide, present.centre)
    assert composed.background is not None
    crop = composed.background.crop
    common = _common(present, crop)
    return Near(f, composed, crop, 1 - common / (present.width * present.height), 1 - common / (crop.width * crop.height))


def _common(one: Rect, other: Rect) -> float:
    """The area of both, px²."""
    across = min(one.right, other.right) - max(one.x, other.x)
    down = min(one.bottom, other.bottom) - max(one.y, other.y)
    return max(0.0, across) * max(0.0, down)
