"""The shapes of a study as outlines on the canvas, for looking at and for drawing."""

from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.tone.study import Study

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_SMOOTH_PX = 1.2  # standard deviation: a staircase of pixels becomes a line; our choice
_FINER = 2  # outlines are found at twice the study's px
_BEND_PX = 0.35  # how far a line may be off its pixels: our choice


@dataclass(frozen=True)
class Shape:
    """One outline of a value, canvas mm; a `hole` belongs to the lighter or darker shape inside it too."""

    value: int
    outline: Polygon
    cm2: float


def shapes_of(study: Study) -> tuple[Shape, ...]:
    """The borders of every value with the lighter ones inside, largest first, mm.

    Each border is found once: as the rim of everything lighter than its limit, so that neighbours share one line.
    """
    found: list[Shape] = []
    for value in range(1, len(study.shares)):
        mask = (study.classes >= value).astype(np.float32)
        height, width = mask.shape
        fine = cv2.resize(mask, (width * _FINER, height * _FINER), interpolation=cv2.INTER_LINEAR)
        fine = cv2.GaussianBlur(fine, (0, 0), _SMOOTH_PX * _FINER)
        rims, _ = cv2.findContours((fine > 0.5).astype(np.uint8), cv2.RETR_LIST, cv2.CHAIN_APPROX_NONE)
        for rim in rims:
            line = cv2.approxPolyDP(rim, _BEND_PX * _FINER, True)[:, 0].astype(np.float64)
            if len(line) >= 3:
                mm = (line + 0.5) / _FINER / study.px_per_mm
                area = 0.5 * abs(float(np.sum(mm[:, 0] * np.roll(mm[:, 1], 1) - mm[:, 1] * np.roll(mm[:, 0], 1))))
                found.append(Shape(value, tuple((round(float(x), 2), round(float(y), 2)) for x, y in mm), area / 100))
    return tuple(sorted(found, key=lambda s: -s.cm2))


def borders(study: Study, edge_mm: float = 0.8) -> tuple[Polygon, ...]:
    """Lines to draw: the same borders without what runs along the canvas's edge, open where they were cut."""
    height, width = (n / study.px_per_mm for n in study.classes.shape)

    def inside(point: Point) -> bool:
        return edge_mm < point[0] < width - edge_mm and edge_mm < point[1] < height - edge_mm

    lines: list[Polygon] = []
    for shape in shapes_of(study):
        ring = shape.outline
        kept = [inside(p) for p in ring]
        if all(kept):
            lines.append((*ring, ring[0]))
            continue
        if not any(kept):
            continue
        begin = kept.index(False)
        run: list[Point] = []
        for n in range(1, len(ring) + 1):
            at = (begin + n) % len(ring)
            if kept[at]:
                run.append(ring[at])
            elif run:
                if len(run) > 1:
                    lines.append(tuple(run))
                run = []
        if len(run) > 1:
            lines.append(tuple(run))
    return tuple(lines)
