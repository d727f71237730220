"""Parts told as differences, joined edits, thinning; random histories lose nothing that must stay."""

import json
import random
from datetime import timedelta

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.conftest import NOON
from yarrow_lane.demo.scene import SetClock
from yarrow_lane.desk.desk import Desk
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.lane.happening import LetterSent
from yarrow_lane.lane.part import Edit
from yarrow_lane.layers.regions import LAYERS, Layers, Region
from yarrow_lane.store.parts import MOST_DIFFERENCES, applied, difference
from yarrow_lane.store.store import Store
from yarrow_lane.store.versions import Version, too_many
from yarrow_lane.tone.record import TONE, Tone


@given(st.binary(max_size=200), st.binary(max_size=200))
def test_a_difference_gives_the_text_back(base, text):
    assert applied(base, difference(base, text)) == text


@given(st.text(max_size=100), st.text(max_size=20), st.text(max_size=100))
def test_a_small_change_is_a_small_difference(before, middle, after):
    base = (before + after).encode()
    assert len(difference(base, (before + middle + after).encode())) <= len(middle.encode()) + 12
    with pytest.raises(ValueError, match="does not fit"):
        applied(b"ab", b"2 1\nx")


@pytest.fixture
def db(tmp_path):
    store = Store(tmp_path / "s", NOON.date())
    yield store.database
    store.close()


def text(n: int) -> str:
    return json.dumps({"items": [{"id": k, "name": f"item {k}"} for k in range(100)], "n": n})


def test_a_long_history_of_a_large_part_stays_small_and_readable(db):
    for n in range(3 * MOST_DIFFERENCES):
        db.append("c", {"a": text(n)}, str(n), "", NOON + timedelta(minutes=n))
    stored = db._sql.execute("SELECT sum(length(json)), max(depth) FROM part").fetchone()
    assert stored[0] < 5 * len(text(0)) and stored[1] <= MOST_DIFFERENCES
    for n in range(3 * MOST_DIFFERENCES):
        assert db.stored("c", n + 1) == {"a": text(n)}


def test_only_parts_that_differ_are_written(db):
    first = db.append("c", {"a": text(1), "b": text(2)}, "one", "", NOON)
    second = db.append("c", {"b": text(3)}, "two", "", NOON + timedelta(seconds=9))
    one, two = db.versions.parts("c", first), db.versions.parts("c", second)
    assert one["a"] == two["a"] and one["b"] != two["b"]
    assert db._sql.execute("SELECT count(*) FROM part").fetchone() == (3,)


def test_edits_that_belong_together_are_one_version(db):
    at = NOON
    db.append("c", {"a": text(0)}, "begin", "", at)
    for n in range(1, 30):
        at += timedelta(milliseconds=400)
        assert db.append("c", {"a": text(n)}, "nudged", "", at, "nudge left") == 2
    assert db.stored("c", 2) == {"a": text(29)} and db._sql.execute("SELECT count(*) FROM part").fetchone() == (2,)
    assert db.append("c", {"a": text(31)}, "nudged", "", at + timedelta(seconds=2), "nudge left") == 3, "a second has passed"
    assert db.append("c", {"a": text(32)}, "nudged", "", at + timedelta(seconds=2.1), "nudge right") == 4, "another word"
    db.move_head("c", 3)
    assert db.append("c", {"a": text(33)}, "nudged", "", at + timedelta(seconds=2.2), "nudge left") == 5, "it led somewhere"
    assert db.append("c", {"a": text(34)}, "x", "", at - timedelta(days=1), "nudge left") == 6, "the clock was set back"


def version(number: int, days_ago: float, kept: str = "") -> Version:
    return Version(number, number - 1 or None, NOON - timedelta(days=days_ago), "", "", kept)


