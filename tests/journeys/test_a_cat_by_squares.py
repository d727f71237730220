"""A cat in acrylic by squares, for a surprise: from an empty studio to delivery, on a photograph that was enlarged and sent again."""

from datetime import timedelta

import pytest

from tests.journeys.client_pictures import enlarged, picture, saved, sent_again
from tests.journeys.hands import click_way, drag, keys, path, reference
from tests.journeys.walking import Walk
from yarrow_lane.commission.standing import passes_in
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.desk.desk import Desk
from yarrow_lane.easel.clock import time_entries
from yarrow_lane.intake.detail import about
from yarrow_lane.layers.regions import area_cm2
from yarrow_lane.measure.colour.cielab import lab_from_srgb8
from yarrow_lane.palette.belonging import elsewhere
from yarrow_lane.store.store import Store


@pytest.fixture
def walk(qtbot, window, wait_idle, clock, tmp_path):
    return Walk(qtbot, window, wait_idle, clock, tmp_path)


@pytest.mark.timeout(300)
def test_a_surprise_from_one_enlarged_photograph(qtbot, walk, clock, tmp_path, monkeypatch):
    window = walk.window
    whole = picture("cat")
    lead = saved(sent_again(enlarged(whole, 3), 1536, 75), tmp_path / "IMG-20260301-WA0007.jpg")
    other = saved(sent_again(whole[60:400, 20:400], 380, 55, 1), tmp_path / "IMG-20260302-WA0011.jpg")

    # The first promise of a studio that has none: reckoned from its own hours, weeks ahead and not months.
    keys(qtbot, window, "n")
    for label, value in (("Sitter", "Minka"), ("Is a", "cat"), ("Client", "Orla Finch")):
        walk.fill(label, value)
    walk.fill("Brief, in a sentence or two", "Orla's father must not hear of it")
    walk.click(walk.label("Promise "))
    walk.enter("Start the commission")
    promised = walk.c.brief.promised
    assert timedelta(days=10) < promised - clock.now.date() < timedelta(days=56), promised

    # Intake: what resolves is told, not what is stored; the eye that is seen is marked, on the sitter's own left.
    window.take_files([lead, other])
    qtbot.waitUntil(lambda: len(walk.c.intake.photos) == 2, timeout=30_000)
    walk.settle()
    walk.enter("Choose the lead photograph")
    walk.enter("Mark the eyes")
    photo = walk.c.intake.leads[0]
    share = window.desk.evidence.of(photo).share
    assert 350 < 1536 * share < 560, "of 1536 px a side 512 were ever there"
    walk.fill("Mark the", "right")
    drag(walk.page.marking.picture, (674, 561), (752, 561))
    walk.settle()
    assert "left eye ✓" in [words for _, words in walk.page.bench.line("Mark the").options]
    walk.fill("Permission", "client")
    walk.look_at("brief")
    walk.click("It is a surprise")
    walk.fill("Whom not to contact", "Orla's father")
    walk.look_at("ask for more")
    walk.enter("Put it in the outbox")
    letters = [path.read_text() for path in (window.desk.store.folder / "outbox").glob("*.eml")]
    assert len(letters) == 1 and "Orla's father" in letters[0], "a letter that goes out says whom not to tell"
    walk.enter("Back to the photographs")
    walk.go_on("Compose")

    # Compose: 30 cm is more than it carries, and the same number says so wherever it is told.
    walk.fill("Stock size", "metric 30 × 30 cm")
    walk.enter("Lay the crop")
    told = walk.page.bench.sheet
    assert "poor" in str(told) and walk.page.bench.line("Crop") is not None
    assert f"detail of about {about(1536 * share)}" in str(told), "as Intake has it"
    assert "too little detail" in walk.worry
    walk.fill("Stock size", "metric 20 × 20 cm")
    walk.go_on("Transfer")

    # Transfer: squares though another way is advised; Enter takes what the yellow field names.
    click_way(walk.page, "squares")
    walk.settle()
    assert walk.c.transfer.ways.one == "squares"
    walk.enter("Take 8 × 8 squares")
    assert walk.c.transfer.count == 8
    walk.enter("Draw square A1")
    assert walk.c.transfer.drawn == ((0, 0),)
    for _ in range(8):
        walk.click("Mark the row drawn")
    walk.go_on("Tone")

    # Tone and Palette: proposals taken as they stand.
    walk.through("Look at the ground proposed", "The raw umber wash is laid")
    walk.go_on("Palette")
    walk.through("Put 8 tubes in the paintbox", "Take this string of 7")
    well = walk.c.palette.well(walk.page.chosen_id)
    shares = [elsewhere(*lab_of(window), w.lab, 5.0).share for w in walk.c.palette.wells]
    assert min(shares) > 0.005, "every colour of the string is somewhere on the picture, fur or not"
    said = float(walk.decision("Where else it belongs").split()[0])
    assert said == pytest.approx(100 * shares[walk.c.palette.wells.index(well)], abs=3), "as reckoned here, on a larger picture"
    walk.enter("7 heaps are mixed")
    walk.go_on("Layers")

    # Layers: the guess misses the shadowed neck; one stroke adds it. Every room calls the eye the sitter's left.
    guessed = walk.page.drawing
    assert {"background", "fur", "eye"} == {p.kind for p in guessed.layers.regions}
    walk.fill("A new part is", "fur")
    path(guessed.view, NECK)
    walk.settle()
    assert [r.name for r in walk.c.layers.regions if r.kind == "eye"] == ["Minka's left eye"]
    assert sum(area_cm2(r) for r in walk.c.layers.regions) == pytest.approx(400, rel=0.01)
    walk.through("Go on to the lie of the fur", "Go on with the guess", "Take these patches", "Go on to the score")
    walk.enter("Paint background, wash")

    # Easel: all passes over dry paint.
    count = len(passes_in(walk.c, window.desk.studio.climate))
    assert walk.paint_all(9.0) == count > 15
    walk.go_on("Check")

    # Check: what it finds is mended at the easel, place after place, and the next photograph tells.
    walk.photograph(1)
    told = walk.page.measuring.told()
    assert told.counting >= 3
    assert not any("right eye" in f.where for f in told.faults) and any("left eye" in f.where for f in told.faults)
    first = told.faults[0].line
    walk.enter("Mend place 1 at the easel")
    assert window.door == "Easel" and walk.page.view.mend.words == first
    walk.enter("Mend it")
    clock.now += timedelta(minutes=8)
    walk.enter("It is mended")
    assert time_entries(walk.c.log)[-1].minutes == pytest.approx(8)
    assert [line.done for line in walk.c.deliver.last_list] == [True]
    walk.go_on("Check")
    assert not walk.act.startswith("Mend place 1 ")
    clock.now += timedelta(hours=2)
    walk.photograph(2)
    keys(qtbot, window, "9")

    # Deliver; and closed and opened again nothing is another composition.
    walk.deliver()
    assert [d.state for d in window.desk.standings.of(walk.c.id, clock()).doors] == ["shut"] * 9
    before, folder = walk.c, window.desk.store.folder
    window.end()
    window.desk.store.close()
    store = Store(folder, clock().date())
    again = Desk(store, clock).commission(before.id)
    store.close()
    assert again == before and reference_key(again.compose) == reference_key(before.compose)


# Round the neck and the ear that lie in shadow, canvas mm.
NECK = (
    (150, 118), (165, 104), (172, 92), (184, 70), (186, 100), (182, 130), (198, 150), (198, 198), (182, 198), (166, 186), (160, 184),
    (140, 160), (130, 140), (128, 120), (140, 114), (150, 118),
)  # fmt: skip


def lab_of(window):
    """The reference as the rooms see it, CIELAB, and its px per mm."""
    seen = reference(window)
    return lab_from_srgb8(seen), seen.shape[1] / window.desk.commission(window.commission_id).compose.width_mm
