"""A simulated studio whose true paints differ from the table: what reading them gains. Seeded; no real paint was measured."""

import numpy as np
import pytest

from tests.rooms.paint.conftest import box_of
from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.paint.calibration.staircase import Staircase, answered
from yarrow_lane.paint.calibration.strengths import Dab, learnt_strengths, with_strengths
from yarrow_lane.paint.calibration.swatches import Reading, own_curves, swatch
from yarrow_lane.paint.doubt import SWATCHED, TINTED, UNKNOWN, doubt_of, word_of
from yarrow_lane.paint.pigments.curves import curves
from yarrow_lane.paint.seen import lab_of
from yarrow_lane.standins.swatch_photo import true_paint

KEYS = ("PW6", "PW6:1", "PY43", "PBr7bu", "PR122", "PB29", "PBr7bs", "PR108")


def recipes(rng, count):
    known = box_of(KEYS)
    out = np.zeros((count, len(KEYS)))
    for n in range(count):
        some = rng.choice(len(KEYS), rng.integers(2, 4), replace=False)
        out[n, some] += rng.dirichlet(np.ones(len(some))) / (known.absorbing[some].mean(axis=1) + 0.15) ** 0.5
        out[n, 0] += (n % 2) * rng.uniform(0.5, 3) * out[n].sum()
    return out


def seen_swatches(true, rng, noise=0.04):
    found = []
    for tint in (False, True):
        for over in ("white", "black"):
            r = swatch(true, curves()["PW6"], tint, over, 0.3, float(np.exp(0.25 * rng.normal())))
            lab = lab_of(np.clip(r * (1 + noise * rng.normal()), 1e-4, 1.2)) + rng.normal(size=3) * 0.6
            found.append(Reading(tint, over, tuple(float(v) for v in lab), 1.55))
    return found


def test_swatches_of_every_tube_halve_the_error_of_mixes():
    rng, before, after = np.random.default_rng(11), [], []
    for _ in range(2):
        true = {k: true_paint(curves()[k], rng) if k != "PW6" else curves()[k] for k in KEYS}
        own = {
            k: own_curves(curves()[k], curves()["PW6"], seen_swatches(true[k], rng)).curves if k != "PW6" else curves()[k]
            for k in KEYS
        }
        parts = recipes(rng, 120)
        measured = box_of(KEYS, true).lab(np.where(parts > 0, parts * np.exp(0.09 * rng.normal(size=parts.shape)), 0))
        before.append(difference(box_of(KEYS).lab(parts), measured))
        after.append(difference(box_of(KEYS, own).lab(parts), measured))
    assert np.median(np.concatenate(after)) < 1.8 < np.median(np.concatenate(before))
    assert np.median(np.concatenate(after)) < 0.62 * np.median(np.concatenate(before))


@pytest.mark.parametrize("factor", [0.5, 2.0])
def test_three_tints_take_most_of_a_wrong_strength_away(factor):
    rng = np.random.default_rng(3)
    true = {k: curves()[k] for k in KEYS}
    for k in KEYS[2:]:
        bent_k, bent_s = true_paint(curves()[k], rng, 0.15)
        true[k] = bent_k * factor, bent_s
    real, known = box_of(KEYS, true), box_of(KEYS, doubt=UNKNOWN)
    dabs = []
    for column in (2, 4, 5):
        tint = np.eye(len(KEYS))[column] + 10 * np.eye(len(KEYS))[0]
        dabs.append(Dab(tint, tuple(real.lab(tint) + rng.normal(size=3)), 1.5))
    taught = with_strengths(known, learnt_strengths(known, dabs))
    parts = recipes(rng, 150)
    before, after = (float(np.median(difference(b.lab(parts), real.lab(parts)))) for b in (known, taught))
    assert after < 0.5 * before, (before, after)
    assert max(p.doubt for p in taught.all if not p.white) < UNKNOWN


