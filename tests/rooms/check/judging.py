"""What was measured held against what was planted."""

from dataclasses import dataclass

import cv2
import numpy as np

from tests.rooms.check.planting import PX_PER_MM, Painted, Photo
from yarrow_lane.check.differences import patches_of
from yarrow_lane.check.drawing import moved_back, whole_of
from yarrow_lane.check.grid import cells_of, labels_of
from yarrow_lane.check.laid import PhotoAsked
from yarrow_lane.check.measured import AreaAsked, Measured
from yarrow_lane.check.measuring import measured
from yarrow_lane.measure.colour.cielab import lab_from_linear, linear_from_lab
from yarrow_lane.measure.colour.srgb import linear_from_srgb8
from yarrow_lane.measure.outlines import polygon_holds
from yarrow_lane.palette.answers import fitted_darks


def areas_of(p: Painted, painted_only: set[int] | None = None) -> tuple[AreaAsked, ...]:
    """The sitter's true regions; real pictures have none."""
    s, found = p.sitter, []
    for number in np.unique(s.regions) if s.regions.max() else ():
        rings = _rings(s.regions == number)
        if rings:
            found.append(
                AreaAsked(
                    int(number) + 1, f"region {number}", rings, painted_only is None or int(number) in painted_only, number == 0
                )
            )
    return tuple(found)


def _rings(mask: np.ndarray):
    """Its outlines, mm (holes too: even-odd)."""
    found, _ = cv2.findContours(mask.astype(np.uint8), cv2.RETR_CCOMP, cv2.CHAIN_APPROX_SIMPLE)
    return tuple(tuple((float(x) / PX_PER_MM, float(y) / PX_PER_MM) for x, y in c[:, 0]) for c in found if len(c) > 8)


def measured_of(p: Painted, photos: list[Photo], **how) -> Measured:
    """As the program does."""
    asked = [PhotoAsked(f.picture, tuple(map(tuple, f.corners.tolist()))) for f in photos]
    areas = how.pop("areas", None)
    return measured(asked, p.sitter.picture, p.sitter.size_mm, areas_of(p) if areas is None else areas, p.sitter.places, **how)


def true_patches(p: Painted):
    """The painting itself, moved back by what was planted, against the reference: no camera."""
    light = moved_back(linear_from_srgb8(p.picture), p.field.astype(np.float32))
    cells = cells_of(light, PX_PER_MM).astype(float)
    wanted = cells_of(linear_from_srgb8(p.sitter.picture), PX_PER_MM)
    wanted = np.maximum(linear_from_lab(fitted_darks(lab_from_linear(wanted))), 1e-4)
    labels = labels_of([], wanted.shape[:2], p.sitter.size_mm)
    return patches_of(cells, wanted, np.zeros(wanted.shape[:2]), labels, p.sitter.size_mm)


def _value_of(fault, kind):
    return fault.value if kind == "value" else fault.warmth


@dataclass
class Score:
    """Counts over many: planted by size and found; clumps told and false; moves told against true, mm."""

    planted: dict
    told: int = 0
    false: int = 0

    def add(self, p: Painted, m: Measured) -> None:
        """One painting as it was measured."""
        truth = true_patches(p)
        for spot in p.spots:
            near = (np.hypot((truth.at[..., 0] - spot.x) / spot.rx, (truth.at[..., 1] - spot.y) / spot.ry)) < 0.9
            if near.sum() < 3:
                continue
            sign = np.sign(spot.by)
            points = truth.at[near]
            found = any(
                _value_of(f, spot.kind) * sign > 0 and np.mean([polygon_holds(f.outline, (x, y)) for x, y in points]) >= 0.35
                for f in m.colour
            )
            self.planted.setdefault(abs(spot.by), []).append(found)
        for f in m.colour:
            mask = np.array([[polygon_holds(f.outline, (x, y)) for x, y in row] for row in truth.at])
            if not mask.any():
                continue
            for number, kind in enumerate(("value", "warmth")):
                off = _value_of(f, kind)
                if off:
                    self.told += 1
                    self.false += bool(np.median(truth.off[..., number][mask]) * np.sign(off) < 2)


def true_moves(p: Painted):
    """Where each place truly lies beyond the whole, mm: name to (right, down)."""
    height, width = p.field.shape[:2]
    gy, gx = np.mgrid[20 : height - 20 : 40, 20 : width - 20 : 40]
    middle = np.array([width / 2, height / 2])
    every = p.field[gy.ravel(), gx.ravel()] / PX_PER_MM
    at = (np.stack([gx.ravel(), gy.ravel()], -1) + 0.5 - middle) / PX_PER_MM
    whole, _ = whole_of(at, every)
    found = {}
    turn = np.deg2rad(whole.degrees)
    for name, (x, y) in p.sitter.places:
        row, column = min(height - 1, int(y * PX_PER_MM)), min(width - 1, int(x * PX_PER_MM))
        a, b = np.array([x, y]) - middle / PX_PER_MM
        c, s = whole.scale * np.cos(turn), whole.scale * np.sin(turn)
        usual = np.array([c * a - s * b + whole.shift[0] - a, s * a + c * b + whole.shift[1] - b])
        found[name] = p.field[row, column] / PX_PER_MM - usual
    return whole, found
