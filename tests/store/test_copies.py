"""Copies of the studio's file: which are kept, that none is given up for a worse one, and that restoring brings everything back."""

import os
import shutil
import signal
import subprocess
import sys
import threading
from datetime import date, timedelta

import pytest

from tests.conftest import NOON
from tests.doing import do_part
from yarrow_lane.desk.desk import Desk
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.store import database as database_module
from yarrow_lane.store.copies import copies_in, keepers, look_at
from yarrow_lane.store.restore import restore
from yarrow_lane.store.store import Store
from yarrow_lane.store.trouble import Damaged, StoreTrouble
from yarrow_lane.tone.record import Tone

TODAY = date(2026, 3, 9)


def looked_over(folder):
    """Every copy, the newest first, as the sheet of copies shows them."""
    return [look_at(path, whole=True) for path in copies_in(folder)]


def names(folder) -> list[str]:
    return sorted(p.name for p in (folder / "backups").iterdir())


def begun(folder, clock, *titles: str):
    store = Store(folder, clock().date())
    desk = Desk(store, clock)
    for title in titles:
        desk.start_commission(new_brief(title, "cat", "", "acrylic", clock().date(), None))
    store.database.daily_copy(clock().date())
    return store, desk


def next_day(folder, clock) -> None:
    clock.now += timedelta(days=1)
    Store(folder, clock().date()).close()


def test_a_week_of_days_a_month_of_weeks_a_year_of_months():
    days = [TODAY - timedelta(days=n) for n in range(1000)]
    kept = {day for day, keeper in keepers(days).items() if keeper == day}
    assert kept >= set(days[:7])
    assert {date(2026, 3, 1), date(2026, 2, 22)} < kept, "the Sundays of the weeks before"
    ends = {date(2025, m, d) for m, d in ((4, 30), (5, 31), (6, 30), (9, 30), (12, 31))}
    assert ends < kept and min(kept) == date(2025, 4, 30) and len(kept) == 7 + 2 + 11
    assert all(keeper >= day for day, keeper in keepers(days).items())


def test_thinned_day_by_day_the_same_ones_stay():
    """What goes today must not be what is wanted next month."""
    here: set[date] = set()
    for n in range(500):
        here.add(TODAY + timedelta(days=n))
        here = {day for day, keeper in keepers(here).items() if keeper == day}
    whole = keepers([TODAY + timedelta(days=n) for n in range(500)])
    assert here == {day for day, keeper in whole.items() if keeper == day}


def test_one_copy_a_day(tmp_path, clock):
    begun(tmp_path / "s", clock)[0].close()
    for _ in range(11):
        next_day(tmp_path / "s", clock)
    assert names(tmp_path / "s") == [f"2026-03-{d}.db" for d in range(14, 21)], "the week before ended on the 15th"
    assert all(look_at(p, True).sound for p in copies_in(tmp_path / "s"))


def test_a_day_that_begins_while_the_window_is_open_has_its_copy(desk, clock, commission_id):
    clock.now += timedelta(days=1)
    for _ in desk.tidy():
        pass
    assert names(desk.store.folder) == ["2026-03-10.db"]
    assert look_at(desk.store.folder / "backups" / "2026-03-10.db", True).commissions == 1


@pytest.mark.parametrize("harm", ["unsound", "emptier"])
def test_a_sound_copy_is_not_given_up_for_a_worse_one(tmp_path, clock, harm, monkeypatch):
    store, _ = begun(tmp_path / "s", clock, "Pip")
    store.close()
    next_day(tmp_path / "s", clock)
    good = tmp_path / "s" / "backups" / "2026-03-10.db"
    for _ in range(20):
        clock.now += timedelta(days=1)
        copy = tmp_path / "s" / "backups" / f"{clock().date()}.db"
        if harm == "unsound":
            copy.write_bytes(good.read_bytes()[:5000] + bytes(9000))
        else:
            Store(tmp_path / "new", TODAY).close()
            shutil.copyfile(tmp_path / "new" / "studio.db", copy)
        database_module.thin(tmp_path / "s")
    assert good.exists() and look_at(good, True).sound


def test_a_damaged_file_is_not_copied(tmp_path, clock):
    store, _ = begun(tmp_path / "s", clock, *(f"Sitter {n}" for n in range(30)))
    store.database.checkpoint()
    store.close()
    path = tmp_path / "s" / "studio.db"
    data = bytearray(path.read_bytes())
    # The header of the last page: SQLite's own check reads every page, opening reads a few.
    data[-4096:-4080] = b"\xff" * 16
    path.write_bytes(data)
    store = Store(tmp_path / "s", TODAY + timedelta(days=1))
    assert store.trouble is not None and "damage" in store.trouble.sentence and "restore a copy" in store.trouble.sentence
    assert names(tmp_path / "s") == ["2026-03-09.db"]
    store.close()


def test_a_copy_that_cannot_be_made_is_said_once(tmp_path, clock, monkeypatch):
    def full(*_):
        raise OSError(28, "No space left on device")

    begun(tmp_path / "s", clock, "Pip")[0].close()
    monkeypatch.setattr(os, "fsync", full)
    store = Store(tmp_path / "s", TODAY + timedelta(days=1))
    assert "daily copy" in store.trouble.sentence and "full" in store.trouble.sentence
    monkeypatch.undo()
    assert list(store.tidy(NOON + timedelta(days=1))), "said once: the tidying of that day does not say it again"
    with monkeypatch.context() as patch:
        patch.setattr(os, "fsync", full)
        with pytest.raises(StoreTrouble, match="daily copy"):
            next(store.tidy(NOON + timedelta(days=2)))
    store.close()


