"""The year on one sheet: months, kinds, as they are printed under each other."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from yarrow_lane.books.ledger import Earned, Month, together
from yarrow_lane.books.terms import Terms
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.measure.money import money_text

MONTH_HEAD = ("", "came in", "went out", "invoiced", "tax in it")
KIND_HEAD = ("", "pieces", "hours", "without tax", "costs", "an hour")


@dataclass(frozen=True)
class YearShown:
    """Rows of words; `bars` are what came in and went out, for their lengths. The last row of each is the sum."""

    year: int
    months: tuple[tuple[str, ...], ...]
    bars: tuple[tuple[int, int], ...]
    kinds: tuple[tuple[str, ...], ...]
    now: int


def year_shown(year: int, months: Sequence[Month], kinds: Sequence[Earned], terms: Terms, month_now: int) -> YearShown:
    """`month_now` is 1 to 12 in the present year, 12 in an earlier one."""

    def said(amount: int) -> str:
        return money_text(amount, terms.money, terms.form) if amount else "–"

    rows = [(f"{m.first:%B}", said(m.came), said(m.went), said(m.invoiced + m.tax), said(m.tax)) for m in months]
    sums = [sum(getattr(m, name) for m in months) for name in ("came", "went", "invoiced", "tax")]
    rows.append(("The year", said(sums[0]), said(sums[1]), said(sums[2] + sums[3]), said(sums[3])))
    told = [_kind(e, said) for e in kinds]
    if len(kinds) > 1:
        told.append(_kind(together(kinds), said))
    return YearShown(year, tuple(rows), tuple((m.came, m.went) for m in months), tuple(told), month_now)


def _kind(e: Earned, said: Callable[[int], str]) -> tuple[str, ...]:
    hour = said(e.an_hour) if e.an_hour is not None else "no hours"
    return e.kind, str(e.pieces), hours_text(e.minutes), said(e.net), said(e.costs), hour
