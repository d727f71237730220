"""The demo studio's paintbox: made up, as a painter of pets and people might hold it."""

from dataclasses import replace
from datetime import date

import numpy as np

from yarrow_lane.paint.calibration.swatches import Paper, Reading, swatch
from yarrow_lane.paint.pigments.curves import curves
from yarrow_lane.paint.seen import lab_of, lab_of_paint, triple
from yarrow_lane.palette.card import CAMERA_DOUBT
from yarrow_lane.palette.paintbox import Paintbox, SeenMix, change_tube, put_in, read_tube, saw_mix
from yarrow_lane.palette.recipe import Share
from yarrow_lane.standins.swatch_photo import Curves, true_paint

# Pigment, size and what is left, ml.
_TUBES = (
    ("PW6", 250.0, 170.0), ("PW6:1", 60.0, 48.0), ("PY43", 60.0, 31.0), ("PBr7bs", 60.0, 44.0), ("PBr7bu", 60.0, 22.0),
    ("PBr7ru", 60.0, 52.0), ("PR122", 60.0, 40.0), ("PR108", 60.0, 55.0), ("PY37", 60.0, 50.0), ("NapY", 60.0, 6.0),
    ("PB29", 60.0, 37.0), ("PG7", 60.0, 57.0), ("PBk9", 60.0, 58.0),
)  # fmt: skip
_READ = ("PY43", "PBr7bs", "PBr7bu")  # of which swatches were photographed
_TINTED = ("PB29", "PR122", "PBr7bu")
_SEED = 5
_SWATCHES: tuple[tuple[bool, Paper], ...] = ((False, "white"), (False, "black"), (True, "white"), (True, "black"))


def demo_paintbox(on: date) -> Paintbox:
    """Thirteen acrylic tubes, three read by their swatches, three compared as tints by eye."""
    box = Paintbox()
    for pigment, size, left in _TUBES:
        box = put_in(box, pigment, size_ml=size, left_ml=left)
    ids, known, rng = {t.pigment: t.id for t in box.tubes}, curves(), np.random.default_rng(_SEED)
    true = {key: true_paint(known[key], rng, 0.15) for key in {*_READ, *_TINTED}}
    for key in _READ:
        box = read_tube(box, ids[key], tuple(_reading(true[key], known["PW6"], *kind) for kind in _SWATCHES))
    for key in _TINTED:
        k, s = true[key]
        seen = triple(lab_of_paint(k + 10 * known["PW6"][0], s + 10 * known["PW6"][1]))
        box = saw_mix(box, SeenMix((Share(ids["PW6"], 10.0), Share(ids[key], 1.0)), seen, 2.0, on=on))
    yellow = box.tube(ids["PY43"])
    return change_tube(box, replace(yellow, line="studio line"))


def _reading(curves_of: Curves, white: Curves, tint: bool, over: Paper) -> Reading:
    """A swatch as a careful camera reads it."""
    return Reading(tint, over, triple(lab_of(swatch(curves_of, white, tint, over))), CAMERA_DOUBT)
