"""The bench of the books: what is owed and by whom, what may be asked for, the chosen commission's money, and the year."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date
from functools import partial
from typing import Any, Protocol

from yarrow_lane.books.account import Account
from yarrow_lane.books.asking import Ask, Drawer, ask_of
from yarrow_lane.books.ledger import Earned, Month
from yarrow_lane.books.terms import Terms
from yarrow_lane.commission.standing import CommissionStanding
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.measure.money import about_text, money_text
from yarrow_lane.measure.words import counted
from yarrow_lane.ui.bench_sheet import (
    BenchSheet,
    Day,
    Fact,
    Field,
    Line,
    NextAct,
    Note,
    Pick,
    Press,
    Row,
    Section,
    Tick,
    plain_options,
)
from yarrow_lane.ui.rooms.books.forms import COSTS, HOWS, Forms, Sending
from yarrow_lane.ui.rooms.books.view import painted, said

_MOST = 5
TAX_NOTE = (
    "Amounts are sums of what is on record here. Follow your local rules of tax and invoices, and ask a qualified person."
)


class Hands(Protocol):
    """What the page does for the bench."""

    def choose(self, commission_id: str) -> None: ...
    def fill(self, forms: Forms) -> None: ...
    def do_ask(self) -> None: ...
    def write_text(self, text: str) -> None: ...
    def send(self) -> None: ...
    def leave_sending(self) -> None: ...
    def take_payment(self) -> None: ...
    def pay_back(self) -> None: ...
    def agree(self) -> None: ...
    def price_of_change(self) -> str: ...
    def add_cost(self) -> None: ...
    def pay_cost(self, about: str, number: int) -> None: ...
    def strike(self, what: str, number: int) -> None: ...
    def cancel(self) -> None: ...
    def send_receipt(self, number: int) -> None: ...
    def show_invoice(self, number: int) -> None: ...
    def open_chosen(self) -> None: ...
    def as_reckoned(self) -> None: ...


@dataclass(frozen=True)
class Seen:
    """Everything the bench is worked out from."""

    standings: tuple[CommissionStanding, ...]
    accounts: Mapping[str, Account]
    own: Account
    terms: Terms
    today: date
    chosen: str
    forms: Forms
    drawers: Mapping[str, Drawer]
    months: tuple[Month, ...]
    year: Earned
    pulled: bool
    damaged: tuple[str, ...] = ()

    def account(self, commission_id: str) -> Account:
        """That commission's money."""
        return self.accounts.get(commission_id, Account())

    @property
    def standing(self) -> CommissionStanding | None:
        """The chosen one."""
        return next((s for s in self.standings if s.id == self.chosen), None)

    def money(self, amount: int) -> str:
        """In the studio's currency."""
        return money_text(amount, self.terms.money, self.terms.form)

    def about(self, amount: int) -> str:
        """In whole units of it: for what is reckoned."""
        return about_text(amount, self.terms.money, self.terms.form)


def ask_for(s: CommissionStanding, a: Account, today: date) -> Ask:
    """What its money asks for, the same on bench, line and shelf."""
    return ask_of(a, painted(s), today)


def books_bench(seen: Seen, hands: Hands) -> BenchSheet:
    """The whole bench of money in time."""
    sections: list[Section | None] = [
        _damaged_section(seen),
        owed_section(seen, hands),
        to_ask_section(seen, hands),
        you_owe_section(seen, hands),
        drawer_section(seen),
        year_section(seen),
    ]
    s = seen.standing
    if s is not None:
        sections += chosen_sections(s, seen, hands)
    return BenchSheet(tuple(x for x in sections if x is not None), act_of(seen, hands))


def _damaged_section(seen: Seen) -> Section | None:
    """Whose money is in no sum here."""
    if not seen.damaged:
        return None
    said = f"The money of {', '.join(seen.damaged)} cannot be read and is in no sum here: restore a copy of the studio."
    return Section("Needs a look", (Note(said, "wrong"),))


def owed_section(seen: Seen, hands: Hands) -> Section:
    """Who owes what today, the latest first."""
    rows: list[tuple[int, int, Row]] = []
    for s in seen.standings:
        a = seen.account(s.id)
        for i in a.open_invoices():
            late = i.days_late(seen.today)
            when = f"{counted(late, 'day')} late" if late else f"due {day_text(i.invoice.due)}"
            side = said(i.left, a, seen.terms)
            row = Row("", s.client or s.title, f"{s.title}, {i.invoice.what}, {when}", side, chosen=s.id == seen.chosen,
                      do=partial(hands.choose, s.id))  # fmt: skip
            rows.append((-late, -i.left, row))
    lines: list[Line] = [row for *_, row in sorted(rows, key=lambda r: r[:2])]
    more = (Note(f"and {len(lines) - _MOST} more"),) if len(lines) > _MOST else ()
    return Section("Owed to you today", (*lines[:_MOST], *more) or (Note("nobody owes you anything"),))


