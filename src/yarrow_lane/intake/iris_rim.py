"""A drag across an iris set to its rim: left, right and lower arc must each agree with themselves.

A guess (half of the drags come within 6 %, see `docs/measures.md`): it is done on a key, said, and taken back like any change.
"""

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.intake.photos import Eye
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.raster import Picture, cut

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Plane = NDArray[np.float32]
Numbers = NDArray[np.float64]

_TURNS = np.radians(np.arange(0, 360, 6.0))
_DEGREES = np.degrees(_TURNS)
# The arcs that lids leave free, clockwise from the right in a picture; the upper one is hidden as a rule and counts least.
_RIGHT = (_DEGREES <= 42) | (_DEGREES >= 330)
_LEFT = (_DEGREES >= 138) & (_DEGREES <= 210)
_LOWER = (_DEGREES > 48) & (_DEGREES < 132)
_UPPER = (_DEGREES > 220) & (_DEGREES < 320)
_WORK_RADIUS = 36.0  # px: larger irises are reduced to this
_LEAST, _MOST = 0.78, 1.3  # of the drag's radius
_REACH = 0.25  # of the radius: how far the centre may go
_MOST_STEP = 14.0  # L*, a*, b*: a glint's or lash's edge counts no more
_GLINT = 22.0  # L* above its surroundings
_CLEAR = 1.6  # our choice: below it there is no rim to be seen


@dataclass(frozen=True)
class _Search:
    """One round: how far the centre goes (px), in how many steps, and the radii tried."""

    reach: float
    steps: int
    radii: Numbers


def snapped(picture: Picture, eye: Eye) -> Eye | None:
    """The iris's rim near a mark on a photograph (H, W, 3), upright px; None where no rim is clear."""
    height, width = picture.shape[:2]
    margin = 2.6 * eye.radius_px * _MOST
    left, top = max(0, int(eye.x - margin)), max(0, int(eye.y - margin))
    area = Rect(left, top, min(width, int(eye.x + margin) + 1) - left, min(height, int(eye.y + margin) + 1) - top)
    if min(area.width, area.height) < 8 or eye.radius_px < 3:
        return None
    k = min(1.0, _WORK_RADIUS / eye.radius_px)
    planes = _planes(cut(picture, area), eye.radius_px, k)
    x, y, radius = (eye.x - left + 0.5) * k - 0.5, (eye.y - top + 0.5) * k - 0.5, eye.radius_px * k
    began = radius
    rounds = ((_REACH, 9), (0.17, 5), (0.06, 5))
    best = 0.0
    for number, (reach, steps) in enumerate(rounds):
        span = (_LEAST, _MOST) if number == 0 else (0.8, 1.25)
        search = _Search(reach * radius, steps, np.geomspace(span[0] * radius, span[1] * radius, 34))
        x, y, radius, best = _round(planes, x, y, search, began if number == 0 else None)
    if best < _CLEAR:
        return None
    return Eye(eye.side, (x + 0.5) / k - 0.5 + left, (y + 0.5) / k - 0.5 + top, radius / k)


def _planes(part: Picture, radius: float, k: float) -> tuple[tuple[Plane, float], ...]:
    """L*, a* and b* of the part at the working size, the glint cut down to its surroundings, and the weight of each."""
    lab = cv2.cvtColor(np.ascontiguousarray(part).astype(np.float32) / 255, cv2.COLOR_RGB2LAB)
    if k < 1:
        lab = cv2.resize(lab, None, fx=k, fy=k, interpolation=cv2.INTER_AREA)
    light = lab[..., 0]
    side = 2 * max(1, int(0.22 * radius * k)) + 1
    around = cv2.medianBlur(np.clip(light * 2.5, 0, 255).astype(np.uint8), side).astype(np.float32) / 2.5
    light = np.where(light > around + _GLINT, around, light)
    blur = max(0.8, 0.05 * radius * k)
    lightness, green_red, blue_yellow = (
        np.asarray(cv2.GaussianBlur(np.ascontiguousarray(plane), (0, 0), blur), np.float32)
        for plane in (light, lab[..., 1], lab[..., 2])
    )
    return (lightness, 1.0), (green_red, 0.8), (blue_yellow, 0.8)


def _round(
    planes: tuple[tuple[Plane, float], ...], x: float, y: float, search: _Search, began: float | None
) -> tuple[float, float, float, float]:  # fmt: skip
    """The best centre and radius of one round, and its score. The first keeps near the mark and prefers the larger of equals."""
    offsets = np.linspace(-search.reach, search.reach, search.steps)
    xs, ys = (grid.ravel() for grid in np.meshgrid(x + offsets, y + offsets))
    scores = _scores(planes, xs, ys, search.radii)
    tried = search.radii[2:-2]
    if began is None:
        row, column = np.unravel_index(int(scores.argmax()), scores.shape)
    else:
        near = np.exp(-((xs - x) ** 2 + (ys - y) ** 2) / (2 * (0.6 * began) ** 2))
        scores = scores * np.exp(-((np.log(tried / began) / 0.6) ** 2) / 2)[None] * near[:, None]
        good = scores.max(axis=0) > 0.8 * scores.max()
        column = np.nonzero(good)[0].max()  # of nearly equal ones the larger: the pupil's edge lies inside
        row = scores[:, column].argmax()
    return float(xs[row]), float(ys[row]), float(tried[column]), float(scores[row, column])


def _scores(planes: tuple[tuple[Plane, float], ...], xs: Numbers, ys: Numbers, radii: Numbers) -> Numbers:
    """(centres, radii less four): how well the arcs agree that the picture changes at that radius."""
    many = len(xs)
    across = xs[:, None, None] + np.cos(_TURNS)[None, :, None] * radii[None, None]
    down = ys[:, None, None] + np.sin(_TURNS)[None, :, None] * radii[None, None]
    flat = (many * len(_TURNS), len(radii))
    arcs = np.zeros((4, many, len(radii) - 4))
    for plane, weight in planes:
        rays = cv2.remap(
            plane, across.reshape(flat).astype(np.float32), down.reshape(flat).astype(np.float32), cv2.INTER_LINEAR,
            borderMode=cv2.BORDER_REPLICATE,
        ).reshape(many, len(_TURNS), len(radii))  # fmt: skip
        change = (rays[..., 3:-1] + rays[..., 4:] - rays[..., :-4] - rays[..., 1:-3]) / 2
        change = np.clip(change * weight, -_MOST_STEP, _MOST_STEP)
        for number, arc in enumerate((_RIGHT, _LEFT, _LOWER, _UPPER)):
            part = change[:, arc]
            arcs[number] += np.abs(part.mean(axis=1)) ** 2 / (np.abs(part).mean(axis=1) + 1.0)
    right, left, lower, upper = arcs
    return np.asarray(np.sqrt((right + 0.3) * (left + 0.3)) + 0.35 * lower + 0.15 * upper)


def change_words(before: Eye, after: Eye) -> str:
    """What snapping changed, in words."""
    moved = math.hypot(after.x - before.x, after.y - before.y)
    return f"{before.across_px:.0f} px became {after.across_px:.0f} px, moved by {moved:.0f} px"
