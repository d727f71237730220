"""Every paper read again by other programs: its words, numbers, sizes, fonts and properties; long and non-Latin names."""

import io
from datetime import UTC, date, datetime

import pdfplumber
import pypdf
import pytest
from PIL import Image

from yarrow_lane.documents.care_sheet import care_paper, care_rows
from yarrow_lane.documents.certificate import Certificate, certificate_paper
from yarrow_lane.documents.delivery_note import delivery_note_paper
from yarrow_lane.documents.invoice import invoice_paper, receipt_paper
from yarrow_lane.documents.letter_page import letter_paper
from yarrow_lane.documents.page_style import (
    Facts,
    Heading,
    Listed,
    Paper,
    Pictured,
    Signed,
    Sums,
    Words,
    missing_letters,
    paper_pdf,
)
from yarrow_lane.documents.parcel_label import SIZE_MM, Label, parcel_label
from yarrow_lane.documents.seen import pages_of
from yarrow_lane.lane.money import Invoiced, Paid

AT = datetime(2026, 11, 24, 9, 40, tzinfo=UTC)
DAY = date(2026, 11, 24)
LONG = "Wilhelmina Konstantinopolitanska-Featherstonehaugh van der Grachtengordel-Achterwaterkering " * 2
NAMES = ("T. Haldane", "Тамара Ивановна Щукина", "Ωμέγα Παπαδοπούλου", "Zoë Ångström-Łęcka", LONG.strip())
INVOICE = Invoiced(
    AT, 14, "balance", (("Portrait of Quill, 24 × 30 cm, acrylic", 480_00), ("less deposit, invoice 13 of Sun 11 Oct 2026", -240_00)),
    200_00, 40_00, 2000, 240_00, "GBP", DAY, date(2026, 12, 1), 0, ("T. Haldane", "3 Quay"), ("Saltgate Studio", "1 Ropewalk"),
)  # fmt: skip


def text_of(pdf: bytes) -> str:
    with pdfplumber.open(io.BytesIO(pdf)) as book:
        return "\n".join(page.extract_text() or "" for page in book.pages)


def one_line(text: str) -> str:
    return " ".join(text.split())


def test_an_invoice_says_every_number():
    pdf = paper_pdf(invoice_paper(INVOICE, "Quill", "Harbour Savings 0042"))
    text = one_line(text_of(pdf))
    for words in ("Invoice 14", "No. 14", "T. Haldane", "3 Quay", "480.00", "−240.00", "net 200.00", "tax 20 % 40.00",
                  "to pay by Tue 1 Dec 2026 240.00 GBP", "Harbour Savings 0042", "Invoice 14, Quill"):  # fmt: skip
        assert words in text, words
    other = one_line(text_of(paper_pdf(invoice_paper(INVOICE, "Quill", "", "1.234,50"))))
    assert "480,00" in other and "Please pay" not in other


def test_a_credit_note_and_a_receipt():
    credit = Invoiced(AT, 15, "credit", (("Credit on invoice 14", -60_00),), -50_00, -10_00, 2000, -60_00, "GBP", DAY, DAY, 14)
    text = one_line(text_of(paper_pdf(invoice_paper(credit, "Quill", "Harbour Savings"))))
    assert "Credit note 15" in text and "to your credit −60.00 GBP" in text and "Harbour" not in text
    paid = Paid(AT, 9, 14, 100_00, "GBP", DAY, "in cash")
    text = one_line(text_of(paper_pdf(receipt_paper(paid, INVOICE, "Quill", 140_00))))
    assert "Receipt 9" in text and "100.00 GBP" in text and "in cash" in text and "still to pay of it 140.00 GBP" in text
    back = Paid(AT, 10, 14, -60_00, "GBP", DAY)
    assert "Paid back 60.00 GBP" in one_line(text_of(paper_pdf(receipt_paper(back, INVOICE, "Quill", 0))))
    assert "still to pay of it nothing" in one_line(text_of(paper_pdf(receipt_paper(paid, INVOICE, "Quill", 0))))


