"""Play: the canvas after each pass converges on the reference, the same every time, and an order of work costs nothing."""

from dataclasses import replace
from functools import cache
from itertools import pairwise

import cv2
import numpy as np
import pytest
from skimage.color import deltaE_ciede2000

from tests.rooms.layers.sitters import sitter
from yarrow_lane.layers import coverage
from yarrow_lane.layers.kinds import facts_of
from yarrow_lane.layers.lie_record import Lie
from yarrow_lane.layers.passes import Area, sequence_of
from yarrow_lane.layers.play.area import PlayCoat, stack
from yarrow_lane.layers.play.card import card_of, outline_of
from yarrow_lane.layers.play.composing import back_to_front, canvas_after
from yarrow_lane.layers.play.drawing import image_of, inside, light_of, outside, with_film
from yarrow_lane.layers.play.rules import PlayTrouble, rule_of
from yarrow_lane.layers.play.scene import PlayArea, begun, fitted_to_paint
from yarrow_lane.layers.play.site import Site
from yarrow_lane.layers.play.strokes import nearest, seeds, unit, wells_of, with_halves
from yarrow_lane.layers.question import lie_of_fur, play_area, play_scene, read_lie
from yarrow_lane.layers.raster import rings_of_labels
from yarrow_lane.layers.school import School
from yarrow_lane.measure.plane import Rect
from yarrow_lane.paint.drying import Climate

USUAL = School()
_KINDS = {"head": "fur", "body": "fur", "nose": "nose", "mouth": "mouth", "skin": "skin", "hair": "hair", "cloth": "cloth"}


def kind_of(name):
    return "eye" if name.endswith("eye") else "fur" if name.endswith("ear") else _KINDS.get(name, "background")


@cache
def scene_of(name, medium="acrylic"):
    s = sitter(name)
    canvas = Rect(0, 0, *s.mm)
    rings = rings_of_labels(s.truth.astype(np.int32) + 1, canvas)
    areas = []
    for n, called in enumerate(s.names):
        facts = facts_of(kind_of(called))
        iris, glints = None, ()
        if called.endswith("eye"):
            x, y, r = (v / 2 for v in s.marks.eyes[called.split()[0]])
            iris, glints = ((x, y), r), (((x - 0.3 * r, y - 0.35 * r), 0.12 * r),)
        depth = facts.depth if called != "background" else 0
        areas.append(
            PlayArea(
                n + 1, kind_of(called), facts.family, facts.hairy, called if called.endswith("ear") else "", depth, iris, glints
            )
        )
    hairs = [(rings[a.id], 10.0) for a in areas if a.hairy]
    flow = lie_of_fur(read_lie(s.picture, canvas, hairs), Lie(), [tuple(s.marks.tip / 2)])
    paper = medium == "watercolour"
    scene, ground = play_scene(s.picture, canvas, rings, areas, flow, (250, 248, 243) if paper else (205, 186, 160), paper)
    return scene, ground, rings


def passes_of(name, school=USUAL, medium="acrylic"):
    scene, _, rings = scene_of(name, medium)
    meets = coverage.meets(rings)
    areas = [Area(a.id, str(a.id), a.kind, coverage.rings_mm2(rings[a.id]) / 100, meets[a.id], 1, a.part) for a in scene.areas]
    return sequence_of(areas, school, medium, Climate())


def coats(passes, region_id):
    return [PlayCoat(p.key, p.role, p.nature, p.id.split(":")[2]) for p in passes if p.region_id == region_id]


@cache
def stacks_of(name, medium="acrylic", school=USUAL):
    scene, ground, _ = scene_of(name, medium)
    passes = passes_of(name, school, medium)
    return passes, {a.id: stack(scene, a, ground, coats(passes, a.id), school.background == "first") for a in scene.areas}


def after(name, count, medium="acrylic", school=USUAL):
    scene, ground, _ = scene_of(name, medium)
    passes, stacks = stacks_of(name, medium, school)
    done = {}
    for p in passes[:count]:
        done[p.region_id] = done.get(p.region_id, 0) + 1
    return canvas_after(ground, scene.areas, stacks, done)


def lab(image):
    return cv2.cvtColor(image.astype(np.float32) / 255, cv2.COLOR_RGB2LAB)


def unlike(canvas, reference):
    """Mean dE00 after a blur of 2 mm in light (scikit-image's formula)."""
    soft = [lab(image_of(cv2.GaussianBlur(light_of(b), (0, 0), 2)))[::3, ::3] for b in (canvas, reference)]
    return float(deltaE_ciede2000(*soft).mean())


def values_alike(canvas, reference):
    soft = [cv2.GaussianBlur(lab(b)[..., 0], (0, 0), 10)[::4, ::4].ravel() for b in (canvas, reference)]
    return float(np.corrcoef(*soft)[0, 1])


