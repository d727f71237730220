"""Numbers of papers: given once, without gaps, whoever writes and whatever ends the program."""

import json
import os
import signal
import sqlite3
import subprocess
import sys
import time
from pathlib import Path

import pytest

from tests.conftest import NOON
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.lane.money import Paid, PriceAgreed
from yarrow_lane.measure.money import MoneyTrouble
from yarrow_lane.store.store import Store

WRITER = """
import sys
from datetime import datetime, UTC
from pathlib import Path
from yarrow_lane.store.store import Store
store = Store(Path(sys.argv[1]), datetime.now(UTC).date())
print("open", flush=True)
while True:
    store.database.happen_numbered("c0001", "invoice", lambda n: '{"v":6,"kind":"paid","number":%d}' % n)
"""


def numbers(folder: Path) -> list[int]:
    store = Store(folder, NOON.date())
    try:
        found = [json.loads(t)["number"] for t in store.database.happenings("c0001")]
        assert store.database.last_of("invoice") == len(found)
        return found
    finally:
        store.close()


def test_no_gap_and_no_double_over_kills(tmp_path):
    folder = tmp_path / "studio"
    Store(folder, NOON.date()).close()
    before = 0
    for kill in range(6):
        writer = subprocess.Popen([sys.executable, "-c", WRITER, str(folder)], stdout=subprocess.PIPE, text=True)
        assert writer.stdout is not None and writer.stdout.readline() == "open\n"
        time.sleep(0.03 + 0.017 * kill)
        os.kill(writer.pid, signal.SIGKILL)
        writer.wait()
        writer.stdout.close()
        found = numbers(folder)
        assert found == list(range(1, len(found) + 1)) and len(found) >= before
        before = len(found)
    assert before > 6


def test_what_is_refused_uses_no_number_up(desk):
    cid = desk.start_commission(new_brief("Quill", "cat", "T. Haldane", "acrylic", NOON.date(), None))
    other = desk.start_commission(new_brief("Fennel", "dog", "M. Aldous", "acrylic", NOON.date(), None))

    def refused(number: int) -> Paid:
        raise MoneyTrouble("The payment was not written", f"number {number} cannot be")

    for about in (cid, other, "studio", cid):
        with pytest.raises(MoneyTrouble):
            desk.books.enter_numbered(about, "receipt", refused)
        desk.books.enter_numbered(about, "receipt", lambda n: Paid(NOON, n, 1, 5, "EUR", NOON.date()))
    assert [h.number for h in desk.books.log(cid)] == [1, 4] and [h.number for h in desk.books.log("studio")] == [3]
    desk.books.enter_numbered(cid, "cost", lambda n: Paid(NOON, n, 1, 5, "EUR", NOON.date()))
    assert desk.books.log(cid)[-1].number == 1, "each series counts by itself"


def test_the_books_know_what_the_disk_knows(desk):
    cid = desk.start_commission(new_brief("Quill", "cat", "T. Haldane", "acrylic", NOON.date(), None))
    desk.books.account(cid)  # read before anything happened
    desk.books.enter(cid, PriceAgreed(NOON, 480_00, 192_00, "EUR"))
    assert desk.books.account(cid).price == 480_00 == desk.commission(cid).log[-1].price
    desk.books.read_again()
    assert desk.books.account(cid).price == 480_00 and desk.books.accounts().keys() == {cid}
    assert not desk.undo("studio") or desk.books.account(cid).price == 480_00, "what happened is not taken back"


def test_entries_of_other_kinds_are_not_read_for_the_books(desk):
    from yarrow_lane.lane.happening import ClockStarted

    cid = desk.start_commission(new_brief("Quill", "cat", "T. Haldane", "acrylic", NOON.date(), None))
    desk.happen(cid, ClockStarted(NOON, "1", "a pass"))
    desk.books.read_again()
    assert desk.books.log(cid) == ()


def test_money_that_was_tampered_with_is_in_no_sum_and_is_named(desk):

    ids = [desk.start_commission(new_brief(n, "cat", "T.", "acrylic", NOON.date(), None)) for n in ("Quill", "Moss")]
    for cid in ids:
        desk.books.enter(cid, PriceAgreed(NOON, 480_00, 192_00, "EUR"))
    with sqlite3.connect(desk.store.folder / "studio.db") as raw:
        raw.execute("UPDATE happening SET json = replace(json, '48000', '4800') WHERE document = ?", (ids[0],))
    desk.books.read_again()
    assert set(desk.books.accounts()) == {ids[1]} and desk.books.damaged == {ids[0]}
