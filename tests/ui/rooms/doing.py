"""What hands do again and again in the rooms."""

from PySide6.QtCore import Qt

from tests.journeys.hands import click, fill, keys

ENTER, SPACE, ESC = Qt.Key.Key_Return, Qt.Key.Key_Space, Qt.Key.Key_Escape


def now(window):
    """The open commission as it is on record."""
    return window.desk.commission(window.commission_id)


def draw(qtbot, page, window, kind, corners, close=ENTER):
    """Draw a region of that kind, corner by corner, and keep it when it is closed with Enter."""
    fill(qtbot, page, "Next region is", kind)
    keys(qtbot, window, "d")
    for corner in corners:
        click(page.reference, corner)
    if close is not None:
        keys(qtbot, window, close)
    if close == ENTER and len(corners) > 2:
        keys(qtbot, window, ENTER)  # it is what was said before
