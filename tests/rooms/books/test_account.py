"""One commission's money from the quote to the last payment, with changes, mistakes and an end before the end. All sums by hand."""

from datetime import timedelta

import pytest

from tests.rooms.books.paying import BETWEEN, SCOPE, WORK, Book
from yarrow_lane.books import entering
from yarrow_lane.books.account import money_came
from yarrow_lane.books.asking import ask_of, drawer_of
from yarrow_lane.books.terms import Terms
from yarrow_lane.lane.money import Reminded
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.money import MoneyTrouble


def test_deposit_then_balance():
    book = Book()
    assert ask_of(book.account, False, book.today).kind == "quote"
    book.agree(480_00, 192_00)
    assert (ask := ask_of(book.account, False, book.today)).kind == "invoice" and (ask.what, ask.amount) == ("deposit", 192_00)
    first = book.invoice("deposit", 192_00)
    assert ask_of(book.account, False, book.today).kind == "await" and not book.account.deposit_in
    book.pay(first, 192_00)
    assert book.account.deposit_in and book.account.owed == 0 and book.account.still_to_pay == 288_00
    assert ask_of(book.account, False, book.today).kind == "nothing", "the balance is asked for when it is finished"
    ask = ask_of(book.account, True, book.today)
    assert (ask.kind, ask.what, ask.amount) == ("invoice", "balance", 288_00)
    second = book.invoice("balance", 288_00)
    lines = book.account.invoice(second).invoice.lines
    assert [amount for _, amount in lines] == [480_00, -192_00] and "invoice 1" in lines[1][0]
    book.pay(second, 100_00)
    assert book.account.invoice(second).left == 188_00
    book.wait(2)
    book.pay(second, 188_00)
    assert book.account.settled and ask_of(book.account, True, book.today).kind == "nothing"
    assert [total for _, total in money_came(book.log)] == [192_00, 292_00, 480_00]


def test_a_late_payer_is_reminded_more_plainly_each_time():
    book = Book(Terms(pay_days=14))
    book.agree(480_00, 192_00)
    number = book.invoice("deposit", 192_00)
    book.wait(14)
    assert ask_of(book.account, False, book.today).kind == "await", "due today is not late"
    book.wait(1)
    ask = ask_of(book.account, False, book.today)
    assert (ask.kind, ask.invoice, ask.days_late, ask.level, ask.amount) == ("remind", number, 1, 1, 192_00)
    book.put(Reminded(book.now, number, 1, "kindly"))
    assert ask_of(book.account, False, book.today).kind == "await", "a letter is given time"
    book.wait(10)
    assert (ask := ask_of(book.account, False, book.today)).kind == "remind" and ask.level == 2 and ask.days_late == 11
    assert book.account.open_invoices()[0].days_late(book.today) == 11


def test_more_asked_for_after_approval_is_added_and_named():
    book = Book()
    book.agree(480_00, 192_00)
    book.pay(book.invoice("deposit", 192_00), 192_00)
    with pytest.raises(MoneyTrouble, match="nothing says why"):
        book.agree(600_00, 192_00)
    book.agree(600_00, 192_00, "the dog comes in too")
    assert book.account.to_invoice == 408_00
    number = book.invoice("balance", 408_00)
    assert book.account.invoice(number).invoice.lines == (
        (WORK, 480_00), ("Change: the dog comes in too", 120_00),
        (f"less deposit, invoice 1 of {_day(book)}", -192_00),
    )  # fmt: skip


def _day(book: Book) -> str:
    return f"{day_text(book.today)} {book.today.year}"


def test_less_than_was_invoiced_is_credited_and_paid_back():
    book = Book(Terms(tax_bp=2000))
    book.agree(480_00, 240_00)
    number = book.invoice("deposit", 240_00)
    assert book.account.invoice(number).invoice.tax == 40_00 and book.account.invoice(number).invoice.net == 200_00
    book.pay(number, 240_00)
    book.agree(180_00, 180_00, "only a sketch")
    assert entering.credits_needed(book.account) == ((number, 60_00),)
    ask = ask_of(book.account, False, book.today)
    assert (ask.kind, ask.invoice, ask.amount) == ("credit", number, 60_00)
    credit = book.credit(number, 60_00)
    note = book.account.credits[0]
    assert (note.number, note.gross, note.net, note.tax, note.rate_bp) == (credit, -60_00, -50_00, -10_00, 2000)
    ask = ask_of(book.account, False, book.today)
    assert (ask.kind, ask.amount) == ("pay back", 60_00)
    with pytest.raises(MoneyTrouble, match="no more is owed"):
        entering.pay_back(book.account, 60_01, book.today, "by transfer", book.now, 9)
    book.put(entering.pay_back(book.account, 60_00, book.today, "by transfer", book.now, book.number("receipt")))
    assert book.account.settled and book.account.paid == 180_00


def test_the_credit_keeps_the_rate_the_invoice_was_written_with():
    book = Book(Terms(tax_bp=2000))
    book.agree(120_00, 120_00)
    number = book.invoice("deposit", 120_00)
    book.terms = Terms(tax_bp=0)
    book.credit(number, 60_00)
    assert book.account.credits[0].tax == -10_00


