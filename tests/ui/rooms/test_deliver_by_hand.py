"""Deliver by mouse and keys: parts that slide home, where to sign, papers with numbers, pictures, the archive."""

import io
import zipfile
from dataclasses import replace
from datetime import timedelta

import pdfplumber
import pytest
from PIL import Image
from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QMouseEvent
from PySide6.QtWidgets import QFileDialog

from tests.conftest import NOON
from tests.doing import do_part
from tests.journeys import hands
from tests.journeys.hands import click, keys, send
from tests.ui.rooms.doing import ENTER, ESC, SPACE, now
from yarrow_lane.compose.sides import Sides
from yarrow_lane.deliver.handover import with_finish
from yarrow_lane.store.archive import read_archive

RIGHT = Qt.Key.Key_Right


@pytest.fixture
def demo_store(own_demo):
    return own_demo


@pytest.fixture
def deliver(demo_window, wait_idle):
    """Quill: one coat on, the second may follow in an hour."""
    demo_window.open_door(demo_window.desk.studio.on_shelf[0], "Deliver")
    wait_idle(demo_window)
    return demo_window.current


def press(qtbot, page, words) -> None:
    page.bench.point_at(words)
    hands.press(qtbot, page, words)


def hit(widget, at: QPointF) -> None:
    send(widget, QMouseEvent.Type.MouseButtonPress, at)
    send(widget, QMouseEvent.Type.MouseButtonRelease, at, Qt.MouseButton.NoButton)


def touch(page, key: str) -> None:
    """Click a part's words."""
    part, place = next((p, r) for p, r in page.exploded.labels() if p.key == key)
    hit(page.exploded, place.center())
    assert part.key == key


def state(page, key: str) -> str:
    return next(p.state for p, _ in page.exploded.labels() if p.key == key)


def test_parts_slide_home_when_their_turn_has_come(qtbot, deliver):
    page, window = deliver, deliver.window()
    clock = window.desk.clock
    assert [p.key for p, _ in page.exploded.labels()][:2] == ["varnish 1", "varnish 2"]
    assert (state(page, "varnish 1"), state(page, "varnish 2"), state(page, "glassine")) == ("on", "next", "ahead")
    apart = page.exploded.outline(next(p for p, _ in page.exploded.labels() if p.key == "varnish 2"))[0]
    touch(page, "glassine")
    assert "first: Varnish" in window.message.text
    touch(page, "varnish 2")
    assert "second coat must wait" in window.message.text and len(now(window).deliver.coats) == 1
    clock.now += timedelta(hours=2)
    page.refresh()
    touch(page, "varnish 2")
    assert len(now(window).deliver.coats) == 2 and state(page, "varnish 2") == "on"
    home = page.exploded.outline(next(p for p, _ in page.exploded.labels() if p.key == "varnish 2"))[0]
    assert home.x() < apart.x(), "it slid to the painting"
    touch(page, "sides")
    assert now(window).deliver.finish.sides == clock.now
    page.exploded.setFocus()
    at = [p.key for p, _ in page.exploded.labels()].index("hanging")
    here = [p.key for p, _ in page.exploded.labels()].index("sides")
    keys(qtbot, page.exploded, *([RIGHT] * ((at - here) % len(page.exploded.labels()))), SPACE)
    assert now(window).deliver.finish.hung == clock.now
    touch(page, "sides")
    assert now(window).deliver.finish.sides is None
    page.exploded.grab()


def test_a_frame_is_waited_for(qtbot, deliver):
    page, window = deliver, deliver.window()
    clock, cid = window.desk.clock, window.commission_id
    do_part(window.desk, cid, "x", "compose", lambda c: replace(c, sides=Sides("dark", 38.0, frame="floating")))
    do_part(
        window.desk,
        cid,
        "x",
        "deliver",
        lambda d: replace(
            with_finish(d, frame="oak", comes=(NOON + timedelta(days=4)).date()), coats=(NOON - timedelta(days=3),) * 2
        ),
    )
    page.refresh()
    assert state(page, "frame") == "next"
    touch(page, "frame")
    assert "the frame has not come" in window.message.text
    clock.now += timedelta(days=4)
    page.refresh()
    assert page.bench.sheet.act.title == "Into the frame" and "oak" in page.bench.sheet.act.detail
    keys(qtbot, window, ENTER)
    assert now(window).deliver.finish.framed == clock.now and page.bench.sheet.act.title == "Pack it"


