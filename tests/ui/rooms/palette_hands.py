"""What hands do at Palette."""

from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QWheelEvent
from PySide6.QtWidgets import QApplication

from tests.journeys.hands import keys
from tests.ui.rooms.doing import ENTER


def box(window):
    return window.desk.studio.paintbox


def taken(qtbot, window, wait_idle):
    keys(qtbot, window, ENTER)
    wait_idle(window)
    return window.current


def wheel(widget, by: int) -> None:
    middle = QPointF(widget.rect().center())
    nothing = Qt.KeyboardModifier.NoModifier, Qt.ScrollPhase.NoScrollPhase, False
    turned = QWheelEvent(middle, widget.mapToGlobal(middle), QPoint(), QPoint(0, by), Qt.MouseButton.NoButton, *nothing)
    QApplication.sendEvent(widget, turned)


def sheet(page) -> str:
    return str(page.bench.sheet)
