"""The demo's money: prices of what is on the shelf, and a year of pieces that went before."""

from dataclasses import dataclass, replace
from datetime import datetime, timedelta

from yarrow_lane.books import entering
from yarrow_lane.books.entering import parties
from yarrow_lane.books.terms import Terms
from yarrow_lane.commission.quoting import piece_of, scope_of
from yarrow_lane.deliver.handover import DELIVER, answered, hand_over
from yarrow_lane.deliver.parcel import framed
from yarrow_lane.demo.scene import Scene, SetClock
from yarrow_lane.demo.sitter_files import sitter_file
from yarrow_lane.desk.books_kept import STUDIO
from yarrow_lane.desk.desk import Desk
from yarrow_lane.intake.brief import BRIEF, Brief, SitterKind, add_sitter
from yarrow_lane.lane.happening import ClockStarted, ClockStopped
from yarrow_lane.lane.money import CostKind, Invoiced, InvoiceFor, QuoteSent, Scope, Spent

# Made up like everything here; a studio that pays no tax and wants to be paid within a week.
TERMS = Terms(
    currency="GBP", rate=26_00, floor=24_00, pay_days=7, address="1 Ropewalk, Saltgate", bank="Harbour Savings, account 0042",
)  # fmt: skip


class Till:
    """Entries of one commission, each on the day the clock is set to."""

    def __init__(self, desk: Desk, clock: SetClock, now: datetime, commission_id: str) -> None:
        self.desk, self.clock, self._now, self.id = desk, clock, now, commission_id

    def at(self, days: float) -> "Till":
        """So many days from the opening of the demo, at noon; today a moment ago."""
        day = (self._now + timedelta(days=days)).replace(hour=12, minute=0, second=0, microsecond=0)
        self.clock.now = min(day, self._now)
        return self

    def quote(self, price: int) -> None:
        """A price was offered."""
        scope = self._scope
        self.desk.books.enter_numbered(
            self.id, "quote", lambda n: QuoteSent(self.clock.now, n, price, TERMS.currency, (), scope, "")
        )

    @property
    def _scope(self) -> Scope:
        c = self.desk.commission(self.id)
        return scope_of(piece_of(c), framed(c.compose.sides))

    def agree(self, price: int, deposit: int, why: str = "") -> None:
        """The client agreed."""
        account = self.desk.books.account(self.id)
        self.desk.books.enter(self.id, entering.agree(account, price, deposit, TERMS, self._scope, self.clock.now, why))

    def invoice(self, what: InvoiceFor, amount: int) -> int:
        """An invoice; returns its number."""
        c, now = self.desk.commission(self.id), self.clock.now
        studio = self.desk.studio
        between = parties(c.brief.client, c.brief.client_address, studio.painter, studio.name, TERMS)
        account = self.desk.books.account(self.id)
        made = self.desk.books.enter_numbered(
            self.id, "invoice",
            lambda n: entering.invoice(account, what, amount, f"Portrait of {c.brief.title}", TERMS, between, now.date(), now, n),
        )  # fmt: skip
        assert isinstance(made, Invoiced)
        return made.number

    def pay(self, invoice: int, amount: int) -> None:
        """It came in."""
        account, now = self.desk.books.account(self.id), self.clock.now
        self.desk.books.enter_numbered(
            self.id, "receipt", lambda n: entering.payment(account, invoice, amount, now.date(), "by transfer", now, n)
        )

    def cost(self, what: str, kind: CostKind, amount: int, due_in: int | None = None, own: bool = False) -> None:
        """Something bought; without `due_in` it was paid at once."""
        about, now = STUDIO if own else self.id, self.clock.now
        due = None if due_in is None else now.date() + timedelta(days=due_in)
        made = self.desk.books.enter_numbered(
            about, "cost", lambda n: entering.cost(what, kind, amount, TERMS, now.date(), due, now, n)
        )
        assert isinstance(made, Spent)
        if due_in is None:
            books = self.desk.books
            books.enter(about, entering.cost_paid(books.account(about), made.number, now.date(), now))


