"""The grey frame and the strips as they lie on paper, read back with pdfplumber."""

import io
from itertools import pairwise

import numpy as np
import pdfplumber
import pytest

from yarrow_lane.check.greys import BAND_MM, SQUARE_MM, STEPS, STRIP_MM, groups_round
from yarrow_lane.check.strips import Strip
from yarrow_lane.documents.grey_frame import grey_frame, pieces_of
from yarrow_lane.documents.strips_sheet import strips_sheet
from yarrow_lane.measure.colour.grey import grey_code
from yarrow_lane.measure.plane import Rect

MM = 25.4 / 72
LONG = "the most noble and well-behaved of all hounds Łukasz Żółć " * 3


@pytest.mark.parametrize("size", [(240.0, 300.0), (600.0, 400.0), (100.0, 150.0)])
@pytest.mark.parametrize("paper", ["A4", "Letter"])
def test_the_frame_has_ten_groups_at_true_size_and_fits_its_sheets(size, paper):
    pieces = pieces_of(size, paper)
    for side, length in (("left", size[1]), ("top", size[0])):
        own = [p for p in pieces if p.side == side]
        assert own[0].begin <= 0 and own[-1].end >= length and all(p.end == q.begin for p, q in pairwise(own))
        assert [p.number for p in own] == list(range(1, len(own) + 1)) and own[0].of == len(own)
    with pdfplumber.open(io.BytesIO(grey_frame(LONG, size, paper))) as pdf:
        squares, bands = [], []
        for page in pdf.pages:
            for r in page.rects:
                assert r["x0"] >= 0 and r["x1"] <= float(page.width) and r["top"] >= 0 and r["bottom"] <= float(page.height)
                if abs(r["width"] * MM - SQUARE_MM) < 0.05 and abs(r["height"] * MM - SQUARE_MM) < 0.05:
                    squares.append(round(float(np.mean(r["non_stroking_color"])) * 255))
                elif abs(r["height"] * MM - BAND_MM) < 0.05:
                    bands.append(r["width"] * MM)
        assert len(squares) == 30 and sum(bands) == pytest.approx(sum(p.end - p.begin for p in pieces), abs=0.5)
        codes = [int(grey_code(s)) for s in STEPS]
        assert sorted(squares) == sorted(codes * 10)
        words = pdf.pages[0].extract_text()
        assert "100 %" in words and "flap" in words
        assert {c["fontname"].split("+")[-1] for p in pdf.pages for c in p.chars} <= {"YarrowSans-Bold", "YarrowSans-Regular"}


def test_a_strip_turned_to_its_side_shows_its_squares_in_order():
    """On the left strip, its coloured edge to the right, the squares run dark to light from the top: from the sheet's right end."""
    size = (240.0, 270.0)
    with pdfplumber.open(io.BytesIO(grey_frame("Pip", size, "A4"))) as pdf:
        rects = [r for r in pdf.pages[0].rects if abs(r["width"] * MM - SQUARE_MM) < 0.05]
        top = min(r["top"] for r in rects)
        row = sorted((r for r in rects if abs(r["top"] - top) < 1), key=lambda r: -r["x0"])
        greys = [float(np.mean(r["non_stroking_color"])) for r in row]
        assert greys[:3] == sorted(greys[:3]), "the left side comes first"
        groups = [g for g in groups_round(size) if g.side == "left"]
        places = sorted(s.y for g in groups for s in g.squares)
        found = sorted((row[0]["x1"] - r["x1"]) * MM for r in row)
        assert found == pytest.approx([p - places[0] for p in places], abs=0.1)
    assert STRIP_MM > BAND_MM + SQUARE_MM


def test_strips_are_true_size_without_a_white_border_and_with_a_map():
    size = (300.0, 400.0)
    strips = [Strip(Rect(40, 60, 180, 20), (1,)), Strip(Rect(100, 100, 20, 180), (2,)), Strip(Rect(0, 0, 20, 180), ())]
    asked = []

    def part(area: Rect) -> np.ndarray:
        asked.append(area)
        return np.full((round(area.height * 2), round(area.width * 2), 3), 90, np.uint8)

    with pdfplumber.open(io.BytesIO(strips_sheet(LONG, strips, size, "A4", part))) as pdf:
        images = [i for p in pdf.pages for i in p.images]
        sizes = [sorted((i["width"] * MM, i["height"] * MM)) for i in images]
        assert all(s == pytest.approx(sorted((a.width, a.height)), abs=0.2) for s, a in zip(sizes, asked, strict=True))
        assert asked[0] == Rect(38, 58, 184, 24) and asked[2] == Rect(0, 0, 22, 182), (
            "the picture runs on past the cut where it can"
        )
        for page in pdf.pages:
            for i in page.images:
                assert i["x0"] >= 0 and i["x1"] <= float(page.width) and i["top"] >= 0 and i["bottom"] <= float(page.height)
        ruler = max((x for x in pdf.pages[0].lines), key=lambda x: x["width"])
        assert ruler["width"] * MM == pytest.approx(100, abs=0.1)
        assert "left end up" in pdf.pages[0].extract_text()
