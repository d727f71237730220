"""Days are reckoned the same way before and after the regions are drawn, and what stands in between says so."""

from dataclasses import replace

import pytest

from tests.conftest import NOON
from yarrow_lane.commission.clocks import stop_of_a_waiting_pass
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.eyes import eyes_to_outline, with_eyes
from yarrow_lane.commission.standing import passes_in, passes_planned, stand
from yarrow_lane.commission.studio import Studio
from yarrow_lane.commission.today import meanwhile
from yarrow_lane.compose.composition import Compose
from yarrow_lane.easel.session import finish_pass
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.layers.regions import Layers, add_region
from yarrow_lane.layers.usual import likely_next, usual_layers
from yarrow_lane.measure.plane import Rect, polygon_bounds
from yarrow_lane.paint.drying import Climate


def commission(medium="oil over acrylic", kind="dog", layers=None) -> Commission:
    brief = new_brief("Pip", kind, "", medium, NOON.date(), None)
    return replace(Commission("c0001", brief), compose=Compose(400, 500), layers=layers or Layers())


@pytest.mark.parametrize("medium", ["acrylic", "oil over acrylic", "watercolour"])
def test_drawing_what_was_supposed_moves_no_day(medium):
    """The regions supposed before are drawn by hand: the work left is the same to the minute."""
    before = stand(commission(medium), Studio(), NOON)
    usual = usual_layers(Rect(0, 0, 400, 500), commission(medium).brief, Layers().school)
    after = stand(commission(medium, layers=usual), Studio(), NOON)
    assert before.work.minutes == pytest.approx(after.work.minutes)
    assert [t.after for r in before.rooms for t in r] == [t.after for r in after.rooms for t in r]
    assert "usual head" in before.reckoned and "your regions" in after.reckoned


def test_a_background_alone_is_no_portrait():
    canvas = Rect(0, 0, 400, 500)
    only = add_region(Layers(), "background", canvas.corners, canvas)
    standing = stand(commission(layers=only), Studio(), NOON)
    layers = next(d for d in standing.doors if d.name == "Layers")
    assert (layers.state, layers.wants) == ("ahead", "the sitter is not drawn")
    assert standing.reckoned == stand(commission(), Studio(), NOON).reckoned
    assert standing.work.minutes == pytest.approx(stand(commission(), Studio(), NOON).work.minutes)


def test_a_painted_background_is_no_finished_portrait():
    canvas = Rect(0, 0, 400, 500)
    c = commission(medium="acrylic", layers=add_region(Layers(), "background", canvas.corners, canvas))
    done = c.easel
    for p in passes_in(c, Climate()):
        done = finish_pass(done, p, NOON)
    standing = stand(replace(c, easel=done), Studio(), NOON)
    easel = next(d for d in standing.doors if d.name == "Easel")
    assert (easel.state, easel.wants) == ("ahead", "the sitter is to be painted")
    assert 0 < standing.work.minutes < stand(c, Studio(), NOON).work.minutes, "only the background is done"


def test_what_is_drawn_next_is_what_is_usual():
    canvas, c = Rect(0, 0, 400, 500), commission()
    layers, drawn = c.layers, []
    for _ in range(6):
        drawn.append(likely_next(layers, c.brief))
        place = Rect(40.0 * len(drawn), 60, 30, 30).corners
        layers = add_region(layers, drawn[-1], canvas.corners if drawn[-1] == "background" else place, canvas)
    assert drawn == ["background", "fur", "eye", "eye", "nose", "other"]
    assert likely_next(add_region(Layers(), "background", canvas.corners, canvas), commission(kind="person").brief) == "skin"


def mirrored(c, piece_id: int) -> bool:
    return bool(piece_id) and c.compose.piece(piece_id).mirrored


def test_the_eyes_are_outlined_from_their_marks(demo_store):
    from yarrow_lane.demo.scene import SetClock
    from yarrow_lane.desk.desk import Desk

    desk = Desk(demo_store, SetClock(NOON))
    found = 0
    for i in desk.studio.on_shelf:
        c = desk.commission(i)
        bare = replace(c, layers=replace(c.layers, regions=tuple(r for r in c.layers.regions if r.kind != "eye")))
        eyes = eyes_to_outline(bare)
        there = {r.id for r in bare.layers.regions}
        regions = tuple(r for r in with_eyes(bare).regions if r.id not in there and r.kind == "eye") if eyes else ()
        assert len(regions) == len(eyes)
        for placed, region in zip(eyes, regions, strict=True):
            own = "right eye" if (placed.eye.side == "left") != mirrored(c, placed.piece_id) else "left eye"
            whose = f"{c.compose.piece(placed.piece_id).name}'s " if placed.piece_id else ""
            assert region.kind == "eye" and region.name == whose + own
            assert polygon_bounds(region.outline).width > 1
        found += len(eyes)
    assert found >= 4
    assert eyes_to_outline(commission()) == ()


def test_meanwhile_is_what_can_be_done_now_with_the_nearest_promise():
    first = stand(commission(), Studio(), NOON)
    soon = replace(first, id="soon", promised=NOON.date())
    waits = replace(first, id="waits", promised=NOON.date(), act=replace(first.act, not_before=NOON.replace(year=2099)))
    assert meanwhile([first, waits, soon], "c0009", NOON).id == "soon"
    assert meanwhile([first, waits, soon], "soon", NOON).id == first.id
    assert meanwhile([waits], "c0009", NOON) is None
    assert stop_of_a_waiting_pass(commission(), Climate(), NOON) is None and passes_planned(commission(), Climate())[0]
