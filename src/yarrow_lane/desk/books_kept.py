"""The books of the whole studio, read once and kept as entries come in; papers and entries get their numbers here."""

from collections.abc import Callable, Mapping
from datetime import datetime
from typing import TYPE_CHECKING, Literal, get_args

from yarrow_lane.books.account import Account, account_of
from yarrow_lane.books.ledger import Piece, Posting, postings
from yarrow_lane.commission.standing import CommissionStanding
from yarrow_lane.commission.studio import STUDIO_PART
from yarrow_lane.lane import money
from yarrow_lane.lane.happening import Happening
from yarrow_lane.store.codec import happening_from_json

if TYPE_CHECKING:
    from yarrow_lane.desk.desk import Desk

STUDIO = STUDIO_PART.name
KINDS: frozenset[str] = frozenset(get_args(t.__annotations__["kind"])[0] for t in get_args(money.Money))
# Credit notes are counted with invoices (common practice); parcels and each kind of paper are series of their own, given at Deliver.
Series = Literal["quote", "invoice", "receipt", "cost"]


class BooksKept:
    """Asked by Books, Deliver and the studio alike, so that they say the same."""

    def __init__(self, desk: "Desk") -> None:
        self._desk = desk
        self._logs: dict[str, tuple[Happening, ...]] | None = None
        self.damaged: frozenset[str] = frozenset()  # whose money is left out, for an entry of theirs cannot be read
        self._accounts: dict[str, tuple[tuple[Happening, ...], Account]] = {}
        self._postings: dict[str, tuple[tuple[Happening, ...], tuple[Posting, ...]]] = {}

    # --- reading

    def logs(self) -> Mapping[str, tuple[Happening, ...]]:
        """Entries of money by commission, and the studio's own."""
        if self._logs is None:
            found, self.damaged = self._desk.store.database.happenings_of(KINDS)
            self._logs = {about: tuple(map(happening_from_json, texts)) for about, texts in found.items()}
        return self._logs

    def log(self, about: str) -> tuple[Happening, ...]:
        """Of one commission."""
        return self.logs().get(about, ())

    def account(self, about: str) -> Account:
        """One commission's money."""
        log = self.log(about)
        kept = self._accounts.get(about)
        if kept is None or kept[0] is not log:
            kept = self._accounts[about] = (log, account_of(log))
        return kept[1]

    def accounts(self) -> dict[str, Account]:
        """All that have any money, commissions put away among them."""
        return {about: self.account(about) for about in self.logs() if about != STUDIO}

    def own(self) -> Account:
        """The studio's own costs."""
        return self.account(STUDIO)

    def postings(self) -> dict[str, tuple[Posting, ...]]:
        """The ledger by commission, and the studio's own."""
        found = {}
        for about, log in self.logs().items():
            kept = self._postings.get(about)
            if kept is None or kept[0] is not log:
                kept = self._postings[about] = (log, postings(about, log))
            found[about] = kept[1]
        return found

    def pieces(self, now: datetime) -> dict[str, Piece]:
        """Kind, hours and day of delivery of every commission that can be read."""
        return {s.id: piece_of(s) for s in self.standings(now)}

    def standings(self, now: datetime) -> tuple[CommissionStanding, ...]:
        """Of those on the shelf and those put away."""
        return (*self._desk.standings.all(now), *self._desk.standings.away(now)[0])

    # --- entering

    def enter(self, about: str, happening: Happening) -> None:
        """An entry without a number of its own."""
        self._desk.happen(about, happening, "Books")

    def enter_numbered(self, about: str, series: Series, entry_of: Callable[[int], Happening]) -> Happening:
        """An entry that bears the next number of its series; what `entry_of` raises leaves no gap."""
        return self._desk.happen_numbered(about, series, entry_of, "Books")

    def read_again(self) -> None:
        """Entries are read from the disk when they are next asked for."""
        self._logs = None

    def happened(self, about: str, happening: Happening) -> None:
        """Told by the desk: it is on the disk."""
        if happening.kind in KINDS and self._logs is not None:
            self._logs[about] = (*self._logs.get(about, ()), happening)


def piece_of(s: CommissionStanding) -> Piece:
    """What the year sheet wants of it."""
    return Piece(s.kind, sum(minutes for _, minutes in s.painted), s.delivered.date() if s.delivered else None)
