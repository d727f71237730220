"""Invoice, credit note and receipt."""

from yarrow_lane.documents.page_style import Block, Facts, Paper, Sums, Words
from yarrow_lane.lane.money import Invoiced, Paid
from yarrow_lane.measure.days import dated
from yarrow_lane.measure.money import NumberForm, currency_of, number_text, paper_text, percent_text


def invoice_name(i: Invoiced) -> str:
    """ "Invoice 7", "Credit note 8"."""
    return f"Credit note {i.number}" if i.of else f"Invoice {i.number}"


def invoice_paper(i: Invoiced, title: str, bank: str = "", form: NumberForm = "1,234.50") -> Paper:
    """The paper of an invoice or credit note as it was written; `title` is the commission's, `bank` where to pay."""
    currency = currency_of(i.currency)
    lines = tuple((words, number_text(amount, currency, form)) for words, amount in i.lines)
    totals: list[tuple[str, str]] = []
    if i.rate_bp:
        totals = [
            ("net", number_text(i.net, currency, form)),
            (f"tax {percent_text(i.rate_bp)}", number_text(i.tax, currency, form)),
        ]
    due = "to your credit" if i.of else f"to pay by {dated(i.due)}"
    totals.append((due, paper_text(i.gross, currency, form)))
    blocks: list[Block] = [Sums(lines, tuple(totals))]
    if i.of:
        blocks.append(Words(f"It takes back part or all of invoice {i.of}; what was paid too much goes back to you."))
    elif bank.strip():
        blocks.append(Facts((("Please pay to", bank.strip()), ("With the words", f"Invoice {i.number}, {title}"))))
    right = (
        (("No.", str(i.number)), ("of", dated(i.on)), ("for", title))
        if not i.of
        else (("No.", str(i.number)), ("of", dated(i.on)))
    )
    name = i.sender[0] if i.sender else ""
    return Paper(invoice_name(i), tuple(blocks), i.sender, i.to, right, title, name, i.at, name)


def receipt_paper(p: Paid, i: Invoiced, title: str, left: int, form: NumberForm = "1,234.50") -> Paper:
    """For money that came in (or went back); `left` is what of that invoice is still to pay after it."""
    currency = currency_of(p.currency)
    went = "Paid back" if p.amount < 0 else "Received with thanks"
    rows = [
        (went, paper_text(abs(p.amount), currency, form)),
        ("on", dated(p.on)),
        ("how", p.how),
        ("for", f"{invoice_name(i)} of {dated(i.on)}, {title}"),
    ]
    if left > 0:
        rows.append(("still to pay of it", paper_text(left, currency, form)))
    elif p.amount > 0:
        rows.append(("still to pay of it", "nothing"))
    name = i.sender[0] if i.sender else ""
    right = (("No.", str(p.number)), ("of", dated(p.on)))
    return Paper(f"Receipt {p.number}", (Facts(tuple(rows)),), i.sender, i.to, right, title, name, p.at, name)
