"""Eyes, noses and mouths as areas: where across the rim the colours step most, held near what the kind leads to expect."""

from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.kinds import MOUTH_MM, eye_opening
from yarrow_lane.layers.proposing.marks import Head, Mask, SitterMarks, Vector
from yarrow_lane.layers.ways import best_way
from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Lab = NDArray[np.float32]
# Radius of the nose as a share of crown to chin, likewise.
_NOSE = {"person": 0.13, "cat": 0.075, "dog": 0.12, "rabbit": 0.04, "horse": 0.16, "bird": 0.15}
_NOSE_OTHER = 0.09
_SMALL_NOSE_PX = 15.0  # smaller ones have no rim to measure and are grown by colour


def ellipse_mask(shape: tuple[int, int], centre: Vector, across: float, down: float, degrees: float) -> Mask:
    """A filled ellipse by half axes."""
    mask = np.zeros(shape, np.uint8)
    at = (round(float(centre[0]) * 16), round(float(centre[1]) * 16))
    axes = (max(1, round(across * 16)), max(1, round(down * 16)))
    cv2.ellipse(mask, at, axes, degrees, 0, 360, 1, -1, cv2.LINE_8, 4)
    return mask > 0


def eye_mask(lab: Lab, eye: tuple[float, float, float], kind: str, tilt: float) -> Mask:
    """The opening round an iris."""
    wide, high = eye_opening(kind)
    expected = np.array([wide, high, 0, 0, tilt])
    return _oval(lab, eye, expected, np.array([0.13, 0.09, 0.12, 0.12, 7.0]))


def _oval(lab: Lab, circle: tuple[float, float, float], expected: Vector, spread: Vector) -> Mask:
    """The ellipse (half axes, shift in radii, degrees) with the strongest step across its rim; three rounds of tries, repeatable."""
    x, y, r = circle
    height, width = lab.shape[:2]
    reach = int(3 * r) + 4
    left, top = max(int(x) - reach, 0), max(int(y) - reach, 0)
    window = lab[top : min(int(y) + reach, height), left : min(int(x) + reach, width)]
    if min(window.shape[:2]) < 3:
        return ellipse_mask(lab.shape[:2], np.array([x, y]), expected[0] * r, expected[1] * r, float(expected[4]))
    soft = cv2.GaussianBlur(np.ascontiguousarray(window), (0, 0), max(0.8, r * 0.05))
    usual = float(np.linalg.norm(soft - np.median(soft.reshape(-1, 3), axis=0), axis=2).mean()) + 2
    turns = np.linspace(0, 2 * np.pi, 72, endpoint=False)
    random = np.random.default_rng(1)
    tries = expected + random.normal(size=(900, 5)) * spread
    tries[0] = expected
    best = tries[:1]
    for narrower in (0.35, 0.15, 0.0):
        turn = np.deg2rad(tries[:, 4:5])
        wide, high = tries[:, :1] * r * np.cos(turns), tries[:, 1:2] * r * np.sin(turns)
        middle = x - left + tries[:, 2:3] * r, y - top + tries[:, 3:4] * r

        def colours(
            share: float, turn: Vector = turn, wide: Vector = wide, high: Vector = high, middle: tuple[Vector, Vector] = middle
        ) -> NDArray[np.float32]:
            at_x = middle[0] + share * (wide * np.cos(turn) - high * np.sin(turn))
            at_y = middle[1] + share * (wide * np.sin(turn) + high * np.cos(turn))
            found = cv2.remap(
                soft, at_x.astype(np.float32), at_y.astype(np.float32), cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE
            )  # fmt: skip
            return np.asarray(found, np.float32)

        step = np.linalg.norm(colours(1.1) - colours(0.92), axis=2) / usual
        score = np.minimum(step, 1.2).mean(1) - 0.024 * (((tries - expected) / spread) ** 2).sum(1)
        best = tries[np.argsort(score, kind="stable")[-40:]]
        if narrower:
            near = best[random.integers(0, len(best), 600)] + random.normal(size=(600, 5)) * spread * narrower
            tries = np.vstack([best, near])
    found = best[-1]
    centre = np.array([x + found[2] * r, y + found[3] * r])
    return ellipse_mask(lab.shape[:2], centre, found[0] * r, found[1] * r, float(found[4]))


def nose_mask(lab: Lab, marks: SitterMarks, head: Head) -> Mask | None:
    """The nose or beak round its tip; None where it is not marked. People's noses are skin."""
    tip = marks.tip
    if tip is None or marks.kind == "person":
        return None
    radius = _NOSE.get(marks.kind, _NOSE_OTHER) * head.length
    if radius < _SMALL_NOSE_PX:
        return _grown(lab, tip, radius)
    expected = np.array([1.12, 0.9, 0, 0, head.tilt])
    return _oval(lab, (float(tip[0]), float(tip[1]), radius), expected, np.array([0.22, 0.18, 0.2, 0.2, 10.0]))