# --- restoring


def damaged_studio(folder, clock):
    """A studio whose file is broken while changes made after its copy lie in the write-ahead log, as a kill leaves them."""
    store, desk = begun(folder, clock, "Pip", "Moss")
    store.database.backup("2026-03-09")
    store.database.checkpoint()
    wanted = desk.commission("c0001")
    do_part(desk, "c0001", "Ground", "tone", lambda t: Tone(ground="made after the copy"))
    kept = {p.name: p.read_bytes() for p in folder.glob("studio.db*")}
    store.close()
    for name, data in kept.items():
        (folder / name).write_bytes(data)
    assert (folder / "studio.db-wal").stat().st_size > 0
    (folder / "studio.db").write_bytes(b"gone to pieces" * 999)
    with pytest.raises(Damaged, match="restore a copy"):
        Store(folder, clock().date())
    return wanted


def test_restoring_brings_the_copy_back_and_sets_the_rest_aside(tmp_path, clock):
    folder = tmp_path / "s"
    wanted = damaged_studio(folder, clock)
    (copy,) = looked_over(folder)
    assert copy.sound and copy.commissions == 2 and copy.day == TODAY
    aside = restore(folder, copy.path, NOON)
    assert (aside / "studio.db").read_bytes().startswith(b"gone to pieces") and (aside / "studio.db-wal").exists()
    store = Store(folder, clock().date())
    assert Desk(store, clock).commission("c0001") == wanted and store.database.sound()
    store.close()
    assert restore(folder, copy.path, NOON) != aside, "a second time sets aside beside the first"


def test_an_unsound_copy_and_a_held_studio_are_not_restored(tmp_path, clock):
    folder = tmp_path / "s"
    store, _ = begun(folder, clock, "Pip")
    good = copies_in(folder)[0]
    with pytest.raises(StoreTrouble, match="open in another"):
        restore(folder, good, NOON)
    store.close()
    before = (folder / "studio.db").read_bytes()
    good.write_bytes(good.read_bytes()[:2000])
    with pytest.raises(StoreTrouble, match="was not restored"):
        restore(folder, good, NOON)
    assert (folder / "studio.db").read_bytes() == before and not looked_over(folder)[0].sound


def test_a_flipped_letter_inside_a_part_is_found(tmp_path, clock):
    store, _ = begun(tmp_path / "s", clock, "Pip")
    copy = store.database.backup("now")
    store.close()
    data = copy.read_bytes()
    assert b'"Pip"' in data
    copy.write_bytes(data.replace(b'"Pip"', b'"Pup"'))
    assert look_at(copy, whole=False).sound and "c0001" in look_at(copy, whole=True).why


@pytest.mark.parametrize("harm", ["gone", "empty", "new", "wal alone"])
def test_an_empty_file_beside_copies_is_no_new_studio(tmp_path, clock, harm):
    folder = tmp_path / "s"
    store, _ = begun(folder, clock, "Pip")
    store.photos.keep(b"a photograph")
    next_day_copy = store.database.backup("2026-03-10")
    store.close()
    path = folder / "studio.db"
    path.unlink()
    if harm == "empty":
        path.touch()
    elif harm == "new":
        Store(tmp_path / "new", TODAY).close()
        shutil.copyfile(tmp_path / "new" / "studio.db", path)
    elif harm == "wal alone":
        shutil.rmtree(folder / "backups")
        shutil.rmtree(folder / "photos")
        (folder / "studio.db-wal").write_bytes(b"changes")
    for day in range(10):
        with pytest.raises(Damaged, match=r"not opened.*restore a copy"):
            Store(folder, TODAY + timedelta(days=day))
    if harm != "wal alone":
        restore(folder, next_day_copy, NOON)
        store = Store(folder, TODAY)
        assert Desk(store, clock).commission("c0001").brief.title == "Pip"
        store.close()


def test_a_first_start_that_was_killed_starts_again(tmp_path, clock):
    """Nothing was ever started: there is nothing to lose, and the folder opens."""
    Store(tmp_path / "s", TODAY).close()
    begun(tmp_path / "s", clock, "Pip")[0].close()
    (tmp_path / "t").mkdir()
    (tmp_path / "t" / "studio.db").touch()
    begun(tmp_path / "t", clock, "Pip")[0].close()


_HOLDS = """
import sys, time
from datetime import date
from pathlib import Path
from yarrow_lane.store.store import Store
Store(Path(sys.argv[1]), date(2026, 3, 9))
print("held", flush=True)
time.sleep(60)
"""


def test_the_lock_of_a_process_that_is_just_dying_is_waited_for(tmp_path):
    with subprocess.Popen([sys.executable, "-c", _HOLDS, str(tmp_path / "s")], stdout=subprocess.PIPE, text=True) as process:
        assert process.stdout.readline() == "held\n"
        killer = threading.Timer(0.3, process.kill)
        killer.start()
        Store(tmp_path / "s", TODAY).close()
        killer.join()
    assert process.returncode == -signal.SIGKILL


def test_the_write_ahead_log_is_emptied_when_idle(desk, commission_id):
    log = desk.store.folder / "studio.db-wal"
    assert log.stat().st_size > 0
    for _ in desk.tidy():
        pass
    assert log.stat().st_size == 0


def test_a_folder_with_signs_in_its_name(tmp_path, clock):
    folder = tmp_path / "50 % of #1? é"
    store, _ = begun(folder, clock, "Pip")
    store.database.backup("now")
    store.close()
    assert all(c.sound for c in looked_over(folder))
