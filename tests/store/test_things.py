"""Large things as files: named by content, checked, given up a month after nothing names them; the cache keeps its budget."""

import os
from datetime import timedelta

import pytest

from tests.conftest import NOON, jpeg_of
from tests.doing import do_part, photo_from_file
from yarrow_lane.intake.photos import INTAKE, add_photo, take_away
from yarrow_lane.lane.happening import Photographed
from yarrow_lane.lane.part import Edit
from yarrow_lane.store.cache import Cache
from yarrow_lane.store.references import names_in
from yarrow_lane.store.things import Things, write_synced
from yarrow_lane.store.trouble import StoreTrouble


def test_what_is_read_is_what_was_stored(tmp_path):
    things = Things(tmp_path, "masks")
    name = things.keep(b"a mask")
    assert things.read(name, "the mask") == b"a mask" and list(things.names()) == [name]
    things.path(name).write_bytes(b"a mesk")
    with pytest.raises(StoreTrouble, match=r"the mask.*damaged"):
        things.read(name, "the mask")


def test_files_are_synced_before_they_are_named_and_their_folder_after(tmp_path, monkeypatch):
    """Power may go at any moment: the bytes first, then the name, then the folder that holds the name (POSIX fsync)."""
    calls = []
    fsync, replace = os.fsync, os.replace

    def synced(handle):
        calls.append("folder" if os.path.isdir(f"/proc/self/fd/{handle}") else "file")  # noqa: PTH112
        fsync(handle)

    monkeypatch.setattr(os, "fsync", synced)
    monkeypatch.setattr(os, "replace", lambda a, b: (calls.append("name"), replace(a, b)))
    write_synced(tmp_path / "new" / "thing", b"x" * 100_000)
    assert calls == ["file", "name", "folder"] and (tmp_path / "new" / "thing").stat().st_size == 100_000


def test_a_write_that_fails_leaves_the_old_file(tmp_path, monkeypatch):
    path = tmp_path / "thing"
    write_synced(path, b"old")
    monkeypatch.setattr(os, "fsync", lambda handle: (_ for _ in ()).throw(OSError(28, "No space left on device")))
    with pytest.raises(OSError, match="No space"):
        write_synced(path, b"new and longer")
    assert path.read_bytes() == b"old" and list(tmp_path.iterdir()) == [path]


def test_photographs_nobody_names_go_after_a_month_and_not_before(desk, clock, commission_id, cat):
    photo = photo_from_file(desk, jpeg_of(cat), "cat.jpg")
    stays = photo_from_file(desk, jpeg_of(cat[::2]), "small.jpg")
    painting = desk.store.photos.keep(b"the painting")
    stranger = desk.store.photos.keep(b"read while the window closed")
    desk.happen(commission_id, Photographed(NOON, painting, "easel.jpg"), "Check")
    do_part(desk, commission_id, "in", "intake", lambda i: add_photo(add_photo(i, photo), stays))
    desk.do(commission_id, Edit(INTAKE, "away", lambda i: take_away(i, photo.id)))

    def tidy_after(days):
        clock.now = NOON + timedelta(days=days)
        for _ in desk.tidy():
            pass
        return set(desk.store.photos.names())

    everything = {photo.id, stays.id, painting, stranger}
    assert tidy_after(0) == everything and tidy_after(29) == everything, "undo can still bring it back"
    assert tidy_after(31) == everything, "the copy of the first day may name it"
    (desk.store.folder / "backups" / "2026-03-09.db").unlink()
    assert tidy_after(31) == everything - {stranger}
    do_part(desk, commission_id, "later", "tone", lambda t: type(t)(ground="white"))
    tidy_after(200)
    assert tidy_after(240) >= {stays.id, painting}


def test_names_in_a_part():
    name = "ab" * 32
    assert names_in(f'{{"id":"{name}","shot":"{"0" * 63}"}}') == {name}


def test_the_cache_keeps_its_budget_and_the_oldest_go_first(tmp_path):
    cache = Cache(tmp_path)
    for n in range(6):
        cache.put(f"slot {n}", "k", bytes(1000))
        for path in (tmp_path / "cache").rglob("*"):
            if path.is_file() and path.stat().st_mtime > 1e9:
                os.utime(path, (n, n))
    assert list(cache.trim(3500)), "in steps"
    assert [cache.get(f"slot {n}", "k") is not None for n in range(6)] == [False, False, False, True, True, True]


def test_a_mark_nudged_a_hundred_times_leaves_one_file(tmp_path):
    cache = Cache(tmp_path)
    for n in range(100):
        cache.put("evidence of p1", f"eye at {n}", b"measured")
    assert len([p for p in (tmp_path / "cache").rglob("*") if p.is_file()]) == 1
    assert cache.get("evidence of p1", "eye at 98") is None and cache.get("evidence of p1", "eye at 99") == b"measured"


def test_a_damaged_file_is_mended_by_dropping_it_again(tmp_path):
    """A file of the right size may still be nothing but zeros, as some disks leave it after a loss of power."""
    things = Things(tmp_path, "photos")
    name = things.keep(b"a photograph")
    things.path(name).write_bytes(bytes(len(b"a photograph")))
    with pytest.raises(StoreTrouble, match="damaged"):
        things.read(name, "cat.jpg")
    assert things.keep(b"a photograph") == name and things.read(name, "cat.jpg") == b"a photograph"


def test_what_a_kill_left_half_written_goes_after_a_day(desk, clock):
    left = [desk.store.folder / place / "ab" / ".part-x1" for place in ("photos", "cache")]
    for path in left:
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_bytes(b"half")
        os.utime(path, (clock().timestamp(), clock().timestamp()))
    for hours, there in ((1, True), (30, False)):
        clock.now = NOON + timedelta(hours=hours)
        for _ in desk.tidy():
            pass
        assert [p.exists() for p in left] == [there, there]