def test_what_is_thinned_out_with_age():
    young = [version(n, 6.9) for n in range(1, 5)]
    assert too_many(tuple(young), 4, NOON) == []
    daily = [version(1, 90), version(2, 10.2), version(3, 10.1), version(4, 10.0), version(5, 9.0)]
    assert too_many(tuple(daily), 5, NOON) == [2, 3]
    weekly = [version(1, 90), *(version(n, 70 - n / 10) for n in range(2, 9)), version(9, 1)]
    gone = too_many(tuple(weekly), 9, NOON)
    assert len(gone) >= 5 and 1 not in gone and 9 not in gone
    sent = [version(1, 90), version(2, 10.2, "sent"), version(3, 10.1), version(4, 10.0)]
    assert too_many(tuple(sent), 3, NOON) == [], "one was sent, one is shown, one is the newest of its day"


def test_undo_says_what_it_takes_back_with_it(tmp_path):
    clock = SetClock(NOON - timedelta(days=10))
    store = Store(tmp_path / "s", NOON.date())
    desk = Desk(store, clock)
    cid = desk.start_commission(new_brief("Pip", "cat", "", "acrylic", NOON.date(), None))
    for n in range(5):
        clock.now += timedelta(minutes=1)
        desk.do(cid, Edit(TONE, f"Coats {n}", lambda t, n=n: Tone(ground_coats=n + 1)))
    clock.now = NOON
    for _ in desk.tidy():
        pass
    change = desk.undo(cid)
    assert (change.label, change.folded) == ("Coats 4", 4) and desk.commission(cid).tone == Tone()
    assert desk.redo(cid).folded == 4 and desk.commission(cid).tone.ground_coats == 5
    store.close()


@settings(max_examples=25)
@given(st.integers(0, 2**32), st.integers(10, 60))
def test_random_histories_lose_nothing_that_must_stay(tmp_path_factory, seed, steps):
    """Random edits, undo, redo, thinning and reopening: the newest state, and each one sent or waived, is always there."""
    dice = random.Random(seed)
    folder = tmp_path_factory.mktemp("s") / "s"
    clock = SetClock(NOON - timedelta(days=200))
    store = Store(folder, clock.now.date())
    desk = Desk(store, clock)
    cid = desk.start_commission(new_brief("Pip", "cat", "", "acrylic", NOON.date(), None))
    regions = tuple(Region(n, f"r{n}", "fur", (tuple((float(k), float(n)) for k in range(30)),)) for n in range(1, 9))
    kept: dict[int, object] = {}
    letters = 0
    for step in range(steps):
        clock.now += timedelta(hours=dice.choice((0, 0, 1, 30, 200)), seconds=dice.choice((0.2, 0.2, 40)))
        what = dice.random()
        if what < 0.35:
            join = dice.choice(("", "drag"))
            desk.do(cid, Edit(TONE, "Tone", lambda t, n=step: Tone(squint_mm=float(n)), join))
        elif what < 0.5:
            desk.do(cid, Edit(LAYERS, "Layers", lambda x, n=step: Layers(regions[: 1 + n % 8], next_id=9 + n)))
        elif what < 0.6:
            desk.do(cid, Edit(TONE, "Waived", lambda t, n=step: Tone(ground=f"w{n}"), keep="waived"))
            kept[store.database.head(cid)] = desk.commission(cid)
        elif what < 0.68:
            letters += 1
            desk.happen(cid, LetterSent(clock.now, letters, f"letter {letters}"))
            kept[store.database.head(cid)] = desk.commission(cid)
        elif what < 0.8:
            desk.undo(cid)
        elif what < 0.88:
            desk.redo(cid)
        elif what < 0.95:
            for _ in desk.tidy():
                pass
        else:
            store.close()
            store = Store(folder, clock.now.date())
            newest, desk = desk.commission(cid), Desk(store, clock)
            assert desk.commission(cid) == newest
        now = desk.commission(cid)
        assert Desk(store, clock).commission(cid) == now, "what is shown is what is stored"
        assert len(now.log) == letters
    for number, value in kept.items():
        assert desk._reader.commission(cid, number) == value
    assert store.database.sound()
    while desk.undo(cid):
        pass
    assert desk.commission(cid).tone == Tone(), "undo reaches back to the beginning"
    store.close()
