"""Books: balances over ten thousand operations, numbers over a hundred kills, a year on screen, papers and archives."""

import os
import random
import signal
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from dataclasses import replace
from datetime import timedelta
from decimal import Decimal
from pathlib import Path

from tests.conftest import NOON, jpeg_of
from tests.doing import do_part, photo_from_file
from tests.rooms.books.paying import Book
from tests.rooms.books.test_ledger import do, kept
from tests.store.test_numbers import WRITER, numbers

from bench.figures import figure
from yarrow_lane.books.ledger import balances, postings
from yarrow_lane.books.terms import Terms
from yarrow_lane.demo.scene import SetClock
from yarrow_lane.desk.desk import Desk
from yarrow_lane.intake.brief import SITTER_KINDS, new_brief
from yarrow_lane.intake.photos import add_photos
from yarrow_lane.store.store import Store

_STEPS = ("agree", "invoice", "pay", "pay", "credit", "back", "cost", "cost paid", "strike", "wait")
_CHUNK = 64 << 20


def _operations() -> Iterator[str]:
    """Ten thousand random operations over fifty commissions; every balance against a sum of its own, after each hundredth."""
    rng, off, done = random.Random(14), 0, 0
    books = [Book(Terms(tax_bp=rng.choice((0, 700, 1900, 2000)))) for _ in range(50)]
    for n in range(10_000):
        book = rng.choice(books)
        before = len(book.log)
        do(book, rng.choice(_STEPS), rng.randrange(200_000))
        done += len(book.log) > before
        if n % 100 == 99:
            found = balances(postings("c", book.log))
            owed, bank = kept(book)
            off += sum(found.values()) != 0
            off += Decimal(found.get(("EUR", "clients"), 0)) / 100 != owed
            off += Decimal(found.get(("EUR", "bank"), 0)) / 100 != bank
    for book in books:
        found = balances(postings("c", book.log))
        off += sum(found.values()) != 0 or Decimal(found.get(("EUR", "clients"), 0)) / 100 != kept(book)[0]
    yield figure("balances off after 10,000 operations", off, 0, f"of {done} entries")


def _kills() -> Iterator[str]:
    with tempfile.TemporaryDirectory() as place:
        folder = Path(place) / "studio"
        Store(folder, NOON.date()).close()
        broken = last = 0
        rng = random.Random(3)
        for _ in range(100):
            writer = subprocess.Popen([sys.executable, "-c", WRITER, str(folder)], stdout=subprocess.PIPE, text=True)
            assert writer.stdout is not None
            writer.stdout.readline()
            time.sleep(rng.uniform(0.0, 0.12))
            os.kill(writer.pid, signal.SIGKILL)
            writer.wait()
            writer.stdout.close()
            found = numbers(folder)
            broken += found != list(range(1, len(found) + 1)) or len(found) < last
            last = len(found)
        yield figure("series broken over 100 kills", broken, 0, f"of {last} numbers")


def _studio(folder: Path, count: int) -> tuple[Store, Desk]:
    """So many commissions of a year, each with its money and its hours."""
    from yarrow_lane.demo.money import Till
    from yarrow_lane.lane.happening import ClockStarted, ClockStopped

    store, clock = Store(folder, NOON.date()), SetClock(NOON)
    desk = Desk(store, clock)
    rng = random.Random(5)
    for n in range(count):
        begun = rng.randrange(5, 60)
        clock.now = NOON - timedelta(days=begun)
        cid = desk.start_commission(
            new_brief(f"Sitter {n}", rng.choice(SITTER_KINDS), f"Client {n % 90}", "acrylic", clock.now.date(), None)
        )
        do_part(desk, cid, "size", "compose", lambda c: replace(c, width_mm=300.0, height_mm=400.0))
        till = Till(desk, clock, NOON, cid)
        till.at(-begun).agree(rng.randrange(300, 900) * 100, 120_00)
        number = till.invoice("deposit", 120_00)
        if n % 3:
            till.at(-begun + 2).pay(number, 120_00)
        for hours in range(8):
            start = clock.now + timedelta(hours=hours)
            desk.happen(cid, ClockStarted(start, "", "painting"))
            desk.happen(cid, ClockStopped(start + timedelta(minutes=50), "", "painting"))
        if n >= 20:
            desk.put_away(cid)
    clock.now = NOON
    return store, desk


