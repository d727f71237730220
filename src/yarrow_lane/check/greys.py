"""The grey frame: groups of three grey steps on strips of paper laid all round the canvas, and what a photograph shows of them.

The steps tell the camera's tone curve (differences within a group, where the light is one), their places how the light lies.
"""

from dataclasses import dataclass, replace
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.canvas_photo.straight import Straight
from yarrow_lane.measure.colour.cielab import linear_from_lab
from yarrow_lane.measure.colour.srgb import linear_from_srgb8
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

STEPS = (25.0, 50.0, 87.0)  # L* of a group's steps: our choice, a black and a white that paper and printers reach
SQUARE_MM = 12.0
# A band of one strong colour next to the canvas, which hardly any painting has at its edge: that edge is then the only one near, and seen
# against darks and lights alike (measured: bare paper there caught the fit, a black band lost dark backgrounds).
BAND_MM = 7.0
BAND_SRGB = (205, 30, 130)
GAP_MM = BAND_MM + 1.0  # between canvas and squares
STRIP_MM = GAP_MM + SQUARE_MM + 5.0  # the width of a strip
# Where the groups' middles lie, shares of a side; ten of them: six beside, four above and beneath (measured: fewer leave more hidden). A side
# that is too short for three or two has fewer.
_BESIDE, _ABOVE, _ALONE = (0.1, 0.5, 0.9), (0.25, 0.75), (0.5,)
_LEAST_APART_MM = 3 * SQUARE_MM + 2
_ENOUGH = 0.7  # of the groups, for broad statements: our choice
_SAMPLED = 0.45  # of a square's sides: strips are laid by hand
_SAMPLES = 14  # a side
_LEAST_STEP = 0.5  # ln: between two steps a camera leaves at least so much
_MOST_SPREAD, _MOST_TINT = 0.12, 0.25  # ln: within a square, and of its colour against the other groups'
_CLIPPED = 0.985
_CURVE_PRIOR = 0.02
_MID = 0.18


@dataclass(frozen=True)
class Group:
    """Three squares in canvas mm, dark to light, and the side they lie on."""

    side: str
    squares: tuple[Rect, Rect, Rect]


def groups_round(size_mm: tuple[float, float]) -> tuple[Group, ...]:
    """The groups of a canvas of that size: ten, fewer where a side is short."""
    width, height = size_mm
    before = -GAP_MM - SQUARE_MM
    found = []
    for share in _shares(_BESIDE, height):
        for side, x in (("left", before), ("right", width + GAP_MM)):
            found.append(_group(side, (x, share * height - 1.5 * SQUARE_MM), (0.0, SQUARE_MM)))
    for share in _shares(_ABOVE, width):
        for side, y in (("top", before), ("bottom", height + GAP_MM)):
            found.append(_group(side, (share * width - 1.5 * SQUARE_MM, y), (SQUARE_MM, 0.0)))
    return tuple(found)


def _shares(wished: tuple[float, ...], length: float) -> tuple[float, ...]:
    """As many of a side as do not run into each other."""
    some = [s for s in (wished, _ABOVE, _ALONE) if len(s) <= len(wished)]
    return next(s for s in some if len(s) == 1 or (s[1] - s[0]) * length >= _LEAST_APART_MM)


def _group(side: str, first: Point, step: Point) -> Group:
    one, two, three = (Rect(first[0] + n * step[0], first[1] + n * step[1], SQUARE_MM, SQUARE_MM) for n in range(3))
    return Group(side, (one, two, three))


def luminance_of_steps() -> NDArray[np.float64]:
    """Their luminance, 0 to 1."""
    return linear_from_lab(np.array([[s, 0.0, 0.0] for s in STEPS]))[:, 1]


@dataclass(frozen=True, eq=False)
class Greys:
    """`at` (n, 2) canvas mm, the light the camera had of them (n, 3) and their luminance (n,), by group (n,); `sides` they lie on, and
    of how many groups they are.
    """

    at: NDArray[np.float64]
    light: NDArray[np.float64]
    true: NDArray[np.float64]
    group: NDArray[np.int64]
    sides: tuple[str, ...]
    of: int = 10

    @property
    def groups(self) -> int:
        """How many were read."""
        return len(self.sides)

    @property
    def all_round(self) -> bool:
        """Whether they hold the light on every side: enough for broad statements."""
        return len(set(self.sides)) == 4 and self.groups >= _ENOUGH * self.of

    def undone(self, curve: "Curve") -> "Greys":
        """With the camera's curve taken out."""
        return replace(self, light=curve.undone(self.light).astype(np.float64))


