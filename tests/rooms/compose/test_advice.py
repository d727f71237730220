"""Advice on made compositions: each fault is named with its number, and the proposed move mends it."""

from dataclasses import replace

import pytest

from tests.rooms.compose.making import oval
from yarrow_lane.compose.advice import Face, advice, done, faces, falloff, refused
from yarrow_lane.compose.composition import Compose, Framed
from yarrow_lane.compose.ground import Ground
from yarrow_lane.compose.pieces import Piece
from yarrow_lane.intake.landmarks import Landmark
from yarrow_lane.intake.photos import Eye, Photo
from yarrow_lane.measure.plane import Rect

# A head of 400 px across in a photograph of 800 x 1000; at 0.5 mm a px it is 20 cm wide.
PHOTO = Photo(
    "p1", "one.jpg", 800, 1000, eyes=(Eye("left", 340, 330, 20), Eye("right", 460, 330, 20)),
    landmarks=(Landmark("crown", 400, 160), Landmark("chin", 400, 560), Landmark("nose tip", 400, 430)),
)  # fmt: skip
HEAD = Piece(1, "Moss", "p1", (oval(400, 500, 260, 340, 24),), (400, 500), (200, 235), 0.5)
GOOD = Compose(400, 500, "", None, Ground("colour"), (HEAD,), 2)


def kinds(compose: Compose, photo: Photo = PHOTO) -> dict[str, object]:
    return {a.kind: a for a in advice(compose, faces(compose, (photo,)), "cm")}


def looking(dx: float) -> Photo:
    marks = tuple(replace(m, x=m.x + dx) if m.name == "nose tip" else m for m in PHOTO.landmarks)
    return replace(PHOTO, landmarks=marks)


def test_a_good_one_is_let_be():
    assert kinds(GOOD) == {}


@pytest.mark.parametrize(
    ("piece", "photo", "kind"),
    [
        (replace(HEAD, at_mm=(200, 180)), PHOTO, "head room"),
        (replace(HEAD, at_mm=(200, 400)), PHOTO, "head room"),
        (replace(HEAD, mm_per_px=0.3, at_mm=(200, 160)), PHOTO, "share"),
        (replace(HEAD, at_mm=(290, 235)), PHOTO, "balance"),
        (replace(HEAD, at_mm=(250, 235)), looking(60), "gaze"),
        (replace(HEAD, at_mm=(132, 235)), PHOTO, "touch"),
        (replace(HEAD, mm_per_px=0.55, at_mm=(200, 460)), PHOTO, "cut joint"),
        (replace(HEAD, at_mm=(390, 235)), looking(60), "cut nose"),
    ],
)
def test_each_fault_is_named_and_its_move_mends_it(piece, photo, kind):
    compose = replace(GOOD, pieces=(piece,))
    found = kinds(compose, photo)
    assert kind in found, found
    after = done(compose, found[kind], {"p1": (800.0, 1000.0)})
    assert kind not in kinds(after, photo), "the move mends what it was proposed for"
    assert kind not in kinds(refused(compose, found[kind]), photo), "meant so is not said again"


def test_the_numbers_are_those_of_the_canvas():
    aside = kinds(replace(GOOD, pieces=(replace(HEAD, at_mm=(250, 235)),)), looking(60))["gaze"]
    # Nose at 250 + 30 = 280 mm: 120 mm before it; the eyes' middle at 250 mm: (1.25 x 250 - 120) / 2.25 = 85.6 mm.
    assert aside.across_mm == pytest.approx(-(1.25 * 250 - 120) / 2.25 - 1) and "9\u202fcm left" in aside.words
    assert aside.room == Rect(280, pytest.approx(190), 120, 20)


def test_what_the_edge_cuts_off_comes_before_taste():
    """Of two sitters the second is cut at the nose: that is said first."""
    other = replace(HEAD, id=2, name="Pip", at_mm=(390, 235))
    near = replace(HEAD, at_mm=(132, 235))
    said = advice(replace(GOOD, pieces=(near, other)), faces(replace(GOOD, pieces=(near, other)), (looking(60),)), "cm")
    assert [(a.kind, a.piece_id) for a in said] == [("cut nose", 2), ("touch", 1)]


def test_ears_are_no_head():
    """A rabbit's ears reach high above its eyes: the eye line says nothing then."""
    ears = replace(HEAD, outline=(oval(400, 320, 120, 420, 24),), at_mm=(200, 300))
    eyes = replace(PHOTO, eyes=(Eye("left", 380, 600, 15),), landmarks=(Landmark("chin", 400, 700),))
    assert "eye line" not in kinds(replace(GOOD, pieces=(ears,)), eyes)


def test_without_a_sitter_placed_the_crop_is_moved():
    framed = Compose(400, 500, "", Framed("p1", Rect(200, 100, 480, 600)))
    found = kinds(framed, looking(60))
    assert "gaze" in found and "the picture" in found["gaze"].words
    after = done(framed, found["gaze"], {"p1": (800.0, 1000.0)})
    assert after.background.crop.x > 200 and after.background.crop.width == 480
    assert kinds(Compose(400, 500)) == {}


def test_the_focus_falls_off_evenly():
    assert [round(falloff(d, 50), 3) for d in (0, 50, 125, 200, 900)] == [1, 1, 0.675, 0.35, 0.35]
    assert all(falloff(d, 50) >= falloff(d + 5, 50) for d in range(0, 300, 5))
    assert Face(1, "x").look == 0
