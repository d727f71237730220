"""One eye is marked: where the other one may be. A guess to be looked at, never a mark by itself."""

import math
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.intake.dark_discs import Disc, Light, dark_discs
from yarrow_lane.intake.photos import Eye, Photo, Side
from yarrow_lane.measure.colour.cielab import lightness_from_srgb8
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.raster import Picture, cut, resample

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_WORK_PX = 480  # the window searched is reduced to this: our choice
_REACH = 24.0  # radii to each side, 0.7 of it above and below
_RADII = (0.4, 0.6, 0.8, 1.0, 1.25)  # of the marked iris: a far eye is smaller
_MOST = 60
_LEAST_APART, _MOST_APART, _MOST_TILT = 1.2, 11.0, 32.0  # eye distance in iris diameters; degrees
_PATCH = 33
_LEAST_LIKENESS = 0.15  # our choice: below it nothing is offered


def other_side(side: Side) -> Side:
    """The other eye of a pair."""
    return "right" if side == "left" else "left"


def lone_eye(photo: Photo) -> Eye | None:
    """The one eye that is marked; None while none or both are."""
    return photo.eyes[0] if len(photo.eyes) == 1 else None


def partner_of(picture: Picture, eye: Eye) -> Eye | None:
    """The likeliest other eye of a photograph (H, W, 3) in which one is marked, upright px; None when nothing is like it."""
    window, scale, light = _window(picture, eye)
    if light is None:
        return None
    marked = Disc((eye.x - window.x) / scale, (eye.y - window.y) / scale, eye.radius_px / scale, 0.0)
    radii = tuple(sorted({max(2, round(marked.radius * share)) for share in _RADII}))
    towards = 1 if eye.side == "left" else -1
    found = (d for d in dark_discs(light, radii, _MOST) if towards * (d.x - marked.x) > 0)
    ranked = [(value, disc) for disc in found if (value := _worth(light, marked, disc)) is not None]
    if not ranked:
        return None
    _, best = max(ranked, key=lambda pair: pair[0])
    # Its radius is often the pupil's: the marked iris is the better guess of a size.
    return Eye(other_side(eye.side), window.x + best.x * scale, window.y + best.y * scale, eye.radius_px)


def _window(picture: Picture, eye: Eye) -> tuple[Rect, float, Light | None]:
    """The part searched, in photograph px, photograph px for each px of it, and its lightness."""
    height, width = picture.shape[:2]
    reach = _REACH * eye.radius_px
    left, top = max(0, int(eye.x - reach)), max(0, int(eye.y - 0.7 * reach))
    right, bottom = min(width, int(eye.x + reach)), min(height, int(eye.y + 0.7 * reach))
    window = Rect(left, top, right - left, bottom - top)
    if window.width < 16 or window.height < 16:
        return window, 1.0, None
    part = cut(picture, window)
    scale = max(1.0, max(window.width, window.height) / _WORK_PX)
    if scale > 1:
        part = resample(part, round(window.width / scale), round(window.height / scale))
    return window, scale, lightness_from_srgb8(part)


def _worth(light: Light, marked: Disc, disc: Disc) -> float | None:
    """How likely a disc is the partner, as a logarithm: its own score, distance, tilt, size and mirrored likeness."""
    dx, dy = disc.x - marked.x, disc.y - marked.y
    apart, tilt = math.hypot(dx, dy) / (2 * marked.radius), math.degrees(math.atan2(abs(dy), abs(dx)))
    if not _LEAST_APART < apart < _MOST_APART or tilt > _MOST_TILT:
        return None
    like = _likeness(light, marked, disc)
    if like < _LEAST_LIKENESS:
        return None
    return (
        1.2 * math.log(disc.score)
        - (math.log(apart / 3.8) / 0.8) ** 2 / 2
        - (tilt / 14) ** 2 / 2
        - (math.log(disc.radius / marked.radius) / 0.6) ** 2 / 2
        + 1.6 * math.log(0.15 + like)
    )


def _likeness(light: Light, marked: Disc, disc: Disc) -> float:
    """How like it looks to the marked eye mirrored, -1 to 1, at the best of a few small shifts and sizes."""
    mirrored = _patch(light, marked.x, marked.y, marked.radius)[:, ::-1]
    shifts = [(dx * marked.radius, dy * marked.radius) for dx in (-0.3, 0, 0.3) for dy in (-0.3, 0, 0.3)]
    sizes = [(dx, dy, marked.radius * f) for dx, dy in shifts for f in (0.85, 1.0)]
    return max(float((mirrored * _patch(light, disc.x + dx, disc.y + dy, r)).sum()) for dx, dy, r in sizes)


def _patch(light: Light, x: float, y: float, radius: float) -> NDArray[np.float32]:
    """A square of 4.4 radii round a place, of one size, its mean taken off and its contrast evened."""
    half = _PATCH // 2
    k = half / (2.2 * radius)
    move = np.array([[k, 0, half - x * k], [0, k, half - y * k]], np.float32)
    patch = cv2.warpAffine(light, move, (_PATCH, _PATCH), borderMode=cv2.BORDER_REPLICATE)
    patch = cv2.GaussianBlur(patch, (0, 0), 1.2)
    patch = patch - patch.mean()
    return np.asarray(patch / (np.linalg.norm(patch) + 20), np.float32)
