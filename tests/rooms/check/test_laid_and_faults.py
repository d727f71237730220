"""What cannot be measured is refused in one sentence; clumps of value and warmth become faults; nothing is told as surer than it is."""

import numpy as np
import pytest

from yarrow_lane.check.differences import LIMIT, Patches
from yarrow_lane.check.faults import areas_off, holds_within
from yarrow_lane.check.laid import MOST_WEAK, PaintingTrouble, PhotoAsked, laid
from yarrow_lane.check.measured import AreaAsked
from yarrow_lane.measure.trouble import Trouble

SIZE = (240.0, 300.0)


def photograph(canvas: np.ndarray, ground: int = 128, edge: int = 70) -> tuple[np.ndarray, tuple]:
    """A canvas lying straight on a flat ground, with its corners."""
    high, wide = canvas.shape[:2]
    picture = np.full((high + 2 * edge, wide + 2 * edge, 3), ground, np.uint8)
    picture[edge : edge + high, edge : edge + wide] = canvas
    corners = ((edge, edge), (edge + wide, edge), (edge + wide, edge + high), (edge, edge + high))
    return picture, tuple((float(x), float(y)) for x, y in corners)


def textured(mean: int, high: int = 750, wide: int = 600) -> np.ndarray:
    rng = np.random.default_rng(1)
    return np.clip(rng.normal(mean, 18, (high, wide, 3)), 0, 255).astype(np.uint8)


def test_a_canvas_is_laid_on_its_own_millimetres():
    picture, corners = photograph(textured(60), 200)
    found = laid(PhotoAsked(picture, corners), SIZE, 2.0)
    assert found.flat.shape == (600, 480, 3) and len(found.straight.weak) <= MOST_WEAK
    assert abs(float(found.flat.mean()) - 60) < 4 and found.sheet is None


@pytest.mark.parametrize(
    ("mean", "ground", "words"),
    [(3, 90, "nearly black"), (254, 90, "burnt out"), (128, 128, "no canvas's edges")],
)
def test_what_cannot_be_measured_is_refused(mean, ground, words):
    canvas = np.full((750, 600, 3), mean, np.uint8)
    picture, corners = photograph(canvas, ground)
    with pytest.raises(Trouble) as said:
        laid(PhotoAsked(picture, corners), SIZE, 2.0)
    assert words in said.value.sentence and said.value.remedy


def test_a_canvas_that_is_cut_off_is_refused():
    picture, corners = photograph(textured(60), 200)
    cut = picture[:, : picture.shape[1] - 150]
    with pytest.raises(PaintingTrouble) as said:
        laid(PhotoAsked(cut, corners), SIZE, 2.0)
    assert "edges are seen" in said.value.sentence or "outside the photograph" in said.value.sentence


def test_a_white_sheet_tells_the_light():
    picture, corners = photograph(textured(60), 200)
    fall = np.linspace(1.0, 0.5, picture.shape[1])[None, :, None]
    sheet = (np.full(picture.shape, 230) * fall).astype(np.uint8)
    found = laid(PhotoAsked(picture, corners, sheet), SIZE, 2.0)
    assert found.sheet is not None and found.sheet.mean() == pytest.approx(1.0, abs=0.01)
    left, right = found.sheet[:, 0].mean(), found.sheet[:, -1].mean()
    assert left > 1.2 > 1.0 > right, "brighter where the lamp stood"


def patches(off: np.ndarray, label: np.ndarray, sd: float = 1.0) -> Patches:
    """Patches of 6 mm with these offsets of value; warmth holds."""
    high, wide = off.shape
    at = np.stack(np.meshgrid(np.arange(wide) * 6.0 + 3, np.arange(high) * 6.0 + 3), -1)
    both = np.stack([off, np.zeros_like(off)], -1)
    lab = np.full((high, wide, 3), 50.0)
    fields = {"at": at, "off": both, "sd": np.full((high, wide, 2), sd), "label": label, "wanted": lab, "seen": lab}
    return Patches(**fields)


def test_regions_are_told_by_their_middle():
    off = np.zeros((10, 10))
    off[:, :5] = -6.0
    label = np.ones((10, 10), int)
    label[:, 5:] = 2
    areas = (AreaAsked(7, "head fur", ()), AreaAsked(8, "background", (), True, True), AreaAsked(9, "nose", (), False))
    found = areas_off(patches(off, label), np.ones((10, 10), bool), areas)
    assert found[0].name == "the whole picture" and found[0].value == pytest.approx(-3.0)
    assert [(a.area_id, a.value) for a in found[1:]] == [(7, -6.0), (8, 0.0)]
    few = np.zeros((10, 10), bool)
    few[0, :2] = True
    assert areas_off(patches(off, label), few, areas) == (), "too few to speak of"


def test_where_less_is_seen_less_is_promised():
    flat, ones = np.zeros((10, 10)), np.ones((10, 10), int)
    every = np.ones((10, 10), bool)
    assert holds_within(patches(flat, ones, 0.1), every) == LIMIT["value"]
    assert holds_within(patches(flat, ones, 9.0), every) > holds_within(patches(flat, ones, 3.0), every) >= LIMIT["value"]
    assert holds_within(patches(flat, ones), np.zeros((10, 10), bool)) == LIMIT["value"]
