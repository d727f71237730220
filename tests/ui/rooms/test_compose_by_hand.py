"""Composing with mouse and keys: cut out, placed, scaled by a known length, hung, tried otherwise, shown to the client."""

import numpy as np
import pytest
from bench import hands
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFileDialog

from tests.conftest import jpeg_of
from tests.doing import do_part, photo_from_file
from tests.journeys.hands import drag, fill, keys, path, press
from tests.rooms.compose.sitters import sitter
from tests.ui.rooms.doing import ENTER, ESC, LONGER, SPACE, UNDO, cut_out, now
from yarrow_lane.commission.recompose import take_photo_away
from yarrow_lane.compose import pieces
from yarrow_lane.compose.pieces import Ring
from yarrow_lane.compose.placing import add_piece
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.intake.photos import add_photo
from yarrow_lane.lane.happening import ProofAnswered, ProofSent, of_kind
from yarrow_lane.measure.lengths import size_text


def test_a_sitter_is_cut_out_with_one_loop_mended_with_a_stroke_and_placed(qtbot, two, wait_idle):
    window, page = two, two.current
    mode = cut_out(qtbot, window, wait_idle, "cat1")
    first = mode.found.mask.sum()
    ys, xs = np.nonzero(hands.body(sitter("cat1", LONGER)[1]))
    middle = float(np.median(xs)), float(np.median(ys))
    keys(qtbot, window, "x")  # a stroke takes away
    path(mode.view, [middle, (middle[0] + 30, middle[1]), (middle[0] + 60, middle[1])])
    wait_idle(window)
    assert len(mode.work.strokes) == 1 and mode.found.mask.sum() < first
    keys(qtbot, window, Qt.Key.Key_Backspace)
    wait_idle(window)
    assert mode.work.strokes == () and abs(int(mode.found.mask.sum()) - int(first)) < 0.01 * first
    keys(qtbot, window, SPACE)
    wait_idle(window)
    assert mode.seen_on.ground == "black" and mode.view.levels.images[0].pixelColor(2, 2).lightness() == 0
    keys(qtbot, window, ENTER)
    wait_idle(window)
    (piece,) = now(window).compose.pieces
    assert page.mode.name == "place" and page.modes["place"].chosen == piece.id
    photo = now(window).intake.photo(piece.photo_id)
    assert "bottom" in pieces.sides_cut(piece.outline, (photo.width_px, photo.height_px))
    assert piece.bounds_mm.bottom == pytest.approx(400, abs=1.5), "the photograph's cut lies on the canvas's edge"


def test_clicked_corners_are_closed_by_a_double_click_and_given_up_by_escape(qtbot, two, wait_idle):
    window, page = two, two.current
    page.work_on("cut out")
    mode = page.modes["cut out"]
    photo = next(p for p in now(window).intake.photos if p.name == "rabbit1.jpg")
    mode.choose_photo(photo.id)
    wait_idle(window)
    corners = hands.outline(sitter("rabbit1", LONGER)[1], "traced", 1)
    for corner in corners[:3]:
        path(mode.view, [corner])
    assert len(mode.round.corners) == 3
    keys(qtbot, window, ESC)
    assert mode.round.corners == () and window.commission_id, "Esc gives the corners up and stays in the room"
    for corner in corners:
        path(mode.view, [corner])
    keys(qtbot, window, ENTER)
    wait_idle(window)
    assert mode.work.drawn == "traced" and mode.work.rings


def test_points_of_the_line_are_dragged_and_coats_are_stroked(qtbot, two, wait_idle):
    window = two
    mode = cut_out(qtbot, window, wait_idle, "cat1")
    mode.choose_stroke("cloth")
    ring = mode.work.rings[0]
    mode.stroke.width = 30
    path(mode.view, [ring.points[0], ring.points[1]])
    assert {mode.work.rings[0].coat(0), mode.work.rings[0].coat(1)} == {"cloth"}
    keys(qtbot, window, "p")
    before = mode.work.rings[0].points[5]
    drag(mode.view, before, (before[0] + 12, before[1] + 7))
    moved = mode.work.rings[0].points[5]
    assert np.hypot(moved[0] - before[0], moved[1] - before[1]) > 5 and mode.work.by_hand


