"""Documents read back with other people's libraries: pdfplumber, pypdf, icalendar, csv."""

import csv
import io
from datetime import date, datetime, timedelta

import icalendar
import pdfplumber
import pypdf
import pytest
import vobject
from reportlab.pdfbase import pdfmetrics

from tests.conftest import NOON
from tests.rooms.documents.making import sitting
from yarrow_lane.documents.calendar_file import calendar_file, numbers_told
from yarrow_lane.documents.paper import fitted, font
from yarrow_lane.documents.plan_table import plan_table
from yarrow_lane.documents.print_plan import PRINT_PX_MM, plan_print
from yarrow_lane.documents.squares_sheet import squares_sheet
from yarrow_lane.documents.time_log import time_log
from yarrow_lane.easel.clock import TimeEntry
from yarrow_lane.transfer.squares import Squares

MM = 25.4 / 72  # a PDF point is 1/72 inch (ISO 32000-1)
# ISO 216 for A4; Letter is 8 1/2 x 11 in.
PAPERS = {"A4": (210.0, 297.0), "Letter": (215.9, 279.4)}


@pytest.mark.parametrize("paper", ["A4", "Letter"])
@pytest.mark.parametrize(("width", "height", "count"), [(400, 500, 8), (609.6, 304.8, 7), (150, 150, 5), (1000, 1200, 24)])
def test_page_and_lines_are_true_within_a_tenth_of_a_millimetre(cat, paper, width, height, count):
    squares = Squares(width, height, count)
    data = squares_sheet("Pip – a “cat”", cat, squares, paper, "cm")
    short, long = PAPERS[paper]
    page_mm = (short, long) if height >= width else (long, short)
    for page in pypdf.PdfReader(io.BytesIO(data)).pages:
        assert (float(page.mediabox.width) * MM, float(page.mediabox.height) * MM) == pytest.approx(page_mm, abs=0.1)
    with pdfplumber.open(io.BytesIO(data)) as pdf:
        page = pdf.pages[0]
        upright = sorted({round(line["x0"] * MM, 3) for line in page.lines if abs(line["x0"] - line["x1"]) < 0.01})
        level = sorted({round(line["top"] * MM, 3) for line in page.lines if abs(line["top"] - line["bottom"]) < 0.01})
        picture = page.images[0]
    scale = (upright[-1] - upright[0]) / width
    assert scale == pytest.approx(plan_print(squares, paper).scale, rel=1e-3)
    expected_x = [upright[0] + scale * x for x in (0, *squares.lines_across(), width)]
    expected_y = [level[0] + scale * y for y in (0, *squares.lines_down(), height)]
    assert upright == pytest.approx(expected_x, abs=0.1)
    assert level == pytest.approx(expected_y, abs=0.1)
    assert (picture["x0"] * MM, picture["x1"] * MM) == pytest.approx((upright[0], upright[-1]), abs=0.1)
    assert (picture["top"] * MM, picture["bottom"] * MM) == pytest.approx((level[0], level[-1]), abs=0.1)
    assert upright[0] > 5 and level[0] > 5 and upright[-1] < page_mm[0] - 5 and level[-1] < page_mm[1] - 5


def test_a_small_canvas_is_printed_at_its_own_size_and_no_larger():
    assert plan_print(Squares(100, 80, 4), "A4").scale == 1.0
    assert plan_print(Squares(400, 500, 8), "A4").scale < 1.0
    assert pytest.approx(300) == PRINT_PX_MM * 25.4, "the usual of photographs in print: 300 px an inch"


def test_the_table_of_measures_says_what_to_rule(cat):
    data = squares_sheet("Pip", cat, Squares(400, 500, 8), "A4", "cm")
    text = pypdf.PdfReader(io.BytesIO(data)).pages[1].extract_text().replace("\u202f", " ")
    for words in ("40 × 50 cm", "8 x 10", "5 cm", "35", "45", "from the left edge"):
        assert words in text, words


