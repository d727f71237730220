"""The contact sheet and the delivery sheet, read back with pdfplumber."""

import io
from dataclasses import replace
from datetime import date, datetime, timedelta

import icalendar
import pdfplumber
import pytest

from tests.conftest import NOON
from tests.rooms.documents.making import sitting
from yarrow_lane.commission.commission import Commission, waive_door
from yarrow_lane.commission.studio import Studio
from yarrow_lane.compose.composition import Compose
from yarrow_lane.deliver.handover import Deliver
from yarrow_lane.documents.calendar_file import calendar_file
from yarrow_lane.documents.contact_sheet import SheetPhoto, contact_sheet
from yarrow_lane.documents.delivery_sheet import DeliverySheet, delivery_sheet
from yarrow_lane.documents.paper import fitted, font, wrapped
from yarrow_lane.documents.print_plan import PAPER_MM
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.intake.photos import Intake, Photo
from yarrow_lane.intake.rights import Rights
from yarrow_lane.lane.happening import ClockStarted, ClockStopped
from yarrow_lane.ui.rooms.deliver.sheet import sheet_of

MM = 25.4 / 72


def pages(data: bytes):
    with pdfplumber.open(io.BytesIO(data)) as pdf:
        return [
            (p.extract_text().replace("\u202f", " "), p.images, (float(p.width) * MM, float(p.height) * MM)) for p in pdf.pages
        ]


@pytest.mark.parametrize("paper", ["A4", "Letter"])
def test_twelve_photographs_to_a_sheet_none_stretched(cat, paper):
    photos = tuple(
        SheetPhoto(cat[:, : 200 + 20 * n], f"Łapa {n}.jpg", ("helper for the ear", "client took it")) for n in range(13)
    )
    found = pages(contact_sheet("Pip", photos, paper))
    assert [len(images) for _, images, _ in found] == [12, 1]
    assert found[0][2] == pytest.approx(PAPER_MM[paper], abs=0.1)
    assert "Łapa 0.jpg" in found[0][0] and "client took it" in found[0][0] and "Łapa 12.jpg" in found[1][0]
    for text_images in found:
        for image in text_images[1]:
            wide, tall = image["srcsize"]
            assert (image["x1"] - image["x0"]) / (image["bottom"] - image["top"]) == pytest.approx(wide / tall, rel=0.01)
            assert image["x0"] >= 0 and image["x1"] * MM <= PAPER_MM[paper][0]


def test_an_empty_contact_sheet_says_so():
    assert "No photograph is kept yet" in pages(contact_sheet("Pip", (), "A4"))[0][0]


def delivered() -> Commission:
    brief = new_brief("Pip", "cat", "Łukasz Ždanović", "acrylic", NOON.date(), date(2026, 4, 10))
    brief = replace(brief, surprise=True, not_to_contact="Anna")
    photos = (
        Photo("a", "window.jpg", 900, 600, use="lead", rights=Rights("client")),
        Photo("b", "ears.jpg", 900, 600, use="helper", rights=Rights("unknown", "a neighbour")),
        Photo("c", "aside.jpg", 900, 600, use="set aside"),
    )
    coats = (NOON + timedelta(days=20), NOON + timedelta(days=20, hours=4))
    log = (
        ClockStarted(NOON, "1:a", "fur"),
        ClockStopped(NOON + timedelta(minutes=95), "1:a", "fur"),
    )
    done = Deliver(signed=NOON, coats=coats, packed=NOON + timedelta(days=22), delivered=NOON + timedelta(days=23))
    compose = Compose(width_mm=240, height_mm=300)
    commission = Commission("c", brief, Intake(photos), compose, deliver=done, log=log)
    doors = waive_door(commission.doors, "Intake", "the neighbour could not be reached", NOON.date())
    return replace(commission, doors=doors)


def test_the_delivery_sheet_repeats_dates_rights_and_the_reason():
    text = pages(delivery_sheet(sheet_of(delivered(), Studio(painter="R. Thorne")), "A4"))[0][0]
    for words in (
        "acrylic, 24 × 30 cm, for Łukasz Ždanović by R. Thorne",
        "Delivered Wed 1 Apr 2026",
        "Varnished Sun 29 Mar 2026, Sun 29 Mar 2026",
        "Hours at the easel 1 h 35",
        "window.jpg lead; client took it",
        "ears.jpg helper; unknown: ask; taken by a neighbour",
        "Intake the neighbour could not be reached (Mon 9 Mar 2026)",
        "A surprise: do not contact Anna",
    ):
        assert words in text, words
    assert "aside.jpg" not in text


def test_what_has_not_happened_is_said_so():
    commission = Commission("c", new_brief("Pip", "cat", "", "watercolour", NOON.date(), None))
    text = pages(delivery_sheet(sheet_of(commission, Studio()), "Letter"))[0][0]
    assert "Promised no date" in text and "Varnished goes behind glass" in text and "Signed not yet" in text
    assert "Careful" not in text and "Doors waived" not in text


def test_a_long_sheet_goes_on_on_the_next_and_loses_no_word():
    lines = tuple((f"door {n}", f"reason number {n} " * 12) for n in range(40))
    found = pages(delivery_sheet(DeliverySheet("Pip", "", (("Doors", lines),)), "A4"))
    assert len(found) > 1
    whole = " ".join(text for text, _, _ in found)
    assert all(whole.count(f"number {n} ") + whole.count(f"number {n}\n") >= 11 for n in range(40))


def test_words_are_fitted_and_wrapped_to_their_room():
    face = font()
    assert fitted("short", face, 10, 200) == "short"
    assert fitted("a very long name of a photograph.jpg", face, 10, 60).endswith("…")
    assert wrapped("one two three", face, 10, 30) == ["one", "two", "three"]
    assert wrapped("", face, 10, 30) == [""]


def test_a_surprise_warns_in_every_event_of_its_calendar():
    sittings = [sitting("c1", date(2026, 3, 10), 10, 60), sitting("c2", date(2026, 3, 11), 10, 60)]
    promises = [("c1", "Pip", date(2026, 4, 1)), ("c2", "Moss", date(2026, 4, 2))]
    titles = {"c1": "Pip", "c2": "Moss"}
    data = calendar_file(promises, sittings, titles, datetime(2026, 3, 9), {"c1": "A surprise: do not contact Anna"})
    for event in icalendar.Calendar.from_ical(data).walk("VEVENT"):
        assert ("do not contact Anna" in str(event.get("description", ""))) == str(event["summary"]).startswith("Pip")
