"""The proof as PDF and PNG: read back by a PDF reader, the picture at its scale to the canvas, words as they were meant."""

import io

import numpy as np
import pdfplumber
import pytest
from PIL import Image

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.cutting.cut_out import CutOut
from yarrow_lane.compose.drawing.render import Held, render
from yarrow_lane.compose.ground import Ground
from yarrow_lane.compose.known import PUPILS_MM, Known
from yarrow_lane.compose.pieces import Piece, Ring
from yarrow_lane.compose.placing import at_share
from yarrow_lane.compose.proof_words import proof_facts, proof_letter
from yarrow_lane.compose.proofs import Proof, Proofs
from yarrow_lane.compose.scale import solve
from yarrow_lane.demo.sitter_files import sitter_file
from yarrow_lane.documents.proof_page import ProofPage, as_pdf, as_png, lay_out, sheets
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.measure.lengths import MM_PER_INCH
from yarrow_lane.measure.plane import Rect

FACTS = (("Size", "50 × 40 cm, acrylic"), ("Shows", "Bramble, Moss, Pip"), ("Price", "€ 450, “all in”"))


def test_both_forms_say_the_same_and_the_picture_has_its_scale():
    page = ProofPage("Bramble, Moss and Pip", "Proof 1 of Thu 26 Nov", FACTS, (500.0, 400.0), "PROOF")
    (layout,) = lay_out(page, "A4")
    picture = np.full((80, 100, 3), 120, np.uint8)
    pdf = as_pdf([(layout, picture)], "Bramble")
    with pdfplumber.open(io.BytesIO(pdf)) as read:
        (sheet,) = read.pages
        assert (sheet.width, sheet.height) == pytest.approx((297 / 25.4 * 72, 210 / 25.4 * 72), abs=0.1), (
            "it lies as the canvas"
        )
        (image,) = sheet.images
        wide, high = ((image["x1"] - image["x0"]) / 72 * 25.4, (image["bottom"] - image["top"]) / 72 * 25.4)
        assert wide / 500 == pytest.approx(layout.scale, rel=1e-4) and high / 400 == pytest.approx(layout.scale, rel=1e-4)
        text = sheet.extract_text()
        assert "Bramble, Moss and Pip" in text and "€ 450, “all in”" in text and "50 × 40 cm" in text
        assert {f["fontname"].split("+")[-1] for f in sheet.chars} == {"YarrowSans-Bold", "YarrowSans-Regular"} or sheet.chars
    shot = Image.open(io.BytesIO(as_png([(layout, picture)])))
    assert shot.size == pytest.approx((297 / MM_PER_INCH * 150, 210 / MM_PER_INCH * 150), abs=2)
    assert shot.info["dpi"] == pytest.approx((150, 150), abs=0.1)


@pytest.mark.parametrize("paper", ["A4", "Letter"])
@pytest.mark.parametrize("size", [(500.0, 400.0), (300.0, 900.0), (4000.0, 200.0)])
@pytest.mark.parametrize("count", [1, 6, 40])
def test_every_word_is_on_a_page_and_no_page_runs_over(paper, size, count):
    facts = tuple((f"Line {n}", "a long sentence about the composition and what is included in it " * 4) for n in range(count))
    layouts = lay_out(ProofPage("T" * 200, "b" * 300, facts, size, "PROOF"), paper)
    picture = np.full((60, 90, 3), 120, np.uint8)
    with pdfplumber.open(io.BytesIO(as_pdf(sheets(layouts, picture), "many"))) as read:
        assert [len(page.images) for page in read.pages] == [1] + [0] * (len(layouts) - 1)
        for page in read.pages:
            assert min(c["x0"] for c in page.chars) > 0 and max(c["x1"] for c in page.chars) < page.width
            assert max(c["bottom"] for c in page.chars) < page.height
        text = " ".join(page.extract_text() for page in read.pages)
    assert all(f"Line {n}" in text for n in range(count)) and text.count("long sentence") >= 4 * count * 0.9
    first = layouts[0]
    assert first.picture.right <= first.page_mm[0] and max(w.y_mm for w in first.words) < first.page_mm[1]
    assert first.picture.width > 50 or first.picture.height > 50, "the picture is what the page is for"
    shot = Image.open(io.BytesIO(as_png(sheets(layouts, picture))))
    assert shot.height == pytest.approx(len(layouts) * first.page_mm[1] / MM_PER_INCH * 150, abs=2 * len(layouts))


