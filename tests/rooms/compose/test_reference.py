"""The one reference picture: the same composition has the same name and pixels, whoever asks and at whatever scale."""

from dataclasses import replace

import numpy as np
import pytest
import skimage.data

from yarrow_lane.compose.composition import Compose, ComposeTrouble, Framed, to_canvas, to_photo
from yarrow_lane.compose.drawing.render import Held, render
from yarrow_lane.compose.reference import photographs_of, reference_key, working_px_per_mm
from yarrow_lane.measure.plane import Rect

PICTURE = skimage.data.astronaut()
FRAMED = Compose(200, 250, "metric 20 × 25 cm", Framed("p1", Rect(40, 20, 320, 400)))


sources = Held({"p1": PICTURE}, {})


def test_the_whole_canvas_is_the_crop():
    found = render(FRAMED, sources, FRAMED.canvas, 1.6)
    assert found.shape == (400, 320, 3)
    assert np.abs(found.astype(int) - PICTURE[20:420, 40:360]).max() <= 1, "at the photograph's own scale nothing changes"


def test_a_part_is_the_same_as_the_part_of_the_whole():
    whole = render(FRAMED, sources, FRAMED.canvas, 0.8)
    part = render(FRAMED, sources, Rect(50, 100, 75, 50), 0.8)
    assert np.abs(part.astype(int) - whole[80:120, 40:100]).max() <= 1


def test_the_name_follows_what_is_seen_and_nothing_else():
    key = reference_key(FRAMED)
    assert key == reference_key(replace(FRAMED, format_name="by hand")) != ""
    others = (
        replace(FRAMED, width_mm=201),
        replace(FRAMED, background=Framed("p2", Rect(40, 20, 320, 400))),
        replace(FRAMED, background=Framed("p1", Rect(41, 20, 320, 400))),
    )
    assert len({key, *(reference_key(c) for c in others)}) == 4
    assert reference_key(Compose(200, 250)) == "" == reference_key(Compose())
    assert photographs_of(FRAMED) == ("p1",) and photographs_of(Compose()) == ()


def test_without_a_crop_nothing_is_shown():
    for compose, area in ((Compose(200, 250), Rect(0, 0, 9, 9)), (FRAMED, Rect(0, 0, 0, 9))):
        with pytest.raises(ComposeTrouble):
            render(compose, sources, area, 1.0)


def test_the_working_scale_never_enlarges():
    assert working_px_per_mm(FRAMED, 125) == 0.5 and working_px_per_mm(FRAMED, 100_000) == pytest.approx(1.6)


def test_canvas_and_photograph_name_the_same_place():
    assert to_photo(FRAMED, to_canvas(FRAMED, (77, 99))) == pytest.approx((77, 99))
