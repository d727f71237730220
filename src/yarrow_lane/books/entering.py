"""New entries, worked out from what stands in the books; what cannot be is refused in one sentence."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta

from yarrow_lane.books.account import Account
from yarrow_lane.books.terms import Terms
from yarrow_lane.lane.money import (
    Cancelled,
    CostKind,
    CostPaid,
    EntryStruck,
    Invoiced,
    InvoiceFor,
    Paid,
    PriceAgreed,
    Scope,
    Spent,
)
from yarrow_lane.measure.days import dated, day_text
from yarrow_lane.measure.money import MoneyTrouble, checked, money_text, rounded_share, tax_within

Lines = tuple[tuple[str, int], ...]


def _dated(on: date, not_before: date | None, today: date, what: str, before_what: str) -> None:
    if on > today:
        raise MoneyTrouble(f"{what} was not written", f"{day_text(on)} has not come yet", "write the day it happened")
    if not_before is not None and on < not_before:
        raise MoneyTrouble(
            f"{what} was not written", f"{day_text(on)} lies before {before_what}, {day_text(not_before)}", "look at the day"
        )


def deposit_of(price: int, terms: Terms) -> int:
    """The studio's usual share of the price."""
    return rounded_share(price, terms.deposit_bp, 10_000)


def agree(account: Account, price: int, deposit: int, terms: Terms, scope: Scope, now: datetime, why: str = "") -> PriceAgreed:
    """The client agreed. Raises `MoneyTrouble` for a deposit above the price, an unexplained change, a cancelled commission."""
    checked(price, "The price")
    checked(deposit, "The deposit")
    if deposit > price:
        raise MoneyTrouble("The price was not agreed", "its deposit is larger than the price", "write a smaller deposit")
    if account.cancelled is not None:
        raise MoneyTrouble("The price was not agreed", "the commission was cancelled", "start a new one")
    if account.agreed is not None and account.agreed.currency != terms.currency:
        raise MoneyTrouble(
            "The price was not changed", f"it was agreed in {account.agreed.currency}, the studio now reckons in {terms.currency}",
            "set the studio's currency back for this commission",
        )  # fmt: skip
    if account.agreed is not None and not why.strip():
        raise MoneyTrouble("The price was not changed", "nothing says why", "write what is to be painted otherwise")
    return PriceAgreed(now, price, deposit, terms.currency, scope, why.strip())


def next_invoice(account: Account, finished: bool) -> tuple[InvoiceFor, int] | None:
    """What is to be invoiced now and how much: the deposit before painting, a change as it comes, the balance when it is finished."""
    left = account.to_invoice
    if account.agreed is None or left == 0:
        return None
    if left < 0:
        return "credit", left
    if account.cancelled is not None:
        return "cancelling", left
    if account.deposit_to_invoice > 0:
        return "deposit", min(left, account.deposit_to_invoice)
    return ("balance", left) if finished else None


@dataclass(frozen=True)
class Parties:
    """Whom a paper goes to and who writes it, line by line."""

    to: tuple[str, ...] = ()
    sender: tuple[str, ...] = ()


def parties(client: str, address: str, painter: str, studio: str, terms: Terms) -> Parties:
    """As they stand on record today."""

    def lines(*texts: str) -> tuple[str, ...]:
        return tuple(line.strip() for text in texts for line in text.splitlines() if line.strip())

    number = f"Tax number {terms.tax_number}" if terms.tax_number.strip() else ""
    return Parties(lines(client, address), lines(studio, painter if painter != studio else "", terms.address, number))


