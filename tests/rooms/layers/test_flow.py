"""The lie of the fur on drawn hair and on the renderer's sitters, whose directions are known."""

import cv2
import numpy as np
import pytest
from scipy.stats import circmean

from tests.rooms.layers.furs import PX, fur
from tests.rooms.layers.sitters import sitter, true_lie
from yarrow_lane.layers.flow.axis import SURE_DEG, noise_of
from yarrow_lane.layers.flow.flow import flow_of, read
from yarrow_lane.layers.flow.sign import walked
from yarrow_lane.layers.lie_record import Lie, LieStroke, LieTrouble, add_dots, add_parting, add_stroke, without_last


def lie_read(image, usual=12.0, mask=None):
    usual = np.full(image.shape[:2], usual, np.float32) if mask is None else np.where(mask, np.float32(usual), np.float32(0))
    return read(image, PX, usual)


def errors(flow, vx, vy):
    """Degrees between the axis and the truth, and whether the sign is right, away from the rim."""
    x, y = (cv2.resize(v.astype(np.float32), flow.x.shape[::-1], interpolation=cv2.INTER_AREA) for v in (vx, vy))
    inner = np.s_[8:-8, 8:-8]
    dot = (flow.x * x + flow.y * y)[inner] / np.maximum(np.hypot(x, y)[inner], 1e-6)
    return np.degrees(np.arccos(np.clip(np.abs(dot), 0, 1))), dot > 0


def stroke(at, way, length=12.0):
    way = np.array(way, float) / np.hypot(*way)
    p = np.array(at, float)
    return LieStroke((tuple(p - way * length / 2), tuple(p), tuple(p + way * length / 2)))


@pytest.mark.parametrize("kind", ["down", "from a nose"])
@pytest.mark.parametrize(("blur", "noise"), [(0, 0), (0, 20), (1.5, 0), (2.5, 8)])
def test_the_axis_is_read_also_through_blur_and_noise(kind, blur, noise):
    image, vx, vy = fur(kind)
    spoilt = cv2.GaussianBlur(image, (0, 0), blur) if blur else image
    spoilt = np.clip(spoilt + np.random.default_rng(1).normal(0, noise, image.shape), 0, 255).astype(np.uint8)
    flow = flow_of(lie_read(spoilt), Lie())
    off, _ = errors(flow, vx, vy)
    sure = flow.doubt[8:-8, 8:-8] < SURE_DEG
    assert np.median(off) < 8
    if sure.mean() > 0.1:
        assert np.median(off[sure]) < 8


def test_markings_are_not_taken_for_fur():
    """Stripes across the hair, as long as a hair is; without taking them out they win."""
    image, vx, vy = fur("down", stripes=True)
    off, _ = errors(flow_of(lie_read(image), Lie()), vx, vy)
    assert np.median(off) < 8 and np.percentile(off, 90) < 30


def test_noise_is_measured():
    flat = np.full((300, 300), 50, np.float32) + np.random.default_rng(0).normal(0, 3, (300, 300)).astype(np.float32)
    assert noise_of(flat) == pytest.approx(3, rel=0.1)


def test_one_stroke_settles_the_sign_and_the_prior_alone_is_a_guess():
    image, vx, vy = fur("down")
    found = lie_read(image)
    against = flow_of(found, Lie((stroke((100, 100), (-vx[250, 250], -vy[250, 250])),)))
    _, right = errors(against, vx, vy)
    assert (~right).mean() > 0.95, "a stroke outranks gravity"
    guessed = flow_of(found, Lie())
    assert errors(guessed, vx, vy)[1].mean() > 0.95 and guessed.ask is not None
    told = flow_of(found, Lie((stroke((100, 100), (vx[250, 250], vy[250, 250])),)))
    assert told.ask is None and errors(told, vx, vy)[1].mean() > 0.99


def test_a_parting_keeps_its_sides_apart():
    image, vx, vy = fur("parted")
    middle = ((100.0, -5.0), (100.0, 205.0))
    strokes = (stroke((50, 100), (-1, 0.5)), stroke((150, 100), (1, 0.5)))
    parted = flow_of(lie_read(image), Lie(strokes, (middle,)))
    assert errors(parted, vx, vy)[1].mean() > 0.95
    one = flow_of(lie_read(image), Lie(strokes[:1]))
    assert errors(one, vx, vy)[1].mean() < errors(parted, vx, vy)[1].mean()


def test_a_whorl_is_seen_and_straight_fur_has_none():
    image, *_ = fur("whorl", length=24)
    flow = flow_of(lie_read(image), Lie((stroke((100, 40), (0.3, -1)), stroke((160, 100), (1, 0.5)))))
    assert any(np.hypot(x - 100, y - 100) < 12 for x, y in flow.whorls), flow.whorls
    assert flow_of(lie_read(fur("down")[0]), Lie()).whorls == ()


