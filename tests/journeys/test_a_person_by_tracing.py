"""A person in watercolour by tracing, from a screenshot taken at dusk: with quote, deposit, balance and the papers that go with it."""

from datetime import timedelta

import pypdf
import pytest
from PySide6.QtWidgets import QFileDialog

from tests.journeys.client_pictures import at_dusk, enlarged, picture, saved, sent_again
from tests.journeys.hands import click, drag, keys, path
from tests.journeys.walking import ENTER, Walk
from yarrow_lane.commission.standing import passes_in

# Eyes and landmarks, px of the picture as it came: they were read off it by eye.
EYES = {"left": (463, 420), "right": (632, 420)}
MARKS = {"chin": (554, 704), "crown": (560, 73), "nose tip": (556, 508)}
# Round the jacket, which the guess took for hair; the first corner once more at the end.
JACKET = (
    (40, 1270), (40, 960), (200, 850), (400, 790), (560, 1000), (700, 790), (900, 830), (1050, 900), (1080, 1270), (40, 1270),
)  # fmt: skip


@pytest.fixture
def screenshot(tmp_path):
    return saved(sent_again(at_dusk(enlarged(picture("officer"), 2.2)), 1280, 70, 1), tmp_path / "Screenshot_2026.jpg")


@pytest.mark.timeout(300)
def test_a_portrait_that_is_paid_for(qtbot, window, wait_idle, clock, tmp_path, screenshot, monkeypatch):
    walk = Walk(qtbot, window, wait_idle, clock, tmp_path)
    desk = window.desk
    window.take_files([screenshot])
    walk.settle()
    for label, value in (("Sitter", "Ada Quist"), ("Is a", "person"), ("Client", "Bo Quist"), ("Medium", "watercolour")):
        walk.fill(label, value)
    walk.click(walk.label("Promise "))
    walk.enter("Start the commission")
    cid = window.commission_id
    qtbot.waitUntil(lambda: len(walk.c.intake.photos) == 1, timeout=30_000)
    walk.settle()

    # Intake: the detector says that it is not sure; the painter marks what is to be seen.
    walk.enter("Choose the lead photograph")
    walk.enter("Mark the eyes")
    view = walk.page.marking.picture
    for side, (x, y) in EYES.items():
        walk.fill("Mark the", side)
        drag(view, (x - 15, y), (x + 15, y))
    for name, point in MARKS.items():
        walk.fill("Mark the", name)
        click(view, point)
    walk.settle()
    assert "Shadows cut" in str(walk.page.bench.sheet) and ", much" in str(walk.page.bench.sheet), "dusk is seen as dusk"
    walk.fill("Permission", "client")
    walk.fill("Consent of who is shown", "given")
    walk.look_at("brief")
    walk.fill("Client's postal address", "3 Quay, Saltgate")
    walk.go_on("Compose")
    walk.fill("Stock size", "metric 24 × 30 cm")
    walk.enter("Lay the crop")

    # The books: the quote follows from that size and medium, and the deposit comes before a brush is wet.
    size = walk.c.compose.width_mm, walk.c.compose.height_mm
    window.open_hall("books", cid)
    walk.settle()
    walk.enter("Write the quote")
    quote = window.current.sending.text
    assert "24 × 30" in quote and size == (240, 300)
    walk.through("", "")
    agreed = desk.books.account(cid).agreed
    assert agreed is not None and agreed.price > agreed.deposit > 0
    walk.through("Ask for the deposit", "", "")
    assert desk.books.account(cid).paid == agreed.deposit
    window.open_door(cid, "Compose")
    walk.settle()
    walk.go_on("Transfer")

    # Transfer: sheets at true size, as many as are said.
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(tmp_path / "traced.pdf"), ""))
    assert "tracing" in walk.act, walk.act
    walk.enter("Carry it over by tracing")
    said = int(walk.act.split()[2])
    walk.enter("Save the")
    qtbot.waitUntil(lambda: (tmp_path / "traced.pdf").exists(), timeout=30_000)
    walk.settle()
    assert len(pypdf.PdfReader(tmp_path / "traced.pdf").pages) >= said
    walk.enter("The drawing is on the canvas")
    walk.go_on("Tone")

    # Watercolour everywhere: the light is the paper, no white is squeezed out, mixes count water, nothing is varnished.
    walk.enter("Look at the ground proposed")
    walk.enter("Leave the paper white")
    walk.go_on("Palette")
    walk.enter("Put 7 tubes in the paintbox")
    walk.enter("Take this string of 7")
    names = desk.studio.paintbox.names
    assert not any("white" in names[s.tube] for w in walk.c.palette.wells for s in w.recipe if s.tube in names)
    assert "parts of water" in str(walk.page.bench.sheet)
    walk.go_on("Layers")
    walk.fill("A new part is", "cloth")
    assert {"skin", "hair", "cloth", "eye", "background"} <= {p.kind for p in walk.page.drawing.layers.regions}
    path(walk.page.drawing.view, tuple((x * 240 / 1092, y * 240 / 1092) for x, y in JACKET))
    walk.settle()
    walk.through("Go on to the lie of the fur", "Go on with the guess", "Take these patches", "Go on to the score")
    walk.enter("Paint ")
    count = len(passes_in(walk.c, desk.studio.climate))
    assert walk.page.view.title.startswith("Mask"), "what stays white is masked before the first wash"
    assert walk.paint_all(8.0) == count
    walk.go_on("Check")
    walk.photograph(4)
    assert not any("right eye" in f.where and f.at[0] > 120 for f in walk.page.measuring.told().faults), (
        "sides are the sitter's"
    )
    window.open_door(cid, "Deliver")
    walk.settle()
    care = str(walk.page.bench.sheet)
    assert "arnish" not in care and "glass" in care

    # The way out: the balance is asked for once it is finished, and the papers tell what the rooms decided.
    walk.deliver()
    window.open_hall("books", cid)
    walk.settle()
    walk.through("Ask for the balance", "", "")
    account = desk.books.account(cid)
    assert account.settled and account.paid == agreed.price
    bills = sorted((desk.store.folder / "outbox").glob("*invoice*.pdf"))
    text = " ".join(page.extract_text() for page in pypdf.PdfReader(bills[-1]).pages)
    assert "Bo Quist" in text and "3 Quay" in text and "Ada Quist" in text
    clock.now += timedelta(days=1)
    assert [d.state for d in desk.standings.of(cid, clock()).doors] == ["shut"] * 9
    keys(qtbot, window, ENTER)