def tell_money(desk: Desk, clock: SetClock, now: datetime) -> None:
    """What the six on the shelf are priced at, and what has come in."""
    desk.do_studio("Set the terms", lambda s: replace(s, terms=TERMS))
    tills = {desk.commission(i).brief.title: Till(desk, clock, now, i) for i in desk.studio.on_shelf}
    quill, fennel, ines, sorrel, brack = (tills[t] for t in ("Quill", "Fennel", "Ines Marlow", "Sorrel", "Brack"))
    three = tills["Bramble, Moss and Pip"]
    quill.at(-45).quote(480_00)
    quill.at(-44).agree(480_00, 240_00)
    number = quill.invoice("deposit", 240_00)
    quill.at(-42).pay(number, 240_00)
    quill.at(-12).invoice("balance", 240_00)
    quill.at(-3).cost("wire, rings, glassine", "other", 11_40)
    fennel.at(-24).quote(1240_00)
    fennel.at(-23).agree(1240_00, 496_00)
    number = fennel.invoice("deposit", 496_00)
    fennel.at(-19).pay(number, 496_00)
    fennel.at(-18).cost("canvas 50 × 70, deep", "canvas", 58_00)
    ines.at(-11).quote(520_00)
    ines.at(-10).agree(520_00, 208_00)
    ines.invoice("deposit", 208_00)
    sorrel.at(-17).quote(420_00)
    sorrel.at(-16).agree(420_00, 168_00)
    number = sorrel.invoice("deposit", 168_00)
    sorrel.at(-14).pay(number, 168_00)
    brack.at(-3).quote(760_00)
    three.at(-6).quote(1480_00)
    three.at(-2).agree(1480_00, 592_00)
    three.at(-1).cost("oak floating frame, for the three", "frame", 164_00, 12)
    quill.at(-20).cost("tubes: white, umber, phthalo", "paint", 47_80, own=True)
    clock.now = now


@dataclass(frozen=True)
class _Past:
    title: str
    kind: SitterKind
    client: str
    picture: str
    size_mm: tuple[float, float]
    price: int
    hours: float
    begun: int
    took: int
    cost: int
    wall: str = ""
    said: str = ""
    also: SitterKind | None = None


_PAST = (
    _Past("Juniper", "rabbit", "R. Okafor", "rabbit1", (300, 400), 560_00, 16.5, 96, 42, 62_00, "sage", "She cried, and hung it at once."),
    _Past("Pepper", "cat", "L. Brandt", "cat1", (240, 300), 460_00, 12.0, 150, 30, 38_00, "white"),
    _Past("Otto", "dog", "M. Aldous", "dog1", (400, 500), 720_00, 24.0, 190, 48, 74_00, "grey", "His ears, exactly."),
    _Past("Wren", "dog", "A. Castellane", "dog2", (300, 400), 590_00, 19.0, 240, 40, 66_00),
    _Past("Aunt Thea", "person", "P. Lindqvist", "person1", (304.8, 406.4), 640_00, 25.5, 260, 45, 70_00, "ochre"),
    _Past("Flax and Rye", "dog", "the Amsel family", "dog1", (500, 600), 980_00, 41.0, 300, 60, 120_00, "", "Both of them, at last.", "dog"),
)  # fmt: skip


def tell_past(desk: Desk, clock: SetClock, now: datetime) -> None:
    """Pieces of the year that are delivered and put away: their hours, money and answers, no more."""
    for past in sorted(_PAST, key=lambda p: -p.begun):
        if (now - timedelta(days=past.begun - past.took)).year != now.year:
            continue
        scene = Scene(desk, clock)
        file = sitter_file(past.picture)
        scene.begin(now, past.begun, past.title, past.title, past.kind, past.client, "acrylic", past.took - past.begun, "")
        scene.edit(BRIEF, "Wrote about the wall", _walled, past)
        lead = scene.photo(file.jpeg, f"{past.picture}.jpg", "lead", file.eyes, "client")
        scene.frame(lead, *past.size_mm, "", 0.9, (0.5, 0.45))
        till = Till(desk, clock, now, scene.id)
        deposit = past.price * 2 // 5
        till.at(-past.begun + 1).quote(past.price)
        till.agree(past.price, deposit)
        number = till.invoice("deposit", deposit)
        till.at(-past.begun + 4).pay(number, deposit)
        days = max(3, round(past.hours / 3.5))
        for n in range(days):
            scene.at(-past.begun + 6 + n * (past.took - 14) / days, 10)
            start = clock.now
            desk.happen(scene.id, ClockStarted(start, "", "painting"))
            clock.now = start + timedelta(minutes=past.hours * 60 / days)
            desk.happen(scene.id, ClockStopped(clock.now, "", "painting"))
        till.at(-past.begun + past.took - 7).cost("canvas, frame, box", "frame", past.cost)
        number = till.invoice("balance", past.price - deposit)
        till.at(-past.begun + past.took - 2).pay(number, past.price - deposit)
        scene.at(-past.begun + past.took, 12)
        scene.edit(DELIVER, "Delivered it", hand_over, clock.now)
        if past.said:
            scene.edit(DELIVER, "Wrote down what they said", answered, past.said, clock.now.date())
        desk.put_away(scene.id)
    clock.now = now


def _walled(brief: Brief, past: _Past) -> Brief:
    brief = replace(brief, wall_colour=past.wall)
    return add_sitter(brief, past.title.split()[-1], past.also) if past.also is not None else brief
