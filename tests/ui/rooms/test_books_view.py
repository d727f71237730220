"""What the books show, as plain values: money lines, tags, quotes as lengths, the year, kinds and paint. Sums by hand."""

from dataclasses import replace
from datetime import date, timedelta

import pytest

from tests.conftest import NOON
from tests.rooms.books.paying import SCOPE, Book
from yarrow_lane.books import entering
from yarrow_lane.books.account import Account, account_of
from yarrow_lane.books.ledger import Earned, Month
from yarrow_lane.books.quote import Pulled, quote
from yarrow_lane.books.terms import Terms
from yarrow_lane.commission.paint_use import Needs, PaintUse, Runs
from yarrow_lane.commission.standing import CommissionStanding
from yarrow_lane.compose.composition import Compose
from yarrow_lane.lane.money import QuoteSent, Reminded
from yarrow_lane.lane.standing import Task
from yarrow_lane.paint.pigments.entries import entries
from yarrow_lane.palette.paintbox import Paintbox, put_in
from yarrow_lane.ui.rooms.books.bench import Seen, act_of, ask_for, books_bench
from yarrow_lane.ui.rooms.books.forms import Forms
from yarrow_lane.ui.rooms.books.paint_view import paint_shown
from yarrow_lane.ui.rooms.books.quote_mode import other_sizes
from yarrow_lane.ui.rooms.books.quote_view import earned_shown, last_prices, quote_shown
from yarrow_lane.ui.rooms.books.view import money_row, money_view, painted, share_painted
from yarrow_lane.ui.rooms.books.year_view import year_shown

TODAY = NOON.date()
MINUTES = {"background": 60.0, "coat and skin": 300.0, "face, eyes": 120.0, "drawing to varnish": 120.0}


def standing(cid: str = "c1", **facts) -> CommissionStanding:
    """One on the shelf with nothing painted."""
    first = CommissionStanding(
        cid, cid.upper(), "T. Haldane", "acrylic", TODAY + timedelta(days=30), "", Compose(), "", (), None, (), "", None, None, None, 0, 0, (), None
    )  # fmt: skip
    return replace(first, **facts)


def tag(book: Book, s: CommissionStanding | None = None) -> tuple[str, bool]:
    row = money_row(s or standing(), account_of(book.log), book.log, book.terms, book.today)
    return row.tag.replace("\u202f", " "), row.tag_wrong


class Hand:
    """Takes whatever the bench hands it, and notes it."""

    def __init__(self) -> None:
        self.done: list[tuple[str, tuple]] = []

    def __getattr__(self, name: str):
        def act(*what):
            self.done.append((name, what))
            return "" if name == "price_of_change" else None

        return act


def seen(books: dict[str, Book], standings=None, chosen: str = "", **facts) -> Seen:
    accounts = {i: account_of(b.log) for i, b in books.items()}
    first = Seen(
        tuple(standings or (standing(i) for i in books)), accounts, Account(), Terms(), TODAY, chosen or next(iter(books)), Forms(), {}, (),
        Earned("all", 0, 0, 0, 0.0), False,
    )  # fmt: skip
    return replace(first, **facts)


def test_what_is_said_at_todays_line_in_every_state():
    book = Book()
    assert tag(book) == ("no quote yet", False)
    book.put(QuoteSent(book.now, 1, 480_00, "EUR"))
    assert tag(book) == ("quoted Mon 9 Mar, no answer yet", False)
    book.agree(480_00, 192_00)
    assert tag(book) == ("deposit of €\u2009192 not asked for", False)
    assert tag(book, standing(painted=((TODAY, 60.0),), passes=2, finished=2))[1], "painted without its deposit"
    number = book.invoice("deposit", 192_00)
    assert tag(book) == ("€\u2009192 asked for, due Mon 23 Mar", False)
    book.wait(16)
    assert tag(book) == ("€\u2009192 owed, 2 days late", True)
    book.put(Reminded(book.now, number, 1, ""))
    assert tag(book) == ("€\u2009192 owed, 2 days late", True), "a letter does not pay"
    book.pay(number, 192_00)
    assert tag(book) == ("€\u2009192 ahead of the paint", False)
    half = standing(painted=((TODAY, 300.0),), rooms=((Task("x", 300.0, key="1"),),), passes=4, finished=2)
    assert share_painted(half) == 0.5 and tag(book, half) == ("€\u200948 of paint not paid", True)
    book.agree(100_00, 100_00, "a sketch only")
    assert tag(book) == ("€\u200992 to credit", True)
    book.credit(number, 92_00)
    assert tag(book) == ("€\u200992 to pay back", True)
    book.put(entering.pay_back(book.account, 92_00, book.today, "cash", book.now, 9))
    assert tag(book, standing(delivered=NOON)) == ("paid, delivered Mon 9 Mar", False)
    other = Book()
    other.agree(480_00, 0)
    other.put(entering.cancel(other.account, 100_00, "", other.terms, other.now))
    assert tag(other)[0] == "cancelled, €\u2009100 kept"


