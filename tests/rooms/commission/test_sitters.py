"""Where sitters lie: cut-outs before regions, regions before an oval round the eyes."""

from dataclasses import replace

import pytest

from tests.rooms.commission.making import fresh, regions, shut_up_to
from yarrow_lane.commission.sitters import care_of, eyes_of, rings_key, rings_of, sitter_at
from yarrow_lane.compose.pieces import Piece, Ring
from yarrow_lane.intake.brief import add_sitter
from yarrow_lane.measure.outlines import polygon_area, polygon_holds


def square(x: float, y: float, side: float) -> tuple[Ring, ...]:
    return (Ring(((x, y), (x + side, y), (x + side, y + side), (x, y + side)), "ffff"),)


def two_sitters():
    """Two sitters, each a square cut out of the lead, the second in front of the first."""
    c = shut_up_to("Compose")
    pieces = tuple(
        Piece(n, name, "p1", square(*corner, 1000.0), (corner[0] + 500, corner[1] + 500), at, 0.1, sitter_id=n)
        for n, name, corner, at in ((1, "Pip", (0.0, 0.0), (80.0, 100.0)), (2, "Moss", (1000.0, 1000.0), (140.0, 160.0)))
    )
    return replace(c, brief=add_sitter(c.brief, "Moss", "dog"), compose=replace(c.compose, pieces=pieces))


def test_without_anything_drawn_a_head_is_an_oval_round_the_eyes():
    c = shut_up_to("Compose")
    (oval,) = rings_of(c, 0)
    # The eyes lie at 90 and 140 mm, 90 mm down: 50 mm apart.
    assert polygon_holds(oval, (90, 90)) and polygon_holds(oval, (140, 90)) and not polygon_holds(oval, (10, 250))
    assert polygon_area(oval) == pytest.approx(3.1416 * 75 * 100, rel=0.02)
    assert [name for name, _ in eyes_of(c)] == ["right eye", "left eye"] and len(care_of(c)) == 2


def test_regions_stand_before_the_oval_but_for_the_background():
    c = replace(shut_up_to("Compose"), layers=regions())
    assert len(rings_of(c, 0)) == 2 and all(len(ring) < 10 for ring in rings_of(c, 0))


def test_each_sitter_has_its_own_cut_out_and_the_one_in_front_is_met_first():
    c = two_sitters()
    one, other, both = rings_of(c, 1), rings_of(c, 2), rings_of(c, 0)
    assert len(one) == len(other) == 1 and both == (*one, *other) and rings_key(one) != rings_key(other)
    inside_both = (110.0, 130.0)
    assert all(polygon_holds(rings[0], inside_both) for rings in (one, other))
    assert sitter_at(c, inside_both) == 2 and sitter_at(c, (1.0, 299.0)) == 0


def test_nothing_is_known_before_there_are_photographs():
    assert rings_of(fresh(), 0) == () and eyes_of(fresh()) == () and sitter_at(fresh(), (1, 1)) == 0


def test_what_is_known_is_not_worked_out_again_for_a_change_of_the_palette():
    c = two_sitters()
    later = replace(c, palette=replace(c.palette, values=9))
    assert rings_of(c, 1) is rings_of(later, 1)
