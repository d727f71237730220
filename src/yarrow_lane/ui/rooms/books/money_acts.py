"""What the books do: letters looked at and sent, money written in, prices agreed, mistakes struck out."""

from dataclasses import replace
from typing import TYPE_CHECKING

from yarrow_lane.books import entering, letters
from yarrow_lane.books.asking import Ask
from yarrow_lane.books.entering import Parties, deposit_of, parties
from yarrow_lane.books.letters import Written, work_words
from yarrow_lane.books.quote import AS_RECKONED, Quote, changed_price
from yarrow_lane.commission.quoting import piece_in, piece_of, quote_for, scope_of
from yarrow_lane.deliver.parcel import framed
from yarrow_lane.desk.books_kept import STUDIO
from yarrow_lane.desk.letters import put_in_outbox
from yarrow_lane.lane.happening import Happening
from yarrow_lane.lane.money import Invoiced, QuoteSent, Reminded, Scope
from yarrow_lane.measure.late import late
from yarrow_lane.measure.money import MoneyTrouble, money_text, read_money
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.ui.rooms.books.forms import Forms, Sending

if TYPE_CHECKING:
    from yarrow_lane.documents import invoice as invoice_paper_file
    from yarrow_lane.documents import letter_page, page_style
    from yarrow_lane.ui.rooms.books.page import BooksPage
else:  # what writes PDF is loaded with the first paper
    invoice_paper_file = late("yarrow_lane.documents.invoice")
    letter_page = late("yarrow_lane.documents.letter_page")
    page_style = late("yarrow_lane.documents.page_style")


