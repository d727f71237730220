"""A cut-out ready to be laid on anything: colours without the old background, and how much of each pixel is sitter."""

import math
from collections.abc import Sequence
from typing import TYPE_CHECKING

import numpy as np

from yarrow_lane.compose.cutting.alpha import Alpha, Colours, closed_form, projected
from yarrow_lane.compose.cutting.band import EDGE, INSIDE, UNKNOWN, Trimap, trimap
from yarrow_lane.compose.cutting.cut import CutTrouble
from yarrow_lane.compose.cutting.cut_out import Care, CutOut
from yarrow_lane.compose.pieces import Ring
from yarrow_lane.measure.colour.srgb import linear_from_srgb8
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Rect, polygon_bounds
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture, piece

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_TILE = 384
_MOST_BAND_PX = 2_000_000  # our choice: the band of a sitter of some 4,000 px; more is done quickly instead of carefully


def cut_box(rings: Sequence[Ring], width_px: int, height_px: int) -> Rect:
    """The part of the photograph a cut-out needs: its outline and the widest band round it. Raises `CutTrouble` for no outline."""
    points = [p for r in rings for p in r.points]
    if len(points) < 3:
        raise CutTrouble("Nothing was cut out", "there is no outline", "draw round the sitter first")
    box = polygon_bounds(points)
    room = 4 + 2 * EDGE["fur"][1] * math.sqrt(max(1.0, box.width * box.height))
    left, top = max(0, math.floor(box.x - room)), max(0, math.floor(box.y - room))
    right, bottom = min(width_px, math.ceil(box.right + room)), min(height_px, math.ceil(box.bottom + room))
    if right <= left or bottom <= top:
        raise CutTrouble("Nothing was cut out", "the outline lies beside the photograph", "draw round the sitter again")
    return Rect(left, top, right - left, bottom - top)


def cut_out(photo: Picture, rings: Sequence[Ring], scale: float, care: Care, progress: Progress = SILENT) -> CutOut:
    """Cut the sitter out at `scale` (0..1 of the photograph's px). Raises `CutTrouble` and `Cancelled`."""
    box = cut_box(rings, photo.shape[1], photo.shape[0])
    width, height = max(1, round(box.width * scale)), max(1, round(box.height * scale))
    part = piece(photo, box, width, height, progress)
    here = tuple(Ring(tuple((x - box.x, y - box.y) for x, y in r.points), r.coats) for r in rings)
    bounds = polygon_bounds(p for r in here for p in r.points)
    size = math.sqrt(bounds.width * bounds.height) * scale
    band = trimap(here, width, height, size, scale)
    if not (band != 0).any():
        raise CutTrouble("Nothing was cut out", "the outline encloses nothing", "draw round the sitter again")
    alpha, colours = softened(part, band, size, care, progress)
    return CutOut(np.dstack([colours, np.round(alpha * 255).astype(np.uint8)]), box, scale)


def softened(
    picture: Picture, band: Trimap, size_px: float, care: Care, progress: Progress = SILENT
) -> tuple[Alpha, Picture]:  # fmt: skip
    """Alpha (H, W) 0..1 and the sitter's own colours (H, W, 3); only tiles that the band touches are worked on. Raises `Cancelled`."""
    within, beyond = (max(2.0, share * size_px) for share in EDGE["fur"])
    sigma = max(1.5, (within + beyond) / 8)
    overlap = int(1.5 * (within + beyond)) + 16
    alpha = (band == INSIDE).astype(np.float32)
    colours = picture.copy()
    height, width = band.shape
    if care == "careful" and int((band == UNKNOWN).sum()) > _MOST_BAND_PX:
        care = "quick"
    tiles = [(x, y) for y in range(0, height, _TILE) for x in range(0, width, _TILE)]
    tiles = [(x, y) for x, y in tiles if (band[y : y + _TILE, x : x + _TILE] == UNKNOWN).any()]
    for number, (x, y) in enumerate(tiles):
        progress.at(number / len(tiles))
        top, left = max(0, y - overlap), max(0, x - overlap)
        bottom, right = min(height, y + _TILE + overlap), min(width, x + _TILE + overlap)
        part = np.ascontiguousarray(picture[top:bottom, left:right])
        here = band[top:bottom, left:right]
        light = linear_from_srgb8(part)
        found = closed_form(light, here, sigma) if care == "careful" else projected(light, here, sigma)[0]
        # Colours are estimated in codes even though alpha is found in light: dark fur divides badly in light.
        own = _own_colours(part.astype(np.float32) / 255, found, max(2, int(beyond)))
        rows, columns = slice(y - top, min(y + _TILE, height) - top), slice(x - left, min(x + _TILE, width) - left)
        alpha[y : y + _TILE, x : x + _TILE] = found[rows, columns]
        mixed = found[rows, columns] < 1
        colours[y : y + _TILE, x : x + _TILE][mixed] = np.round(own[rows, columns][mixed] * 255).astype(np.uint8)
    return alpha, colours


def _own_colours(codes: Colours, alpha: Alpha, reach: int) -> Colours:
    """The sitter's colours where they are mixed with what was behind: blur fusion (Forte 2021), two passes."""
    half = codes.shape[1] // 2, codes.shape[0] // 2
    if min(half) < 16:
        return _fused(codes, alpha, _fused(codes, alpha, (codes, codes), 4 * reach), reach)[0]
    # The wide pass is so soft that half the size does.
    small, thin = (cv2.resize(a, half, interpolation=cv2.INTER_AREA) for a in (codes, alpha))
    wide = _fused(small, thin, (small, small), 2 * reach)
    first = tuple(cv2.resize(a, (codes.shape[1], codes.shape[0]), interpolation=cv2.INTER_LINEAR) for a in wide)
    return _fused(codes, alpha, (first[0], first[1]), reach)[0]


def _fused(codes: Colours, alpha: Alpha, before: tuple[Colours, Colours], radius: int) -> tuple[Colours, Colours]:
    """Front and back colours from earlier ones, smoothed over `radius` px."""
    side = (2 * radius + 1,) * 2
    share = alpha[..., None]
    near = cv2.blur(alpha, side)[..., None]
    mean_front = cv2.blur(before[0] * share, side) / (near + 1e-4)
    mean_back = cv2.blur(before[1] * (1 - share), side) / (1 - near + 1e-4)
    front = np.clip(mean_front + share * (codes - share * mean_front - (1 - share) * mean_back), 0, 1)
    return np.asarray(front, np.float32), np.asarray(mean_back, np.float32)
