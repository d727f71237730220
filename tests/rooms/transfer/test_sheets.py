"""Sheets at true size: what is cut apart lies together again, read back by a PDF reader; the printer's own error is out."""

import io

import numpy as np
import pdfplumber
import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarrow_lane.documents.true_size import true_size
from yarrow_lane.transfer.carrying import carried_with
from yarrow_lane.transfer.lines.line import Line
from yarrow_lane.transfer.paper import PAPER_MM
from yarrow_lane.transfer.sheets import (
    FOOT_MM,
    OVERLAP_MM,
    UNPRINTABLE_MM,
    Printer,
    SheetsTrouble,
    enlarged_for,
    lay_on_sheets,
    set_right,
)

PT = 25.4 / 72


@given(st.floats(50, 1500), st.floats(50, 1500), st.sampled_from(["A4", "Letter"]))
def test_all_of_the_canvas_is_on_sheets_that_overlap(width, height, paper):
    laid = lay_on_sheets(width, height, paper)
    assert set(laid.page_mm) == set(PAPER_MM[paper])
    assert len(laid.sheets) == laid.columns * laid.rows
    for sheet in laid.sheets:
        assert sheet.x_mm >= UNPRINTABLE_MM - 1e-6 and sheet.x_mm + sheet.part.width <= laid.page_mm[0] - UNPRINTABLE_MM + 1e-6
        assert sheet.y_mm + sheet.part.height <= laid.page_mm[1] - UNPRINTABLE_MM - FOOT_MM + 1e-6
    first, last = laid.sheets[0].part, laid.sheets[-1].part
    assert (first.x, first.y) == (0, 0) and (last.right, last.bottom) == pytest.approx((width, height))
    if laid.columns > 1:
        assert laid.sheets[0].part.right - laid.sheets[1].part.x == pytest.approx(OVERLAP_MM)


def test_a_wall_is_not_printed():
    with pytest.raises(SheetsTrouble, match="use squares, or the projector"):
        lay_on_sheets(5000, 4000, "A4")


SLANTED = Line(tuple((float(x), 10.0 + 0.7 * x) for x in np.linspace(5, 395, 400)), (False,) * 400, 7.0)


@pytest.mark.parametrize("mirrored", [False, True])
@pytest.mark.parametrize("printer", [Printer(), set_right(99.3, 99.3)])
def test_a_line_runs_on_over_the_seams_within_a_tenth_of_a_mm(mirrored, printer):
    size = (400.0, 300.0)
    laid = lay_on_sheets(*size, "A4")
    across, along = enlarged_for(printer)
    data = true_size("Moss", laid, size, printer, mirrored, [SLANTED])
    found = []
    with pdfplumber.open(io.BytesIO(data)) as read:
        assert len(read.pages) == len(laid.sheets) + 1, "and a map"
        for sheet, page in zip(laid.sheets, read.pages, strict=False):
            for curve in page.curves:
                if len(curve["pts"]) > 50:
                    for x, top in curve["pts"]:
                        # What the printer makes of it: its shrinking takes the enlargement out again.
                        mm_x = x * PT / across - sheet.x_mm + sheet.part.x
                        low = (float(page.height) - top) * PT / along
                        mm_y = laid.page_mm[1] / along - low - sheet.y_mm + sheet.part.y
                        found.append((size[0] - mm_x if mirrored else mm_x, mm_y))
    xs, ys = np.array(found).T
    assert len(found) >= 400 and np.abs(ys - (10 + 0.7 * xs)).max() < 0.1


def test_the_printed_ruler_is_100_mm_and_the_picture_has_its_place():
    size = (250.0, 200.0)
    laid = lay_on_sheets(*size, "A4")
    asked = []

    def part(area):
        asked.append(area)
        return np.full((40, 50, 3), 90, np.uint8)

    data = true_size("Moss", laid, size, Printer(), False, (), part)
    with pdfplumber.open(io.BytesIO(data)) as read:
        for sheet, page in zip(laid.sheets, read.pages, strict=False):
            ruler = max((line for line in page.lines if abs(line["y0"] - line["y1"]) < 0.01), key=lambda line: line["width"])
            assert ruler["width"] * PT == pytest.approx(100, abs=0.05)
            (image,) = page.images
            assert image["width"] * PT == pytest.approx(sheet.part.width, abs=0.05)
            assert image["x0"] * PT == pytest.approx(sheet.x_mm, abs=0.05)
    assert asked == [sheet.part for sheet in laid.sheets]


def test_a_printer_that_shrinks_is_corrected_and_nonsense_refused():
    assert enlarged_for(set_right(99.3, 100.0)) == pytest.approx((1.00705, 1.0), abs=1e-5)
    with pytest.raises(SheetsTrouble, match="print at 100 %"):
        set_right(50, 100)


def test_what_carries_the_line_follows_the_ground():
    dark, middle, light = (carried_with(g)[0] for g in ((40, 35, 30), (160, 140, 115), (245, 244, 240)))
    assert "white transfer paper" in dark and "White charcoal" in middle and "Graphite" in light
