"""Compositions for the tests: three sitters of simple shape from three photographs."""

import numpy as np

from yarrow_lane.compose.composition import Compose, Framed
from yarrow_lane.compose.cutting.soft import cut_out
from yarrow_lane.compose.drawing.render import Held
from yarrow_lane.compose.ground import Ground
from yarrow_lane.compose.pieces import Piece, Ring
from yarrow_lane.measure.plane import Rect

SIZE = (800, 600)


def oval(x: float, y: float, wide: float, high: float, count: int = 16) -> Ring:
    turns = np.linspace(0, 2 * np.pi, count, endpoint=False)
    return Ring(tuple((round(x + wide * float(np.cos(t)), 1), round(y + high * float(np.sin(t)), 1)) for t in turns))


def photo(seed: int) -> np.ndarray:
    """Stripes and noise, (600, 800, 3)."""
    rng = np.random.default_rng(seed)
    ys, xs = np.mgrid[: SIZE[1], : SIZE[0]]
    base = 128 + 60 * np.sin(xs / (9 + seed)) + 40 * np.cos(ys / (13 + seed))
    grain = rng.normal(0, 6, (SIZE[1], SIZE[0], 3))
    return np.clip(base[..., None] + np.array([20 * seed, 0, -15 * seed]) + grain, 0, 255).astype(np.uint8)


PHOTOS = {f"p{n}": photo(n) for n in (1, 2, 3)}
FENNEL = Piece(1, "Fennel", "p1", (oval(400, 320, 200, 220),), (400, 320), (300, 260), 0.9, 3.0)
MOSS = Piece(2, "Moss", "p2", (oval(300, 300, 120, 150),), (300, 300), (520, 380), 0.8, -7.0, True)
PIP = Piece(3, "Pip", "p3", (oval(500, 280, 90, 120),), (500, 280), (620, 200), 1.1)
THREE = Compose(
    800, 600, "", Framed("p3", Rect(0, 0, 800, 600)), Ground("gradient"), (FENNEL, MOSS, PIP), 4
)  # fmt: skip


def held(compose: Compose) -> Held:
    return Held(PHOTOS, {p.id: cut_out(PHOTOS[p.photo_id], p.outline, 1.0, "quick") for p in compose.pieces})
