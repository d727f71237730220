"""The ledger for the accountant: CSV as RFC 4180 has it (comma, CRLF, quotes doubled), UTF-8 with a mark for spreadsheets."""

import csv
import io
from collections.abc import Iterable, Mapping

from yarrow_lane.books.ledger import Posting
from yarrow_lane.measure.money import currency_of, decimal_of

HEAD = ("date", "commission", "paper", "words", "account", "debit", "credit", "currency")


def _safe(text: str) -> str:
    """Words that a spreadsheet would take for a formula begin with a quote mark."""
    return f"'{text}" if text[:1] in ("=", "+", "-", "@", "\t", "\r") else text


def ledger_csv(entries: Iterable[Posting], titles: Mapping[str, str]) -> bytes:
    """A row a posting, oldest first; amounts with a point and all their digits whatever the studio's own number form is."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(HEAD)
    for p in sorted(entries, key=lambda p: p.on):
        amount = f"{decimal_of(abs(p.amount), currency_of(p.currency)):f}"
        debit, credit = (amount, "") if p.amount > 0 else ("", amount)
        title = _safe(titles.get(p.about, p.about))
        writer.writerow((p.on.isoformat(), title, p.paper, _safe(p.words), p.account, debit, credit, p.currency))
    return b"\xef\xbb\xbf" + out.getvalue().encode()
