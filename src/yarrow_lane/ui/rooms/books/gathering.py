"""What the books page shows, gathered from the desk: headings, the most urgent commission, paint, switches of a new piece."""

from collections.abc import Mapping, Sequence
from datetime import date, datetime
from typing import TYPE_CHECKING

from yarrow_lane.books.account import Account
from yarrow_lane.books.ledger import AccountName, balances, earned, together
from yarrow_lane.commission.paint_use import WATCH_DAYS, PaintUse, use_of, what_is_needed
from yarrow_lane.commission.standing import CommissionStanding, passes_in
from yarrow_lane.commission.studio import Studio
from yarrow_lane.desk.books_kept import BooksKept
from yarrow_lane.easel.standing import passes_left
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.money import money_text
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.ui.bench_sheet import BenchSheet, Fact, NextAct, Note, Press, Section
from yarrow_lane.ui.rooms.books.bench import TAX_NOTE, ask_for
from yarrow_lane.ui.rooms.books.paint_view import PaintShown, paint_shown

if TYPE_CHECKING:
    from yarrow_lane.desk.desk import Desk
    from yarrow_lane.ui.rooms.books.page import BooksPage

_URGENT = ("remind", "credit", "pay back", "invoice", "await", "answer", "quote", "nothing")


def most_urgent(standings: Sequence[CommissionStanding], accounts: Mapping[str, Account], today: date) -> str:
    """The commission whose money asks for something first; "" where there is none."""
    asks = [(s.id, ask_for(s, accounts.get(s.id, Account()), today)) for s in standings]
    found = min(asks, key=lambda a: (_URGENT.index(a[1].kind), -a[1].days_late, -a[1].amount), default=None)
    return found[0] if found is not None else ""


def heading(studio: Studio, books: BooksKept, standings: Sequence[CommissionStanding], now: datetime) -> tuple[str, str, str]:
    """The studio's name, what is owed both ways, and what an hour brought this year."""
    terms = studio.terms

    def said(amount: int) -> str:
        return money_text(amount, terms.money, terms.form)

    accounts = books.accounts()
    owed = sum(i.left for a in accounts.values() for i in a.open_invoices())
    owing = sum(c.spent.amount for a in (*accounts.values(), books.own()) for c in a.to_pay())
    pieces = {i: p for i, p in books.pieces(now).items() if p.delivered is not None and p.delivered.year == now.year}
    hour = together(earned(pieces, books.postings(), terms.currency)).an_hour
    words = f"{day_text(now.date())} · {said(owed)} owed to you · {said(owing)} you owe"
    return studio.name, words, f"{said(hour)} an hour this year" if hour is not None else ""


def paint(desk: "Desk", chosen: str, now: datetime) -> PaintShown:
    """What all planned sittings need of the tubes, and what the chosen commission used and will."""
    studio = desk.studio
    commissions, passes = [], {}
    for commission_id in studio.on_shelf:
        try:
            c = desk.commission(commission_id)
        except Trouble:
            continue  # it is said on the shelf that it cannot be read
        if c.deliver.delivered is None:
            commissions.append(c)
            passes[c.id] = passes_left(c.easel, passes_in(c, studio.climate))
    needs = what_is_needed(studio.paintbox, desk.standings.plan(now), commissions, passes)
    none = PaintUse({}, 0.0)
    uses, mine = [], (none, none)
    for c in commissions:
        done = {f.pass_id for f in c.easel.finished}
        every = passes_in(c, studio.climate)
        pair = tuple(
            use_of([p for p in every if (p.id in done) is over], c.palette, studio.paintbox, c.brief.medium)
            for over in (True, False)
        )
        uses.append((c.brief.title, pair[0].ml, pair[1].ml))
        if c.id == chosen:
            mine = (pair[0], pair[1])
    title = next((c.brief.title for c in commissions if c.id == chosen), "")
    return paint_shown(studio.paintbox, needs, mine[0], mine[1], title, uses)


def quiet_bench(page: "BooksPage") -> BenchSheet:
    """Beside what is only read."""
    notes = {
        "year": (Note("What came in and went out is told by the day it moved; what was invoiced, by the day of the invoice."), Note(TAX_NOTE)),
        "paint": (Note(f"Amounts are reckoned, not measured. Order what will not suffice in time; what lies more than {WATCH_DAYS} days ahead is uncertain."),),
    }[page.mode]  # fmt: skip
    saves = (Press("Save the ledger for the accountant (CSV)…", page.save_csv),) if page.mode == "year" else ()
    back = NextAct("Back to the money", "", lambda: page.show_mode("money"))
    accounts = (_accounts(page),) if page.mode == "year" else ()
    return BenchSheet((*accounts, Section("How it is reckoned", (*notes, *saves))), back)


def _accounts(page: "BooksPage") -> Section:
    """What the ledger's accounts come to; they add up to nothing, which is said too."""
    terms = page.studio.terms
    found = balances(p for of in page.desk.books.postings().values() for p in of)
    own = {name: amount for (currency, name), amount in found.items() if currency == terms.currency}

    def said(name: AccountName, sign: int = 1) -> str:
        return money_text(sign * own.get(name, 0), terms.money, terms.form)

    facts = (
        Fact("Clients owe you", said("clients")), Fact("You owe others", said("suppliers", -1)), Fact("Went through the bank", said("bank")),
        Fact("Earned, without tax", said("work", -1)), Fact("Tax in what was invoiced", said("tax", -1)), Fact("Costs", said("costs")),
        Fact("All together", "balanced" if not sum(own.values()) else "not balanced", "plain" if not sum(own.values()) else "wrong"),
    )  # fmt: skip
    return Section("Accounts, since the beginning", facts)