def test_a_truth_of_another_form_is_met_half_way_too():
    """Crowding of white pigment is not in the model: swatches still help."""
    rng = np.random.default_rng(9)
    crowded = {k: (v[0], v[1] * (1 - 0.25 * (k == "PW6:1"))) for k, v in curves().items() if k in KEYS}
    own = dict(crowded)
    own["PW6:1"] = own_curves(curves()["PW6:1"], curves()["PW6"], seen_swatches(crowded["PW6:1"], rng, 0.02)).curves
    parts = recipes(rng, 100)
    parts[:, 1] += parts.sum(axis=1)
    real = box_of(KEYS, crowded).lab(parts)
    assert (
        np.median(difference(box_of(KEYS, own).lab(parts), real)) <= np.median(difference(box_of(KEYS).lab(parts), real)) + 0.1
    )


def test_a_mix_that_was_seen_makes_that_mix_right():
    rng = np.random.default_rng(5)
    true = {k: true_paint(curves()[k], rng) if k != "PW6" else curves()[k] for k in KEYS}
    known, real = box_of(KEYS), box_of(KEYS, true)
    mix = np.array([6.0, 0, 2, 0, 0.5, 0, 1, 0])
    taught = with_strengths(known, learnt_strengths(known, [Dab(mix, tuple(real.lab(mix)), 1.5)]))
    assert float(difference(taught.lab(mix), real.lab(mix))) < 0.6 * float(difference(known.lab(mix), real.lab(mix)))
    assert learnt_strengths(known, []).absorbs.tolist() == [0.0] * len(KEYS)


def test_the_doubt_falls_with_what_is_known_and_has_its_word():
    mix = np.array([6.0, 0, 2, 0, 0.5, 0, 1, 0])
    doubts = [doubt_of(box_of(KEYS, doubt=d), mix) for d in (UNKNOWN, TINTED, SWATCHED)]
    assert doubts[0] > doubts[1] > doubts[2] > 1
    assert [word_of(d) for d in (1.9, 2.0, 4.0, 4.1)] == ["good", "close", "close", "guide"]
    rest = np.eye(len(KEYS))[0]
    assert doubt_of(box_of(KEYS), rest) < 1.2, "white alone is white"


def test_what_is_told_as_doubt_is_about_what_paint_is_off():
    """Tubes drawn as far off as their doubt says: the told figure and the true one agree within half."""
    rng, mix = np.random.default_rng(7), np.array([6.0, 0, 2, 0, 0.5, 0, 1, 0])
    known = box_of(KEYS, doubt=0.3)
    off = []
    for _ in range(150):
        true = {
            k: (v[0] * np.exp(0.3 * rng.normal()), v[1] * np.exp(0.3 * rng.normal())) if k != "PW6" else v
            for k, v in curves().items()
            if k in KEYS
        }
        slipped = np.where(mix > 0, mix * np.exp(0.1 * rng.normal(size=8)), 0)
        off.append(float(difference(box_of(KEYS, true).lab(slipped), known.lab(mix))))
    told, real = doubt_of(known, mix), float(np.sqrt(np.mean(np.square(off))))
    assert 0.6 < told / real < 1.7, (told, real)


@pytest.mark.parametrize("off", [(6.0, -5.0, 8.0), (-9.0, 3.0, -4.0), (0.5, 0.3, -0.2)])
def test_an_eye_at_the_staircase_comes_within_two(off):
    paint = np.array([55.0, 12.0, 20.0]) + off
    stairs, asked = Staircase((55.0, 12.0, 20.0)), 0
    while not stairs.done:
        axis = (0, 2, 1, 0)[stairs.stage]
        rest = paint[axis] - stairs.shown[axis]
        stairs = answered(stairs, "same" if abs(rest) < 0.8 else "more" if rest > 0 else "less")
        asked += 1
    assert float(difference(stairs.shown, paint)) < 2 and asked < 40
    assert answered(stairs, "more") is stairs
