"""Patches and the order to climb, on drawn fur and the made-up sitters."""

import numpy as np
import pytest

from tests.rooms.layers.furs import PX, fur
from tests.rooms.layers.sitters import sitter, true_lie
from yarrow_lane.layers import coverage
from yarrow_lane.layers.flow.flow import flow_of, read
from yarrow_lane.layers.lie_record import Lie
from yarrow_lane.layers.patch_record import Patches, PatchTrouble, cut, lock, merge, move, only_locked, taken
from yarrow_lane.layers.patching.merging import patches_wanted
from yarrow_lane.layers.patching.order import broken_pairs, climbing, kept_share, overlaps_of
from yarrow_lane.layers.patching.patches import climb, wants_cutting
from yarrow_lane.layers.raster import mask_of, rings_of_labels
from yarrow_lane.measure.plane import Rect


@pytest.fixture(scope="module")
def coat():
    """A square of fur that grows downwards, its picture, flow and one region over all of it."""
    image, *_ = fur("from a nose")
    flow = flow_of(read(image, PX, np.full(image.shape[:2], 10, np.float32)), Lie(), [(100.0, 60.0)])
    return image, flow, {5: (((0.0, 0.0), (200.0, 0.0), (200.0, 200.0), (0.0, 200.0)),)}, Rect(0, 0, 200, 200)


def shown(found):
    return [(p.id, p.region_id, p.rings, p.locked) for p in found.patches]


def test_fur_is_sorted_into_patches_that_climb_against_the_lie(coat):
    image, flow, regions, canvas = coat
    found = climb(image, flow, regions, {5: 1}, (), canvas)
    assert 12 <= len(found.patches) <= 60 and found.kept >= 0.95
    assert sum(coverage.rings_mm2(p.rings) for p in found.patches) == pytest.approx(200 * 200, rel=0.01)
    first, last = found.patches[:6], found.patches[-6:]
    assert np.mean([p.middle[1] for p in first]) > np.mean([p.middle[1] for p in last]), "from where tips point, upwards"
    low = max(found.patches, key=lambda p: p.middle[1])
    assert 5 <= low.clock <= 7 and not low.turns and low.locked is False
    assert climb(image, flow, regions, {5: 1}, (), canvas).patches == found.patches, "the same twice"


@pytest.mark.parametrize("name", ["cat1", "dog1", "rabbit1"])
def test_the_order_keeps_the_overlaps_of_the_sitters(name):
    """95 % of the overlap as read; what the true lie says of the same order stands in the measures."""
    s = sitter(name)
    canvas = Rect(0, 0, *s.mm)
    rings = rings_of_labels(s.truth.astype(np.int32) + 1, canvas)
    hairy = {n + 1: rings[n + 1] for n, t in enumerate(s.names) if t in ("head", "body") or t.endswith(" ear")}
    levels = {n + 1: 1 if t == "body" else 3 if t.endswith(" ear") else 2 for n, t in enumerate(s.names)}
    mask = s.mask("head", "body", "left ear", "right ear")
    flow = flow_of(read(s.picture, 2.0, np.where(mask, np.float32(10), np.float32(0))), Lie(), [tuple(s.marks.tip / 2)])
    found = climb(s.picture, flow, hairy, levels, (), canvas)
    assert 12 <= len(found.patches) <= 60 and found.kept >= 0.95
    order = [levels[p.region_id] for p in found.patches]
    assert order == sorted(order), "body before head before ears"
    x, y, _ = true_lie(s, flow.x.shape)
    labels = np.zeros(flow.x.shape, np.int32)
    for n, p in enumerate(found.patches):
        labels[mask_of(p.rings, flow.x.shape[::-1], 1 / flow.px_mm)] = n + 1
    over, _ = overlaps_of(labels, x, y, flow.length, flow.px_mm)
    assert kept_share(over, range(len(found.patches))) > 0.8