@pytest.mark.parametrize(("name", "structure"), [("cat1", 0.95), ("rabbit1", 0.90)])
def test_the_last_pass_is_near_the_reference_and_the_block_in_holds_its_values(name, structure):
    """Mean 3 dE00 to the reference fitted to paint; values .95 from the block-in, .90 on the held-out rabbit."""
    scene, ground, _ = scene_of(name)
    passes, _ = stacks_of(name)
    assert unlike(after(name, len(passes)), scene.reference) < 3
    seen = set()
    first = next(n for n, p in enumerate(passes, 1) if seen.add(p.region_id) or len(seen) == len(scene.areas))
    assert values_alike(after(name, first), scene.reference) > structure
    assert values_alike(ground, scene.reference) < 0.6, "which the ground alone does not"
    assert unlike(after(name, first), scene.reference) > unlike(after(name, len(passes)), scene.reference)


def test_watercolour_ends_near_and_never_lightens():
    passes, stacks = stacks_of("rabbit1", "watercolour")
    scene, *_ = scene_of("rabbit1", "watercolour")
    assert unlike(after("rabbit1", len(passes), "watercolour"), scene.reference) < 3.5
    body = next(a for a in scene.areas if a.kind == "fur")
    lights = [float(lab(s.image)[..., 0][s.alpha > 200].mean()) for s in stacks[body.id]]
    assert all(b <= a + 0.3 for a, b in pairwise(lights))


def test_the_same_twice_to_the_byte_and_only_on_its_own_ground():
    scene, ground, _ = scene_of("cat1")
    passes, stacks = stacks_of("cat1")
    area = next(a for a in scene.areas if a.kind == "nose")
    again = stack(scene, area, ground, coats(passes, area.id))
    assert all((a.image == b.image).all() and (a.alpha == b.alpha).all() for a, b in zip(again, stacks[area.id], strict=True))
    state = stacks[area.id][-1]
    x0, y0, x1, y1 = state.box
    own = (scene.labels == area.id)[y0:y1, x0:x1]
    far = cv2.dilate(own.astype(np.uint8), np.ones((13, 13), np.uint8)) == 0
    assert state.alpha[far].max() == 0 and state.alpha[own].mean() > 200
    assert play_area(scene, area.id, ground, coats(passes, area.id), True).states[-1].image.shape == state.image.shape


def test_an_order_of_work_asks_for_no_new_stroke():
    """Eyes last, area by area: the same coats in each area, so the same states, and the last canvas is the same."""
    passes = passes_of("cat1", School(eyes="last", round="area by area"))
    before, _ = stacks_of("cat1")
    scene, *_ = scene_of("cat1")
    for area in scene.areas:
        assert coats(passes, area.id) == coats(before, area.id)
    assert [p.id for p in passes] != [p.id for p in before]


def test_tips_are_shorter_and_lighter_than_what_lies_beneath():
    scene, *_ = scene_of("cat1")
    passes, stacks = stacks_of("cat1")
    body = max((a for a in scene.areas if a.kind == "fur"), key=lambda a: (scene.labels == a.id).sum())
    long = {
        p.role: s.laid.strokes.length.mean()
        for p, s in zip([p for p in passes if p.region_id == body.id], stacks[body.id], strict=True)
        if s.laid.strokes
    }
    assert long["mass"] > long["under"] > long["middle"] > long["tips"]
    under, tips = stacks[body.id][2], stacks[body.id][3]
    assert (lab(tips.image)[..., 0] - lab(under.image)[..., 0])[tips.alpha > 200].mean() > 0
    strokes = stacks[body.id][1].laid.strokes
    order = strokes.points[np.argsort(strokes.group, kind="stable"), 0, 1]
    third = len(order) // 3
    assert order[:third].mean() > order[-third:].mean(), "painted from low to high, against the lie"


def test_a_film_only_darkens_and_the_surface_is_undone():
    image = np.random.default_rng(0).integers(0, 256, (40, 40, 3)).astype(np.uint8)
    same = with_film(image, np.zeros((40, 40, 3), np.float32))
    assert np.abs(same.astype(int) - np.maximum(image, 39).astype(int)).max() <= 6, "nothing is darker than its own gloss"
    darker = with_film(image, np.full((40, 40, 3), -0.4, np.float32))
    assert (darker.astype(int) <= same.astype(int) + 1).all()
    light = np.linspace(0.05, 0.95, 50, dtype=np.float32)
    assert np.allclose(outside(inside(light)), light, atol=1e-4)
    codes = np.arange(256, dtype=np.uint8)
    assert np.abs(image_of(light_of(codes)).astype(int) - codes).max() <= 1


