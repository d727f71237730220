"""A commission that is framed, for the rooms after Compose."""

import numpy as np
import pytest

from tests.conftest import jpeg_of
from tests.doing import do_part, photo_from_file
from tests.journeys.hands import keys
from tests.ui.rooms.doing import ENTER
from yarrow_lane.compose.composition import set_size
from yarrow_lane.intake.photos import add_photo, set_use


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
