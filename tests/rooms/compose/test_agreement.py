"""Colour and light of two photographs brought together: a cast put on a known picture comes off again, light goes with its sitter."""

from dataclasses import replace

import numpy as np
import pytest

from tests.rooms.compose.making import FENNEL
from yarrow_lane.compose import pieces
from yarrow_lane.compose.agreement import (
    AgreementTrouble,
    by_neutral,
    by_statistics,
    light_on,
    light_words,
    lost_words,
    move_words,
    seen,
    value_between,
)
from yarrow_lane.compose.drawing.colour_move import moved_light
from yarrow_lane.compose.pieces import Move
from yarrow_lane.compose.scale import receded
from yarrow_lane.intake.light import Light
from yarrow_lane.measure.colour.cielab import lab_from_linear

MOSS = replace(FENNEL, id=2, name="Moss", turn_deg=0.0, mirrored=False)
CAST = np.array([1.25, 1.0, 0.7])  # red, green and blue of lamplight beside daylight, as a camera left on daylight sees it


def greys(count: int = 400) -> np.ndarray:
    """A coat between dark and light, nearly grey, linear light (n, 3)."""
    rng = np.random.default_rng(11)
    return np.clip(rng.uniform(0.05, 0.6, (count, 1)) + rng.normal(0, 0.004, (count, 3)), 0.01, 0.9)


def apart(one: np.ndarray, other: np.ndarray) -> float:
    """Between colours without their lightness, in a*b*."""
    return float(np.hypot(*(lab_from_linear(one)[..., 1:] - lab_from_linear(other)[..., 1:]).reshape(-1, 2).T).mean())


def light(degrees: float | None) -> Light:
    return Light(degrees, "clear", "")


def test_one_neutral_clicked_in_both_takes_the_cast_off():
    here = greys() * CAST
    move = by_neutral(np.array([0.2, 0.2, 0.2]) * CAST, np.array([0.2, 0.2, 0.2]), Move(steps=0.5))
    assert move.steps == 0.5 and move.warm < -5, "it is cooled, and what was set stays"
    mended = moved_light(here.astype(np.float32), replace(move, steps=0.0))
    assert apart(mended, greys()) < 0.1 * apart(here, greys())


def test_statistics_go_half_the_way():
    """A coat passes for a cast: what the greyest parts ask for is halved."""
    whole = by_neutral(np.array([0.2, 0.2, 0.2]) * CAST, np.array([0.2, 0.2, 0.2]), Move())
    half = by_statistics(seen(greys() * CAST), seen(greys()), Move())
    assert half.warm == pytest.approx(whole.warm / 2, abs=1.0) and half.pink == pytest.approx(whole.pink / 2, abs=1.0)
    assert by_statistics(seen(greys()), seen(greys()), Move()).plain


@pytest.mark.parametrize("level", [0.0005, 0.999])
def test_a_black_or_burnt_place_balances_nothing(level):
    with pytest.raises(AgreementTrouble, match="black or burnt out"):
        by_neutral(np.full(3, level), np.full(3, 0.2), Move())


def test_what_the_camera_lost_is_said():
    pixels = greys()
    assert lost_words("Moss", seen(pixels)) == ""
    pixels[:40] = 1.0
    assert lost_words("Moss", seen(pixels)).startswith("10% of Moss is burnt out")
    pixels[40:120] = 0.0
    assert "20% of Moss is black" in lost_words("Moss", seen(pixels))
    lighter = 116 * (np.cbrt(0.4) - np.cbrt(0.2)) / 10  # CIELAB's own formula
    assert value_between(seen(np.full((60, 3), 0.4)), seen(np.full((60, 3), 0.2))) == pytest.approx(lighter, abs=0.01)
    with pytest.raises(AgreementTrouble):
        seen(np.zeros((0, 3)))


@pytest.mark.parametrize(("turn", "mirrored"), [(0.0, False), (30.0, False), (-75.0, True), (0.0, True)])
def test_light_goes_with_its_sitter(turn, mirrored):
    """As the outline itself goes: a point towards the light in the photograph lies towards it on the canvas."""
    placed = replace(MOSS, turn_deg=turn, mirrored=mirrored)
    x, y = placed.anchor
    angle = np.radians(50.0)
    there = pieces.to_canvas(placed, (x + np.sin(angle), y - np.cos(angle)))
    dx, dy = there[0] - placed.at_mm[0], there[1] - placed.at_mm[1]
    assert light_on(placed, light(50.0)) == pytest.approx(np.degrees(np.arctan2(dx, -dy)) % 360)
    assert light_on(placed, light(None)) is None


def test_light_that_disagrees_as_placed_is_said():
    lead = replace(FENNEL, turn_deg=0.0, mirrored=False)
    assert light_words(MOSS, light(60), lead, light(75)) == ""
    words = light_words(MOSS, light(300), lead, light(60))
    assert "4 hours from Fennel's" in words and "Mirrored it would be 0" in words
    assert light_words(pieces.mirrored(MOSS), light(300), lead, light(60)) == ""
    assert light_words(MOSS, light(300), pieces.mirrored(lead), light(60)) == "", "the lead may be the one that is mirrored"
    assert "Mirrored" not in light_words(MOSS, light(180), lead, light(0)), "from below it stays from below"
    assert light_words(MOSS, light(None), lead, light(60)) == ""


def test_distance_is_cooler_and_flatter():
    """Common practice: what is far is cool and of low contrast, what is near warm and of high contrast."""
    assert receded(1.0) == (0.0, 1.0)
    far, near = receded(2.0), receded(0.5)
    assert far[0] < 0 < near[0] and far[1] < 1 < near[1]
    assert move_words(Move(warm=far[0], contrast=far[1])) == "less contrast (× 0.80), cooler"
    assert move_words(Move()) == "as photographed"
