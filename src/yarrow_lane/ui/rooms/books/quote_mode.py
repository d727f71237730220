"""The quote beneath the money: of the chosen commission, or of a piece that is none yet; pulled at its joints, its end and its corner."""

from collections.abc import Sequence
from dataclasses import replace
from typing import TYPE_CHECKING, Any

from yarrow_lane.books.draft import BOOKS, with_part, with_price
from yarrow_lane.books.quote import pull_part, pull_price
from yarrow_lane.commission.quoting import piece_of, prices_by_size, quote_for
from yarrow_lane.commission.standing import CommissionStanding
from yarrow_lane.compose.composition import Compose
from yarrow_lane.deliver.parcel import framed
from yarrow_lane.intake.brief import SitterKind
from yarrow_lane.lane.part import Edit
from yarrow_lane.ui.bench_sheet import Switch
from yarrow_lane.ui.rooms.books.forms import Piece
from yarrow_lane.ui.rooms.books.quote_view import last_prices, quote_shown

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.books.page import BooksPage

_SIZES_MM = ((200.0, 300.0), (300.0, 400.0), (400.0, 500.0), (500.0, 600.0), (600.0, 800.0))  # usual canvases
_PIECES = (("dog", "one dog"), ("cat", "one cat"), ("person", "one person"), ("two", "two"))


def other_sizes(width_mm: float, height_mm: float) -> tuple[tuple[float, float], ...]:
    """The next smaller and larger usual size, turned as this one lies."""
    area, lying = width_mm * height_mm, width_mm > height_mm
    turned = sorted(((h, w) if lying else (w, h) for w, h in _SIZES_MM), key=lambda s: s[0] * s[1])
    smaller = [s for s in turned if s[0] * s[1] < area * 0.95][-1:]
    larger = [s for s in turned if s[0] * s[1] > area * 1.05][:1]
    return (*smaller, *larger)


class QuoteMode:
    """Holds the piece that is asked about while it is no commission."""

    def __init__(self, page: "BooksPage") -> None:
        self.page = page
        self.new = Piece()
        self.asks_new = False

    @property
    def of_new(self) -> bool:
        """Whether the bar is of a piece that is no commission: asked for, or for want of any."""
        return self.asks_new or not self.page.commission_id

    def show(self, standings: Sequence[CommissionStanding]) -> None:
        """The bar as it stands now."""
        page = self.page
        now, studio = page.workroom.now, page.studio
        pace = page.desk.standings.pace(now)
        if self.of_new:
            piece, in_frame, title, compose = self.new.piece, self.new.framed, "a new piece", Compose()
            q = quote_for(piece, in_frame, studio, pace, now, self.new.pulled)
        else:
            c = page.commission
            piece, in_frame, title, compose = piece_of(c), framed(c.compose.sides), c.brief.title, c.compose
            q = page.acts.quote_now()
        others = prices_by_size(piece, in_frame, other_sizes(piece.width_mm, piece.height_mm), studio, pace, now)
        accounts = page.desk.books.accounts()
        lasts = last_prices(standings, accounts, piece.width_mm, piece.height_mm, studio.terms.currency, page.commission_id)
        agreed = page.account.price if not self.of_new and page.account.agreed is not None else -1
        page.quote.show_quote(quote_shown(title, compose, q, studio.terms, studio.unit, lasts, others, agreed))

    def switches(self) -> list[Switch]:
        """Who is in a new piece, how close, and whether framed; of a commission all that is decided in its rooms."""
        if not self.of_new:
            return []
        piece = self.new.piece
        return [
            Switch("", _PIECES, self._who, "two" if piece.sitters > 1 else piece.kind),
            Switch(
                "", ((False, "close likeness"), (True, "painterly")), lambda v: self._fill_piece(painterly=v), piece.painterly
            ),
            Switch("", ((False, "bare"), (True, "framed")), lambda v: self.fill(replace(self.new, framed=v)), self.new.framed),
        ]

    def _who(self, who: str) -> None:
        kind: SitterKind = "dog" if who == "two" else who  # type: ignore[assignment]
        self._fill_piece(kind=kind, sitters=2 if who == "two" else 1)

    def _fill_piece(self, **facts: Any) -> None:
        self.fill(replace(self.new, piece=replace(self.new.piece, **facts)))

    def fill(self, new: Piece) -> None:
        """Another piece to price."""
        self.new = new
        self.page.refresh()

    def ask_new(self, whose: str) -> None:
        """Price the chosen commission, or a piece that is none yet."""
        self.asks_new = whose == "new"
        self.page.refresh()

    def pull(self, name: str, amount: int) -> None:
        """A joint or the end was pulled; a whole drag is one change."""
        part: Any = name
        if self.of_new:
            pulled = pull_price(self.new.pulled, amount) if name == "price" else pull_part(self.new.pulled, part, amount)
            self.fill(replace(self.new, pulled=pulled))
            return
        if name == "price":
            edit = Edit(BOOKS, "Pulled the price", lambda b: with_price(b, amount), "pull price")
        else:
            edit = Edit(BOOKS, f"Pulled {name}", lambda b: with_part(b, part, amount), f"pull {name}")
        self.page.hand(lambda: edit)

    def pull_size(self, width_mm: float, height_mm: float) -> None:
        """Pulled at its corner it is a new piece: a commission's own size is chosen at Compose."""
        base = self.new.piece if self.of_new else piece_of(self.page.commission)
        self.asks_new = True
        self.fill(replace(self.new, piece=replace(base, width_mm=width_mm, height_mm=height_mm)))
