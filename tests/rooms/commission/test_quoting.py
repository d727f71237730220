"""Quotes at the painter's own pace."""

from dataclasses import replace

import pytest

from tests.conftest import NOON
from yarrow_lane.books.quote import HOURS
from yarrow_lane.calendar.pace import Pace, Paced
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.newcomer import Newcomer, as_asked, newcomer_work
from yarrow_lane.commission.quoting import hours_by_part, piece_in, piece_of, prices_by_size, quote_for, scope_of
from yarrow_lane.commission.studio import Studio
from yarrow_lane.compose.composition import Compose, ComposeTrouble, set_size
from yarrow_lane.intake.brief import add_sitter, new_brief

DOG = Newcomer(300.0, 400.0, 1, "dog")
NEW = Pace({})


def test_every_minute_of_the_work_is_in_a_part():
    hours = hours_by_part(newcomer_work(DOG, Studio(), NOON), NEW)
    assert set(hours) == set(HOURS) and all(hours.values())
    assert sum(hours.values()) == pytest.approx(newcomer_work(DOG, Studio(), NOON).minutes)


def test_who_paints_slowly_asks_for_more():
    slow = Pace({f"c{n}": [Paced("fur", 60.0, 120.0, 50.0)] * 6 for n in range(4)})
    quick, dear = (quote_for(DOG, False, Studio(), pace, NOON) for pace in (NEW, slow))
    assert dear.part("coat and skin").minutes > 1.5 * quick.part("coat and skin").minutes
    assert dear.part("background").minutes >= quick.part("background").minutes and dear.price > quick.price
    assert abs(dear.an_hour - quick.an_hour) < 4_00, "an hour is worth about the same"


def test_more_sitters_closer_and_framed_cost_more():
    def price(piece: Newcomer, framed: bool = False) -> int:
        return quote_for(piece, framed, Studio(), NEW, NOON).price

    plain = price(DOG)
    assert price(replace(DOG, sitters=2)) > plain and price(DOG, True) > plain and price(replace(DOG, painterly=True)) < plain
    prices = prices_by_size(DOG, False, ((200.0, 300.0), (400.0, 500.0)), Studio(), NEW, NOON)
    assert prices[(200.0, 300.0)].price < plain < prices[(400.0, 500.0)].price


def test_the_piece_of_a_commission_and_back():
    brief = add_sitter(new_brief("Quill", "cat", "T.", "watercolour", NOON.date(), None), "Moss", "cat")
    c = Commission("c1", brief, compose=set_size(Compose(), 240, 300))
    piece = piece_of(c)
    assert (piece.width_mm, piece.height_mm, piece.sitters, piece.kind, piece.medium) == (240.0, 300.0, 2, "cat", "watercolour")
    assert piece_in(scope_of(piece, True)) == piece and scope_of(piece, True).framed
    assert piece_of(replace(c, compose=Compose())).width_mm == 300.0, "a usual size before Compose"


def test_a_size_that_cannot_be_is_refused():
    with pytest.raises(ComposeTrouble):
        quote_for(replace(DOG, width_mm=0.0), False, Studio(), NEW, NOON)


def test_a_commission_begins_as_it_was_asked_about():
    asked = Newcomer(400.0, 500.0, 2, "cat", painterly=True)

    def begun(name: str, piece: Newcomer = asked) -> Commission:
        return as_asked(Commission("c1", new_brief(name, "cat", "T.", "acrylic", NOON.date(), None)), piece)

    c = begun("Moss and Fennel")
    assert [s.name for s in c.brief.sitters] == ["Moss", "Fennel"] and c.brief.title == "Moss and Fennel"
    assert (c.compose.width_mm, c.compose.height_mm, c.layers.school.finish) == (400.0, 500.0, "painterly")
    assert [s.name for s in begun("Moss").brief.sitters] == ["Moss", "sitter 2"]
    assert {s.id for s in begun("Moss").brief.sitters} == {1, 2} and begun("Moss").brief.next_sitter == 3
    assert [s.name for s in begun("Salt and Pepper", replace(asked, sitters=1)).brief.sitters] == ["Salt and Pepper"]
    with pytest.raises(ComposeTrouble):
        begun("Moss", replace(asked, height_mm=0.0))
