"""Clients in the books: one page each, and erasing one on their wish."""

from functools import partial
from typing import TYPE_CHECKING

from yarrow_lane.commission.clients import ClientPage, client_page, clients_in, erasing
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.standing import CommissionStanding
from yarrow_lane.desk.erasing import erase_client
from yarrow_lane.measure.days import dated
from yarrow_lane.measure.lengths import size_text
from yarrow_lane.measure.money import money_text
from yarrow_lane.measure.words import counted
from yarrow_lane.store.copies import copies_in
from yarrow_lane.ui.bench_sheet import BenchSheet, Line, NextAct, Note, Press, Section
from yarrow_lane.ui.rooms.books.clients_sheet import ClientRow, ClientsShown

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.books.page import BooksPage

_MOST_LINES = 40


class ClientsMode:
    """Holds which client is looked at."""

    def __init__(self, page: "BooksPage") -> None:
        self.page = page
        self.key = ""
        self.asking = False  # whether it was pressed once: what is kept and what goes is shown
        self._own: tuple[CommissionStanding, ...] = ()

    def choose(self, key: str) -> None:
        """Another client."""
        self.key, self.asking = key, False
        self.page.refresh()

    def show(self, standings: tuple[CommissionStanding, ...]) -> None:
        """The list and the page."""
        found = clients_in(standings)
        if self.key not in found:
            chosen = next((s for s in standings if s.id == self.page.commission_id), None)
            self.key = next((k for k, own in found.items() if chosen in own), next(iter(found), ""))
        self._own = found.get(self.key, ())
        rows = tuple(
            ClientRow(key, own[0].client, f"{counted(len(own), 'commission')}: {', '.join(s.title for s in own[:3])}")
            for key, own in sorted(found.items(), key=lambda item: item[0])
        )
        page = client_page(self._commissions()) if self._own else ClientPage("", "", "", (), (), ())
        self.page.clients_sheet.show_clients(ClientsShown(rows, self.key, page.name, _under(page), self._sections(page)))

    def _commissions(self) -> tuple[Commission, ...]:
        return tuple(self.page.desk.commission(s.id) for s in self._own)

    def _sections(self, page: ClientPage) -> tuple[tuple[str, tuple[tuple[str, str], ...]], ...]:
        studio, books = self.page.studio, self.page.desk.books
        works, hung, money = [], [], []
        for w in page.works:
            size = size_text(*w.size_mm, studio.unit) if w.size_mm[0] else "no size yet"
            works.append(
                (
                    w.title,
                    f"{size}, {w.medium}, " + (f"delivered {dated(w.delivered)}" if w.delivered else "not delivered yet"),
                )
            )
            if w.delivered and w.hangs:
                hung.append((w.title, w.hangs))
            if w.answer:
                hung.append((w.title, f"they said: {w.answer}"))
            a = books.account(w.id)
            if a.agreed is not None:
                terms = studio.terms
                left = a.still_to_pay
                paid = "paid" if left <= 0 else f"{money_text(left, terms.money, terms.form)} still to pay"
                money.append((w.title, f"{money_text(a.price, terms.money, terms.form)}, {paid}"))
        letters = tuple((dated(x.at.date()), f"{x.words} ({x.title})") for x in reversed(page.letters))[:_MOST_LINES]
        consents = tuple((c.title, f"{c.photo}: {c.words}") for c in page.consents)[:_MOST_LINES]
        every = (
            ("Commissions", tuple(works)),
            ("Money", tuple(money)),
            ("What hangs where", tuple(hung)),
            ("Letters", letters),
            ("Photographs and consents", consents),
        )
        return tuple((heading, rows) for heading, rows in every if rows)

    def bench(self) -> BenchSheet:
        """What can be done with a client's page."""
        back = NextAct("Back to the money", "", lambda: self.page.show_mode("money"))
        if not self._own:
            return BenchSheet(
                (Section("Clients", (Note("Write the client's name at Intake: their page begins here."),)),), back
            )
        lines: list[Line] = [Press(f"Open {s.title}", partial(self._open, s.id)) for s in self._own[:6]]
        name = self._own[0].client
        found = erasing(
            self._commissions(), tuple(self.page.desk.books.account(s.id) for s in self._own), self.page.studio.on_shelf
        )
        erase: list[Line] = []
        if found.why_not:
            erase.append(Note(f"Not now: {found.why_not}."))
        elif not self.asking:
            erase.append(Press(f"Erase {name}…", self._ask))
        else:
            erase += [Note(f"Kept: {k}.") for k in found.kept] + [Note(f"Goes: {g}.", "wrong") for g in found.goes]
            copies = len(copies_in(self.page.desk.store.folder))
            erase.append(
                Note(
                    f"It cannot be taken back. {counted(copies, 'copy')} of the studio made before still hold it until they go; so do copies elsewhere. What must be kept and for how long is a matter of local law: ask a qualified person."
                )
            )
            erase += [Press(f"Erase {name} now", self._erase), Press("Leave everything as it is", self._leave)]
        return BenchSheet((Section(name, tuple(lines)), Section("On their wish", tuple(erase))), back)

    def _open(self, commission_id: str) -> None:
        self.page.workroom.open_door(commission_id, "")

    def _ask(self) -> None:
        self.asking = True
        self.page.refresh()

    def _leave(self) -> None:
        self.asking = False
        self.page.refresh()

    def _erase(self) -> None:
        self.asking = False
        kept = erase_client(self.page.desk, tuple(s.id for s in self._own))
        self.page.workroom.say("Erased. Kept: " + ("; ".join(kept) or "nothing") + ".", False)


def _under(page: ClientPage) -> str:
    return " · ".join(filter(None, (page.mail, page.address.replace("\n", ", "))))
