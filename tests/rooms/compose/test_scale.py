"""One scale for all, against SciPy's least squares and against what is true of made groups."""

import math
from dataclasses import replace

import numpy as np
import pytest
from scipy.optimize import least_squares

from tests.rooms.compose.making import THREE
from yarrow_lane.compose.known import PUPILS_DOUBT_MM, PUPILS_MM, Known
from yarrow_lane.compose.placing import all_at_one_scale, at_share, scales_of
from yarrow_lane.compose.scale import ScaleTrouble, Tie, far_words, one_scale, share_words, solve
from yarrow_lane.demo.sitter_files import sitter_file


def group(rng: np.random.Generator, sitters: int = 4, times: float = 1.0) -> tuple[dict[int, float], list[Known]]:
    """True log mm per px by sitter, and one to three lengths of each with honest doubts; the first is `times` wrong."""
    true = {n: float(rng.normal(-1.5, 0.4)) for n in range(1, sitters + 1)}
    known = []
    for n, log in true.items():
        for length in range(int(rng.integers(1, 4))):
            mm = float(rng.uniform(50, 250))
            doubt = mm * float(rng.uniform(0.02, 0.06))
            px = (mm + float(rng.normal(0, doubt))) / math.exp(log)
            known.append(Known(n, f"length {length}", (0, 0), (px, 0), mm, doubt))
    return true, known


def test_it_is_what_scipy_finds():
    rng = np.random.default_rng(1)
    for _ in range(30):
        true, known = group(rng)
        tie = Tie(1, 2, math.exp(true[1] - true[2]), 0.05)
        found = solve(known, {}, [tie])

        def off(x: np.ndarray, known=known, tie=tie) -> np.ndarray:
            rows = [
                (x[k.piece_id - 1] - math.log(k.mm / k.b[0])) / math.hypot(k.doubt_mm / k.mm, math.sqrt(2) * 2 / k.b[0])
                for k in known
            ]
            return np.array([*rows, (x[tie.one - 1] - x[tie.other - 1] - math.log(tie.ratio)) / tie.doubt])

        other = least_squares(off, np.zeros(4), xtol=1e-14, ftol=1e-14, gtol=1e-14).x
        assert [found.log_mm_per_px[n] for n in (1, 2, 3, 4)] == pytest.approx(other.tolist(), abs=1e-7)


def test_the_spread_holds_as_often_as_it_says():
    rng = np.random.default_rng(2)
    held = []
    for _ in range(600):
        true, known = group(rng)
        found = solve(known, {})
        held += [abs(found.log_mm_per_px[n] - true[n]) < 1.96 * found.sigma[n] for n in true]
    assert 0.93 <= np.mean(held) <= 0.97


def test_a_wrong_length_is_accused_and_honest_ones_seldom_are():
    rng = np.random.default_rng(3)
    falsely = np.mean([bool(solve(group(rng)[1], {}).accused) for _ in range(300)])
    assert falsely < 0.08
    named = 0
    for _ in range(100):
        log = float(rng.normal(-1.5, 0.4))
        known = [
            Known(1, w, (0, 0), (mm / math.exp(log), 0), mm, 0.03 * mm) for w, mm in (("eyes", 60), ("ears", 120), ("tag", 40))
        ]
        wrong = known[1]
        known[1] = Known(1, "ears", (0, 0), wrong.b, wrong.mm * 1.3, wrong.doubt_mm)
        said = solve(known, {1: "Moss"}).accused
        named += any("by its ears" in words and words.startswith("Moss") for words in said)
    assert named > 90


def test_of_two_that_contradict_each_other_both_are_named():
    known = [Known(1, "eyes", (0, 0), (100, 0), 45, 1), Known(1, "ear tips", (0, 0), (150, 0), 95, 2)]
    (said,) = solve(known, {1: "Moss"}).accused
    assert "by its eyes" in said and "its ear tips" in said and "Measure one of them again" in said


def test_a_persons_pupils_give_the_scale_of_the_camera_within_the_doubt():
    person = sitter_file("person1")
    left, right = ((e.x, e.y) for e in person.eyes)
    found = solve([Known(1, "pupils", left, right, PUPILS_MM, PUPILS_DOUBT_MM)], {})
    import json
    from importlib import resources

    truth = json.loads(resources.files("yarrow_lane.demo").joinpath("sitters/sitter-person1.json").read_text())
    camera = truth["camera"]
    high = camera.get("render_height_before_crop", truth["height"])
    true = 2 * math.tan(math.radians(camera["fov_y_deg"] / 2)) * camera["focus_cm"] * 10 / high
    assert abs(found.log_mm_per_px[1] - math.log(true)) < 1.96 * found.sigma[1]
    share, sigma = found.share(1, true)
    assert share == pytest.approx(1.0, abs=2 * sigma) and share_words(share, sigma).endswith("±\u202f6\u202f%")


def test_all_come_to_one_share_of_life_with_one_key():
    known = [Known(n, "head", (0, 0), (200, 0), mm, mm * 0.04) for n, mm in ((1, 230), (2, 95), (3, 90))]
    scales = solve(known, {})
    after = all_at_one_scale(THREE, scales)
    shares = [scales.share(p.id, p.mm_per_px)[0] for p in after.pieces]
    assert shares == pytest.approx([shares[0]] * 3)
    life = at_share(after, scales, 2, 1.0)
    assert scales.share(2, life.piece(2).mm_per_px)[0] == pytest.approx(1.0)
    share, wanted = one_scale(scales, {1: 0.9, 2: 0.8}, {2: 1.25})
    assert scales.share(1, wanted[1])[0] == pytest.approx(share) == pytest.approx(scales.share(2, wanted[2])[0] * 1.25)


def test_what_says_nothing_of_scale_is_said():
    with pytest.raises(ScaleTrouble):
        solve([Known(1, "eyes", (5, 5), (5, 5), 60, 2)], {})
    with pytest.raises(ScaleTrouble):
        all_at_one_scale(THREE, solve([], {}))
    assert solve([], {}).share(1, 1.0) is None
    tied = solve([Known(1, "eyes", (0, 0), (60, 0), 60, 2)], {}, [Tie(1, 2), Tie(2, 3)])
    assert set(tied.sigma) == {1, 2, 3} and tied.sigma[3] > tied.sigma[2] > tied.sigma[1]


def test_sitters_of_one_photograph_share_what_is_known_of_one():
    known = (Known(1, "head", (0, 0), (200, 0), 200, 4),)
    apart = scales_of(replace(THREE, known=known))
    assert set(apart.sigma) == {1}
    beside = replace(THREE, known=known, pieces=(THREE.pieces[0], replace(THREE.pieces[1], photo_id="p1"), THREE.pieces[2]))
    found = scales_of(beside)
    assert set(found.sigma) == {1, 2} and found.sigma[2] > found.sigma[1]
    assert found.log_mm_per_px[2] == pytest.approx(found.log_mm_per_px[1])


def test_distances_have_words():
    assert far_words(1.005) == "at the same distance"
    assert "1.25 times farther" in far_words(1.25) and "0.80 of its size" in far_words(1.25)
    assert "nearer" in far_words(0.8) and "1.25 times" in far_words(0.8)