def test_a_sitter_is_moved_scaled_turned_and_mirrored(qtbot, placed, wait_idle):
    window, page = placed, placed.current
    mode = page.modes["place"]
    cat = now(window).compose.pieces[0]
    key = reference_key(now(window).compose)
    ys, xs = np.nonzero(hands.body(sitter("cat1", LONGER)[1]))
    at = pieces.to_canvas(cat, (float(np.median(xs)), float(np.percentile(ys, 80))))
    alone = (at, *cat.outline_mm[0])
    at = next(p for p in ((at[0] + 0.6 * (q[0] - at[0]), at[1] + 0.6 * (q[1] - at[1])) for q in alone) if mode.at(p) == cat.id)
    drag(mode.view, at, (at[0] - 30, at[1] - 12))
    wait_idle(window)
    moved = now(window).compose.piece(cat.id)
    assert moved.at_mm[0] == pytest.approx(cat.at_mm[0] - 30, abs=2) and moved.mm_per_px == cat.mm_per_px
    assert reference_key(now(window).compose) != key and mode.chosen == cat.id
    corner, middle = mode.tool.frame[2], mode.tool.middle
    half = (corner[0] + middle[0]) / 2, (corner[1] + middle[1]) / 2
    drag(mode.view, corner, half)
    wait_idle(window)
    assert now(window).compose.piece(cat.id).mm_per_px == pytest.approx(moved.mm_per_px / 2, rel=0.06)
    keys(qtbot, window, ">", ">", Qt.Key.Key_Right)
    wait_idle(window)
    turned = now(window).compose.piece(cat.id)
    assert turned.turn_deg == pytest.approx(2)
    keys(qtbot, window, "m")
    wait_idle(window)
    assert now(window).compose.piece(cat.id).mirrored and "another face" in window.message.text
    keys(qtbot, window, UNDO)
    assert now(window).compose.piece(cat.id) == turned
    page.bench.fold("Order and side", False)
    press(qtbot, page, "Bring forward")
    assert [p.id for p in now(window).compose.pieces][-1] == cat.id
    keys(qtbot, window, Qt.Key.Key_Delete)
    assert [p.id for p in now(window).compose.pieces] != [] and len(now(window).compose.pieces) == 1


def test_a_known_length_gives_the_share_of_life_and_one_scale(qtbot, placed, wait_idle):
    window, page = placed, placed.current
    mode = page.modes["place"]
    for piece, mm in zip(now(window).compose.pieces, (95.0, 90.0), strict=True):
        mode.choose(piece.id)
        mode.use("marks a length")
        box = piece.bounds_mm
        drag(mode.view, box.centre, (box.centre[0] + 40, box.centre[1]))
        fill(qtbot, page, "What it is", "collar")
        fill(qtbot, page, "Length in life", f"{mm} mm")
    known = now(window).compose.known
    assert [k.mm for k in known] == [95.0, 90.0] and all(k.doubt_mm == pytest.approx(0.05 * k.mm) for k in known)
    shares = [mode.scales.share(p.id, p.mm_per_px)[0] for p in now(window).compose.pieces]
    assert shares == pytest.approx([40 / 95, 40 / 90], rel=0.02), "drawn to a pixel of the screen"
    page.bench.fold("True size", False)
    fill(qtbot, page, "turned out of the view by", 60.0)
    turned = [mode.scales.share(p.id, p.mm_per_px)[0] for p in now(window).compose.pieces]
    assert sorted(t / s for t, s in zip(turned, shares, strict=True)) == pytest.approx([1.0, 2.0], rel=1e-3), (
        "half of it is seen"
    )
    keys(qtbot, window, UNDO)
    keys(qtbot, window, "o")
    shares = [mode.scales.share(p.id, p.mm_per_px)[0] for p in now(window).compose.pieces]
    assert shares[0] == pytest.approx(shares[1])
    rabbit = now(window).compose.pieces[1]
    mode.choose(rabbit.id)
    keys(qtbot, window, "l")
    assert mode.scales.share(rabbit.id, now(window).compose.piece(rabbit.id).mm_per_px)[0] == pytest.approx(1.0)
    standing = {s.piece_id: s for s in mode.strip.sitters}
    assert standing[rabbit.id].metres == pytest.approx(2.0)
    mode._pull(rabbit.id, 1.0, False)
    assert mode.scales.share(rabbit.id, now(window).compose.piece(rabbit.id).mm_per_px)[0] == pytest.approx(2.0)
    assert now(window).compose.pieces[-1].id == rabbit.id, "the nearest stands in front"


