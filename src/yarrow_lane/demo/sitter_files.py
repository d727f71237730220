"""The rendered sitters: pictures, and what the renderer knows of them."""

import json
from dataclasses import dataclass
from functools import cache
from importlib import resources
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.intake.landmarks import Landmark
from yarrow_lane.intake.photos import Eye
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point, Polygon

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_LANDMARKS = {
    "nose_tip": "nose tip",
    "mouth_corner_viewer_left": "left mouth corner",
    "mouth_corner_viewer_right": "right mouth corner",
    "chin": "chin",
    "top_of_head": "crown",
    "ear_tip_viewer_left": "left ear tip",
    "ear_tip_viewer_right": "right ear tip",
}
_SIDES = (("viewer_left", "left"), ("viewer_right", "right"))


@dataclass(frozen=True)
class SitterFile:
    """One rendered photograph: JPEG bytes, true eyes (upright px), and outlines of its regions."""

    name: str
    jpeg: bytes
    eyes: tuple[Eye, ...]
    points: dict[str, Point]
    regions: NDArray[np.uint8]

    @property
    def landmarks(self) -> tuple[Landmark, ...]:
        """The renderer's own points, under the names of the intake's templates."""
        return tuple(Landmark(name, *self.points[key]) for key, name in _LANDMARKS.items() if key in self.points)

    def outlines(self, ids: tuple[int, ...], smallest_px: float = 400.0, coarse: float = 0.004) -> tuple[Polygon, ...]:
        """Outer outlines of the pixels of these regions, the largest first, in px.

        `coarse` is the simplification as a share of the outline's length.
        """
        mask = np.isin(self.regions, ids).astype(np.uint8)
        # A painter outlines masses, not single hairs: close the gaps and round the fringe off.
        closed = cv2.medianBlur(cv2.morphologyEx(mask * 255, cv2.MORPH_CLOSE, np.ones((9, 9), np.uint8)), 31)
        found, _ = cv2.findContours(closed, cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_SIMPLE)
        kept = sorted((c for c in found if cv2.contourArea(c) >= smallest_px), key=cv2.contourArea, reverse=True)
        simple = (cv2.approxPolyDP(c, coarse * cv2.arcLength(c, True), True).reshape(-1, 2) for c in kept)
        return tuple(tuple((float(x), float(y)) for x, y in c) for c in simple if len(c) >= 3)


@cache
def sitter_file(name: str) -> SitterFile:
    """A sitter by its short name: dog1, dog2, cat1, person1, rabbit1."""
    folder = resources.files("yarrow_lane.demo").joinpath("sitters")
    truth = json.loads(folder.joinpath(f"sitter-{name}.json").read_text("utf-8"))
    mask = np.frombuffer(folder.joinpath(f"sitter-{name}-regions.png").read_bytes(), np.uint8)
    eyes = tuple(
        Eye(side, e["x"], e["y"], e["iris_radius"])  # type: ignore[arg-type]
        for key, side in _SIDES
        if (e := truth["eyes"][key])["visible"]
    )
    return SitterFile(
        name,
        folder.joinpath(f"sitter-{name}.jpg").read_bytes(),
        eyes,
        {k: (p["x"], p["y"]) for k, p in truth["points"].items()},
        np.asarray(cv2.imdecode(mask, cv2.IMREAD_UNCHANGED)),
    )
