"""Photographs are ranked as a painter would: against made degradations whose order is known."""

import itertools
from dataclasses import replace

import numpy as np
import pytest

from tests.rooms.intake.degraded import Harm, harmed, sources
from yarrow_lane.intake.evidence import Evidence, largest_canvas_mm, measure_photo, near_eye, usable_px_per_mm
from yarrow_lane.intake.exposure import Cast
from yarrow_lane.intake.light import Glint, Light
from yarrow_lane.intake.photos import Eye, Photo
from yarrow_lane.intake.ranking import rank, reason_of, worth
from yarrow_lane.measure.progress import Cancelled, Progress

EACH = 100


def test_the_known_order_is_followed_in_95_percent_of_pairs():
    """200 degradations of two real photographs; of every pair with a known order the better one must be worth more."""
    dice = np.random.default_rng(20261124)
    right = wrong = 0
    for picture, eyes in sources():
        judged = []
        for _ in range(EACH):
            harm = Harm(
                float(dice.choice([1, 0.7, 0.5, 0.35])),
                float(dice.choice([0, 0.03, 0.07, 0.13])),
                float(dice.choice([1, 0.6, 0.35, 0.2])),
                int(dice.integers(4)),
            )
            worse, moved = harmed(picture, eyes, harm)
            judged.append((harm, worth(2 * max(e.radius_px for e in moved), measure_photo(worse, moved))))
        for (a, worth_a), (b, worth_b) in itertools.permutations(judged, 2):
            if a.plainly_better_than(b):
                right += worth_a > worth_b
                wrong += worth_a <= worth_b
    assert right + wrong > 2000, "too few pairs have a known order: the test would prove little"
    assert right / (right + wrong) >= 0.95


PLAIN = Evidence(0.5, 0.4, 0.0, 0.0, Cast((0, 0), (0, 0)), 20.0, 70.0, (), Light(None, "unknown", "no readable glint"))


def photo(name: str, radius: float | None = 40.0) -> Photo:
    eyes = () if radius is None else (Eye("left", 100, 100, radius),)
    return Photo(name, f"{name}.jpg", 1000, 800, eyes=eyes)


@pytest.mark.parametrize(
    ("radius", "change", "words"),
    [
        (None, {}, "no eye marked yet"),
        (10.0, {}, "the eyes are too small: 20 px across the iris"),
        (40.0, {"sharpness": 3.0}, "the lids are soft"),
        (40.0, {"eye_lightness": 12.0}, "the eyes lie in the dark"),
        (40.0, {"high_share": 0.3}, "highlights are burnt out over 30%"),
        (20.0, {}, "workable: 40 px across the iris"),
        (40.0, {"sharpness": 8.0}, "large eyes, a little soft"),
        (40.0, {"high_share": 0.05}, "sharp eyes, but highlights cut over 5%"),
        (40.0, {}, "large, sharp eyes"),
        (40.0, {"glints": (Glint(1, 1, 50, 0), Glint(2, 2, 50, 0))}, "large, sharp eyes with readable glints"),
    ],
)
def test_the_reason_is_the_one_thing_that_matters_most(radius, change, words):
    assert reason_of(photo("a", radius), replace(PLAIN, **change)) == words


def test_the_best_comes_first_and_without_eyes_last():
    blind, small, large = photo("blind", None), photo("small", 12), photo("large", 60)
    found = rank([blind, small, large], {p.id: PLAIN for p in (blind, small, large)})
    assert [r.photo_id for r in found] == ["large", "small", "blind"]
    assert found[-1].worth == 0
    assert rank([large], {})[0].reason == "being measured"


def test_of_two_like_photographs_the_one_less_burnt_out_comes_first():
    burnt, clean, sunk = photo("burnt"), photo("clean"), photo("sunk")
    seen = {"burnt": replace(PLAIN, high_share=0.2), "clean": PLAIN, "sunk": replace(PLAIN, low_share=0.2)}
    assert [r.photo_id for r in rank([burnt, sunk, clean], seen)] == ["clean", "sunk", "burnt"], "shadows can be lifted"


def test_the_nearer_eye_carries_the_painting():
    far, near = Eye("left", 10, 10, 8), Eye("right", 50, 10, 11)
    assert near_eye((far, near)) is near
    assert near_eye(()) is None


def test_blur_takes_from_what_the_canvas_can_carry():
    """Sharp: 2400 px carry 60 cm at 4 px per mm (handbook: workable). A blur of s px leaves one in 2.2 s."""
    assert largest_canvas_mm((2400, 1600), 0.3, 4.0) == pytest.approx((600, 400))
    assert largest_canvas_mm((2400, 1600), 2.0, 4.0) == pytest.approx((600 / 4.4, 400 / 4.4))
    assert usable_px_per_mm(6.0, 1.0) == pytest.approx(6 / 2.2)


def test_measuring_stops_when_the_photograph_is_no_longer_wanted(cat):
    with pytest.raises(Cancelled):
        measure_photo(cat, (), Progress(stopped=lambda: True))
