"""What is half done at Compose is not lost, what is not done changes nothing, and what is promised to go out goes out."""

from dataclasses import replace

import pdfplumber
import pytest

from tests.doing import do_part
from tests.journeys.hands import click, keys, path
from tests.ui.rooms.doing import ENTER, SPACE, cut_out, now
from yarrow_lane.compose import pieces
from yarrow_lane.compose.composition import Framed
from yarrow_lane.compose.cutting.cut import CutTrouble
from yarrow_lane.compose.ground import Ground
from yarrow_lane.compose.wall import RoomPhoto
from yarrow_lane.intake.brief import add_sitter
from yarrow_lane.lane.happening import ProofSent, of_kind
from yarrow_lane.measure.plane import Rect


def test_a_line_half_mended_is_there_again_after_another_commission(qtbot, two, wait_idle):
    window = two
    mode = cut_out(qtbot, window, wait_idle, "cat1")
    mode.choose_stroke("takes away")
    ring = mode.work.rings[0]
    middle = pieces.polygon_bounds(ring.points).centre
    path(mode.view, [middle, (middle[0] + 20, middle[1])])
    wait_idle(window)
    before = mode.work
    assert before.strokes
    first = window.commission_id
    other = window.desk.start_commission(now(window).brief)
    window.open_door(other, "Compose")
    wait_idle(window)
    window.open_door(first, "Compose")
    window.current.work_on("cut out")
    wait_idle(window)
    assert window.current.modes["cut out"].work == before


def test_a_stroke_that_fails_leaves_the_line_it_found(qtbot, two, wait_idle, monkeypatch, workers):
    window = two
    mode = cut_out(qtbot, window, wait_idle, "cat1")
    before = mode.work

    def fails(*_: object, **__: object) -> None:
        raise CutTrouble("Nothing was cut out", "the stroke covers everything", "take it back")

    monkeypatch.setattr(workers, "ask", fails)
    keys(qtbot, window, "x")
    path(mode.view, [before.rings[0].points[0], before.rings[0].points[3]])
    wait_idle(window)
    assert mode.work == before and "the stroke covers everything" in window.message.text
    assert "Place" in window.current.bench.sheet.act.title, "what was found can still be placed"


def test_the_edge_is_seen_on_what_will_lie_behind_it(qtbot, two, wait_idle):
    window = two
    mode = cut_out(qtbot, window, wait_idle, "cat1")
    keys(qtbot, window, SPACE, SPACE, SPACE, SPACE)
    wait_idle(window)
    assert mode.seen_on.ground == "as placed"
    shown = mode.view.levels.images[0]
    keys(qtbot, window, SPACE)
    assert mode.seen_on.ground == "photograph" and mode.view.levels.images[0] != shown
    keys(qtbot, window, ENTER)
    wait_idle(window)
    placed = window.current.modes["place"].view.levels.images[0]
    (piece,) = now(window).compose.pieces
    photo = now(window).intake.photo(piece.photo_id)
    above = photo.width_px / 2, 12.0
    lies_mm = pieces.to_canvas(piece, above)
    behind = shown.pixelColor(int(above[0] * shown.width() / photo.width_px), int(12 * shown.width() / photo.width_px))
    lies = placed.pixelColor(*(int(mm * placed.width() / 500) for mm in lies_mm))
    assert behind.getRgb() == pytest.approx(lies.getRgb(), abs=4), "above the sitter it is what the canvas has there"


def test_a_corner_pressed_and_not_moved_changes_nothing(qtbot, placed, wait_idle):
    window, page = placed, placed.current
    mode = page.modes["place"]
    mode.choose(now(window).compose.pieces[0].id)
    wait_idle(window)
    before = now(window)
    corner = mode.tool.frame[0]
    click(mode.view, (corner[0] + 2, corner[1] + 1))
    wait_idle(window)
    assert now(window).compose == before.compose
    assert now(window) is before, "no version of it was made"


@pytest.mark.parametrize("in_their_room", [False, True])
def test_the_page_of_the_wall_goes_out_with_the_proof(qtbot, placed, wait_idle, in_their_room):
    window, page = placed, placed.current
    page.work_on("on the wall")
    wait_idle(window)
    keys(qtbot, window, ENTER)  # put the wall in the proof
    if in_their_room:
        photo = now(window).intake.photos[1]
        corners = ((100.0, 60.0), (300.0, 80.0), (300.0, 220.0), (100.0, 240.0))
        room = RoomPhoto(photo.id, corners, 1500.0, 1200.0, at_mm=(750.0, 600.0))
        do_part(window.desk, window.commission_id, "hung", "compose", lambda c: replace(c, wall=replace(c.wall, room=room)))
    page.work_on("proof")
    wait_idle(window)
    assert now(window).proofs.with_wall
    keys(qtbot, window, ENTER)
    wait_idle(window)
    assert len(of_kind(now(window).log, ProofSent)) == 1
    (file,) = (window.desk.store.folder / "outbox").glob("*.pdf")
    with pdfplumber.open(file) as read:
        last = read.pages[-1]
        assert len(read.pages) >= 2 and len(last.images) == 1
        assert ("In your room" if in_their_room else "On your wall") in last.extract_text()


def test_who_is_not_cut_out_yet_is_named_unless_a_photograph_lies_behind(placed, wait_idle):
    window = placed
    page, c = window.current, now(window)
    one, two = (p.id for p in c.compose.pieces)
    brief = add_sitter(add_sitter(c.brief, "Moss", "cat"), "Wilf", "person")
    do_part(window.desk, c.id, "who", "brief", lambda _: brief)
    known = {one: brief.sitters[0].id, two: brief.sitters[1].id}
    do_part(window.desk, c.id, "whose", "compose", lambda x: replace(
        x, pieces=tuple(replace(p, sitter_id=known[p.id]) for p in x.pieces)))  # fmt: skip
    page.refresh()
    assert page.bench.sheet.act.title == "Cut out Wilf" and page.bench.sheet.act.detail == "2 of 3 are in the picture"
    behind = Framed(c.intake.photos[0].id, Rect(0, 0, 100, 80))
    do_part(window.desk, c.id, "behind", "compose", lambda x: replace(x, background=behind, ground=Ground()))
    page.refresh()
    wait_idle(window)
    assert not page.bench.sheet.act.title.startswith("Cut out"), "Wilf may be on the photograph that lies behind"
