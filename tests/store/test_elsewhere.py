"""The studio at another place and in one file: both come back with equal values, and mend what is damaged here."""

import shutil
import zipfile
from datetime import timedelta

import pytest

from tests.conftest import NOON, jpeg_of
from tests.doing import photo_from_file
from tests.store.test_copies import looked_over
from yarrow_lane.desk.desk import Desk
from yarrow_lane.intake.photos import INTAKE, add_photo
from yarrow_lane.lane.happening import LetterSent
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.progress import Cancelled, Progress
from yarrow_lane.store.bundle import write_bundle
from yarrow_lane.store.copies import copies_in
from yarrow_lane.store.elsewhere import keep_elsewhere, same_disk, wanted_at
from yarrow_lane.store.restore import restore
from yarrow_lane.store.store import Store
from yarrow_lane.store.take_in import take_in
from yarrow_lane.store.trouble import StoreTrouble


@pytest.fixture
def full(desk, commission_id, cat):
    """A studio with photographs and something that happened."""
    for step in (1, 2, 3):
        photo = photo_from_file(desk, jpeg_of(cat[::step, ::step]), f"cat {step}.jpg")
        desk.do(commission_id, Edit(INTAKE, "in", lambda i, p=photo: add_photo(i, p)))
    desk.happen(commission_id, LetterSent(NOON, 1, "Dear client,"), "Intake")
    return desk


def keep_now(store, day):
    """As the window does: a copy of the file as it is, brought with the photographs."""
    copy = store.database.copy_to(store.folder / "backups" / "keeping.part")
    return keep_elsewhere(copy, store.photos, store.elsewhere, day)


def everything(folder, clock):
    """All that is on record, with all versions, and every photograph."""
    store = Store(folder, NOON.date())
    desk = Desk(store, clock)
    found = {
        document: (
            desk.commission(document) if document != "studio" else desk.studio,
            [(v, store.database.stored(document, v.number)) for v in store.database.versions.versions(document)],
        )
        for document in store.database.versions.heads()
    }
    photos = {name: store.photos.read(name, name) for name in store.photos.names()}
    store.close()
    return found, photos


def test_a_stick_holds_what_brings_everything_back(full, clock, tmp_path):
    stick = tmp_path / "stick"
    stick.mkdir()
    store = full.store
    store.keep_elsewhere(stick)
    assert wanted_at(store.elsewhere, NOON.date())
    assert keep_now(store, NOON.date()).photographs == 3
    assert not wanted_at(store.elsewhere, NOON.date()) and wanted_at(store.elsewhere, NOON.date() + timedelta(days=1))
    assert keep_now(store, NOON.date() + timedelta(days=1)).photographs == 0, "they are there"
    store.close()
    wanted = everything(store.folder, clock)
    shutil.rmtree(store.folder)
    shutil.copytree(stick / "yarrow-lane-copy", store.folder)
    restore(store.folder, copies_in(store.folder)[0], NOON)
    assert everything(store.folder, clock) == wanted


def test_a_place_inside_the_studio_or_not_there(full, tmp_path):
    store = full.store
    with pytest.raises(StoreTrouble, match="inside the studio"):
        store.keep_elsewhere(store.folder / "photos")
    stick = tmp_path / "stick"
    store.keep_elsewhere(stick)
    assert not wanted_at(store.elsewhere, NOON.date()), "a stick that is not put in is waited for"
    with pytest.raises(StoreTrouble, match="put the stick in"):
        keep_now(store, NOON.date())
    stick.mkdir()
    assert same_disk(stick, store.folder) and not same_disk(stick, tmp_path / "nowhere")
    store.keep_elsewhere(None)
    assert store.elsewhere is None and store.photos.mirrors == ()


def test_the_place_is_remembered_and_a_bad_one_keeps_nobody_out(full, clock, tmp_path):
    store = full.store
    store.keep_elsewhere(tmp_path / "stick")
    store.close()
    again = Store(store.folder, NOON.date())
    assert again.elsewhere == tmp_path / "stick" / "yarrow-lane-copy"
    again.database.remember("copy elsewhere", str(store.folder))
    again.close()
    moved = Store(store.folder, NOON.date())
    assert moved.elsewhere is None and "inside the studio" in moved.trouble.sentence
    moved.close()


@pytest.mark.parametrize("harm", ["zeroed", "gone"])
def test_a_photograph_is_mended_from_elsewhere(full, tmp_path, harm):
    store = full.store
    stick = tmp_path / "stick"
    stick.mkdir()
    store.keep_elsewhere(stick)
    keep_now(store, NOON.date())
    name = next(store.photos.names())
    good = store.photos.read(name, "cat.jpg")
    path = store.photos.path(name)
    path.unlink() if harm == "gone" else path.write_bytes(bytes(len(good)))
    assert store.photos.sound(name, "cat.jpg").read_bytes() == good
    # And without the stick it is said what mends it.
    path.write_bytes(bytes(len(good)))
    stick.rename(tmp_path / "taken away")
    with pytest.raises(StoreTrouble, match=r"“cat\.jpg” is damaged.*drop the file “cat\.jpg”.*reachable"):
        store.photos.sound(name, "cat.jpg")