class MoneyActs:
    """Acts on the commission the page has chosen."""

    def __init__(self, page: "BooksPage") -> None:
        self.page = page

    # --- what they rest on

    @property
    def _between(self) -> Parties:
        b, studio = self.page.commission.brief, self.page.studio
        return parties(b.client, b.client_address, studio.painter, studio.name, studio.terms)

    def scope_now(self) -> Scope:
        """What is to be painted as the rooms have it now."""
        c = self.page.commission
        return scope_of(piece_of(c), framed(c.compose.sides))

    def quote_now(self, reckoned: bool = False) -> Quote:
        """The chosen commission's quote as it stands; `reckoned` without what was pulled."""
        c, page = self.page.commission, self.page
        now = page.workroom.now
        pulled = AS_RECKONED if reckoned else c.books.pulled
        return quote_for(piece_of(c), framed(c.compose.sides), page.studio, page.desk.standings.pace(now), now, pulled)

    def _work(self) -> str:
        c = self.page.commission
        account = self.page.account
        scope = account.agreed.scope if account.agreed is not None and account.agreed.scope.width_mm else self.scope_now()
        return work_words(c.brief.title, scope, self.page.studio.unit)

    # --- letters before they go

    def do_ask(self, ask: Ask) -> None:
        """The yellow field: look at the letter first, or write in what came."""
        match ask.kind:
            case "quote":
                self.show(self._quote_letter())
            case "answer":
                self.agree()
            case "invoice":
                self.show(self._invoice(ask))
            case "credit":
                self.show(self._credit(ask))
            case "remind":
                self.show(self._reminder(ask))
            case "await":
                self.take_payment()
            case "pay back":
                self.pay_back()

    def show(self, sending: Sending) -> None:
        """The letter and its paper on the table."""
        self.page.sending = sending
        self.page.refresh()

    def _name(self) -> tuple[str, str, str]:
        b = self.page.commission.brief
        return b.client, self.page.studio.painter or self.page.studio.name, b.title

    def _next(self, series: str) -> int:
        return self.page.desk.store.database.last_of(series) + 1

    def _letter(self, kind: str, written: Written, **facts: object) -> Sending:
        return Sending(self.page.commission_id, kind, written.subject, written.text, **facts)  # type: ignore[arg-type]

    def _quote_letter(self) -> Sending:
        page, q = self.page, self.quote_now()
        client, painter, title = self._name()
        outlook = page.desk.standings.outlook(page.commission_id, page.workroom.now)
        deposit = deposit_of(q.price, page.studio.terms)
        likely = outlook.dates.likely if outlook.dates is not None else outlook.finish
        written = letters.quote_letter(client, painter, title, q, deposit, likely, page.studio.terms, page.studio.unit)
        return self._letter("quote", written, amount=q.price, number=self._next("quote"), name="quote")

    def _page_of(self, written: Written) -> bytes:
        between, now = self._between, self.page.workroom.now
        paper = letter_page.letter_paper(written.subject, written.text, between.to, between.sender, now.date(), now)
        return page_style.paper_pdf(paper, self._size)

    def pages_of(self, sending: Sending) -> tuple[bytes, ...]:
        """The letter as a page, then the paper that goes with it."""
        letter = self._page_of(Written(sending.subject, sending.text))
        return (letter, sending.pdf) if sending.pdf else (letter,)

    @property
    def _size(self) -> str:
        return self.page.commission.transfer.paper

    def _invoiced(self, ask: Ask, number: int) -> Invoiced:
        page, now = self.page, self.page.workroom.now
        return entering.invoice(
            page.account, ask.what, ask.amount, self._work(), page.studio.terms, self._between, now.date(), now, number
        )

    def _paper(self, i: Invoiced) -> bytes:
        terms = self.page.studio.terms
        paper = invoice_paper_file.invoice_paper(i, self.page.commission.brief.title, terms.bank, terms.form)
        return page_style.paper_pdf(paper, self._size)

    def _invoice(self, ask: Ask) -> Sending:
        client, painter, title = self._name()
        number = self._next("invoice")
        i = self._invoiced(ask, number)
        written = letters.invoice_letter(client, painter, title, i, self.page.studio.terms)
        return self._letter(
            "invoice", written, amount=ask.amount, what=ask.what, number=number, pdf=self._paper(i), name=f"invoice {number}"
        )

    def _credited(self, ask: Ask, number: int) -> Invoiced:
        page, now = self.page, self.page.workroom.now
        account = page.account
        why = "the commission was cancelled" if account.cancelled else account.agreed.why if account.agreed else ""
        return entering.credit_note(
            account, ask.invoice, ask.amount, why or "price changed", page.studio.terms, now.date(), now, number
        )

    def _credit(self, ask: Ask) -> Sending:
        client, painter, title = self._name()
        number = self._next("invoice")
        i = self._credited(ask, number)
        written = letters.credit_letter(client, painter, title, i, self.page.studio.terms)
        return self._letter(
            "credit",
            written,
            amount=ask.amount,
            invoice=ask.invoice,
            number=number,
            pdf=self._paper(i),
            name=f"credit note {number}",
        )

    def _reminder(self, ask: Ask) -> Sending:
        client, painter, title = self._name()
        found = self.page.account.invoice(ask.invoice)
        assert found is not None
        written = letters.reminder_letter(
            client, painter, title, found, ask.level, self.page.workroom.now.date(), self.page.studio.terms
        )
        return self._letter(
            "remind",
            written,
            amount=ask.amount,
            invoice=ask.invoice,
            level=ask.level,
            pdf=self._paper(found.invoice),
            name="reminder",
        )

    def send_receipt(self, number: int) -> None:
        """Thanks with a receipt, looked at first."""
        page = self.page
        payment = next(p for p in page.account.payments if p.number == number)
        found = page.account.invoice(payment.invoice)
        assert found is not None
        client, painter, title = self._name()
        written = letters.receipt_letter(client, painter, title, payment, max(0, found.left), page.studio.terms)
        paper = invoice_paper_file.receipt_paper(payment, found.invoice, title, max(0, found.left), page.studio.terms.form)
        self.show(
            self._letter(
                "receipt",
                written,
                amount=payment.amount,
                number=number,
                pdf=page_style.paper_pdf(paper, self._size),
                name=f"receipt {number}",
            )
        )

    def invoice_pdf(self, number: int) -> bytes:
        """A paper given before, as it was."""
        account = self.page.account
        papers = [i.invoice for i in account.invoices] + list(account.credits)
        return self._paper(next(i for i in papers if i.number == number))

    def send(self) -> None:
        """It goes: the entry first, with its number, then the letter; without the entry nothing leaves."""
        page, sending = self.page, self.page.sending
        if sending is None:
            return
        now, books, cid = page.workroom.now, page.desk.books, sending.commission_id
        page.sending = None
        pdf = sending.pdf or self._page_of(Written(sending.subject, sending.text))
        ask = Ask("invoice", sending.amount, sending.invoice, sending.what)
        match sending.kind:
            case "quote":
                q = self.quote_now()
                parts = tuple((p.name, p.amount) for p in q.parts)
                books.enter_numbered(
                    cid, "quote", lambda n: QuoteSent(now, n, q.price, page.studio.terms.currency, parts, q.scope, sending.text)
                )
            case "invoice":
                pdf = self._paper(_invoiced(books.enter_numbered(cid, "invoice", lambda n: self._invoiced(ask, n))))
            case "credit":
                pdf = self._paper(_invoiced(books.enter_numbered(cid, "invoice", lambda n: self._credited(ask, n))))
            case "remind":
                books.enter(cid, Reminded(now, sending.invoice, sending.level, sending.text))
        path = put_in_outbox(page.desk, page.desk.commission(cid), sending.name, sending.subject, sending.text, pdf)
        page.workroom.say(f"The letter lies in the outbox as “{path.name}”, its paper beside it.", False)
        page.refresh()

    # --- money

    def _read(self, text: str, proposed: int, what: str) -> int:
        terms = self.page.studio.terms
        shown = money_text(proposed, terms.money, terms.form)
        return proposed if text.strip() in ("", shown) else read_money(text, terms.money, what)

    def take_payment(self) -> None:
        """What came in for the oldest open invoice; all of it unless another amount is written."""
        page, f = self.page, self.page.forms
        open_ = page.account.open_invoices()
        if not open_:
            raise MoneyTrouble("The payment was not written", "no invoice is open", "ask for the money first")
        now, i = page.workroom.now, open_[0]
        amount = self._read(f.paid, i.left, "The payment")

        def entry(number: int) -> Happening:
            return entering.payment(
                page.account, i.invoice.number, amount, f.paid_on or now.date(), f.how, now, number, f.twice
            )

        try:
            page.desk.books.enter_numbered(page.commission_id, "receipt", entry)
        except Trouble as trouble:
            if "already" in trouble.why:
                page.fill(replace(f, looks_twice=True))
            raise
        page.done_with_forms()

    def pay_back(self) -> None:
        """What came in too much went back."""
        page, now = self.page, self.page.workroom.now
        amount = -page.account.owed
        page.desk.books.enter_numbered(
            page.commission_id, "receipt", lambda n: entering.pay_back(page.account, amount, now.date(), page.forms.how, now, n)
        )
        page.done_with_forms()

    def agree(self) -> None:
        """A price is agreed, or another one for what was asked for since."""
        page, f, now, account = self.page, self.page.forms, self.page.workroom.now, self.page.account
        terms = page.studio.terms
        if account.agreed is None:
            proposed = account.quotes[-1].price if account.quotes else self.quote_now().price
            price = self._read(f.price, proposed, "The price")
            deposit = self._read(f.deposit, deposit_of(price, terms), "The deposit")
        else:
            price = self._read(f.price, self.price_of_change(), "The price")
            deposit = min(price, account.agreed.deposit)
        page.desk.books.enter(page.commission_id, entering.agree(account, price, deposit, terms, self.scope_now(), now, f.why))
        page.done_with_forms()

    def price_of_change(self) -> int:
        """The agreed price with what the rooms have changed since, at today's rates."""
        page, account = self.page, self.page.account
        agreed = account.agreed
        if agreed is None or not agreed.scope.width_mm:
            return account.price
        now = page.workroom.now
        pace = page.desk.standings.pace(now)
        before = quote_for(piece_in(agreed.scope), agreed.scope.framed, page.studio, pace, now)
        after = quote_for(piece_of(page.commission), framed(page.commission.compose.sides), page.studio, pace, now)
        if before.scope == after.scope:
            return account.price
        return changed_price(account.price, before, after, page.studio.terms)

    def add_cost(self) -> None:
        """A cost of the commission, or of the studio."""
        page, f, now = self.page, self.page.forms, self.page.workroom.now
        terms = page.studio.terms
        amount = read_money(f.cost, terms.money, "The cost")
        about = STUDIO if f.cost_own else page.commission_id
        page.desk.books.enter_numbered(
            about, "cost", lambda n: entering.cost(f.cost_what, f.cost_kind, amount, terms, now.date(), f.cost_due, now, n)
        )
        page.done_with_forms()

    def pay_cost(self, about: str, number: int) -> None:
        """That cost went out today."""
        page, now = self.page, self.page.workroom.now
        books = page.desk.books
        books.enter(about, entering.cost_paid(books.account(about), number, now.date(), now))

    def strike(self, what: str, number: int) -> None:
        """A mistake: it counts no more."""
        page = self.page
        page.desk.books.enter(
            page.commission_id, entering.strike(page.account, what, number, page.forms.strike_why, page.workroom.now)
        )
        page.done_with_forms()

    def cancel(self) -> None:
        """The commission ends before its end; the letter about it is looked at next."""
        page, f, account = self.page, self.page.forms, self.page.account
        kept = self._read(f.kept, min(account.price, account.paid), "What is kept")
        page.desk.books.enter(
            page.commission_id, entering.cancel(account, kept, f.cancel_why, page.studio.terms, page.workroom.now)
        )
        client, painter, title = self._name()
        written = letters.cancelled_letter(client, painter, title, kept, page.account.paid, page.studio.terms)
        page.forms = Forms()
        self.show(self._letter("cancelled", written, name="cancelled"))


def _invoiced(entry: Happening) -> Invoiced:
    assert isinstance(entry, Invoiced)
    return entry
