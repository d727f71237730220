"""Paintings with planted faults, and photographs of them: what Check is held against. The truth is kept."""

import io
from dataclasses import dataclass
from functools import cache

import cv2
import numpy as np
import skimage.data
from PIL import Image

from tests.rooms.check.dabs import dabbed
from yarrow_lane.demo.sitter_files import sitter_file
from yarrow_lane.measure.colour.cielab import lab_from_linear, linear_from_lab
from yarrow_lane.measure.colour.srgb import linear_from_srgb8, srgb8_from_linear
from yarrow_lane.measure.colour.warm import WARM
from yarrow_lane.palette.answers import fitted_darks
from yarrow_lane.standins.camera import Taking
from yarrow_lane.standins.lit_camera import drawn_faults, photograph_lit
from yarrow_lane.standins.strokes import stroked

PX_PER_MM = 4.0
MAGNITUDES = (3.0, 6.0, 10.0, 15.0)
NEAR = Taking(aside=9.0, bulge=0.03, longer_px=3000, blur=(0.5, 0.9))


@dataclass(frozen=True, eq=False)
class Sitter:
    """A reference (H, W, 3) at `PX_PER_MM`, its region numbers (H, W), and places in mm."""

    name: str
    picture: np.ndarray
    regions: np.ndarray
    places: tuple[tuple[str, tuple[float, float]], ...]

    @property
    def size_mm(self) -> tuple[float, float]:
        return self.picture.shape[1] / PX_PER_MM, self.picture.shape[0] / PX_PER_MM


_REAL = {
    "astronaut": (skimage.data.astronaut, {"left eye": (199, 122), "right eye": (252, 113), "nose tip": (228, 150)}),
    "cat": (skimage.data.cat, {"left eye": (171, 107), "right eye": (265, 112), "nose tip": (213, 175)}),
    "coffee": (skimage.data.coffee, {"rim": (300, 90), "spoon": (420, 250), "saucer": (150, 280)}),
}


@cache
def sitter(name: str) -> Sitter:
    """A rendered sitter as 30 x 40 cm, or a real picture as 30 cm wide."""
    if name in _REAL:
        made, marks = _REAL[name]
        small = np.ascontiguousarray(made()[..., :3])
        scale = 1200 / small.shape[1]
        size = 1200, round(small.shape[0] * scale)
        picture = cv2.resize(small, size, interpolation=cv2.INTER_CUBIC)
        places = tuple((k, (x * scale / PX_PER_MM, y * scale / PX_PER_MM)) for k, (x, y) in marks.items())
        return Sitter(name, picture, np.zeros(picture.shape[:2], np.uint8), places)
    file = sitter_file(name)
    whole = np.asarray(Image.open(io.BytesIO(file.jpeg)).convert("RGB"))
    scale = 1200 / whole.shape[1]
    size = 1200, round(whole.shape[0] * scale)
    picture = cv2.resize(whole, size, interpolation=cv2.INTER_AREA)
    regions = cv2.resize(file.regions, size, interpolation=cv2.INTER_NEAREST)
    marks = [(m.name, (m.x, m.y)) for m in file.landmarks] + [(f"{e.side} eye", (e.x, e.y)) for e in file.eyes]
    return Sitter(name, picture, regions, tuple((k, (x * scale / PX_PER_MM, y * scale / PX_PER_MM)) for k, (x, y) in marks))


@dataclass(frozen=True)
class Spot:
    """A planted fault of colour, mm; `by` Lab units along value or warmth, signed."""

    x: float
    y: float
    rx: float
    ry: float
    kind: str
    by: float


@dataclass(frozen=True, eq=False)
class Painted:
    """The painting (H, W, 3); its spots; moves (x, y, right, down) mm; `field` (H, W, 2) px where each place of the reference went."""

    sitter: Sitter
    picture: np.ndarray
    spots: tuple[Spot, ...]
    moves: tuple[tuple[float, float, float, float], ...]
    field: np.ndarray


def blob(shape, x, y, rx, ry, soft=0.35):
    yy, xx = np.mgrid[: shape[0], : shape[1]].astype(np.float32) / PX_PER_MM
    away = np.hypot((xx - x) / rx, (yy - y) / ry)
    return np.clip((1 + soft - away) / (2 * soft), 0, 1)


def spots_on(s: Sitter, rng: np.random.Generator, count: int = 9, magnitudes=MAGNITUDES) -> tuple[Spot, ...]:
    found: list[Spot] = []
    inside = s.regions > 0 if s.regions.max() else np.ones_like(s.regions, bool)
    for _ in range(800):
        if len(found) == count:
            break
        x, y, rx, ry = (float(v) for v in (*(rng.uniform(20, side - 20) for side in s.size_mm), *rng.uniform(10, 22, 2)))
        if rng.random() < 0.7 and not inside[int(y * PX_PER_MM), int(x * PX_PER_MM)]:
            continue
        if any(np.hypot(x - o.x, y - o.y) < rx + o.rx + 14 for o in found):
            continue
        kind = ("value", "value", "warmth")[len(found) % 3]
        found.append(Spot(x, y, rx, ry, kind, float(rng.choice(magnitudes) * rng.choice([-1, 1]))))
    return tuple(found)


