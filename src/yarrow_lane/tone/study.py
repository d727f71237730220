"""The value study: the reference squinted at, in a few values, in shapes that can be painted."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Circle
from yarrow_lane.tone.clusters import histogram, own_limits
from yarrow_lane.tone.colours import Colours
from yarrow_lane.tone.record import Tone

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_SMALLEST_SHARE = 0.0003  # of the canvas: the smallest shape worth painting; our choice, 60 mm2 of 40 x 50 cm
_LEAST_MM2 = 8.0  # our choice: a touch of a small round brush
_WIDTH_SHARE = 0.35  # of the side of the smallest shape: threads thinner than that are dropped; our choice
_KEEP = 6.0  # L*: edges stronger than about twice this survive the squint; our choice
_ROUNDS = 6
_CARE = 0.125  # of the smallest size, where something small matters: our choice, pupils and lids stay
# What half-shut eyes resolve: ten times the minute of arc of a sharp eye, which is 0.29 mm a metre (20/20 acuity). Ten is our choice.
_MM_PER_METRE = 10 * 0.29
_FWHM = 2.355  # of a Gaussian, in standard deviations


@dataclass(frozen=True, eq=False)
class Squinted:
    """Lightness L* as it is and as squinted at, (H, W), of a picture of the whole canvas, and its px per mm."""

    lightness: NDArray[np.float32]
    soft: NDArray[np.float32]
    px_per_mm: float


@dataclass(frozen=True, eq=False)
class Study:
    """`classes` (H, W) uint8 from dark to light, `limits` L*, the L* each is shown with, and its share of the canvas."""

    classes: NDArray[np.uint8]
    limits: tuple[float, ...]
    shown: tuple[float, ...]
    shares: tuple[float, ...]
    px_per_mm: float


def metres_of(squint_mm: float) -> float:
    """From how far half-shut eyes see a blur of that standard deviation."""
    return squint_mm * _FWHM / _MM_PER_METRE


def squint_of(metres: float) -> float:
    """The blur of half-shut eyes that far away, standard deviation in canvas mm."""
    return metres * _MM_PER_METRE / _FWHM


def usual_smallest_mm2(canvas_mm2: float) -> float:
    """The smallest shape worth painting on a canvas."""
    return max(_LEAST_MM2, _SMALLEST_SHARE * canvas_mm2)


def squinted(colours: Colours, squint_mm: float) -> Squinted:
    """A reference blurred within its masses but not across their edges."""
    lightness, reach = colours.lightness, squint_mm * colours.px_per_mm
    soft: NDArray[Any] = lightness
    if reach > 0.3:
        # A bilateral filter of wide reach costs by its area; half the size and less reach look the same.
        coarse = max(1.0, reach / 2.0)
        size = max(1, round(soft.shape[1] / coarse)), max(1, round(soft.shape[0] / coarse))
        soft = cv2.resize(soft, size, interpolation=cv2.INTER_AREA)
        for _ in range(2):
            soft = cv2.bilateralFilter(soft, 9, 2 * _KEEP, reach / coarse)
        soft = cv2.resize(soft, (lightness.shape[1], lightness.shape[0]), interpolation=cv2.INTER_LINEAR)
        # Brought back to the edges of the picture itself, which the smaller size has softened.
        soft = cv2.bilateralFilter(_guided(np.asarray(soft, np.float32), lightness, max(1, round(reach))), 5, _KEEP, 2)
    return Squinted(lightness, np.asarray(soft, np.float32), colours.px_per_mm)


def _guided(soft: NDArray[np.float32], guide: NDArray[np.float32], radius: int) -> NDArray[np.float32]:
    """The soft picture with the edges of the guide (guided filter, He, Sun and Tang 2013)."""
    size = (2 * radius + 1, 2 * radius + 1)
    mean, soft_mean = cv2.blur(guide, size), cv2.blur(soft, size)
    slope = (cv2.blur(guide * soft, size) - mean * soft_mean) / (cv2.blur(guide * guide, size) - mean * mean + _KEEP**2)
    shift = soft_mean - slope * mean
    return np.asarray(cv2.blur(slope, size) * guide + cv2.blur(shift, size), np.float32)


def limits_of(squint: Squinted, tone: Tone) -> tuple[float, ...]:
    """Those the painter moved, else the picture's own."""
    return tone.limits or own_limits(histogram(squint.soft), tone.count)


