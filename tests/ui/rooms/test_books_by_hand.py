"""Money by mouse and keys in the real window: quote to last payment, a late payer, more asked for, an end before the end, a lost parcel."""

from dataclasses import replace
from datetime import timedelta
from email import message_from_bytes
from email.policy import default

import pdfplumber
import pytest
from PySide6.QtWidgets import QFileDialog

from tests.doing import do_part
from tests.journeys import hands
from tests.journeys.hands import keys
from tests.ui.rooms.doing import ENTER, ESC
from yarrow_lane.commission.clients import ERASED
from yarrow_lane.deliver.handover import hand_over, look_again, sign


@pytest.fixture
def books(framed):
    """The books of a cat on 24 x 30 cm whose client has a name and an address."""
    cid = framed.commission_id
    do_part(
        framed.desk,
        cid,
        "x",
        "brief",
        lambda b: replace(b, client="T. Haldane", client_mail="t@haldane.example", client_address="3 Quay"),
    )
    framed.desk.do_studio("x", lambda s: replace(s, name="Saltgate Studio", painter="R. Thorne"))
    framed.open_hall("books", cid)
    return framed.current


def fill(qtbot, page, label, value) -> None:
    """Open the section that has the line, and write."""
    page.bench.point_at(label)
    hands.fill(qtbot, page, label, value)


def press(qtbot, page, words) -> None:
    """Open the section that has the button, and press it."""
    page.bench.point_at(words)
    hands.press(qtbot, page, words)


def account(page):
    return page.desk.books.account(page.commission_id)


def letters(page) -> list[tuple[str, str]]:
    """Subject and text of every letter in the outbox, the oldest first."""
    found = []
    for path in sorted((page.desk.store.folder / "outbox").glob("*.eml"), key=lambda p: p.stat().st_mtime_ns):
        message = message_from_bytes(path.read_bytes(), policy=default)
        found.append((str(message["Subject"]), message.get_content()))
    return found


def paper_text(page, name: str) -> str:
    (path,) = (page.desk.store.folder / "outbox").glob(f"*{name}.pdf")
    with pdfplumber.open(path) as book:
        return " ".join(" ".join((p.extract_text() or "").split()) for p in book.pages)


def rested(d, now):
    """Signed, rested unseen and looked at."""
    return look_again(replace(sign(d, now), rest_from=now - timedelta(days=2)), now)


def agree(qtbot, page) -> None:
    """The quote goes out and they agree to it."""
    window = page.window()
    keys(qtbot, window, ENTER)
    assert page.sending is not None and page.paper.pages == 1
    keys(qtbot, window, ENTER)
    keys(qtbot, window, ENTER)
    assert account(page).agreed is not None


def invoiced_and_paid(qtbot, page) -> int:
    """The yellow field three times: look at the invoice, send it, write the money in."""
    window = page.window()
    keys(qtbot, window, ENTER, ENTER, ENTER)
    return account(page).invoices[-1].invoice.number


def test_from_the_quote_to_the_last_payment_by_the_yellow_field(qtbot, books, clock):
    page, window = books, books.window()
    assert page.bench.sheet.act.title == "Write the quote"
    agree(qtbot, page)
    agreed = account(page).agreed
    ((subject, text),) = letters(page)
    assert subject == "A portrait of Pip" and "24 × 30" in text and "deposit" in text
    assert page.bench.sheet.act.title == "Ask for the deposit"
    clock.now += timedelta(days=1)
    number = invoiced_and_paid(qtbot, page)
    assert account(page).paid == agreed.deposit and number == 1
    assert f"Invoice {number}" in paper_text(page, f"invoice {number}") and "3 Quay" in paper_text(page, f"invoice {number}")
    assert page.bench.sheet.act.title == "Open Pip", "the balance waits until it is finished"
    do_part(page.desk, page.commission_id, "x", "deliver", lambda d: hand_over(rested(d, clock.now), clock.now))
    page.refresh()
    assert page.bench.sheet.act.title == "Ask for the balance"
    clock.now += timedelta(days=1)
    invoiced_and_paid(qtbot, page)
    assert account(page).settled and account(page).paid == agreed.price
    assert "less deposit, invoice 1" in paper_text(page, "invoice 2")
    press(qtbot, page, "Receipt 2")
    assert page.sending.kind == "receipt" and page.paper.pages == 2
    keys(qtbot, window, ENTER)
    assert "Receipt 2" in paper_text(page, "receipt 2") and "still to pay of it nothing" in paper_text(page, "receipt 2")
    assert page.heading[1].count("0 owed to you") == 1


def test_a_letter_can_be_changed_or_left(qtbot, books):
    page, window = books, books.window()
    keys(qtbot, window, ENTER, ESC)
    assert (
        page.sending is None
        and not letters(page)
        and not account(page).quotes
        and page.desk.store.database.last_of("quote") == 0
    )
    keys(qtbot, window, ENTER)
    page.bench.line("The letter").editor.setPlainText("Dear T.,\n\nit costs what it costs.")
    press_send(qtbot, page)
    assert letters(page)[0][1].startswith("Dear T.,") and account(page).quotes[0].text.startswith("Dear T.,")


def press_send(qtbot, page) -> None:
    page.setFocus()
    page.hand(page.act)


