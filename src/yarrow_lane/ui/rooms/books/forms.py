"""What is half written in the books, kept until it is entered or another commission is looked at; and what is about to be sent."""

from dataclasses import dataclass, field
from datetime import date
from typing import Literal

from yarrow_lane.books.quote import AS_RECKONED, Pulled
from yarrow_lane.commission.newcomer import Newcomer
from yarrow_lane.lane.money import CostKind, InvoiceFor

HOWS = ("by transfer", "in cash", "by card", "by cheque")
COSTS: tuple[tuple[CostKind, str], ...] = (
    ("frame", "frame"),
    ("parcel", "parcel"),
    ("paint", "paint"),
    ("canvas", "canvas"),
    ("other", "other"),
)


@dataclass(frozen=True)
class Forms:
    """Amounts as they are typed; "" means what the program proposes."""

    paid: str = ""
    paid_on: date | None = None
    how: str = HOWS[0]
    price: str = ""
    deposit: str = ""
    why: str = ""
    cost: str = ""
    cost_what: str = ""
    cost_kind: CostKind = "frame"
    cost_due: date | None = None
    cost_own: bool = False
    kept: str = ""
    cancel_why: str = ""
    strike_why: str = ""
    looks_twice: bool = False  # the same amount stands in the books for that day: it is asked about
    twice: bool = False


@dataclass(frozen=True)
class Piece:
    """The piece a quote is asked for that is no commission yet."""

    piece: Newcomer = Newcomer()
    framed: bool = False
    pulled: Pulled = AS_RECKONED


SendKind = Literal["quote", "invoice", "credit", "remind", "receipt", "cancelled"]


@dataclass(frozen=True)
class Sending:
    """A letter that is looked at before it goes: its words may be changed, `pdf` is the paper with it as it will be."""

    commission_id: str
    kind: SendKind
    subject: str
    text: str
    amount: int = 0
    invoice: int = 0
    what: InvoiceFor = "balance"
    level: int = 0
    number: int = 0
    pdf: bytes = field(default=b"", repr=False)
    name: str = ""