def test_colour_background_focus_and_a_recoloured_part(qtbot, placed, wait_idle):
    window, page = placed, placed.current
    mode = page.modes["place"]
    cat = now(window).compose.pieces[0]
    mode.choose(cat.id)
    wait_idle(window)
    page.hand(lambda: mode.set_move(steps=0.6))
    assert now(window).compose.piece(cat.id).move.steps == 0.6
    page.hand(mode.agree)
    assert now(window).compose.piece(cat.id).move.steps == 0.6, "statistics touch white balance only"
    mode.choose(0)
    page.bench.fold("Background", False)
    fill(qtbot, page, "Background", "colour")
    mode.use("sets the focus")
    mode._pointed((250.0, 150.0))
    assert now(window).compose.ground.kind == "colour" and now(window).compose.focus.at_mm == (250.0, 150.0)
    mode.use("recolours a part")
    path(mode.view, [(200 + 60 * np.cos(t), 200 + 40 * np.sin(t)) for t in np.linspace(0, 6, 20)])
    (part,) = now(window).compose.recoloured
    key = reference_key(now(window).compose)
    fill(qtbot, page, "Lighter or darker", -1.0)
    assert now(window).compose.recoloured[0].move.steps == -1 and reference_key(now(window).compose) != key
    assert part.id == now(window).compose.recoloured[0].id


def test_edges_wall_and_variants(qtbot, placed, wait_idle):
    window, page = placed, placed.current
    page.work_on("sides and frame")
    wait_idle(window)
    page.choices.button("floating").click()
    keys(qtbot, window, ENTER)
    assert now(window).compose.sides.finish == "dark" and "dark" in page.modes["sides and frame"].corner.corner.measures[1]
    fill(qtbot, page, "Gap", "0.8")
    assert now(window).compose.sides.gap_mm == 8
    fill(qtbot, page, "Gap", "9")  # 9 cm is no gap
    assert "outside 0 to 50 mm" in window.message.text and now(window).compose.sides.gap_mm == 8
    page.work_on("on the wall")
    wait_idle(window)
    wall = page.modes["on the wall"]
    wall.walk(2)
    assert wall.distance_mm == 3000 and now(window).compose.wall.distance_mm == 2500
    press(qtbot, page, "They look from here")
    assert now(window).compose.wall.distance_mm == 3000
    page.work_on("variants")
    wait_idle(window)
    keys(qtbot, window, ENTER)
    assert [v.name for v in now(window).proofs.variants] == ["variant A"]
    other = now(window).compose.pieces[0]
    page.work_on("place")
    page.modes["place"].choose(other.id)
    keys(qtbot, window, Qt.Key.Key_Left)
    changed = now(window).compose
    page.work_on("variants")
    page.modes["variants"].pick("variant A")
    keys(qtbot, window, ENTER)
    kept = now(window).proofs.variants
    assert now(window).compose == kept[0].composed and kept[1].composed == changed, "nothing is lost when one is chosen"


