"""One commission's money, worked out from what happened: price, invoices, what came in, what is owed and how late."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from yarrow_lane.lane.happening import Happening, of_kind
from yarrow_lane.lane.money import Cancelled, CostPaid, EntryStruck, Invoiced, Paid, PriceAgreed, QuoteSent, Reminded, Spent


@dataclass(frozen=True)
class InvoiceStanding:
    """An invoice with the credit notes on it and what came in for it; `reminded` counts letters about it."""

    invoice: Invoiced
    credited: int
    paid: int
    reminded: int

    @property
    def left(self) -> int:
        """Still to pay; below nothing where too much came in."""
        return self.invoice.gross - self.credited - self.paid

    def days_late(self, today: date) -> int:
        """Days since it was due, 0 while it is not."""
        return max(0, (today - self.invoice.due).days) if self.left > 0 else 0


@dataclass(frozen=True)
class Cost:
    """A cost, and when it was paid (None: it is owed)."""

    spent: Spent
    paid_on: date | None


@dataclass(frozen=True)
class Account:
    """Nothing here is stored. `payments` and `costs` leave out what was struck; `agreements` are in order, the last holds."""

    quotes: tuple[QuoteSent, ...] = ()
    agreements: tuple[PriceAgreed, ...] = ()
    invoices: tuple[InvoiceStanding, ...] = ()
    credits: tuple[Invoiced, ...] = ()
    payments: tuple[Paid, ...] = ()
    costs: tuple[Cost, ...] = ()
    cancelled: Cancelled | None = None

    @property
    def agreed(self) -> PriceAgreed | None:
        """What holds now."""
        return self.agreements[-1] if self.agreements else None

    @property
    def price(self) -> int:
        """What the client is to pay in all: as agreed last, of a cancelled commission what the work done comes to."""
        if self.cancelled is not None:
            return self.cancelled.kept
        return self.agreed.price if self.agreed is not None else 0

    @property
    def deposit(self) -> int:
        """What is to come before painting."""
        return 0 if self.agreed is None or self.cancelled is not None else min(self.agreed.deposit, self.price)

    @property
    def invoiced(self) -> int:
        """On all invoices, credit notes taken off."""
        return sum(i.invoice.gross - i.credited for i in self.invoices)

    @property
    def paid(self) -> int:
        """Come in, what went back taken off."""
        return sum(p.amount for p in self.payments)

    @property
    def owed(self) -> int:
        """By invoices, not yet come in; below nothing where the studio owes it back."""
        return self.invoiced - self.paid

    @property
    def to_invoice(self) -> int:
        """Of the price, not yet on an invoice; below nothing where a credit note is due."""
        return self.price - self.invoiced

    @property
    def deposit_to_invoice(self) -> int:
        """Of the deposit, not yet on an invoice."""
        return max(0, self.deposit - self.invoiced)

    @property
    def still_to_pay(self) -> int:
        """Of the price, not yet come in: what is owed before it leaves."""
        return self.price - self.paid

    @property
    def deposit_in(self) -> bool:
        """Whether painting may begin: a price is agreed and its deposit came in."""
        return self.agreed is not None and self.paid >= self.deposit

    @property
    def settled(self) -> bool:
        """Whether a price was agreed, invoiced and paid to the last cent."""
        return bool(self.agreements) and self.to_invoice == 0 and self.owed == 0

    @property
    def spent(self) -> int:
        """All costs."""
        return sum(c.spent.amount for c in self.costs)

    def open_invoices(self) -> tuple[InvoiceStanding, ...]:
        """Those not paid to the end, the oldest first."""
        return tuple(i for i in self.invoices if i.left > 0)

    def to_pay(self) -> tuple[Cost, ...]:
        """What the studio owes to others."""
        return tuple(c for c in self.costs if c.paid_on is None)

    def invoice(self, number: int) -> InvoiceStanding | None:
        """The one of that number."""
        return next((i for i in self.invoices if i.invoice.number == number), None)

    def scope_changes(self) -> tuple[PriceAgreed, ...]:
        """Agreements after the first: what was asked for more, or less."""
        return self.agreements[1:]


def account_of(log: Sequence[Happening]) -> Account:
    """Fold what happened; the order of entries does not matter but for agreements."""
    struck = {(e.what, e.number) for e in of_kind(log, EntryStruck)}
    papers = of_kind(log, Invoiced)
    payments = tuple(p for p in of_kind(log, Paid) if ("payment", p.number) not in struck)
    reminded = of_kind(log, Reminded)
    gone_out = {c.number: c.on for c in of_kind(log, CostPaid)}
    invoices = tuple(
        InvoiceStanding(
            i,
            -sum(c.gross for c in papers if c.of == i.number),
            sum(p.amount for p in payments if p.invoice == i.number),
            sum(r.invoice == i.number for r in reminded),
        )
        for i in papers
        if not i.of
    )
    costs = tuple(Cost(s, gone_out.get(s.number)) for s in of_kind(log, Spent) if ("cost", s.number) not in struck)
    cancelled = of_kind(log, Cancelled)
    return Account(
        of_kind(log, QuoteSent), of_kind(log, PriceAgreed), invoices, tuple(i for i in papers if i.of), payments, costs,
        cancelled[-1] if cancelled else None,
    )  # fmt: skip


def money_came(log: Sequence[Happening]) -> tuple[tuple[date, int], ...]:
    """By day what had come in until then, in order: the black line of a commission."""
    total, found = 0, []
    for p in sorted(account_of(log).payments, key=lambda p: (p.on, p.number)):
        total += p.amount
        found.append((p.on, total))
    return tuple(found)
