"""Lengths in the painter's words. 1 in = 25.4 mm exactly (international agreement of 1959)."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarrow_lane.measure.lengths import THIN_SPACE, LengthError, hours_text, inches_text, length_text, parse_length, size_text


@pytest.mark.parametrize(
    ("text", "unit", "mm"),
    [
        ("40", "cm", 400),
        ("40 cm", "in", 400),
        ("402 mm", "cm", 402),
        ("40,5", "cm", 405),
        ("8 1/2 in", "cm", 215.9),
        ("8 1/2", "in", 215.9),
        ("1/16 in", "cm", 1.5875),
        ("11/16 in", "cm", 17.4625),
        ('12"', "cm", 304.8),
        ("1 m", "cm", 1000),
        ("1 inch", "cm", 25.4),
    ],
)
def test_lengths_are_read_as_written(text, unit, mm):
    assert parse_length(text, unit) == pytest.approx(mm, abs=1e-9)


@pytest.mark.parametrize("text", ["", "wide", "-3", "0", "1/0", "3 x 4", "nan", "1e999"])
def test_what_is_no_length_is_refused_in_words(text):
    with pytest.raises(LengthError) as error:
        parse_length(text)
    assert error.value.sentence.endswith(".")


@given(st.integers(1, 60 * 16))
def test_inches_survive_writing_and_reading(sixteenths):
    mm = sixteenths * 25.4 / 16
    assert parse_length(inches_text(mm), "in") == pytest.approx(mm)


def test_words():
    assert size_text(400, 500).replace("\u202f", " ") == "40 × 50 cm"
    assert length_text(33.867, "cm", 2).replace("\u202f", " ") == "3.39 cm"
    assert hours_text(75).replace("\u202f", " ") == "1 h 15"
    assert hours_text(59.6).replace("\u202f", " ") == "1 h"


def test_hours_as_a_painter_says_them():
    said = {
        0: "0 min",
        40: "40 min",
        60: "1 h",
        75: "1 h 15",
        599: "9 h 59",
        600: "10 h",
        629: "10 h",
        645: "11 h",
        5999: "100 h",
    }
    assert {minutes: hours_text(minutes).replace(THIN_SPACE, " ") for minutes in said} == said
    assert hours_text(-5) == hours_text(0)
