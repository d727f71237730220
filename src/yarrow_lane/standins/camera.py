"""A camera: photographs a state of the canvas from anywhere before it, and knows what is true of the photograph.

A pinhole up to 35 degrees aside, slightly turned, a lens that bulges, the canvas's depth seen at its sides, a room behind it, uneven
light, a hand that trembles and noise.
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.canvas_photo.lens import Lens
from yarrow_lane.measure.late import late
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Rng = np.random.Generator
Points = NDArray[np.float64]
Light = NDArray[Any]  # float32
LONGER_PX = 1600  # our choice: an old telephone
_STEP = 8  # px from one exact place of the photograph to the next


@dataclass(frozen=True)
class Shot:
    """The photograph, and where every canvas mm truly lies in it."""

    picture: Picture
    matrix: NDArray[np.float64]
    lens: Lens
    degrees: float

    def px(self, points_mm: Points) -> Points:
        """Canvas mm (n, 2) as places of the photograph."""
        found = np.concatenate([points_mm, np.ones((len(points_mm), 1))], 1) @ self.matrix.T
        return self.lens.bowed(found[:, :2] / found[:, 2:])

    def corners(self, width_mm: float, height_mm: float) -> Points:
        """The canvas's corners (4, 2), from its top left, clockwise."""
        return self.px(np.array([(0, 0), (width_mm, 0), (width_mm, height_mm), (0, height_mm)], np.float64))


@dataclass(frozen=True)
class Taking:
    """How it is taken: degrees aside at most, bulge at most, depth of the canvas (mm), noise and blur from and to."""

    aside: float = 35.0
    bulge: float = 0.03
    depth_mm: float = 18.0
    noise: tuple[float, float] = (1.5, 5.0)
    blur: tuple[float, float] = (0.5, 1.3)
    longer_px: int = LONGER_PX


@dataclass(frozen=True)
class Pose:
    """Where the camera stands: `solid` 3 x 4 takes canvas mm, z into the wall, to straight-lined px; `matrix` its plane part."""

    solid: NDArray[np.float64]
    lens: Lens
    degrees: float

    @property
    def matrix(self) -> NDArray[np.float64]:
        return self.solid[:, [0, 1, 3]]

    def shot(self, picture: Picture) -> Shot:
        """What was taken from there."""
        return Shot(picture, self.matrix, self.lens, self.degrees)


def photograph(canvas: Picture, width_mm: float, height_mm: float, seed: int, taking: Taking | None = None) -> Shot:
    """Take the canvas, (H, W, 3) sRGB at any px per mm, as it stands in a room."""
    how, rng = taking or Taking(), np.random.default_rng(seed)
    pose = posed((width_mm, height_mm), how, rng)
    seen = seen_through(canvas, pose, (width_mm, height_mm), 0.0, rng, how.depth_mm)
    return pose.shot(_taken(seen, (pose.lens.width, pose.lens.height), how, rng))


def posed(size_mm: tuple[float, float], how: Taking, rng: Rng) -> Pose:
    """A place before the canvas to take it from."""
    short = round(how.longer_px * 0.75)
    frame = (how.longer_px, short) if size_mm[0] >= size_mm[1] else (short, how.longer_px)
    solid, degrees = _pose(*size_mm, frame, how.aside, rng)
    return Pose(solid, Lens(float(rng.uniform(-how.bulge, how.bulge)), *frame), degrees)


def seen_through(
    picture: Picture, pose: Pose, size_mm: tuple[float, float], edge_mm: float, rng: Rng, depth_mm: float
) -> Light:  # fmt: skip
    """A picture of that size and the room behind it, sRGB codes; the canvas begins `edge_mm` inside it."""
    solid = pose.solid @ np.array([(1, 0, 0, -edge_mm), (0, 1, 0, -edge_mm), (0, 0, 1, 0), (0, 0, 0, 1)])
    behind = _with_depth(_room((pose.lens.width, pose.lens.height), rng), solid, *size_mm, depth_mm, picture, rng)
    return _seen(picture, behind, solid[:, [0, 1, 3]], pose.lens, *size_mm)