def read_greys(picture: Picture, straight: Straight) -> Greys | None:
    """The groups that are seen and can be believed; None where there are none. What is covered, burnt out or shone on is left out."""
    groups = groups_round((straight.width_mm, straight.height_mm))
    read = [_read(picture, straight, g) for g in groups]
    seen = [(g, values) for g, values in zip(groups, read, strict=True) if values is not None]
    if not seen:
        return None
    tint = np.array([np.log(values[1] / values[1].mean()) for _, values in seen])
    usual = np.median(tint, 0)
    kept = [pair for pair, own in zip(seen, tint, strict=True) if np.abs(own - usual).max() < _MOST_TINT]
    if not kept:
        return None
    true = luminance_of_steps()
    return Greys(
        np.array([s.centre for g, _ in kept for s in g.squares]), np.concatenate([v for _, v in kept]),
        np.tile(true, len(kept)), np.repeat(np.arange(len(kept)), len(STEPS)), tuple(g.side for g, _ in kept), len(groups),
    )  # fmt: skip


def _read(picture: Picture, straight: Straight, group: Group) -> NDArray[np.float64] | None:
    """Linear light of a group's steps (3, 3), or None."""
    height, width = picture.shape[:2]
    found: list[NDArray[np.float64]] = []
    for square in group.squares:
        half = SQUARE_MM * _SAMPLED / 2
        x, y = np.meshgrid(*(np.linspace(-half, half, _SAMPLES) + c for c in square.centre))
        at = straight.px(np.stack([x.ravel(), y.ravel()], 1))
        if at.min() < 1 or at[:, 0].max() > width - 2 or at[:, 1].max() > height - 2:
            return None
        places = (at - 0.5).astype(np.float32)
        seen = cv2.remap(picture, places[:, :1], places[:, 1:], cv2.INTER_LINEAR).reshape(_SAMPLES, _SAMPLES, 3)
        # Means of nine: the sensor's noise is not the square's.
        light = cv2.blur(linear_from_srgb8(np.ascontiguousarray(seen)), (3, 3)).reshape(-1, 3).astype(np.float64) + 1e-4
        middle = np.median(light, 0)
        if np.quantile(np.abs(np.log(light[:, 1] / middle[1])), 0.8) > _MOST_SPREAD * (2.0 if not found else 1.0):
            return None  # not one grey: something lies over it (darks are noisier)
        found.append(middle)
    values = np.array(found)
    if (values[2] > _CLIPPED).any() or (np.diff(np.log(values[:, 1])) < _LEAST_STEP).any():
        return None
    return values


@dataclass(frozen=True)
class Curve:
    """What undoes the camera's curve: ln(light / 0.18) becomes u + a u + b u²; straight for a camera that bends nothing."""

    a: float = 0.0
    b: float = 0.0

    def undone(self, light: NDArray[Any]) -> NDArray[np.float32]:
        """Light of a photograph, any shape, as it fell on the camera."""
        u = np.log(np.maximum(np.asarray(light, np.float32), np.float32(7e-4)) / np.float32(_MID))
        return np.asarray(np.exp(u * np.float32(1 + self.a) + np.float32(self.b) * u * u) * np.float32(_MID), np.float32)


def curve_of(greys: Greys | None) -> Curve:
    """From differences within each group: how the light lies does not matter."""
    if greys is None:
        return Curve()
    rows, wanted = [], []
    u, true = np.log(np.maximum(greys.light, 7e-4) / _MID), np.log(greys.true)
    for group in range(greys.groups):
        own = np.flatnonzero(greys.group == group)
        for n in own[1:]:
            for channel in range(3):
                one, two = u[own[0], channel], u[n, channel]
                rows.append((two - one, two**2 - one**2))
                wanted.append(true[n] - true[own[0]] - (two - one))
    terms, rest = np.array(rows), np.array(wanted)
    a, b = np.linalg.solve(terms.T @ terms + np.eye(2) * _CURVE_PRIOR, terms.T @ rest)
    return Curve(float(a), float(b))