def to_ask_section(seen: Seen, hands: Hands) -> Section | None:
    """What may be asked for, but is not yet."""
    lines: list[Line] = []
    for s in seen.standings:
        a = seen.account(s.id)
        ask = ask_for(s, a, seen.today)
        if ask.kind in ("invoice", "credit", "pay back"):
            words = {"invoice": ask.what, "credit": "credit note", "pay back": "to pay back"}[ask.kind]
            lines.append(
                Row("", s.client or s.title, f"{s.title}, {words}", said(ask.amount, a, seen.terms), chosen=s.id == seen.chosen,
                    do=partial(hands.choose, s.id))
            )  # fmt: skip
    more = (Note(f"and {len(lines) - _MOST} more"),) if len(lines) > _MOST else ()
    return Section("To ask for", (*lines[:_MOST], *more)) if lines else None


def you_owe_section(seen: Seen, hands: Hands) -> Section | None:
    """Costs not paid yet; a press marks one as paid."""
    lines: list[Line] = []
    titles = {s.id: s.title for s in seen.standings}
    for about, a in (*seen.accounts.items(), ("studio", seen.own)):
        for c in a.to_pay():
            due = f"by {day_text(c.spent.due)}" if c.spent.due else f"since {day_text(c.spent.on)}"
            late = c.spent.due is not None and c.spent.due < seen.today
            words = f"{titles.get(about, 'the studio')}, {due}" + (", late" if late else "")
            lines.append(
                Row("", c.spent.what, words + "; press once it is paid", seen.money(c.spent.amount),
                    do=partial(hands.pay_cost, about, c.spent.number))
            )  # fmt: skip
    return Section("You owe", tuple(lines[:_MOST])) if lines else None


def drawer_section(seen: Seen) -> Section:
    """Money against paint over all."""
    ahead = sum(d.ahead for d in seen.drawers.values())
    behind = sum(d.behind for d in seen.drawers.values())
    return Section(
        "In the drawer",
        (
            Fact("Come in, not yet painted", seen.about(ahead)),
            Fact("Painted, not yet come in", seen.about(behind), "wrong" if behind else "plain"),
        ),
    )


def year_section(seen: Seen) -> Section:
    """The year until today; what an hour brought, over what is delivered."""
    came = sum(m.came - m.went for m in seen.months)
    hour = seen.year.an_hour
    works = counted(seen.year.pieces, "piece")
    return Section(
        f"This year, {seen.today.year}",
        (
            Fact("Come in, less what went out", seen.money(came)),
            Fact(f"{works} delivered, {hours_text(seen.year.minutes)}", f"{seen.money(hour)} an hour" if hour is not None else "no hours yet",
                 "wrong" if hour is not None and hour < seen.terms.floor else "plain"),
        ),
    )  # fmt: skip


# --- the chosen one


def chosen_sections(s: CommissionStanding, seen: Seen, hands: Hands) -> list[Section | None]:
    """Its money, then what can be written in, each folded to its decision."""
    a = seen.account(s.id)
    facts: list[Line] = []
    if a.agreed is not None:
        facts += [Fact("Price agreed", said(a.price, a, seen.terms)), Fact("Come in", said(a.paid, a, seen.terms))]
        facts.append(Fact("Still to pay", said(max(0, a.still_to_pay), a, seen.terms), "plain" if a.still_to_pay else "good"))
        if a.owed < 0:
            facts.append(Fact("Too much came in", said(-a.owed, a, seen.terms), "wrong"))
        if not a.deposit_in and s.painted:
            facts.append(Note("It is being painted without its deposit.", "wrong"))
    elif a.quotes:
        facts.append(Fact("Quoted", said(a.quotes[-1].price, a, seen.terms)))
    if seen.pulled:
        facts.append(Press("Quote as it is reckoned", lambda: hands.as_reckoned()))
    head = Section(s.title, (*facts, Press(f"Open {s.title}", lambda: hands.open_chosen())))
    return [head, payment_section(a, seen, hands), agree_section(s, a, seen, hands), cost_section(a, seen, hands), record_section(a, seen, hands), cancel_section(a, seen, hands)]  # fmt: skip


