"""What changed, in words: every edit has some, equal compositions have none."""

from dataclasses import replace

import numpy as np
import pytest

from tests.rooms.compose.making import FENNEL, MOSS, THREE, oval
from yarrow_lane.compose.changes import changes
from yarrow_lane.compose.composition import Compose, Focus, Framed
from yarrow_lane.compose.ground import Ground
from yarrow_lane.compose.pieces import Move, moved, turned
from yarrow_lane.compose.sides import Sides
from yarrow_lane.measure.plane import Rect


def with_moss(**other) -> Compose:
    return replace(THREE, pieces=(FENNEL, replace(MOSS, **other), THREE.pieces[2]))


def words(after: Compose, before: Compose = THREE) -> list[str]:
    return [c.words for c in changes(before, after)]


PHOTO = replace(THREE, ground=Ground())


@pytest.mark.parametrize(
    ("after", "said"),
    [
        (with_moss(at_mm=(506, 380)), "Moss moved 14 mm left"),
        (with_moss(at_mm=(520, 384)), "Moss moved 4 mm down"),
        (with_moss(mm_per_px=0.88), "Moss 10 % larger"),
        (with_moss(turn_deg=-5.0), "Moss turned 2° clockwise"),
        (with_moss(mirrored=False), "Moss mirrored"),
        (with_moss(photo_id="p1"), "Moss comes from another photograph"),
        (with_moss(move=Move(steps=1.0)), "Moss lighter by one step"),
        (with_moss(move=Move(warm=-8)), "Moss cooler"),
        (replace(THREE, pieces=THREE.pieces[1:]), "Fennel taken off"),
        (replace(THREE, pieces=(MOSS, FENNEL, THREE.pieces[2])), "Fennel now stands before Moss"),
        (replace(THREE, ground=Ground("gradient", ((58.0, 1.0, 6.0), (32.0, 1.0, 5.0)))), "background at the near end darker by one step"),
        (replace(THREE, ground=Ground("colour")), "background: gradient became colour"),
        (replace(THREE, width_mm=900), "canvas 80 × 60 cm became 90 × 60 cm"),
        (replace(THREE, sides=Sides("dark")), "edges: dark instead of undecided"),
        (replace(THREE, sides=Sides(frame="floating")), "a floating frame instead of no frame"),
    ],
)  # fmt: skip
def test_each_kind_of_change_is_told_with_its_measure(after, said):
    assert said in words(after)
    assert any(c.seen for c in changes(THREE, after))


def test_the_photograph_behind_is_told_too():
    crop = Rect(20, 0, 780, 585)
    other = replace(PHOTO, background=Framed("p3", crop))
    said = words(other, PHOTO)
    assert any(w.startswith("photograph 2.6 % larger") for w in said) and any("moved" in w for w in said)
    assert "background: another photograph" in words(replace(PHOTO, background=Framed("p1", Rect(0, 0, 800, 600))), PHOTO)
    softer = replace(PHOTO, ground=Ground(blur_mm=8))
    assert "background softer: blurred by 8 mm instead of 0 mm" in words(softer, PHOTO)


def test_what_is_too_small_to_see_is_told_as_such():
    for after in (
        with_moss(at_mm=(520.3, 380)),
        with_moss(mm_per_px=0.801),
        with_moss(turn_deg=-6.99),
        with_moss(move=Move(warm=0.4)),
    ):
        found = changes(THREE, after)
        assert found and not any(c.seen for c in found), [c.words for c in found]
    assert "0.3 mm, too little to see" in words(with_moss(at_mm=(520.3, 380)))[0]


def test_turning_about_another_place_moves_the_middle():
    after = replace(THREE, pieces=(turned(FENNEL, 6, (0, 0)), *THREE.pieces[1:]))
    assert any("Fennel moved" in w for w in words(after)) and any("turned" in w for w in words(after))


def test_an_outline_is_told_by_its_area():
    larger = replace(MOSS, outline=(oval(300, 300, 130, 150),))
    (change,) = changes(THREE, replace(THREE, pieces=(FENNEL, larger, THREE.pieces[2])))
    # A belt of 10 px along an oval: pi (130 - 120) 150 px of 0.8 mm each.
    more = float(change.words.split(": ")[1].split(" cm²")[0])
    assert more == pytest.approx(np.pi * 10 * 150 * 0.64 / 100, rel=0.05) and change.seen


def test_what_the_client_does_not_see_is_no_change():
    same = replace(
        THREE, meant=("gaze 1",), focus=Focus((10, 10), 5), next_piece=12, format_name="x", background=None,
        pieces=(replace(FENNEL, far=2.0, sitter_id=4), *THREE.pieces[1:]),
    )  # fmt: skip
    assert changes(THREE, same) == () == changes(THREE, THREE)


def test_no_random_edit_is_without_words():
    rng = np.random.default_rng(0)
    base = replace(PHOTO, ground=replace(Ground(), blur_mm=4.0))
    for _ in range(3000):
        piece = base.pieces[int(rng.integers(3))]
        size = 10 ** float(rng.uniform(-4, 2))
        edits = {
            "at": moved(piece, size, -size / 3),
            "scale": replace(piece, mm_per_px=piece.mm_per_px * (1 + size / 100)),
            "turn": replace(piece, turn_deg=piece.turn_deg + size),
            "mirror": replace(piece, mirrored=not piece.mirrored),
            "move": replace(piece, move=Move(steps=size / 50, contrast=1 + size / 500)),
            "anchor": replace(piece, anchor=(piece.anchor[0] + size, piece.anchor[1])),
            "name": replace(piece, name="other"),
            "outline": replace(piece, outline=(oval(300 + size, 300, 100, 100),)),
            "gone": None,
            "sides": None,
            "ground": None,
            "crop": None,
        }
        what = list(edits)[int(rng.integers(len(edits)))]
        if what == "gone":
            after = replace(base, pieces=tuple(p for p in base.pieces if p is not piece))
        elif what == "sides":
            after = replace(base, sides=replace(base.sides, depth_mm=base.sides.depth_mm + size))
        elif what == "ground":
            after = replace(base, ground=replace(base.ground, blur_mm=4 + size, move=Move(pink=size / 30)))
        elif what == "crop":
            after = replace(base, background=Framed("p3", Rect(size / 9, 0, 800, 600)))
        else:
            after = replace(base, pieces=tuple(edits[what] if p is piece else p for p in base.pieces))
        assert changes(base, after), (what, size)
        assert changes(after, after) == ()
