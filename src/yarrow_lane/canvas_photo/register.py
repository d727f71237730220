"""A later photograph of the same canvas laid on an earlier one by the marks both show."""

from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.canvas_photo.plane_map import carried, plane_map
from yarrow_lane.measure.late import late
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
    from scipy import spatial
else:
    cv2, spatial = late("cv2"), late("scipy.spatial")

PX_PER_MM = 2.0  # what both pictures are looked at with, per mm of a canvas of 50 cm
_MOST_SEEN = 6000  # places a picture gives
_REACH_MM = 12.0  # partners lie no farther apart: corners set by hand are wrong by less
_FARTHEST, _RATIO = 0.35, 0.85  # of descriptors: alike at all, and more alike than any other place (Lowe, 2004: 0.8)
_APART_MM = 1.5  # another place, not another orientation of the same
_AGREES_MM = 1.2  # what the best plane map may leave of a pair
_FEWEST_PAIRS, _FEWEST, _CELLS = 12, 15, 4
# When an answer is given at all: our choice, so strict that none of the trials was answered wrongly.
_LEAST_COVER, _LEAST_SHARE, _MOST_DOUBT_MM = 0.3, 0.2, 1.0
_CORNER_MM = 1.5  # what a corner of a straightened photograph is wrong by, a coordinate (measured: 0.3 usually, 2.6 at worst)
_LEAST_NOISE_MM = 0.15  # of a mark's place
_TURNS = (("upside down", 2), ("turned by a quarter", 1), ("turned by a quarter", 3))


@dataclass(frozen=True)
class Registered:
    """`matrix` 3 x 3 carries mm of the later photograph to mm of the earlier one; `rest_mm` is what the marks disagree by (median),
    `doubt_mm` what the map may be wrong by where it is least sure (one standard deviation), `marks` how many agree.
    """

    matrix: NDArray[np.float64]
    rest_mm: float
    doubt_mm: float
    marks: int

    def moved(self, points: NDArray[Any]) -> NDArray[np.float64]:
        """Places (n, 2) of the later photograph, mm of the earlier one."""
        return carried(self.matrix, points)


@dataclass(frozen=True)
class NotRegistered:
    """Why no answer is given, one clause."""

    why: str


def registered(
    before: Picture, after: Picture, px_per_mm: float, progress: Progress = SILENT
) -> Registered | NotRegistered:  # fmt: skip
    """Both straightened, (H, W, 3) at `px_per_mm` (about 2 per mm of a canvas of 50 cm; its mm are those used here).

    SIFT places with RootSIFT descriptors, partners only nearby, a plane map by RANSAC. An answer that is not sure is none.
    Raises `Cancelled`.
    """
    one = _places(before)
    progress.at(0.3)
    other = _places(after)
    found = _laid(one, other, before.shape, px_per_mm)
    progress.at(0.6)
    if isinstance(found, Registered):
        progress.at(1.0)
        return found
    for words, turns in _TURNS:
        if isinstance(_laid(one, _turned(other, after.shape, turns), before.shape, px_per_mm), Registered):
            return NotRegistered(f"the photograph is {words}: set its corners from the canvas's own top left")
    progress.at(1.0)
    return found


_Places = tuple[NDArray[np.float64], NDArray[np.float32]]


def _places(picture: Picture) -> _Places:
    """Where something is seen (n, 2) px, and what it looks like (n, 128)."""
    grey = cv2.createCLAHE(2.0, (8, 8)).apply(cv2.cvtColor(np.ascontiguousarray(picture), cv2.COLOR_RGB2GRAY))
    sift: Any = cv2.SIFT.create(nfeatures=_MOST_SEEN, contrastThreshold=0.015, edgeThreshold=20)
    seen, looks = sift.detectAndCompute(grey, None)
    if looks is None:
        return np.zeros((0, 2)), np.zeros((0, 128), np.float32)
    # The roots of the shares: Arandjelovic and Zisserman, 2012.
    return np.array([s.pt for s in seen]), np.sqrt(looks / (looks.sum(1, keepdims=True) + 1e-9))


def _turned(places: _Places, shape: tuple[int, ...], turns: int) -> _Places:
    """The same with the picture turned anticlockwise by so many quarters and pulled to its shape again: looks do not turn with it."""
    share = places[0] / (shape[1], shape[0])
    for _ in range(turns):
        share = np.stack([share[:, 1], 1 - share[:, 0]], 1)
    return share * (shape[1], shape[0]), places[1]


