"""The size proposed for a canvas that has none, by proportions, areas and px worked out by hand."""

import pytest

from yarrow_lane.compose.composition import Compose, set_size
from yarrow_lane.compose.detail import DETAIL_WORKABLE_PX_MM, carried_px_per_mm, largest_canvas
from yarrow_lane.compose.formats import formats_of
from yarrow_lane.compose.proposed_size import proposed_size
from yarrow_lane.compose.wall import Furniture, Wall
from yarrow_lane.intake.photos import Photo

BARE = Wall()


def proposed(width_px: int, height_px: int, wall: Wall = BARE, series: str = "metric"):
    carries = largest_canvas(Compose(), Photo("p1", "one.jpg", width_px, height_px), None)
    return proposed_size(width_px / height_px, carries, wall, formats_of(series))


@pytest.mark.parametrize(
    ("px", "size"),
    [
        ((3000, 4000), (300, 400)),
        ((4000, 3000), (400, 300)),
        ((4000, 4000), (400, 400)),
        ((6000, 4000), (600, 400)),
        ((4100, 3000), (400, 300)),
    ],
)
def test_a_usual_canvas_lies_as_the_photograph_lies(px, size):
    found = proposed(*px)
    assert (found.width_mm, found.height_mm) == size
    exact = px[0] * size[1] == px[1] * size[0]
    assert found.why.startswith("the photograph" if exact else "near the photograph")


def test_in_inches_it_is_one_of_theirs():
    assert proposed(3000, 4000, series="inch").name == "inch 12 × 16 in"


@pytest.mark.parametrize("px", [(450, 600), (600, 450), (1080, 1350), (1080, 1920), (3000, 4000)])
def test_a_thin_photograph_is_not_blown_up_and_its_words_are_what_other_rooms_measure(px):
    found = proposed(*px)
    assert found.width_mm * found.height_mm <= 300 * 400
    carried = carried_px_per_mm(set_size(Compose(), found.width_mm, found.height_mm), Photo("p1", "one.jpg", *px), None)
    assert found.why.endswith("it carries that" if carried >= DETAIL_WORKABLE_PX_MM else "though it carries less")
    assert proposed(450, 600).width_mm < proposed(3000, 4000).width_mm


def test_a_told_wall_is_filled_by_half_to_three_quarters():
    assert 600 <= proposed(6000, 4000, Wall(free_width_mm=1200.0)).width_mm <= 900
    over_sofa = proposed(4000, 3000, Wall(furniture=Furniture("sofa", 1200.0, 800.0)))
    assert 2 / 3 * 1200 <= over_sofa.width_mm <= 3 / 4 * 1200 and "suits the wall" in over_sofa.why
    thin = proposed(1080, 1350, Wall(free_width_mm=1200.0))
    assert thin.width_mm < 600 and thin.why.endswith("narrow for the wall, it carries that")


def test_nothing_is_proposed_of_no_sizes():
    assert proposed_size(0.75, (300, 400), Wall(), ()) is None
