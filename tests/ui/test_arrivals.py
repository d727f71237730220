"""Photographs coming in: each lands or is named, whatever its name and whatever the disk does; a damaged one is mended by itself."""

import os
from pathlib import Path

import pytest
from PySide6.QtCore import QMimeData, QUrl

from tests.conftest import jpeg_of
from yarrow_lane.store.trouble import StoreTrouble
from yarrow_lane.ui.pasting import local_files


@pytest.fixture
def intake(window, commission_id):
    window.open_door(commission_id, "Intake")
    return window.desk


def taken(desk, commission_id) -> list[str]:
    return [p.name for p in desk.commission(commission_id).intake.photos]


def test_a_name_that_is_no_utf8_takes_nothing_with_it(window, intake, commission_id, cat, tmp_path, wait_idle):
    handful = tmp_path / "handful"
    handful.mkdir()
    (handful / "a.jpg").write_bytes(jpeg_of(cat))
    odd = Path(os.fsdecode(os.fsencode(handful) + b"/caf\xe9 \x1b[1m.jpg"))
    odd.write_bytes(jpeg_of(cat[::2, ::2]))
    (handful / "z\u202egpj.exe.jpg").write_bytes(jpeg_of(cat[::3, ::3]))
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(handful))])
    window.take_files(local_files(data))
    wait_idle(window)
    assert sorted(taken(intake, commission_id)) == ["a.jpg", "caf\ufffd [1m.jpg", "zgpj.exe.jpg"]
    assert window.message.text == "All photographs are in."


def test_a_dropped_address_gives_the_file_by_its_bytes(tmp_path):
    odd = os.fsencode(tmp_path) + b"/caf\xe9 100% #1?.jpg"
    Path(os.fsdecode(odd)).write_bytes(b"x")
    address = b"file://" + odd.replace(b"%", b"%25").replace(b" ", b"%20").replace(b"\xe9", b"%E9").replace(
        b"#", b"%23"
    ).replace(b"?", b"%3F")
    data = QMimeData()
    data.setUrls([QUrl.fromEncoded(address), QUrl("https://example.org/a.jpg")])
    (path,) = local_files(data)
    assert os.fsencode(path) == odd and path.exists()


def test_a_fault_in_one_file_takes_no_other_with_it(window, intake, commission_id, cat, tmp_path, wait_idle, monkeypatch):
    for n in (1, 2, 3):
        (tmp_path / f"{n}.jpg").write_bytes(jpeg_of(cat[::n, ::n]))
    usual = window.workroom.photographs.photo_from_file

    def odd(path, name, *more):
        if name == "2.jpg":
            raise ZeroDivisionError
        return usual(path, name, *more)

    monkeypatch.setattr(window.workroom.photographs, "photo_from_file", odd)
    window.take_files([tmp_path / f"{n}.jpg" for n in (1, 2, 3)])
    wait_idle(window)
    assert taken(intake, commission_id) == ["1.jpg", "3.jpg"]
    assert (
        window.message.text.startswith("2 of 3 photographs are in. “2.jpg” was not taken in") and "log" in window.message.text
    )


def test_a_full_disk_names_every_photograph_that_is_not_on_record(
    window, intake, commission_id, cat, tmp_path, wait_idle, monkeypatch
):
    for n in (1, 2):
        (tmp_path / f"{n}.jpg").write_bytes(jpeg_of(cat[::n, ::n]))

    def full(*_, **__):
        raise StoreTrouble("The studio could not be written", "the disk is full")

    with monkeypatch.context() as patch:
        patch.setattr(intake.store.database, "append", full)
        window.take_files([tmp_path / "1.jpg", tmp_path / "2.jpg"])
        wait_idle(window)
    words = window.message.text
    assert words.startswith("0 of 2 photographs are in.") and "“1.jpg”" in words and "“2.jpg”" in words and "full" in words
    assert taken(intake, commission_id) == []
    window.take_files([tmp_path / "1.jpg", tmp_path / "2.jpg"])
    wait_idle(window)
    assert taken(intake, commission_id) == ["1.jpg", "2.jpg"] and window.message.text == "All photographs are in."


def test_what_holds_no_file_is_said(window, intake, commission_id, tmp_path, wait_idle):
    (tmp_path / "empty").mkdir()
    window.take_files([tmp_path / "empty"])
    wait_idle(window)
    assert window.message.text == "There is no file in what was dropped."


@pytest.mark.parametrize("harm", ["zeroed", "gone"])
def test_a_damaged_photograph_says_what_mends_it_and_is_mended_by_dropping_it(
    window, intake, commission_id, cat_file, wait_idle, harm
):
    window.take_files([cat_file])
    wait_idle(window)
    photo = intake.commission(commission_id).intake.photos[0]
    path = intake.store.photos.path(photo.id)
    path.unlink() if harm == "gone" else path.write_bytes(bytes(path.stat().st_size))
    window.workroom.derived._kept.clear()
    window.message.clear()
    window.current.look_closer(photo.id)
    wait_idle(window)
    assert "“cat.jpg” is" in window.message.text and "drop the file “cat.jpg” on the window again" in window.message.text
    window.take_files([cat_file])
    wait_idle(window)
    assert intake.store.photos.read(photo.id, "cat.jpg") and taken(intake, commission_id) == ["cat.jpg"]
    window.message.clear()
    window.current.look_closer(photo.id)
    wait_idle(window)
    assert window.message.text == ""
