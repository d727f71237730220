"""In memory of a man and his dog, with the friend who walked with them: three cut out of five photographs, carried over by projector."""

from datetime import date, timedelta

import pytest

from tests.journeys.client_pictures import at_dusk, enlarged, picture, saved, sent_again
from tests.journeys.hands import click, click_way, drag, keys, path, press
from tests.journeys.walking import ENTER, Walk
from yarrow_lane.commission.standing import passes_in
from yarrow_lane.lane.happening import ProofSent, of_kind
from yarrow_lane.layers.regions import area_cm2

# Loops round the three, px of their photographs, drawn as loosely as a hand does.
TOM = (
    (7, 1495), (7, 1405), (231, 1293), (321, 1225), (209, 1091), (175, 821), (130, 687), (119, 485), (164, 305), (299, 171), (523, 81),
    (725, 81), (949, 171), (1106, 373), (1129, 642), (1084, 911), (994, 1091), (916, 1203), (949, 1293), (1084, 1360), (1190, 1405),
    (1190, 1495),
)  # fmt: skip
SHOULDERS = (((36, 1470), (108, 1386), (252, 1314), (288, 1350)), ((60, 1482), (156, 1446), (300, 1410), (329, 1470)))
WILF = (
    (574, 396), (611, 347), (655, 347), (660, 293), (708, 281), (762, 303), (762, 396), (787, 469), (811, 616), (826, 738), (818, 836),
    (772, 848), (767, 970), (733, 1007), (743, 1068), (806, 1104), (757, 1141), (623, 1129), (611, 982), (606, 762), (572, 628), (562, 518),
)  # fmt: skip
REX = (
    (220, 236), (244, 222), (274, 222), (303, 236), (308, 271), (299, 290), (305, 339), (293, 388), (293, 437), (313, 466), (288, 476),
    (264, 456), (259, 495), (278, 510), (264, 534), (195, 542), (137, 495), (130, 427), (147, 368), (186, 320), (220, 285),
)  # fmt: skip


@pytest.fixture
def five(tmp_path):
    """As the family sent them: one enlarged, the same one once more by a messenger, one at dusk, one as it was, and the shore."""
    man = picture("man")
    return [
        saved(sent_again(enlarged(man, 4), 1500, 80, 1), tmp_path / "grandad.jpg"),
        saved(sent_again(man, 300, 45), tmp_path / "IMG-WA0001.jpg"),
        saved(at_dusk(enlarged(picture("walker"), 3)), tmp_path / "on-the-hill.jpg"),
        saved(sent_again(picture("dog"), 768, 70, 1), tmp_path / "rex-porch.jpg"),
        saved(picture("shore"), tmp_path / "the-shore.jpg"),
    ]


