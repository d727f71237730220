"""The first regions, against the renderer's own; the rabbit was not looked at while numbers were chosen."""

import numpy as np
import pytest

from tests.rooms.layers.sitters import own, sitter
from yarrow_lane.layers.proposing.marks import SitterMarks, SitterOnCanvas, head_of
from yarrow_lane.layers.proposing.naming import own_side
from yarrow_lane.layers.proposing.propose import propose
from yarrow_lane.layers.question import propose_regions
from yarrow_lane.layers.regions import area_cm2
from yarrow_lane.measure.plane import Rect


def overlaps(s, found):
    """IoU of each true region with what is called so."""
    result = {}
    for n, name in enumerate(s.names):
        ids = [p.label for p in found.parts if p.part == own(name) or p.name == own(name)]
        a, b = np.isin(found.labels, ids), s.truth == n
        result[name] = (a & b).sum() / max(1, (a | b).sum())
    return result


@pytest.mark.parametrize(
    ("name", "mean", "least"), [("cat1", 0.85, 0.7), ("dog1", 0.62, 0.0), ("person1", 0.8, 0.6), ("rabbit1", 0.84, 0.5)]
)
def test_a_cut_out_sitter_is_sorted_into_parts(name, mean, least):
    s = sitter(name)
    found = overlaps(s, propose(s.picture, [s.marks], 2.0))
    assert np.mean(list(found.values())) >= mean and min(found.values()) >= least, found


@pytest.mark.parametrize(("name", "mean"), [("cat1", 0.75), ("person1", 0.5), ("rabbit1", 0.65)])
def test_without_a_cut_out_it_is_guessed_by_colour(name, mean):
    s = sitter(name, False)
    found = overlaps(s, propose(s.picture, [s.marks], 2.0))
    assert np.mean(list(found.values())) >= mean, found


def test_left_and_right_are_the_sitters_own_also_upside_down_and_mirrored():
    marks = sitter("cat1").marks
    head = head_of(marks)
    assert own_side(marks, head, "eye", "left") == "right" and own_side(marks, head, "ear", "right") == "left"
    turned = SitterMarks(
        "cat", {s: (-x, -y, r) for s, (x, y, r) in marks.eyes.items()}, {n: (-x, -y) for n, (x, y) in marks.points.items()}
    )
    assert own_side(turned, head_of(turned), "eye", "left") == "right"
    mirrored = SitterMarks("cat", marks.eyes, marks.points, None, 0, "", True)
    assert own_side(mirrored, head_of(mirrored), "eye", "left") == "left"


def test_little_known_is_little_proposed():
    picture = np.full((200, 160, 3), 120, np.uint8)
    alone = propose(picture, [], 2.0)
    assert (alone.labels == 1).all() and [p.kind for p in alone.parts] == ["background"]
    assert head_of(SitterMarks("cat", {"left": (50, 50, 4)})) is None
    one_eye = propose(picture, [SitterMarks("dog", {"left": (80, 90, 5)})], 2.0)
    assert {p.kind for p in one_eye.parts} >= {"background", "eye"}


def test_regions_of_two_sitters_add_up_and_tell_whose_they_are():
    s = sitter("cat1")
    ring = ((60.0, 60.0), (330.0, 60.0), (330.0, 490.0), (60.0, 490.0))
    eyes = tuple((side, x / 2, y / 2, r / 2) for side, (x, y, r) in s.marks.eyes.items())
    points = tuple((n, x / 2, y / 2) for n, (x, y) in s.marks.points.items())
    cat = SitterOnCanvas("cat", 1, "Moss", False, eyes, points, (ring,))
    bird = SitterOnCanvas("bird", 2, "Pip", rings=(((350.0, 400.0), (395.0, 400.0), (395.0, 480.0), (350.0, 480.0)),))
    canvas = Rect(0, 0, 400, 500)
    regions = propose_regions(s.picture, canvas, (cat, bird), 7)
    assert sum(map(area_cm2, regions)) == pytest.approx(2000, abs=0.01)
    assert {r.name for r in regions} >= {"Moss's head", "Moss's left ear", "Pip's feathers", "Moss's right eye"}
    assert min(r.id for r in regions) == 7 and {r.sitter_id for r in regions} == {0, 1, 2}


def test_a_person_seen_from_behind_is_dressed_below_the_chin():
    mask = np.zeros((200, 160), bool)
    mask[20:190, 60:100] = True
    marks = SitterMarks("person", {}, {"crown": (80.0, 22.0), "chin": (80.0, 60.0)}, mask, 2, "Wilf")
    found = propose(np.full((200, 160, 3), 120, np.uint8), [marks], 2.0)
    kinds = {p.kind: p.label for p in found.parts}
    assert set(kinds) == {"background", "cloth", "hair"}
    assert (found.labels[mask & (np.arange(200)[:, None] < 60)] == kinds["hair"]).all()
    assert (found.labels[150:180, 70:90] == kinds["cloth"]).all()