def invoice(
    account: Account, what: InvoiceFor, amount: int, work: str, terms: Terms, between: Parties, on: date, now: datetime, number: int
) -> Invoiced:  # fmt: skip
    """An invoice over so much of the price, its tax within. Raises `MoneyTrouble` when the price does not hold it.

    A deposit or part names the work it is for; the balance names the price and takes off what was invoiced before, line by line.
    """
    agreed = account.agreed
    if agreed is None:
        raise MoneyTrouble("The invoice was not written", "no price is agreed", "write the quote and the answer to it first")
    checked(amount, "The invoice")
    if amount == 0 or amount > account.to_invoice:
        left = money_text(max(0, account.to_invoice), terms.money, terms.form)
        raise MoneyTrouble("The invoice was not written", f"{left} of the price is not invoiced yet", "write no more than that")
    _dated(on, agreed.at.date(), now.date(), "The invoice", "the price was agreed")
    words = {"deposit": "Deposit", "part": "Part payment", "cancelling": "Work done until it was cancelled"}
    if what == "balance" and account.invoices:
        before = tuple(
            (f"less {_named(i.invoice.what)}, invoice {i.invoice.number} of {dated(i.invoice.on)}", -(i.invoice.gross - i.credited))
            for i in account.invoices if i.invoice.gross - i.credited
        )  # fmt: skip
        changes = account.scope_changes()
        first = account.agreements[0].price
        asked, stood = [], first
        for change in changes:
            if change.price != stood:
                asked.append((f"Change: {change.why}", change.price - stood))
            stood = change.price
        lines: Lines = ((work, first), *asked, *before)
        unsaid = amount - sum(value for _, value in lines)
        if unsaid:
            lines = (*lines, ("to be invoiced later", unsaid))
    else:
        lines = ((work if what == "balance" else f"{words.get(what, 'Part')}: {work}", amount),)
    return _written(lines, amount, what, terms, between, on, now, number)


def _named(what: InvoiceFor) -> str:
    return {"part": "part payment", "cancelling": "work done"}.get(what, what)


def _written(
    lines: Lines, gross: int, what: InvoiceFor, terms: Terms, between: Parties, on: date, now: datetime, number: int, of: int = 0,
    rate: int | None = None,
) -> Invoiced:  # fmt: skip
    rate = terms.tax_bp if rate is None else rate
    tax = tax_within(gross, rate)
    due = on + timedelta(days=terms.pay_days) if gross > 0 else on
    return Invoiced(
        now, number, what, lines, gross - tax, tax, rate, gross, terms.currency, on, due, of, between.to, between.sender
    )


def credit_note(
    account: Account, of: int, amount: int, why: str, terms: Terms, on: date, now: datetime, number: int
) -> Invoiced:
    """Takes back so much of an invoice, at the rate of tax it was written with. Raises `MoneyTrouble`."""
    found = account.invoice(of)
    if found is None:
        raise MoneyTrouble("The credit note was not written", f"there is no invoice {of} here", "choose one of this commission")
    left = found.invoice.gross - found.credited
    if not 0 < amount <= left:
        raise MoneyTrouble(
            "The credit note was not written", f"{money_text(left, terms.money, terms.form)} of invoice {of} is not taken back yet",
            "write no more than that",
        )  # fmt: skip
    if not why.strip():
        raise MoneyTrouble("The credit note was not written", "nothing says why", "write why it is taken back")
    _dated(on, found.invoice.on, now.date(), "The credit note", f"invoice {of}")
    line = (f"Credit on invoice {of} of {dated(found.invoice.on)}: {why.strip()}", -amount)
    between = Parties(found.invoice.to, found.invoice.sender)
    return _written((line,), -amount, "credit", terms, between, on, now, number, of, found.invoice.rate_bp)


def credits_needed(account: Account) -> tuple[tuple[int, int], ...]:
    """Where more is invoiced than the price: (invoice, amount) to take back, the newest invoice first."""
    left, found = -account.to_invoice, []
    for i in reversed(account.invoices):
        take = min(left, i.invoice.gross - i.credited)
        if take > 0:
            found.append((i.invoice.number, take))
            left -= take
    return tuple(found)