def _pose(width: float, height: float, frame: tuple[int, int], aside: float, rng: Rng) -> tuple[NDArray[np.float64], float]:
    """3 x 4: canvas mm, z into the wall, to straight-lined px; and how many degrees aside."""
    angle, way = np.radians(rng.uniform(0, aside)), rng.uniform(0, 2 * np.pi)
    turn = cv2.Rodrigues(np.array([np.cos(way), np.sin(way), 0]) * angle)[0]
    turn = turn @ cv2.Rodrigues(np.array([0, 0, np.radians(rng.normal(0, 2.5))]))[0]
    away = rng.uniform(900, 1800) * max(width, height) / 500
    corners = np.array([(0, 0, 0), (width, 0, 0), (width, height, 0), (0, height, 0)], np.float64)
    placed = (corners - (width / 2, height / 2, 0)) @ turn.T + (0, 0, away)
    flat = placed[:, :2] / placed[:, 2:]
    focal = min(np.array(frame) / np.ptp(flat, axis=0)) * rng.uniform(0.62, 0.85)
    slack = (np.array(frame) - focal * np.ptp(flat, axis=0)) / 2
    middle = np.array(frame) / 2 - focal * (flat.max(0) + flat.min(0)) / 2 + rng.uniform(-0.5, 0.5, 2) * slack
    inner = np.array([(focal, 0, middle[0]), (0, focal, middle[1]), (0, 0, 1)])
    return inner @ np.column_stack([turn, turn @ (-width / 2, -height / 2, 0.0) + (0, 0, away)]), float(np.degrees(angle))


def _room(frame: tuple[int, int], rng: Rng) -> Light:
    """A wall unevenly lit, things before it, lines across it."""
    width, height = frame
    y, x = np.mgrid[:height, :width].astype(np.float32)
    lit = 0.8 + 0.4 * (x / width * rng.uniform(-1, 1) + y / height * rng.uniform(-1, 1))
    wall = (np.ones((height, width, 3), np.float32) * rng.uniform(70, 215, 3) * lit[..., None]).astype(np.float32)
    for _ in range(rng.integers(4, 14)):
        one = rng.integers(0, [width, height])
        other = one + rng.integers(30, 500, 2)
        thick = int(rng.choice([-1, -1, 4]))
        cv2.rectangle(wall, one.tolist(), other.tolist(), rng.uniform(20, 240, 3).tolist(), thick)
    for _ in range(6):
        one, other = rng.integers(0, [width, height]), rng.integers(0, [width, height])
        cv2.line(wall, one.tolist(), other.tolist(), rng.uniform(20, 240, 3).tolist(), int(rng.integers(1, 9)))
    return np.asarray(cv2.GaussianBlur(wall, (0, 0), rng.uniform(0.6, 3)))


def _with_depth(
    room: Light, pose: NDArray[np.float64], width: float, height: float, depth: float, canvas: Picture, rng: Rng
) -> Light:  # fmt: skip
    """The canvas's four sides, as far as they are seen."""
    corners = ((0.0, 0.0), (width, 0.0), (width, height), (0.0, height))
    ground = canvas.reshape(-1, 3)[::97].mean(0)
    flat = np.array([(*c, 0, 1) for c in corners]) @ pose.T
    face = (flat[:, :2] / flat[:, 2:]).astype(np.float32)
    for n in range(4):
        one, other = corners[n], corners[(n + 1) % 4]
        solid = np.array([(*one, 0, 1), (*other, 0, 1), (*other, depth, 1), (*one, depth, 1)]) @ pose.T
        quad = solid[:, :2] / solid[:, 2:]
        deep = quad[2:].mean(0)
        if cv2.pointPolygonTest(face, (float(deep[0]), float(deep[1])), False) > 0:
            continue  # it lies behind the face
        # OpenCV draws to px middles, places here count from px corners.
        cv2.fillConvexPoly(
            room, np.rint((quad - 0.5) * 16).astype(np.int32), (ground * rng.uniform(0.35, 0.95)).tolist(), cv2.LINE_AA, 4
        )
    return room


