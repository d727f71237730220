"""What a commission's money asks for today: one act, the same wherever it is shown."""

from dataclasses import dataclass
from datetime import date, timedelta
from typing import Literal

from yarrow_lane.books.account import Account
from yarrow_lane.books.entering import credits_needed, next_invoice
from yarrow_lane.lane.money import InvoiceFor

AskKind = Literal["quote", "answer", "invoice", "credit", "remind", "await", "pay back", "nothing"]
REMIND_AGAIN_DAYS = 10  # our choice: between two letters about the same invoice


@dataclass(frozen=True)
class Ask:
    """What is to be done and about how much; `invoice` the paper it is about, `what` of an invoice to write."""

    kind: AskKind
    amount: int = 0
    invoice: int = 0
    what: InvoiceFor = "balance"
    days_late: int = 0
    level: int = 0


def ask_of(account: Account, finished: bool, today: date) -> Ask:
    """The most pressing thing: what is late, then what may be asked for, then what is awaited."""
    if account.cancelled is None and account.agreed is None:
        return Ask("answer", account.quotes[-1].price) if account.quotes else Ask("quote")
    needed = credits_needed(account)
    if needed:
        return Ask("credit", needed[0][1], needed[0][0], "credit")
    late = [i for i in account.open_invoices() if i.days_late(today) > 0]
    for i in sorted(late, key=lambda i: i.invoice.due):
        if today >= i.invoice.due + timedelta(days=1 + REMIND_AGAIN_DAYS * i.reminded):
            return Ask("remind", i.left, i.invoice.number, i.invoice.what, i.days_late(today), i.reminded + 1)
    asked = next_invoice(account, finished)
    if asked is not None:
        return Ask("invoice", asked[1], 0, asked[0])
    if account.owed < 0:
        return Ask("pay back", -account.owed)
    waiting = account.open_invoices()
    if waiting:
        return Ask("await", waiting[0].left, waiting[0].invoice.number, waiting[0].invoice.what, waiting[0].days_late(today))
    return Ask("nothing")


@dataclass(frozen=True)
class Drawer:
    """Money against paint: come in for what is not painted yet, and painted for what has not come in."""

    ahead: int = 0
    behind: int = 0


def drawer_of(account: Account, share_painted: float) -> Drawer:
    """Of one commission; `share_painted` 0 to 1 of its hours."""
    done = round(account.price * min(1.0, max(0.0, share_painted)))
    return Drawer(max(0, account.paid - done), max(0, done - account.paid))
