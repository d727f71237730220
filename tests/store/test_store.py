"""The studio on disk: nothing lost, nothing half written, trouble said before any change."""

import os
import shutil
import sqlite3
from dataclasses import replace
from datetime import date

import pytest

from tests.conftest import NOON
from yarrow_lane.commission.commission import PARTS, Commission, part_of
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.intake.photos import Eye, Photo, add_photo, mark_eye
from yarrow_lane.store.codec import from_json, text_hash, to_json
from yarrow_lane.store.store import Store
from yarrow_lane.store.trouble import StoreTrouble
from yarrow_lane.tone.record import TONE

TODAY = date(2026, 3, 9)


@pytest.fixture
def store(tmp_path):
    store = Store(tmp_path / "s", TODAY)
    yield store
    store.close()


def test_every_part_survives_writing_and_reading():
    commission = Commission("c1", new_brief("Pip", "cat", "x", "acrylic", TODAY, TODAY, "“soft” – édges"))
    commission = replace(
        commission, intake=mark_eye(add_photo(commission.intake, Photo("h", "p.jpg", 9, 9, NOON)), "h", Eye("left", 4, 4, 2.5))
    )
    for part in PARTS:
        value = part_of(commission, part)
        text = to_json(part, value)
        assert from_json(part, text) == value
        assert to_json(part, from_json(part, text)) == text


def test_a_damaged_part_names_all_its_faults():
    with pytest.raises(StoreTrouble) as error:
        from_json(TONE, '{"v":1,"squint_mm": "very", "ground_coats": 1.5}')
    assert "squint_mm" in error.value.sentence and "ground_coats" in error.value.sentence


def test_versions_share_their_parts_and_branch(store):
    db = store.database
    first = db.append("c1", {"a": "1", "b": "2"}, "one", "", NOON)
    second = db.append("c1", {"b": "3"}, "two", "Tone", NOON)
    assert db.stored("c1", first) == {"a": "1", "b": "2"}
    db.move_head("c1", first)
    assert db.versions.child("c1", first) == second
    third = db.append("c1", {"a": "9"}, "other", "", NOON)
    assert db.version("c1", third).parent == first
    assert db.versions.child("c1", first) == third
    assert db.stored("c1", second)["b"] == "3"
    assert sqlite3.connect(store.folder / "studio.db").execute("SELECT count(*) FROM part").fetchone() == (4,)


def test_pictures_are_stored_once(store, cat_file):
    data = cat_file.read_bytes()
    assert store.photos.keep(data) == store.photos.keep(data) == text_hash(data)
    assert store.photos.read(text_hash(data), "cat.jpg") == data
    files = [p for p in (store.folder / "photos").rglob("*") if p.is_file()]
    assert [f.name for f in files] == [text_hash(data)]
    files[0].unlink()
    with pytest.raises(StoreTrouble, match=r"cat\.jpg.*missing"):
        store.photos.read(text_hash(data), "cat.jpg")


def test_a_second_program_is_kept_out(store):
    with pytest.raises(StoreTrouble, match="open in another Yarrow Lane"):
        Store(store.folder, TODAY)


def test_a_newer_studio_is_refused_unchanged(tmp_path):
    Store(tmp_path / "s", TODAY).close()
    path = tmp_path / "s" / "studio.db"
    raw = sqlite3.connect(path)
    raw.execute("PRAGMA user_version = 99")
    raw.commit()
    raw.close()
    before = path.read_bytes()
    with pytest.raises(StoreTrouble, match="newer Yarrow Lane"):
        Store(tmp_path / "s", TODAY)
    assert path.read_bytes() == before


def test_read_only_and_full_and_no_folder(tmp_path, monkeypatch):
    folder = tmp_path / "s"
    folder.mkdir()
    with monkeypatch.context() as patch:  # root may write anywhere, so the answer of the system is set here
        patch.setattr(os, "access", lambda *_: False)
        with pytest.raises(StoreTrouble, match="read-only"):
            Store(folder, TODAY)
    with monkeypatch.context() as patch:
        patch.setattr(shutil, "disk_usage", lambda _: shutil._ntuple_diskusage(10, 10, 0))
        with pytest.raises(StoreTrouble, match="disk is full"):
            Store(folder, TODAY)
    assert list(folder.iterdir()) == []
    (tmp_path / "file").write_text("x")
    with pytest.raises(StoreTrouble, match="a file, not a folder"):
        Store(tmp_path / "file", TODAY)


def test_a_disk_that_fills_up_loses_nothing(store):
    db = store.database
    db.append("c1", {"a": "1"}, "one", "", NOON)
    pages = db._sql.execute("PRAGMA page_count").fetchone()[0]
    db._sql.execute(f"PRAGMA max_page_count = {pages}")
    with pytest.raises(StoreTrouble, match="disk is full"):
        for n in range(200):
            db.append("c1", {"a": str(n) * 3000}, "more", "", NOON)
    head = db.head("c1")
    db._sql.execute("PRAGMA max_page_count = 100000")
    assert db.sound() and db.head("c1") == head
    assert db.append("c1", {"a": "2"}, "again", "", NOON) == head + 1


def test_a_damaged_file_is_said(tmp_path):
    Store(tmp_path / "s", TODAY).close()
    (tmp_path / "s" / "studio.db").write_bytes(b"not a database at all" * 400)
    with pytest.raises(StoreTrouble, match=r"studio\.db is damaged.*restore a copy"):
        Store(tmp_path / "s", TODAY)


def test_the_cache_may_vanish(store):
    store.cache.put("thumb", "1", b"small picture")
    assert store.cache.get("thumb", "1") == b"small picture"
    shutil.rmtree(store.folder / "cache")
    assert store.cache.get("thumb", "1") is None