def _grown(lab: Lab, at: Vector, radius: float) -> Mask:
    """What is of one colour with a point, as far as the rim where colours step most, weighed by the size expected."""
    height, width = lab.shape[:2]
    reach = int(radius * 2.5) + 3
    left, top = max(int(at[0]) - reach, 0), max(int(at[1]) - reach, 0)
    window = lab[top : min(int(at[1]) + reach, height), left : min(int(at[0]) + reach, width)]
    found = np.zeros((height, width), bool)
    if min(window.shape[:2]) < 5:
        return found
    soft = cv2.GaussianBlur(np.ascontiguousarray(window), (0, 0), max(0.7, radius * 0.05))
    rows, columns = np.mgrid[: soft.shape[0], : soft.shape[1]]
    away = np.hypot(columns - (at[0] - left), rows - (at[1] - top))
    core = away <= max(1.5, radius * 0.35)
    own = np.median(soft[core], axis=0)
    unlike = np.linalg.norm((soft - own) * (0.6, 1.3, 1.3), axis=2)
    steps = np.hypot(
        np.linalg.norm(cv2.Sobel(soft, cv2.CV_32F, 1, 0), axis=2), np.linalg.norm(cv2.Sobel(soft, cv2.CV_32F, 0, 1), axis=2)
    )
    best, highest = core, -np.inf
    for limit in np.quantile(unlike[away < radius * 1.3], np.linspace(0.1, 0.98, 40)):
        count, pieces = cv2.connectedComponents(((unlike <= limit) & (away < radius * 1.8)).astype(np.uint8), connectivity=4)
        there = pieces[core]
        own_pieces = np.bincount(there[there > 0], minlength=count)
        if own_pieces.max() == 0:
            continue
        piece = cv2.morphologyEx((pieces == own_pieces.argmax()).astype(np.uint8), cv2.MORPH_CLOSE, np.ones((5, 5), np.uint8))
        size = float(np.sqrt(piece.sum() / np.pi))
        if not 0.3 * radius <= size <= 1.8 * radius:
            continue
        rim = (cv2.dilate(piece, np.ones((3, 3), np.uint8)) - cv2.erode(piece, np.ones((3, 3), np.uint8))) > 0
        score = float(np.log(steps[rim].mean() + 0.5) - 0.5 * (np.log(size / radius) / 0.45) ** 2)
        if score > highest:
            best, highest = piece > 0, score
    found[top : top + best.shape[0], left : left + best.shape[1]] = best
    return found


def mouth_mask(lab: Lab, marks: SitterMarks, head: Head, px_per_mm: float) -> Mask | None:
    """The mouth as a dark line with a width, from its corners to below the nose; None where no corner is marked."""
    corners = [p for name in ("left mouth corner", "right mouth corner") if (p := marks.point(name)) is not None]
    if not corners or marks.tip is None:
        return None
    light = cv2.GaussianBlur(np.ascontiguousarray(lab[..., 0]), (0, 0), 1.0)
    kernel = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (int(0.05 * head.length) | 1,) * 2)
    dark = cv2.morphologyEx(light, cv2.MORPH_BLACKHAT, kernel)
    below = marks.tip + (head.chin - marks.tip) * (0.35 if marks.kind != "person" else 0.4)
    width = max(2, round(MOUTH_MM * px_per_mm))
    mask = np.zeros(lab.shape[:2], np.uint8)
    if marks.kind == "person" and len(corners) == 2:
        # Lips: a spindle between the corners, as high as a third of its length (our choice).
        middle, apart = (corners[0] + corners[1]) / 2, corners[1] - corners[0]
        turn = float(np.degrees(np.arctan2(apart[1], apart[0])))
        return ellipse_mask(lab.shape[:2], middle, float(np.hypot(*apart)) / 2, float(np.hypot(*apart)) / 6, turn)
    for corner in corners:
        line = darkest_line(np.asarray(dark, np.float32), corner, below, 0.06 * head.length)
        cv2.polylines(mask, [np.rint(line).astype(np.int32)], False, (1,), width)
    return mask > 0


def darkest_line(dark: NDArray[np.float32], begin: Vector, end: Vector, reach: float) -> NDArray[np.float64]:
    """The line between two points along which `dark` is largest, within `reach` px of the straight one; one dynamic programme."""
    length = float(np.hypot(*(end - begin)))
    count, half = max(3, int(length)), max(2, int(reach))
    along = (end - begin) / max(length, 1e-6)
    side = np.array([-along[1], along[0]])
    offsets = np.arange(-half, half + 1, dtype=np.float64)
    straight = begin + np.linspace(0, 1, count)[:, None] * (end - begin)
    at = straight[:, None] + side * offsets[:, None]
    strip = cv2.remap(
        dark, at[..., 0].astype(np.float32), at[..., 1].astype(np.float32), cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE
    )  # fmt: skip
    gain = strip / (float(np.percentile(strip, 95)) + 5)
    return np.asarray(straight + side * offsets[best_way(np.asarray(gain, np.float64), half, half)][:, None], np.float64)
