"""How the studio prices, is paid and signs its papers."""

from dataclasses import dataclass, fields, replace
from typing import Any

from yarrow_lane.measure.money import WHOLE_BP, Currency, MoneyTrouble, NumberForm, checked, currency_of, rounded_up

LEAST_DEPOSIT_BP, MOST_DEPOSIT_BP = 3000, 5000  # common practice: 30 to 50 % before painting


@dataclass(frozen=True)
class Terms:
    """Amounts are whole smallest units of `currency`; rates in basis points.

    All amounts are first values of our choice until the painter sets them, but the deposit, which common practice puts between 30 and
    50 %. `rate` is wanted for an hour, under `floor` an hour the studio does not want to work. `canvas_m2` is a stretched canvas,
    `paint_m2` paint over all coats, `frame_m` a metre of frame and `parcel_kg` a kilogram of parcel, with `parcel_base` for any.
    """

    currency: str = "EUR"
    form: NumberForm = "1,234.50"
    rate: int = 26_00
    floor: int = 20_00
    profit_bp: int = 1000
    deposit_bp: int = 4000
    tax_bp: int = 0
    pay_days: int = 14
    round_to: int = 10_00
    canvas_m2: int = 90_00
    paint_m2: int = 110_00
    frame_m: int = 42_00
    parcel_base: int = 12_00
    parcel_kg: int = 2_50
    address: str = ""
    tax_number: str = ""
    bank: str = ""

    @property
    def money(self) -> Currency:
        """The currency itself."""
        return currency_of(self.currency)


_AMOUNTS = ("rate", "floor", "round_to", "canvas_m2", "paint_m2", "frame_m", "parcel_base", "parcel_kg")
_LABELS = {
    "rate": "The price of an hour",
    "floor": "The least for an hour",
    "round_to": "The step prices end on",
    "canvas_m2": "The price of canvas",
    "paint_m2": "The price of paint",
    "frame_m": "The price of frame",
    "parcel_base": "The price of a parcel",
    "parcel_kg": "The price of a kilogram of parcel",
}


def with_currency(terms: Terms, code: str) -> Terms:
    """Prices in another currency: the same figures, no exchange (the painter sets them anew); whole units where it has no cents."""
    before, now = terms.money, currency_of(code)

    def as_written(amount: int) -> int:
        return rounded_up(amount * now.unit, before.unit) // before.unit

    changed: dict[str, Any] = {name: as_written(getattr(terms, name)) for name in _AMOUNTS}
    return replace(terms, currency=code, **changed)


def with_amount(terms: Terms, name: str, amount: int) -> Terms:
    """One of the studio's amounts; raises `MoneyTrouble` for what cannot be."""
    assert name in _AMOUNTS
    checked(amount, _LABELS[name])
    if name == "round_to" and amount == 0:
        raise MoneyTrouble("The step prices end on was not taken", "it is nothing", "write at least the smallest coin")
    return replace(terms, **{name: amount})  # type: ignore[arg-type]


def with_rate(terms: Terms, name: str, rate_bp: int) -> Terms:
    """Tax, deposit or profit in basis points; raises `MoneyTrouble` outside 0 to 100 %."""
    assert name in {f.name for f in fields(Terms)} and name.endswith("_bp")
    if not 0 <= rate_bp <= WHOLE_BP:
        what = {"tax_bp": "tax", "deposit_bp": "deposit", "profit_bp": "profit"}[name]
        raise MoneyTrouble(f"The rate of {what} was not taken", f"{rate_bp / 100:g} % is outside 0 to 100 %", "write it anew")
    return replace(terms, **{name: rate_bp})  # type: ignore[arg-type]
