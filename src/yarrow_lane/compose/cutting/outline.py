"""A mask as smooth closed lines through few points, and back: the line is what is kept, soft edges are derived from it.

The line is a closed centripetal Catmull-Rom curve (Catmull and Rom 1974; centripetal: Yuksel, Schaefer and Keyser 2011).
"""

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.compose.cutting.evidence import blurred
from yarrow_lane.measure.late import late
from yarrow_lane.measure.outlines import shape_of
from yarrow_lane.measure.plane import Point, Polygon

if TYPE_CHECKING:
    import cv2
    import shapely
    from scipy import spatial

    from yarrow_lane.compose.cutting.cut import Found
else:
    cv2, spatial, shapely = late("cv2"), late("scipy.spatial"), late("shapely")

Points = NDArray[Any]  # float64 (n, 2)
TOLERANCE_MM = 1.0  # on the canvas: our choice, 88 to 244 points hold 99.4 % of a sitter's area


def curve(points: Sequence[Point] | Points, samples: int = 8) -> Points:
    """The closed line through the points, `samples` to a span, (n, 2); the points themselves when there are fewer than three."""
    p = np.asarray(points, float).reshape(-1, 2)
    if len(p) < 3:
        return p
    before, start, end, after = np.roll(p, 1, 0), p, np.roll(p, -1, 0), np.roll(p, -2, 0)

    def apart(one: Points, other: Points) -> Points:
        return np.sqrt(np.maximum(np.linalg.norm(one - other, axis=1), 1e-9))[:, None]

    first, span, last = apart(before, start), apart(start, end), apart(end, after)
    middle = (end - start) / span
    leave = span * ((start - before) / first - (end - before) / (first + span) + middle)
    arrive = span * (middle - (after - start) / (span + last) + (after - end) / last)
    s = (np.arange(samples) / samples)[None, :, None]
    found = (
        (2 * s**3 - 3 * s**2 + 1) * start[:, None]
        + (s**3 - 2 * s**2 + s) * leave[:, None]
        + (3 * s**2 - 2 * s**3) * end[:, None]
        + (s**3 - s**2) * arrive[:, None]
    )
    return np.asarray(found.reshape(-1, 2))


def filled(rings: Sequence[Sequence[Point] | Points], width: int, height: int, scale: float = 1.0) -> NDArray[Any]:
    """The mask (height, width) 0 or 1 of the px whose middle the rings enclose (even-odd), their px times `scale`."""
    mask = np.zeros((height, width), np.uint8)
    lines = [curve(r) * scale - 0.5 for r in rings if len(r) >= 3]  # a px's middle lies half a px from its corner
    if not lines:
        return mask
    corners = [np.round(line * 16).astype(np.int32) for line in lines]
    cv2.fillPoly(mask, corners, 1, cv2.LINE_8, 4)
    # It fills every px the line touches: on the line each is asked for its middle.
    touched = np.zeros_like(mask)
    cv2.polylines(touched, [c.reshape(-1, 1, 2) for c in corners], True, 1, 1, cv2.LINE_8, 4)
    ys, xs = np.nonzero(touched)
    inside = np.zeros(len(ys), bool)
    for line in lines:
        shape = shape_of([(float(x), float(y)) for x, y in line])
        shapely.prepare(shape)
        inside ^= shapely.contains_xy(shape, xs, ys)
    mask[ys, xs] = inside
    return mask


def traced(mask: NDArray[Any], tolerance_px: float, scale: float = 1.0, at: Point = (0.0, 0.0)) -> tuple[Polygon, ...]:
    """The rings of a mask (H, W) 0 or 1, the largest first, within `tolerance_px` of its smoothed border, in px of the photograph.

    The mask shows the part of the photograph from `at` on at `scale`; `tolerance_px` is in px of the mask. A line that would cross
    itself is drawn coarser; specks smaller than three tolerances across are no piece and no hole.
    """
    found = []
    borders = [(abs(cv2.contourArea(b.astype(np.float32))), b) for b in _borders(mask, 0.6 * tolerance_px)]
    for area, border in sorted(borders, key=lambda b: -b[0]):
        if area < (3 * tolerance_px) ** 2:
            continue
        for times in (1.0, 2.0, 4.0):
            points = _fewest(border, tolerance_px * times)
            if not crosses_itself(points):
                break
        whole = (points + 0.5) / scale + np.asarray(at)
        found.append(tuple((round(float(x), 1), round(float(y), 1)) for x, y in whole))
    return tuple(found)