def painted(
    name: str, seed: int, count: int = 9, moves: int = 3, hand: str = "strokes", whole: bool = True, magnitudes=MAGNITUDES
) -> Painted:
    """A painting of that sitter; with `whole` shifted, scaled and turned a little too."""
    s, rng = sitter(name), np.random.default_rng(seed)
    height, width = s.picture.shape[:2]
    spots = spots_on(s, rng, count, magnitudes)
    lab = fitted_darks(lab_from_linear(linear_from_srgb8(s.picture)))
    for spot in spots:
        way = (1.0, 0.0, 0.0) if spot.kind == "value" else (0.0, *WARM)
        lab = lab + blob((height, width), spot.x, spot.y, spot.rx, spot.ry)[..., None] * np.array(way) * spot.by
    picture = srgb8_from_linear(np.maximum(linear_from_lab(lab), 0).astype(np.float32))
    found: list[tuple[float, float, float, float]] = []
    order = list(s.places)
    rng.shuffle(order)
    field = np.zeros((height, width, 2), np.float32)
    yy, xx = np.mgrid[:height, :width].astype(np.float32)
    for _, (x, y) in order:
        if len(found) == moves:
            break
        inside = 16 < x < s.size_mm[0] - 16 and 16 < y < s.size_mm[1] - 16
        if not inside or any(np.hypot(x - m[0], y - m[1]) < 45 for m in found):
            continue
        way, far = rng.uniform(0, 2 * np.pi), float(rng.choice([2, 3, 4, 6, 8, 10]))
        right, down = far * np.cos(way), far * np.sin(way)
        reach = max(10.0, 1.9 * far)
        near = np.exp(-0.5 * (((xx / PX_PER_MM - x) ** 2 + (yy / PX_PER_MM - y) ** 2) / reach**2) ** 1.5)
        field += near[..., None] * np.float32([right * PX_PER_MM, down * PX_PER_MM])
        found.append((x, y, right, down))
    if whole and seed % 2 == 0:
        right, down, scale, turn = (
            rng.normal(0, 1.2),
            rng.normal(0, 1.2),
            1 + rng.normal(0, 0.006),
            np.deg2rad(rng.normal(0, 0.35)),
        )
        x, y = xx + field[..., 0] - width / 2, yy + field[..., 1] - height / 2
        c, n = scale * np.cos(turn), scale * np.sin(turn)
        field = np.stack(
            [c * x - n * y + width / 2 + right * PX_PER_MM - xx, n * x + c * y + height / 2 + down * PX_PER_MM - yy], -1
        )
    if found or whole:
        picture = pushed(picture, field.astype(np.float32))
    hands = {"strokes": stroked, "dabs": dabbed}
    return Painted(s, hands[hand](picture, PX_PER_MM, seed), spots, tuple(found), field.astype(np.float32))


def pushed(picture: np.ndarray, field: np.ndarray) -> np.ndarray:
    """Each place goes where the field (H, W, 2) px sends it."""
    yy, xx = np.mgrid[: field.shape[0], : field.shape[1]].astype(np.float32)
    back = np.zeros_like(field)
    for _ in range(12):
        back = -cv2.remap(field, xx + back[..., 0], yy + back[..., 1], cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
    return cv2.remap(picture, xx + back[..., 0], yy + back[..., 1], cv2.INTER_CUBIC, borderMode=cv2.BORDER_REPLICATE)


@dataclass(frozen=True, eq=False)
class Photo:
    """A photograph (H, W, 3), its corners as clicked, and the shot with its truth."""

    picture: np.ndarray
    corners: np.ndarray
    shot: object
    faults: object


def photo_of(p: Painted, seed: int, greys: bool = True, taking: Taking = NEAR, click_mm: float = 0.8, **over) -> Photo:
    """Photographed with faults drawn by the seed; corners clicked with that error, mm (rms a coordinate)."""
    faults = drawn_faults(seed, **over)
    shot = photograph_lit(p.picture, p.sitter.size_mm, seed, faults, taking, greys=greys)
    true = shot.corners(*p.sitter.size_mm)
    scale = np.hypot(*(true[1] - true[0])) / p.sitter.size_mm[0]
    clicked = true + np.random.default_rng(seed + 5).normal(0, click_mm, (4, 2)) * scale
    return Photo(shot.picture, clicked, shot, faults)


def jpeg(picture: np.ndarray, quality: int = 92) -> bytes:
    out = io.BytesIO()
    Image.fromarray(picture).save(out, "JPEG", quality=quality)
    return out.getvalue()
