"""What resolves: measured on pictures the constants were not fitted on, made worse in known amounts.

Real photographs shipped with scikit-image (cat: S. van der Walt, CC0; coffee: R. Michel, CC0) and rendered sitters, shrunk so that
nearly all of their pixels resolve. The whole set is measured by `scripts/bench intake`; here a share of it.
"""

import itertools
import math

import cv2
import numpy as np
import pytest
import skimage.data
from bench.degraded import AREA, CUBIC, blur, harms, out_of_focus, sized

from tests.rooms.intake.degraded import CAT_EYES
from yarrow_lane.demo.sitter_files import sitter_file
from yarrow_lane.intake.detail import FULL, about, detail_of, iris_detail
from yarrow_lane.intake.evidence import Evidence, measure_photo
from yarrow_lane.intake.opening import open_whole
from yarrow_lane.intake.photos import Eye
from yarrow_lane.intake.ranking import worth
from yarrow_lane.intake.resolution.enlarged import enlarged
from yarrow_lane.intake.resolution.repeats import without_repeats
from yarrow_lane.intake.resolution.usable import usable, usable_at

HARMS = harms()


def grey(picture: np.ndarray) -> np.ndarray:
    return cv2.cvtColor(np.ascontiguousarray(picture), cv2.COLOR_RGB2GRAY)


@pytest.fixture(scope="module")
def bases() -> dict[str, np.ndarray]:
    person = open_whole(sitter_file("person1").jpeg, "person1")
    return {"cat": skimage.data.cat(), "coffee": skimage.data.coffee(), "person": sized(person, 0.4, AREA)}


@pytest.fixture(scope="module")
def measured(bases) -> list[tuple[str, str, float, float, float]]:
    """(base, harm, truth, share found, usable width relative to the base) of every second harm."""
    found = []
    for name, base in bases.items():
        own = usable(grey(base))
        for harm in HARMS[::2]:
            picture = harm.make(base)
            seen = usable(grey(picture))
            assert seen is not None and own is not None
            found.append((name, harm.name, harm.share, seen.share, seen.share * picture.shape[1] / base.shape[1]))
    return found


def test_the_share_is_found_within_a_tenth_by_half_of_them(measured, bases):
    """Against the truth times what the base itself resolves: it is not all of its pixels."""
    own = {name: usable(grey(base)).share for name, base in bases.items()}
    errors = [abs(math.log(share / min(1.0, truth * own[name]))) for name, _, truth, share, _ in measured]
    assert float(np.median(errors)) <= 0.10 and float(np.percentile(errors, 90)) <= 0.35


def test_the_order_of_what_resolves_is_followed(measured, bases):
    """Pairs of one picture whose true usable widths are more than a tenth apart."""
    right = wrong = 0
    for one, other in itertools.combinations(measured, 2):
        if one[0] != other[0]:
            continue
        width = {h.name: h.make(bases[one[0]]).shape[1] for h in HARMS if h.name in (one[1], other[1])}
        truths = one[2] * width[one[1]], other[2] * width[other[1]]
        if abs(math.log(truths[0] / truths[1])) > 0.1:
            agree = (truths[0] > truths[1]) == (one[4] > other[4])
            right, wrong = right + agree, wrong + (not agree)
    assert right + wrong > 300 and right / (right + wrong) >= 0.96


def test_what_is_enlarged_or_soft_is_not_called_full(measured):
    soft = [(name, harm, share) for name, harm, truth, share, _ in measured if truth < 0.5]
    assert sum(share >= FULL for *_, share in soft) <= 0.03 * len(soft) + 1, soft


@pytest.mark.parametrize("times", [2, 3, 4])
def test_repeated_pixels_are_seen(bases, times):
    for base in bases.values():
        _, factor = without_repeats(sized(grey(base), times, cv2.INTER_NEAREST))
        assert factor == pytest.approx(times, rel=0.03)
        assert without_repeats(grey(base))[1] == 1.0


def test_the_trace_of_enlarging_is_not_seen_where_nothing_was_enlarged(bases):
    assert not any(enlarged(grey(base)) for base in bases.values())
    assert enlarged(sized(grey(bases["coffee"]), 3, CUBIC))


def test_an_empty_wall_says_too_little():
    wall = np.full((300, 400), 120, np.uint8)
    assert usable(wall) is None and usable_at(wall, Eye("left", 150, 150, 20)) is None
    seen = measure_photo(np.full((300, 400, 3), 120, np.uint8), ())
    assert seen.share == 1.0 and "too little" in detail_of(400, 300, seen).words
    assert usable(np.zeros((3, 3), np.uint8)) is None


def eyes_at(times: float) -> tuple[Eye, ...]:
    return tuple(Eye(e.side, e.x * times, e.y * times, e.radius_px * times) for e in CAT_EYES)


def seen_at(picture: np.ndarray, times: float = 1.0) -> tuple[float, float, Evidence]:
    """Worth, detail of the nearer iris, and everything else."""
    eyes = eyes_at(times)
    evidence = measure_photo(picture, eyes)
    iris = max(e.across_px for e in eyes)
    return worth(iris, evidence), iris_detail(iris, evidence), evidence


def test_an_original_is_worth_more_than_its_enlarged_and_blurred_copies(cat):
    """The walk of a new painter: blurred by 5 px it was crisp, enlarged 3.9 times it won."""
    original, detail, _ = seen_at(cat)
    copies = {
        "blurred": seen_at(blur(cat, 5)),
        "enlarged": seen_at(sized(cat, 3.9, CUBIC), 3.9),
        "enlarged and blurred": seen_at(blur(sized(cat, 3.9, CUBIC), 5), 3.9),
        "pixels repeated": seen_at(sized(cat, 3, cv2.INTER_NEAREST), 3),
    }
    for name, (value, resolves, evidence) in copies.items():
        assert value < original, name
        assert resolves < 1.25 * detail and evidence.share < FULL, name
    words = detail_of(451 * 4, 300 * 4, copies["pixels repeated"][2]).words
    assert words.startswith("enlarged: detail of about")


def test_eyes_alone_out_of_focus_are_seen(cat):
    mask = np.zeros(cat.shape[:2], np.float32)
    for eye in CAT_EYES:
        cv2.circle(mask, (int(eye.x), int(eye.y)), int(3.2 * eye.radius_px), 1, -1)
    mask = blur(mask, 6)[..., None]
    soft = (cat * (1 - mask) + out_of_focus(cat, 5) * mask).astype(np.uint8)
    _, detail, evidence = seen_at(soft)
    assert evidence.eye.share < 0.6 * seen_at(cat)[2].eye.share
    assert detail < 0.6 * seen_at(cat)[1]


@pytest.mark.parametrize(("pixels", "said"), [(41.7, 42), (1012, 1000), (3994, 4000), (7.3, 7), (0.4, 0), (96.0, 96)])
def test_two_figures_are_said(pixels, said):
    assert about(pixels) == said
