"""Where Palette stands, step by step, and what wells wait for."""

from dataclasses import replace
from datetime import date

from yarrow_lane.palette.recipe import Share
from yarrow_lane.palette.standing import stand
from yarrow_lane.palette.stringing import mark_mixed, take_mixes, take_words
from yarrow_lane.palette.wells import Palette, add_well, change_well, empty_well

OCHRE = (Share(2, 3.0), Share(1, 1.0))


def wells(count: int, sitter_id: int = 0) -> Palette:
    palette = Palette()
    for n in range(count):
        palette = add_well(palette, (n, n), 4, (n, n, n), (20.0 + 20 * n, 0, 0), sitter_id=sitter_id)
    return palette


def test_the_room_goes_from_colours_to_mixes_to_heaps():
    empty = stand(Palette(), "r")
    assert empty.wants == "no colour taken" and empty.act.title == "Take a string of colours"
    taken = wells(3)
    standing = stand(taken, "r")
    assert standing.fact == "3 wells, 0 with a mix" and standing.act.title == "Find the mixes of 3 wells"
    found = take_mixes(taken, {w.id: OCHRE for w in taken.wells})
    standing = stand(found, "r")
    assert standing.wants == "3 to mix" and standing.act.title == "Mix 3 wells" and standing.act.minutes == 15
    mixed = mark_mixed(found, [w.id for w in found.wells], date(2026, 3, 9))
    assert stand(mixed, "r").act is None and stand(mixed, "r").fact == "3 wells, 3 with a mix"
    topping_up = change_well(mixed, replace(mixed.well(2), mixed_on=None))
    assert stand(topping_up, "r").act.title == "Mix 1 well"


def test_a_mix_in_words_counts_and_needs_no_heap_by_tubes():
    palette = take_words(wells(2), {1: "white 6 : ochre 2", 2: "1 burnt umber, in 3 parts of water"})
    assert palette.unanswered() == () and palette.to_mix() == () and stand(palette, "r").act is None
    half = take_words(wells(2), {1: "something warm"})
    assert [w.id for w in half.unanswered()] == [1, 2]


def test_what_rests_on_another_reference_is_said():
    palette = replace(mark_mixed(take_mixes(wells(1), {1: OCHRE}), [1], date(2026, 3, 9)), made_from="before")
    assert stand(palette, "after").stale and not stand(palette, "before").stale


def test_a_sitters_palette_holds_its_own_wells_and_those_of_all():
    palette = wells(2, 1)
    palette = add_well(palette, (9, 9), 4, (1, 1, 1), (50.0, 0, 0), "ground")
    palette = add_well(palette, (9, 9), 4, (1, 1, 1), (55.0, 0, 0), "other", 2)
    assert [palette.name_of(w) for w in palette.of(2)] == ["ground", "other"]
    assert len(palette.of(1)) == 3 and len(palette.of(0)) == 4
    found = take_mixes(palette, {w.id: OCHRE for w in palette.of(2)})
    assert [w.id for w in found.to_mix(2)] == [3, 4] and len(found.unanswered(1)) == 2
    assert found.to_mix(1) == (found.well(3),)
    assert len(empty_well(found, 4).of(2)) == 1
