"""Usable pixels: what a picture resolves, not what it stores, from the spread of its own sharpest free edges.

The share `r` is the frequency at which the picture's whole transfer falls to 0.3, over the highest its pixels could hold. Shrinking by
averaging and enlarging by a cubic leave 0.64 x 0.5 = 0.32 there, so that an enlargement by s has r = 1/s, and blur lies on the same
scale. The constants were fitted on eight pictures and their degradations; `docs/measures.md` has the figures on others.
"""

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

from yarrow_lane.intake.photos import Eye
from yarrow_lane.intake.resolution.edges import Grey8, busiest, strongest_edges
from yarrow_lane.intake.resolution.repeats import without_repeats
from yarrow_lane.intake.resolution.spread import Profiles, carried_to, halo_of
from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_LEVEL = 0.3
_OWN_BLUR = 0.85  # the instrument's own: where its transfer would fall to 0.3
_GAIN, _GAIN_BELOW = 0.929, 1.069  # fitted: at full size, and at sizes halved by averaging
_HALO_FREE, _HALO_MOST, _HALO_WEIGHT = 0.25, 0.10, 1.5  # fitted: deeper halos come from sharpening, which shows no more
_MOVED, _FIRM = (
    2.6,
    0.5,
)  # fitted: axis ratio beyond which it counts as movement; a level with r below 0.5 is looked at halved too
_LEAST_SIGMA, _LONE_SIGMA = 0.14, 0.2
_DIRECTIONS, _IN_A_DIRECTION = 12, 20
_HALVINGS = 4
_SIDE_PX, _EYE_SIDE_PX = 110, 40  # a level smaller than this is not halved
_EYE_REACH = 2.4  # iris radii round its centre: lids and lashes


@dataclass(frozen=True)
class Usable:
    """`share` of each pixel's side that resolves (0..1], with the standard deviation `sigma` of its logarithm.

    `moved` is the ratio of the widest to the narrowest direction (1: alike), `degrees` the direction of the movement, anticlockwise
    from three o'clock; `repeated` how often pixels were repeated; `halo` the mark of sharpening.
    """

    share: float
    sigma: float
    moved: float = 1.0
    degrees: float = 0.0
    repeated: float = 1.0
    halo: float = 0.0


@dataclass(frozen=True)
class _Search:
    """Which of the edges count, by width: from `low` to `high` share of them; `need` at least."""

    low: float
    high: float
    need: int
    side_px: int


_WHOLE, _EYE = _Search(0.05, 0.25, 12, _SIDE_PX), _Search(0.08, 0.4, 8, _EYE_SIDE_PX)


@dataclass(frozen=True)
class _Found:
    """One size of the picture: frequency, halo; two halves of the edges; (angle, resolved share, edges) by direction; edges in all."""

    frequency: float
    halo: float
    halves: tuple[tuple[float, float], tuple[float, float]] | None
    directions: tuple[tuple[float, float, int], ...]
    count: int


def usable(grey: Grey8) -> Usable | None:
    """Measure a whole picture, (H, W) grey codes at its full size; None when it has too few free edges to measure by."""
    return _usable(grey, _WHOLE)


def usable_at(grey: Grey8, eye: Eye) -> Usable | None:
    """Measure round an eye, photograph px; None when there is too little to measure by."""
    reach = _EYE_REACH * eye.radius_px
    x0, y0 = int(max(0, eye.x - reach)), int(max(0, eye.y - reach))
    x1, y1 = int(min(grey.shape[1], eye.x + reach + 1)), int(min(grey.shape[0], eye.y + reach + 1))
    if x1 - x0 < _EYE_SIDE_PX // 2 or y1 - y0 < _EYE_SIDE_PX // 2:
        return None
    return _usable(np.ascontiguousarray(grey[y0:y1, x0:x1]), _EYE)


def _usable(grey: Grey8, search: _Search) -> Usable | None:
    picture, repeated = without_repeats(grey)
    found: list[_Found | None] = []
    for _ in range(_HALVINGS):
        found.append(_measured(*busiest(picture), search))
        last = found[-1]
        if (last is not None and 2 * last.frequency > _FIRM) or min(picture.shape) < search.side_px:
            break
        picture = _halved(picture)
    levels = [n for n, level in enumerate(found) if level is not None]
    if not levels:
        return None
    level = levels[-1]
    here = found[level]
    assert here is not None
    if level == len(found) - 1 and len(levels) > 1 and here.count < 2 * search.need:
        level = levels[-2]
        here = found[level]
        assert here is not None
    share = _share(here.frequency, here.halo, level) / 2**level / repeated
    directions = here.directions
    if level == len(found) - 1 and min(picture.shape) >= _SIDE_PX:
        below = _measured(*busiest(_halved(picture)), search)
        directions = _refined(directions, below.directions if below is not None else ())
    moved, degrees = _movement(directions)
    if moved > _MOVED:
        share *= math.sqrt(_MOVED / moved)
    return Usable(min(1.0 / repeated, share), _doubt(here, level), moved, degrees, repeated, here.halo)


