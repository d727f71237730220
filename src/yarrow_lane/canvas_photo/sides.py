"""The four sides of the canvas found to parts of a pixel, near where the painter set its corners.

A stretched canvas shows two edges at each side, its face and its depth: every step of colour along a profile across the side is a
candidate, bowed lines are voted for, and votes fall off with the distance from the line that was set. Taking the strongest step
instead was several mm wrong in a third of the cases tried.
"""

from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Points = NDArray[np.float64]
_PROFILES, _TRIES = 60, 220
_STEP = 0.5  # px along a profile
_HALF = 2.0  # px of both sides that are compared
_LEAST_STEP, _OF_STRONGEST = 1.5, 0.25  # colour difference of a candidate, and against the strongest of its profile
_NEAR = 0.7  # px from the line: it supports it
_LEAST = 15  # candidates: fewer are no side
_AGAIN = 2.5  # px of search about the line of the first round
_NEARLY = 0.5  # of the most votes: another line that may be the side, our choice
GOOD_SHARE = 0.63  # of the profiles: below it the side deserves a look


@dataclass(frozen=True)
class Side:
    """`points` (n, 2) px on the side, and the share of profiles that support it; too few points are no side."""

    points: Points
    share: float

    @property
    def found(self) -> bool:
        return len(self.points) >= _LEAST


def colours_of(picture: NDArray[Any]) -> NDArray[Any]:
    """CIELAB, slightly smoothed, (H, W, 3): what the sides are looked for in."""
    soft = cv2.GaussianBlur(picture, (0, 0), 1.2)
    return np.asarray(cv2.cvtColor(soft.astype(np.float32) / 255, cv2.COLOR_RGB2Lab))


def found_sides(lab: NDArray[Any], corners: Points, reach: float, doubt: float) -> tuple[Points, tuple[Side, ...]]:
    """The corners (4, 2) as the sides meet, and the sides, from corners set by hand with `doubt` px; sides are looked for within
    `reach` px of them. Corners run from the top left, clockwise.
    """
    now = np.asarray(corners, np.float64).copy()
    bows = [0.0] * 4
    sides = [Side(np.zeros((0, 2)), 0.0)] * 4
    for again in (False, True):
        search = _AGAIN if again else reach
        sides = [_side(lab, now[n], now[(n + 1) % 4], search, bows[n], doubt, n) for n in range(4)]
        now = _met(now, sides, reach)
        bows = [_bow(sides[n], now[n], now[(n + 1) % 4]) for n in range(4)]
    return now, tuple(sides)


def _side(
    lab: NDArray[Any], one: Points, other: Points, reach: float, bow: float, doubt: float, seed: int
) -> Side:  # fmt: skip
    base, across, offsets, steps = _profiles(lab, one, other, reach, bow)
    count = len(base)
    inner = steps[:, 1:-1]
    peak = (inner >= steps[:, :-2]) & (inner > steps[:, 2:])
    peak &= (inner > _LEAST_STEP) & (inner > _OF_STRONGEST * inner.max(1, keepdims=True))
    row, place = np.nonzero(peak)
    place = place + 1
    if len(row) < _LEAST:
        return Side(np.zeros((0, 2)), 0.0)
    before, here, after = steps[row, place - 1], steps[row, place], steps[row, place + 1]
    between = np.clip((before - after) / np.minimum(before - 2 * here + after, -1e-6), -1, 1)
    offset = offsets[place] + _STEP / 2 * between
    along = np.linspace(-1, 1, count)
    terms = np.stack([np.ones(count), along, along**2], 1)[row]
    best = _voted(
        terms, offset, row, along, np.minimum(here / np.median(here), 1.5) ** 0.5, np.hypot(*(other - one)), doubt, seed
    )
    if best is None:
        return Side(np.zeros((0, 2)), 0.0)
    near = np.abs(terms @ best - offset) < _NEAR
    if near.sum() >= 3:
        best = np.linalg.lstsq(terms[near], offset[near], rcond=None)[0]
        near = np.abs(terms @ best - offset) < _NEAR
    return Side((base[row] + offset[:, None] * across)[near], len(set(row[near].tolist())) / count)


