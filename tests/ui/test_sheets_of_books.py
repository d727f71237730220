"""Painted sheets of the books by themselves: the year, paint, the parcel, earnings: nothing, one, many, long names, narrow and wide."""

from datetime import date

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QWheelEvent
from PySide6.QtWidgets import QApplication

from yarrow_lane.books.ledger import Earned, Month
from yarrow_lane.books.terms import Terms
from yarrow_lane.deliver.parcel import padding_list, parcel_of
from yarrow_lane.ui.rooms.books.clients_sheet import ClientRow, ClientsSheet, ClientsShown
from yarrow_lane.ui.rooms.books.paint_rows import PaintRows
from yarrow_lane.ui.rooms.books.paint_view import PaintShown, TubeRow
from yarrow_lane.ui.rooms.books.year_sheet import YearSheet
from yarrow_lane.ui.rooms.books.year_view import year_shown
from yarrow_lane.ui.rooms.deliver.papers_strip import PaperShown, PapersStrip
from yarrow_lane.ui.rooms.deliver.parcel_view import ParcelShown, ParcelView

LONG = "Wilhelmina Konstantinopolitanska-Featherstonehaugh and all her cats"
SIZES = ((420, 300), (974, 660), (1600, 1000))


def painted(widget, size) -> set[int]:
    """Its colours once it is drawn at that size."""
    widget.resize(*size)
    widget.show()
    image = widget.grab().toImage()
    return {image.pixel(x, y) for x in range(0, image.width(), 7) for y in range(0, image.height(), 5)}


def wheel(widget, down: bool) -> None:
    turn, at = QPoint(0, -120 if down else 120), QPointF(300, 150)
    event = QWheelEvent(
        at,
        widget.mapToGlobal(at),
        QPoint(),
        turn,
        Qt.MouseButton.NoButton,
        Qt.KeyboardModifier.NoModifier,
        Qt.ScrollPhase.NoScrollPhase,
        False,
    )
    QApplication.sendEvent(widget, event)


@pytest.mark.parametrize("size", SIZES)
def test_the_year_empty_and_full(qtbot, fonts, size):
    sheet = YearSheet()
    qtbot.addWidget(sheet)
    assert len(painted(sheet, size)) == 1, "nothing yet"
    empty = tuple(Month(date(2026, n, 1), 0, 0, 0, 0) for n in range(1, 13))
    sheet.show_year(year_shown(2026, empty, (), Terms(), 3))
    assert sheet.accessibleName() == "The year 2026: came in –, went out –" and len(painted(sheet, size)) > 3
    full = tuple(Month(date(2026, n, 1), 10**n, 10 ** (12 - n), 5, 1) for n in range(1, 13))
    kinds = tuple(Earned(f"{LONG} {n}", n, 10**9, 1, 60.0 * n) for n in range(1, 9))
    sheet.show_year(year_shown(2026, full, kinds, Terms(), 12))
    assert len(painted(sheet, size)) > 3 and sheet.minimumHeight() > 500


@pytest.mark.parametrize("size", SIZES)
def test_paint_none_some_and_many(qtbot, fonts, size):
    rows = PaintRows()
    qtbot.addWidget(rows)
    rows.show_paint(PaintShown((), "Every tube suffices", ""))
    nothing = painted(rows, size)
    tubes = tuple(
        TubeRow(
            f"{LONG} {n}",
            "acrylic",
            n / 40,
            1 - n / 40,
            f"{n} of 60 ml",
            "order 1 tube" if n % 3 else "",
            n % 3 > 0,
            "4 ml used",
        )
        for n in range(40)
    )
    rows.show_paint(PaintShown(tubes, "27 tubes will not suffice", LONG * 3, ((LONG, "4 ml used"),) * 12))
    assert len(painted(rows, size)) > len(nothing) and "27 tubes" in rows.accessibleName()
    before = rows.grab().toImage()
    wheel(rows, True)
    assert rows.grab().toImage() != before
    for _ in range(50):
        wheel(rows, True)
    for _ in range(60):
        wheel(rows, False)
    assert rows.grab().toImage() == before, "back at the top"


@pytest.mark.parametrize("size", SIZES)
def test_clients_none_and_many_with_long_pages(qtbot, fonts, size):
    sheet = ClientsSheet()
    qtbot.addWidget(sheet)
    sheet.show_clients(ClientsShown((), "", "", "", ()))
    assert sheet.accessibleName() == "Clients: none yet" and painted(sheet, size)
    rows = tuple(ClientRow(str(n), f"{LONG} {n}", "9 commissions") for n in range(60))
    sections = tuple((f"Heading {n}", tuple((LONG, LONG) for _ in range(20))) for n in range(5))
    chosen = []
    sheet.chosen.connect(chosen.append)
    sheet.show_clients(ClientsShown(rows, "0", LONG, LONG, sections))
    assert len(painted(sheet, size)) > 4
    qtbot.keyClick(sheet, Qt.Key.Key_Up)
    qtbot.keyClick(sheet, Qt.Key.Key_Down)
    assert chosen == ["0", "1"]
    for _ in range(80):
        wheel(sheet, True)
    assert painted(sheet, size)


@pytest.mark.parametrize("size", SIZES)
def test_a_parcel_and_none(qtbot, fonts, size):
    view = ParcelView()
    qtbot.addWidget(view)
    view.show_parcel(ParcelShown(None, (), "no size yet"))
    assert view.accessibleName() == "no size yet" and painted(view, size)
    for wide, high in ((240, 300), (2500, 1800), (60, 60)):
        parcel = parcel_of(wide, high)
        view.show_parcel(ParcelShown(parcel, padding_list(parcel, 50.0, True, True)))
        assert str(parcel.length_cm) in view.accessibleName() and len(painted(view, size)) > 4


@pytest.mark.parametrize("width", [380, 620, 1400])
def test_papers_narrow_and_wide(qtbot, fonts, width):
    strip = PapersStrip()
    qtbot.addWidget(strip)
    strip.show_papers(
        (PaperShown("invoice", LONG, (LONG, LONG), True, True), PaperShown("care sheet", "Care", ("a", "b"), False))
    )
    strip.resize(width, strip.height())
    strip.show()
    wanted = []
    strip.wanted.connect(wanted.append)
    strip.setFocus()
    strip.grab()
    qtbot.keyClick(strip, Qt.Key.Key_Space)
    qtbot.keyClick(strip, Qt.Key.Key_Right)
    qtbot.keyClick(strip, Qt.Key.Key_Space)
    assert wanted == ["invoice", "care sheet"] and ["care", "sheet"][0] in strip.accessibleName().casefold()
    for paper, place in strip.places():
        qtbot.mouseClick(strip, Qt.MouseButton.LeftButton, pos=place.center().toPoint())
        assert wanted[-1] == paper.key
