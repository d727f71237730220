"""Photographs for the screen: quickly first, then whole; kept a while; thumbnails made once."""

import numpy as np
import pytest

from tests.conftest import jpeg_of
from yarrow_lane.commission.commission import Commission
from yarrow_lane.intake.photos import add_photo
from yarrow_lane.measure.plane import Rect
from yarrow_lane.ui import pictures as module
from yarrow_lane.ui.jobs import Jobs
from yarrow_lane.ui.pictures import THUMB_PX, PictureShelf


@pytest.fixture
def shelf(qapp, desk):
    jobs = Jobs(lambda trouble: pytest.fail(trouble.sentence))
    shelf = PictureShelf(desk, jobs)
    yield shelf
    jobs.close()


@pytest.fixture
def large(desk, cat):
    return desk.photo_from_file(jpeg_of(np.kron(cat, np.ones((8, 8, 1), np.uint8))), "large.jpg")


def test_a_quick_look_comes_first_and_the_whole_follows(qtbot, shelf, large):
    seen = []
    shelf.photo(large.id, large.name, seen.append)
    qtbot.waitUntil(lambda: len(seen) == 2, timeout=20_000)
    quick, whole = seen
    assert not quick.whole and quick.picture.shape[1] < whole.picture.shape[1] == 451 * 8
    assert quick.picture.shape[1] >= 1400 and len(whole.levels.images) > 3
    again = []
    shelf.photo(large.id, large.name, again.append)
    assert again == [whole], "what is kept comes at once"


def test_only_so_much_is_kept(qtbot, shelf, desk, cat, monkeypatch):
    monkeypatch.setattr(module, "_KEPT_BYTES", 3_000_000)
    for n in range(3):
        photo = desk.photo_from_file(jpeg_of(np.roll(np.kron(cat, np.ones((2, 2, 1), np.uint8)), 40 * n, axis=1)), f"{n}.jpg")
        seen = []
        shelf.photo(photo.id, photo.name, seen.append)
        qtbot.waitUntil(lambda s=seen: bool(s) and s[-1].whole, timeout=20_000)
    assert len(shelf._kept) < 3


def test_thumbnails_are_made_once_and_survive_in_the_cache(qtbot, shelf, desk, large):
    arrived = []
    shelf.arrived.connect(arrived.append)
    assert shelf.thumbnail(large.id, large.name) is None
    qtbot.waitUntil(lambda: bool(arrived), timeout=20_000)
    image = shelf.thumbnail(large.id, large.name)
    assert max(image.width(), image.height()) == THUMB_PX
    eye = Rect(1000, 800, 400, 400)
    assert shelf.thumbnail(large.id, large.name, eye) is None
    qtbot.waitUntil(lambda: len(arrived) == 2, timeout=20_000)
    assert shelf.thumbnail(large.id, large.name, eye).width() == THUMB_PX
    desk.store.pictures.path(large.id).unlink()
    other = PictureShelf(desk, shelf._jobs)
    other.arrived.connect(arrived.append)
    other.thumbnail(large.id, large.name)
    qtbot.waitUntil(lambda: len(arrived) == 3, timeout=20_000)
    assert other.thumbnail(large.id, large.name).width() == image.width(), "from the cache: the file is gone"


def test_a_missing_file_leaves_the_thumbnail_empty_and_is_not_asked_for_again(qtbot, shelf, desk, large):
    desk.store.pictures.path(large.id).unlink()
    assert shelf.thumbnail(large.id, large.name) is None
    qtbot.waitUntil(lambda: not shelf._jobs.busy, timeout=20_000)
    assert shelf.thumbnail(large.id, large.name) is None and not shelf._jobs.busy


def test_the_reference_is_the_crop_at_its_own_proportion(qtbot, shelf, desk, commission_id, large):
    from dataclasses import replace

    desk.do_part(commission_id, "in", "intake", lambda i: add_photo(i, large))
    seen = []
    shelf.reference(desk.commission(commission_id), seen.append)
    assert seen == [] and not shelf._jobs.busy, "without a crop there is none"
    crop = Rect(800, 200, 1600, 2000)
    c: Commission = desk.commission(commission_id)
    framed = replace(c, compose=replace(c.compose, width_mm=240, height_mm=300, photo_id=large.id, crop=crop))
    shelf.reference(framed, seen.append)
    qtbot.waitUntil(lambda: bool(seen), timeout=20_000)
    height, width = seen[0].picture.shape[:2]
    assert height == module.REFERENCE_PX and width / height == pytest.approx(0.8, abs=0.001)
