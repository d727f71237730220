"""The light over the canvas and the greys that hold it; values against Munsell and CIEDE2000 of a reference library."""

import warnings

import numpy as np
import pytest

from tests.rooms.check.conftest import SIZE
from yarrow_lane.canvas_photo.borders import fitted_borders
from yarrow_lane.canvas_photo.straight import straightened
from yarrow_lane.check.greys import STEPS, Curve, Greys, curve_of, groups_round, luminance_of_steps, read_greys
from yarrow_lane.check.light import field_of
from yarrow_lane.check.measured import HiddenShare
from yarrow_lane.check.wording import hidden_words, value_words, warmth_words

with warnings.catch_warnings():
    warnings.simplefilter("ignore")
    import colour


def scene(rows=40, columns=30):
    """A made-up picture in linear light and a light that falls off across it."""
    y, x = np.mgrid[-1 : 1 : rows * 1j, -1 : 1 : columns * 1j]
    picture = 0.2 * np.exp(0.6 * np.sin(5 * x + 3 * y))[..., None] * np.array([1.1, 1.0, 0.8])
    light = np.exp(0.3 * x - 0.2 * y + 0.1 * x * y)[..., None] * np.array([1.05, 1.0, 0.92])
    return picture, light


def greys_of(light, size=(300.0, 400.0)) -> Greys:
    groups = groups_round(size)
    at = np.array([s.centre for g in groups for s in g.squares])
    x, y = (at / size * 2 - 1).T
    fall = np.exp(0.3 * x - 0.2 * y + 0.1 * x * y)[:, None] * np.array([1.05, 1.0, 0.92])
    true = np.tile(luminance_of_steps(), len(groups))
    return Greys(at, fall * true[:, None], true, np.repeat(np.arange(len(groups)), 3), tuple(g.side for g in groups))


def fitted(painting, picture, greys=None, labels=None):
    shape = picture.shape[:2]
    labels = np.zeros(shape, int) if labels is None else labels
    return field_of(painting, picture, (300.0, 400.0), np.ones(shape), labels, greys)


def test_the_light_is_found_through_local_faults():
    picture, light = scene()
    painting = picture * light
    painting[5:12, 5:12] *= 1.5
    painting[25:30, 10:18] *= 0.7
    field = fitted(painting, picture)
    assert np.abs(np.log(field.light / light))[15:24].max() < 0.04


def test_a_fault_of_the_whole_is_hidden_without_greys_and_seen_with_them():
    picture, light = scene()
    everything = np.ones(picture.shape[:2], bool)
    alone = fitted(picture * light * 1.25, picture)
    assert np.median(alone.light / light) == pytest.approx(1.25, abs=0.03) and alone.hidden(everything) > 0.9
    held = fitted(picture * light * 1.25, picture, greys_of(light))
    assert np.median(held.light / light) == pytest.approx(1.0, abs=0.01) and held.hidden(everything) < 0.02


@pytest.mark.parametrize("part", ["left", "middle"])
def test_a_fault_of_a_region_too_as_foretold(part):
    picture, light = scene()
    labels = np.zeros(picture.shape[:2], int)
    labels[:, :12] = 1 if part == "left" else 0
    labels[12:28, 8:22] = 1 if part == "middle" else labels[12:28, 8:22]
    region = labels == 1
    painting = picture * light * np.where(region, 1.25, 1.0)[..., None]
    for greys, most in ((None, 1.0), (greys_of(light), 0.05)):
        field = fitted(painting, picture, greys, labels)
        taken = np.log(np.median((field.light / light)[region])) / np.log(1.25)
        assert taken <= most and field.hidden(region) <= most + 1e-9
        assert abs(taken - field.hidden(region)) < 0.35, "the foretold share is near the true one"


def test_bare_ground_is_no_witness():
    picture, light = scene()
    painting = picture * light
    painting[:20] = 0.3
    witness = np.ones(picture.shape[:2])
    witness[:20] = 0.0
    field = field_of(painting, picture, (300.0, 400.0), witness, np.zeros(witness.shape, int))
    assert np.abs(np.log(field.light / light))[22:].max() < 0.05