def test_the_calendar_reads_back():
    """RFC 5545, by icalendar."""
    monday = date(2026, 3, 9)
    sittings = [
        sitting("c1", monday, 10, 150),
        sitting("c2", monday, 12.5, 60),
        sitting("c1", monday + timedelta(days=1), 10, 45),
    ]
    data = calendar_file([("c1", "Pip, the cat; grey", date(2026, 4, 10))], sittings, {"c1": "Pip", "c2": "Moss"}, NOON)
    calendar = icalendar.Calendar.from_ical(data)
    assert calendar["version"] == "2.0" and "prodid" in calendar
    promise, *rest = calendar.walk("VEVENT")
    assert promise["summary"] == "Pip, the cat; grey: promised"
    assert promise["dtstart"].dt == date(2026, 4, 10) and promise["dtend"].dt == date(2026, 4, 11)
    spans = [(e["dtstart"].dt.hour, e["dtstart"].dt.minute, (e["dtend"].dt - e["dtstart"].dt).seconds // 60) for e in rest]
    assert spans == [(10, 0, 150), (12, 30, 60), (10, 0, 45)]
    assert len({e["uid"] for e in calendar.walk("VEVENT")}) == 4
    assert all(e["dtstamp"].dt == NOON for e in calendar.walk("VEVENT"))


def test_a_calendar_read_again_moves_its_sittings():
    """A plan made anew two days later, one sitting painted, the rest put off: the same numbers, later files above earlier ones."""
    monday = date(2026, 3, 9)

    def read(days, now, painted):
        sittings = [sitting("c1", monday + timedelta(days=d), 10, 60) for d in days]
        data = calendar_file([("c1", "Pip", date(2026, 4, 10))], sittings, {"c1": "Pip"}, now, painted={"c1": painted})
        events = icalendar.Calendar.from_ical(data).walk("VEVENT")
        return {str(e["uid"]): e["dtstart"].dt for e in events}, {int(e["sequence"]) for e in events}, events

    before, older, events = read((0, 1, 2), NOON, 0)
    after, newer, _ = read((3, 7), NOON + timedelta(days=2), 1)
    assert len(before) == 4 and set(after) == set(before) - {"sitting-c1-1@yarrow-lane"}
    assert after["sitting-c1-2@yarrow-lane"] == datetime(2026, 3, 12, 10) and max(older) < min(newer)
    (alarm,) = events[0].walk("VALARM")
    assert alarm["trigger"].dt == timedelta(days=-7)


def test_a_sitting_that_is_no_more_is_called_off():
    """An earlier file had five; the plan now has two: the other three are cancelled, by a second reader too (vobject)."""
    monday = date(2026, 3, 9)
    sittings = [sitting("c1", monday + timedelta(days=d), 10, 60, "tips; and, glaze") for d in range(2)]
    told = numbers_told(sittings, {}, {"c1": 5})
    assert told == {"c1": 5}
    data = calendar_file([], sittings, {"c1": "Pip"}, NOON, told=told)
    events = icalendar.Calendar.from_ical(data).walk("VEVENT")
    status = [str(e.get("status", "")) for e in events]
    assert status == ["", "", "CANCELLED", "CANCELLED", "CANCELLED"] and len({str(e["uid"]) for e in events}) == 5
    other = vobject.readOne(data.decode())
    assert [str(e.uid.value) for e in other.vevent_list] == [str(e["uid"]) for e in events]
    assert other.vevent_list[0].description.value == "tips; and, glaze, 60 min"


def test_the_plan_reads_back():
    rows = list(csv.DictReader(io.StringIO(plan_table([sitting("c1", date(2026, 3, 9), 10, 90, "=tips")], {"c1": "Pip, cat"}))))
    assert rows == [
        {"day": "2026-03-09", "from": "10:00", "to": "11:30", "commission": "Pip, cat", "what": "'=tips", "minutes": "90", "fixed": ""}
    ]  # fmt: skip


def test_the_hours_read_back():
    entry = TimeEntry("1:wash", 'background, "wash"', NOON, NOON + timedelta(minutes=40), 40, "")
    rows = list(csv.DictReader(io.StringIO(time_log([("Pip, cat", entry)]))))
    assert rows == [
        {
            "commission": "Pip, cat",
            "pass": 'background, "wash"',
            "start": "2026-03-09 12:00",
            "end": "2026-03-09 12:40",
            "minutes": "40.0",
            "why": "",
        }
    ]


def test_cells_that_a_sheet_would_act_on_are_words():
    entries = [
        ("=HYPERLINK(1)", TimeEntry("1", "+wash", NOON, NOON, 3.0, "@home")),
        ("-5 cats", TimeEntry("1", "a", NOON, NOON, -3.0, "\tx")),
    ]
    rows = list(csv.reader(io.StringIO(time_log(entries), newline="")))
    assert rows[1][0] == "'=HYPERLINK(1)" and rows[1][1] == "'+wash" and rows[1][5] == "'@home" and rows[1][4] == "3.0"
    assert rows[2][0] == "'-5 cats" and rows[2][4] == "-3.0" and rows[2][5] == "'\tx"


def test_fitting_a_long_text_asks_for_its_width_a_few_times(monkeypatch):
    asked = []
    width = pdfmetrics.stringWidth
    monkeypatch.setattr("yarrow_lane.documents.paper.pdfmetrics.stringWidth", lambda *a: asked.append(1) or width(*a))
    text = "a portrait " * 400
    cut = fitted(text, font(), 9, 200)
    assert len(asked) < 20 and text.startswith(cut[:-1]) and width(cut, font(), 9) <= 200
    assert width(text[: len(cut)].rstrip() + "…", font(), 9) > 200 or cut[:-1] + " " == text[: len(cut)], (
        "not a letter less than fits"
    )
