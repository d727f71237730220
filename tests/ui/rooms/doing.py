"""What hands do again and again in the rooms."""

from bench import hands
from PySide6.QtCore import Qt

from tests.journeys.hands import click, fill, keys, path
from tests.rooms.compose.sitters import sitter

ENTER, SPACE, ESC = Qt.Key.Key_Return, Qt.Key.Key_Space, Qt.Key.Key_Escape
UNDO = (Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
LONGER = 500  # px of the photographs: enough to be cut along


def now(window):
    """The open commission as it is on record."""
    return window.desk.commission(window.commission_id)


def draw(qtbot, page, window, kind, corners, close=ENTER):
    """Draw a region of that kind, corner by corner, and keep it when it is closed with Enter."""
    page.work_on("regions")
    page.drawing.choose_region(0)
    fill(qtbot, page, "A new part is", kind)
    keys(qtbot, window, "d")
    for corner in corners:
        click(page.drawing.view, corner)
    if close is not None:
        keys(qtbot, window, close)
    if close == ENTER and len(corners) > 2:
        keys(qtbot, window, ENTER)  # it is what was said before


def cut_out(qtbot, window, wait_idle, name, seed=2):
    """Go round the sitter of that photograph in one loop and place it."""
    page = window.current
    page.work_on("cut out")
    mode = page.modes["cut out"]
    photo = next(p for p in now(window).intake.photos if p.name == f"{name}.jpg")
    mode.choose_photo(photo.id)
    wait_idle(window)
    path(mode.view, hands.outline(sitter(name, LONGER)[1], "loop", seed, 40))
    wait_idle(window)
    assert mode.work.rings and not mode.work.guessed
    return mode