def test_cancelled_keeps_what_was_done():
    book = Book()
    book.agree(480_00, 192_00)
    number = book.invoice("deposit", 192_00)
    book.pay(number, 192_00)
    with pytest.raises(MoneyTrouble, match="more would be kept"):
        entering.cancel(book.account, 500_00, "", book.terms, book.now)
    book.put(entering.cancel(book.account, 120_00, "the client moved away", book.terms, book.now))
    assert book.account.price == 120_00 and book.account.deposit == 0
    assert entering.credits_needed(book.account) == ((number, 72_00),)
    with pytest.raises(MoneyTrouble, match="cancelled before"):
        entering.cancel(book.account, 1, "", book.terms, book.now)
    with pytest.raises(MoneyTrouble, match="was cancelled"):
        book.agree(1_00, 0, "again")


def test_cancelled_with_more_done_than_paid_asks_for_the_rest():
    book = Book()
    book.agree(480_00, 100_00)
    book.pay(book.invoice("deposit", 100_00), 100_00)
    book.put(entering.cancel(book.account, 300_00, "", book.terms, book.now))
    ask = ask_of(book.account, False, book.today)
    assert (ask.kind, ask.what, ask.amount) == ("invoice", "cancelling", 200_00)


def test_a_payment_twice_is_asked_about_and_a_mistake_is_struck_out():
    book = Book()
    book.agree(480_00, 192_00)
    number = book.invoice("deposit", 192_00)
    receipt = book.pay(number, 192_00)
    with pytest.raises(MoneyTrouble, match="already"):
        book.pay(number, 192_00)
    twice = book.pay(number, 192_00, sure=True)
    assert book.account.owed == -192_00
    with pytest.raises(MoneyTrouble, match="nothing says why"):
        entering.strike(book.account, "payment", twice, " ", book.now)
    book.put(entering.strike(book.account, "payment", twice, "the bank showed it twice", book.now))
    assert book.account.owed == 0 and [p.number for p in book.account.payments] == [receipt]
    with pytest.raises(MoneyTrouble, match="no payment"):
        entering.strike(book.account, "payment", twice, "again", book.now)


def test_what_cannot_be_is_refused():
    book = Book()
    with pytest.raises(MoneyTrouble, match="no price is agreed"):
        book.invoice("deposit", 1_00)
    with pytest.raises(MoneyTrouble, match="deposit is larger"):
        book.agree(100_00, 101_00)
    with pytest.raises(MoneyTrouble, match="less than nothing"):
        book.agree(-1, 0)
    book.agree(480_00, 192_00)
    with pytest.raises(MoneyTrouble, match="not invoiced yet"):
        book.invoice("deposit", 480_01)
    with pytest.raises(MoneyTrouble, match="there is no invoice 7"):
        book.pay(7, 1_00)
    number = book.invoice("deposit", 192_00)
    with pytest.raises(MoneyTrouble, match="lies before the price was agreed"):
        book.pay(number, 1_00, book.today - timedelta(days=1))
    with pytest.raises(MoneyTrouble, match="has not come yet"):
        book.pay(number, 1_00, book.today + timedelta(days=1))
    with pytest.raises(MoneyTrouble, match="it is nothing"):
        book.pay(number, 0)
    with pytest.raises(MoneyTrouble, match="larger than any"):
        book.pay(number, 10**12 + 1)
    with pytest.raises(MoneyTrouble, match="nothing says why"):
        book.credit(number, 1_00, " ")
    with pytest.raises(MoneyTrouble, match="not taken back yet"):
        book.credit(number, 192_01)
    book.terms = Terms(currency="GBP")
    with pytest.raises(MoneyTrouble, match="agreed in EUR"):
        book.agree(500_00, 0, "more")


def test_costs_are_owed_until_they_are_paid():
    book = Book()
    for bad in (("", 1), ("frame", 0)):
        with pytest.raises(MoneyTrouble):
            entering.cost(bad[0], "frame", bad[1], book.terms, book.today, None, book.now, 1)
    book.put(entering.cost("oak frame", "frame", 64_00, book.terms, book.today, book.today + timedelta(days=3), book.now, 1))
    assert [c.spent.what for c in book.account.to_pay()] == ["oak frame"] and book.account.spent == 64_00
    book.put(entering.cost_paid(book.account, 1, book.today, book.now))
    assert not book.account.to_pay()
    for number in (1, 2):
        with pytest.raises(MoneyTrouble):
            entering.cost_paid(book.account, number, book.today, book.now)


def test_money_against_paint():
    book = Book()
    book.agree(480_00, 240_00)
    book.pay(book.invoice("deposit", 240_00), 240_00)
    assert drawer_of(book.account, 0.25).ahead == 120_00 and drawer_of(book.account, 0.25).behind == 0
    assert drawer_of(book.account, 0.75).behind == 120_00
    assert drawer_of(book.account, 7.0).behind == 240_00, "never more than all of it"


def test_whose_paper_it_is():
    between = entering.parties(
        "T. Haldane", "3 Quay\n\nSaltgate", "I. Saltgate", "Saltgate Studio", Terms(address="1 Mill Lane", tax_number="7")
    )
    assert between.to == ("T. Haldane", "3 Quay", "Saltgate")
    assert between.sender == ("Saltgate Studio", "I. Saltgate", "1 Mill Lane", "Tax number 7")
    assert BETWEEN.to[0] == "T. Haldane" and SCOPE.sitters == 1