def _fill(seen: Seen, hands: Hands, **changed: Any) -> None:
    hands.fill(replace(seen.forms, **changed))


def payment_section(a: Account, seen: Seen, hands: Hands) -> Section | None:
    """Money that came in for the oldest open invoice."""
    open_ = a.open_invoices()
    if not open_:
        return None
    f, i = seen.forms, open_[0]
    lines = (
        Field("Came in", f.paid or seen.money(i.left), lambda v: _fill(seen, hands, paid=v), about=seen.chosen),
        Day("on", f.paid_on or seen.today, seen.today, lambda v: _fill(seen, hands, paid_on=v), ahead=False),
        Pick("how", f.how, plain_options(HOWS), lambda v: _fill(seen, hands, how=v)),
        *((Tick("It really came twice", f.twice, lambda v: _fill(seen, hands, twice=v)),) if f.looks_twice else ()),
        Press("Write it in", lambda: hands.take_payment()),
    )
    return Section(f"Money for invoice {i.invoice.number}", lines, f"{said(i.left, a, seen.terms)} open")


def agree_section(s: CommissionStanding, a: Account, seen: Seen, hands: Hands) -> Section | None:
    """The answer to a quote, or what was asked for after it."""
    f = seen.forms
    if a.cancelled is not None:
        return None
    if a.agreed is None:
        price = f.price or (seen.money(a.quotes[-1].price) if a.quotes else "")
        lines: tuple[Line, ...] = (
            Field("Price they agreed to", price, lambda v: _fill(seen, hands, price=v), about=seen.chosen),
            Field("Deposit before painting", f.deposit, lambda v: _fill(seen, hands, deposit=v), f"{seen.terms.deposit_bp / 100:g} % of it", about=seen.chosen),
            Press("They agreed", lambda: hands.agree()),
        )  # fmt: skip
        return Section("Their answer", lines, "not agreed yet")
    lines = (
        Note("The price of what changed is reckoned from what was agreed and what stands now, at the same rates."),
        Field(
            "Price from now on", f.price or hands.price_of_change(), lambda v: _fill(seen, hands, price=v), about=seen.chosen
        ),
        Field("Because", f.why, lambda v: _fill(seen, hands, why=v), "the dog comes in too", about=seen.chosen),
        Press("They agreed to the change", lambda: hands.agree()),
    )
    changes = a.scope_changes()
    return Section("Asked for after the price", lines, counted(len(changes), "change") if changes else "nothing")


def cost_section(a: Account, seen: Seen, hands: Hands) -> Section:
    """A cost of this commission, or of the studio itself."""
    f = seen.forms
    lines = (
        Field("What for", f.cost_what, lambda v: _fill(seen, hands, cost_what=v), "oak frame", about=seen.chosen),
        Field("It costs", f.cost, lambda v: _fill(seen, hands, cost=v), about=seen.chosen),
        Pick("Kind", f.cost_kind, COSTS, lambda v: _fill(seen, hands, cost_kind=v)),
        Day("To pay by", f.cost_due, seen.today, lambda v: _fill(seen, hands, cost_due=v)),
        Tick("For the studio, not for this commission", f.cost_own, lambda v: _fill(seen, hands, cost_own=v)),
        Press("Write the cost in", lambda: hands.add_cost()),
    )
    return Section("Costs", lines, said(a.spent, a, seen.terms) if a.costs else "none yet")


def record_section(a: Account, seen: Seen, hands: Hands) -> Section | None:
    """Entries on record; a mistake is struck out with its reason, never deleted."""
    lines: list[Line] = []
    for i in a.invoices:
        words = f"{i.invoice.what} of {day_text(i.invoice.on)}, " + (
            "paid" if i.left <= 0 else f"{said(i.left, a, seen.terms)} open"
        )
        lines.append(Row(f"{i.invoice.number}", f"Invoice {i.invoice.number}", words, said(i.invoice.gross, a, seen.terms),
                         do=partial(hands.show_invoice, i.invoice.number)))  # fmt: skip
    for credit in a.credits:
        lines.append(Row(f"{credit.number}", f"Credit note {credit.number}", f"on invoice {credit.of}", said(credit.gross, a, seen.terms),
                         do=partial(hands.show_invoice, credit.number)))  # fmt: skip
    for p in a.payments:
        lines.append(Row(f"{p.number}", f"Receipt {p.number}", f"{day_text(p.on)}, {p.how}; press to send it", said(p.amount, a, seen.terms),
                         do=partial(hands.send_receipt, p.number)))  # fmt: skip
    if not lines:
        return None
    if a.payments or a.costs:
        lines.append(
            Field(
                "A mistake, because",
                seen.forms.strike_why,
                lambda v: _fill(seen, hands, strike_why=v),
                "the bank showed it twice",
                about=seen.chosen,
            )
        )
        if a.payments:
            last = a.payments[-1]
            lines.append(Press(f"Strike receipt {last.number} out", lambda: hands.strike("payment", last.number)))
        if a.costs:
            cost = a.costs[-1].spent
            lines.append(Press(f"Strike {cost.what} out", lambda: hands.strike("cost", cost.number)))
    return Section("On record", tuple(lines), counted(len(a.invoices) + len(a.credits) + len(a.payments), "paper"))