def test_a_white_sheet_gives_the_shape_and_only_the_level_is_sought():
    picture, light = scene()
    painting = picture * light
    painting[:, :10] *= 1.4
    field = field_of(
        painting,
        picture,
        (300.0, 400.0),
        np.ones(picture.shape[:2]),
        np.zeros(picture.shape[:2], int),
        None,
        light / light.mean((0, 1)),
    )
    assert np.abs(np.log(field.light / light)).max() < 0.08
    assert field.hidden(np.arange(30)[None, :].repeat(40, 0) < 10) < 0.4


def test_steps_undo_the_cameras_curve_whatever_the_light():
    _, light = scene()
    bent = greys_of(light)
    curve = lambda v: 0.18 * np.exp(1.25 * np.log(v / 0.18) - 0.05 * np.log(v / 0.18) ** 2)  # noqa: E731
    seen = Greys(bent.at, curve(bent.light), bent.true, bent.group, bent.sides)
    tone = curve_of(seen)
    values = np.geomspace(0.04, 0.7, 20)
    assert np.abs(np.log(tone.undone(curve(values)) / values) - np.log(tone.undone(curve(values)) / values).mean()).max() < 0.06
    assert curve_of(None) == Curve()


def test_the_steps_are_those_of_munsell():
    """L* 25, 50 and 87 as luminance, against colour-science."""
    for lightness, y in zip(STEPS, luminance_of_steps(), strict=True):
        assert y * 100 == pytest.approx(float(colour.colorimetry.luminance_CIE1976(lightness)), rel=1e-3)
        value = float(colour.notation.munsell_value_ASTMD1535(y * 100))
        assert value == pytest.approx(lightness / 10, abs=0.25), "a value is ten of lightness, nearly"


@pytest.mark.parametrize(
    ("by", "words"),
    [(4, "half a value too light"), (-10.4, "1 value too dark"), (14, "1½ values too light"), (-21, "2 values too dark")],
)
def test_values_in_words(by, words):
    assert value_words(by) == words


def test_warmth_in_words():
    assert [warmth_words(b) for b in (5, -9, 15)] == ["a little too warm", "clearly too cool", "far too warm"]


@pytest.mark.parametrize(
    ("share", "words"),
    [(0.95, "not show"), (0.8, "only a fifth"), (0.66, "only a third"), (0.5, "only a half"), (0.35, "only a good half")],
)
def test_what_is_hidden_in_words(share, words):
    assert words in hidden_words(HiddenShare(1, "body fur", share))


def straight_of(shot):
    found = straightened(shot.picture, shot.corners(*SIZE) + 3.0, SIZE)
    return fitted_borders(shot.picture, found)


def test_borders_are_fitted_to_parts_of_a_mm_with_the_lens(shots):
    for shot in shots:
        fit = straight_of(shot)
        grid = np.stack(np.meshgrid(*(np.linspace(0, side, 7) for side in SIZE)), -1).reshape(-1, 2)
        off = np.hypot(*(fit.mm(shot.px(grid)) - grid).T)
        assert np.median(off) < 0.45 and off.max() < 0.9, "up to 0.4 mm of it is the gap a hand leaves"
        assert fit.lens.bulge == pytest.approx(shot.lens.bulge, abs=0.004) and fit.weak == ()


def test_covered_and_burnt_groups_are_left_out(shots):
    shot = shots[0]
    fit = straight_of(shot)
    assert read_greys(shot.picture, fit).groups == 10
    groups = groups_round(SIZE)
    picture = shot.picture.copy()
    for group in groups[:5]:
        for n, square in enumerate(group.squares[:2]):
            at = np.rint(fit.px(np.array([square.centre]))[0]).astype(int)
            picture[at[1] - 22 : at[1] + 22, at[0] - 22 : at[0] + 22] = (90, 60, 200) if n else (250, 250, 250)
    left = read_greys(picture, fit)
    assert left.groups == 5 and not left.all_round
    assert read_greys(np.full_like(shot.picture, 255), fit) is None
    assert read_greys(np.zeros_like(shot.picture), fit) is None
