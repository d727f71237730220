"""Proof of the drawing: parted against scikit-image, found without a click in drawings whose errors are known."""

import json
import math
from dataclasses import replace
from functools import cache

import cv2
import numpy as np
import pytest
from bench.borders import on_canvas
from skimage.transform import SimilarityTransform

from yarrow_lane.canvas_photo.straight import canvas_of, straightened
from yarrow_lane.compose.composition import Compose, Framed
from yarrow_lane.compose.pieces import Piece, Ring
from yarrow_lane.intake.photos import Eye, Photo
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.similarity import similarity
from yarrow_lane.standins.camera import Taking, drawn_on, photograph
from yarrow_lane.store.codec import from_json
from yarrow_lane.transfer.landmarks import places_on
from yarrow_lane.transfer.lines.choice import Choice
from yarrow_lane.transfer.lines.drawing import lines_to_draw
from yarrow_lane.transfer.lines.outlines import Outlines
from yarrow_lane.transfer.proof.find import FoundPlace, found_places
from yarrow_lane.transfer.proof.measured import Flat, judged
from yarrow_lane.transfer.proof.split import off_words, parted, tolerance_mm, whole_words
from yarrow_lane.transfer.question import find_lines
from yarrow_lane.transfer.record import TRANSFER


def test_the_whole_is_that_of_a_library():
    rng = np.random.default_rng(2)
    meant = rng.uniform(50, 350, (8, 2))
    drawn = SimilarityTransform(scale=1.013, rotation=math.radians(0.7), translation=(3, -2))(meant) + rng.normal(
        0, 0.5, (8, 2)
    )
    scale, turn, shift = similarity(meant, drawn)
    theirs = SimilarityTransform.from_estimate(meant, drawn)
    assert scale == pytest.approx(theirs.scale) and shift == pytest.approx(theirs.translation)
    assert math.atan2(turn[1, 0], turn[0, 0]) == pytest.approx(theirs.rotation)


def test_one_wrong_ear_does_not_turn_the_head():
    rng = np.random.default_rng(5)
    errors = []
    for _ in range(100):
        meant = rng.uniform(50, 350, (8, 2))
        drawn = meant + rng.normal(0, 0.4, (8, 2))
        drawn[3] += (0, 8)
        found = parted([tuple(p) for p in meant.tolist()], [tuple(p) for p in drawn.tolist()])
        errors.append(math.dist(found.rest[3], (0, 8)))
    assert np.median(errors) < 1.0
    with pytest.raises(ValueError, match="two places"):
        parted([(0, 0)], [(1, 1)])


def test_words_say_what_is_wrong_and_leave_out_what_is_little():
    assert off_words((0.3, 6.1)) == "6 mm too low" and off_words((-2.4, -3.6)) == "3½ mm too high, 2½ mm too far left"
    assert off_words((0.1, 0.2)) == "in its place"
    low_and_large = parted([(0, 0), (100, 0), (0, 100), (100, 100)], [(-1, 2), (101, 2), (-1, 104), (101, 104)])
    assert whole_words(low_and_large.whole) == (("low", "3.0\u202fmm"), ("too large", "2.0\u202f%"))
    assert low_and_large.whole.seen and all(off_words(r) == "in its place" for r in low_and_large.rest)
    assert not parted([(0, 0), (100, 0), (0, 100)], [(0.2, 0), (100.2, 0), (0.2, 100)]).whole.seen
    assert tolerance_mm(150, 400, 500) == 1.5 and tolerance_mm(40, 400, 500) == 1.0 and tolerance_mm(None, 3000, 2000) == 3.0


def test_a_place_that_was_not_found_is_asked_for_where_it_would_be():
    meant = {"nose": (100.0, 100.0), "chin": (100.0, 160.0), "left eye": (70.0, 60.0), "right eye": (130.0, 60.0)}
    found = [
        FoundPlace((103.0, 101.0), 0.6),
        FoundPlace((0.0, 0.0), 0.1),
        FoundPlace((73.0, 61.0), 0.6),
        FoundPlace((133.0, 61.0), 0.6),
    ]
    flat = Flat(np.zeros((4, 4, 3), np.uint8), (), (), tuple(found))
    verdict = judged(list(meant), list(meant.values()), flat, {})
    assert verdict.whole.shift == pytest.approx((3, 1)) and {p.name for p in verdict.places} == {
        "nose",
        "left eye",
        "right eye",
    }
    ((name, guess),) = verdict.asked
    assert name == "chin" and guess == pytest.approx((103, 161)), "its own place, moved as the whole"
    near = replace(flat, found=(found[0], FoundPlace((106.0, 164.0), 0.1), *found[2:]))
    assert judged(list(meant), list(meant.values()), near, {}).asked == (("chin", (106.0, 164.0)),), "found unsurely, not far"
    pulled = judged(list(meant), list(meant.values()), flat, {"chin": (103.0, 169.0)})
    assert pulled.asked == () and [p.name for p in pulled.places if p.by_hand] == ["chin"]
    errors = [p.mm for p in pulled.places]
    assert errors == sorted(errors, reverse=True) and errors[0] > 2 and pulled.holding(1.5) < 4
    nothing = judged(list(meant), list(meant.values()), Flat(flat.picture, (), (), None), {"nose": (101.0, 99.0)})
    assert nothing.whole is None and dict(nothing.asked)["nose"] == (101.0, 99.0) and len(nothing.asked) == 4