def test_paint_rises_with_the_hours_to_its_share():
    s = standing(
        painted=((TODAY - timedelta(days=3), 100.0), (TODAY, 100.0)), rooms=((Task("x", 200.0, key="1"), Task("y", 99.0)),)
    )
    row = money_row(s, Account(), (), Terms(), TODAY)
    assert [share for _, share in row.paint] == [0.25, 0.5], "work without a pass is no paint"
    assert not painted(s) and painted(replace(s, passes=3, finished=3)) and share_painted(standing()) == 0.0


def test_which_stand_in_the_line_and_how_far_it_reaches():
    settled, open_, old = Book(), Book(), Book()
    for book in (settled, open_, old):
        book.agree(100_00, 100_00)
    for book in (settled, old):
        book.pay(book.invoice("deposit", 100_00), 100_00)
    standings = (
        standing("c1", delivered=NOON - timedelta(days=10)), standing("c2"), standing("c3", delivered=NOON - timedelta(days=90)), standing("c4"),
    )  # fmt: skip
    accounts = {f"c{n}": account_of(b.log) for n, b in enumerate((settled, open_, old), 1)}
    logs = {f"c{n}": b.log for n, b in enumerate((settled, open_, old), 1)}
    view = money_view(standings, accounts, logs, Terms(), ("c1", "c3", "c4"), NOON)
    assert [r.id for r in view.rows] == ["c1", "c2", "c4"], "put away but open stays; delivered and paid long ago goes"
    assert view.first <= TODAY - timedelta(days=14) and view.last == TODAY + timedelta(days=36) and view.most == 100_00
    far = replace(standings[1], promised=TODAY + timedelta(days=900))
    assert money_view((far,), accounts, logs, Terms(), ("c2",), NOON).last == TODAY + timedelta(days=75)
    assert money_view((), {}, {}, Terms(), (), NOON).empty.startswith("Nothing is priced")


def test_a_quote_as_lengths():
    q = quote(SCOPE, MINUTES, Terms(), Pulled((("materials", 50_00),)))
    shown = quote_shown("Quill", Compose(), q, Terms(), "cm", (400_00,), {(300.0, 400.0): q}, -1)
    assert shown.title == "A quote for Quill" and not shown.fixed and shown.size_words.startswith("24 × 30")
    assert sum(s.amount for s in shown.segments) == shown.price and [s.name for s in shown.segments if s.pulled] == [
        "materials"
    ]
    assert shown.marks[0][0] == 0 and shown.marks[-1][0] == shown.scale_to >= q.price and 4 <= len(shown.marks) <= 12
    steps = {b[0] - a[0] for a, b in zip(shown.marks, shown.marks[1:], strict=False)}
    assert len(steps) == 1 and str(steps.pop()).rstrip("0") in ("1", "2", "5")
    agreed = quote_shown("Quill", Compose(), q, Terms(), "cm", (), {}, 480_00)
    assert agreed.fixed and "agreed at €\u2009480" in agreed.title
    assert shown.segments[0].detail == "€\u200926 · 1\u202fh 00" or "€\u200926" in shown.segments[0].detail


def test_the_next_sizes_lie_as_the_piece_lies():
    assert other_sizes(300.0, 400.0) == ((200.0, 300.0), (400.0, 500.0))
    assert other_sizes(400.0, 300.0) == ((300.0, 200.0), (500.0, 400.0))
    assert other_sizes(100.0, 100.0) == ((200.0, 300.0),) and other_sizes(900.0, 1200.0) == ((600.0, 800.0),)


def test_what_the_last_of_this_size_were_priced_at():
    books = {}
    for n, (price, cid) in enumerate(((300_00, "c1"), (400_00, "c2"), (500_00, "c3"), (600_00, "c4"), (700_00, "c5"))):
        books[cid] = Book()
        books[cid].wait(n)
        books[cid].agree(price, 0)
    accounts = {i: account_of(b.log) for i, b in books.items()}
    standings = [standing(i) for i in books]
    assert last_prices(standings, accounts, 240.0, 300.0, "EUR", "c5") == (400_00, 500_00, 600_00)
    assert (
        last_prices(standings, accounts, 240.0, 300.0, "GBP", "") == ()
        and last_prices(standings, accounts, 600.0, 800.0, "EUR", "") == ()
    )


def test_kinds_on_one_scale_with_the_floor():
    rows = (Earned("cat", 2, 500_00, 0, 600.0), Earned("dog", 1, 200_00, 20_00, 600.0), Earned("owl", 1, 90_00, 0, 0.0))
    shown = earned_shown(rows, Terms(floor=20_00), {"cat": Compose()})
    assert [(d.kind, d.an_hour, d.under) for d in shown.dots] == [("cat", 50_00, False), ("dog", 18_00, True)]
    assert shown.low <= 18_00 and shown.high >= 50_00 and shown.dots[0].works == "2 works" and shown.dots[1].works == "1 work"
    assert earned_shown((), Terms(), {}).empty and "under €\u200920" in shown.floor_words


