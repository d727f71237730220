"""The ledger: every entry as postings that add up to nothing, and what accounts, months and kinds come to."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Literal

from yarrow_lane.lane.happening import Happening
from yarrow_lane.lane.money import CostPaid, EntryStruck, Invoiced, Paid, Spent
from yarrow_lane.measure.money import rounded_share

AccountName = Literal["clients", "work", "tax", "bank", "costs", "suppliers"]
ACCOUNTS: tuple[AccountName, ...] = ("clients", "work", "tax", "bank", "costs", "suppliers")


@dataclass(frozen=True)
class Posting:
    """One side of an entry: above nothing a debit, below a credit; `about` is the commission, `paper` the entry's number."""

    on: date
    account: AccountName
    amount: int
    currency: str
    about: str
    words: str
    paper: str


def _entry(on: date, about: str, words: str, paper: str, currency: str, *sides: tuple[AccountName, int]) -> tuple[Posting, ...]:
    return tuple(Posting(on, name, amount, currency, about, words, paper) for name, amount in sides if amount)


def postings(about: str, log: Sequence[Happening]) -> tuple[Posting, ...]:
    """All entries of one commission (or the studio's own), in order; what was struck is posted back on the day it was struck."""
    found: list[Posting] = []
    payments: dict[int, Paid] = {}
    costs: dict[int, Spent] = {}
    paid: set[int] = set()
    for h in log:
        if isinstance(h, Invoiced):
            words = f"credit on invoice {h.of}" if h.of else f"invoice, {h.what}"
            found += _entry(
                h.on, about, words, f"I{h.number}", h.currency, ("clients", h.gross), ("work", -h.net), ("tax", -h.tax)
            )
        elif isinstance(h, Paid):
            payments[h.number] = h
            words = "paid back" if h.amount < 0 else f"payment of invoice {h.invoice}, {h.how}"
            found += _entry(h.on, about, words, f"R{h.number}", h.currency, ("bank", h.amount), ("clients", -h.amount))
        elif isinstance(h, Spent):
            costs[h.number] = h
            found += _entry(
                h.on, about, f"{h.cost}: {h.what}", f"C{h.number}", h.currency, ("costs", h.amount), ("suppliers", -h.amount)
            )
        elif isinstance(h, CostPaid) and h.number in costs and h.number not in paid:
            c = costs[h.number]
            paid.add(h.number)
            found += _entry(
                h.on, about, f"paid: {c.what}", f"C{h.number}", c.currency, ("suppliers", c.amount), ("bank", -c.amount)
            )
        elif isinstance(h, EntryStruck):
            found += _struck(h, about, payments, costs, paid)
    return tuple(found)


def _struck(
    h: EntryStruck, about: str, payments: dict[int, Paid], costs: dict[int, Spent], paid: set[int]
) -> tuple[Posting, ...]:  # fmt: skip
    on, words = h.at.date(), f"struck out: {h.why}"
    if h.what == "payment" and h.number in payments:
        p = payments.pop(h.number)
        return _entry(on, about, words, f"R{h.number}", p.currency, ("bank", -p.amount), ("clients", p.amount))
    if h.what == "cost" and h.number in costs:
        c = costs.pop(h.number)
        other: AccountName = "bank" if h.number in paid else "suppliers"
        return _entry(on, about, words, f"C{h.number}", c.currency, ("costs", -c.amount), (other, c.amount))
    return ()


def balances(entries: Iterable[Posting]) -> dict[tuple[str, AccountName], int]:
    """What each account comes to, by currency."""
    found: dict[tuple[str, AccountName], int] = {}
    for p in entries:
        found[p.currency, p.account] = found.get((p.currency, p.account), 0) + p.amount
    return found


@dataclass(frozen=True)
class Month:
    """What went through the bank and what was invoiced in a month, in smallest units."""

    first: date
    came: int
    went: int
    invoiced: int
    tax: int


def months(entries: Iterable[Posting], year: int, currency: str) -> tuple[Month, ...]:
    """The twelve months of a year."""
    came, went, work, tax = ([0] * 12 for _ in range(4))
    for p in entries:
        if p.on.year != year or p.currency != currency:
            continue
        at = p.on.month - 1
        if p.account == "bank":
            (came if p.paper.startswith("R") else went)[at] += p.amount if p.paper.startswith("R") else -p.amount
        elif p.account == "work":
            work[at] -= p.amount
        elif p.account == "tax":
            tax[at] -= p.amount
    return tuple(Month(date(year, n + 1, 1), came[n], went[n], work[n], tax[n]) for n in range(12))


@dataclass(frozen=True)
class Earned:
    """What commissions of one kind brought: invoiced without tax, less their costs, for the hours at the easel."""

    kind: str
    pieces: int
    net: int
    costs: int
    minutes: float

    @property
    def kept(self) -> int:
        """After costs."""
        return self.net - self.costs

    @property
    def an_hour(self) -> int | None:
        """Kept for an hour; None while no hours are logged."""
        return rounded_share(self.kept, 60, round(self.minutes)) if self.minutes >= 1 else None


@dataclass(frozen=True)
class Piece:
    """What the year sheet wants to know of a commission: its kind, its minutes at the easel, and whether it is done."""

    kind: str
    minutes: float
    delivered: date | None


def earned(pieces: Mapping[str, Piece], entries: Mapping[str, Sequence[Posting]], currency: str) -> tuple[Earned, ...]:
    """By kind, over those delivered: an unfinished piece has money without its hours, or hours without their money."""
    found: dict[str, Earned] = {}
    for about, piece in pieces.items():
        if piece.delivered is None:
            continue
        own = [p for p in entries.get(about, ()) if p.currency == currency]
        net = -sum(p.amount for p in own if p.account == "work")
        costs = sum(p.amount for p in own if p.account == "costs")
        before = found.get(piece.kind, Earned(piece.kind, 0, 0, 0, 0.0))
        found[piece.kind] = Earned(
            piece.kind, before.pieces + 1, before.net + net, before.costs + costs, before.minutes + piece.minutes
        )
    return tuple(sorted(found.values(), key=lambda e: (-e.pieces, e.kind)))


def together(rows: Iterable[Earned]) -> Earned:
    """All kinds as one."""
    kept = list(rows)
    return Earned(
        "all", sum(e.pieces for e in kept), sum(e.net for e in kept), sum(e.costs for e in kept), sum(e.minutes for e in kept)
    )