def cancel_section(a: Account, seen: Seen, hands: Hands) -> Section | None:
    """The commission ends before its end."""
    if a.agreed is None or a.settled:
        return None
    if a.cancelled is not None:
        return Section(
            "Cancelled",
            (Note(a.cancelled.why or "no reason written"), Fact("Kept for the work done", said(a.price, a, seen.terms))),
        )
    f = seen.forms
    lines = (
        Note("What was painted is paid; what came in beyond it goes back. It cannot be taken back here."),
        Field(
            "Kept for the work done",
            f.kept or seen.money(min(a.price, a.paid)),
            lambda v: _fill(seen, hands, kept=v),
            about=seen.chosen,
        ),
        Field("Because", f.cancel_why, lambda v: _fill(seen, hands, cancel_why=v), about=seen.chosen),
        Press("Cancel the commission", lambda: hands.cancel()),
    )
    return Section("If it is cancelled", lines, "not cancelled")


# --- the yellow field


def act_of(seen: Seen, hands: Hands) -> NextAct:
    """What the chosen commission's money asks for."""
    s = seen.standing
    if s is None:
        return NextAct("Back to the studio", "nothing is priced yet", lambda: hands.open_chosen())
    a = seen.account(s.id)
    ask = ask_for(s, a, seen.today)
    amount = said(ask.amount, a, seen.terms)
    to = s.client or "the client"
    match ask.kind:
        case "quote":
            return NextAct("Write the quote", f"to {to}: a letter to look at before it goes", lambda: hands.do_ask())
        case "answer":
            return NextAct(
                f"They agreed to {amount}",
                f"{to}, with a deposit of {seen.terms.deposit_bp / 100:g}\u202f%",
                lambda: hands.do_ask(),
            )
        case "invoice":
            detail = {"deposit": "before painting", "balance": "it is finished", "cancelling": "for the work done"}.get(
                ask.what, "as agreed"
            )
            return NextAct(f"Ask for the {ask.what}", f"{amount} of {to}, {detail}", lambda: hands.do_ask())
        case "remind":
            return NextAct(
                "Write a reminder",
                f"to {to}: {amount}, {counted(ask.days_late, 'day')} late, letter {ask.level}",
                lambda: hands.do_ask(),
            )
        case "credit":
            return NextAct("Write the credit note", f"{amount} on invoice {ask.invoice}", lambda: hands.do_ask())
        case "pay back":
            return NextAct(f"Write in: {amount} went back", f"to {to}", lambda: hands.do_ask())
        case "await":
            return NextAct(f"Write in: {amount} came in", f"from {to}, invoice {ask.invoice}, today", lambda: hands.do_ask())
    return NextAct(f"Open {s.title}", "its money is in order", lambda: hands.open_chosen())


def sending_bench(sending: Sending, to: str, remarks: Sequence[str], hands: Hands) -> BenchSheet:
    """The letter before it goes: every word can be changed."""
    lines: list[Line] = [Note(r, "wrong") for r in remarks]
    lines.append(
        Field("The letter", sending.text, lambda v: hands.write_text(v), long=True, about=(sending.commission_id, sending.kind))
    )
    numbered = sending.kind in ("invoice", "credit", "quote")
    if numbered:
        lines.append(Note(f"It will bear the number {sending.number}. Numbers are given once, when it goes."))
    lines.append(Press("Not now", lambda: hands.leave_sending()))
    act = NextAct("Put it in the outbox", f"{sending.subject}, to {to or 'the client'}", lambda: hands.send())
    return BenchSheet((Section(sending.subject, tuple(lines)),), act)
