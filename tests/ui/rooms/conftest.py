"""A commission that is framed, for the rooms after Compose; one of two sitters, cut out and placed, for Compose itself."""

import shutil

import numpy as np
import pytest
from bench import hands

from tests.conftest import NOON, jpeg_of
from tests.doing import do_part, photo_from_file
from tests.journeys.hands import fill, keys
from tests.rooms.compose.sitters import sitter
from tests.ui.rooms.doing import ENTER, LONGER, now
from yarrow_lane.commission.studio import with_paintbox
from yarrow_lane.compose.composition import set_size
from yarrow_lane.compose.cutting.outline import traced
from yarrow_lane.compose.pieces import Ring
from yarrow_lane.compose.placing import add_piece
from yarrow_lane.intake.photos import add_photo, set_use
from yarrow_lane.palette.starters import starter
from yarrow_lane.store.store import Store


@pytest.fixture
def framed(qtbot, window, commission_id, wait_idle, cat):
    """A cat of 902 x 600 px on 24 x 30 cm, its crop laid."""
    desk = window.desk
    photo = photo_from_file(desk, jpeg_of(np.kron(cat, np.ones((2, 2, 1), np.uint8))), "cat.jpg")
    do_part(desk, commission_id, "in", "intake", lambda i: add_photo(i, photo))
    do_part(desk, commission_id, "lead", "intake", lambda i: set_use(i, photo.id, "lead"))
    do_part(desk, commission_id, "size", "compose", lambda c: set_size(c, 240, 300))
    window.open_door(commission_id, "Compose")
    wait_idle(window)
    keys(qtbot, window, ENTER)
    wait_idle(window)
    return window


@pytest.fixture
def two(qtbot, window, commission_id, wait_idle):
    """A cat and a rabbit, each in a photograph of its own, on a canvas of 50 x 40 cm."""
    desk = window.desk
    for name in ("cat1", "rabbit1"):
        picture, _ = sitter(name, LONGER)
        photo = photo_from_file(desk, jpeg_of(np.ascontiguousarray(picture)), f"{name}.jpg")
        do_part(desk, commission_id, "in", "intake", lambda i, p=photo: add_photo(i, p))
        do_part(desk, commission_id, "lead", "intake", lambda i, p=photo: set_use(i, p.id, "lead"))
    window.open_door(commission_id, "Compose")
    wait_idle(window)
    page = window.current
    fill(qtbot, page, "Or your own width", "50")
    fill(qtbot, page, "and height", "40")
    wait_idle(window)
    return window


@pytest.fixture
def placed(qtbot, two, wait_idle):
    """Both placed, with the lines a careful hand would have cut along."""
    for photo in now(two).intake.photos:
        rings = traced(hands.body(sitter(photo.name.removesuffix(".jpg"), LONGER)[1], 5), 1.0)[:1]
        outline = tuple(Ring(r, "f" * len(r)) for r in rings)
        size = (photo.width_px, photo.height_px)
        do_part(
            two.desk,
            two.commission_id,
            "placed",
            "compose",
            lambda c, o=outline, p=photo, s=size: add_piece(c, p.name, p.id, o, s),
        )
    two.current.work_on("place")
    wait_idle(two)
    return two


@pytest.fixture
def lined(qtbot, framed, wait_idle):
    """The cat on 24 x 30 cm, its lines found."""
    keys(qtbot, framed, "3")
    wait_idle(framed)
    assert framed.current.lines
    return framed


@pytest.fixture
def own_demo(demo_as_built, tmp_path):
    """A demo of the test's own: what is done there would be found by the next."""
    shutil.copytree(demo_as_built, tmp_path / "demo")
    store = Store(tmp_path / "demo", NOON.date())
    yield store
    store.close()


@pytest.fixture
def palette(qtbot, framed, wait_idle):
    """The palette with the eight tubes of the starter."""
    framed.desk.do_studio("Filled", lambda s: with_paintbox(s, starter("eight earths and primaries")))
    keys(qtbot, framed, "5")
    wait_idle(framed)
    return framed