@cache
def drawing(name, seed, squares_mm=0.0, skip=0.0):
    """A photographed drawing: the lines, where its places truly lie on the canvas, the straightened picture."""
    canvas = on_canvas(name)
    base = find_lines(canvas.picture, canvas.px_per_mm, canvas.circles, [canvas.outline])
    lines = lines_to_draw(base, Choice(), canvas.size_mm, Outlines((canvas.outline,), (canvas.outline,)))
    rng = np.random.default_rng(seed)
    middle = np.array(canvas.size_mm) / 2
    turn, grow, shift = math.radians(rng.normal(0, 0.6)), 1 + rng.normal(0, 0.006), rng.normal(0, 2.0, 2)
    wrong_at, wrong_by = np.array(list(canvas.places.values())[seed % len(canvas.places)]), np.array([5.0, -4.0])

    def moved(points):
        away = np.asarray(points) - middle
        spun = np.stack(
            [
                away[:, 0] * math.cos(turn) - away[:, 1] * math.sin(turn),
                away[:, 0] * math.sin(turn) + away[:, 1] * math.cos(turn),
            ],
            1,
        )
        pushed = np.exp(-0.5 * ((np.asarray(points) - wrong_at) ** 2).sum(1, keepdims=True) / 30.0**2) * wrong_by
        return grow * spun + middle + shift + pushed

    def draw(picture, px):
        for line in lines:
            if rng.random() < skip:
                continue
            path = moved(np.array(line.points)) + np.cumsum(rng.normal(0, 0.02, (len(line.points), 2)), 0)
            cv2.polylines(
                picture,
                [np.rint(path * px * 16).astype(np.int32)],
                False,
                (70, 60, 55),
                max(1, round(0.7 * px)),
                cv2.LINE_AA,
                4,
            )
        for at in np.arange(squares_mm, max(canvas.size_mm), squares_mm) if squares_mm else ():
            for ends in (((at, 0), (at, 2000)), ((0, at), (2000, at))):
                cv2.line(
                    picture,
                    *[tuple(np.rint(np.array(e) * px).astype(int).tolist()) for e in ends],
                    (90, 80, 75),
                    1,
                    cv2.LINE_AA,
                )

    size = canvas.size_mm
    shot = photograph(drawn_on(*size, 3.0, seed, draw=draw), *size, seed, Taking(aside=20, longer_px=2000))
    straight = straightened(shot.picture, shot.corners(*size) + rng.normal(0, 1.0, (4, 2)), size)
    names = list(canvas.places)
    truth = moved(np.array([canvas.places[n] for n in names]))
    return lines, canvas, truth, canvas_of(shot.picture, straight, 2.0)


@pytest.mark.parametrize(("squares_mm", "skip"), [(0.0, 0.0), (50.0, 0.2)])
def test_places_are_found_without_a_click(squares_mm, skip):
    errors, sure = [], []
    for name, seed in (("cat1", 1), ("rabbit1", 4))[: 1 if skip else 2]:
        lines, canvas, truth, flat = drawing(name, seed, squares_mm, skip)
        ruled = tuple(np.arange(squares_mm, 500, squares_mm)) if squares_mm else ()
        found = found_places(flat, 2.0, [line.points for line in lines], list(canvas.places.values()), (ruled, ruled))
        assert found is not None
        errors += np.hypot(*(np.array([f.at for f in found]) - truth).T).tolist()
        sure += [f.sure for f in found]
    errors, sure = np.array(errors), np.array(sure)
    assert np.median(errors) < 1.0 and (errors[sure] > 3).mean() < 0.15 and sure.mean() > 0.5


def test_another_painting_a_turned_one_and_a_bare_canvas_are_not_taken_for_the_drawing():
    lines, canvas, _, flat = drawing("cat1", 1)
    paths, places = [line.points for line in lines], list(canvas.places.values())
    bare = drawn_on(*canvas.size_mm, 2.0, 3)
    assert found_places(bare, 2.0, paths, places) is None or not any(f.sure for f in found_places(bare, 2.0, paths, places))
    turned = np.ascontiguousarray(np.rot90(flat))
    turned = cv2.resize(turned, flat.shape[1::-1])
    found = found_places(turned, 2.0, paths, places)
    assert found is None or sum(f.sure for f in found) <= len(places) // 3


def test_places_set_before_version_6_are_found_by_the_sitters_own_side():
    photo = {
        "photo_id": "a" * 64, "name": "drawing.jpg", "size_px": [100, 80], "at": "2026-03-09T12:00:00Z", "corners": [],
        "set_by_hand": [["left eye", [10.0, 20.0]], ["chin", [5.0, 6.0]]], "off": [["Rex's right ear tip", 2.5]],
    }  # fmt: skip
    found = from_json(TRANSFER, json.dumps({"v": 5, "photos": [photo]})).photos[0]
    assert found.set_by_hand == (("right eye", (10.0, 20.0)), ("chin", (5.0, 6.0))) and found.off == (
        ("Rex's left ear tip", 2.5),
    )


def test_places_are_told_by_the_sitters_own_side_also_mirrored():
    eyes = (Eye("left", 100, 100, 10), Eye("right", 200, 100, 10))
    photo = Photo("p", "p.jpg", 300, 400, eyes=eyes, use="lead")
    plain = Compose(300, 400, "", Framed("p", Rect(0, 0, 300, 400)))
    seen = {p.full_name: p.at for p in places_on(plain, (photo,))}
    assert seen["right eye"][0] < seen["left eye"][0], "the right eye of who looks at the viewer is at the viewer's left"
    ring = Ring(((0.0, 0.0), (300.0, 0.0), (300.0, 400.0), (0.0, 400.0)), "ffff")
    for mirror in (False, True):
        piece = Piece(1, "Rex", "p", (ring,), (150.0, 200.0), (150.0, 200.0), 1.0, mirrored=mirror)
        seen = {p.full_name: p.at for p in places_on(replace(plain, background=None, pieces=(piece,)), (photo,))}
        assert seen["right eye"][0] < seen["left eye"][0], mirror
