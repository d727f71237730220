"""A commission's money as tests write it: a log that grows by the same entries the program makes."""

from datetime import date, datetime, timedelta

from tests.conftest import NOON
from yarrow_lane.books import entering
from yarrow_lane.books.account import Account, account_of
from yarrow_lane.books.terms import Terms
from yarrow_lane.lane.happening import Happening
from yarrow_lane.lane.money import InvoiceFor, Scope

SCOPE = Scope(240.0, 300.0, 1, "cat", "acrylic")
BETWEEN = entering.Parties(("T. Haldane", "3 Quay"), ("Saltgate Studio",))
WORK = "Portrait of Quill"


class Book:
    """`day` moves on by hand; numbers count from 1."""

    def __init__(self, terms: Terms | None = None) -> None:
        self.terms = terms or Terms()
        self.log: tuple[Happening, ...] = ()
        self.now: datetime = NOON
        self._numbers: dict[str, int] = {}

    @property
    def today(self) -> date:
        return self.now.date()

    @property
    def account(self) -> Account:
        return account_of(self.log)

    def wait(self, days: int) -> None:
        self.now += timedelta(days=days)

    def number(self, series: str) -> int:
        self._numbers[series] = self._numbers.get(series, 0) + 1
        return self._numbers[series]

    def put(self, entry: Happening) -> Happening:
        self.log = (*self.log, entry)
        return entry

    def agree(self, price: int, deposit: int, why: str = "", scope: Scope = SCOPE) -> None:
        self.put(entering.agree(self.account, price, deposit, self.terms, scope, self.now, why))

    def invoice(self, what: InvoiceFor, amount: int) -> int:
        entry = entering.invoice(
            self.account, what, amount, WORK, self.terms, BETWEEN, self.today, self.now, self.number("invoice")
        )
        self.put(entry)
        return entry.number

    def credit(self, of: int, amount: int, why: str = "smaller") -> int:
        entry = entering.credit_note(self.account, of, amount, why, self.terms, self.today, self.now, self.number("invoice"))
        self.put(entry)
        return entry.number

    def pay(self, invoice: int, amount: int, on: date | None = None, sure: bool = False) -> int:
        entry = entering.payment(
            self.account, invoice, amount, on or self.today, "by transfer", self.now, self.number("receipt"), sure
        )
        self.put(entry)
        return entry.number
