"""Another size, turn, crop or photograph: later work stays at its place of the photograph, and the list says what became of it."""

import math
import re
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import NOON
from tests.rooms.commission.making import LEAD, STUDIO, painting_at, regions, shut_up_to
from yarrow_lane.canvas_photo.taken import Taken
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.recompose import recompose, recount, resequence
from yarrow_lane.commission.standing import passes_in, stand
from yarrow_lane.compose.composition import Compose, Framed, frame, set_size, to_photo, turn
from yarrow_lane.compose.pieces import Piece, Ring
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.lane.happening import ClockStarted, ClockStopped, Printed
from yarrow_lane.layers.regions import choose_school
from yarrow_lane.measure.plane import Rect
from yarrow_lane.palette.wells import Palette, Well
from yarrow_lane.transfer.lines.choice import Choice
from yarrow_lane.transfer.proof.photo import DrawingPhoto
from yarrow_lane.transfer.record import Transfer, mark_carried
from yarrow_lane.transfer.ways import Ways

SIZE = (2400.0, 3000.0)


def under_way() -> Commission:
    """Drawn, two wells placed and one without a place, three regions, some passes painted, some hours logged."""
    c = shut_up_to("Easel", passes_left=4)
    wells = (
        Well(1, "coat", (100.0, 100.0), 4, (120, 90, 60), (41, 9, 22), "ochre 2 : umber 1"),
        Well(2, "collar", (20.0, 290.0), 4, (150, 20, 30), (33, 50, 30)),
        Well(3, "from the tube", None, 4, (250, 250, 250), (98, 0, 0)),
    )
    log = (ClockStarted(NOON, "1", "wash"), ClockStopped(NOON, "1", "wash"))
    transfer = Transfer(4, ((0, 0), (1, 0), (2, 0)), made_from=reference_key(c.compose))
    return replace(c, palette=Palette(wells), log=log, transfer=transfer)


CHANGES = st.lists(
    st.one_of(
        st.tuples(st.just("size"), st.floats(60, 900), st.floats(60, 900)),
        st.tuples(st.just("turn"), st.just(0.0), st.just(0.0)),
        st.tuples(st.just("width"), st.floats(200, 2400), st.just(0.0)),
        st.tuples(st.just("centre"), st.floats(0, 2400), st.floats(0, 3000)),
    ),
    min_size=1,
    max_size=8,
)


def changed(compose: Compose, change: tuple[str, float, float]) -> Compose:
    what, a, b = change
    assert compose.background is not None
    crop = compose.background.crop
    if what == "size":
        return set_size(compose, a, b, "", SIZE)
    if what == "turn":
        return turn(compose, SIZE)
    if what == "width":
        return frame(compose, "p1", SIZE, a, crop.centre)
    return frame(compose, "p1", SIZE, crop.width, (a, b))


@given(CHANGES)
def test_points_stay_at_the_same_place_of_the_photograph(changes):
    c = under_way()
    names = {w.id: w.name for w in c.palette.wells}
    for change in changes:
        before, found = c, recompose(c, changed(c.compose, change))
        c = found.commission
        here = 0.01 * c.compose.background.crop.width / c.compose.width_mm  # 0.01 mm of canvas in px of the photograph
        off = []
        for old in before.palette.wells:
            new = c.palette.well(old.id)
            assert replace(new, at_mm=None) == replace(old, at_mm=None), "colour and mix never change"
            if old.at_mm is None:
                assert new.at_mm is None
                continue
            place = to_photo(before.compose, old.at_mm)
            if new.at_mm is None:
                crop = c.compose.background.crop
                assert not (crop.x + 0.01 < place[0] < crop.right - 0.01 and crop.y + 0.01 < place[1] < crop.bottom - 0.01), (
                    "only what left the canvas loses its place"
                )
                off.append(names[old.id])
            else:
                assert to_photo(c.compose, new.at_mm) == pytest.approx(place, abs=here)
        said = [re.findall(r": (.*)\.$", s) for s in found.changes if s.startswith("Off the canvas, colour")]
        assert [", ".join(off)] * bool(off) == [words for lists in said for words in lists]
        kept = {r.id for r in c.layers.regions}
        gone = [r.name for r in before.layers.regions if r.id not in kept]
        said = [s for s in found.changes if s.startswith("Off the canvas: ")]
        assert said == [f"Off the canvas: {', '.join(gone)}."] * bool(gone)
        for region in c.layers.regions:
            assert all(
                -0.006 <= x <= c.compose.width_mm + 0.006 and -0.006 <= y <= c.compose.height_mm + 0.006
                for x, y in region.outline
            )
        assert c.log == before.log, "hours logged stay logged"
        assert c.layers.next_id >= before.layers.next_id, "ids never come back"


