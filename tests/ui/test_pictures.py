"""Photographs for the screen: quickly first, then whole; kept a while; thumbnails made once; asked for by many."""

import numpy as np
import pytest

from tests.conftest import jpeg_of
from tests.doing import photo_from_file
from yarrow_lane.compose.composition import Compose, Framed
from yarrow_lane.desk.derived import Derived, Key, Making
from yarrow_lane.measure.plane import Rect
from yarrow_lane.store.cache import Cache
from yarrow_lane.ui.guard import Guard
from yarrow_lane.ui.pictures import THUMB_PX, Pictures
from yarrow_lane.ui.references import WORKING_PX, References
from yarrow_lane.ui.threads import Threads

PAGE, OTHER = object(), object()


@pytest.fixture
def room(qapp, desk, tmp_path):
    guard = Guard(tmp_path, lambda trouble: pytest.fail(trouble.sentence))
    threads = Threads(guard.attempt, guard.fault)
    yield threads, Derived(threads, desk.store.cache, lambda t: pytest.fail(t.sentence))
    threads.close()
    guard.close()


@pytest.fixture
def pictures(room, desk, workers):
    return Pictures(desk.store.photos, room[1], workers)


@pytest.fixture
def large(desk, cat):
    return photo_from_file(desk, jpeg_of(np.kron(cat, np.ones((8, 8, 1), np.uint8))), "large.jpg")


def test_a_quick_look_comes_first_and_the_whole_follows(qtbot, pictures, large):
    seen = []
    pictures.photo(large.id, large.name, PAGE, seen.append)
    qtbot.waitUntil(lambda: len(seen) == 2, timeout=20_000)
    quick, whole = seen
    assert not quick.whole and quick.picture.shape[1] < whole.picture.shape[1] == 451 * 8
    assert quick.picture.shape[1] == 1400 and len(whole.levels.images) > 3
    again = []
    pictures.photo(large.id, large.name, PAGE, again.append)
    assert again == [whole], "what is kept comes at once"


def test_thumbnails_are_made_once_and_survive_in_the_cache(qtbot, pictures, room, desk, workers, large):
    arrived = []
    pictures.arrived.connect(lambda: arrived.append(1))
    assert pictures.thumbnail(large.id, large.name) is None
    qtbot.waitUntil(lambda: len(arrived) == 1, timeout=20_000)
    image = pictures.thumbnail(large.id, large.name)
    assert max(image.width(), image.height()) == THUMB_PX
    eye = Rect(1000, 800, 400, 400)
    assert pictures.thumbnail(large.id, large.name, eye, "left eye") is None
    qtbot.waitUntil(lambda: len(arrived) == 2, timeout=20_000)
    assert pictures.thumbnail(large.id, large.name, eye, "left eye").width() == THUMB_PX
    files = [p for p in (desk.store.folder / "cache").rglob("*") if p.is_file()]
    desk.store.photos.path(large.id).unlink()
    fresh = Derived(room[0], desk.store.cache, lambda t: pytest.fail(t.sentence))
    other = Pictures(desk.store.photos, fresh, workers)
    other.arrived.connect(lambda: arrived.append(1))
    other.thumbnail(large.id, large.name)
    qtbot.waitUntil(lambda: len(arrived) == 3, timeout=20_000)
    assert other.thumbnail(large.id, large.name).width() == image.width(), "from the cache: the file is gone"
    assert len([p for p in (desk.store.folder / "cache").rglob("*") if p.is_file()]) == len(files) == 2


def test_a_missing_file_leaves_the_thumbnail_empty_and_is_not_asked_for_again(qtbot, pictures, room, desk, large):
    desk.store.photos.path(large.id).unlink()
    assert pictures.thumbnail(large.id, large.name) is None
    qtbot.waitUntil(lambda: not room[0].busy, timeout=20_000)
    assert pictures.thumbnail(large.id, large.name) is None and not room[0].busy
    pictures.forget_missing()
    pictures.thumbnail(large.id, large.name)
    assert room[0].busy, "when the painter comes back it is tried again"


def test_the_reference_is_the_crop_at_its_own_proportion(qtbot, pictures, room, workers, large, tmp_path):
    references, seen = References(pictures, room[1], workers, Cache(tmp_path)), []
    references.want(Compose(240, 300), PAGE, seen.append)
    assert seen == [] and not room[0].busy, "without a crop there is none"
    framed = Compose(240, 300, "", Framed(large.id, Rect(800, 200, 1600, 2000)))
    references.want(framed, PAGE, seen.append)
    qtbot.waitUntil(lambda: bool(seen), timeout=20_000)
    height, width = seen[0].picture.shape[:2]
    assert height == WORKING_PX and width / height == pytest.approx(0.8, abs=0.001)
    assert seen[0].levels.greys, "rooms look at it in greys too"


# --- values asked for by many


class Later:
    """Threads that answer when they are told to."""

    def __init__(self):
        self.tickets = []

    def run(self, work, done, failed, priority=0):
        ticket = type("T", (), {"dropped": False, "drop": lambda self: setattr(self, "dropped", True)})()
        self.tickets.append((ticket, work, done))
        return ticket

    def answer(self):
        for ticket, work, done in self.tickets:
            if not ticket.dropped:
                done(work(None))
        self.tickets = []


@pytest.fixture
def later(tmp_path):
    later = Later()
    return later, Derived(later, Cache(tmp_path), lambda t: pytest.fail(t.sentence), budget=100)


def making(made, value, size=10, **how):
    return Making(lambda _: made.append(value) or value, lambda _: size, **how)


def test_many_askers_are_answered_by_one_making(later):
    threads, derived = later
    made, one, two = [], [], []
    derived.want(Key("k", ("a",)), PAGE, making(made, "v"), one.append)
    derived.want(Key("k", ("a",)), OTHER, making(made, "v"), two.append)
    derived.leave(PAGE)
    threads.answer()
    assert (made, one, two) == (["v"], [], ["v"])
    derived.want(Key("k", ("a",)), PAGE, making(made, "v"), one.append)
    assert one == ["v"] and made == ["v"], "it is kept"


def test_what_nobody_waits_for_is_dropped_and_coming_back_asks_again(later):
    threads, derived = later
    made, seen = [], []
    derived.want(Key("k", ("a",)), PAGE, making(made, 1), seen.append)
    derived.leave(PAGE)
    derived.want(Key("k", ("a",)), PAGE, making(made, 2), seen.append)
    threads.answer()
    assert seen == [2]


def test_only_so_much_is_kept_the_oldest_go_first(later):
    threads, derived = later
    for n in range(4):
        derived.want(Key("k", (str(n),)), PAGE, making([], n, size=40), lambda _: None)
        threads.answer()
    assert [derived.have(Key("k", (str(n),))) for n in range(4)] == [None, None, 2, 3]


def test_a_damaged_entry_on_disk_is_made_anew(later, tmp_path):
    threads, derived = later
    key, made, seen = Key("k", ("a",), (1,)), [], []
    Cache(tmp_path).put(key.slot, repr(key), b"not a number")
    how = {"dump": lambda v: str(v).encode(), "load": int}
    derived.want(key, PAGE, making(made, 7, **how), seen.append)
    threads.answer()
    assert seen == [7] and Cache(tmp_path).get(key.slot, repr(key)) == b"7"
    other = Key("k", ("a",), (2,))
    derived.want(other, PAGE, making(made, 8, **how), seen.append)
    threads.answer()
    assert Cache(tmp_path).get(key.slot, repr(key)) is None, "other parameters take the slot over"
