"""From an empty studio to a delivered portrait without a mouse; and with names that are far too long."""

from datetime import timedelta

import cv2
import numpy as np
import pdfplumber
import pytest
import skimage.data
from PIL import Image
from PySide6.QtCore import Qt
from PySide6.QtGui import QImage
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QComboBox, QFileDialog, QWidget
from shiboken6 import isValid

from tests.conftest import NOON
from tests.journeys.hands import press as press_button
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.lane.doors import DOORS

ENTER, SPACE, ESC, TAB, DOWN = (getattr(Qt.Key, f"Key_{n}") for n in ("Return", "Space", "Escape", "Tab", "Down"))
PASTE = Qt.Key.Key_V


class Keyboard:
    """Every key goes to whatever has the focus, as from a real keyboard; a mouse is not there."""

    def __init__(self, window) -> None:
        self.window = window

    @property
    def target(self) -> QWidget:
        if QApplication.activePopupWidget() is not None:
            lists = [box.view() for box in self.window.findChildren(QComboBox)]
            return next((view for view in lists if view.isVisible()), QApplication.activePopupWidget())
        return QApplication.focusWidget() or self.window

    def press(self, *pressed, held=Qt.KeyboardModifier.NoModifier) -> None:
        for key in pressed:
            target = self.target
            QTest.keyPress(target, key, held)
            if isValid(target):  # what was pressed may have taken its own list away
                QTest.keyRelease(target, key, held)
            QApplication.processEvents()  # between two keys of a hand there is time to show what the first one did

    def write(self, text: str) -> None:
        QTest.keyClicks(self.target, text)

    def tab_to(self, label: str) -> None:
        """Tab along the bench until the line of that name has the keys."""
        wanted, seen = self.window.current.bench.line(label), []
        for _ in range(80):
            focus = QApplication.focusWidget()
            if focus is not None and (focus is wanted or wanted.isAncestorOf(focus)):
                return
            self.press(TAB)
            seen.append(f"{type(focus).__name__} {focus.accessibleName() if focus else ''}")
        raise AssertionError(f"“{label}” is not reached by Tab: {seen[:30]}")

    def choose(self, downs: int) -> None:
        """In the list that the yellow field has opened."""
        assert QApplication.activePopupWidget() is not None, self.window.current.bench.sheet.act
        self.press(*[DOWN] * downs, ENTER)


@pytest.fixture
def a_person():
    """The face of a real photograph that ships with scikit-image, enlarged as clients do."""
    return cv2.resize(skimage.data.astronaut()[:300, 60:390], None, fx=4, fy=4, interpolation=cv2.INTER_CUBIC)


