"""Money in whole smallest units of a currency (cents), never in fractions: read, written, rounded, taxed."""

import re
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal, InvalidOperation
from typing import Literal

from yarrow_lane.measure.trouble import Trouble

MOST = 10**12  # our choice, in smallest units: nothing a painter is paid comes near; a slip of the hand does
WHOLE_BP = 10_000  # a hundred per cent in basis points

NumberForm = Literal["1,234.50", "1.234,50", "1 234,50", "1'234.50"]
NUMBER_FORMS: tuple[NumberForm, ...] = ("1,234.50", "1.234,50", "1 234,50", "1'234.50")
_THIN, _NARROW = "\u2009", "\u202f"
_MARKS: dict[NumberForm, tuple[str, str]] = {
    "1,234.50": (",", "."),
    "1.234,50": (".", ","),
    "1 234,50": (_NARROW, ","),
    "1'234.50": ("’", "."),
}


class MoneyTrouble(Trouble):
    """An amount that cannot be."""


@dataclass(frozen=True)
class Currency:
    """Its code, sign, and how many digits its smallest unit stands behind the mark."""

    code: str
    sign: str
    digits: int

    @property
    def unit(self) -> int:
        """Smallest units in one."""
        return int(10**self.digits)


# Codes and minor units: ISO 4217:2015, table A.1 (from memory); the signs are common practice.
CURRENCIES: tuple[Currency, ...] = (
    Currency("EUR", "€", 2),
    Currency("GBP", "£", 2),
    Currency("USD", "$", 2),
    Currency("CHF", "CHF", 2),
    Currency("AUD", "A$", 2),
    Currency("CAD", "C$", 2),
    Currency("NZD", "NZ$", 2),
    Currency("SEK", "kr", 2),
    Currency("NOK", "kr", 2),
    Currency("DKK", "kr", 2),
    Currency("PLN", "zł", 2),
    Currency("CZK", "Kč", 2),
    Currency("JPY", "¥", 0),
    Currency("KRW", "₩", 0),
    Currency("KWD", "KD", 3),
)
_BY_CODE = {c.code: c for c in CURRENCIES}


def currency_of(code: str) -> Currency:
    """Raises `MoneyTrouble` for a code that is not known here."""
    if code not in _BY_CODE:
        raise MoneyTrouble(f"The currency “{code}” is not known", "it is not among those of this program", "choose another")
    return _BY_CODE[code]


def checked(amount: int, what: str = "The amount") -> int:
    """The amount itself; raises `MoneyTrouble` below nothing and above `MOST`."""
    if amount < 0:
        raise MoneyTrouble(f"{what} was not taken", "it is less than nothing", "write it without the minus")
    if amount > MOST:
        raise MoneyTrouble(f"{what} was not taken", "it is larger than any painting costs", "look at its noughts")
    return amount


def rounded_share(amount: int, part: int, whole: int) -> int:
    """`amount` x `part` / `whole` in whole units, halves away from nothing (common practice of trade); exact, without floats."""
    if whole <= 0:
        raise MoneyTrouble("The share was not worked out", "its whole is nothing")
    product = amount * part
    sign = -1 if product < 0 else 1
    return sign * ((2 * abs(product) + whole) // (2 * whole))


def tax_on(net: int, rate_bp: int) -> int:
    """The tax that is added to `net` at a rate in basis points."""
    return rounded_share(net, rate_bp, WHOLE_BP)


def tax_within(gross: int, rate_bp: int) -> int:
    """The tax that lies in `gross` at a rate in basis points."""
    return rounded_share(gross, rate_bp, WHOLE_BP + rate_bp)


def rounded_up(amount: int, step: int) -> int:
    """Up to the next whole step: prices end round."""
    return -(-amount // step) * step


def decimal_of(amount: int, currency: Currency) -> Decimal:
    """The amount in the currency itself, exact."""
    return Decimal(amount).scaleb(-currency.digits)


def number_text(amount: int, currency: Currency, form: NumberForm = "1,234.50") -> str:
    """Digits alone, always with the smallest unit: for papers and columns."""
    group, mark = _MARKS[form]
    text = f"{decimal_of(abs(amount), currency):,.{currency.digits}f}"
    text = text.replace(",", "\0").replace(".", mark).replace("\0", group)
    return ("−" if amount < 0 else "") + text


def money_text(amount: int, currency: Currency, form: NumberForm = "1,234.50") -> str:
    """With its sign, without noughts behind the mark: as the interface says it."""
    text = number_text(amount, currency, form)
    mark = _MARKS[form][1]
    if currency.digits and text.endswith(mark + "0" * currency.digits):
        text = text[: -currency.digits - 1]
    minus = "−" if text.startswith("−") else ""
    return f"{minus}{currency.sign}{_THIN}{text.removeprefix('−')}"


def about_text(amount: int, currency: Currency, form: NumberForm = "1,234.50") -> str:
    """In whole units: for what is reckoned, not entered."""
    return money_text(rounded_share(amount, 1, currency.unit) * currency.unit, currency, form)


def paper_text(amount: int, currency: Currency, form: NumberForm = "1,234.50") -> str:
    """With its code and every digit: as papers say it."""
    return f"{number_text(amount, currency, form)}\u00a0{currency.code}"


def read_money(text: str, currency: Currency, what: str = "The amount") -> int:
    """Understand what was written: "£ 1,240", "1.240,50", "12 500", "240". Raises `MoneyTrouble`.

    The last point or comma with fewer than three digits behind it is the mark; one with three is a group, except where the currency
    itself has three digits and it is the only one or of another kind than the one before.
    """
    plain = re.sub(rf"[\s{_THIN}{_NARROW}\u00a0’']", "", text.strip()).removeprefix(currency.sign).removesuffix(currency.sign)
    plain = plain.removeprefix(currency.code).removesuffix(currency.code).replace("−", "-")
    if not plain:
        raise MoneyTrouble(f"{what} was not taken", "no number is written", "write it in figures, such as 240")
    found = re.fullmatch(r"(-?)([0-9]+(?:[.,][0-9]{3})*|[0-9]+)(?:([.,])([0-9]+))?", plain)
    if found is None:
        raise MoneyTrouble(f"{what} was not taken", f"“{text.strip()}” is no amount", "write it in figures, such as 240")
    whole, mark, behind = re.sub(r"[.,]", "", found[2]), found[3], found[4] or ""
    if mark and len(behind) > currency.digits:
        raise MoneyTrouble(
            f"{what} was not taken", f"“{text.strip()}” has more digits behind the mark than {currency.code} has", "write whole units"
        )  # fmt: skip
    last = re.search(r"[.,]([0-9]{3})$", found[2])
    marks = re.findall(r"[.,]", found[2])
    if not mark and currency.digits == 3 and last and (len(marks) == 1 or marks[-1] != marks[-2]):
        whole, behind = whole[:-3], last[1]
    try:
        value = Decimal(f"{found[1]}{whole}.{behind or 0}")
    except InvalidOperation as error:  # too many digits even for a decimal
        raise MoneyTrouble(f"{what} was not taken", f"“{text.strip()}” is no amount") from error
    return checked(int(value.scaleb(currency.digits).to_integral_value(ROUND_HALF_UP)), what)


def percent_text(rate_bp: int) -> str:
    """ "19 %", "7.7 %"."""
    text = f"{Decimal(rate_bp) / 100:.2f}".rstrip("0").rstrip(".")
    return f"{text}{_NARROW}%"