def test_a_stroke_turns_the_axis_where_the_picture_says_little():
    image = np.full((300, 300, 3), 120, np.uint8) + np.random.default_rng(2).integers(0, 3, (300, 300, 3)).astype(np.uint8)
    flow = flow_of(lie_read(image), Lie((stroke((60, 60), (1, 1), 30),)))
    row, column = flow.at((60, 60))
    angle = np.degrees(np.arctan2(flow.y[row, column], flow.x[row, column]))
    assert angle == pytest.approx(45, abs=6) and flow.doubt[row, column] < 10


@pytest.mark.parametrize(("name", "most"), [("cat1", 8), ("dog1", 8), ("rabbit1", 8)])
def test_the_made_up_sitters_lie_as_they_were_groomed(name, most):
    """Axis 8 degrees median where its doubt is low, direction right on 95 % with five strokes or fewer, drawn where it asks."""
    s = sitter(name)
    mask = s.mask("head", "body", "left ear", "right ear")
    found = read(s.picture, 2.0, np.where(mask, np.float32(10), np.float32(0)))
    tip = s.marks.tip / 2
    flow = flow_of(found, Lie(), [tuple(tip)])
    x, y, known = true_lie(s, flow.x.shape)
    known &= flow.fur
    lie = Lie()
    for _ in range(5):
        dot = flow.x * x + flow.y * y
        if flow.ask is None:
            break
        row, column = flow.at(flow.ask)
        lie = Lie((*lie.strokes, stroke(flow.ask, (x[row, column], y[row, column]))))
        flow = flow_of(found, lie, [tuple(tip)])
    dot = (flow.x * x + flow.y * y)[known]
    off = np.degrees(np.arccos(np.clip(np.abs(dot), 0, 1)))
    assert np.median(off[flow.doubt[known] < SURE_DEG]) < most and (dot > 0).mean() > 0.95
    # The mean way of the coat, by another hand: SciPy's circular mean of the angles.
    angles = np.arctan2(flow.y, flow.x)[known]
    true = np.arctan2(y, x)[known]
    apart = (circmean(angles) - circmean(true) + np.pi) % (2 * np.pi) - np.pi
    assert abs(np.degrees(apart)) < 15


def test_lengths_are_ranked_by_the_picture_and_set_by_a_hair():
    left, *_ = fur("down", 500, 250, 14.0, 3)
    right, *_ = fur("down", 500, 250, 60.0, 4)
    found = lie_read(np.hstack([left, right]))
    flow = flow_of(found, Lie())
    half = flow.length.shape[1] // 2
    short, long = np.median(flow.length[:, 10 : half - 10]), np.median(flow.length[:, half + 10 : -10])
    assert long > 1.15 * short
    hair = LieStroke(((150.0, 100.0), (150.0, 112.0), (150.0, 124.0)), True)
    told = flow_of(found, Lie((hair,)))
    row, column = told.at((150, 112))
    assert told.length[row, column] == pytest.approx(24, rel=0.25)


def test_odd_strokes_do_no_harm():
    image, *_ = fur("down")
    found = lie_read(image)
    off = LieStroke(((900.0, 900.0), (950.0, 950.0), (999.0, 990.0)))
    contrary = (stroke((100, 100), (0, 1)), stroke((101, 100), (0, -1)))
    assert np.isfinite(flow_of(found, Lie((off, *contrary))).x).all()
    none = read(image, PX, np.zeros(image.shape[:2], np.float32))
    assert not flow_of(none, Lie()).fur.any() and flow_of(none, Lie()).ask is None
    assert walked(((1.0, 1.0),), 2.0) == [] and walked(((1.0, 1.0), (1.0, 1.0)), 2.0) == []


def test_what_the_painter_drew_is_kept_and_taken_off():
    lie = add_parting(add_stroke(Lie(), ((0, 0), (0, 10))), ((50, 0), (50, 40)))
    lie = add_dots(lie, (90.0, 90.0), 8.0)
    assert lie.touched and not Lie().touched
    assert without_last(lie, (0, 9), 5).strokes == () and without_last(lie, (50, 20), 25).partings == ()
    assert without_last(lie, (95, 95), 5).dots == () and without_last(lie, (200, 200), 5) is lie
    with pytest.raises(LieTrouble, match="too short"):
        add_stroke(lie, ((0, 0), (0.5, 0.5)))
    with pytest.raises(LieTrouble, match="no length"):
        add_parting(lie, ((0, 0), (0, 0)))
    image, *_ = fur("down")
    dotted = flow_of(lie_read(image), add_dots(Lie(), (100.0, 100.0), 10.0))
    assert dotted.dots[dotted.at((100, 100))]