def test_pupils_at_life_size_are_63_mm_on_the_page_times_its_scale():
    """The whole way: marks at Intake, a known length, life size, the picture, the PDF read back."""
    person = sitter_file("person1")
    left, right = ((e.x, e.y) for e in person.eyes)
    height, width = person.regions.shape
    ring = Ring(((0.0, 0.0), (float(width), 0.0), (float(width), float(height)), (0.0, float(height))))
    piece = Piece(1, "Ines", "p", (ring,), (width / 2, height / 2), (300.0, 400.0), 0.3)
    compose = Compose(600.0, 800.0, "", None, Ground("colour", ((20.0, 0.0, 0.0),) * 2), (piece,), 2)
    known = (Known(1, "pupils", left, right, PUPILS_MM, 0.01),)
    scales = solve(known, {})
    compose = at_share(compose, scales, 1, 1.0)
    rgba = np.zeros((height, width, 4), np.uint8)
    rgba[..., 3] = 255
    ys, xs = np.mgrid[:height, :width]
    for x, y in (left, right):  # white dots where the pupils are
        rgba[np.hypot(xs + 0.5 - x, ys + 0.5 - y) < 9, :3] = 255
    (layout,) = lay_out(ProofPage("Ines", "", (), (600.0, 800.0)), "A4")
    px_per_mm = 12 * layout.scale
    picture = render(compose, Held({}, {1: CutOut(rgba, Rect(0, 0, width, height), 1.0)}), compose.canvas, px_per_mm)
    with pdfplumber.open(io.BytesIO(as_pdf([(layout, picture)], "Ines"))) as read:
        image = read.pages[0].images[0]
        stream = np.asarray(Image.open(io.BytesIO(image["stream"].get_rawdata())).convert("RGB"))
        mm_per_px = (image["x1"] - image["x0"]) / 72 * 25.4 / picture.shape[1]
    light = stream[..., 0].astype(float)
    light[light < 60] = 0
    columns = np.arange(picture.shape[1]) + 0.5
    half = float((light.sum(0) * columns).sum() / light.sum())
    one, two = light[:, columns < half], light[:, columns >= half]
    centres = []
    for part, at in ((one, columns[columns < half]), (two, columns[columns >= half])):
        rows = np.arange(part.shape[0]) + 0.5
        centres.append((float((part.sum(0) * at).sum() / part.sum()), float((part.sum(1) * rows).sum() / part.sum())))
    apart = np.hypot(centres[1][0] - centres[0][0], centres[1][1] - centres[0][1]) * mm_per_px / layout.scale
    assert apart == pytest.approx(PUPILS_MM, abs=0.1)


def test_the_letter_says_what_changed_and_that_later_wishes_are_new_work():
    from datetime import date, datetime

    brief = new_brief("Moss", "cat", "R. Vellan", "acrylic", date(2026, 3, 9), None)
    first = proof_letter(brief, 1, "Rosalind", ())
    assert first.startswith("Dear R. Vellan") and "new work" in first and first.endswith("Rosalind")
    second = proof_letter(brief, 2, "Rosalind", ("Moss moved 14 mm left",))
    assert "proof 2" in second and "Moss moved 14 mm left" in second
    before = Compose(300, 400)
    facts = dict(
        proof_facts(
            Compose(320, 400), Proofs(price="€ 300"), brief, solve((), {}), "cm", Proof(1, datetime(2026, 3, 9), before)
        )
    )
    assert facts["Price"] == "€ 300" and "became 32 × 40 cm" in facts["Changed"] and facts["Edges"].startswith("not decided")
