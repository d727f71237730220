"""The books on the demo studio by mouse and keys: lines walked, joints pulled, the canvas's corner, papers turned, clients, terms."""

from dataclasses import replace

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QMouseEvent, QWheelEvent
from PySide6.QtWidgets import QApplication

from tests.journeys import hands
from tests.journeys.hands import keys, send
from tests.ui.rooms.doing import ENTER, ESC, UNDO
from yarrow_lane.commission.quoting import piece_of
from yarrow_lane.ui.rooms_table import BOOKS_ROOM

UP, DOWN, LEFT, RIGHT = Qt.Key.Key_Up, Qt.Key.Key_Down, Qt.Key.Key_Left, Qt.Key.Key_Right


@pytest.fixture
def demo_store(own_demo):
    return own_demo


@pytest.fixture
def books(qtbot, demo_window, wait_idle):
    demo_window.open_studio()
    keys(qtbot, demo_window, "b")
    wait_idle(demo_window)
    assert demo_window.room == BOOKS_ROOM.name
    return demo_window.current


def title(page) -> str:
    return page.commission.brief.title


def drag(widget, start: QPointF, end: QPointF) -> None:
    send(widget, QMouseEvent.Type.MouseButtonPress, start)
    for part in (0.5, 1.0):
        send(widget, QMouseEvent.Type.MouseMove, start + (end - start) * part)
    send(widget, QMouseEvent.Type.MouseButtonRelease, end, Qt.MouseButton.NoButton)


def wheel(widget, at: QPointF, down: bool) -> None:
    turn = QPoint(0, -120 if down else 120)
    event = QWheelEvent(
        at,
        widget.mapToGlobal(at),
        QPoint(),
        turn,
        Qt.MouseButton.NoButton,
        Qt.KeyboardModifier.NoModifier,
        Qt.ScrollPhase.NoScrollPhase,
        False,
    )
    QApplication.sendEvent(widget, event)


def fill(qtbot, page, label, value) -> None:
    page.bench.point_at(label)
    hands.fill(qtbot, page, label, value)


def test_the_most_pressing_is_chosen_and_the_lines_are_walked(qtbot, books):
    page = books
    assert title(page) == "Quill" and "Write a reminder" in page.bench.sheet.act.title
    page.lines.setFocus()
    keys(qtbot, page.lines, DOWN)
    assert title(page) == "Fennel" and "ahead of the paint" in page.lines.accessibleDescription()
    keys(qtbot, page.lines, UP, UP, UP)
    assert title(page) == "Quill", "the first stays"
    row, place, _ = next(x for x in page.lines.places() if x[0].title == "Brack")
    send(page.lines, QMouseEvent.Type.MouseButtonPress, place.center())
    assert title(page) == "Brack" and page.bench.sheet.act.title.startswith("They agreed") and row.tag.startswith("quoted")
    high = {r.title: h for r, _, h in page.lines.places()}
    prices = {r.title: r.price for r, _, _ in page.lines.places()}
    assert high["Bramble, Moss and Pip"] > high["Fennel"] > high["Sorrel"]
    assert (high["Fennel"] - high["Sorrel"]) / (prices["Fennel"] - prices["Sorrel"]) == pytest.approx(
        (high["Brack"] - high["Sorrel"]) / (prices["Brack"] - prices["Sorrel"])
    ), "all at one scale"


def test_few_rows_fit_a_low_window_and_the_chosen_one_is_shown(qtbot, books, wait_idle):
    page, window = books, books.window()
    window.resize(1000, 700)
    wait_idle(window)
    shown = len(page.lines.places())
    assert shown < 6
    for _ in range(6):
        keys(qtbot, page.lines, DOWN)
    assert title(page) == "Bramble, Moss and Pip" and title(page) in [r.title for r, _, _ in page.lines.places()]
    wheel(page.lines, QPointF(300, 150), False)
    wheel(page.lines, QPointF(300, 150), False)
    page.lines.grab()


def test_a_joint_is_pulled_and_the_price_follows(qtbot, books, wait_idle):
    page = books
    page.choose(page.desk.studio.on_shelf[4])  # Brack: quoted, not agreed
    wait_idle(page.window())
    before = page.acts.quote_now()
    name, x, _ = next(j for j in page.quote.joints() if j[0] == "materials")
    y = 96.0
    drag(page.quote, QPointF(x, y), QPointF(x + 60, y))
    after = page.acts.quote_now()
    assert (
        after.part("materials").amount > before.part("materials").amount
        and after.part("materials").pulled
        and name == "materials"
    )
    assert after.price > before.price
    keys(qtbot, page.window(), UNDO)
    assert page.acts.quote_now() == before, "a pull is one change, taken back in one"
    end = page.quote._x(before.price)
    drag(page.quote, QPointF(end, y), QPointF(end - 80, y))
    cheap = page.acts.quote_now()
    assert cheap.price < before.price and cheap.part("profit").amount < before.part("profit").amount
    hands_on = page.bench.line("Quote as it is reckoned")
    qtbot.mouseClick(hands_on, Qt.MouseButton.LeftButton)
    assert page.acts.quote_now() == before


def test_the_quote_by_keys(qtbot, books):
    page = books
    page.choose(page.desk.studio.on_shelf[4])
    page.quote.setFocus()
    before = page.acts.quote_now()
    keys(qtbot, page.quote, UP)
    assert page.acts.quote_now().price > before.price
    keys(qtbot, page.quote, RIGHT, UP)
    first = page.acts.quote_now().parts[0]
    assert first.pulled and first.amount > before.part(first.name).amount
    keys(qtbot, page.quote, LEFT, DOWN, DOWN)
    page.quote.grab()


