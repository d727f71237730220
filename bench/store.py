"""Nothing lost, nothing in, nothing unseen: the studio under attack. Minutes for the random hands: `STORE_MINUTES` (30)."""

import os
import sys
import tempfile
from collections.abc import Iterator
from datetime import UTC, datetime
from pathlib import Path

from PySide6.QtWidgets import QApplication

from bench.attacks import databases, fillings, hands, kills, openings, pictures
from bench.attacks.counts import Counts
from bench.figures import figure
from yarrow_lane.demo.build import build_demo
from yarrow_lane.desk.desk import Desk
from yarrow_lane.store.store import Store
from yarrow_lane.ui.theme.lettering import load_fonts
from yarrow_lane.ui.window import Window
from yarrow_lane.workers.pool import Workers

_SEED = int(os.environ.get("STORE_SEED", "1"))
_MINUTES = float(os.environ.get("STORE_MINUTES", "30"))
KILLS, FILLINGS, PICTURES, DATABASES, OPENINGS = 200, 50, 2000, 200, 200


def measure() -> Iterator[str]:
    """Each attack's counts, then what it holds against the goals."""
    whole = Counts()
    with tempfile.TemporaryDirectory() as work:
        place = Path(work)
        for name, attack in (
            ("kills", lambda: kills.attack(place / "kills", KILLS, _SEED)),
            ("fillings", lambda: fillings.attack(place / "disk", FILLINGS, _SEED)),
            ("pictures", lambda: pictures.attack(PICTURES, _SEED)),
            ("databases", lambda: databases.attack(place / "databases", DATABASES, _SEED)),
            ("openings", lambda: openings.attack(place / "openings", OPENINGS, _SEED)),
        ):
            counts = attack()
            yield _told(name, counts)
            _add(whole, counts)
        counts, growth = _hands(place)
        yield _told(f"hands, {_MINUTES:g} minutes", counts)
        _add(whole, counts)
    yield figure("lost", len(whole.lost), 0, "times")
    yield figure("unseen", len(whole.unseen), 0, "times")
    yield figure("tracebacks", len(whole.tracebacks), 0, "times")
    yield figure("over 2 GB", len(whole.too_much_memory), 0, "times")
    yield figure("over 20 s", len(whole.too_slow), 0, "times")
    yield figure("growth of memory under random hands", 100 * growth, 5, "%")
    for sentence in whole.bad:
        print(sentence, file=sys.stderr)


def _told(name: str, c: Counts) -> str:
    bad = len(c.bad)
    return f"{name}: {c.tried} tried, {c.held} held, {c.said} said in words, {bad} bad"


def _add(whole: Counts, counts: Counts) -> None:
    for kind in ("lost", "unseen", "tracebacks", "too_much_memory", "too_slow"):
        getattr(whole, kind).extend(getattr(counts, kind))


def _hands(place: Path) -> tuple[Counts, float]:
    qt = QApplication.instance() or QApplication(["bench"])
    assert isinstance(qt, QApplication)
    qt.setStyle("Fusion")
    load_fonts()
    unseen: list[str] = []
    sys.excepthook = lambda kind, error, _: unseen.append(f"{kind.__name__}: {error}")
    now = datetime.now(UTC)
    build_demo(place / "demo", now)
    (place / "files").mkdir()
    hands.without_dialogs(place / "files")
    store, workers = Store(place / "demo", now.date()), Workers()
    window = Window(Desk(store, lambda: datetime.now(UTC)), workers)
    window.show()
    counts, growth = hands.attack(window, place / "files", 60 * _MINUTES, _SEED, _resident)
    window.end()
    workers.close()
    if not store.database.sound():
        counts.lost.append("the file is not sound after the hands")
    store.close()
    counts.tracebacks += unseen
    return counts, growth


def _resident() -> int:
    """Bytes of this process in memory."""
    return int(Path("/proc/self/statm").read_text().split()[1]) * os.sysconf("SC_PAGESIZE")
