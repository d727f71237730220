"""What a portrait is to cost: hours at the painter's own pace, materials, frame, parcel, profit, tax, rounded; every part can be pulled."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Literal

from yarrow_lane.books.terms import Terms
from yarrow_lane.compose.sides import Sides, outer
from yarrow_lane.deliver.parcel import parcel_of
from yarrow_lane.lane.money import Scope
from yarrow_lane.measure.money import MoneyTrouble, checked, rounded_share, rounded_up, tax_on, tax_within

PartName = Literal[
    "background", "coat and skin", "face, eyes", "drawing to varnish", "materials", "frame", "parcel", "profit", "tax"
]
HOURS: tuple[PartName, ...] = ("background", "coat and skin", "face, eyes", "drawing to varnish")
PARTS: tuple[PartName, ...] = (*HOURS, "materials", "frame", "parcel", "profit", "tax")
_OUTLAY: tuple[PartName, ...] = ("materials", "frame", "parcel", "tax")
_GROUND = ("background", "scene")
_FACE = ("eye", "nose", "mouth", "whiskers", "earskin")


def part_of_family(family: str) -> PartName:
    """Which hours a kind of area belongs to; work without a kind (drawing, mixing, signing, varnish) is its own."""
    if not family:
        return "drawing to varnish"
    return "background" if family in _GROUND else "face, eyes" if family in _FACE else "coat and skin"


@dataclass(frozen=True)
class QuotePart:
    """One part of the price; `minutes` for hours, `pulled` when the painter set it against what is reckoned."""

    name: PartName
    amount: int
    minutes: float = 0.0
    pulled: bool = False


@dataclass(frozen=True)
class Pulled:
    """What the painter pulled: parts by name, and the price itself (-1: as reckoned)."""

    parts: tuple[tuple[PartName, int], ...] = ()
    price: int = -1


AS_RECKONED = Pulled()


@dataclass(frozen=True)
class Quote:
    """The parts add up to the price; what rounding or a pulled price leaves lies in the profit."""

    scope: Scope
    parts: tuple[QuotePart, ...]
    price: int
    minutes: float

    def part(self, name: PartName) -> QuotePart:
        """That part; nothing of it where it has none."""
        return next((p for p in self.parts if p.name == name), QuotePart(name, 0))

    @property
    def outlay(self) -> int:
        """What goes to others: materials, frame, parcel, tax."""
        return sum(self.part(name).amount for name in _OUTLAY)

    @property
    def an_hour(self) -> int | None:
        """What is left of it for an hour's work; None without hours."""
        return rounded_share(self.price - self.outlay, 60, round(self.minutes)) if self.minutes >= 1 else None

    def under(self, terms: Terms) -> bool:
        """Whether an hour brings less than the studio wants to work for."""
        return self.an_hour is not None and self.an_hour < terms.floor


def quote(scope: Scope, hours: Mapping[PartName, float], terms: Terms, pulled: Pulled = AS_RECKONED) -> Quote:
    """Price a piece of that scope whose parts take so many minutes. Raises `MoneyTrouble`, `ParcelTrouble` for what cannot be."""
    sides = Sides(frame="floating" if scope.framed else "none")
    parcel = parcel_of(scope.width_mm, scope.height_mm, sides)
    square_m = scope.width_mm * scope.height_mm
    own = dict(pulled.parts)
    found: dict[PartName, QuotePart] = {}

    def put(name: PartName, reckoned: int, minutes: float = 0.0) -> None:
        if name in own:
            found[name] = QuotePart(name, checked(own[name], f"The part “{name}”"), minutes, True)
        elif reckoned:
            found[name] = QuotePart(name, reckoned, minutes)

    for name in HOURS:
        minutes = hours.get(name, 0.0)
        put(name, rounded_share(terms.rate, round(minutes), 60), minutes)
    area = round(square_m)
    put("materials", rounded_share(terms.canvas_m2 + terms.paint_m2, area, 1_000_000))
    if scope.framed:
        size = outer(sides, scope.width_mm, scope.height_mm)
        put("frame", rounded_share(terms.frame_m, round(2 * (size.width_mm + size.height_mm)), 1000))
    put("parcel", terms.parcel_base + rounded_share(terms.parcel_kg, round(parcel.charged_kg * 2), 2))
    work = sum(p.amount for p in found.values())
    put("profit", rounded_share(work, terms.profit_bp, 10_000))
    net = sum(p.amount for p in found.values())
    minutes = sum(hours.get(name, 0.0) for name in HOURS)
    price = pulled.price
    if price < 0:
        price = rounded_up(net + tax_on(net, terms.tax_bp), max(1, terms.round_to))
    checked(price, "The price")
    tax = tax_within(price, terms.tax_bp)
    if tax:
        found["tax"] = QuotePart("tax", tax)
    rest = price - sum(p.amount for p in found.values())
    if rest:
        before = found.get("profit", QuotePart("profit", 0))
        found["profit"] = replace(before, amount=before.amount + rest, pulled=before.pulled and "profit" in own)
    return Quote(scope, tuple(found[name] for name in PARTS if name in found), price, minutes)


def pull_part(pulled: Pulled, name: PartName, amount: int) -> Pulled:
    """Another amount for a part; the price follows. Raises `MoneyTrouble` for what cannot be; tax follows the law, not the hand."""
    if name == "tax":
        raise MoneyTrouble("The tax was not changed", "it follows from its rate", "set the rate in the studio's terms")
    checked(amount, f"The part “{name}”")
    return Pulled((*(p for p in pulled.parts if p[0] != name), (name, amount)))


def pull_price(pulled: Pulled, price: int) -> Pulled:
    """The price itself; the parts stay and the profit takes the difference."""
    return replace(pulled, price=checked(price, "The price"))


def changed_price(agreed: int, before: Quote, after: Quote, terms: Terms) -> int:
    """The agreed price with what changed added or taken off, to a round sum; never below nothing."""
    difference = after.price - before.price
    return max(0, rounded_up(agreed + difference, max(1, terms.round_to)))