def _seen(
    canvas: Picture, behind: Light, matrix: NDArray[np.float64], lens: Lens, width: float, height: float
) -> Light:  # fmt: skip
    """Canvas and room through the lens; the canvas's edge has the softness of one px."""
    # Exact every few px, linear between: a lens and a plane bend nothing within so little.
    y, x = np.mgrid[: lens.height // _STEP + 2, : lens.width // _STEP + 2] * float(_STEP) + 0.5
    coarse = lens.straight(np.stack([x, y], -1))
    back = np.linalg.inv(matrix)
    placed = coarse @ back[:, :2].T + back[:, 2]
    both = np.concatenate([placed[..., :2] / placed[..., 2:], coarse], -1).astype(np.float32)
    spread = np.array([[_STEP, 0, 0], [0, _STEP, 0]], np.float32)
    every = cv2.warpAffine(both, spread, (lens.width, lens.height), flags=cv2.INTER_LINEAR)
    mm, ideal = every[..., :2], every[..., 2:]
    px, photo_px = canvas.shape[1] / width, float(np.sqrt(abs(np.linalg.det(matrix[:2, :2] / matrix[2, 2]))))
    source: Light = canvas.astype(np.float32)
    if px > photo_px:
        source = cv2.GaussianBlur(source, (0, 0), 0.4 * px / photo_px)
    face = cv2.remap(source, mm[..., 0] * px - 0.5, mm[..., 1] * px - 0.5, cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
    places = ideal - 0.5
    wall = cv2.remap(behind, places[..., 0], places[..., 1], cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
    inside = np.minimum(np.minimum(mm[..., 0], width - mm[..., 0]), np.minimum(mm[..., 1], height - mm[..., 1]))
    share = np.clip(inside * photo_px + 0.5, 0, 1)[..., None]
    return np.asarray(share * face + (1 - share) * wall, np.float32)


def _taken(seen: Light, frame: tuple[int, int], how: Taking, rng: Rng) -> Picture:
    """Light that falls off, a hand that trembles, noise."""
    width, height = frame
    y, x = np.mgrid[:height, :width].astype(np.float32)
    from_middle = ((x - width / 2) ** 2 + (y - height / 2) ** 2) / (width**2 + height**2) * 4
    way = rng.uniform(0, 2 * np.pi)
    aside = (x / width - 0.5) * np.cos(way) + (y / height - 0.5) * np.sin(way)
    light = (1 - rng.uniform(0.1, 0.4) * from_middle) * (1 + rng.uniform(0, 0.3) * aside)
    lit: Light = seen * (light * rng.uniform(0.75, 1.1))[..., None] * (1 + rng.normal(0, 0.04, 3))
    soft = cv2.GaussianBlur(np.asarray(lit, np.float32), (0, 0), rng.uniform(*how.blur))
    soft = cv2.filter2D(soft, -1, _tremble(rng.uniform(0, 3.0), rng.uniform(0, np.pi)))
    coarse = cv2.resize(rng.standard_normal((height // 2, width // 2, 3)).astype(np.float32), (width, height))
    grain = 0.8 * np.asarray(rng.standard_normal(soft.shape), np.float32) + 0.6 * coarse
    return np.clip(soft + rng.uniform(*how.noise) * grain, 0, 255).astype(np.uint8)


def _tremble(long_px: float, way: float) -> Light:
    kernel = np.zeros((9, 9), np.float32)
    for share in np.linspace(-0.5, 0.5, 21):
        x, y = 4 + share * long_px * np.cos(way), 4 + share * long_px * np.sin(way)
        row, column = int(y), int(x)
        down, across = y - row, x - column
        for dy, dx, part in (
            (0, 0, (1 - down) * (1 - across)),
            (0, 1, (1 - down) * across),
            (1, 0, down * (1 - across)),
            (1, 1, down * across),
        ):
            kernel[row + dy, column + dx] += part
    return kernel / kernel.sum()


def drawn_on(
    width_mm: float, height_mm: float, px_per_mm: float, seed: int, ground: tuple[float, float, float] = (203.0, 178.0, 146.0),
    draw: Callable[[Picture, float], None] | None = None,
) -> Picture:  # fmt: skip
    """A toned canvas with its weave, (H, W, 3); `draw` puts lines, marks or paint on it at so many px per mm."""
    rng = np.random.default_rng(seed)
    width, height = round(width_mm * px_per_mm), round(height_mm * px_per_mm)
    y, x = np.mgrid[:height, :width].astype(np.float32) / px_per_mm
    weave = 2.0 * np.sin(2 * np.pi * x / 0.7) * np.sin(2 * np.pi * y / 0.7)
    patches = cv2.resize(rng.standard_normal((9, 9)).astype(np.float32), (width, height), interpolation=cv2.INTER_CUBIC) * 6
    canvas = np.clip(np.array(ground, np.float32) + (weave + patches)[..., None], 0, 255).astype(np.uint8)
    if draw is not None:
        draw(canvas, px_per_mm)
    return canvas
