"""Head, ears and body of an animal, and where the sitter ends when nothing was cut out."""

from collections.abc import Mapping
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.proposing.marks import Head, Mask, SitterMarks, Vector
from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_FLAT = 3.0  # sRGB codes of spread under which a picture has no colours to sort by (our choice)
_ROUND_EYE = 6.0  # iris radii about an eye that are likely the sitter (our choice)
_CUT_PX = 256  # our choice: the longer side at which a sitter is guessed out of its surroundings


def hull_of(points: NDArray[np.float64], shape: tuple[int, int]) -> Mask:
    """What the points enclose."""
    mask = np.zeros(shape, np.uint8)
    cv2.fillConvexPoly(mask, cv2.convexHull(points.astype(np.float32)).astype(np.int32), (1,))
    return mask > 0


def head_mask(marks: SitterMarks, head: Head, shape: tuple[int, int]) -> Mask:
    """The skull as a ball, wider in cats, with the hull of the face."""
    turns = np.linspace(0, 2 * np.pi, 60)[:, None]
    wide, lower = (1.22, 0.2) if marks.kind == "cat" else (1.0, 0.0)
    ball = head.skull + head.radius * (np.cos(turns) * head.across * wide + (np.sin(turns) - lower) * head.up)
    return hull_of(np.vstack([head.face, ball]), shape)


def ear_tips(marks: SitterMarks) -> dict[str, Vector]:
    """Marked tips of ears by the viewer's side."""
    found = {side: marks.point(f"{side} ear tip") for side in ("left", "right")}
    return {side: tip for side, tip in found.items() if tip is not None}


def ears_of(marks: SitterMarks, head: Head, sitter: Mask, face: Mask) -> dict[str, Mask]:
    """Each ear by the viewer's side: standing, what lies beyond a chord of the skull; hanging, from the skull's shoulder to the tip."""
    tips = ear_tips(marks)
    found = {side: _ear(tip, head, sitter, face) for side, tip in tips.items()}
    if len(found) == 2 and (found["left"] & found["right"]).any():
        axes = {side: _from_axis(tips[side], head, sitter.shape) for side in found}
        nearer = axes["left"] <= axes["right"]
        found = {"left": found["left"] & (nearer | ~found["right"]), "right": found["right"] & (~nearer | ~found["left"])}
    return found


def _from_axis(tip: Vector, head: Head, shape: tuple[int, ...]) -> NDArray[np.float32]:
    line = np.ones(shape, np.uint8)
    middle = tip + (head.skull - tip) * 0.5
    cv2.line(line, _px(tip), _px(middle), (0,), 1)
    return np.asarray(cv2.distanceTransform(line, cv2.DIST_L2, 3), np.float32)


def _px(point: Vector) -> tuple[int, int]:
    return round(float(point[0])), round(float(point[1]))


def _ear(tip: Vector, head: Head, sitter: Mask, face: Mask) -> Mask:
    if (tip - head.skull) @ head.up > 0.3 * head.length:
        along = (tip - head.skull) / max(1e-6, float(np.hypot(*(tip - head.skull))))
        rows, columns = np.mgrid[: sitter.shape[0], : sitter.shape[1]].astype(np.float32)
        out = (columns - head.skull[0]) * along[0] + (rows - head.skull[1]) * along[1]
        off = np.abs((rows - head.skull[1]) * along[0] - (columns - head.skull[0]) * along[1])
        beyond = sitter & (out > head.radius) & (off < 0.34 * head.length)
        return _piece_at(beyond, tip)
    side = 1.0 if (tip - head.skull) @ head.across >= 0 else -1.0
    base = head.skull + head.radius * (0.77 * side * head.across + 0.64 * head.up)
    line = np.zeros(sitter.shape, np.uint8)
    cv2.line(line, _px(tip), _px(base), (1,), max(3, int(0.2 * head.length)))
    return (line > 0) & sitter & ~face


def _piece_at(mask: Mask, point: Vector) -> Mask:
    """The piece nearest to a point; nothing of nothing."""
    places = np.argwhere(mask)
    if not len(places):
        return mask
    _, pieces = cv2.connectedComponents(mask.astype(np.uint8))
    y, x = places[np.hypot(places[:, 1] - point[0], places[:, 0] - point[1]).argmin()]
    return np.asarray(pieces == pieces[y, x])


def split_head(marks: SitterMarks, head: Head, sitter: Mask, parts: Mapping[str, Mask]) -> tuple[Mask, Mask]:
    """Head and body of what is left of the sitter without ears."""
    whole = head_mask(marks, head, sitter.shape[:2])
    away = cv2.distanceTransform((~whole).astype(np.uint8), cv2.DIST_L2, 5)
    rows, columns = np.mgrid[: sitter.shape[0], : sitter.shape[1]].astype(np.float32)
    above = (columns - head.skull[0]) * head.up[0] + (rows - head.skull[1]) * head.up[1]
    near = (away < 0.11 * head.length) | ((above > -0.1 * head.length) & (away < 0.25 * head.length))
    rest = sitter.copy()
    for ear in parts.values():
        rest &= ~ear
    of_head = rest & near
    count, pieces, stats, _ = cv2.connectedComponentsWithStats(of_head.astype(np.uint8))
    if count > 2:  # what an ear cut from the head belongs to the body
        largest = stats[1:, 4].max()
        for n in range(1, count):
            if stats[n, 4] < 0.2 * largest:
                of_head = of_head & (pieces != n)
    return of_head, rest & ~of_head