@given(st.floats(-30, 30), st.floats(-30, 30))
def test_an_outline_that_stays_inside_keeps_every_corner(dx, dy):
    c = under_way()
    c = replace(c, compose=frame(c.compose, "p1", SIZE, 2200, (1200, 1500)))
    after = frame(c.compose, "p1", SIZE, 2200, (1200 + dx, 1500 + dy))
    found = recompose(c, after).commission
    for old, new in zip(c.layers.regions[1:], found.layers.regions[1:], strict=True):
        assert len(old.outline) == len(new.outline)
        there = [to_photo(after, q) for q in new.outline]
        for p in (to_photo(c.compose, corner) for corner in old.outline):
            # Corners lie on a lattice of 0.01 mm: half of it on either canvas.
            assert min(math.dist(p, q) for q in there) <= 0.015 * 1.5 * after.background.crop.width / c.compose.width_mm
    assert set(after.canvas.corners) <= {p for ring in found.layers.regions[0].rings for p in ring}, (
        "a background that fills the canvas fills it still"
    )


def test_the_list_says_exactly_what_changed():
    c = under_way()
    assert recompose(c, c.compose) == recompose(c, c.compose) and recompose(c, c.compose).changes == ()
    done = len(c.easel.finished)
    crop = recompose(c, frame(c.compose, "p1", SIZE, 1800, (1300, 1300)))
    assert set(crop.changes) == {
        "Off the canvas, colour and mix kept: collar.",
        "1 well stays at the same place of the photograph.",
        "3 regions stay at the same place of the photograph.",
        "3 squares are begun anew: they were drawn from the earlier crop.",
        f"{done} finished passes were painted from the earlier crop.",
    }
    assert len(crop.commission.easel.finished) == done and crop.commission.transfer.drawn == ()
    cloth = recompose(c, set_size(c.compose, 480, 600, "", SIZE))
    assert set(cloth.changes) == {
        "2 wells stay at the same place of the photograph.",
        "3 regions stay at the same place of the photograph.",
        "3 squares are begun anew: they were drawn on another canvas.",
        f"{done} finished passes no longer count: they were painted on another canvas. The hours stay logged.",
    }
    assert cloth.commission.easel.finished == ()
    other = recompose(c, replace(c.compose, background=Framed("p2", Rect(0, 0, 2400, 3000))))
    assert "3 regions are begun anew, they were drawn on another photograph: Background, Fur, Eye." in [
        re.sub(r"\b(background|fur|eye)\b", lambda m: m[0].capitalize(), s) for s in other.changes
    ]
    assert "2 wells: colour and mix are kept, their places lie on another photograph." in other.changes
    assert other.commission.layers.regions == () and [w.at_mm for w in other.commission.palette.wells] == [None] * 3


def test_a_sitter_taken_off_leaves_its_wells_without_a_place_and_says_so():
    c = under_way()
    lying = Ring(((1000.0, 1000.0), (2000.0, 1000.0), (2000.0, 2000.0), (1000.0, 2000.0)))
    piece = Piece(1, "Moss", "p2", (lying,), (1500.0, 1500.0), (100.0, 100.0), 0.02)
    c = replace(c, compose=replace(c.compose, pieces=(piece,), next_piece=2))
    found = recompose(c, replace(c.compose, pieces=()))
    assert "Off the canvas, colour and mix kept: coat." in found.changes
    assert "1 well stays at the same place of the photograph." in found.changes
    assert [w.at_mm for w in found.commission.palette.wells] == [None, (20.0, 290.0), None]


