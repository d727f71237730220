"""Damaged studio files: each opens with its values or says what is wrong; none shows another value, none raises anything else."""

import random
import shutil
import traceback
from datetime import UTC, datetime, timedelta
from pathlib import Path

from bench.attacks.counts import Counts
from yarrow_lane.demo.build import build_demo
from yarrow_lane.demo.scene import SetClock
from yarrow_lane.desk.desk import STUDIO, Desk
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.store.copies import copies_in, look_at
from yarrow_lane.store.restore import restore
from yarrow_lane.store.store import Store
from yarrow_lane.tone.record import TONE, Tone

NOW = datetime(2026, 3, 9, 12, 0, tzinfo=UTC)
_PAGE = 4096


def attack(place: Path, count: int, seed: int) -> Counts:
    """Damage a studio's file `count` times, each time anew from the same sound one, and use it."""
    sound = place / "sound"
    build_demo(sound, NOW)
    store = Store(sound, NOW.date())
    desk = Desk(store, SetClock(NOW))
    truth = {i: desk.commission(i) for i in desk.studio.on_shelf}
    shelf = desk.studio
    store.database.backup(NOW.date().isoformat())
    store.database.checkpoint()
    store.close()
    data, dice, counts = (sound / "studio.db").read_bytes(), random.Random(seed), Counts()
    for number in range(count):
        counts.tried += 1
        folder = place / "damaged"
        shutil.rmtree(folder, ignore_errors=True)
        (folder / "backups").mkdir(parents=True)
        for copy in (sound / "backups").glob("*.db"):
            shutil.copyfile(copy, folder / "backups" / copy.name)
        (folder / "studio.db").write_bytes(damaged(data, dice))
        where = f"damage {number} of seed {seed}"
        try:
            words = _used(folder, truth, shelf, counts, where)
            counts.said += bool(words)
            counts.held += not words
            if words:
                _restored(folder, truth, counts, where)
        except Exception:
            counts.tracebacks.append(f"{where}: {traceback.format_exc()}")
    return counts


def damaged(data: bytes, dice: random.Random) -> bytes:
    """The file with one kind of damage that disks, sticks and hands do."""
    out = bytearray(data)
    pages = len(out) // _PAGE
    kind = dice.choice(("bits", "bytes", "zeros", "page lost", "page moved", "cut", "tail", "head", "lines"))
    if kind == "bits":
        for _ in range(dice.randint(1, 3)):
            out[dice.randrange(len(out))] ^= 1 << dice.randrange(8)
    elif kind == "bytes":
        for _ in range(dice.randint(1, 40)):
            out[dice.randrange(len(out))] = dice.randrange(256)
    elif kind == "zeros":
        at = dice.randrange(len(out))
        out[at : at + 512] = bytes(len(out[at : at + 512]))
    elif kind == "page lost":
        at = dice.randrange(pages) * _PAGE
        out[at : at + _PAGE] = bytes(_PAGE)
    elif kind == "page moved":
        a, b = dice.randrange(pages) * _PAGE, dice.randrange(pages) * _PAGE
        out[a : a + _PAGE] = data[b : b + _PAGE]
    elif kind == "cut":
        del out[dice.randrange(len(out)) :]
    elif kind == "tail":
        out += dice.randbytes(dice.randint(1, 9000))
    elif kind == "head":
        for _ in range(dice.randint(1, 6)):
            out[dice.randrange(100)] = dice.randrange(256)
    else:  # a program that takes it for text
        out = bytearray(data.replace(b"\n", b"\r\n"))
    return bytes(out)


def _used(folder: Path, truth: dict[str, object], shelf: object, counts: Counts, where: str) -> list[str]:
    """Open, look, change, take back and tidy up; what was said on the way. What is shown must be what was stored."""
    words: list[str] = []
    try:
        store = Store(folder, NOW.date() + timedelta(days=1))
    except Trouble as trouble:
        return [trouble.sentence]
    try:
        if store.trouble is not None:
            words.append(store.trouble.sentence)
        desk = Desk(store, SetClock(NOW + timedelta(days=1)))
        if desk.studio != shelf and not words:
            counts.unseen.append(f"{where}: other settings")
        for commission_id, stored in truth.items():
            words += _one_used(desk, commission_id, stored, counts, where)
        desk.standings.plan(NOW)
        words += [u.trouble.sentence for u in desk.standings.unreadable()]
        desk.undo(STUDIO)
        desk.redo(STUDIO)
        desk.recall("place")
        for _ in desk.tidy():
            pass
    except Trouble as trouble:
        words.append(trouble.sentence)
    finally:
        store.close()
    return words


def _one_used(desk: Desk, commission_id: str, stored: object, counts: Counts, where: str) -> list[str]:
    try:
        if desk.commission(commission_id) != stored:
            counts.unseen.append(f"{where}: {commission_id} shows what was not stored")
        desk.do(commission_id, Edit(TONE, "Ground", lambda t: Tone(ground="after the damage")))
        desk.undo(commission_id)
        for version in desk.store.database.versions.versions(commission_id):
            desk.store.database.stored(commission_id, version.number)
    except Trouble as trouble:
        return [trouble.sentence]
    return []


def _restored(folder: Path, truth: dict[str, object], counts: Counts, where: str) -> None:
    """The copy comes back with everything that was in it."""
    copy = next(
        c for c in (look_at(p, whole=True) for p in copies_in(folder)) if c.sound and c.path.stem == NOW.date().isoformat()
    )
    restore(folder, copy.path, NOW)
    store = Store(folder, NOW.date() + timedelta(days=2))
    desk = Desk(store, SetClock(NOW))
    if {i: desk.commission(i) for i in desk.studio.on_shelf} != truth:
        counts.lost.append(f"{where}: the restored copy holds other values")
    store.close()