def test_the_year_on_one_sheet():
    months = tuple(Month(date(2026, n, 1), 100_00 * n, 10_00, 80_00, 16_00) for n in range(1, 13))
    shown = year_shown(2026, months, (Earned("cat", 1, 100_00, 10_00, 60.0), Earned("dog", 1, 50_00, 0, 60.0)), Terms(), 3)
    assert shown.months[0] == ("January", "€\u2009100", "€\u200910", "€\u200996", "€\u200916")
    assert shown.months[-1][:3] == ("The year", "€\u20097,800", "€\u2009120") and shown.bars[2] == (300_00, 10_00)
    assert (
        shown.kinds[-1] == ("all", "2", "2\u202fh 00", "€\u2009150", "€\u200910", "€\u200970")
        or shown.kinds[-1][-1] == "€\u200970"
    )
    assert year_shown(2026, months, (), Terms(), 12).kinds == ()


def test_the_bench_tells_who_owes_what_and_hands_on_what_is_pressed():
    late, fresh = Book(), Book()
    for book, price in ((late, 400_00), (fresh, 300_00)):
        book.agree(price, 100_00)
    late.invoice("deposit", 100_00)
    hand = Hand()
    there = seen({"c1": fresh, "c2": late}, today=TODAY + timedelta(days=20), chosen="c2")
    bench = books_bench(there, hand)
    owed, ask = bench.sections[0], bench.sections[1]
    assert owed.lines[0].title == "T. Haldane" and owed.lines[0].detail == "C2, deposit, 6 days late" and owed.lines[0].chosen
    assert ask.title == "To ask for" and ask.lines[0].detail == "C1, deposit"
    ask.lines[0].do()
    assert hand.done[-1] == ("choose", ("c1",))
    assert bench.act.title == "Write a reminder" and "letter 1" in bench.act.detail
    bench.act.do()
    assert hand.done[-1][0] == "do_ask"


@pytest.mark.parametrize(
    ("build", "title"),
    [
        (lambda b: None, "Write the quote"),
        (lambda b: b.put(QuoteSent(b.now, 1, 480_00, "EUR")), "They agreed to €\u2009480"),
        (lambda b: b.agree(480_00, 192_00), "Ask for the deposit"),
        (lambda b: (b.agree(480_00, 192_00), b.invoice("deposit", 192_00)), "Write in: €\u2009192 came in"),
        (lambda b: (b.agree(480_00, 192_00), b.pay(b.invoice("deposit", 192_00), 192_00)), "Open C1"),
        (lambda b: (b.agree(480_00, 192_00), b.pay(b.invoice("deposit", 192_00), 200_00)), "Write in: €\u20098 went back"),
    ],
)
def test_the_yellow_field_is_what_the_money_asks_for(build, title):
    book = Book()
    build(book)
    there = seen({"c1": book})
    assert act_of(there, Hand()).title == title
    assert ask_for(there.standing, there.account("c1"), TODAY).kind in (
        "quote",
        "answer",
        "invoice",
        "await",
        "nothing",
        "pay back",
    )


def test_nothing_yet():
    nobody = Seen((), {}, Account(), Terms(), TODAY, "", Forms(), {}, (), Earned("all", 0, 0, 0, 0.0), False)
    bench = books_bench(nobody, Hand())
    assert bench.sections[0].lines[0].text == "nobody owes you anything" and bench.act.title == "Back to the studio"


def test_paint_tells_what_to_order_first():
    one, two = list(entries())[:2]
    box = put_in(put_in(Paintbox(), one), two)
    first, second = box.tubes
    runs = (Runs(second, 90.0, 1, date(2026, 3, 20), "Quill"),)
    shown = paint_shown(
        box,
        Needs({second.id: 90.0, first.id: 6.0}, runs),
        PaintUse({first.id: 8.2}, 0.0),
        PaintUse({first.id: 2.0}, 3.0),
        "Quill",
        (("Quill", 8.0, 5.0), ("Brack", 0.2, 0.1)),
    )
    assert shown.head == "1 tube will not suffice" and [r.short for r in shown.rows] == [True, False]
    assert (
        shown.rows[0].words.replace("\u202f", " ") == "order 1 tube, here before Fri 20 Mar, Quill"
        and shown.rows[0].needed == 1.0
    )
    assert shown.rows[1].used_words == "8\u202fml used · 2\u202fml to come" and shown.rows[1].needed == pytest.approx(0.1)
    assert "3 of it by wells that have no mix yet" in shown.note and [t for t, _ in shown.commissions] == ["Quill"]
    calm = paint_shown(box, Needs({}, ()), PaintUse({}, 0.0), PaintUse({}, 0.0), "", ())
    assert calm.head.startswith("Every tube suffices") and not calm.commissions
