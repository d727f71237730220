"""Money that moved and papers that were given out: appended, corrected by another entry, never undone.

Amounts are whole smallest units of `currency`; `number` counts its kind in the whole studio from 1, without gaps.
"""

from dataclasses import dataclass
from datetime import date, datetime
from typing import Literal

InvoiceFor = Literal["deposit", "part", "balance", "cancelling", "credit"]
CostKind = Literal["frame", "parcel", "paint", "canvas", "other"]
PaperKind = Literal["certificate", "care sheet", "delivery note"]


@dataclass(frozen=True)
class Scope:
    """What is to be painted for a price; mm."""

    width_mm: float = 0.0
    height_mm: float = 0.0
    sitters: int = 1
    sitter: str = ""
    medium: str = ""
    painterly: bool = False
    framed: bool = False


@dataclass(frozen=True)
class QuoteSent:
    """A price was offered; `parts` are (what, amount) and add up to `price`, `scope` what it was reckoned from."""

    at: datetime
    number: int
    price: int
    currency: str
    parts: tuple[tuple[str, int], ...] = ()
    scope: Scope = Scope()
    text: str = ""
    kind: Literal["quote sent"] = "quote sent"


@dataclass(frozen=True)
class PriceAgreed:
    """The client agreed to a price and to a deposit of it; a later one takes its place, and `why` says what changed.

    `scope` is what was to be painted for it.
    """

    at: datetime
    price: int
    deposit: int
    currency: str
    scope: Scope = Scope()
    why: str = ""
    kind: Literal["price agreed"] = "price agreed"


@dataclass(frozen=True)
class Invoiced:
    """An invoice, or with `of` a credit note on that invoice (its amounts below nothing). `net` + `tax` = `gross`.

    `to` and `sender` are as they were on that day: the paper can be written again as it was.
    """

    at: datetime
    number: int
    what: InvoiceFor
    lines: tuple[tuple[str, int], ...]
    net: int
    tax: int
    rate_bp: int
    gross: int
    currency: str
    on: date
    due: date
    of: int = 0
    to: tuple[str, ...] = ()
    sender: tuple[str, ...] = ()
    kind: Literal["invoiced"] = "invoiced"


@dataclass(frozen=True)
class Paid:
    """Money came in for an invoice, or with an amount below nothing went back to the client; `number` is the receipt's."""

    at: datetime
    number: int
    invoice: int
    amount: int
    currency: str
    on: date
    how: str = "by transfer"
    kind: Literal["paid"] = "paid"


@dataclass(frozen=True)
class Spent:
    """Money the studio owes or has paid to somebody for this commission, or of the studio itself; `tax` lies in `amount`."""

    at: datetime
    number: int
    what: str
    cost: CostKind
    amount: int
    currency: str
    on: date
    due: date | None = None
    kind: Literal["spent"] = "spent"


@dataclass(frozen=True)
class CostPaid:
    """What was owed for that cost went out."""

    at: datetime
    number: int
    on: date
    kind: Literal["cost paid"] = "cost paid"


@dataclass(frozen=True)
class EntryStruck:
    """A payment or a cost was written by mistake: it counts no more, and stays readable."""

    at: datetime
    what: Literal["payment", "cost"]
    number: int
    why: str
    kind: Literal["entry struck"] = "entry struck"


@dataclass(frozen=True)
class Reminded:
    """A letter about that invoice went out, the `level`th."""

    at: datetime
    invoice: int
    level: int
    text: str
    kind: Literal["reminded"] = "reminded"


@dataclass(frozen=True)
class Cancelled:
    """The commission will not be painted to its end; `kept` is what the work done comes to, `why` in words."""

    at: datetime
    kept: int
    currency: str
    why: str = ""
    kind: Literal["cancelled"] = "cancelled"


@dataclass(frozen=True)
class PaperGiven:
    """A paper was written for this commission; `content` is what it said, so that it can be written again."""

    at: datetime
    number: int
    paper: PaperKind
    content: str = ""
    kind: Literal["paper given"] = "paper given"


@dataclass(frozen=True)
class ParcelBooked:
    """A courier took the parcel on; a later one (after a loss) has a number of its own."""

    at: datetime
    number: int
    courier: str
    tracking: str
    price: int
    cover: int
    currency: str
    expected: date
    kind: Literal["parcel booked"] = "parcel booked"


@dataclass(frozen=True)
class ParcelSeen:
    """What the courier said of it."""

    at: datetime
    tracking: str
    state: Literal["taken in", "on its way", "delayed", "delivered", "lost", "damaged"]
    words: str = ""
    kind: Literal["parcel seen"] = "parcel seen"


@dataclass(frozen=True)
class ClientErased:
    """What the client's person is named by was erased on their wish; `kept` are papers that must be kept."""

    at: datetime
    kept: tuple[str, ...] = ()
    kind: Literal["client erased"] = "client erased"


Money = (
    QuoteSent | PriceAgreed | Invoiced | Paid | Spent | CostPaid | EntryStruck | Reminded | Cancelled | PaperGiven | ParcelBooked
    | ParcelSeen | ClientErased
)  # fmt: skip