def _laid(one: _Places, other: _Places, shape: tuple[int, ...], px_per_mm: float) -> Registered | NotRegistered:
    pairs = _partners(one, other, px_per_mm)
    if len(pairs) < _FEWEST_PAIRS:
        return NotRegistered(f"only {len(pairs)} marks were found again" if len(pairs) else "no mark was found again")
    to, of = pairs[:, 0], pairs[:, 1]
    matrix, agree = cv2.findHomography(of, to, cv2.RANSAC, _AGREES_MM, maxIters=5000, confidence=0.999)
    if matrix is None:
        return NotRegistered("the marks found again do not agree")
    agreeing = agree.ravel() > 0
    size = np.array([shape[1], shape[0]]) / px_per_mm
    share, to, of = float(agreeing.mean()), to[agreeing], of[agreeing]
    marks = len(np.unique(np.round(to), axis=0))
    cover = len(np.unique(np.clip((to / size * _CELLS).astype(int), 0, _CELLS - 1), axis=0)) / _CELLS**2
    if marks < _FEWEST:
        return NotRegistered(f"only {marks} marks agree")
    if cover < _LEAST_COVER:
        return NotRegistered(f"the marks that agree lie on {cover:.0%} of the surface only")
    if share < _LEAST_SHARE or np.hypot(*(carried(matrix, _corners(size)) - _corners(size)).T).max() > _REACH_MM:
        return NotRegistered(f"only {share:.0%} of the marks found again agree")
    matrix, rest, doubt = _weighed(to, of, size)
    if doubt > _MOST_DOUBT_MM:
        return NotRegistered(f"the {marks} marks that agree leave {doubt:.1f} mm of doubt where there are none")
    return Registered(matrix, rest, doubt, marks)


def _corners(size: NDArray[np.float64]) -> NDArray[np.float64]:
    return np.array([(0, 0), (size[0], 0), size, (0, size[1])], np.float64)


def _weighed(
    to: NDArray[np.float64], of: NDArray[np.float64], size: NDArray[np.float64]
) -> tuple[NDArray[np.float64], float, float]:
    """The map from marks and corners together: where there are no marks, the corners hold it. With its rest and its doubt, mm.

    The map is known by where it takes the four corners; that they stay is known to `_CORNER_MM`.
    """
    corners = _corners(size)

    def mapped(shift: NDArray[np.float64], points: NDArray[np.float64]) -> NDArray[np.float64]:
        return carried(plane_map(corners, corners + shift.reshape(4, 2)), points)

    def slopes(shift: NDArray[np.float64], points: NDArray[np.float64]) -> NDArray[np.float64]:
        here = mapped(shift, points).ravel()
        return np.stack([(mapped(shift + 0.01 * unit, points).ravel() - here) / 0.01 for unit in np.eye(8)], 1)

    shift, noise = np.zeros(8), 0.5
    prior = np.eye(8) / _CORNER_MM**2
    for _ in range(6):
        rest = (to - mapped(shift, of)).ravel()
        away = np.hypot(*rest.reshape(-1, 2).T)
        noise = max(
            _LEAST_NOISE_MM, float(np.median(away)) / 1.18
        )  # of a length over two coordinates the median is 1.18 deviations
        # A few false pairs get through: what lies far off counts little (Geman and McClure, 1987).
        weight = np.repeat(1 / (1 + (away / (3 * noise)) ** 2) ** 2, 2) / noise**2
        turn = slopes(shift, of)
        known = turn.T @ (weight[:, None] * turn) + prior
        shift = shift + np.linalg.solve(known, turn.T @ (weight * rest) - prior @ shift)
    at = np.stack(np.meshgrid(np.linspace(0, size[0], 5), np.linspace(0, size[1], 5)), -1).reshape(-1, 2)
    spread = slopes(shift, at) @ np.linalg.cholesky(np.linalg.inv(known))
    doubt = float(np.sqrt((spread.reshape(len(at), 2, 8) ** 2).sum((1, 2))).max())
    return plane_map(corners, corners + shift.reshape(4, 2)), float(np.median(away)), doubt


def _partners(one: _Places, other: _Places, px_per_mm: float) -> NDArray[np.float64]:
    """Pairs (n, 2, 2), mm: a place of the first and the one of the second that is surely the same."""
    (at, looks), (at_other, looks_other) = one, other
    if not len(at) or not len(at_other):
        return np.zeros((0, 2, 2))
    at, at_other = at / px_per_mm, at_other / px_per_mm
    pairs = []
    for place, look, near in zip(
        at_other, looks_other, spatial.cKDTree(at).query_ball_point(at_other, _REACH_MM), strict=True
    ):  # fmt: skip
        if len(near) < 2:
            continue
        unlike = 2 - 2 * looks[near] @ look
        best = int(np.argmin(unlike))
        mate = at[near[best]]
        elsewhere = unlike[np.hypot(*(at[near] - mate).T) > _APART_MM]
        if unlike[best] < _FARTHEST and (not len(elsewhere) or unlike[best] < _RATIO**2 * elsewhere.min()):
            pairs.append((mate, place))
    return np.array(pairs).reshape(-1, 2, 2)


def warped(after: Picture, found: Registered, px_per_mm: float) -> Picture:
    """The later photograph as it lies on the earlier one, (H, W, 3)."""
    scale = np.diag([px_per_mm, px_per_mm, 1.0])
    matrix = scale @ found.matrix @ np.linalg.inv(scale)
    size = after.shape[1], after.shape[0]
    return np.asarray(cv2.warpPerspective(after, matrix, size, flags=cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE))