def test_a_portrait_from_an_empty_studio_to_delivered_by_keys_alone(
    qtbot, window, wait_idle, clock, a_person, tmp_path, monkeypatch
):
    hands, desk = Keyboard(window), window.desk
    hands.press(ENTER)  # an empty shelf: its yellow field starts a commission
    hands.write("Ada")
    hands.press(TAB)
    hands.write("per")  # a list takes the first letters
    hands.press(TAB)
    hands.write("A. Client")
    hands.tab_to("Promised for")
    hands.write("+8w")
    hands.press(ENTER, ENTER)
    assert window.door == "Intake" and desk.commission(window.commission_id).brief.sitters[0].kind == "person"
    cid = window.commission_id

    def c():
        return desk.commission(cid)

    def settle():
        wait_idle(window)
        window.current.refresh()

    def go_on(door):
        settle()
        assert window.current.bench.sheet.act.title == f"Go on to {door}", window.current.bench.sheet.act
        hands.press(ENTER)
        assert window.door == door
        settle()

    # Intake: a picture copied elsewhere is pasted; lead, eyes, rights and consent.
    height, width = a_person.shape[:2]
    QApplication.clipboard().setImage(QImage(a_person.tobytes(), width, height, 3 * width, QImage.Format.Format_RGB888))
    hands.press(PASTE, held=Qt.KeyboardModifier.ControlModifier)
    qtbot.waitUntil(lambda: len(c().intake.photos) == 1, timeout=30_000)
    settle()
    qtbot.waitUntil(lambda: not window.current._soon.isActive(), timeout=5_000)
    hands.press(ENTER)
    assert c().intake.photos[0].use == "lead"
    hands.press(ENTER)
    settle()
    hands.tab_to("Suggest the eyes")
    hands.press(SPACE)
    qtbot.waitUntil(lambda: len(c().intake.photos[0].eyes) == 2, timeout=30_000)
    hands.press(ESC)
    settle()
    hands.press(ENTER)
    hands.choose(1)
    assert c().intake.photos[0].rights.permission == "client"
    settle()
    hands.press(ESC, ENTER)
    hands.choose(2)
    assert c().intake.photos[0].rights.consent == "given"
    hands.press(ESC)
    go_on("Compose")
    proposed = window.current.size_to_take
    hands.press(ENTER)  # the size proposed, then its crop
    assert (c().compose.width_mm, c().compose.height_mm) == (proposed.width_mm, proposed.height_mm)
    settle()
    hands.press(ENTER)
    assert c().compose.framed
    go_on("Transfer")
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(tmp_path / "traced.pdf"), ""))
    for _ in range(8):  # take the advice, save the sheets, note that it is on the canvas
        if window.current.standing().act is None:
            break
        hands.press(ENTER)
        settle()
    assert (
        c().transfer.ways.one in ("tracing", "same-size print")
        and (tmp_path / "traced.pdf").exists()
        and len(c().transfer.carried) == 2
    )
    go_on("Tone")
    settle()
    hands.press(ENTER)
    settle()
    proposed = window.current.ground_now()
    hands.press(Qt.Key.Key_Down)
    settle()
    assert window.current.ground_now() != proposed
    hands.press(ENTER)
    assert c().tone.ground == window.current.ground_now()
    go_on("Palette")
    settle()
    hands.press(ENTER)  # tubes into the empty paintbox
    settle()
    hands.press(ENTER)  # the string that is proposed
    assert len(c().palette.wells) == 7 and all(w.recipe for w in c().palette.wells)
    first = c().palette.well(window.current.chosen_id).recipe
    settle()
    hands.write("w")
    assert c().palette.well(window.current.chosen_id).recipe != first
    hands.press(ENTER)  # the heaps are mixed
    assert all(w.mixed_on for w in c().palette.wells)
    go_on("Layers")
    hands.press(ENTER)
    assert c().layers.regions[0].kind == "background"
    assert sum(r.kind == "eye" for r in c().layers.regions) == 2
    ways = []
    while window.door == "Layers" and len(ways) < 8:  # lie, patches and score, each with its Enter
        settle()
        ways.append(window.current.bench.sheet.act.title)
        hands.press(ENTER)
    assert "Go on to the lie of the fur" in ways and c().layers.patches
    assert window.door == "Easel"
    for _ in range(100):
        paint = window.current.view.paint
        if paint is None:
            break
        hands.press(SPACE)
        clock.now += timedelta(minutes=20)
        hands.press(ENTER)
        clock.now += timedelta(minutes=90)
        settle()
    assert len(c().easel.finished) > 5
    painting = tmp_path / "painting.png"
    Image.fromarray(np.ascontiguousarray(a_person)).save(painting)
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_: (str(painting), ""))
    go_on("Check")
    hands.press(ENTER)
    qtbot.waitUntil(lambda: c().check.photo_id != "", timeout=30_000)
    settle()
    assert window.current.bench.sheet.act.title == "Measure it"
    hands.press(Qt.Key.Key_9)
    assert window.door == "Deliver"
    for wait in (0, 0, 25, 24 * 5, 4, 25, 0):
        clock.now += timedelta(hours=wait)
        window.current.refresh()
        hands.press(ENTER)
    assert c().deliver.delivered == clock.now
    assert [d.state for d in desk.standings.of(cid, clock()).doors] == ["shut"] * 9
    assert window.current.bench.sheet.act.title == "Back to the studio"
    hands.press(ENTER)
    assert not window.commission_id


LONG = ("Bartholomew-Ferdinand-" * 4)[:80]
VERY_LONG = ("the most noble and well-behaved of all hounds " * 7)[:300]


@pytest.mark.parametrize("name", [LONG, VERY_LONG], ids=["80", "300"])
@pytest.mark.parametrize("percent", [100, 150])
def test_names_far_too_long_break_no_view_sheet_or_letter(qtbot, window, wait_idle, tmp_path, monkeypatch, name, percent):
    from dataclasses import replace

    desk = window.desk
    cid = desk.start_commission(new_brief(name, "dog", name, "acrylic", NOON.date(), None, name))
    desk.do_studio("names", lambda s: replace(s, name=name, painter=name, text_percent=percent))
    width = 1000 if percent == 100 else 1280
    window.resize(width, 700)
    window.open_studio()
    _fits(window, width)
    for bench in ("start", "away", "settings"):
        window.studio_page.put_on_bench(bench)
        _fits(window, width)
    for door in DOORS:
        window.open_door(cid, door)
        wait_idle(window)
        _fits(window, width)
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(tmp_path / "sheet.pdf"), ""))
    press_button(qtbot, window.current, "Save the delivery sheet (PDF)…")
    with pdfplumber.open(tmp_path / "sheet.pdf") as pdf:
        words = [w for page in pdf.pages for w in page.extract_words()]
        assert words and all(w["x1"] <= pdf.pages[0].width - 20 and w["x0"] >= 20 for w in words)
        assert "".join(name.split())[:60] in "".join(w["text"] for w in words)
    window.open_door(cid, "Intake")
    page = window.current
    page.set_look(replace(page.look, mode="letter"))
    page.draft_letter()
    window.act()
    assert "In the outbox" in window.message.text and list((desk.store.folder / "outbox").iterdir())
    desk.do_studio("usual", lambda s: replace(s, text_percent=100))


def _fits(window, width: int) -> None:
    """Nothing grows beyond the window, and no words stand outside what holds them."""
    for _ in range(3):
        QApplication.processEvents()
    window.grab()
    assert window.width() <= width and window.minimumSizeHint().width() <= width
    for slot in window.current.bench._slots:
        holder = window.current.bench._scroll.viewport()
        left = slot.widget.mapTo(holder, slot.widget.rect().topLeft()).x()
        assert left >= 0 and left + slot.widget.width() <= holder.width(), slot.line
        assert slot.widget.minimumSizeHint().width() <= holder.width(), slot.line
