"""What was acknowledged is on the disk, not on its way there; what cannot be written is said and changes nothing."""

import sqlite3

import pytest

from tests.conftest import NOON
from tests.doing import do_part
from tests.store.bad_disk import BadDisk
from yarrow_lane.demo.scene import SetClock
from yarrow_lane.desk.desk import Desk
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.lane.happening import LetterSent
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.store.store import Store
from yarrow_lane.tone.record import Tone


@pytest.fixture
def disk():
    with BadDisk() as disk:
        yield disk


def begun(folder, clock) -> tuple[Store, Desk, str]:
    store = Store(folder, NOON.date())
    desk = Desk(store, clock)
    return store, desk, desk.start_commission(new_brief("Pip", "cat", "", "acrylic", NOON.date(), None))


def test_the_disk_forgets_what_is_not_synced(disk, tmp_path):
    """The stand-in itself: a database that does not sync loses everything on it."""
    for mode, kept in (("OFF", False), ("FULL", True)):
        folder = tmp_path / mode
        folder.mkdir()
        sql = sqlite3.connect(folder / "a.db", isolation_level=None)
        sql.execute(f"PRAGMA synchronous = {mode}")
        sql.execute("CREATE TABLE t (a)")
        sql.execute("INSERT INTO t VALUES (1)")
        after = disk.crashed(folder, tmp_path / f"{mode} after")
        try:
            found = sqlite3.connect(after / "a.db").execute("SELECT a FROM t").fetchall() == [(1,)]
        except sqlite3.Error:
            found = False
        sql.close()
        assert found is kept


def test_every_acknowledged_edit_survives_a_loss_of_power(disk, tmp_path):
    clock = SetClock(NOON)
    store, desk, cid = begun(tmp_path / "s", clock)
    for n in range(6):
        before = disk.syncs
        if n % 3 == 0:
            do_part(desk, cid, "Coats", "tone", lambda t, n=n: Tone(ground_coats=n + 1))
        elif n % 3 == 1:
            desk.happen(cid, LetterSent(NOON, n, "letter"), "Intake")
        else:
            desk.undo(cid)
        assert disk.syncs > before
        after = Store(disk.crashed(tmp_path / "s", tmp_path / f"after {n}"), NOON.date())
        assert Desk(after, clock).commission(cid) == desk.commission(cid)
        after.close()
    store.close()


@pytest.mark.parametrize("room", [0, 1, 2])
def test_a_full_disk_is_said_and_nothing_is_lost(disk, tmp_path, room):
    clock = SetClock(NOON)
    store, desk, cid = begun(tmp_path / "s", clock)
    do_part(desk, cid, "Ground", "tone", lambda t: Tone(ground="umber"))
    held = desk.commission(cid)
    disk.room = room
    with pytest.raises(Trouble, match=r"(?i)full|not saved|not written"):
        do_part(desk, cid, "Ground", "tone", lambda t: Tone(ground="x" * 20_000))
    assert desk.commission(cid) == held and Desk(store, clock).commission(cid) == held
    disk.room = None
    do_part(desk, cid, "Ground", "tone", lambda t: Tone(ground="ochre"))
    assert Desk(store, clock).commission(cid).tone.ground == "ochre" and store.database.sound()
    store.close()