def _profiles(
    lab: NDArray[Any], one: Points, other: Points, reach: float, bow: float
) -> tuple[Points, Points, NDArray[np.float64], NDArray[np.float32]]:
    """Places along the side, the way across, offsets along a profile, and the step of colour at each (profiles, offsets)."""
    along = np.linspace(0.04, 0.96, _PROFILES)
    way = (other - one) / np.hypot(*(other - one))
    across = np.array([-way[1], way[0]])
    base = one + along[:, None] * (other - one) + (bow * 4 * along * (1 - along))[:, None] * across
    offsets = np.arange(-reach - _HALF, reach + _HALF + 0.01, _STEP)
    places = (base[:, None] + offsets[None, :, None] * across - 0.5).astype(np.float32)
    seen = cv2.remap(lab, places[..., 0], places[..., 1], cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
    half = int(_HALF / _STEP)
    run = np.cumsum(np.concatenate([np.zeros((_PROFILES, 1, 3), np.float32), seen], 1), 1)
    below, above = run[:, half:-half] - run[:, : -2 * half], run[:, 2 * half :] - run[:, half:-half]
    steps = np.sqrt((((above - below) / half) ** 2).sum(-1))
    return base, across, offsets[half : half + steps.shape[1]] - _STEP / 2, steps


def _voted(
    terms: Points, offset: Points, row: NDArray[np.int64], along: Points, weight: Points, long: float, doubt: float, seed: int
) -> Points | None:  # fmt: skip
    """The bowed line with most votes among those through three candidates drawn at random."""
    rng = np.random.default_rng(seed)
    drawn = rng.integers(0, len(row), (_TRIES, 3))
    at = along[row[drawn]]
    spread = np.sort(at, 1)
    drawn = drawn[(np.ptp(at, 1) >= 0.6) & (np.diff(spread, axis=1).min(1) > 1e-9)]
    if not len(drawn):
        return None
    lines = np.linalg.solve(terms[drawn], offset[drawn][..., None])[..., 0]
    lines = lines[(np.abs(lines[:, 2]) <= 0.012 * long) & (np.abs(lines[:, 1]) <= max(6.0, 0.03 * long))]
    if not len(lines):
        return None
    votes = ((np.abs(lines @ terms.T - offset) < _NEAR) * weight).sum(1)
    ends = np.stack([lines[:, 0] - lines[:, 1] + lines[:, 2], lines[:, 0] + lines[:, 1] + lines[:, 2]], 1)
    votes = votes * np.exp(-0.5 * ((ends**2).mean(1) + 0.2 * lines[:, 1] ** 2) / doubt**2)
    best = votes.max()
    # Of two parallel edges the inner one is the face's: the depth of the canvas is seen outside it.
    inward = np.where(votes >= _NEARLY * best, lines[:, 0] + lines[:, 2] / 3, -np.inf)
    level = inward.max()
    return np.asarray(lines[int(np.argmax(np.where(inward > level - _NEAR, votes, -1.0)))])


def _met(corners: Points, sides: list[Side], reach: float) -> Points:
    found = corners.copy()
    for n in range(4):
        before, after = sides[n - 1], sides[n]
        if before.found and after.found:
            place = _meeting(before.points, after.points, corners[n])
            if place is not None and np.hypot(*(place - corners[n])) < 3 * reach:
                found[n] = place
    return found


def _meeting(one: Points, other: Points, near: Points) -> Points | None:
    """Where two bowed sides meet, by Newton from `near`."""
    fits = []
    for points in (one, other):
        centre = points.mean(0)
        ways = np.linalg.svd(points - centre, full_matrices=False)[2]
        fits.append((centre, ways, np.polyfit((points - centre) @ ways[0], (points - centre) @ ways[1], 2)))
    place = near.astype(np.float64)
    for _ in range(12):
        rows, rest = [], []
        for centre, ways, fit in fits:
            at, off = (place - centre) @ ways[0], (place - centre) @ ways[1]
            rows.append(ways[1] - np.polyval(np.polyder(fit), at) * ways[0])
            rest.append(np.polyval(fit, at) - off)
        try:
            place = place + np.linalg.solve(np.array(rows), np.array(rest))
        except np.linalg.LinAlgError:
            return None
    return place if np.all(np.isfinite(place)) else None


def _bow(side: Side, one: Points, other: Points) -> float:
    """How far the middle of the side lies beside the straight line, px."""
    if not side.found:
        return 0.0
    long = np.hypot(*(other - one))
    way = (other - one) / long
    along = (side.points - one) @ way / long
    arch = 4 * along * (1 - along)
    return float(arch @ ((side.points - one) @ np.array([-way[1], way[0]])) / (arch @ arch))