def test_a_proof_is_sent_approved_and_reopened_by_a_change(qtbot, placed, wait_idle, tmp_path, monkeypatch):
    window, page = placed, placed.current
    page.work_on("proof")
    wait_idle(window)
    fill(qtbot, page, "Included", "canvas, varnish, hanging")
    wait_idle(window)
    keys(qtbot, window, ENTER)
    wait_idle(window)
    (sent,) = of_kind(now(window).log, ProofSent)
    assert sent.number == 1 and sent.made_from == reference_key(now(window).compose)
    outbox = window.desk.store.folder / "outbox"
    assert {p.suffix for p in outbox.iterdir()} == {".pdf", ".eml"}
    assert page.standing().wants == "proof not answered yet"
    keys(qtbot, window, ENTER)
    (answer,) = of_kind(now(window).log, ProofAnswered)
    assert answer.approved and page.standing().wants == ""
    page.work_on("place")
    page.modes["place"].choose(now(window).compose.pieces[0].id)
    keys(qtbot, window, Qt.Key.Key_Left, Qt.Key.Key_Left, Qt.Key.Key_Left)
    assert page.standing().wants == "changed since the client approved it", "3 mm are seen"
    page.work_on("proof")
    wait_idle(window)
    notes = [line.text for s in page.bench.sheet.sections for line in s.lines if hasattr(line, "text")]
    assert any("moved 3 mm left" in n for n in notes)
    keys(qtbot, window, UNDO, UNDO, UNDO)
    assert page.standing().wants == ""
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(tmp_path / "proof.png"), ""))
    press(qtbot, page, "Save it as a picture…")
    wait_idle(window)
    assert (tmp_path / "proof.png").stat().st_size > 10_000


def test_the_size_proposed_is_drawn_and_taken_by_enter(qtbot, window, commission_id, wait_idle, cat):
    photo = photo_from_file(window.desk, jpeg_of(cat), "cat.jpg")
    window.open_door(commission_id, "Compose")
    assert window.current.bench.act.title.text() == "Choose the size", "there is nothing yet to propose it by"
    do_part(window.desk, commission_id, "in", "intake", lambda i: add_photo(i, photo))
    wait_idle(window)
    page = window.current
    proposed = page.size_to_take
    said = size_text(proposed.width_mm, proposed.height_mm, "cm")
    assert proposed.width_mm > proposed.height_mm, "451 x 300 px lie"
    assert page.bench.act.title.text() == page.standing().act.title == f"Take {said}"
    assert any(getattr(o, "text", "") == f"{said}, proposed" for o in page.crop_view.overlays)
    keys(qtbot, window, ENTER)
    wait_idle(window)
    compose = now(window).compose
    assert (compose.width_mm, compose.height_mm, compose.format_name) == (proposed.width_mm, proposed.height_mm, proposed.name)
    assert compose.background is None and page.size_to_take is None, "the crop is the next Enter"


def test_what_a_way_of_working_lacks_is_said(qtbot, window, commission_id):
    window.open_door(commission_id, "Compose")
    page = window.current
    for name in ("cut out", "place", "sides and frame", "on the wall", "variants", "proof"):
        page.work_on(name)
        assert page.mode.name == "size and crop" and window.message.text


@pytest.mark.parametrize("name", ["place", "sides and frame", "on the wall", "variants", "proof"])
def test_what_a_way_of_working_needs_can_be_taken_back_under_it(qtbot, two, wait_idle, name):
    """The size and all that came after it are undone while the table shows it."""
    window, page = two, two.current
    photo = now(window).intake.photos[0]
    ring = Ring(((20.0, 20.0), (300.0, 20.0), (300.0, 300.0), (20.0, 300.0)), "ssss")
    size = (photo.width_px, photo.height_px)
    do_part(two.desk, two.commission_id, "placed", "compose", lambda c: add_piece(c, "Pip", photo.id, (ring,), size))
    page.work_on(name)
    assert page.mode.name == name
    while now(window).compose.sized:
        keys(qtbot, window, UNDO)
    assert page.mode.name == "size and crop" and "Something went wrong" not in window.message.text


def test_a_photograph_taken_away_takes_its_sitter_with_it(qtbot, placed, wait_idle):
    c = now(placed)
    gone = take_photo_away(c, c.compose.pieces[0].photo_id)
    assert len(gone.commission.compose.pieces) == 1 and any("goes with it" in w for w in gone.changes)
