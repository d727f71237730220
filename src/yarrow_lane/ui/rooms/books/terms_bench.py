"""The studio's terms on the bench: hour, profit, deposit, tax, what materials cost, and who signs the papers."""

from collections.abc import Callable
from dataclasses import replace
from functools import partial
from typing import Protocol

from yarrow_lane.books.terms import LEAST_DEPOSIT_BP, MOST_DEPOSIT_BP, Terms, with_amount, with_currency, with_rate
from yarrow_lane.commission.studio import Studio
from yarrow_lane.measure.money import CURRENCIES, NUMBER_FORMS, money_text, read_money
from yarrow_lane.ui.bench_sheet import Amount, BenchSheet, Field, Line, NextAct, Note, Pick, Section, plain_options
from yarrow_lane.ui.rooms.books.bench import TAX_NOTE

_HOUR = (("rate", "Wanted for an hour"), ("floor", "Not under, an hour"), ("round_to", "Prices end on steps of"))
_COSTS = (
    ("canvas_m2", "A square metre of canvas"), ("paint_m2", "Paint for a square metre"), ("frame_m", "A metre of frame"),
    ("parcel_base", "Any parcel"), ("parcel_kg", "And a kilogram of it"),
)  # fmt: skip


class Hands(Protocol):
    """What the page does for the terms."""

    def set_terms(self, label: str, step: Callable[[Terms], Terms]) -> None: ...
    def back_to_money(self) -> None: ...


def terms_bench(studio: Studio, hands: Hands) -> BenchSheet:
    """Everything the studio's prices and papers rest on."""
    t = studio.terms

    def money(name: str, label: str) -> Field:
        def write(text: str) -> None:
            amount = read_money(text, t.money, label)
            hands.set_terms(f"Set: {label.lower()}", lambda x: with_amount(x, name, amount))

        return Field(label, money_text(getattr(t, name), t.money, t.form), write, about=(t.currency, t.form))

    def rate(name: str, value: float) -> None:
        hands.set_terms("Set a rate", lambda x: with_rate(x, name, round(value * 100)))

    def words(name: str, text: str) -> None:
        hands.set_terms("Wrote what stands on papers", lambda x: replace(x, **{name: text.strip()}))  # type: ignore[arg-type]

    deposit: tuple[Line, ...] = ()
    if not LEAST_DEPOSIT_BP <= t.deposit_bp <= MOST_DEPOSIT_BP:
        deposit = (Note("Common practice is 30 to 50 % before painting."),)
    sections = (
        Section("An hour", tuple(money(name, label) for name, label in _HOUR)),
        Section(
            "In hundred",
            (
                Amount("Profit", t.profit_bp / 100, 0, 100, partial(rate, "profit_bp"), 1, 2, "%"),
                Amount("Deposit", t.deposit_bp / 100, 0, 100, partial(rate, "deposit_bp"), 5, 2, "%"),
                *deposit,
                Amount("Tax in the price", t.tax_bp / 100, 0, 100, partial(rate, "tax_bp"), 1, 2, "%"),
                Note(TAX_NOTE),
            ),
        ),
        Section("What goes to others", (*(money(name, label) for name, label in _COSTS), Note("First values are our guesses: write in what you pay."))),
        Section(
            "On papers",
            (
                Pick("Currency", t.currency, tuple((c.code, f"{c.code} {c.sign}") for c in CURRENCIES),
                     lambda v: hands.set_terms("Chose the currency", lambda x: with_currency(x, v))),
                Pick("Numbers as", t.form, plain_options(NUMBER_FORMS), lambda v: hands.set_terms("Chose how numbers are written", lambda x: replace(x, form=v))),
                Amount("Days to pay", t.pay_days, 0, 120, lambda v: hands.set_terms("Set the days to pay", lambda x: replace(x, pay_days=int(v))), 1, 0, "days"),
                Field("Your address", t.address, partial(words, "address"), long=True),
                Field("Your tax number", t.tax_number, partial(words, "tax_number")),
                Field("Where to pay", t.bank, partial(words, "bank"), "bank and account", long=True),
            ),
        ),
    )  # fmt: skip
    return BenchSheet(sections, NextAct("Back to the money", "the quote follows at once", hands.back_to_money))
