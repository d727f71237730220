"""Letters about money say every number once and right, and grow plainer."""

from dataclasses import replace
from datetime import date, timedelta

import pytest

from tests.rooms.books.paying import SCOPE, Book
from yarrow_lane.books.letters import (
    cancelled_letter,
    credit_letter,
    invoice_letter,
    quote_letter,
    receipt_letter,
    reminder_letter,
    work_words,
)
from yarrow_lane.books.quote import quote
from yarrow_lane.books.terms import Terms

MINUTES = {"coat and skin": 300.0, "face, eyes": 120.0}


def test_the_quote_says_what_it_holds():
    q = quote(replace(SCOPE, framed=True), MINUTES, Terms(tax_bp=2000))
    said = quote_letter("T. Haldane", "R. Thorne", "Quill", q, 100_00, date(2026, 5, 4), Terms(tax_bp=2000), "cm")
    money = f"€\u2009{q.price // 100}"
    assert (
        said.subject == "A portrait of Quill" and said.text.startswith("Dear T. Haldane,") and said.text.endswith("R. Thorne")
    )
    for words in (
        money,
        "€\u2009100",
        "24 × 30",
        "acrylic, framed",
        "about 7 hours",
        "materials, frame and parcel",
        "It contains tax of",
    ):
        assert words in said.text, words
    assert f"€\u2009{(q.price - 100_00) // 100}" in said.text and "4\u202fMay" in said.text
    plain = quote_letter("", "R. Thorne", "Quill", quote(SCOPE, MINUTES, Terms()), 0, None, Terms(), "in")
    assert (
        plain.text.startswith("Dear client,")
        and "tax" not in plain.text
        and "about" not in plain.text.split("hours")[1].split("Painting")[0]
    )
    assert "frame" not in plain.text and "in," in work_words("Quill", SCOPE, "in")


def test_an_invoice_goes_with_words_for_what_it_is():
    book = Book()
    book.agree(480_00, 192_00)
    number = book.invoice("deposit", 192_00)
    first = book.account.invoice(number)
    said = invoice_letter("T.", "R.", "Quill", first.invoice, book.terms)
    assert "before I begin to paint" in said.text and "€\u2009192" in said.text and "leaves the studio" not in said.text
    book.pay(1, 192_00)
    number = book.invoice("balance", 288_00)
    last = book.account.invoice(number)
    said = invoice_letter("T.", "R.", "Quill", last.invoice, book.terms)
    assert "the portrait is finished" in said.text and "when it is paid" in said.text and said.subject == "Quill: invoice 2"


@pytest.mark.parametrize(
    ("level", "words"), [(1, "slipped by"), (2, "days late. Please pay"), (3, "cannot go on"), (7, "cannot go on")]
)
def test_reminders_grow_plainer(level, words):
    book = Book()
    book.agree(480_00, 192_00)
    number = book.invoice("deposit", 192_00)
    book.pay(number, 92_00)
    said = reminder_letter(
        "T.", "R.", "Quill", book.account.invoice(number), level, book.today + timedelta(days=30), book.terms
    )
    assert words in said.text and "€\u2009100" in said.text and "€\u2009192" not in said.text, "what is open, not what it was"
    assert (f"letter {level}" in said.subject) is (level > 1)


def test_credit_receipt_and_an_end():
    book = Book()
    book.agree(480_00, 192_00)
    number = book.invoice("deposit", 192_00)
    receipt = book.pay(number, 100_00)
    book.credit(number, 50_00)
    assert "€\u200950" in credit_letter("T.", "R.", "Quill", book.account.credits[0], book.terms).text
    said = receipt_letter("T.", "R.", "Quill", book.account.payments[0], 42_00, book.terms)
    assert (
        f"receipt {receipt}" in said.subject
        and "€\u2009100 came in" in said.text
        and "€\u200942 of that invoice is still open" in said.text
    )
    assert "still open" not in receipt_letter("T.", "R.", "Quill", book.account.payments[0], 0, book.terms).text
    for kept, paid, words in (
        (40_00, 100_00, "€\u200960 goes back"), (100_00, 40_00, "€\u200960 is still open"), (40_00, 40_00, "covers it"), (0, 0, "Nothing is to be paid"),
    ):  # fmt: skip
        assert words in cancelled_letter("T.", "R.", "Quill", kept, paid, book.terms).text
