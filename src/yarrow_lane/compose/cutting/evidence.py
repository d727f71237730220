"""What speaks for inside or outside: the drawn outline, colour and texture of the whole, colour near by.

All thresholds are our choice, tuned on rendered sitters with true outlines.
"""

from dataclasses import dataclass
from typing import TYPE_CHECKING, Any, Literal

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
    from scipy import ndimage
else:
    cv2, ndimage = late("cv2"), late("scipy.ndimage")

Drawn = Literal["traced", "loop"]  # along the border, or loosely round the sitter
Plane = NDArray[Any]  # float32 (H, W) or (H, W, n)
_BINS = (12, 20, 20, 7)  # lightness, a, b, texture
_BIN_BLUR = (0.8, 0.9, 0.9, 0.6)


def blurred(plane: Plane, sigma: float) -> Plane:
    """Gaussian; the picture's edge is carried on, it is no border of the sitter."""
    return np.asarray(cv2.GaussianBlur(plane, (0, 0), sigma, borderType=cv2.BORDER_REPLICATE), np.float32)


def distance(mask: NDArray[Any], pad: int) -> Plane:
    """Signed distance to the mask's border in px, positive inside, to `pad` px beyond a picture's edge that the mask touches."""
    wide = cv2.copyMakeBorder(mask, pad, pad, pad, pad, cv2.BORDER_REPLICATE)
    inside = cv2.distanceTransform(wide, cv2.DIST_L2, 5) - cv2.distanceTransform(1 - wide, cv2.DIST_L2, 5)
    return np.ascontiguousarray(inside[pad:-pad, pad:-pad])


@dataclass(frozen=True)
class Features:
    """The working picture: CIELAB codes (H, W, 3) uint8, colour and texture bin (H, W), cost of a border (H, W)."""

    lab: NDArray[Any]
    bins: NDArray[np.int32]
    weight: Plane


def features(part: Picture, scale: float) -> Features:
    """Of a part of the photograph at `scale`; texture is read at twice that, where hairs are still seen."""
    height, width = max(8, round(part.shape[0] * scale)), max(8, round(part.shape[1] * scale))
    twice = part if scale > 0.5 else cv2.resize(part, (2 * width, 2 * height), interpolation=cv2.INTER_AREA)
    small = cv2.resize(twice, (width, height), interpolation=cv2.INTER_AREA)
    lightness = cv2.cvtColor(twice, cv2.COLOR_RGB2LAB)[..., 0].astype(np.float32) / 2.55
    energy = blurred((lightness - blurred(lightness, 1.5)) ** 2, 4.0)
    # About -2.7 on a plain wall to 3 in sharp fur: sharp fur before a soft room is what texture sees.
    texture = np.log2(0.15 + np.sqrt(cv2.resize(energy, (width, height), interpolation=cv2.INTER_AREA)))
    lab = np.asarray(cv2.cvtColor(small, cv2.COLOR_RGB2LAB))
    return Features(lab, _binned(lab, texture), _border_cost(lab))


def _binned(lab: NDArray[Any], texture: Plane) -> NDArray[np.int32]:
    def place(values: NDArray, bins: int) -> NDArray[np.int32]:
        return np.clip((values * bins).astype(np.int32), 0, bins - 1)

    whole = lab.astype(np.float32)
    found = place(whole[..., 0] / 256, _BINS[0])
    for n in (1, 2):  # a and b from -50 to 50: coats, skin and rooms lie within
        found = found * _BINS[n] + place((whole[..., n] - 78) / 100, _BINS[n])
    return found * _BINS[3] + place((texture + 2.8) / 5.6, _BINS[3])


def _border_cost(lab: NDArray[Any]) -> Plane:
    smooth = blurred(lab.astype(np.float32), 0.7)
    change = np.zeros(lab.shape[:2], np.float32)
    change[:, :-1] += np.sum((smooth[:, 1:] - smooth[:, :-1]) ** 2, axis=2)
    change[:-1] += np.sum((smooth[1:] - smooth[:-1]) ** 2, axis=2)
    return np.asarray(3.0 * (0.08 + 0.92 * np.exp(-change / (2 * change.mean() + 1e-6))), np.float32)