def test_an_agreed_price_is_no_more_pulled(qtbot, books, wait_idle):
    page = books
    wait_idle(page.window())
    name, x, _ = page.quote.joints()[0]
    before = page.commission.books
    drag(page.quote, QPointF(x, 96.0), QPointF(x + 50, 96.0))
    page.quote.setFocus()
    keys(qtbot, page.quote, UP)
    assert page.commission.books == before and name == "background"


def test_pulled_at_its_corner_it_is_a_new_piece(qtbot, books, wait_idle):
    page = books
    page.choose(page.desk.studio.on_shelf[4])
    wait_idle(page.window())
    compose = page.commission.compose
    corner = page.quote._corner().center()
    drag(page.quote, corner, corner + QPointF(-30, -18))
    new = page.quoting.new.piece
    assert page.quoting.asks_new and new.width_mm < piece_of(page.commission).width_mm and new.kind == "dog"
    assert page.commission.compose == compose, "the commission's own size is Compose's"
    price = page.quote._shown.price
    page.choices.button("two").click()
    assert page.quote._shown.price > price and page.quoting.new.piece.sitters == 2
    page.choices.button("painterly").click()
    page.choices.button("framed").click()
    assert any(s.name == "frame" for s in page.quote._shown.segments)
    page.choices.button("the chosen").click()
    assert not page.quoting.asks_new


def test_a_paper_given_before_is_seen_as_it_was(qtbot, books, wait_idle):
    page, window = books, books.window()
    number = page.desk.books.account(page.commission_id).invoices[-1].invoice.number
    page.bench.point_at(f"Invoice {number}")
    qtbot.mouseClick(page.bench.line(f"Invoice {number}"), Qt.MouseButton.LeftButton)
    assert page.looked_at == number and page.paper.pages == 1
    page.paper.grab()
    before = page.acts.invoice_pdf(number)
    page.desk.do_studio("x", lambda s: replace(s, name="Another Studio"))
    assert page.acts.invoice_pdf(number) == before, "written again it is the same"
    keys(qtbot, window, ESC)
    assert page.looked_at == 0
    keys(qtbot, window, ENTER)
    assert page.sending is not None and page.paper.pages == 2, "the letter, and its invoice"
    keys(qtbot, page.paper, Qt.Key.Key_PageDown)
    assert "page 2 of 2" in page.paper.accessibleName() or page.paper._at == 1
    send(page.paper, QMouseEvent.Type.MouseButtonPress, QPointF(20, 200))
    assert page.paper._at == 0
    keys(qtbot, window, ESC)


def test_modes_by_their_keys_and_back_to_the_studio(qtbot, books, wait_idle):
    page, window = books, books.window()
    for key, mode in (("y", "year"), ("p", "paint"), ("k", "clients"), ("t", "terms"), ("m", "money")):
        keys(qtbot, window, key)
        wait_idle(window)
        assert page.mode == mode
        window.grab()
    assert page.year == 2026
    page.show_mode("year")
    page.choices.button("‹").click()
    assert page.year == 2025 and page.year_sheet.accessibleName().startswith("The year 2025")
    keys(qtbot, window, ENTER)
    assert page.mode == "money"
    keys(qtbot, window, ESC)
    assert window.room == "Studio"
    window.studio_page.choices.button("books").click()
    page.choices.button("calendar").click()
    assert window.room == "Studio" and window.studio_page.on_table == "calendar"


def test_clients_are_walked_and_scrolled(qtbot, books, wait_idle):
    page = books
    page.show_mode("clients")
    names = [r.name for r in page.clients_sheet._shown.rows]
    assert "M. Aldous" in names and len(names) == 7, "with those of the year that went before"
    first = page.clients.key
    page.clients_sheet.setFocus()
    keys(qtbot, page.clients_sheet, DOWN)
    assert page.clients.key != first or names.index(page.clients_sheet._shown.name) == len(names) - 1
    row = names.index("M. Aldous")
    send(page.clients_sheet, QMouseEvent.Type.MouseButtonPress, QPointF(60, 44 + 46 * row + 10))
    assert page.clients_sheet._shown.name == "M. Aldous"
    headings = [h for h, _ in page.clients_sheet._shown.sections]
    assert headings == ["Commissions", "Money", "Letters", "Photographs and consents"], "nothing of theirs hangs yet"
    wheel(page.clients_sheet, QPointF(500, 200), True)
    wheel(page.clients_sheet, QPointF(40, 200), True)
    page.clients_sheet.grab()


def test_the_terms_and_what_cannot_be(qtbot, books):
    page, window = books, books.window()
    page.show_mode("terms")
    price = page.quote._shown.price
    fill(qtbot, page, "Wanted for an hour", "40")
    assert page.studio.terms.rate == 40_00 and page.quote._shown.price > price
    fill(qtbot, page, "Wanted for an hour", "-3")
    assert page.studio.terms.rate == 40_00 and "less than nothing" in str(
        page.bench.line("Wanted for an hour").fault.text() or window.message.text
    )
    fill(qtbot, page, "Deposit", 10.0)
    assert "30 to 50" in str(page.bench.sheet)
    fill(qtbot, page, "Currency", "JPY")
    assert page.studio.terms.currency == "JPY" and page.studio.terms.rate == 40
    assert page.desk.books.account(page.commission_id).agreed.currency == "GBP", "what was agreed stays"
    page.show_mode("money")
    window.grab()


def test_books_are_open_again_after_a_restart(qtbot, books, workers):
    from yarrow_lane.desk.desk import Desk
    from yarrow_lane.ui.window import Window

    window = books.window()
    window.end()
    again = Window(Desk(window.desk.store, window.desk.clock), workers)
    qtbot.addWidget(again)
    again.show()
    assert again.room == BOOKS_ROOM.name
    again.end()
