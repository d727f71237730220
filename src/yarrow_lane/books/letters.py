"""Letters about money: the quote, an invoice, a reminder, a credit, a receipt, an end before the end. The painter may change every word."""

from dataclasses import dataclass
from datetime import date

from yarrow_lane.books.account import InvoiceStanding
from yarrow_lane.books.quote import HOURS, Quote
from yarrow_lane.books.terms import Terms
from yarrow_lane.lane.money import Invoiced, Paid, Scope
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.lengths import Unit, size_text
from yarrow_lane.measure.money import money_text


@dataclass(frozen=True)
class Written:
    """A letter's subject and text."""

    subject: str
    text: str


def work_words(title: str, scope: Scope, unit: Unit) -> str:
    """ "Portrait of Quill, 24 × 30 cm, acrylic, framed"."""
    framed = ", framed" if scope.framed else ""
    return f"Portrait of {title}, {size_text(scope.width_mm, scope.height_mm, unit)}, {scope.medium}{framed}"


def _letter(client: str, painter: str, *paragraphs: str) -> str:
    body = "\n\n".join(p for p in paragraphs if p)
    return f"Dear {client or 'client'},\n\n{body}\n\nWith kind regards\n{painter}".rstrip()


def quote_letter(
    client: str, painter: str, title: str, q: Quote, deposit: int, likely: date | None, terms: Terms, unit: Unit
) -> Written:
    """The offer: what is painted, what it costs and what lies in it, the deposit, by when."""

    def said(amount: int) -> str:
        return money_text(amount, terms.money, terms.form)

    hours = sum(q.part(name).minutes for name in HOURS) / 60
    inside = [f"about {hours:.0f} hours of painting"] + [
        name for name in ("materials", "frame", "parcel") if q.part(name).amount
    ]  # fmt: skip
    tax = f" It contains tax of {said(q.part('tax').amount)}." if q.part("tax").amount else ""
    what = f"Thank you for asking. I would gladly paint it: {work_words(title, q.scope, unit)}."
    price = f"The price is {said(q.price)}. In it are {', '.join(inside[:-1])} and {inside[-1]}.{tax}"
    pay = f"Painting begins when a deposit of {said(deposit)} is here; the balance of {said(q.price - deposit)} is due before it leaves."
    when = f"It would be with you about {day_text(likely)}; I promise a day when we agree." if likely is not None else ""
    change = "If you wish for more later, another sitter or a larger canvas, I will tell you what it adds before I paint it."
    return Written(f"A portrait of {title}", _letter(client, painter, what, price, pay, when, change))


def invoice_letter(client: str, painter: str, title: str, i: Invoiced, terms: Terms) -> Written:
    """The letter an invoice goes with."""
    amount = money_text(i.gross, terms.money, terms.form)
    why = {
        "deposit": "before I begin to paint", "balance": "the portrait is finished", "part": "as we agreed",
        "cancelling": "for the work done until it was cancelled", "credit": "",
    }[i.what]  # fmt: skip
    said = f"With this comes invoice {i.number} over {amount}: {why}. Please pay it by {day_text(i.due)}."
    leave = "It leaves the studio when it is paid." if i.what == "balance" else ""
    return Written(f"{title}: invoice {i.number}", _letter(client, painter, said, leave))


def credit_letter(client: str, painter: str, title: str, i: Invoiced, terms: Terms) -> Written:
    """The letter a credit note goes with."""
    amount = money_text(-i.gross, terms.money, terms.form)
    said = f"With this comes credit note {i.number} over {amount} on invoice {i.of}. What you paid too much goes back to you."
    return Written(f"{title}: credit note {i.number}", _letter(client, painter, said))


def reminder_letter(
    client: str, painter: str, title: str, i: InvoiceStanding, level: int, today: date, terms: Terms
) -> Written:
    """The first asks kindly, the second plainly, the third says that the portrait waits."""
    amount = money_text(i.left, terms.money, terms.form)
    late = i.days_late(today)
    about = f"invoice {i.invoice.number} of {day_text(i.invoice.on)}, of which {amount} is open"
    texts = {
        1: f"Perhaps it slipped by: {about}. It was due on {day_text(i.invoice.due)}. If it crossed with this letter, please forget it.",
        2: f"I wrote to you about {about}. It is {late} days late. Please pay it in the coming week, or tell me what stands in the way.",
    }
    last = f"This is about {about}, now {late} days late. Until it is paid I cannot go on with the portrait or let it leave. Please write to me."
    subject = f"{title}: invoice {i.invoice.number}" + (f", letter {level}" if level > 1 else "")
    return Written(subject, _letter(client, painter, texts.get(level, last)))


def receipt_letter(client: str, painter: str, title: str, p: Paid, left: int, terms: Terms) -> Written:
    """Thanks for what came in."""
    amount = money_text(p.amount, terms.money, terms.form)
    open_ = f" {money_text(left, terms.money, terms.form)} of that invoice is still open." if left > 0 else ""
    return Written(
        f"{title}: receipt {p.number}", _letter(client, painter, f"Thank you: {amount} came in on {day_text(p.on)}.{open_}")
    )


def cancelled_letter(client: str, painter: str, title: str, kept: int, paid: int, terms: Terms) -> Written:
    """The commission ends; what was done is paid, the rest goes back."""

    def said(amount: int) -> str:
        return money_text(amount, terms.money, terms.form)

    done = f"The work done until now comes to {said(kept)}." if kept else "Nothing is to be paid for it."
    money = (
        f"You paid {said(paid)}; {said(paid - kept)} goes back to you." if paid > kept
        else f"You paid {said(paid)}; {said(kept - paid)} is still open." if paid < kept
        else "What you paid covers it." if paid else ""
    )  # fmt: skip
    return Written(
        f"{title}: cancelled",
        _letter(client, painter, f"We agreed that {title} will not be painted to its end. {done} {money}".rstrip()),
    )