def test_where_to_sign_is_proposed_and_may_be_elsewhere(qtbot, framed, wait_idle):
    keys(qtbot, framed, "9")
    page = framed.current
    page.show_mode("face")
    wait_idle(framed)
    assert page.proposed is not None and any("proposed" in getattr(o, "text", "") for o in page.portrait.overlays)
    keys(qtbot, framed, ENTER)
    assert now(framed).deliver.signed == NOON and now(framed).deliver.finish.place == page.proposed.at
    click(page.portrait, (40.0, 280.0))
    assert now(framed).deliver.finish.place == pytest.approx((40.0, 280.0), abs=1.0)
    assert any("bottom left" in getattr(o, "text", "") for o in page.portrait.overlays)
    keys(qtbot, framed, ESC)
    assert page.mode == "all" and framed.door == "Deliver"


def test_papers_are_seen_then_given_with_their_numbers_and_stay_as_they_were(qtbot, deliver, wait_idle):
    page, window = deliver, deliver.window()
    paper, place = next((p, r) for p, r in page.strip.places() if p.key == "certificate")
    assert not paper.written
    hit(page.strip, place.center())
    wait_idle(window)
    assert page.paper.pages == 1 and page.bench.sheet.act.detail.startswith("number 1")
    keys(qtbot, window, ENTER)
    given = page.papers.given("certificate")
    assert given.number == 1 and next(p for p, _ in page.strip.places() if p.key == "certificate").written
    before = page.papers.pdf("certificate")
    with pdfplumber.open(io.BytesIO(before)) as book:
        text = book.pages[0].extract_text()
        assert "No. 1" in text and "24 × 30" in text and "Rosalind Thorne" in text and len(book.pages[0].images) == 1
    window.desk.do_studio("x", lambda s: replace(s, painter="Somebody Else"))
    with pdfplumber.open(io.BytesIO(page.papers.pdf("certificate"))) as book:
        assert "Painted by Rosalind Thorne" in book.pages[0].extract_text()
    page.show_paper("care sheet")
    keys(qtbot, window, ENTER)
    page.show_paper("delivery note")
    keys(qtbot, window, ENTER)
    assert [page.papers.given(k).number for k in ("care sheet", "delivery note")] == [1, 1]
    keys(qtbot, window, ESC)
    page.show_paper("invoice")
    assert page.bench.sheet.act.title.startswith("Save it")


def test_what_is_missing_for_a_paper_is_said(qtbot, framed):
    keys(qtbot, framed, "9")
    page = framed.current
    for key, said in (("invoice", "nothing was invoiced"), ("parcel label", "no courier")):
        place = next(r for p, r in page.strip.places() if p.key == key)
        hit(page.strip, place.center())
        assert said in framed.message.text and page.paper_key is None
    do_part(framed.desk, framed.commission_id, "x", "brief", lambda b: replace(b, client="山田"))
    page.show_paper("care sheet")
    assert "lack 山田" in str(page.bench.sheet)


def test_pictures_and_the_archive(qtbot, deliver, wait_idle, tmp_path, monkeypatch):
    page, window = deliver, deliver.window()
    wait_idle(window)
    names = iter(("web.jpg", "print.tif", "quill.zip"))
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(tmp_path / next(names)), ""))
    page.keeping.want_web(800, True)
    press(qtbot, page, "Save a picture for the web…")
    with Image.open(tmp_path / "web.jpg") as web:
        assert max(web.size) <= 800 and web.size[1] / web.size[0] == pytest.approx(300 / 240, abs=0.02)
    page.bench.fold("Pictures of it", False)
    assert not page.bench.line("Save a picture for prints…").isEnabled(), "not agreed yet"
    do_part(window.desk, window.commission_id, "x", "deliver", lambda d: replace(d, answer=replace(d.answer, prints="agreed")))
    press(qtbot, page, "Save a picture for prints…")
    with Image.open(tmp_path / "print.tif") as print_:
        dots = print_.info["dpi"][0]
        assert print_.size[0] / float(dots) * 25.4 == pytest.approx(240, abs=1), "as large as the painting"
    press(qtbot, page, "Save the commission (archive)…")
    wait_idle(window)
    read = read_archive(tmp_path / "quill.zip")
    assert read.commission == now(window) and "invoice.pdf" in read.papers and "certificate.pdf" in read.papers
    with zipfile.ZipFile(tmp_path / "quill.zip") as bundle:
        assert bundle.testzip() is None and "read again" in window.message.text