def test_an_order_out_of_a_table_of_overlaps():
    """Three in a row, the first over the second over the third: painted from the third up; a light pair the wrong way is told."""
    over = np.array([[0, 9.0, 0], [0, 0, 9.0], [0.5, 0, 0]])
    border = over + over.T
    order = climbing(over, border, np.array([[0, 0], [0, 10], [0, 20.0]]), np.array([50.0, 50, 50]), np.array([1, 1, 1]))
    assert order == [2, 1, 0] and kept_share(over, order) == pytest.approx(18 / 18.5)
    assert broken_pairs(over, [2, 1, 0])[0].over == 2 and not broken_pairs(np.zeros((2, 2)), [0, 1])
    levels = climbing(over, border, np.array([[0, 0], [0, 10], [0, 20.0]]), np.array([50.0, 50, 50]), np.array([1, 2, 3]))
    assert levels == [0, 1, 2], "levels outrank the lie"
    assert climbing(np.zeros((1, 1)), np.zeros((1, 1)), np.zeros((1, 2)), np.zeros(1), np.zeros(1, int)) == [0]
    assert kept_share(np.zeros((2, 2)), [0, 1]) == 1.0


def test_the_painters_patches_are_kept_and_a_broken_order_is_told(coat):
    image, flow, regions, canvas = coat
    found = climb(image, flow, regions, {5: 1}, (), canvas)
    record = taken(shown(found))
    upside = Patches(tuple(reversed(record.taken)), record.next_id)
    told = climb(image, flow, regions, {5: 1}, [(p.id, p.region_id, p.rings, p.locked) for p in upside.taken], canvas)
    assert [p.id for p in told.patches] == [p.id for p in upside.taken]
    assert told.kept < 0.5 and told.broken and any("hairs of" in p.pull for p in told.patches)
    locked = lock(record, record.taken[3].id, True)
    anew = climb(
        image, flow, regions, {5: 1}, [(p.id, p.region_id, p.rings, p.locked) for p in only_locked(locked).taken], canvas
    )
    same = next(p for p in anew.patches if p.locked)
    assert same.rings == record.taken[3].rings and len(anew.patches) > 8


def test_patches_are_merged_cut_and_moved(coat):
    image, flow, regions, canvas = coat
    record = taken(shown(climb(image, flow, regions, {5: 1}, (), canvas)))
    a = record.taken[0]
    shape = coverage.ground_of(a.rings)
    b = next(p for p in record.taken[1:] if shape.boundary.intersection(coverage.ground_of(p.rings).boundary).length > 5)
    one = merge(record, a.id, b.id)
    assert len(one.taken) == len(record.taken) - 1
    assert coverage.rings_mm2(one.patch(a.id).rings) == pytest.approx(sum(coverage.rings_mm2(p.rings) for p in (a, b)), abs=1)
    x0, y0, x1, y1 = shape.bounds
    middle = (y0 + y1) / 2
    halves = cut(record, a.id, ((x0 - 5, middle), (x1 + 5, middle + 0.5)))
    assert len(halves.taken) == len(record.taken) + 1 and halves.taken[1].id == record.next_id
    moved = move(record, a.id, 4)
    assert moved.taken[4].id == a.id
    far = max(record.taken, key=lambda p: coverage.ground_of(p.rings).distance(shape))
    for wrong, words in (
        (lambda: merge(record, a.id, far.id), "do not meet"),
        (lambda: merge(record, a.id, a.id), "two regions, or are one"),
        (lambda: cut(record, a.id, ((-9, -9), (-5, -5))), "from border to border"),
        (lambda: record.patch(999), "not there any more"),
    ):
        with pytest.raises(PatchTrouble, match=words):
            wrong()


def test_how_many_patches():
    assert patches_wanted(1000) == 50 and patches_wanted(600) == 30 and patches_wanted(40) == 8 and patches_wanted(2) == 1


def test_hair_that_runs_all_ways_asks_to_be_cut(coat):
    image, flow, regions, canvas = coat
    whole = climb(image, flow, regions, {5: 1}, [(1, 5, regions[5], False)], canvas)
    assert len(whole.patches) == 1 and whole.patches[0].turns
    assert wants_cutting(whole.patches[0]) == (whole.patches[0].spread > 50)
