"""A part that cannot be read makes its commission stand on the shelf as unreadable; the studio and the others open."""

import json
from datetime import timedelta

import pytest

from tests.conftest import NOON
from tests.doing import do_part
from yarrow_lane.desk.desk import Desk
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.lane.happening import HoursCorrected
from yarrow_lane.layers.regions import LAYERS, Layers, Region
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.store.codec import from_json, text_hash, to_json
from yarrow_lane.store.copies import copies_in
from yarrow_lane.store.store import Store
from yarrow_lane.store.trouble import Damaged, StoreTrouble
from yarrow_lane.tone.record import TONE, Tone


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ('{"v":1,"squint_mm":"very","ground_coats":1.5}', ("squint_mm", "ground_coats")),
        ('{"v":0,"hue":3}', ("hue",)),
        ('{"v":99}', ("newer Yarrow Lane", "99")),
        ("[1, 2]", ("form of a part",)),
        ('{"v":"one"}', ("form of a part",)),
        ("{not json", ("JSON",)),
    ],
)
def test_each_damage_gives_its_sentence(text, words):
    with pytest.raises(StoreTrouble) as error:
        from_json(TONE, text)
    assert all(word in error.value.sentence for word in ("tone", *words))


def test_what_is_no_number_is_never_stored():
    with pytest.raises(StoreTrouble, match=r"no number|number that is none"):
        to_json(TONE, Tone(squint_mm=float("nan")))
    inside = Layers((Region(1, "coat", "fur", (((0.0, 0.0), (9.0, float("-inf")), (9.0, 9.0)),)),), next_id=2)
    with pytest.raises(StoreTrouble, match=r"layers.*number that is none"):
        to_json(LAYERS, inside)
    with pytest.raises(StoreTrouble, match="letters that are none"):
        to_json(TONE, Tone(ground="umber \ud800"))
    assert from_json(TONE, to_json(TONE, Tone(ground="Infinity and NaN"))).ground == "Infinity and NaN"
    assert from_json(TONE, to_json(TONE, Tone(squint_mm=1e-320))).squint_mm == 1e-320


def rewrite(store: Store, commission_id: str, part: str, change, keep_hash: bool = False) -> None:
    """Put another text into the file in place of a part."""
    database = store.database
    (number,) = [database.versions.parts(commission_id, database.head(commission_id))[part]]
    text = change(database.parts.text(number))
    name = None if keep_hash else text_hash(text)
    sql = database._sql
    sql.execute("UPDATE part SET json = ?, base = NULL, hash = coalesce(?, hash) WHERE id = ?", (text.encode(), name, number))
    database.versions._seal(commission_id, database.head(commission_id))


@pytest.fixture
def three(tmp_path, clock):
    """Three commissions; the middle one is damaged by the test, then the studio is opened again."""
    store = Store(tmp_path / "s", NOON.date())
    desk = Desk(store, clock)
    for name in ("Pip", "Moss", "Tim"):
        desk.start_commission(new_brief(name, "cat", "", "acrylic", NOON.date(), None))
        do_part(desk, desk.studio.on_shelf[-1], "Ground", "tone", lambda t, n=name: Tone(ground="white", ground_coats=len(n)))
    yield store, desk
    store.close()


def unknown(text: str) -> str:
    return json.dumps({**json.loads(text), "hue": 3})


def newer(text: str) -> str:
    return json.dumps({**json.loads(text), "v": 42})


@pytest.mark.parametrize(
    ("change", "keep_hash", "words"),
    [
        (unknown, False, "hue"),
        (newer, False, "newer Yarrow Lane"),
        (lambda t: t[:-9], False, "JSON"),
        (unknown, True, "not what was stored"),
    ],
)
def test_the_shelf_stays_open(three, clock, change, keep_hash, words, qtbot, fonts, workers):
    from yarrow_lane.ui.window import Window

    store, _ = three
    store.database.backup("2026-03-08")
    rewrite(store, "c0002", "tone", change, keep_hash)
    desk = Desk(store, clock)
    assert [s.title for s in desk.standings.all(NOON)] == ["Pip", "Tim"]
    (broken,) = desk.standings.unreadable()
    assert (
        broken.title == "Moss" and words in broken.trouble.sentence and "2026-03-08.db still has it" in broken.trouble.sentence
    )
    window = Window(desk, workers)
    qtbot.addWidget(window)
    window.show()
    assert [c.title for c in window.studio_page.view.shelf] == ["Pip", "Tim", "Moss"]
    assert "1 needs a look" in window.header.standing.text()
    window.studio_page.select("c0002")
    assert words in str(window.studio_page.view.bench) and window.studio_page.bench.sheet.act.title == "Look at the copies"
    window.workroom.guard.attempt(lambda: window.open_door("c0002", "Tone"))
    assert words in window.message.text and window.door == ""
    window.open_door("c0003", "Tone")
    assert window.door == "Tone"
    window.end()


@pytest.mark.parametrize(
    ("harm", "words"),
    [
        ("UPDATE head SET number = 1 WHERE document = 'c0002'", "which of its versions"),
        ("UPDATE version SET label = 'Grounds' WHERE document = 'c0002' AND number = 2", "version 2 is no longer"),
        (
            "UPDATE version_part SET part = 1 WHERE document = 'c0002' AND number = 2 AND name = 'tone'",
            "version 2 is no longer",
        ),
        ("DELETE FROM version_part WHERE document = 'c0002' AND number = 2 AND name = 'tone'", "version 2 is no longer"),
        ("UPDATE happening SET json = replace(json, '9.0', '1.0')", "entry 1 is no longer"),
        ("UPDATE version SET at = 'noon' WHERE document = 'c0002'", "no longer what was stored"),
    ],
)
def test_damage_that_the_file_itself_does_not_show_is_seen(three, clock, harm, words):
    """Each of these is a sound database to SQLite."""
    store, desk = three
    desk.happen("c0002", HoursCorrected(NOON, "1:wash", "wash", 9.0))
    store.database._sql.execute("PRAGMA foreign_keys = OFF")
    assert store.database._sql.execute(harm).rowcount and store.database.sound()
    with pytest.raises(Damaged, match=words):
        Desk(store, clock).commission("c0002")
    assert Desk(store, clock).commission("c0001") == desk.commission("c0001")


def test_without_a_copy_it_is_said_that_there_is_none(three, clock):
    store, _ = three
    rewrite(store, "c0002", "tone", unknown)
    with pytest.raises(Trouble, match="no copy has it"):
        Desk(store, clock).commission("c0002")


def test_a_part_of_a_newer_program_is_not_dropped_in_silence(three, clock):
    store, desk = three
    store.database.append("c0002", {"weather": "{}"}, "Paid", "Books", NOON + timedelta(days=1))
    with pytest.raises(Trouble, match="“weather” is not known"):
        Desk(store, clock).commission("c0002")
    assert desk.commission("c0001").tone.ground == "white"


def test_while_a_part_cannot_be_read_no_photograph_goes(three, clock):
    """What it names is not known: the sweep of what nobody names says so once and takes nothing."""
    store, desk = three
    stranger = store.photos.keep(b"perhaps named by the damaged part")
    rewrite(store, "c0002", "tone", unknown, keep_hash=True)
    said = 0
    for days in range(0, 400, 40):
        clock.now = NOON + timedelta(days=days)
        for copy in copies_in(store.folder):
            copy.unlink()
        try:
            for _ in desk.tidy():
                pass
        except Damaged:
            said += 1
    assert said == 1 and list(store.photos.names()) == [stranger]