def test_darks_are_as_dark_as_paint_goes():
    black = fitted_to_paint(np.zeros((4, 4, 3), np.uint8))
    assert lab(black)[0, 0, 0] == pytest.approx(17, abs=1), "Y .023"
    assert (fitted_to_paint(np.full((4, 4, 3), 255, np.uint8)) >= 254).all()


def test_chance_is_the_same_wherever_one_begins():
    at, i, j = seeds((0, 0, 50, 50), 5.0, 3)
    part, pi, pj = seeds((20, 20, 50, 50), 5.0, 3)
    whole = {(a, b): tuple(p) for p, a, b in zip(at, i, j, strict=True)}
    assert all(whole[a, b] == tuple(p) for p, a, b in zip(part, pi, pj, strict=True))
    chance = unit(np.arange(20000), np.arange(20000) * 7, 1)
    assert chance.min() >= 0 and chance.max() < 1 and chance.mean() == pytest.approx(0.5, abs=0.02)


def test_wells_stand_for_a_picture():
    colours = np.random.default_rng(1).normal([50, 10, 5], [20, 5, 5], (4000, 3)).astype(np.float32)
    wells = wells_of(colours, 5)
    assert (np.diff(wells[:, 0]) >= 0).all() and len(with_halves(wells)) == 15
    near = nearest(colours, wells)
    assert np.linalg.norm(colours - wells[near], axis=1).mean() < np.linalg.norm(colours - colours.mean(0), axis=1).mean() / 2
    assert wells_of(np.zeros((0, 3), np.float32), 3).shape == (1, 3) and len(with_halves(wells[:1])) == 1


def test_every_pass_of_every_school_can_be_shown():
    """No role without a row: all kinds, media and orders of values."""
    from tests.rooms.layers.making import SCHOOLS
    from yarrow_lane.layers.kinds import KINDS

    asked = 0
    for school, medium in SCHOOLS[::11]:
        for kind in KINDS:
            touching = Area(2, "hair", "hair", 50), Area(3, "ground", "background", 50)
            for p in sequence_of((Area(1, "it", kind, 50, frozenset({2, 3})), *touching), school, medium, Climate()):
                if p.role in ("glint", "reserve", "whisker") or p.nature in ("mask", "fix", "bare"):
                    continue
                assert rule_of(p.family, p.id.split(":")[2], p.role, p.nature, 20.0).width > 0
                asked += 1
    assert asked > 1000
    with pytest.raises(PlayTrouble, match="nothing is known"):
        rule_of("fur", "dark", "sculpted", "opaque", 10.0)


def test_the_order_of_depth_and_the_ground():
    scene, ground, _ = scene_of("cat1")
    order = [a.kind for a in back_to_front(scene.areas)]
    assert order[0] == "background" and order[-1] == "eye"
    ears = [a.part != "" for a in back_to_front([a for a in scene.areas if a.kind == "fur"])]
    assert ears == sorted(ears)
    assert (begun(scene) == ground).all() and (canvas_after(ground, scene.areas, {}, {}) == ground).all()


def test_a_stroke_card_holds_a_few_in_the_order_to_paint():
    scene, *_ = scene_of("cat1")
    _, stacks = stacks_of("cat1")
    body = max((a for a in scene.areas if a.kind == "fur"), key=lambda a: (scene.labels == a.id).sum())
    middle = (150.0, 420.0)
    rings = (((100.0, 380.0), (200.0, 380.0), (200.0, 460.0), (100.0, 460.0)),)
    card = card_of(stacks[body.id][1].laid.strokes, rings, middle)
    assert 12 <= len(card.strokes) <= 40 and [s.number for s in card.strokes] == list(range(1, len(card.strokes) + 1))
    assert "o'clock" in card.words or "turn with the form" in card.words
    first = card.strokes[0]
    outline = np.array(outline_of(first))
    assert len(outline) == 2 * len(first.line) and np.ptp(outline[:, 0]) > 0
    nothing = card_of(stacks[body.id][1].laid.strokes, (((0.0, 0.0), (1.0, 0.0), (1.0, 1.0)),), (0.0, 0.0))
    assert nothing.strokes == () and "no strokes" in nothing.words


def test_a_coat_that_holds_colour_back_shows_the_reference_greyer_and_nearer_its_anchor():
    scene, *_ = scene_of("cat1")
    site = Site(scene, next(a for a in scene.areas if a.hairy))
    rule = replace(rule_of("fur", "dark", "under", "opaque", 50.0), tone=0.5, chroma=0.25, anchor="mid")
    plain, held = site.quiet, site.target(rule)
    assert held[..., 1:] == pytest.approx(plain[..., 1:] / 4, abs=1e-3)
    assert held[..., 0] - site.anchors["mid"] == pytest.approx((plain[..., 0] - site.anchors["mid"]) / 2, abs=1e-3)
    assert site.target(replace(rule, tone=1.0, chroma=1.0)) is plain
