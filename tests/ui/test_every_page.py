"""Every page in both themes, three sizes and three sizes of the text: no word cut, no widget without a name, no text too faint. Measured from the widgets themselves."""

from collections.abc import Iterator
from dataclasses import replace

import numpy as np
import pytest
from PySide6.QtCore import QPoint, QRect, Qt
from PySide6.QtGui import QFontMetricsF, QImage
from PySide6.QtWidgets import (
    QAbstractButton,
    QAbstractScrollArea,
    QAbstractSpinBox,
    QApplication,
    QComboBox,
    QLabel,
    QLineEdit,
    QPlainTextEdit,
    QScrollBar,
    QWidget,
)

from yarrow_lane.lane.doors import DOORS
from yarrow_lane.ui.theme.colours import contrast

SIZES = ((1000, 700, 100), (1280, 800, 150), (1920, 1080, 200))
_LEAST = 4.5  # WCAG 2.2, 1.4.3
_BLUR = (
    0.35  # the strokes of small letters are grey at their edges: at least this share of the contrast must stand in the pixels
)
_NAMED_BY_WORDS = (QAbstractButton, QLabel)
_WRITING = (QLineEdit, QPlainTextEdit, QAbstractSpinBox, QComboBox)


def pages(window) -> Iterator[str]:
    """Open one page after the other and tell its name: the halls, then every door of a commission that has got far."""
    window.open_studio()
    yield "shelf"
    window.open_hall("calendar")
    yield "calendar"
    for where in ("start", "away", "time", "settings"):
        window.studio_page.go_in_studio(where)
        yield f"studio, {where}"
    window.open_hall("books")
    for mode in ("money", "year", "paint", "clients", "terms"):
        window.current.show_mode(mode)
        yield f"books, {mode}"
    quill, fennel = window.desk.studio.on_shelf[:2]
    for door in DOORS:
        window.open_door(fennel if door in ("Layers", "Easel", "Palette") else quill, door)
        yield door
    for mode in ("face", "parcel"):
        window.current.show_mode(mode)
        yield f"Deliver, {mode}"


def still(qtbot, window) -> None:
    """Nothing is read any more, and every layout has come to rest."""
    for _ in range(2):
        window.grab()
        qtbot.waitUntil(lambda: not window.threads.busy, timeout=60_000)
        qtbot.wait(60)
    QApplication.processEvents()


def seen(window) -> list[QWidget]:
    """Visible widgets of the window that lie in what is shown of their scroll areas."""
    found = []
    for widget in window.findChildren(QWidget):
        if widget.isVisible() and not widget.visibleRegion().isEmpty():
            found.append(widget)
    return found


def cut(widget: QWidget) -> str:
    """The words that do not fit into the widget; "" when all do or there are none."""
    if (
        isinstance(widget, QLabel)
        and widget.text()
        and widget.textFormat() == Qt.TextFormat.PlainText
        and widget.pixmap().isNull()
    ):
        metrics = QFontMetricsF(widget.font())
        room = widget.contentsRect()
        if widget.wordWrap():
            return widget.text() if widget.heightForWidth(widget.width()) > widget.height() + 2 else ""
        return widget.text() if metrics.horizontalAdvance(widget.text()) > room.width() + 2 else ""
    if isinstance(widget, QAbstractButton) and type(widget).paintEvent is QAbstractButton.paintEvent and widget.text():
        words = widget.text().replace("&&", "&").split("\n")
        metrics = QFontMetricsF(widget.font())
        return widget.text() if max(map(metrics.horizontalAdvance, words)) > widget.width() else ""
    return ""