@dataclass(frozen=True)
class FromOutline:
    """What the drawn line says: signed distance as a share of its size, evidence, and where it leaves no doubt."""

    away: Plane
    evidence: Plane
    surely_in: NDArray[np.bool_]
    surely_out: NDArray[np.bool_]


def from_outline(mask: NDArray[Any], size: float, drawn: Drawn) -> FromOutline:
    """`mask` is what the line encloses, `size` the root of its box's area, px."""
    away = distance(mask, int(0.25 * size) + 4) / np.float32(size)
    if drawn == "traced":
        said, inside, outside = np.clip(away / 0.05, -2.5, 2.5), away > 0.16, away < -0.13
    else:
        said, inside, outside = np.clip((away - 0.045) / 0.04, -2, 2), away > 0.22, away < -0.01
    return FromOutline(away, said.astype(np.float32), inside, outside)


def from_colours(bins: NDArray[np.int32], inside: Plane, outside: Plane) -> Plane:
    """Logarithm of how much likelier a pixel's colour and texture are inside than outside, -4 to 4."""

    def likely(weights: Plane) -> NDArray[np.float64]:
        count = int(np.prod(_BINS))
        counted = np.bincount(bins.ravel(), weights.ravel(), count).reshape(_BINS)
        smooth = ndimage.gaussian_filter(counted, _BIN_BLUR, mode="nearest").ravel()
        return np.asarray((smooth + 0.02) / (smooth.sum() + 0.02 * count))

    ratio = np.clip(np.log(likely(inside) / likely(outside)), -4, 4).astype(np.float32)
    return np.asarray(ratio[bins])


def from_near_by(lab: NDArray[Any], inside: NDArray[Any], outside: NDArray[Any], reach: float) -> Plane:
    """The same from Gaussian colours of both sides within about `reach` px; 0 where one side is too far."""
    colours = lab.astype(np.float32) / 8
    fit_in, weight_in = _near_fit(colours, inside, reach)
    fit_out, weight_out = _near_fit(colours, outside, reach)
    said = fit_in - fit_out
    said[(weight_in < 0.02) | (weight_out < 0.02)] = 0
    return np.asarray(np.clip(said, -4, 4), np.float32)


_PAIRS = ((0, 0), (0, 1), (0, 2), (1, 1), (1, 2), (2, 2))


def _near_fit(colours: Plane, mask: NDArray[Any], reach: float) -> tuple[Plane, Plane]:
    """Log likelihood of each colour under the side's own near by, and how much of that side there is."""
    height, width = mask.shape
    coarse = max(1, int(reach / 4))  # wide blurs on a coarser grid
    grid = max(8, width // coarse), max(8, height // coarse)
    weights = mask.astype(np.float32)

    def spread(plane: Plane) -> Plane:
        return blurred(cv2.resize(plane, grid, interpolation=cv2.INTER_AREA), reach / coarse)

    def back(plane: Plane) -> Plane:
        return np.asarray(cv2.resize(plane, (width, height)), np.float32)

    there = spread(weights)
    safe = np.maximum(there, 1e-4)
    means = [spread(colours[..., c] * weights) / safe for c in range(3)]
    # One is added to the variances: no side is of one colour only.
    a, b, c, d, e, f = (
        back(spread(colours[..., i] * colours[..., j] * weights) / safe - means[i] * means[j]) + (1.0 if i == j else 0.0)
        for i, j in _PAIRS
    )
    x, y, z = (colours[..., n] - back(means[n]) for n in range(3))
    # The inverse of a symmetric 3 x 3 by its cofactors.
    aa, bb, cc = d * f - e * e, c * e - b * f, b * e - c * d
    dd, ee, ff = a * f - c * c, b * c - a * e, a * d - b * b
    determinant = np.maximum(a * aa + b * bb + c * cc, 1e-3)
    away = aa * x * x + dd * y * y + ff * z * z + 2 * (bb * x * y + cc * x * z + ee * y * z)
    return np.asarray(-0.5 * (away / determinant + np.log(determinant)), np.float32), back(there)
