"""A paper on the table: pages drawn from its bytes, turned by keys and clicks, drawn anew only when the bytes are others."""

import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QMouseEvent

from tests.journeys.hands import keys, send
from yarrow_lane.documents.page_style import Facts, Paper, Words, paper_pdf
from yarrow_lane.ui.kit import paper_view
from yarrow_lane.ui.kit.paper_view import PaperView

LONG = paper_pdf(Paper("Long", (Facts(tuple((f"thing {n}", "words " * 12) for n in range(140))),)))
SHORT = paper_pdf(Paper("Short", (Words("one page"),)))


@pytest.fixture
def view(qtbot, fonts):
    made = PaperView()
    qtbot.addWidget(made)
    made.resize(800, 700)
    made.show()
    return made


def press(view, x: float) -> None:
    send(view, QMouseEvent.Type.MouseButtonPress, QPointF(x, 300))


def test_pages_are_turned_and_the_ends_hold(qtbot, view):
    view.show_paper((LONG,), "A long one")
    pages = view.pages
    assert pages >= 3 and view.accessibleName() == f"A long one, page 1 of {pages}"
    keys(qtbot, view, *([Qt.Key.Key_PageDown] * (pages + 2)))
    assert not view.turn(1) and view.turn(-1)
    press(view, 700)
    press(view, 100)
    press(view, 100)
    view.grab()
    while view.turn(-1):
        pass
    assert not view.turn(-1)


def test_a_letter_and_its_paper_lie_one_after_the_other(view):
    view.show_paper((SHORT, LONG), "A letter")
    assert view.pages == 1 + len(paper_view.pages_of(LONG, 1.0))
    view.show_paper((SHORT,), "Alone")
    assert view.pages == 1 and not view.turn(1)


def test_only_what_differs_is_drawn_again(view, monkeypatch):
    drawn = []
    pages_of = paper_view.pages_of
    monkeypatch.setattr(paper_view, "pages_of", lambda pdf, scale: drawn.append(pdf) or pages_of(pdf, scale))
    view.show_paper((SHORT, LONG), "A letter")
    view.show_paper((SHORT, LONG), "The same, other words")
    assert drawn == [SHORT, LONG]
    other = paper_pdf(Paper("Short", (Words("other words"),)))
    view.show_paper((other, LONG), "Changed")
    assert drawn == [SHORT, LONG, other], "the invoice beside it stays"


def test_nothing_to_show_is_no_fault(view):
    view.show_paper((), "nothing yet")
    assert view.pages == 0 and not view.turn(1)
    view.grab()