@pytest.fixture
def picture() -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (240, 300), (120, 90, 60)).save(out, "JPEG")
    return out.getvalue()


def certificate(picture: bytes, painter: str = "Rosalind Thorne") -> Paper:
    said = Certificate(3, "Quill", painter, "24 × 30 cm", "acrylic on canvas", DAY, ("titanium white", "raw umber"), "satin, 2 thin coats",
                       "bottom right", "", picture, 240, 300)  # fmt: skip
    return certificate_paper(said, ("Saltgate Studio",), AT)


def test_a_certificate_with_its_own_picture(picture):
    pdf = paper_pdf(certificate(picture))
    text = one_line(text_of(pdf))
    for words in (
        "Certificate",
        "No. 3",
        "24 × 30 cm",
        "acrylic on canvas",
        "titanium white, raw umber",
        "bottom right",
        "Tue 24 Nov 2026",
    ):
        assert words in text, words
    with pdfplumber.open(io.BytesIO(pdf)) as book:
        (image,) = book.pages[0].images
        assert image["height"] / image["width"] == pytest.approx(300 / 240, abs=0.01)
        assert max(image["height"], image["width"]) == pytest.approx(96 / 25.4 * 72, abs=1)


@pytest.mark.parametrize("name", NAMES)
def test_long_and_other_names_are_printed_whole_and_inside_the_sheet(name, picture):
    assert missing_letters(name) == ""
    papers = (
        certificate(picture, name), care_paper(name, "acrylic", True, (name,), name, AT),
        delivery_note_paper(1, name, (("the painting", name),), (name,), (name,), DAY, "by courier", AT),
        letter_paper(name, f"Dear {name},\n\nthank you.", (name,), (name,), DAY, AT),
    )  # fmt: skip
    for paper in papers:
        pdf = paper_pdf(paper)
        assert name.replace(" ", "") in "".join(text_of(pdf).split()), "not cut"
        with pdfplumber.open(io.BytesIO(pdf)) as book:
            for page in book.pages:
                assert all(
                    c["x0"] > 56 and c["x1"] < page.width - 56 and c["top"] > 40 and c["bottom"] < page.height - 20
                    for c in page.chars
                )


def test_letters_that_cannot_be_printed_are_named():
    assert missing_letters("山田 Ines 山") == "山田"


@pytest.mark.parametrize(("size", "mm"), [("A4", (210, 297)), ("Letter", (215.9, 279.4))])
def test_sheets_fonts_and_properties(size, mm, picture):
    pdf = paper_pdf(certificate(picture), size)
    reader = pypdf.PdfReader(io.BytesIO(pdf))
    box = reader.pages[0].mediabox
    assert (float(box.width) / 72 * 25.4, float(box.height) / 72 * 25.4) == pytest.approx(mm, abs=0.1)
    assert (
        reader.metadata is not None and reader.metadata.title == "Certificate" and reader.metadata.author == "Rosalind Thorne"
    )
    assert reader.metadata.subject == "Quill" and reader.metadata["/CreationDate"].startswith("D:20261124094000")
    root = reader.trailer["/Root"]
    xmp = root["/Metadata"].get_data().decode()
    assert "<pdfaid:part>2</pdfaid:part>" in xmp and "2026-11-24T09:40:00+00:00" in xmp and ">Certificate<" in xmp
    profile = root["/OutputIntents"][0]["/DestOutputProfile"].get_data()
    assert profile[36:40] == b"acsp", "an ICC profile"
    for page in reader.pages:
        for font in page["/Resources"]["/Font"].values():
            descriptor = font.get_object().get("/FontDescriptor")
            if descriptor is not None:
                assert "/FontFile2" in descriptor, "embedded"
    with pdfplumber.open(io.BytesIO(pdf)) as book:
        assert {c["fontname"].split("+")[-1] for p in book.pages for c in p.chars} <= {
            "AlegreyaSans-Regular", "AlegreyaSans-Bold", "Alegreya-Bold", "YarrowSans-Regular", "YarrowSans-Bold", "YarrowSerif-Bold",
        } | {c["fontname"].split("+")[-1] for p in book.pages for c in p.chars if "+" in c["fontname"]}  # fmt: skip


