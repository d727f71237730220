"""What Play paints from: the reference as paint can show it, the regions on its raster, the lie of the fur, the ground with the drawing."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.flow.axis import Field
from yarrow_lane.layers.play.drawing import Image, blurred, image_of, light_of
from yarrow_lane.layers.raster import Labels
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Circle, Polygon
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

DARKEST_Y = 0.023  # of the darkest matt paint under common light, as the colour design measured it
_INK_PAINT, _INK_PAPER = (82, 58, 46), (92, 90, 90)  # thinned earth on a toned canvas, pencil on paper (our choice)


@dataclass(frozen=True)
class PlayArea:
    """A region as Play paints it; eyes know where iris and glint lie (mm), whiskers their lines."""

    id: int
    kind: str
    family: str
    hairy: bool
    part: str = ""
    depth: int = 0
    iris: Circle | None = None
    glints: tuple[Circle, ...] = ()
    lines: tuple[Polygon, ...] = ()


@dataclass(frozen=True)
class Scene:
    """All at `scale` px per mm but the flow, which has 1 px per mm: `reference` sRGB, `labels` region ids, `flow` (h, w, 2), `hair` mm."""

    reference: Image
    labels: Labels
    areas: tuple[PlayArea, ...]
    flow: Field
    hair: Field
    scale: float
    paper: bool = False
    ground: tuple[int, int, int] = (205, 186, 160)

    def area(self, region_id: int) -> PlayArea:
        """Raises KeyError when it is not in the scene."""
        return next(a for a in self.areas if a.id == region_id)


def fitted_to_paint(picture: Picture) -> Image:
    """The reference with its darks as dark as paint goes: Y drawn in to 0.023 and up, in light."""
    return image_of(light_of(np.ascontiguousarray(picture)) * (1 - DARKEST_Y) + DARKEST_Y)


def anchors(scene: Scene) -> tuple[float, float, float]:
    """Dark, middle and light L* of the whole picture: coats draw values in towards one of them, so that areas keep their distances."""
    lab = cv2.cvtColor(np.ascontiguousarray(scene.reference[::4, ::4]).astype(np.float32) / 255, cv2.COLOR_RGB2LAB)
    low, middle, high = np.percentile(lab[..., 0], [8, 50, 92])
    return float(low), float(middle), float(high)


def _noise(shape: tuple[int, int], size_px: float, seed: int) -> Field:
    rows, columns = shape
    grid = np.random.default_rng(seed).standard_normal((int(rows / size_px) + 2, int(columns / size_px) + 2))
    return np.asarray(cv2.resize(grid.astype(np.float32), (columns, rows), interpolation=cv2.INTER_CUBIC), np.float32)


def begun(scene: Scene) -> Image:
    """The ground with the drawing on it, before any pass."""
    shape = scene.labels.shape
    rgb = np.array(scene.ground, np.uint8).reshape(1, 1, 3)
    lab = cv2.cvtColor(rgb.astype(np.float32) / 255, cv2.COLOR_RGB2LAB)[0, 0]
    light = np.full(shape, lab[0], np.float32)
    if not scene.paper:  # a ground brushed on is never even
        for size, much in ((28, 1.0), (9, 0.6)):
            light += _noise((shape[0], shape[1]), size * scene.scale, 5) * much
    whole = np.dstack([light, np.full_like(light, lab[1]), np.full_like(light, lab[2])])
    image = np.clip(cv2.cvtColor(whole, cv2.COLOR_LAB2RGB), 0, 1) * 255 + 0.5
    return _with_drawing(image.astype(np.uint8), scene)


def _with_drawing(image: Image, scene: Scene) -> Image:
    ink = np.zeros(scene.labels.shape, np.uint8)
    for area in scene.areas:
        if area.family in ("background", "scene"):
            continue
        mask = (blurred((scene.labels == area.id).astype(np.float32), 1.5) > 0.5).astype(np.uint8)
        contours, _ = cv2.findContours(mask, cv2.RETR_CCOMP, cv2.CHAIN_APPROX_NONE)
        cv2.drawContours(ink, [c for c in contours if len(c) > 24], -1, (255,), 1 if area.family == "eye" else 2, cv2.LINE_AA)
        if area.iris is not None:
            (x, y), r = area.iris
            at, radius = (round(x * scene.scale), round(y * scene.scale)), max(1, round(r * scene.scale))
            cv2.circle(ink, at, radius, (200,), 1, cv2.LINE_AA)
    strength = (ink.astype(np.float32) / 255 * (0.3 if scene.paper else 0.8))[..., None]
    line = np.array(_INK_PAPER if scene.paper else _INK_PAINT, np.float32)
    return np.asarray(image * (1 - strength) + line * strength + 0.5, np.uint8)


def drawn_lines(lines: Sequence[Polygon], steps: int = 6) -> NDArray[np.float32]:
    """Lines as so many + 1 points each, evenly along them, (n, steps + 1, 2) mm."""
    found = []
    for line in lines:
        p = np.asarray(line, np.float64)
        away = np.concatenate([[0], np.cumsum(np.hypot(*np.diff(p, axis=0).T))])
        at = np.linspace(0, away[-1], steps + 1)
        found.append(np.stack([np.interp(at, away, p[:, k]) for k in (0, 1)], 1))
    return np.asarray(found, np.float32).reshape(-1, steps + 1, 2)