def unnamed(widget: QWidget) -> bool:
    """Whether a hand can reach it by Tab or type into it, and nothing says what it is."""
    if widget.focusPolicy() == Qt.FocusPolicy.NoFocus or (
        isinstance(widget, (QScrollBar, QAbstractScrollArea)) and not isinstance(widget, QPlainTextEdit)
    ):
        return False
    if isinstance(widget.parent(), (QAbstractSpinBox, QComboBox)) or widget.property("page"):
        return False  # the editor within a named one; the page itself takes the keys
    if widget.accessibleName().strip() or (isinstance(widget, _NAMED_BY_WORDS) and getattr(widget, "text", str)().strip()):
        return False
    return not any(isinstance(label, QLabel) and label.buddy() is widget for label in widget.window().findChildren(QLabel))


def faint(widget: QWidget, picture: np.ndarray, ratio: float) -> float:
    """The contrast between the lightest and the darkest pixel of a label that is seen whole; 21 for what has no words."""
    if not isinstance(widget, QLabel) or not widget.text().strip() or not widget.isEnabled():
        return 21.0
    corner = widget.mapTo(widget.window(), QPoint(0, 0))
    box = QRect(corner, widget.size())
    if widget.visibleRegion().boundingRect().size() != widget.size() or box.width() < 4 or box.height() < 8:
        return 21.0
    x, y, w, h = (round(v * ratio) for v in (box.x(), box.y(), box.width(), box.height()))
    part = picture[y : y + h, x : x + w].reshape(-1, 3)
    if not len(part):
        return 21.0
    weight = part.astype(float) @ (0.2126, 0.7152, 0.0722)
    dark, light = part[weight.argmin()], part[weight.argmax()]
    return contrast(*("#" + "".join(f"{c:02x}" for c in colour) for colour in (dark, light)))


def pixels(window) -> tuple[np.ndarray, float]:
    image = window.grab().toImage().convertToFormat(QImage.Format.Format_RGB888)
    data = np.frombuffer(image.constBits(), np.uint8).reshape(image.height(), image.bytesPerLine())[:, : image.width() * 3]
    return data.reshape(image.height(), image.width(), 3).copy(), image.width() / window.width()


@pytest.mark.timeout(300)
@pytest.mark.parametrize("evening", [False, True], ids=["day", "evening"])
def test_every_page_is_whole_named_and_clear(qtbot, demo_window, evening):
    window = demo_window
    wrong: list[str] = []
    for wide, high, percent in SIZES:  # in one window: what its pages worked out once stays
        window.desk.do_studio("x", lambda s, p=percent: replace(s, evening=evening, text_percent=p))
        window.resize(wide, high)
        for name in pages(window):
            still(qtbot, window)
            wrong += (f"{wide}x{high} at {percent} %, {name}: {what}" for what in faults(window))
    window.desk.do_studio("x", lambda s: replace(s, evening=False, text_percent=100))
    assert not wrong, "\n".join(dict.fromkeys(wrong))


def faults(window) -> Iterator[str]:
    """What is wrong with the page as it stands."""
    picture, ratio = pixels(window)
    for widget in seen(window):
        words, clear = cut(widget), faint(widget, picture, ratio)
        if words and not widget.toolTip():  # what is shortened says all of it when pointed at
            yield f"cut: {words[:50]!r}"
        if unnamed(widget):
            yield f"no name: {type(widget).__name__}"
        if clear < _LEAST * (1 - _BLUR):
            yield f"faint: {widget.text()[:40]!r} {clear:.1f}"


def test_the_walk_would_see_what_is_wrong(qtbot, window):
    """The measures themselves, on widgets that are cut, nameless and faint on purpose."""
    label = QLabel("far too long for this", window)
    label.setTextFormat(Qt.TextFormat.PlainText)
    label.setGeometry(0, 0, 20, 20)
    assert cut(label) and not cut(QLabel("", window))
    field = QLineEdit(window)
    assert unnamed(field)
    field.setAccessibleName("a name")
    assert not unnamed(field)
    label.setGeometry(0, 0, 300, 30)
    label.setStyleSheet("color: #8f8f8f; background: #9a9a9a;")
    window.show()
    label.show()
    label.raise_()
    assert faint(label, *pixels(window)) < 2 and not cut(label)
