"""Photographs are ranked as a painter would: against made degradations whose order is known."""

import itertools
from dataclasses import replace

import numpy as np
import pytest

from tests.rooms.intake.degraded import Harm, harmed, sources
from tests.rooms.intake.evidence import PLAIN, resolving
from yarrow_lane.intake.detail import largest_canvas_mm, usable_px_per_mm
from yarrow_lane.intake.evidence import measure_photo, near_eye
from yarrow_lane.intake.light import Glint
from yarrow_lane.intake.photos import Eye, Photo
from yarrow_lane.intake.ranking import rank, reason_of, worth
from yarrow_lane.measure.progress import Cancelled, Progress

EACH = 40


def test_the_known_order_is_followed_in_98_percent_of_pairs():
    """80 degradations of a real and a rendered photograph; of every pair with a known order the better one must be worth more."""
    dice = np.random.default_rng(20261126)
    right = wrong = 0
    for source in sources():
        judged = []
        for _ in range(EACH):
            harm = Harm(
                float(dice.choice([1, 0.7, 0.5, 0.35])),
                float(dice.choice([0, 0.03, 0.07, 0.13])),
                float(dice.choice([1, 0.6, 0.35, 0.2])),
                int(dice.integers(4)),
            )
            worse, moved = harmed(source, harm)
            judged.append((harm, worth(2 * max(e.radius_px for e in moved), measure_photo(worse, moved))))
        for (a, worth_a), (b, worth_b) in itertools.permutations(judged, 2):
            if a.plainly_better_than(b, source):
                right += worth_a > worth_b
                wrong += worth_a <= worth_b
    assert right + wrong > 500, "too few pairs have a known order: the test would prove little"
    assert right / (right + wrong) >= 0.98, (right, wrong)


def photo(name: str, radius: float | None = 40.0) -> Photo:
    eyes = () if radius is None else (Eye("left", 100, 100, radius),)
    return Photo(name, f"{name}.jpg", 1000, 800, eyes=eyes)


@pytest.mark.parametrize(
    ("radius", "change", "words"),
    [
        (None, {}, "no eye marked yet"),
        (8.0, {}, "the eyes are too small: 16 px across the iris"),
        (40.0, {"eye": resolving(0.2)}, "out of focus at the eyes, sharper elsewhere: 80 px across the iris, detail of 16"),
        (
            40.0,
            {"eye": resolving(0.2), "whole": resolving(0.2), "enlarged": True},
            "enlarged: detail of about 200 px, not 1,000: 80 px across the iris, detail of 16",
        ),
        (40.0, {"eye_lightness": 12.0}, "the eyes lie in the dark"),
        (40.0, {"high_share": 0.3}, "highlights are burnt out over 30%"),
        (15.0, {}, "workable: 30 px across the iris"),
        (
            80.0,
            {"eye": resolving(0.3), "whole": resolving(0.3)},
            "soft all over, or enlarged: detail of about 300 px, not 1,000; 160 px across the iris, detail of 48",
        ),
        (40.0, {"high_share": 0.05}, "large eyes, but highlights cut over 5%"),
        (40.0, {}, "large eyes, 80 px of detail"),
        (40.0, {"glints": (Glint(1, 1, 50, 0), Glint(2, 2, 50, 0))}, "large eyes, 80 px of detail and readable glints"),
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


def test_what_does_not_resolve_is_taken_from_what_the_canvas_can_carry():
    """All of it resolving: 2400 px carry 60 cm at 4 px per mm (handbook: workable). A share of a half carries half."""
    assert largest_canvas_mm((2400, 1600), PLAIN, 4.0) == pytest.approx((600, 400))
    soft = replace(PLAIN, whole=resolving(0.5))
    assert largest_canvas_mm((2400, 1600), soft, 4.0) == pytest.approx((300, 200))
    assert usable_px_per_mm(6.0, soft) == pytest.approx(3.0)
    assert usable_px_per_mm(6.0, replace(PLAIN, whole=None)) == 6.0, "what cannot be measured is counted as it is stored"


def test_measuring_stops_when_the_photograph_is_no_longer_wanted(cat):
    with pytest.raises(Cancelled):
        measure_photo(cat, (), Progress(stopped=lambda: True))


def test_of_one_shot_the_enlarged_copy_comes_after_the_original():
    """It stores nine times the pixels and its edges read a little sharper; one that plainly shows more stays first."""
    shot = "ab" * 32
    small = replace(photo("small", 40.0), shot=shot)
    large = replace(photo("large", 120.0), width_px=3000, height_px=2400, shot=shot)
    seen = {"small": replace(PLAIN, whole=resolving(0.7), eye=resolving(0.6))}
    enlarged = seen | {"large": replace(PLAIN, whole=resolving(0.3), eye=resolving(0.3))}
    assert worth(240, enlarged["large"]) > worth(80, enlarged["small"]), "by the measure alone it would win"
    assert [r.photo_id for r in rank([large, small], enlarged)] == ["small", "large"]
    original = seen | {"large": replace(PLAIN, whole=resolving(0.6), eye=resolving(0.6))}
    assert [r.photo_id for r in rank([small, large], original)] == ["large", "small"]
    other = replace(large, shot="cd" * 32)
    assert [r.photo_id for r in rank([small, other], enlarged)] == ["large", "small"], "another shot is judged by itself"
