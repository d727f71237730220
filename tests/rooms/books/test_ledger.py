"""The ledger: every entry adds up to nothing, and its balances are those of an independent sum in decimals."""

import csv
import io
from datetime import date, timedelta
from decimal import Decimal

import pandas
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.conftest import NOON
from tests.rooms.books.paying import Book
from yarrow_lane.books import entering
from yarrow_lane.books.ledger import Piece, balances, earned, months, postings, together
from yarrow_lane.books.terms import Terms
from yarrow_lane.documents.ledger_csv import HEAD, ledger_csv
from yarrow_lane.lane.money import EntryStruck
from yarrow_lane.measure.money import MoneyTrouble

STEPS = st.lists(
    st.tuples(st.sampled_from(["agree", "invoice", "pay", "credit", "back", "cost", "cost paid", "strike", "cancel", "wait"]), st.integers(0, 200_000)),
    max_size=60,
)  # fmt: skip


def kept(book: Book) -> tuple[Decimal, Decimal]:
    """What clients owe and what the bank holds, added up by hand in decimals from the entries alone."""
    struck = {(h.what, h.number) for h in book.log if isinstance(h, EntryStruck)}
    owed, bank = Decimal(0), Decimal(0)
    costs = {h.number: h.amount for h in book.log if h.kind == "spent"}
    for h in book.log:
        if h.kind == "invoiced":
            owed += Decimal(h.gross) / 100
        elif h.kind == "paid" and ("payment", h.number) not in struck:
            owed -= Decimal(h.amount) / 100
            bank += Decimal(h.amount) / 100
        elif h.kind == "cost paid" and ("cost", h.number) not in struck:
            bank -= Decimal(costs[h.number]) / 100
    return owed, bank


def do(book: Book, step: str, amount: int) -> None:
    """One step, or none where it cannot be."""
    account, number = book.account, 1 + amount % 5
    try:
        match step:
            case "agree":
                book.agree(amount, amount // 3, "changed")
            case "invoice":
                book.invoice(("deposit", "part", "balance")[amount % 3], min(amount, max(0, account.to_invoice)))
            case "pay":
                book.pay(number, amount, sure=True)
            case "credit":
                book.credit(number, amount % 50_000)
            case "back":
                book.put(entering.pay_back(account, amount, book.today, "cash", book.now, book.number("receipt")))
            case "cost":
                book.put(entering.cost("frame", "frame", amount, book.terms, book.today, None, book.now, book.number("cost")))
            case "cost paid":
                book.put(entering.cost_paid(account, number, book.today, book.now))
            case "strike":
                book.put(entering.strike(account, "payment" if amount % 2 else "cost", number, "slip", book.now))
            case "cancel":
                book.put(entering.cancel(account, amount, "", book.terms, book.now))
            case "wait":
                book.wait(amount % 9)
    except MoneyTrouble:
        pass  # refused: nothing was put in the books


@settings(max_examples=120)
@given(STEPS, st.sampled_from([0, 700, 1900, 10_000]))
def test_whatever_happens_the_books_balance(steps, rate):
    book = Book(Terms(tax_bp=rate))
    for step, amount in steps:
        do(book, step, amount)
    entries = postings("c1", book.log)
    found = balances(entries)
    assert sum(found.values()) == 0
    owed, bank = kept(book)
    assert Decimal(found.get(("EUR", "clients"), 0)) / 100 == owed == Decimal(book.account.owed) / 100
    assert Decimal(found.get(("EUR", "bank"), 0)) / 100 == bank
    assert -found.get(("EUR", "suppliers"), 0) == sum(c.spent.amount for c in book.account.to_pay())


def _year() -> Book:
    book = Book(Terms(tax_bp=2000))
    book.agree(480_00, 240_00)
    book.pay(book.invoice("deposit", 240_00), 240_00)
    book.put(entering.cost("oak frame", "frame", 60_00, book.terms, book.today, None, book.now, 1))
    book.wait(30)
    book.pay(book.invoice("balance", 240_00), 240_00)
    book.put(entering.cost_paid(book.account, 1, book.today, book.now))
    return book


def test_the_months_of_a_year():
    entries = postings("c1", _year().log)
    march, april = months(entries, 2026, "EUR")[2:4]
    assert (march.came, march.went, march.invoiced, march.tax) == (240_00, 0, 200_00, 40_00)
    assert (april.came, april.went, april.invoiced, april.tax) == (240_00, 60_00, 200_00, 40_00)
    assert sum(m.came for m in months(entries, 2025, "EUR")) == 0 == sum(m.came for m in months(entries, 2026, "GBP"))


def test_earned_an_hour_by_kind():
    entries = {"c1": postings("c1", _year().log), "c2": postings("c2", _year().log)}
    pieces = {
        "c1": Piece("cat", 600.0, date(2026, 4, 9)),
        "c2": Piece("cat", 200.0, None),
        "c3": Piece("dog", 90.0, date(2026, 4, 9)),
    }
    cat, dog = earned(pieces, entries, "EUR")
    assert (cat.pieces, cat.net, cat.costs, cat.kept) == (1, 400_00, 60_00, 340_00)
    assert cat.an_hour == 34_00, "340 for ten hours"
    assert dog.an_hour == 0 and together((cat, dog)).minutes == 690.0
    assert together(()).an_hour is None


def test_the_accountants_file_reads_back_by_two_readers():
    book = _year()
    book.put(entering.strike(book.account, "payment", 2, 'wrong, "twice"', book.now))
    entries = postings("c1", book.log)
    data = ledger_csv(entries, {"c1": "=Quill, the cat"})
    text = data.decode("utf-8-sig")
    assert data.startswith(b"\xef\xbb\xbf") and "\r\n" in text and '"struck out: wrong, ""twice"""' in text
    rows = list(csv.DictReader(io.StringIO(text)))
    assert tuple(rows[0]) == HEAD and len(rows) == len(entries)
    assert sum(Decimal(r["debit"] or 0) - Decimal(r["credit"] or 0) for r in rows) == 0
    assert {r["commission"] for r in rows} == {"'=Quill, the cat"}, "a spreadsheet must not take a name for a formula"
    sheet = pandas.read_csv(io.BytesIO(data))
    assert sheet["debit"].sum() == sheet["credit"].sum() and list(sheet.columns) == list(HEAD)
    assert sheet[sheet.account == "bank"].debit.sum() == 480.0


def test_what_was_struck_is_posted_back_on_its_own_day():
    book = _year()
    day = book.today + timedelta(days=3)
    book.wait(3)
    book.put(entering.strike(book.account, "cost", 1, "was another's", book.now))
    last = postings("c1", book.log)[-2:]
    assert {(p.account, p.amount) for p in last} == {("costs", -60_00), ("bank", 60_00)} and {p.on for p in last} == {day}
    assert NOON.date() < day
