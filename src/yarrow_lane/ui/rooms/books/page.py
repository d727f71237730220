"""The books page: money in time with the quote beneath, the year, paint, clients; beside them what is owed and asked for."""

from collections.abc import Callable
from dataclasses import replace

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent, QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QScrollArea, QStackedWidget, QVBoxLayout, QWidget

from yarrow_lane.books.account import Account
from yarrow_lane.books.asking import drawer_of
from yarrow_lane.books.draft import BOOKS, as_reckoned
from yarrow_lane.books.ledger import earned, months, together
from yarrow_lane.books.terms import Terms
from yarrow_lane.commission.standing import CommissionStanding
from yarrow_lane.desk.letters import letter_remarks
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.late import late
from yarrow_lane.measure.money import money_text
from yarrow_lane.measure.words import counted
from yarrow_lane.ui.bench_sheet import BenchSheet, ChoiceSheet, NextAct, Press, Section, Switch
from yarrow_lane.ui.kit.paper_view import PaperView
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.books import gathering
from yarrow_lane.ui.rooms.books.bench import Seen, ask_for, books_bench, sending_bench
from yarrow_lane.ui.rooms.books.clients_mode import ClientsMode
from yarrow_lane.ui.rooms.books.clients_sheet import ClientsSheet
from yarrow_lane.ui.rooms.books.earned_scale import EarnedScale
from yarrow_lane.ui.rooms.books.forms import Forms, Sending
from yarrow_lane.ui.rooms.books.money_acts import MoneyActs
from yarrow_lane.ui.rooms.books.money_lines import MoneyLines
from yarrow_lane.ui.rooms.books.paint_rows import PaintRows
from yarrow_lane.ui.rooms.books.quote_bar import QuoteBar
from yarrow_lane.ui.rooms.books.quote_mode import QuoteMode
from yarrow_lane.ui.rooms.books.quote_view import earned_shown
from yarrow_lane.ui.rooms.books.terms_bench import terms_bench
from yarrow_lane.ui.rooms.books.view import Mode, money_view, share_painted
from yarrow_lane.ui.rooms.books.year_sheet import YearSheet
from yarrow_lane.ui.rooms.books.year_view import year_shown
from yarrow_lane.ui.theme.lettering import px
from yarrow_lane.ui.workroom import Workroom

_WIDE = 640  # px of table under which the quote takes all of its foot
ledger_csv = late("yarrow_lane.documents.ledger_csv")


