"""Paint by tubes: what passes take, what runs out before which sitting. Amounts by hand."""

from dataclasses import replace
from datetime import date, datetime

import pytest

from tests.conftest import NOON
from yarrow_lane.calendar.sittings import Act, Plan, Sitting
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.paint_use import use_of, well_for, what_is_needed
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.layers.passes import Pass
from yarrow_lane.paint.amounts import LOSS, coat_ml
from yarrow_lane.paint.pigments.entries import WHITES, entries
from yarrow_lane.palette.paintbox import Paintbox, change_tube, put_in
from yarrow_lane.palette.recipe import Share
from yarrow_lane.palette.wells import Palette, Well

WHITE = next(p for p in entries() if p in WHITES)
EARTH, DARK = [p for p in entries() if p not in WHITES][:2]
BOX = put_in(put_in(put_in(Paintbox(), WHITE), EARTH), DARK)  # tubes 1, 2, 3


def a_pass(number: int, area: float = 100.0, lightness: int = 50, sitter: int = 0) -> Pass:
    return Pass(
        f"1:fur:dark:{number}",
        1,
        "body fur",
        "fur",
        f"pass {number}",
        area,
        60.0,
        "normal",
        20.0,
        lightness=lightness,
        sitter_id=sitter,
    )


def a_well(number: int, light: float, recipe: tuple[Share, ...], sitter: int = 0, mixed: date | None = None) -> Well:
    return Well(number, "", None, 6.0, (90, 90, 90), (light, 0.0, 0.0), recipe=recipe, sitter_id=sitter, mixed_on=mixed)


HALVES = (Share(1, 1.0), Share(2, 1.0))
DARKS = (Share(3, 1.0),)
PALETTE = Palette((a_well(1, 80.0, HALVES), a_well(2, 20.0, DARKS)), next_id=3)
ML = coat_ml(100.0, "normal") * LOSS


def test_the_well_nearest_in_lightness_of_the_same_sitter():
    assert well_for(a_pass(1, lightness=70), PALETTE).id == 1 and well_for(a_pass(1, lightness=30), PALETTE).id == 2
    theirs = Palette((a_well(1, 80.0, HALVES, sitter=1), a_well(2, 20.0, DARKS, sitter=2)), next_id=3)
    assert well_for(a_pass(1, lightness=75, sitter=2), theirs).id == 2
    assert well_for(a_pass(1), Palette((a_well(1, 50.0, ()),))) is None, "without a mix it takes from no tube"


def test_what_passes_take_by_hand():
    use = use_of((a_pass(1, lightness=75), a_pass(2, 200.0, 15)), PALETTE, BOX, "acrylic")
    assert use.by_tube[1] == pytest.approx(ML / 2) == use.by_tube[2] and use.by_tube[3] == pytest.approx(2 * ML)
    assert use.ml == pytest.approx(3 * ML) and use.unmixed_ml == 0
    bare = use_of((a_pass(1),), Palette(), BOX, "acrylic")
    assert bare.by_tube == {} and bare.unmixed_ml == pytest.approx(ML) == bare.ml


def test_heaps_on_the_palette_are_off_the_tubes_already():
    mixed = Palette((a_well(1, 80.0, HALVES, mixed=NOON.date()),), next_id=2)
    assert use_of((a_pass(1),), mixed, BOX, "acrylic").by_tube and not use_of((a_pass(1),), mixed, BOX, "acrylic", True).by_tube


def sitting(cid: str, day: int, *keys: str) -> Sitting:
    start = datetime(2026, 3, day, 10)
    return Sitting(cid, start, start.replace(hour=12), tuple(Act(k, k, 60) for k in keys))


def test_what_runs_out_before_which_sitting():
    one = Commission("c1", new_brief("Quill", "cat", "T.", "acrylic", NOON.date(), None), palette=PALETTE)
    two = replace(one, id="c2", brief=new_brief("Fennel", "dog", "M.", "acrylic", NOON.date(), None))
    passes = {
        "c1": (a_pass(1, lightness=15), a_pass(2, lightness=15)),
        "c2": (a_pass(1, lightness=15), a_pass(9, lightness=80)),
    }
    box = change_tube(BOX, replace(BOX.tube(3), left_ml=2.5 * ML, size_ml=60.0))
    plan = Plan(
        NOON.date(),
        (
            sitting("c2", 14, "1:fur:dark:1"),
            sitting("c1", 10, "1:fur:dark:1"),
            sitting("c1", 12, "1:fur:dark:2", "1:fur:dark:1"),
        ),
    )
    needs = what_is_needed(box, plan, (one, two), passes)
    (run,) = needs.runs
    assert (run.tube.id, run.before, run.title, run.buy) == (3, date(2026, 3, 14), "Fennel", 1), (
        "the third coat of dark; none counts twice"
    )
    assert needs.by_tube[3] == pytest.approx(3 * ML) and needs.by_tube[1] == pytest.approx(ML / 2), (
        "what is not planned yet counts too"
    )
    plenty = change_tube(BOX, replace(BOX.tube(3), left_ml=60.0, size_ml=60.0))
    assert what_is_needed(plenty, plan, (one, two), passes).runs == ()
    empty = change_tube(BOX, replace(BOX.tube(3), left_ml=0.0, size_ml=ML))
    found = what_is_needed(empty, plan, (one,), {"c1": passes["c1"]}).runs[0]
    assert found.buy == 2 and found.before == date(2026, 3, 10)
    assert what_is_needed(empty, Plan(NOON.date()), (one,), {"c1": passes["c1"]}).runs[0].before is None