def outlined(found: "Found", tolerance_share: float = 0.002) -> tuple[Polygon, ...]:
    """The lines of what a cut found, within a share of the photograph's part that was looked at: 1 mm of a sitter of 50 cm."""
    tolerance = max(1.0, tolerance_share * max(found.mask.shape))
    return traced(found.mask, tolerance, found.scale, (found.box.x, found.box.y))


def _borders(mask: NDArray[Any], smooth: float) -> list[Points]:
    """Border lines to a fraction of a pixel, of pieces and holes of more than a few pixels.

    Where the mask runs along the picture's edge the line does too.
    """
    pad = int(3 * smooth) + 3
    wide = cv2.copyMakeBorder(mask.astype(np.float32), pad, pad, pad, pad, cv2.BORDER_REPLICATE)
    soft = blurred(wide, smooth) if smooth > 0.4 else wide
    inner = np.zeros_like(soft)
    inner[pad:-pad, pad:-pad] = soft[pad:-pad, pad:-pad]
    found = []
    for line in cv2.findContours((inner > 0.5).astype(np.uint8), cv2.RETR_CCOMP, cv2.CHAIN_APPROX_NONE)[0]:
        if len(line) < 8 or abs(cv2.contourArea(line)) < 12:
            continue
        at = line[:, 0].astype(float)
        x, y = line[:, 0, 0], line[:, 0, 1]
        gx, gy = (soft[y, x + 1] - soft[y, x - 1]) / 2, (soft[y + 1, x] - soft[y - 1, x]) / 2
        steps = np.clip((0.5 - soft[y, x]) / np.maximum(gx * gx + gy * gy, 1e-4), -3, 3)
        moved = at + np.clip(np.stack([gx * steps, gy * steps], 1), -1, 1)
        # Along the picture's edge there is no border to be found: the line stays on the edge.
        height, width = soft.shape
        for axis, low, high in ((0, pad, width - pad - 1), (1, pad, height - pad - 1)):
            moved[at[:, axis] <= low, axis] = low - 0.5
            moved[at[:, axis] >= high, axis] = high + 0.5
        found.append(moved - pad)
    return found


def _fewest(line: Points, tolerance: float) -> Points:
    """Points of the line whose curve lies within `tolerance` of it: Douglas-Peucker's first, more where it strays."""
    count = len(line)
    coarse = cv2.approxPolyDP(np.round(line * 8).astype(np.int32)[:, None], tolerance * 1.6 * 8, True)[:, 0] / 8
    chosen = set(spatial.cKDTree(line).query(coarse)[1].tolist())
    if len(chosen) < 4:
        chosen = set(np.linspace(0, count - 1, 6).astype(int).tolist())
    for _ in range(12):
        order = sorted(chosen)
        drawn = curve(line[order], 10)
        added = set()
        for k, begin in enumerate(order):
            end = order[k + 1] if k + 1 < len(order) else order[0] + count
            if end - begin < 4:
                continue
            stretch = line[np.arange(begin, end) % count]
            span = drawn[np.arange(k * 10, (k + 1) * 10 + 1) % len(drawn)]
            away = _away(stretch, span)
            worst = int(np.argmax(away))
            if away[worst] > tolerance:
                added.add((begin + worst) % count)
        if not added:
            break
        chosen |= added
    return line[sorted(chosen)]


def _away(points: Points, path: Points) -> Points:
    """How far each point lies from a path of straight pieces."""
    begin, along = path[:-1], np.diff(path, axis=0)
    share = ((points[:, None] - begin) * along).sum(-1) / np.maximum((along * along).sum(-1), 1e-9)
    nearest = begin + np.clip(share, 0, 1)[..., None] * along
    return np.asarray(np.linalg.norm(points[:, None] - nearest, axis=-1).min(1))


def crosses_itself(points: Sequence[Point] | Points) -> bool:
    """Whether the closed curve through the points runs over itself."""
    line = curve(points, 4)
    return len(line) >= 4 and not bool(shapely.is_simple(shapely.linearrings(line)))


def drag(points: Polygon, place: int, to: Point, reach: float = 0.0) -> Polygon:
    """The point moved; its neighbours within `reach` px along the line follow, less and less (raised cosine)."""
    at = np.asarray(points, float)
    count = len(at)
    weight = np.zeros(count)
    weight[place] = 1
    for way in (1, -1):
        gone = 0.0
        for step in range(1, count // 2):
            one, two = (place + way * (step - 1)) % count, (place + way * step) % count
            gone += float(np.linalg.norm(at[two] - at[one]))
            if gone >= reach:
                break
            weight[two] = max(weight[two], 0.5 + 0.5 * np.cos(np.pi * gone / reach))
    moved = at + weight[:, None] * (np.asarray(to) - at[place])
    return tuple((float(x), float(y)) for x, y in moved)
