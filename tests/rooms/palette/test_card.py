"""Reading tubes from a photographed swatch card, by the camera stand-in: what comes back, and what is refused with its reason."""

import numpy as np
import pytest

from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.paint.calibration.swatches import swatch
from yarrow_lane.paint.pigments.curves import curves
from yarrow_lane.paint.seen import lab_of
from yarrow_lane.palette.card import USUAL_STEPS, CardTrouble
from yarrow_lane.palette.question import read_card_picture
from yarrow_lane.standins.swatch_photo import Shot, card_picture, photographed, true_paint

KEYS = ("PY43", "PBr7bs", "PR122", "PB29")


def card(rng, steps=USUAL_STEPS):
    true = [true_paint(curves()[k], rng) for k in KEYS]
    return true, card_picture(true, curves()["PW6"], steps)


@pytest.mark.parametrize("seed", [1, 2, 3])
def test_a_photograph_of_the_card_gives_the_swatches_back(seed):
    """Exposure, white balance, tone curve, fall-off and tilt differ each time."""
    rng = np.random.default_rng(seed)
    true, painted = card(rng)
    shot = Shot(rng.uniform(0.7, 1.0), tuple(rng.uniform(0.9, 1.1, 2)), rng.uniform(0, 0.2), rng.uniform(0, 0.35))
    read = read_card_picture(photographed(painted, shot, rng), 4)
    off = [
        float(difference(r.lab, lab_of(swatch(paint, curves()["PW6"], r.tint, r.over))))
        for paint, readings in zip(true, read.readings, strict=True)
        for r in readings
    ]
    assert len(off) == 16 and np.median(off) < 0.8 and max(off) < 3
    assert read.step_error < 2 and all(len(r) == 4 for r in read.readings)


@pytest.mark.parametrize(
    ("shot", "steps", "why"),
    [
        (Shot(exposure=1.5), USUAL_STEPS, "burnt out"),
        (Shot(exposure=0.5, falls_off=0.9), USUAL_STEPS, "more light than the other"),
        (Shot(), (86.0,) * 6, "no grey steps are seen"),
        (Shot(), USUAL_STEPS[::-1], "do not fall from light to dark"),
        (Shot(), (95.0, 55.0, 50.0, 45.0, 40.0, 20.0), "off any even curve"),
    ],
)
def test_what_cannot_be_undone_is_refused_with_its_reason(shot, steps, why):
    rng = np.random.default_rng(4)
    _, painted = card(rng, steps)
    with pytest.raises(CardTrouble) as trouble:
        read_card_picture(photographed(painted, shot, rng), 4)
    assert why in str(trouble.value)


def test_a_photograph_of_something_else_is_refused():
    with pytest.raises(CardTrouble):
        read_card_picture(np.full((400, 600, 3), 120, np.uint8), 2)


def test_the_same_tube_reads_alike_on_the_lit_side_and_on_the_other():
    rng = np.random.default_rng(6)
    tube = true_paint(curves()["PY43"], rng)
    painted = card_picture([tube] * 4, curves()["PW6"])
    read = read_card_picture(photographed(painted, Shot(falls_off=0.3), rng), 4)
    assert read.uneven > 0.15
    for left, right in zip(read.readings[0], read.readings[3], strict=True):
        assert float(difference(left.lab, right.lab)) < 0.8