def test_a_damaged_photograph_is_never_brought_over_a_good_one(full, tmp_path):
    store = full.store
    stick = tmp_path / "stick"
    stick.mkdir()
    store.keep_elsewhere(stick)
    keep_now(store, NOON.date())
    store.photos.mirrors = ()
    name = next(store.photos.names())
    there = stick / "yarrow-lane-copy" / "photos" / name[:2] / name
    good = there.read_bytes()
    store.photos.path(name).write_bytes(b"something else")
    brought = keep_now(store, NOON.date())
    assert brought.damaged == 1 and there.read_bytes() == good and "1 damaged in the studio" in brought.words


# --- one file


def bundled(desk, tmp_path):
    copy = desk.store.database.backup("bundle")
    target = tmp_path / "studio.zip"
    assert write_bundle(copy, desk.store.photos, target).photographs == 3
    desk.store.close()
    return target


def taken_in(target, folder, clock):
    """Restore what comes from outside, as the window does."""
    for share in take_in(target, folder, NOON):
        assert 0 <= share <= 1
    (copy,) = [c for c in looked_over(folder) if c.path.stem.startswith("from ")]
    restore(folder, copy.path, NOON)
    return everything(folder, clock)


def test_one_file_reads_back_to_equal_values(full, clock, tmp_path):
    target = bundled(full, tmp_path)
    wanted = everything(full.store.folder, clock)
    (tmp_path / "empty").mkdir()
    assert taken_in(target, tmp_path / "empty", clock) == wanted
    assert taken_in(target, tmp_path / "not there yet", clock) == wanted
    # Into a studio in use: what is there is set aside, its photographs stay.
    store = Store(tmp_path / "used", NOON.date())
    Desk(store, clock)
    mine = store.photos.keep(b"mine")
    store.close()
    found, photos = taken_in(target, tmp_path / "used", clock)
    assert found == wanted[0] and photos == wanted[1] | {mine: b"mine"}
    with zipfile.ZipFile(target) as bundle:
        assert bundle.testzip() is None
        told = bundle.read("readable/c0001.json").decode()
        assert "Dear client," in told and '"cat 2.jpg"' in told and b"readable/" in bundle.read("README.txt")


def test_a_copy_on_a_stick_comes_in_with_its_photographs(full, clock, tmp_path):
    stick = tmp_path / "stick"
    stick.mkdir()
    full.store.keep_elsewhere(stick)
    keep_now(full.store, NOON.date())
    (copy,) = copies_in(full.store.elsewhere)
    full.store.close()
    assert taken_in(copy, tmp_path / "new machine", clock) == everything(full.store.folder, clock)


def test_a_damaged_photograph_does_not_keep_the_rest_out(full, tmp_path):
    name = next(full.store.photos.names())
    full.store.photos.path(name).write_bytes(b"something else")
    brought = write_bundle(full.store.database.backup("bundle"), full.store.photos, tmp_path / "studio.zip")
    assert (brought.photographs, brought.damaged) == (2, 1)


def test_a_bundle_stopped_in_the_middle_leaves_nothing(full, tmp_path):
    asked = []
    progress = Progress(asked.append, lambda: len(asked) > 1)
    with pytest.raises(Cancelled):
        write_bundle(full.store.database.backup("bundle"), full.store.photos, tmp_path / "studio.zip", progress)
    assert not list(tmp_path.glob("*.zip*"))


@pytest.mark.parametrize("harm", ["cut", "no zip", "other zip", "flipped", "other photograph", "gone", "a bad copy"])
def test_what_is_no_studio_is_said_and_changes_nothing(full, clock, tmp_path, harm):
    target = bundled(full, tmp_path)
    folder = full.store.folder
    wanted = everything(folder, clock)
    data = target.read_bytes()
    if harm == "cut":
        target.write_bytes(data[: len(data) // 2])
    elif harm == "no zip":
        target.write_bytes(b"hello" * 100)
    elif harm == "flipped":
        middle = len(data) // 2
        target.write_bytes(data[:middle] + bytes([data[middle] ^ 1]) + data[middle + 1 :])
    elif harm == "other zip":
        with zipfile.ZipFile(target, "w") as bundle:
            bundle.writestr("letter.txt", "hello")
    elif harm == "other photograph":
        with zipfile.ZipFile(target, "a") as bundle:
            bundle.writestr(f"photos/ab/{'ab' * 32}", b"not of that hash")
    elif harm == "gone":
        target.unlink()
    else:
        target = tmp_path / "studio.db"
        target.write_bytes(copies_in(folder)[0].read_bytes()[:3000])
    with pytest.raises(StoreTrouble, match=rf"“{target.name}” was not taken in"):
        list(take_in(target, folder, NOON))
    assert everything(folder, clock) == wanted and not list(folder.rglob("from *"))


def test_names_in_a_bundle_are_never_paths(full, tmp_path):
    target = bundled(full, tmp_path)
    with zipfile.ZipFile(target, "a") as bundle:
        bundle.writestr("../outside.txt", "out")
        bundle.writestr("photos/../../outside.txt", "out")
        bundle.writestr("studio.db-wal", "changes of another file")
    list(take_in(target, tmp_path / "again", NOON))
    assert not list(tmp_path.rglob("outside.txt")) and not list((tmp_path / "again").rglob("*-wal"))