def payment(
    account: Account, invoice_number: int, amount: int, on: date, how: str, now: datetime, number: int, sure: bool = False
) -> Paid:  # fmt: skip
    """Money came in for that invoice. Raises `MoneyTrouble`; the same amount on the same day counts as written twice unless `sure`."""
    found = account.invoice(invoice_number)
    if found is None:
        raise MoneyTrouble(
            "The payment was not written", f"there is no invoice {invoice_number} here", "choose one of this commission"
        )
    checked(amount, "The payment")
    if amount == 0:
        raise MoneyTrouble("The payment was not written", "it is nothing", "write what came in")
    agreed = account.agreements[0].at.date() if account.agreements else None
    _dated(on, agreed, now.date(), "The payment", "the price was agreed")
    twice = any(p.invoice == invoice_number and p.amount == amount and p.on == on for p in account.payments)
    if twice and not sure:
        raise MoneyTrouble(
            "The payment was not written", f"the same amount for invoice {invoice_number} is written for {day_text(on)} already",
            "if it really came twice, write it once more",
        )  # fmt: skip
    return Paid(now, number, invoice_number, amount, found.invoice.currency, on, how)


def pay_back(account: Account, amount: int, on: date, how: str, now: datetime, number: int) -> Paid:
    """Money goes back to the client; raises `MoneyTrouble` for more than the client has to have back."""
    due = max(0, -account.owed)
    checked(amount, "What goes back")
    if not account.invoices or not 0 < amount <= due:
        raise MoneyTrouble(
            "Nothing was paid back", "no more is owed to the client than came in too much", "write a credit note first"
        )
    target = min(account.invoices, key=lambda i: i.left)
    _dated(on, target.invoice.on, now.date(), "What goes back", "the invoice")
    return Paid(now, number, target.invoice.number, -amount, target.invoice.currency, on, how)


def cost(what: str, kind: CostKind, amount: int, terms: Terms, on: date, due: date | None, now: datetime, number: int) -> Spent:
    """The studio owes or paid something. Raises `MoneyTrouble` without words or amount."""
    if not what.strip():
        raise MoneyTrouble("The cost was not written", "it has no words", "write what it is for")
    checked(amount, "The cost")
    if amount == 0:
        raise MoneyTrouble("The cost was not written", "it is nothing", "write what it comes to")
    return Spent(now, number, what.strip(), kind, amount, terms.currency, on, due)


def cost_paid(account: Account, number: int, on: date, now: datetime) -> CostPaid:
    """A cost went out; raises `MoneyTrouble` when it did already, or is not known."""
    found = next((c for c in account.costs if c.spent.number == number), None)
    if found is None or found.paid_on is not None:
        raise MoneyTrouble(
            "The cost was not marked as paid", "it is paid or not on record" if found else f"there is no cost {number}"
        )
    return CostPaid(now, number, on)


def strike(account: Account, what: str, number: int, why: str, now: datetime) -> EntryStruck:
    """An entry was a mistake; raises `MoneyTrouble` without a reason or such an entry."""
    if not why.strip():
        raise MoneyTrouble("The entry was not struck out", "nothing says why", "write what was wrong with it")
    known: Sequence[int] = (
        [p.number for p in account.payments] if what == "payment" else [c.spent.number for c in account.costs]
    )
    if number not in known:
        raise MoneyTrouble("The entry was not struck out", f"there is no {what} {number} that counts", "choose one on record")
    return EntryStruck(now, "payment" if what == "payment" else "cost", number, why.strip())


def cancel(account: Account, kept: int, why: str, terms: Terms, now: datetime) -> Cancelled:
    """The commission ends before its end; `kept` is for the work done. Raises `MoneyTrouble` above the price or when it was before."""
    checked(kept, "What is kept")
    if account.agreed is None:
        raise MoneyTrouble("The commission was not cancelled", "no price is agreed, so nothing is owed", "put it away")
    if account.cancelled is not None:
        raise MoneyTrouble("The commission was not cancelled", "it was cancelled before")
    if kept > account.price:
        raise MoneyTrouble(
            "The commission was not cancelled", "more would be kept than the price", "write no more than the price"
        )
    return Cancelled(now, kept, terms.currency, why.strip())