def _screen() -> Iterator[str]:
    """A year of two hundred commissions: the page shown again after an entry, and the year sheet; the window as it stands."""
    from PySide6.QtWidgets import QApplication

    from yarrow_lane.ui.theme.lettering import load_fonts
    from yarrow_lane.ui.window import Window
    from yarrow_lane.workers.pool import Workers

    application = QApplication.instance() or QApplication(["bench"])
    load_fonts()
    with tempfile.TemporaryDirectory() as place:
        store, desk = _studio(Path(place) / "studio", 200)
        workers = Workers()
        window = Window(desk, workers)
        window.resize(1280, 800)
        window.show()
        window.open_hall("books", "")
        window.grab()
        page = window.current
        spent = []
        for mode in ("money", "year", "clients", "year"):
            begin = time.process_time()
            page.show_mode(mode)
            window.grab()
            spent.append(time.process_time() - begin)
        yield figure("a year of 200 commissions on screen, CPU", max(spent[1], spent[3]), 0.2, "s")
        yield figure("their money in time on screen, CPU", spent[0], 0.2, "s")
        page.looked_at = 0
        window.end()
        workers.close()
        store.close()
    application.processEvents()


def _papers() -> Iterator[str]:
    import skimage.data
    from tests.rooms.documents.test_papers import certificate

    from yarrow_lane.documents.page_style import paper_pdf

    picture = jpeg_of(skimage.data.astronaut())
    paper_pdf(certificate(picture))
    begin = time.process_time()
    paper_pdf(certificate(picture, "Somebody Else"))
    yield figure("a certificate, CPU", time.process_time() - begin, 0.5, "s")


_WRITE = """
import sys
from pathlib import Path
from datetime import datetime, UTC
from yarrow_lane.desk.desk import Desk
from yarrow_lane.store.archive import write_archive, read_archive
from yarrow_lane.store.store import Store
now = datetime.now(UTC)
store = Store(Path(sys.argv[1]), now.date())
desk = Desk(store, lambda: now)
c = desk.commission("c0001")
found = write_archive(c, store.photos, {}, Path(sys.argv[2]))
again = read_archive(Path(sys.argv[2]))
equal = again.commission == c and again.commission.log == c.log and again.pictures == found.pictures
# The kernel's own peak of this program: what getrusage tells begins with that of the process that started it.
peak = next(line for line in Path("/proc/self/status").read_text().splitlines() if line.startswith("VmHWM"))
print(equal, int(peak.split()[1]) // 1024, sum(found.pictures.values()))
"""


def _archive() -> Iterator[str]:
    """Half a gigabyte of photographs, in a process of its own whose peak is read."""
    import skimage.data

    with tempfile.TemporaryDirectory() as place:
        folder, target = Path(place) / "studio", Path(place) / "a.zip"
        store = Store(folder, NOON.date())
        desk = Desk(store, SetClock(NOON))
        cid = desk.start_commission(new_brief("Quill", "cat", "T. Haldane", "acrylic", NOON.date(), None))
        photo = photo_from_file(desk, jpeg_of(skimage.data.cat()), "cat.jpg")
        for n in range(8):
            thing = store.photos.keep(random.Random(n).randbytes(1 << 20) * (_CHUNK >> 20))
            do_part(desk, cid, "Took", "intake", lambda i, t=thing: add_photos(i, (replace(photo, id=t, name=f"{t[:4]}.jpg"),)))
        store.close()
        done = subprocess.run(
            [sys.executable, "-c", _WRITE, str(folder), str(target)], capture_output=True, text=True, check=True
        )
        equal, peak, size = done.stdout.split()
        yield figure("an archive read back unequal", float(equal != "True"), 0, f"of {int(size) >> 20} MB")
        yield figure("its memory at most", float(peak), 200.0, "MB")


def measure() -> Iterator[str]:
    """All figures of Books."""
    yield from _operations()
    yield from _kills()
    yield from _screen()
    yield from _papers()
    yield from _archive()