def _halved(picture: Grey8) -> Grey8:
    size = (picture.shape[1] // 2, picture.shape[0] // 2)
    return np.asarray(cv2.resize(picture, size, interpolation=cv2.INTER_AREA), np.uint8)


def _measured(grey: Grey8, tiled: bool, search: _Search) -> _Found | None:
    """One size of the picture; None with too few free edges."""
    edges = strongest_edges(grey.astype(np.float32), tiled)
    if edges is None:
        return None
    profiles = Profiles(edges.profiles)
    unrest = profiles.unrest()
    free = (unrest < 0.2) & (profiles.contrast > 8 * edges.noise + 8)
    if free.sum() < 4 * search.need:  # fewer but still clear ones
        free = (unrest < 0.35) & (profiles.contrast > 5 * edges.noise + 5)
    if free.sum() < search.need:
        return None
    profiles, angles = profiles.chosen(free), edges.angles[free]
    widths = profiles.widths()

    def narrowest(which: np.ndarray, low: float, high: float) -> tuple[float, float, float]:
        """Frequencies carried to 0.3 and 0.5, and the halo, of the narrowest of some edges but for the very narrowest."""
        order = which[np.argsort(widths[which])]
        start = int(low * len(order))
        spread = profiles.chosen(order[start : max(int(high * len(order)), start + 6)]).mean_spread()
        return carried_to(spread, _LEVEL), carried_to(spread, 0.5), halo_of(spread)

    every = np.arange(len(profiles))
    frequency, _, halo = narrowest(every, search.low, search.high)
    halves = None
    if len(profiles) >= 4 * search.need:
        one, other = (narrowest(every[n::2], search.low, search.high) for n in (0, 1))
        halves = ((one[0], one[2]), (other[0], other[2]))
    directions = []
    for n in range(_DIRECTIONS):
        angle = n * math.pi / _DIRECTIONS
        apart = np.abs((angles - angle + np.pi / 2) % np.pi - np.pi / 2)
        near = np.nonzero(apart < np.pi / _DIRECTIONS)[0]
        if len(near) >= _IN_A_DIRECTION:
            f30, f50, _ = narrowest(near, 0.1, 0.45)
            directions.append((angle, 2 * math.sqrt(f30 * f50), len(near)))
    return _Found(frequency, halo, halves, tuple(directions), len(profiles))


def _share(frequency: float, halo: float, level: int) -> float:
    """r at one size: the instrument's own blur taken out, halos discounted."""
    own = frequency / math.sqrt(max(1 - (frequency / _OWN_BLUR) ** 2, 0.1))
    over = min(_HALO_MOST, max(0.0, halo - _HALO_FREE))
    return 2 * own * (_GAIN_BELOW if level else _GAIN) * math.exp(-_HALO_WEIGHT * over)


def _doubt(found: _Found, level: int) -> float:
    """Standard deviation of ln r: what two halves of the edges differ by, and what the method itself does."""
    if found.halves is None:
        return _LONE_SIGMA
    one, other = (_share(frequency, halo, level) for frequency, halo in found.halves)
    return math.hypot(_LEAST_SIGMA, abs(math.log(one / other)) / 2)


def _refined(
    directions: tuple[tuple[float, float, int], ...], below: tuple[tuple[float, float, int], ...]
) -> tuple[tuple[float, float, int], ...]:  # fmt: skip
    """Directions read at half the size too, where wide edges still have both their sides."""
    coarse = {angle: (share / 2, count) for angle, share, count in below if share < 0.75}
    better = [(angle, min(share, coarse[angle][0]) if angle in coarse else share, count) for angle, share, count in directions]
    known = {angle for angle, _, _ in directions}
    return (*better, *((angle, share, count) for angle, (share, count) in coarse.items() if angle not in known))


def _movement(directions: tuple[tuple[float, float, int], ...]) -> tuple[float, float]:
    """Axis ratio and direction of an ellipse laid through 1/r² of the directions by least squares; (1, 0) with too few."""
    if len(directions) < 7:
        return 1.0, 0.0
    angle, share, count = (np.array(values, float) for values in zip(*directions, strict=True))
    terms = np.c_[np.ones(len(angle)), np.cos(2 * angle), np.sin(2 * angle)]
    weight = np.sqrt(np.minimum(count, 200))[:, None]
    mean, cos, sin = np.linalg.lstsq(terms * weight, (1 / share**2) * weight[:, 0], rcond=None)[0]
    swing = math.hypot(cos, sin)
    narrow = max(mean - swing, 1 / 1.3**2)
    return math.sqrt(max((mean + swing) / narrow, 1.0)), math.degrees(math.atan2(sin, cos)) / 2 % 180