def test_the_same_paper_is_the_same_bytes():
    assert paper_pdf(invoice_paper(INVOICE, "Quill")) == paper_pdf(invoice_paper(INVOICE, "Quill"))


def test_more_than_a_sheet_goes_on_the_next():
    rows = tuple((f"thing {n}", "words " * 12) for n in range(60))
    paper = Paper(
        "Much",
        (
            Facts(rows),
            Heading("Then"),
            Listed(rows[:20]),
            Signed("somebody"),
            Sums((("all", "1.00"),)),
            Words("end", small=True),
        ),
    )
    pdf = paper_pdf(paper)
    reader = pypdf.PdfReader(io.BytesIO(pdf))
    assert len(reader.pages) >= 3
    text = text_of(pdf)
    assert (
        all(f"thing {n}" in text for n in range(60)) and "somebody" in text and str(len(reader.pages)) in text.splitlines()[-1]
    )


def test_markup_in_a_name_is_words():
    text = text_of(
        paper_pdf(letter_paper("Hello", "Dear <b>Jo</b> & Co,\n\n<font size=99>x</font>", ("<i>Jo</i>",), (), DAY, AT))
    )
    assert "<b>Jo</b> & Co," in text and "<i>Jo</i>" in text


def test_care_by_medium():
    acrylic, oil, paper = (dict(care_rows(m, True)) for m in ("acrylic", "oil over acrylic", "watercolour"))
    assert "alcohol" in acrylic["Cleaning"] and "restorer" in oil["Cleaning"] and "Glass" in paper
    assert "it has none" in dict(care_rows("acrylic", False))["Varnish"]


def test_a_label_of_its_size_with_a_barcode_of_its_number():
    pdf = parcel_label(
        Label("Cart & Mule", "CM123456785", (LONG, "3 Quay", "Saltgate"), ("Saltgate Studio",), "40 × 34 × 12 cm", "1.2 kg")
    )
    with pdfplumber.open(io.BytesIO(pdf)) as book:
        page = book.pages[0]
        assert (page.width / 72 * 25.4, page.height / 72 * 25.4) == pytest.approx(SIZE_MM, abs=0.1)
        text = page.extract_text()
        assert "CM123456785" in text and "40 × 34 × 12 cm" in text and "THIS SIDE UP" in text
        bars = [r for r in page.rects if r["height"] > 40]
        assert len(bars) > 20 and all(c["x1"] <= page.width for c in page.chars)


def test_pages_are_seen_as_they_are_saved(picture):
    pdf = paper_pdf(certificate(picture))
    (page,) = pages_of(pdf, 2.0)
    assert page.shape[2] == 3 and abs(page.shape[1] - 420) <= 2 and abs(page.shape[0] - 594) <= 2
    with pdfplumber.open(io.BytesIO(pdf)) as book:
        image = book.pages[0].images[0]
    x, y = (round((image[a] + image[b]) / 2 / 72 * 25.4 * 2) for a, b in (("x0", "x1"), ("top", "bottom")))
    assert abs(page[y, x].astype(int) - (120, 90, 60)).max() < 6, "the colour it was given"
    assert (page[3, 3] == 255).all()


def test_a_picture_keeps_its_proportion():
    out = io.BytesIO()
    Image.new("RGB", (400, 100)).save(out, "JPEG")
    with pdfplumber.open(io.BytesIO(paper_pdf(Paper("x", (Pictured(out.getvalue(), 80, 80, "wide"),))))) as book:
        image = book.pages[0].images[0]
        assert image["width"] / image["height"] == pytest.approx(4, abs=0.02)
