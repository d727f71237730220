"""What is known of one sitter on the canvas before a region is drawn; all in raster px."""

from collections.abc import Mapping
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.coverage import Rings
from yarrow_lane.layers.raster import mask_of

Mask = NDArray[np.bool_]
Vector = NDArray[np.float64]


@dataclass(frozen=True)
class SitterMarks:
    """Eyes as (x, y, iris radius) and landmarks as (x, y), by names as at Intake, left and right as the viewer sees them.

    `kind` is that of the brief; `mask` the cut-out, (height, width), where there is one.
    """

    kind: str
    eyes: Mapping[str, tuple[float, float, float]] = field(default_factory=dict)
    points: Mapping[str, tuple[float, float]] = field(default_factory=dict)
    mask: Mask | None = None
    sitter_id: int = 0
    name: str = ""
    mirrored: bool = False

    def point(self, name: str) -> Vector | None:
        """A landmark; None where it is not marked."""
        found = self.points.get(name)
        return None if found is None else np.array(found, np.float64)

    @property
    def tip(self) -> Vector | None:
        """The tip of nose or beak."""
        nose = self.point("nose tip")
        return nose if nose is not None else self.point("beak tip")

    @property
    def centres(self) -> dict[str, Vector]:
        """Eye centres by side."""
        return {side: np.array(eye[:2], np.float64) for side, eye in self.eyes.items()}


@dataclass(frozen=True)
class SitterOnCanvas:
    """The same in canvas mm, as the commission knows it; `rings` are the cut-out's, none where nothing was cut out."""

    kind: str
    sitter_id: int = 0
    name: str = ""
    mirrored: bool = False
    eyes: tuple[tuple[str, float, float, float], ...] = ()
    points: tuple[tuple[str, float, float], ...] = ()
    rings: Rings = ()

    def in_px(self, size: tuple[int, int], scale: float) -> SitterMarks:
        """On a raster of that size (width, height) at `scale` px per mm."""
        return SitterMarks(
            self.kind,
            {side: (x * scale, y * scale, r * scale) for side, x, y, r in self.eyes},
            {name: (x * scale, y * scale) for name, x, y in self.points},
            mask_of(self.rings, size, scale) if self.rings else None,
            self.sitter_id, self.name, self.mirrored,
        )  # fmt: skip


@dataclass(frozen=True)
class Head:
    """How a head lies: `up` points from chin to crown, `length` is crown to chin, px; the skull is a ball below the crown."""

    crown: Vector
    chin: Vector
    up: Vector
    length: float
    skull: Vector
    radius: float
    face: Vector  # the marks of the face, (n, 2)

    @property
    def across(self) -> Vector:
        """To the viewer's right when up is up."""
        return np.array([-self.up[1], self.up[0]])

    @property
    def tilt(self) -> float:
        """Degrees by which the eye line is turned."""
        return float(np.degrees(np.arctan2(self.across[1], self.across[0])))


# All by eye on the made-up sitters (our choice): skull radius as a share of crown to chin; eye distance over that length.
_SKULL = {"person": 0.40}
_SKULL_ANIMAL = 0.46
_EYES_OVER_HEAD = {"person": 0.29}
_EYES_OVER_HEAD_ANIMAL = 0.38


def head_of(marks: SitterMarks) -> Head | None:
    """The head from its marks; without crown and chin guessed from both eyes; None where too little is known."""
    centres = list(marks.centres.values())
    crown, chin = marks.point("crown"), marks.point("chin")
    up = np.array([0.0, -1.0])
    if len(centres) == 2:
        line = centres[1] - centres[0] if centres[1][0] > centres[0][0] else centres[0] - centres[1]
        up = np.array([line[1], -line[0]]) / max(1e-6, float(np.hypot(*line)))
        if crown is not None and chin is not None and up @ (crown - chin) < 0:
            up = -up
    if crown is None or chin is None:
        if len(centres) < 2:
            return None
        apart = float(np.hypot(*(centres[0] - centres[1])))
        length = apart / _EYES_OVER_HEAD.get(marks.kind, _EYES_OVER_HEAD_ANIMAL)
        middle = (centres[0] + centres[1]) / 2
        crown = middle + up * length * 0.45 if crown is None else crown
        chin = crown - up * length if chin is None else chin
    length = float(np.hypot(*(crown - chin)))
    if length < 8:
        return None
    radius = _SKULL.get(marks.kind, _SKULL_ANIMAL) * length
    face = [np.array(p) for name, p in marks.points.items() if "ear" not in name] + centres + [crown, chin]
    return Head(crown, chin, up, length, crown - up * radius * 1.03, radius, np.array(face, np.float64))
