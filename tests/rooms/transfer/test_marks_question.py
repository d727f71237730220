"""What a worker answers of photographs of marks: a wall of 3 m, and what comes in by mistake."""

from pathlib import Path

import numpy as np
import pytest
from PIL import Image

from yarrow_lane.canvas_photo.register import PX_PER_MM
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.standins.camera import Taking, drawn_on, photograph
from yarrow_lane.standins.surface import DARK_INK, marked, painted, scribbles
from yarrow_lane.transfer.question import lay_on_marks, suggest_corners

WALL = (3000.0, 2000.0)
PX = 0.5


@pytest.fixture(scope="module")
def wall(tmp_path_factory):
    """A wall of 3 x 2 m with marks, photographed bare and a third painted."""
    folder: Path = tmp_path_factory.mktemp("wall")
    strokes = scribbles(*WALL, 60, 4)
    bare = marked(drawn_on(*WALL, PX, 4, (205.0, 195.0, 180.0)), PX, strokes, DARK_INK, 4)
    later = painted(bare, np.full((200, 300, 3), (90, 110, 120), np.uint8), PX, strokes, 0.3, 4)
    told = []
    for number, canvas in enumerate((bare, later)):
        shot = photograph(canvas, *WALL, 50 + number, Taking(aside=12, depth_mm=0.0, longer_px=1800))
        file = folder / f"{number}.png"
        Image.fromarray(shot.picture).save(file)
        told.append((file, file.name, tuple(map(tuple, shot.corners(*WALL).tolist()))))
    return told


def test_a_wall_of_three_metres_is_laid_on_by_its_marks(wall):
    first = lay_on_marks(wall[0], None, WALL)
    assert first.picture.shape[1] == pytest.approx(WALL[0] * PX_PER_MM / 6, abs=1), "in the strokes of a large surface"
    xs = [x for x, _ in first.marks]
    assert min(xs) < 400 and max(xs) > 2600 and len(xs) > 200, "marks are told in mm of the wall"
    later = lay_on_marks(wall[1], wall[0], WALL)
    assert later.why_not == "" and later.agreeing >= 15
    assert later.rest_mm < 6 * 0.9 and later.doubt_mm < 6 * 1.0, "six times what it is on 50 cm"


def test_corners_of_a_wall_are_guessed(wall):
    found = suggest_corners(wall[0][0], "wall", WALL)
    assert found is not None
    assert np.abs(np.array(found) - np.array(wall[0][2])).max() < 0.02 * 1800


def test_what_comes_in_by_mistake_is_said(wall, tmp_path):
    file, name, corners = wall[0]
    for wrong, words in (
        (corners[:3], "four corners"),
        ((corners[0], corners[2], corners[1], corners[3]), "cross"),
        (corners[::-1], "clockwise"),
        (tuple((x / 50, y / 50) for x, y in corners), "too small"),
    ):
        with pytest.raises(Trouble, match=words):
            lay_on_marks((file, name, wrong), None, WALL)
    turned = lay_on_marks((file, name, (*corners[2:], *corners[:2])), wall[0], WALL)
    assert "upside down" in turned.why_not
    grey = tmp_path / "grey.png"
    Image.fromarray(np.full((1200, 1800, 3), 130, np.uint8)).save(grey)
    nothing = lay_on_marks((grey, "grey.png", corners), wall[0], WALL)
    assert nothing.why_not, "a photograph without a canvas is laid on nothing"
    bare = lay_on_marks((grey, "grey.png", corners), None, WALL)
    assert bare.marks == () and len(bare.wanting) > 0
    with pytest.raises(Trouble, match=r"no\.png"):
        (tmp_path / "no.png").write_bytes(b"nothing")
        lay_on_marks((tmp_path / "no.png", "no.png", corners), None, WALL)
