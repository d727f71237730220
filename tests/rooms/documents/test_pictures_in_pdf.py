"""Pictures in documents: what a PDF holds of them is what was given, and the page with marks is laid out as said."""

import io

import numpy as np
import pdfplumber
import pypdf
import pytest
import skimage.color
import skimage.data
from PIL import Image

from yarrow_lane.documents.overlay_page import overlay_page
from yarrow_lane.documents.true_size import true_size
from yarrow_lane.transfer.lines.line import Line
from yarrow_lane.transfer.paper import PAPER_MM
from yarrow_lane.transfer.sheets import Printer, lay_on_sheets


def embedded_pictures(pdf: bytes) -> list[np.ndarray]:
    return [np.asarray(image.image.convert("RGB")) for page in pypdf.PdfReader(io.BytesIO(pdf)).pages for image in page.images]


def test_colours_stay_within_what_no_eye_tells():
    """A photograph and the greys for checking the printer: CIEDE2000 against what was given (skimage)."""
    cat = skimage.data.chelsea()
    size = (cat.shape[1] / 3.0, cat.shape[0] / 3.0)
    laid = lay_on_sheets(*size, "A4")
    assert len(laid.sheets) == 1
    (found,) = embedded_pictures(true_size("x", laid, size, Printer(), False, (), lambda area: cat))
    off = skimage.color.deltaE_ciede2000(skimage.color.rgb2lab(cat), skimage.color.rgb2lab(found))
    assert off.mean() < 1.0 and np.percentile(off, 99) < 3.0
    grey = np.repeat(np.repeat(np.arange(0, 256, 5, dtype=np.uint8), 8)[None, :, None], 3, 2) * np.ones((32, 1, 1), np.uint8)
    (found,) = embedded_pictures(true_size("x", laid, size, Printer(), False, (), lambda area: grey))
    assert np.abs(found.astype(int) - grey).max() <= 3 and found.shape == grey.shape


def test_a_large_picture_is_kept_small_and_whole():
    """Twenty million px as bytes of JPEG: without loss they were eighty megabytes."""
    rng = np.random.default_rng(1)
    whole = np.asarray(
        Image.fromarray(rng.integers(0, 255, (60, 50, 3), dtype=np.uint8)).resize((2000, 2500), Image.Resampling.BICUBIC)
    )
    laid = lay_on_sheets(800.0, 1000.0, "A4")

    def part(area):
        left, top, right, bottom = (int(v * 2.5) for v in (area.x, area.y, area.right, area.bottom))
        return whole[top:bottom, left:right]

    data = true_size("x", laid, (800.0, 1000.0), Printer(), False, (), part)
    assert len(embedded_pictures(data)) == len(laid.sheets) and len(data) < 0.2 * whole.nbytes
    assert b"ASCII85Decode" not in data


@pytest.mark.parametrize("size", [(400.0, 500.0), (500.0, 300.0), (3000.0, 1000.0)])
@pytest.mark.parametrize("paper", ["A4", "Letter"])
def test_the_page_over_the_marks_is_as_large_as_it_goes(size, paper):
    picture = np.full((round(size[1] / 2), round(size[0] / 2), 3), 190, np.uint8)
    line = Line(((0.0, 0.0), (size[0], size[1])), (False, False), 1.0)
    with pdfplumber.open(io.BytesIO(overlay_page("A rather long name " * 8, picture, size, paper, (line,)))) as pdf:
        (page,) = pdf.pages
        (image,) = page.images
        wide, high = image["x1"] - image["x0"], image["bottom"] - image["top"]
        assert wide / high == pytest.approx(size[0] / size[1], rel=1e-3)
        assert (page.width > page.height) == (size[0] > size[1]), "the paper lies as the canvas does"
        assert sorted((page.width, page.height)) == pytest.approx([v * 72 / 25.4 for v in sorted(PAPER_MM[paper])], abs=0.01)
        assert image["x0"] > 0 and image["x1"] < page.width and image["bottom"] < page.height
        words = page.extract_words()
        assert all(w["x1"] < page.width for w in words), "a long name is cut, not lost beyond the edge"
        assert max(w["bottom"] for w in words) < image["top"], "nothing lies on the picture"
        (stroke,) = [c for c in page.curves + page.lines if abs(c["x1"] - c["x0"]) > 0.9 * wide]
        assert stroke["x0"] == pytest.approx(image["x0"], abs=0.1) and stroke["x1"] == pytest.approx(image["x1"], abs=0.1)
