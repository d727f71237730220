"""What the books show now: each commission's money as one line in time."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from typing import Literal

from yarrow_lane.books.account import Account, money_came
from yarrow_lane.books.asking import Ask, ask_of, drawer_of
from yarrow_lane.books.terms import Terms
from yarrow_lane.commission.standing import CommissionStanding
from yarrow_lane.compose.composition import Compose
from yarrow_lane.lane.happening import Happening
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.money import about_text, currency_of, money_text
from yarrow_lane.measure.words import counted

Mode = Literal["money", "year", "paint", "clients", "terms"]
_BACK_DAYS, _ON_DAYS = 100, 75  # our choice: what is shown of the past and of the time to come, at most
_GONE_DAYS = 45  # our choice: delivered and paid ones stay in the line for so long


@dataclass(frozen=True)
class MoneyRow:
    """One commission: `came` is what had come in by day, `paint` the share of its hours by day (0 to 1), both rising.

    `tag` is said at today's line, `tag_wrong` in red; amounts in smallest units.
    """

    id: str
    title: str
    client: str
    price: int
    price_words: str
    compose: Compose
    quoted: date | None
    agreed: date | None
    came: tuple[tuple[date, int], ...]
    steps: tuple[tuple[date, str], ...]
    paint: tuple[tuple[date, float], ...]
    promised: date | None
    delivered: date | None
    tag: str
    tag_wrong: bool
    to_come: int
    to_come_words: str
    behind: bool


@dataclass(frozen=True)
class MoneyView:
    """All rows at one scale of time and money."""

    first: date
    last: date
    today: date
    rows: tuple[MoneyRow, ...]
    most: int
    empty: str = ""


def painted(s: CommissionStanding) -> bool:
    """Whether nothing is left to paint."""
    return s.delivered is not None or (s.passes > 0 and s.finished >= s.passes)


def share_painted(s: CommissionStanding) -> float:
    """Of its hours at the easel, by what is logged and what is left."""
    if painted(s):
        return 1.0
    done = sum(minutes for _, minutes in s.painted)
    left = sum(t.minutes for room in s.rooms for t in room if t.key)
    return done / (done + left) if done + left > 0 else 0.0


def said(amount: int, account: Account, terms: Terms) -> str:
    """In the currency it was agreed in."""
    currency = currency_of(account.agreed.currency) if account.agreed is not None else terms.money
    return money_text(amount, currency, terms.form)


def _about(amount: int, account: Account, terms: Terms) -> str:
    currency = currency_of(account.agreed.currency) if account.agreed is not None else terms.money
    return about_text(amount, currency, terms.form)


def _paint(s: CommissionStanding) -> tuple[tuple[date, float], ...]:
    whole = share_painted(s)
    total = sum(minutes for _, minutes in s.painted)
    run, found = 0.0, []
    for day, minutes in s.painted:
        run += minutes
        found.append((day, whole * run / total if total else 0.0))
    return tuple(found)


def _tag(s: CommissionStanding, a: Account, ask: Ask, terms: Terms, today: date) -> tuple[str, bool]:
    if a.cancelled is not None:
        return f"cancelled, {said(a.price, a, terms)} kept", False
    if ask.kind == "quote":
        return "no quote yet", False
    if ask.kind == "answer":
        return f"quoted {day_text(a.quotes[-1].at.date())}, no answer yet", False
    owed = a.open_invoices()
    if owed:
        late = max(i.days_late(today) for i in owed)
        amount = said(sum(i.left for i in owed), a, terms)
        if late:
            return f"{amount} owed, {counted(late, 'day')} late", True
        return f"{amount} asked for, due {day_text(min(i.invoice.due for i in owed))}", False
    if ask.kind == "credit":
        return f"{said(ask.amount, a, terms)} to credit", True
    if ask.kind == "pay back":
        return f"{said(ask.amount, a, terms)} to pay back", True
    if ask.kind == "invoice":
        return f"{ask.what} of {said(ask.amount, a, terms)} not asked for", ask.what != "balance" and share_painted(s) > 0
    if a.settled:
        return f"paid, delivered {day_text(s.delivered.date())}" if s.delivered else "paid", False
    ahead = drawer_of(a, share_painted(s))
    if ahead.ahead:
        return f"{_about(ahead.ahead, a, terms)} ahead of the paint", False
    return (f"{_about(ahead.behind, a, terms)} of paint not paid", True) if ahead.behind else ("", False)


def money_row(s: CommissionStanding, a: Account, log: Sequence[Happening], terms: Terms, today: date) -> MoneyRow:
    """One commission's line."""
    ask = ask_of(a, painted(s), today)
    tag, wrong = _tag(s, a, ask, terms, today)
    price = a.price if a.agreed is not None else a.quotes[-1].price if a.quotes else 0
    names = {i.invoice.number: i.invoice.what for i in a.invoices}
    steps = tuple(
        (p.on, f"{'back' if p.amount < 0 else names.get(p.invoice, 'paid')} {said(abs(p.amount), a, terms)}")
        for p in a.payments
    )
    to_come = max(0, a.still_to_pay) if a.agreed is not None else 0
    return MoneyRow(
        s.id, s.title, s.client, price, said(price, a, terms) if price else "", s.compose,
        a.quotes[0].at.date() if a.quotes else None, a.agreements[0].at.date() if a.agreements else None,
        money_came(log), steps, _paint(s), s.promised, s.delivered.date() if s.delivered else None, tag, wrong,
        to_come, said(to_come, a, terms), drawer_of(a, share_painted(s)).behind > 0 and a.agreed is not None,
    )  # fmt: skip


def money_view(
    standings: Sequence[CommissionStanding], accounts: Mapping[str, Account], logs: Mapping[str, Sequence[Happening]], terms: Terms,
    on_shelf: Sequence[str], now: datetime,
) -> MoneyView:  # fmt: skip
    """Those on the shelf, and those put away that still move money; delivered and paid ones for a while."""
    today = now.date()
    rows = []
    for s in standings:
        a = accounts.get(s.id, Account())
        gone = s.delivered is not None and (today - s.delivered.date()).days > _GONE_DAYS
        if (s.id in on_shelf and not (gone and a.settled)) or (a.agreed is not None and not a.settled and a.cancelled is None):
            rows.append(money_row(s, a, logs.get(s.id, ()), terms, today))
    days = [d for r in rows for d in (r.quoted, r.agreed, *(day for day, _ in r.paint), *(day for day, _ in r.came)) if d]
    ahead = [r.promised for r in rows if r.promised]
    first = max(min([*days, today - timedelta(days=14)]) - timedelta(days=3), today - timedelta(days=_BACK_DAYS))
    last = min(max([*ahead, today + timedelta(days=14)]) + timedelta(days=6), today + timedelta(days=_ON_DAYS))
    empty = "" if rows else "Nothing is priced yet. Start a commission; its quote begins here."
    return MoneyView(first, last, today, tuple(rows), max((r.price for r in rows), default=0), empty)
