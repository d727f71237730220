"""The quote of a commission as the painter works on it: what was pulled. Versioned; what was sent is an entry."""

from dataclasses import dataclass, replace

from yarrow_lane.books.quote import AS_RECKONED, PartName, Pulled, pull_part, pull_price
from yarrow_lane.lane.part import Part


@dataclass(frozen=True)
class QuoteDraft:
    """Everything that is not reckoned."""

    pulled: Pulled = AS_RECKONED


BOOKS = Part("books", QuoteDraft, "")


def with_part(draft: QuoteDraft, name: PartName, amount: int) -> QuoteDraft:
    """A part pulled; raises `MoneyTrouble`."""
    return replace(draft, pulled=pull_part(draft.pulled, name, amount))


def with_price(draft: QuoteDraft, price: int) -> QuoteDraft:
    """The price pulled; raises `MoneyTrouble`."""
    return replace(draft, pulled=pull_price(draft.pulled, price))


def as_reckoned(draft: QuoteDraft) -> QuoteDraft:
    """Nothing pulled."""
    return replace(draft, pulled=AS_RECKONED)
