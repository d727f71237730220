"""A quote as it is shown and pulled: parts as lengths, the price at their end, and what the last ones came to."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from yarrow_lane.books.account import Account
from yarrow_lane.books.ledger import Earned
from yarrow_lane.books.quote import HOURS, PartName, Quote
from yarrow_lane.books.terms import Terms
from yarrow_lane.commission.standing import CommissionStanding
from yarrow_lane.compose.composition import Compose
from yarrow_lane.measure.lengths import Unit, hours_text, size_text
from yarrow_lane.measure.money import about_text, money_text

_LIKE_SHARE = 0.35  # our choice: of the area, within which a piece counts as of this size
_LAST = 3


@dataclass(frozen=True)
class Segment:
    """One part: its words, amount, and how it is said."""

    name: PartName
    amount: int
    words: str
    detail: str
    of_hours: bool
    pulled: bool


@dataclass(frozen=True)
class QuoteShown:
    """The bar: `scale_to` is where its axis ends, `marks` its steps, `lasts` what the last ones of this size were priced at."""

    title: str
    compose: Compose
    width_mm: float
    height_mm: float
    size_words: str
    segments: tuple[Segment, ...]
    price: int
    price_words: str
    hour_words: str
    under: bool
    hours_words: str
    scale_to: int
    marks: tuple[tuple[int, str], ...]
    lasts: tuple[int, ...]
    others: tuple[tuple[str, str], ...]
    step: int
    fixed: bool


def _step(price: int, unit: int) -> int:
    """A round step of the axis: 1, 2, 5 or 10 of some power, so that about seven fit."""
    wanted = max(unit, price / 7)
    size = unit
    while size * 10 <= wanted:
        size *= 10
    return next(size * n for n in (1, 2, 5, 10) if size * n >= wanted)


def quote_shown(
    title: str, compose: Compose, q: Quote, terms: Terms, unit: Unit, lasts: Sequence[int], others: Mapping[tuple[float, float], Quote],
    agreed: int = -1,
) -> QuoteShown:  # fmt: skip
    """Work the bar out; what was agreed (-1: nothing yet) is looked at, no more pulled."""

    def said(amount: int) -> str:
        return about_text(amount, terms.money, terms.form)

    segments = tuple(
        Segment(p.name, p.amount, p.name, f"{said(p.amount)}" + (f" · {hours_text(p.minutes)}" if p.name in HOURS else ""), p.name in HOURS, p.pulled)
        for p in q.parts
    )  # fmt: skip
    top = max([q.price, *lasts, sum(max(0, s.amount) for s in segments)]) * 1.12
    step = _step(round(top), terms.money.unit)
    end = -(-round(top) // step) * step
    marks = tuple((n, said(n)) for n in range(0, end + 1, step))
    hour = q.an_hour
    work = sum(q.part(name).amount for name in HOURS)
    head = f"A quote for {title}" if agreed < 0 else f"{title} was agreed at {said(agreed)}; reckoned today it is"
    return QuoteShown(
        head, compose, q.scope.width_mm, q.scope.height_mm, size_text(q.scope.width_mm, q.scope.height_mm, unit), segments, q.price,
        said(q.price), f"{said(hour)} an hour" if hour is not None else "", q.under(terms),
        f"{hours_text(q.minutes)} at your own pace, {said(terms.rate)} an hour: {said(work)}", end, marks, tuple(lasts),
        tuple((size_text(w, h, unit), said(other.price)) for (w, h), other in others.items()), max(1, terms.round_to // 2), agreed >= 0,
    )  # fmt: skip


def last_prices(
    standings: Sequence[CommissionStanding],
    accounts: Mapping[str, Account],
    width_mm: float,
    height_mm: float,
    currency: str,
    but: str,
) -> tuple[int, ...]:
    """What the last pieces of about this size were agreed at, the newest last."""
    area = width_mm * height_mm
    found = []
    for s in standings:
        a = accounts.get(s.id)
        if s.id == but or a is None or a.agreed is None or a.agreed.currency != currency or a.cancelled is not None:
            continue
        own = a.agreed.scope.width_mm * a.agreed.scope.height_mm or s.compose.width_mm * s.compose.height_mm
        if own and abs(own - area) <= _LIKE_SHARE * area:
            found.append((a.agreed.at, a.price))
    return tuple(price for _, price in sorted(found)[-_LAST:])


@dataclass(frozen=True)
class EarnedDot:
    """A kind on the scale of earnings: how much an hour, how many works, and one of them to show."""

    kind: str
    an_hour: int
    words: str
    works: str
    compose: Compose | None
    under: bool


@dataclass(frozen=True)
class EarnedShown:
    """The scale: its ends, where the floor lies, its marks and the kinds on it."""

    low: int
    high: int
    floor: int
    floor_words: str
    marks: tuple[tuple[int, str], ...]
    dots: tuple[EarnedDot, ...]
    empty: str = ""


def earned_shown(rows: Sequence[Earned], terms: Terms, shown: Mapping[str, Compose]) -> EarnedShown:
    """Kinds by what they brought for an hour; none while nothing is delivered with its hours."""
    known = [(e, e.an_hour) for e in rows if e.an_hour is not None and e.net]
    floor = f"red: under {money_text(terms.floor, terms.money, terms.form)}"
    if not known:
        return EarnedShown(0, 1, terms.floor, floor, (), (), "nothing delivered yet with its hours and its money")
    values = [hour for _, hour in known if hour is not None]
    low, high = min([*values, terms.floor]), max([*values, terms.floor])
    room = max(terms.money.unit, (high - low) * 0.15)
    step = _step(round((high - low + 2 * room) * 1.6), terms.money.unit)
    low, high = int((low - room) // step * step), int(-(-(high + room) // step) * step)
    dots = tuple(
        EarnedDot(e.kind, hour, money_text(round(hour / terms.money.unit) * terms.money.unit, terms.money, terms.form),
                  f"{e.pieces} work{'s' * (e.pieces != 1)}", shown.get(e.kind), hour < terms.floor)
        for e, hour in known if hour is not None
    )  # fmt: skip
    marks = tuple((n, money_text(n, terms.money, terms.form)) for n in range(low, high + 1, step))
    return EarnedShown(low, high, terms.floor, floor, marks, dots)