def test_a_fresh_commission_has_nothing_to_say():
    c = shut_up_to("Intake")
    assert recompose(c, Compose(300, 400, "", Framed("p1", Rect(0, 0, 2250, 3000)))).changes == ()


def test_sheets_and_the_comparison_are_named():
    c = under_way()
    sheet = Printed(NOON, "squares", reference_key(c.compose))
    c = replace(c, log=(*c.log, sheet), check=painting_at(NOON))
    found = recompose(c, frame(c.compose, "p1", SIZE, 1800, (1300, 1300)))
    assert "Sheets printed before show the earlier composition: print them again." in found.changes
    assert "The photograph of the painting was compared with the earlier composition." in found.changes


def test_lines_by_hand_and_photographs_of_the_drawing_are_named_and_finer_squares_proposed_anew():
    c = under_way()
    photo = DrawingPhoto("a" * 64, "drawing.jpg", (100, 100), NOON, ((0.0, 0.0), (9.0, 0.0), (9.0, 9.0), (0.0, 9.0)))
    lines = Choice(by_hand=(((1.0, 1.0), (5.0, 5.0)),))
    c = replace(c, transfer=replace(c.transfer, lines=lines, photos=(photo,), quartered=((0, 0),)))
    found = recompose(c, changed(c.compose, ("width", 1500.0, 0.0)))
    said = " ".join(found.changes)
    assert "by hand stay where they lie" in said and "measure it again" in said
    assert found.commission.transfer.lines == lines and found.commission.transfer.quartered is None


def test_a_drawing_carried_over_is_drawn_again_and_marks_of_another_canvas_are_left_out():
    c = under_way()
    photo = Taken("f" * 64, "marks.jpg", (900, 1200), NOON, ((0.0, 0.0), (9.0, 0.0), (9.0, 9.0), (0.0, 9.0)))
    transfer = replace(c.transfer, drawn=(), ways=Ways("tracing", "tracing"), marked_surface=(photo,), sketch=photo)
    c = replace(c, transfer=mark_carried(transfer, ("outline", "details"), "tracing", 60.0))
    moved = recompose(c, frame(c.compose, LEAD.id, SIZE, 1500, (1200, 1500)))
    said = " ".join(moved.changes)
    assert "carried over from the earlier composition" in said and "set its corners again" in said and "scribble" not in said
    assert moved.commission.transfer.carried == () and moved.commission.transfer.marked_surface == (photo,)
    turned = recompose(c, turn(c.compose, SIZE))
    assert "The photographs of scribble marks show another canvas" in " ".join(turned.changes)
    assert turned.commission.transfer.marked_surface == () and turned.commission.transfer.ways.one == "tracing"


def test_another_school_keeps_what_still_has_a_place():
    c = under_way()
    layers = choose_school(c.layers, replace(c.layers.school, values="light first"))
    found = resequence(c, replace(c, layers=layers), STUDIO.climate)
    names = {p.id for p in passes_in(found.commission, STUDIO.climate)}
    assert all(f.pass_id in names for f in found.commission.easel.finished)
    lost = len(c.easel.finished) - len(found.commission.easel.finished)
    assert bool(lost) == any("no place in the new order" in s for s in found.changes)
    back = resequence(found.commission, replace(found.commission, layers=c.layers), STUDIO.climate)
    assert back.changes == () or "no place" in back.changes[0]
    same = resequence(c, c, STUDIO.climate)
    assert same.commission == c and same.changes == ()


def test_another_number_of_squares():
    c = under_way()
    found = recount(c, 6)
    assert found.changes == ("3 squares are begun anew: they were drawn on another lattice.",)
    assert found.commission.transfer.drawn == () and recount(c, 4).changes == ()
    assert recount(found.commission, 8).changes == ()


def stale_of(c: Commission, door: str) -> str:
    return next(d.stale for d in stand(c, STUDIO, NOON).doors if d.name == door)


def test_what_rests_on_an_earlier_reference_says_so():
    c = replace(under_way(), layers=replace(regions(), made_from=reference_key(under_way().compose)))
    assert stale_of(c, "Layers") == ""
    other = replace(c, compose=frame(c.compose, "p1", SIZE, 1000, (1200, 1500)))
    assert "earlier" in stale_of(other, "Layers")