def guessed_sitter(bgr: NDArray[np.uint8], marks: SitterMarks, head: Head) -> Mask:
    """Where the sitter may lie when nothing was cut out: head, ears and the column below against the rest, by colour. A rough guess."""
    height, width = bgr.shape[:2]
    shrink = _CUT_PX / max(height, width)
    small: Any = cv2.resize(bgr, None, fx=shrink, fy=shrink, interpolation=cv2.INTER_AREA)
    shape: tuple[int, int] = small.shape[:2]
    length = head.length * shrink
    whole: Any = cv2.resize(
        head_mask(marks, head, (height, width)).astype(np.uint8), shape[::-1], interpolation=cv2.INTER_NEAREST
    )
    ears = np.zeros_like(whole)
    for tip in ear_tips(marks).values():
        cv2.line(ears, _px(tip * shrink), _px(head.skull * shrink), (1,), max(1, int(length * 0.06)))

    def wider(mask: NDArray[np.uint8], share: float) -> NDArray[np.uint8]:
        kernel = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (int(length * share) | 1,) * 2)
        return np.asarray(cv2.dilate(mask, kernel), np.uint8)

    guess: Any = np.full(shape, cv2.GC_BGD, np.uint8)
    guess[wider(whole | ears, 0.5) > 0] = cv2.GC_PR_BGD
    below = int(np.clip(head.chin[1] * shrink, 0, shape[0]))
    guess[below:, wider(whole, 1.4).any(0)] = cv2.GC_PR_BGD
    guess[below:, wider(whole, 0.1).any(0)] = cv2.GC_PR_FGD
    guess[wider(whole, 0.12) > 0] = cv2.GC_PR_FGD
    kernel = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (int(length * 0.2) | 1,) * 2)
    guess[cv2.erode(whole, kernel) > 0] = cv2.GC_FGD
    guess[ears > 0] = cv2.GC_FGD
    return _cut_out(small, guess, (height, width))


def guessed_round_eyes(bgr: NDArray[np.uint8], marks: SitterMarks) -> Mask:
    """The same where hardly more than an eye is known: the sitter is what is like its surroundings and unlike the canvas's rim."""
    height, width = bgr.shape[:2]
    shrink = _CUT_PX / max(height, width)
    small: Any = cv2.resize(bgr, None, fx=shrink, fy=shrink, interpolation=cv2.INTER_AREA)
    rows, columns = small.shape[:2]
    guess: Any = np.full((rows, columns), cv2.GC_PR_BGD, np.uint8)
    cv2.ellipse(guess, (columns // 2, rows // 2), (round(columns * 0.36), round(rows * 0.42)), 0, 0, 360, (cv2.GC_PR_FGD,), -1)
    for x, y, r in marks.eyes.values():
        at = round(x * shrink), round(y * shrink)
        cv2.circle(guess, at, max(2, round(r * shrink * _ROUND_EYE)), (cv2.GC_PR_FGD,), -1)
        cv2.circle(guess, at, max(1, round(r * shrink * 2)), (cv2.GC_FGD,), -1)
    rim = max(1, round(0.03 * min(rows, columns)))
    guess[:rim], guess[:, :rim], guess[:, -rim:] = cv2.GC_BGD, cv2.GC_BGD, cv2.GC_BGD
    return _cut_out(small, guess, (height, width))


def _cut_out(small: Any, guess: Any, shape: tuple[int, int]) -> Mask:
    """The largest piece that grabCut finds (Rother, Kolmogorov, Blake, 2004), at full size."""
    height, width = shape
    if small.std(axis=(0, 1)).max() < _FLAT:  # nothing tells it from the rest, and grabCut would look for long
        likely = np.isin(guess, (cv2.GC_FGD, cv2.GC_PR_FGD)).astype(np.uint8)
        return np.asarray(cv2.resize(likely, (width, height), interpolation=cv2.INTER_NEAREST) > 0)
    back, front = np.zeros((1, 65)), np.zeros((1, 65))
    cv2.setRNGSeed(3)
    nowhere: Any = None
    cv2.grabCut(small, guess, nowhere, back, front, 4, cv2.GC_INIT_WITH_MASK)
    mask: Any = np.isin(guess, (cv2.GC_FGD, cv2.GC_PR_FGD)).astype(np.uint8)
    count, pieces, stats, _ = cv2.connectedComponentsWithStats(mask)
    if count > 1:
        mask = (pieces == 1 + stats[1:, 4].argmax()).astype(np.uint8)
    mask = cv2.morphologyEx(cv2.medianBlur(mask, 5), cv2.MORPH_CLOSE, np.ones((7, 7), np.uint8))
    return np.asarray(cv2.resize(mask.astype(np.float32), (width, height), interpolation=cv2.INTER_LINEAR) > 0.5)