def test_a_late_payer_gets_letters_and_part_payments_count(qtbot, books, clock):
    page, window = books, books.window()
    agree(qtbot, page)
    keys(qtbot, window, ENTER, ENTER)
    deposit = account(page).agreed.deposit
    clock.now += timedelta(days=15)
    page.refresh()
    assert page.bench.sheet.act.title == "Write a reminder" and "1 day late" in page.bench.sheet.act.detail
    keys(qtbot, window, ENTER, ENTER)
    assert "slipped by" in letters(page)[-1][1] and account(page).open_invoices()[0].reminded == 1
    assert page.bench.sheet.act.title.startswith("Write in:"), "a letter is given its time"
    clock.now += timedelta(days=10)
    page.refresh()
    keys(qtbot, window, ENTER, ENTER)
    assert "11 days late" in letters(page)[-1][1]
    fill(qtbot, page, "Came in", "50")
    press(qtbot, page, "Write it in")
    assert account(page).paid == 50_00 and account(page).open_invoices()[0].left == deposit - 50_00
    fill(qtbot, page, "Came in", "50")
    press(qtbot, page, "Write it in")
    assert "already" in window.message.text and account(page).paid == 50_00
    press(qtbot, page, "Write it in")
    assert account(page).paid == 50_00, "not before it is said that it came twice"
    press(qtbot, page, "It really came twice")
    press(qtbot, page, "Write it in")
    assert account(page).paid == 100_00
    fill(qtbot, page, "A mistake, because", "the bank showed it twice")
    press(qtbot, page, "Strike receipt 2 out")
    assert account(page).paid == 50_00
    for wrong, said in (("-5", "less than nothing"), ("1e12", "no amount"), ("9999999999999", "larger than any")):
        fill(qtbot, page, "Came in", wrong)
        press(qtbot, page, "Write it in")
        assert said in window.message.text and account(page).paid == 50_00


def test_more_asked_for_after_approval_is_priced_from_what_changed(qtbot, books, clock):
    page = books
    agree(qtbot, page)
    price = account(page).price
    do_part(page.desk, page.commission_id, "bigger", "compose", lambda c: replace(c, width_mm=300.0, height_mm=375.0))
    page.refresh()
    proposed = page.acts.price_of_change()
    assert proposed > price
    press(qtbot, page, "They agreed to the change")
    assert "nothing says why" in page.window().message.text and account(page).price == price
    fill(qtbot, page, "Because", "a larger canvas")
    press(qtbot, page, "They agreed to the change")
    assert account(page).price == proposed and account(page).scope_changes()[0].why == "a larger canvas"
    assert page.acts.price_of_change() == proposed, "nothing has changed since"


def test_a_cancelled_commission_pays_back_what_was_too_much(qtbot, books, clock):
    page, window = books, books.window()
    agree(qtbot, page)
    number = invoiced_and_paid(qtbot, page)
    deposit = account(page).paid
    fill(qtbot, page, "Kept for the work done", "40")
    press(qtbot, page, "Cancel the commission")
    assert page.sending.kind == "cancelled" and "will not be painted" in page.sending.text
    press_send(qtbot, page)
    assert account(page).price == 40_00 and page.bench.sheet.act.title == "Write the credit note"
    keys(qtbot, window, ENTER, ENTER)
    assert account(page).invoice(number).credited == deposit - 40_00
    assert page.bench.sheet.act.title.startswith("Write in:") and "went back" in page.bench.sheet.act.title
    keys(qtbot, window, ENTER)
    assert account(page).paid == 40_00 and account(page).settled


def test_a_client_is_erased_on_their_wish(qtbot, books, clock):
    page = books
    page.show_mode("clients")
    assert "Not now" in str(page.bench.sheet)
    page.desk.put_away(page.commission_id)
    page.refresh()
    press(qtbot, page, "Erase T. Haldane…")
    assert "cannot be taken back" in str(page.bench.sheet)
    press(qtbot, page, "Leave everything as it is")
    press(qtbot, page, "Erase T. Haldane…")
    press(qtbot, page, "Erase T. Haldane now")
    c = page.desk.commission("c0001")
    assert c.brief.client == ERASED and not c.intake.photos and "Erased" in page.window().message.text


def test_a_parcel_is_lost_and_another_one_arrives(qtbot, books, clock):
    window, cid = books.window(), books.commission_id
    window.open_door(cid, "Deliver")
    page = window.current
    page.show_mode("parcel")
    press(qtbot, page, "Cart & Mule")
    assert "it is not packed yet" in window.message.text
    do_part(page.desk, cid, "x", "deliver", lambda d: replace(rested(d, clock.now), coats=(clock.now,) * 2, packed=clock.now))
    page.refresh()
    press(qtbot, page, "Cart & Mule")
    assert page.shipping.booked.number == 1 and page.desk.books.account(cid).costs[0].spent.cost == "parcel"
    page.shipping.fault = "lost"
    clock.now += timedelta(days=11)
    press(qtbot, page, "Ask where it is")
    assert [s.state for s in page.shipping.seen][-1] == "lost" and "Claim the cover" in str(page.bench.sheet)
    press(qtbot, page, "Soft Hands, for pictures")
    assert page.shipping.booked.number == 2 and not page.shipping.seen
    page.shipping.fault = ""
    clock.now += timedelta(days=5)
    press(qtbot, page, "Ask where it is")
    assert page.shipping.seen[-1].state == "delivered"
    keys(qtbot, window, ENTER)
    assert page.commission.deliver.delivered == clock.now
    page.show_paper("parcel label")
    assert page.paper.pages == 1


def test_the_ledger_is_saved_for_the_accountant(qtbot, books, tmp_path, monkeypatch):
    page = books
    agree(qtbot, page)
    invoiced_and_paid(qtbot, page)
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(tmp_path / "ledger.csv"), ""))
    page.show_mode("year")
    press(qtbot, page, "Save the ledger for the accountant (CSV)…")
    assert (tmp_path / "ledger.csv").read_bytes().count(b"\r\n") == 5 and "ask a qualified person" in page.window().message.text