class BooksPage(RoomPage):
    """All money at once; the chosen commission is the one the bench writes for."""

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.mode: Mode = "money"
        self.forms = Forms()
        self.sending: Sending | None = None
        self.looked_at = 0  # the number of a paper given before, shown on the table
        self.year = 0
        self.heading = ("", "", "")
        self.acts = MoneyActs(self)
        self.clients = ClientsMode(self)
        self.quoting = QuoteMode(self)
        self.lines = MoneyLines(workroom.pictures, workroom.references)
        self.quote = QuoteBar(workroom.pictures, workroom.references)
        self.earned = EarnedScale(workroom.pictures, workroom.references)
        self.year_sheet, self.paint, self.clients_sheet, self.paper = YearSheet(), PaintRows(), ClientsSheet(), PaperView()
        self._stack = QStackedWidget()
        self._build()
        guarded = workroom.guard.guarded
        self.lines.chosen.connect(guarded(self.choose))
        self.lines.opened.connect(guarded(lambda i: workroom.open_door(i, "")))
        self.quote.pulled.connect(guarded(self.quoting.pull))
        self.quote.sized.connect(guarded(self.quoting.pull_size))
        self.clients_sheet.chosen.connect(guarded(self.clients.choose))

    def _build(self) -> None:
        money = QWidget()
        inside = QVBoxLayout(money)
        inside.setContentsMargins(0, 0, 0, 0)
        inside.setSpacing(0)
        below = QHBoxLayout()
        below.setSpacing(0)
        below.addWidget(self.quote, 5)
        below.addWidget(self.earned, 2)
        inside.addWidget(self.lines, 1)
        inside.addLayout(below)
        year = QScrollArea()
        year.setWidgetResizable(True)
        year.setFrameShape(QScrollArea.Shape.NoFrame)
        year.setWidget(self.year_sheet)
        for widget in (money, year, self.paint, self.clients_sheet, self.paper):
            self._stack.addWidget(widget)
        box = QVBoxLayout(self.table)
        box.setContentsMargins(0, 0, 0, 0)
        box.addWidget(self._stack)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.earned.setVisible(self.table.width() > px(_WIDE))

    # --- what it rests on

    @property
    def account(self) -> Account:
        """The chosen commission's money."""
        return self.desk.books.account(self.commission_id)

    def _chosen(self, standings: tuple[CommissionStanding, ...]) -> None:
        ids = [s.id for s in standings]
        if self.commission_id not in ids:
            urgent = gathering.most_urgent(standings, self.desk.books.accounts(), self.workroom.now.date())
            self.commission_id = urgent or (ids[0] if ids else "")

    # --- showing

    def refresh(self) -> None:
        books, now, terms = self.desk.books, self.workroom.now, self.studio.terms
        standings = books.standings(now)
        self._chosen(standings)
        self.year = self.year or now.year
        self.heading = gathering.heading(self.studio, books, standings, now)
        match self.mode:
            case "year":
                self._show_year(standings)
            case "paint":
                self._show_paint(standings)
            case "clients":
                self.clients.show(standings)
            case _:
                view = money_view(standings, books.accounts(), books.logs(), terms, self.studio.on_shelf, now)
                if view.rows and self.commission_id not in {r.id for r in view.rows}:
                    self.commission_id = view.rows[0].id
                self.lines.show_view(view, self.commission_id)
                self.quoting.show(standings)
                self._show_earned(standings)
        on_paper = self.sending is not None or bool(self.looked_at)
        order: tuple[Mode, ...] = ("money", "year", "paint", "clients")
        self._stack.setCurrentIndex(4 if on_paper else order.index(self.mode) if self.mode in order else 0)
        self.show_sheets(self._bench(standings), self._choices())

    def _bench(self, standings: tuple[CommissionStanding, ...]) -> BenchSheet:
        if self.sending is not None:
            b = self.desk.commission(self.sending.commission_id).brief
            self.paper.show_paper(self.acts.pages_of(self.sending), self.sending.subject)
            return sending_bench(self.sending, b.client, letter_remarks(b), self)
        if self.looked_at:
            number = self.looked_at
            self.paper.show_paper((self.acts.invoice_pdf(number),), f"Paper {number}, as it was given")
            save = Press("Save it (PDF)…", lambda: self._save_paper(number))
            return BenchSheet((Section(f"Paper {number}", (save,)),), NextAct("Back to the money", "", self.leave_sending))
        if self.mode == "terms":
            return terms_bench(self.studio, self)
        if self.mode == "clients":
            return self.clients.bench()
        if self.mode in ("year", "paint"):
            return gathering.quiet_bench(self)
        return books_bench(self._seen(standings), self)

    def _seen(self, standings: tuple[CommissionStanding, ...]) -> Seen:
        books, now = self.desk.books, self.workroom.now
        accounts = books.accounts()
        terms = self.studio.terms
        drawers = {
            s.id: drawer_of(accounts[s.id], share_painted(s)) for s in standings
            if s.id in accounts and accounts[s.id].agreed is not None and accounts[s.id].cancelled is None
        }  # fmt: skip
        entries = [p for of in books.postings().values() for p in of]
        pieces = {i: p for i, p in books.pieces(now).items() if p.delivered is not None and p.delivered.year == now.year}
        year = together(earned(pieces, books.postings(), terms.currency))
        pulled = bool(self.commission_id) and self.commission.books != as_reckoned(self.commission.books)
        return Seen(
            standings, accounts, books.own(), terms, now.date(), self.commission_id, self.forms, drawers,
            months(entries, now.year, terms.currency), year, pulled,
            tuple(sorted(books.damaged)),
        )  # fmt: skip

    def _choices(self) -> ChoiceSheet:
        rooms = (("shelf", "the shelf"), ("calendar", "calendar"), ("books", "books"))
        modes = (
            ("money", "money in time"),
            ("year", "the year"),
            ("paint", "paint"),
            ("clients", "clients"),
            ("terms", "terms"),
        )
        switches = [Switch("", rooms, self._go, "books"), Switch("Books", modes, self.show_mode, self.mode)]
        if self.mode in ("money", "terms"):
            whose = (("own", "the chosen"), ("new", "a new one"))
            switches.append(Switch("Quote for", whose, self.quoting.ask_new, "new" if self.quoting.asks_new else "own"))
            switches += self.quoting.switches()
        elif self.mode == "year":
            switches.append(Switch("", (("before", "‹"), ("after", "›")), self._turn_year))
        return ChoiceSheet(tuple(switches))

    def _show_earned(self, standings: tuple[CommissionStanding, ...]) -> None:
        books, now = self.desk.books, self.workroom.now
        rows = earned(books.pieces(now), books.postings(), self.studio.terms.currency)
        shown = {s.kind: s.compose for s in standings if s.compose.framed}
        self.earned.show_earned(earned_shown(rows, self.studio.terms, shown))

    def _show_year(self, standings: tuple[CommissionStanding, ...]) -> None:
        books, now, terms = self.desk.books, self.workroom.now, self.studio.terms
        entries = [p for of in books.postings().values() for p in of]
        pieces = {i: p for i, p in books.pieces(now).items() if p.delivered is not None and p.delivered.year == self.year}
        rows = earned(pieces, books.postings(), terms.currency)
        month = now.month if self.year == now.year else 12
        self.year_sheet.show_year(year_shown(self.year, months(entries, self.year, terms.currency), rows, terms, month))

    def _show_paint(self, standings: tuple[CommissionStanding, ...]) -> None:
        self.paint.show_paint(gathering.paint(self.desk, self.commission_id, self.workroom.now))

    # --- going

    def _go(self, where: str) -> None:
        if where != "books":
            self.workroom.open_hall(where, "")

    def show_mode(self, mode: Mode) -> None:
        """Another look at the books."""
        self.mode, self.looked_at = mode, 0
        self.refresh()
        widget = {
            "money": self.lines,
            "terms": self.lines,
            "year": self.year_sheet,
            "paint": self.paint,
            "clients": self.clients_sheet,
        }[mode]
        widget.setFocus(Qt.FocusReason.OtherFocusReason)

    def choose(self, commission_id: str) -> None:
        """Another commission's money; what was half written for the last one is dropped."""
        if commission_id != self.commission_id:
            self.forms = Forms()
        self.commission_id, self.quoting.asks_new = commission_id, False
        self.refresh()

    def fill(self, forms: Forms) -> None:
        self.forms = forms
        self.refresh()

    def done_with_forms(self) -> None:
        """It is written in."""
        self.forms = Forms()
        self.refresh()

    def open_chosen(self) -> None:
        """The commission itself; the studio where there is none."""
        if self.commission_id:
            self.workroom.open_door(self.commission_id, "")
        else:
            self.workroom.open_studio()

    def _turn_year(self, where: str) -> None:
        self.year += 1 if where == "after" else -1
        self.refresh()

    def set_terms(self, label: str, step: Callable[[Terms], Terms]) -> None:
        """Other terms of price: one change of the studio."""
        self.desk.do_studio(label, lambda s: replace(s, terms=step(s.terms)))

    def back_to_money(self) -> None:
        self.show_mode("money")

    # --- money

    def as_reckoned(self) -> None:
        self.hand(lambda: Edit(BOOKS, "The quote as it is reckoned", as_reckoned))

    def do_ask(self) -> None:
        standing = self.desk.standings.of(self.commission_id, self.workroom.now)
        self.acts.do_ask(ask_for(standing, self.account, self.workroom.now.date()))

    def write_text(self, text: str) -> None:
        if self.sending is not None:
            self.sending = replace(self.sending, text=text)
            self.refresh()

    def send(self) -> None:
        self.bench.store_pending()
        self.acts.send()

    def leave_sending(self) -> None:
        """Back to the money; nothing was sent."""
        self.sending, self.looked_at = None, 0
        self.refresh()

    def take_payment(self) -> None:
        self._entered(self.acts.take_payment)

    def pay_back(self) -> None:
        self._entered(self.acts.pay_back)

    def agree(self) -> None:
        self._entered(self.acts.agree)

    def price_of_change(self) -> str:
        terms = self.studio.terms
        return money_text(self.acts.price_of_change(), terms.money, terms.form)

    def add_cost(self) -> None:
        self._entered(self.acts.add_cost)

    def pay_cost(self, about: str, number: int) -> None:
        self.acts.pay_cost(about, number)

    def strike(self, what: str, number: int) -> None:
        self._entered(lambda: self.acts.strike(what, number))

    def cancel(self) -> None:
        self._entered(self.acts.cancel)

    def _entered(self, act: Callable[[], None]) -> None:
        self.bench.store_pending()
        act()

    def send_receipt(self, number: int) -> None:
        self.acts.send_receipt(number)

    def show_invoice(self, number: int) -> None:
        self.looked_at = number
        self.refresh()

    def _save_paper(self, number: int) -> None:
        self.save_file("Save the paper", f"{self.commission.brief.title} paper {number}", ".pdf", self.acts.invoice_pdf(number))

    def save_csv(self) -> None:
        """The ledger of the year shown, for the accountant."""
        entries = [p for of in self.desk.books.postings().values() for p in of if p.on.year == self.year]
        titles = {s.id: s.title for s in self.desk.books.standings(self.workroom.now)} | {"studio": self.studio.name}
        data = ledger_csv.ledger_csv(entries, titles)
        if self.save_file("Save the ledger", f"ledger {self.year}", ".csv", data):
            self.workroom.say(
                f"{counted(len(entries), 'posting')} of {self.year} written. Follow local tax rules, and ask a qualified person.",
                False,
            )

    # --- hands

    def key(self, event: QKeyEvent) -> bool:
        if event.key() == Qt.Key.Key_Escape and (self.sending is not None or self.looked_at):
            self.leave_sending()
            return True
        modes: dict[str, Mode] = {"m": "money", "y": "year", "p": "paint", "k": "clients", "t": "terms"}
        if event.text() in modes and self.sending is None:
            self.show_mode(modes[event.text()])
            return True
        return False