def study(squint: Squinted, tone: Tone, care: Sequence[Circle] = ()) -> Study:
    """The values in paintable shapes; in circles of `care`, canvas mm, such as eyes, an eighth of the size is kept."""
    limits, scale = limits_of(squint, tone), squint.px_per_mm
    classes = np.digitize(squint.soft, limits).astype(np.uint8)
    height, width = classes.shape
    smallest = tone.smallest_mm2 or usual_smallest_mm2(height * width / scale**2)
    cared_for = [(x * scale, y * scale, radius * scale) for (x, y), radius in care]
    classes = _paintable(classes, tone.count, smallest * scale**2, cared_for)
    shown = tuple(_shown(squint.lightness[classes == n], limits, n) for n in range(tone.count))
    shares = np.bincount(classes.ravel(), minlength=tone.count) / classes.size
    return Study(classes, limits, shown, tuple(float(s) for s in shares), scale)


def _shown(inside: NDArray[np.float32], limits: tuple[float, ...], n: int) -> float:
    if inside.size:
        return float(np.median(inside))
    ends = (0.0, *limits, 100.0)
    return (ends[n] + ends[n + 1]) / 2


def _paintable(
    classes: NDArray[np.uint8], count: int, smallest_px: float, care: Sequence[tuple[float, float, float]]
) -> NDArray[np.uint8]:  # fmt: skip
    """Without threads thinner than a brush, and without crumbs: each goes to the larger neighbour it touches longest."""
    width = _WIDTH_SHARE * smallest_px**0.5 / 2
    if width > 0.4:
        most, wider = np.full(classes.shape, -1.0, np.float32), np.zeros_like(classes)
        for n in range(count):
            near = cv2.GaussianBlur((classes == n).astype(np.float32), (0, 0), width)
            ahead = near > most
            wider[ahead], most = n, np.maximum(most, near)
        for x, y, radius in care:  # what is small there is meant
            near_by = _disc(classes.shape, x, y, radius)
            wider[near_by] = classes[near_by]
        classes = wider
    for _ in range(_ROUNDS):
        merged = _without_crumbs(classes, count, smallest_px, care)
        if merged is None:
            break
        classes = merged
    return classes


def _disc(shape: tuple[int, ...], x: float, y: float, radius: float) -> NDArray[np.bool_]:
    rows, columns = np.ogrid[: shape[0], : shape[1]]
    return np.asarray((columns - x) ** 2 + (rows - y) ** 2 <= radius**2)


def _without_crumbs(
    classes: NDArray[np.uint8], count: int, smallest_px: float, care: Sequence[tuple[float, float, float]]
) -> NDArray[np.uint8] | None:  # fmt: skip
    """One round of merging; None when nothing is too small."""
    shapes, value, area = np.zeros(classes.shape, np.int32), [0], [0]
    middles = [np.zeros((1, 2))]
    for n in range(count):
        # Eight neighbours: shapes that meet at a corner are one to a brush.
        found, which, facts, middle = cv2.connectedComponentsWithStats((classes == n).view(np.uint8), connectivity=8)
        np.add(which, len(value) - 1, out=shapes, where=which > 0)
        value += [n] * (found - 1)
        area += facts[1:, cv2.CC_STAT_AREA].tolist()
        middles.append(middle[1:])
    values, areas = np.array(value, np.uint8), np.array(area)
    at, least = np.concatenate(middles), np.full(len(areas), smallest_px)
    for x, y, radius in care:
        least[np.hypot(at[:, 0] - x, at[:, 1] - y) <= radius] = smallest_px * _CARE
    small = areas < least
    small[0] = False
    if not small.any() or small[1:].all():
        return None
    touching = []
    for a, b in ((shapes[:, :-1], shapes[:, 1:]), (shapes[:-1], shapes[1:])):
        meets = np.nonzero(a != b)
        one, other_side = a[meets], b[meets]
        crumbs = small[one] | small[other_side]
        one, other_side = one[crumbs], other_side[crumbs]
        touching += [np.stack([one, other_side], 1), np.stack([other_side, one], 1)]
    pairs = np.concatenate(touching)
    pairs = pairs[small[pairs[:, 0]]]
    found, length = np.unique(pairs.astype(np.int64) @ np.array([len(values), 1]), return_counts=True)
    crumb, other = np.divmod(found, len(values))
    larger = areas[other] > areas[crumb]
    crumb, other, length = crumb[larger], other[larger], length[larger]
    order = np.argsort(length)
    becomes = values.copy()
    becomes[crumb[order]] = values[other[order]]  # the longest border is written last
    return np.asarray(becomes[shapes], np.uint8) if (becomes != values).any() else None