@pytest.mark.timeout(300)
def test_three_who_were_never_in_one_photograph(qtbot, window, wait_idle, clock, tmp_path, five):
    walk = Walk(qtbot, window, wait_idle, clock, tmp_path)
    window.take_files(five)  # on the empty shelf: they start a commission
    walk.settle()
    for label, value in (("Sitter", "Tom"), ("Is a", "person"), ("Client", "Edda Marsh"), ("Promised for", date(2026, 6, 12))):
        walk.fill(label, value)
    walk.enter("Start the commission")
    qtbot.waitUntil(lambda: len(walk.c.intake.photos) == 5, timeout=60_000)
    walk.settle()

    # Who is in it, and who is remembered.
    walk.look_at("brief")
    walk.click("One more in the picture")
    walk.click("One more in the picture")
    for n, (name, kind) in enumerate((("Wilf", "person"), ("Rex", "dog")), 1):
        walk.fill("Sitter", name, n)
        walk.fill("Is a", kind, n)
    walk.click("Living", 0)
    walk.click("Living", 2)
    walk.fill("Name of the commission", "Tom, Wilf and Rex")
    assert [(s.name, s.kind, s.living) for s in walk.c.brief.sitters] == [
        ("Tom", "person", False), ("Wilf", "person", True), ("Rex", "dog", False),
    ]  # fmt: skip

    # Intake: the copy is known for one; eyes are suggested, marked, or said not to be seen.
    photos = {p.name: p for p in walk.c.intake.photos}

    def look_closer(name, use, shows):
        walk.look_at("photograph")
        walk.page.look_closer(photos[name].id)
        walk.settle()
        walk.fill("Use it as", use)
        walk.fill("Shows", shows)

    def permitted():
        walk.fill("Permission", "client")
        if walk.act.startswith("Ask"):
            walk.fill("Consent of who is shown", "given")

    look_closer("grandad.jpg", "lead", 1)
    assert "IMG-WA0001.jpg is the same shot, and shows less" in str(walk.page.bench.sheet)
    walk.click("Suggest the eyes")
    qtbot.waitUntil(lambda: len(walk.c.intake.photo(photos["grandad.jpg"].id).eyes) == 2, timeout=30_000)
    left, right = walk.c.intake.photo(photos["grandad.jpg"].id).eyes
    assert (left.x, left.y) == pytest.approx((262, 683), abs=25) and (right.x, right.y) == pytest.approx((570, 633), abs=25)
    permitted()
    look_closer("on-the-hill.jpg", "lead", 2)
    view = walk.page.marking.picture
    assert walk.act == "Mark the eyes on on-the-hill.jpg"
    walk.click("No eye is seen on it")
    assert walk.act.startswith("Ask who may use")
    for name, point in (("crown", (708, 290)), ("chin", (708, 372))):
        walk.fill("Mark the", name)
        click(view, point)
        walk.settle()
    permitted()
    look_closer("rex-porch.jpg", "lead", 3)
    for side, x, y in (("left", 261, 252), ("right", 292, 251)):
        walk.fill("Mark the", side)
        drag(view, (x - 3.5, y), (x + 3.5, y))
        walk.settle()
    permitted()
    assert walk.worry.startswith("needs an eye photograph: 7 px") and "rex-porch.jpg" in walk.worry
    walk.go_on("Compose")

    # Compose: one after the other is cut out, and the yellow field knows who is missing.
    walk.fill("Stock size", "metric 40 × 50 cm")
    walk.look_at("lying")
    walk.look_at("cut out")
    for n, (name, loop) in enumerate((("Tom", TOM), ("Wilf", WILF), ("Rex", REX))):
        assert walk.act in (f"Draw round {name}", "Take this line to begin with"), "with marks enough a first line is guessed"
        assert walk.page.bench.line("Who").editor.currentText() == name
        path(walk.page.picture, (*loop, loop[0]))
        qtbot.waitUntil(lambda: not walk.page.modes["cut out"].waiting, timeout=60_000)
        walk.settle()
        for stroke in SHOULDERS if name == "Tom" else ():
            path(walk.page.picture, stroke)
            qtbot.waitUntil(lambda: not walk.page.modes["cut out"].waiting, timeout=60_000)
        walk.enter(f"Place {name} on the canvas")
        assert [p.name for p in walk.c.compose.pieces][-1] == name
        if n < 2:
            walk.enter(f"Cut out {('Wilf', 'Rex')[n]}")
    walk.enter("Look at the proof")
    walk.enter("Put proof 1 in the outbox")
    assert len(of_kind(walk.c.log, ProofSent)) == 1
    walk.enter("It is approved")
    walk.go_on("Transfer")

    # Transfer: lines by the projector, shown over the whole screen.
    click_way(walk.page, "projector")
    walk.settle()
    walk.enter("Trace the drawing from the projector")
    walk.enter("Show the lines full screen")
    walk.enter("The drawing is on the canvas")
    walk.go_on("Tone")
    walk.through("Look at the ground proposed", "The burnt sienna wash is laid")
    walk.go_on("Palette")
    walk.through("Put 8 tubes in the paintbox", "Take this string of 7", "7 heaps are mixed")
    walk.go_on("Layers")

    # Layers: whose each part is, also of him who turns his back; together they cover the canvas once.
    walk.enter("Take these regions")
    regions = {r.name: r for r in walk.c.layers.regions}
    assert set(regions) >= {
        "Tom's skin",
        "Tom's hair",
        "Tom's left eye",
        "Wilf's cloth",
        "Wilf's head",
        "Rex's head",
        "Rex's left eye",
    }
    assert regions["Wilf's cloth"].kind == "cloth" and area_cm2(regions["Wilf's cloth"]) > area_cm2(regions["Wilf's head"])
    assert sum(area_cm2(r) for r in regions.values()) == pytest.approx(2000, rel=0.01)
    walk.through("Go on to the lie of the fur", "Go on with the guess", "Take these patches", "Go on to the score")
    walk.enter("Paint background, wash")
    passes = passes_in(walk.c, window.desk.studio.climate)
    for region in walk.c.layers.regions:
        assert any(p.region_id == region.id for p in passes), f"nothing is painted of {region.name}"
    # They are put down as painted without the clock, each over dry paint; the walk with the clock is the cat's.
    while walk.page.view.paint is not None:
        if walk.page.view.dry_mood == "wrong":
            clock.now += timedelta(hours=1)
            walk.page.refresh()
            continue
        press(qtbot, walk.page, "It is painted: finish it without the clock")
        keys(qtbot, window, ENTER)
    assert len(walk.c.easel.finished) == len(passes)
    walk.settle()
    walk.go_on("Check")
    walk.photograph(0)
    assert walk.page.measuring.told().counting
    walk.enter("Mend place 1 at the easel")
    walk.click("It is mended: done without the clock")
    assert [line.done for line in walk.c.deliver.last_list] == [True]
    walk.window.open_door(walk.c.id, "Deliver")
    walk.settle()
    walk.deliver()
    assert [d.state for d in window.desk.standings.of(walk.c.id, clock()).doors] == ["shut"] * 9
