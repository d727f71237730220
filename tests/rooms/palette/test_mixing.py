"""The paintbox, answers for a colour, strings from real pictures, amounts, glazes and the schools."""

import csv
import io
from dataclasses import replace

import numpy as np
import pytest
import skimage.data

from yarrow_lane.measure.colour.cielab import lab_from_srgb8
from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.paint.drying import Climate
from yarrow_lane.paint.seen import srgb_of
from yarrow_lane.palette.advice import advise, cures, seen_word
from yarrow_lane.palette.amounts import from_tubes, needed_ml, to_order
from yarrow_lane.palette.answers import answers, fitted_dark, misses, mix_of
from yarrow_lane.palette.belonging import areas_cm2, elsewhere
from yarrow_lane.palette.client_light import broken_under, looks_under
from yarrow_lane.palette.expected import expected_error
from yarrow_lane.palette.export import as_csv, as_gpl
from yarrow_lane.palette.four_colours import blacks, tubes_for
from yarrow_lane.palette.glazing import changed, glaze_words, glazes_for, wants_light_layer, worked_back
from yarrow_lane.palette.mixer import MixerTrouble, make_mixer
from yarrow_lane.palette.open_time import open_minutes
from yarrow_lane.palette.order import mixing_order
from yarrow_lane.palette.other_media import other_ways
from yarrow_lane.palette.paintbox import (
    Paintbox,
    PaintboxTrouble,
    SeenMix,
    change_tube,
    put_in,
    read_tube,
    saw_mix,
    take_out,
    use_up,
)
from yarrow_lane.palette.recipe import RecipeTrouble, Share, eighths_of
from yarrow_lane.palette.sitters import head_round, mask_of
from yarrow_lane.palette.skin import school_of
from yarrow_lane.palette.starters import STARTERS, starter
from yarrow_lane.palette.stringing import mark_mixed, proposed_wells, recipes_for, take_mixes, take_string, target_of
from yarrow_lane.palette.wells import PALETTE, Palette, PlannedGlaze, add_well

WHITE_GROUND = (96.0, 0.0, 2.0)
# Places of skimage's astronaut and cat, px: skin, hair, lips, cloth, fur, iris, nose.
PLACES = {
    "astronaut": ((205, 110), (240, 100), (222, 180), (190, 60), (225, 155), (260, 330), (120, 260), (210, 130)),
    "cat": ((100, 60), (290, 60), (170, 140), (230, 210), (60, 220), (330, 250), (140, 95), (310, 110)),
}


@pytest.fixture(scope="module")
def box():
    return starter("twenty tubes")


@pytest.fixture(scope="module")
def mixer(box):
    return make_mixer(box, "acrylic")


def colours_of(name):
    picture = {"astronaut": skimage.data.astronaut, "cat": skimage.data.chelsea}[name]()
    found = []
    for x, y in PLACES[name]:
        lab = lab_from_srgb8(picture[y - 4 : y + 4, x - 4 : x + 4]).reshape(-1, 3).mean(axis=0)
        found.append(tuple(float(v) for v in lab))
    return found


@pytest.mark.parametrize("name", PLACES)
def test_skin_fur_and_eyes_of_real_pictures_are_mixed(mixer, name):
    off = []
    for lab in colours_of(name):
        target = target_of(lab, True)
        found = answers(mixer, target, WHITE_GROUND)
        assert found[0].names[0] == "proposed"
        assert min(a.mix.off for a in found) == pytest.approx(next(a for a in found if "closest" in a.names).mix.off, abs=0.35)
        off.append(found[0].mix.off)
    assert np.median(off) < 0.9 and max(off) < 4.5


def test_each_way_keeps_its_word(mixer, box):
    target = (62.0, 17.0, 20.0)
    scarce = frozenset({t.id for t in box.tubes if t.pigment == "PY43"})
    found = {name: a.mix for a in answers(mixer, target, WHITE_GROUND, scarce) for name in a.names}
    fewest = min(len({s.tube for s in m.recipe}) for m in found.values())
    assert len({s.tube for s in found["fewest tubes"].recipe}) == fewest
    strong = {mixer.paints.all[n].id for n in mixer.paints.strong}
    assert not strong & {s.tube for s in found["no strong tinter"].recipe}
    assert not scarce & {s.tube for s in found["from what is left"].recipe}
    assert found["holds in every light"].shifts <= found["proposed"].shifts + 1e-9
    for mix in found.values():
        parts = eighths_of(mixer.pale.paints if any(s.tint for s in mix.recipe) else mixer.paints, mix.recipe)
        assert parts.max() <= 8 * 24 and mix.doubt > mix.slip and mix.wet is not None


def test_a_pale_colour_begins_from_a_let_down(mixer):
    best = answers(mixer, (91.0, 2.0, 5.0), WHITE_GROUND)
    assert min(a.mix.off for a in best) < 0.8
    assert any(s.tint for a in best for s in a.mix.recipe)


def test_out_of_reach_says_which_way(mixer):
    dark = answers(mixer, (4.0, 0.0, 0.0), WHITE_GROUND)
    assert "lighter" in misses((4.0, 0.0, 0.0), dark[0].mix.lab)
    vivid = answers(mixer, (70.0, 90.0, -60.0), WHITE_GROUND)
    assert "duller" in misses((70.0, 90.0, -60.0), vivid[0].mix.lab)
    assert misses((60.0, 10.0, 10.0), (60.0, 10.0, 11.0)) == ""
    lifted = fitted_dark((4.0, 0.0, 0.0))
    assert lifted[0] > 15 and fitted_dark((90.0, 2.0, 5.0))[0] == pytest.approx(90, abs=0.4)


def test_advice_on_a_well_holds_together(mixer, box):
    target = (62.0, 17.0, 20.0)
    first = answers(mixer, target, WHITE_GROUND)[0].mix.recipe
    found = advise(mixer, first, target, WHITE_GROUND, box.names, frozenset(), True)
    assert found.mix is not None and found.mix.recipe == first and found.mix.off == found.answers[0].mix.off
    assert found.order.startswith("Begin with") and dict(found.cures)["too dark"]
    assert [seen_word(v) for v in (0.5, 1.5, 3, 9)] == ["hard to see", "just seen", "seen", "plainly seen"]


def test_white_is_begun_with_for_pale_mixes_and_ended_with_for_others(mixer, box):
    ids = {t.pigment: t.id for t in box.tubes}
    pale = (Share(ids["PW6"], 8.0), Share(ids["PY43"], 1.0), Share(ids["PB29"], 0.125))
    strong = (Share(ids["PY43"], 4.0), Share(ids["PBr7bs"], 2.0), Share(ids["PW6"], 1.0))
    assert mixing_order(mixer.paints, pale)[0].tube == ids["PW6"]
    assert [s.tube for s in mixing_order(mixer.paints, strong)] == [ids["PY43"], ids["PBr7bs"], ids["PW6"]]


@pytest.mark.parametrize("picture", [skimage.data.astronaut, skimage.data.chelsea])
def test_a_string_is_proposed_from_a_picture(mixer, picture):
    seen = picture()
    lab = lab_from_srgb8(seen)
    scale = seen.shape[1] / 300
    wells = proposed_wells(mixer, lab, scale, None, Palette(values=7), 0)
    assert len(wells) == 7 and [w.lab[0] for w in wells] == sorted(w.lab[0] for w in wells)
    assert len({s.tube for w in wells for s in w.recipe}) <= 5
    for well in wells:
        x, y = (int(v * scale) for v in well.at_mm)
        there = lab[max(0, y - 3) : y + 4, max(0, x - 3) : x + 4].reshape(-1, 3).mean(axis=0)
        assert float(difference(there, well.lab)) < 9, "the place shows the colour"
    palette = take_string(add_well(Palette(), (1, 1), 4, (0, 0, 0), (10.0, 0.0, 0.0)), wells)
    assert [w.id for w in palette.wells] == list(range(1, 9)) and palette.next_id == 9
    assert all(w.answered for w in palette.wells[1:]) and not palette.wells[0].answered


def test_mixes_for_wells_and_heaps_on_the_palette(mixer):
    palette = add_well(Palette(), (1, 1), 4, (0, 0, 0), (50.0, 10.0, 15.0))
    recipes = recipes_for(mixer, [w.lab for w in palette.wells], 4)
    palette = take_mixes(palette, {1: recipes[0], 99: recipes[0]})
    assert palette.well(1).recipe == recipes[0]
    from datetime import date

    assert mark_mixed(palette, [1], date(2026, 1, 2)).well(1).mixed_on == date(2026, 1, 2)


def test_areas_cover_the_sitter_and_no_more():
    lab = lab_from_srgb8(skimage.data.chelsea())
    wells = [(30.0, 5.0, 10.0), (55.0, 10.0, 20.0), (75.0, 5.0, 10.0)]
    mask = mask_of([((50, 50), (200, 50), (200, 200), (50, 200))], lab.shape[:2], 1.0)
    assert mask is not None and mask.sum() == pytest.approx(150 * 150, rel=0.02)
    areas = areas_cm2(lab, 1.0, wells, mask)
    assert sum(areas) == pytest.approx(mask.sum() / 100)
    oval = head_round([(100, 100), (140, 100)])
    assert oval is not None and mask_of([oval], lab.shape[:2], 1.0) is not None and head_round([(1, 1)]) is None


def test_where_else_a_colour_belongs():
    picture = np.full((120, 160, 3), 200, np.uint8)
    picture[10:30, 10:30] = picture[80:110, 120:150] = (150, 90, 60)
    lab = lab_from_srgb8(picture)
    found = elsewhere(lab, 2.0, tuple(lab[15, 15]), 3.0)
    assert found.share == pytest.approx((400 + 900) / picture[..., 0].size) and len(found.places) == 2
    assert found.places[0] == pytest.approx((67.25, 47.25), abs=0.5), "the larger one first, in mm of canvas"


def test_amounts_follow_area_and_coats():
    # 412 cm2, two coats of 80 um with half as much again: 9.9 ml.
    assert needed_ml(412, 2) == pytest.approx(9.888) and needed_ml(0.1, 1) == 1.0
    taken = from_tubes((Share(1, 6.0), Share(2, 2.0)), 8.0, 1)
    assert taken == {1: 6.0, 2: 2.0}
    tinted = from_tubes((Share(1, 1.0), Share(2, 1.0, True)), 22.0, 1)
    assert tinted == pytest.approx({1: 21.0, 2: 1.0})
    box = change_tube(put_in(put_in(Paintbox(), "PW6"), "PY43"), replace(put_in(Paintbox(), "PW6").tubes[0], left_ml=10.0))
    short = to_order(box, {1: 75.0, 2: 3.0})
    assert [(s.tube, s.tubes) for s in short] == [(1, 2)]
    assert use_up(box, {1: 4.0, 2: 99.0}).tube(1).left_ml == 6.0 and use_up(box, {2: 99.0}).tube(2).left_ml == 0.0
    assert open_minutes(Climate(20, 50), False) == pytest.approx(30) and open_minutes(Climate(20, 50), True) == pytest.approx(
        60
    )
    assert open_minutes(Climate(26, 30), False) < 20


def test_the_paintbox_keeps_its_tubes_in_order(box):
    assert len(box.tubes) == 20 and len(STARTERS["the four-colour portrait box"]) == 4
    assert starter("eight earths and primaries", "acrylic", box).tubes[-1].id <= 20 + 8
    again = starter("twenty tubes", "acrylic", box)
    assert again == box, "nothing twice"
    assert not any(t.white for t in starter("twenty tubes", "watercolour").tubes)
    two = put_in(put_in(Paintbox(), "PY43", line="soft"), "PY43", line="heavy")
    assert two.names == {1: "yellow ochre, soft", 2: "yellow ochre, heavy"}
    with pytest.raises(PaintboxTrouble):
        put_in(box, "PX99")
    with pytest.raises(PaintboxTrouble):
        change_tube(box, replace(box.tubes[0], left_ml=900.0))
    fewer = take_out(saw_mix(box, SeenMix((Share(1, 10.0), Share(4, 1.0)), (80.0, 5.0, 20.0), 2.0)), 4)
    assert not fewer.seen and len(fewer.tubes) == 19
    with pytest.raises(PaintboxTrouble):
        fewer.tube(4)


def test_an_empty_paintbox_says_so_and_a_mix_of_a_tube_that_is_gone_too(mixer):
    with pytest.raises(MixerTrouble, match="holds no oil tube"):
        make_mixer(Paintbox(), "oil")
    with pytest.raises(RecipeTrouble, match="no longer in the paintbox"):
        mix_of(mixer, (Share(77, 1.0),), None, WHITE_GROUND)
    with pytest.raises(RecipeTrouble):
        eighths_of(mixer.paints, ())


def test_one_tube_and_no_white_still_answer():
    one = make_mixer(put_in(Paintbox(), "PY43"), "acrylic")
    assert answers(one, (80.0, 0.0, 0.0), WHITE_GROUND)[0].mix.recipe == (Share(1, 1.0),)
    assert one.pale is None


def test_tints_seen_make_every_mix_surer(box):
    recipes = ((Share(1, 6.0), Share(4, 2.0)), (Share(1, 8.0), Share(12, 1.0)))
    unread = expected_error(box, "acrylic", recipes)
    assert unread.now == pytest.approx(unread.unread) and unread.with_tints < unread.unread
    taught = box
    mixer = make_mixer(box, "acrylic")
    for tube in (4, 12, 18):
        lab = mixer.paints.lab(eighths_of(mixer.paints, (Share(1, 10.0), Share(tube, 1.0))))
        taught = saw_mix(taught, SeenMix((Share(1, 10.0), Share(tube, 1.0)), tuple(float(v) for v in lab), 2.0))
    assert expected_error(taught, "acrylic", recipes).now < 0.75 * unread.unread
    assert len(saw_mix(taught, taught.seen[0]).seen) == 3, "the same mix is seen once"
    assert read_tube(box, 4, ()).tube(4).generic


def test_a_glaze_gets_the_wanted_change(mixer, box):
    recipe = (Share(1, 6.0), Share(4, 2.0), Share(15, 1.0))
    now = mix_of(mixer, recipe, None, WHITE_GROUND).lab
    wanted = changed(now, "warmer", 8.0)
    ways = glazes_for(mixer, recipe, wanted)
    assert ways[0].off < 0.5 * float(difference(now, wanted)) and len(ways[0].looks) == 3
    assert "part in" in glaze_words(ways[0].glaze, box)
    assert glaze_words(PlannedGlaze((1,), 0.05, 2), box) == "scumble: titanium white, 1 part in 19 of medium, 2 coats"
    plan = PlannedGlaze((15,), 0.075)
    back = worked_back(mixer, plan, (62.0, 18.0, 24.0))
    assert back.off < 1.5 and back.lab[0] > 62.0 and back.looks[0][0] > back.looks[2][0]
    assert wants_light_layer((70.0, 40.0, 50.0), (33.0, 5.0, 8.0)) and not wants_light_layer((70.0, 4.0, 5.0), (33.0, 5.0, 8.0))


def test_skin_by_four_colours_goes_where_it_says(mixer, box):
    school = school_of(
        mixer, box, "acrylic", (62.0, 18.0, 20.0), (30.0, 8.0, 12.0), [(30.0, 8.0, 12.0), (62.0, 18.0, 20.0), (88.0, 3.0, 6.0)]
    )
    words = [s.words for s in school.steps]
    middle = next(s for s in school.steps if "middle tone" in s.words)
    assert float(difference(middle.lab, (62.0, 18.0, 20.0))) < 4
    steps = {s.words.split(":")[0]: s.lab for s in school.steps}
    assert steps["Pinker"][2] < middle.lab[2] or steps["Pinker"][1] > middle.lab[1]
    assert steps["Yellower"][2] > middle.lab[2] and steps["Lighter"][0] > middle.lab[0] + 1
    assert np.hypot(*steps["Greyer"][1:]) < np.hypot(*middle.lab[1:])
    assert steps["Deepest"][0] < steps["Dark"][0] < middle.lab[0] and words[0].startswith("Red and ochre")
    white = next(t.id for t in box.tubes if t.pigment == "PW6")
    assert all(white not in {s.tube for s in step.recipe} for step in school.steps if step.words.startswith("D"))
    assert not school.missing and school.transition is not None and 35 < school.transition.lab[0] < 58
    assert [s.lab[0] for s in school.whites] == sorted(s.lab[0] for s in school.whites)
    short = put_in(put_in(Paintbox(), "PW6"), "PY43")
    assert school_of(make_mixer(short, "acrylic"), short, "acrylic", (60.0, 15.0, 18.0), None, []).missing == ("red", "blue")
    assert tubes_for(box, "acrylic")["blue"].pigment == "PB29"


def test_blacks_are_compared_darkest_first(mixer, box):
    found = blacks(box, mixer.paints, "acrylic")
    assert len(found) >= 3 and [b.lab[0] for b in found] == sorted(b.lab[0] for b in found)
    assert all(b.chroma < 7 and b.lab[0] < 28 for b in found)


def test_under_other_lamps_colours_keep_their_places_or_are_named(mixer):
    recipes = [(Share(1, 6.0), Share(4, 2.0)), (Share(3, 1.0),), (Share(18, 1.0), Share(17, 1.0))]
    by_day = looks_under(mixer, recipes, "daylight")
    assert by_day[0] == pytest.approx(tuple(mixer.paints.lab(eighths_of(mixer.paints, recipes[0]))), abs=0.01)
    assert not broken_under(mixer, recipes, "daylight")
    for broken in broken_under(mixer, recipes, "warm lamp"):
        assert abs(broken.there - broken.by_day) >= 1.5


def test_watercolour_and_pastel_are_said_in_words(box):
    paints = make_mixer(starter("twenty tubes", "watercolour"), "watercolour").paints
    names = starter("twenty tubes", "watercolour").names
    ways = other_ways(paints, "watercolour", (70.0, 10.0, 25.0), names)
    assert "parts of water" in ways[0].words and ways[0].off < 5
    sticks = starter("twenty tubes", "soft pastel")
    laid = other_ways(make_mixer(sticks, "soft pastel").paints, "soft pastel", (70.0, 10.0, 25.0), sticks.names)
    assert "stick" in laid[0].words and laid[0].off < 6


def test_the_palette_leaves_as_text_and_table():
    palette = add_well(
        add_well(Palette(), None, 4, (10, 20, 30), (8.0, 0.0, -8.0), "pupil\tdeep"),
        (1, 1),
        4,
        (200, 190, 180),
        (77.0, 2.0, 6.0),
    )
    text = as_gpl("Fennel,\nthe dog", palette, palette.by_lightness)
    assert text.splitlines()[1] == "Name: Fennel, the dog" and " 10  20  30\tpupil deep" in text
    rows = list(csv.DictReader(io.StringIO(as_csv(palette, palette.by_lightness, {}, {1: 3.2}))))
    assert rows[0]["red"] == "10" and rows[0]["ml"] == "3.2" and len(rows) == 2


def test_wells_of_before_the_tubes_are_read():
    before = {
        "wells": [{"id": 1, "name": "", "at_mm": None, "patch_mm": 4, "srgb": [1, 2, 3], "lab": [1, 2, 3], "mix": "white 6"}],
        "next_id": 2,
    }
    assert PALETTE.upgrades[-1](before, {}) == before and PALETTE.version == 3


def test_a_mix_whose_tube_is_gone_says_so_and_others_are_offered(mixer, box):
    found = advise(mixer, (Share(77, 1.0), Share(1, 1.0)), (62.0, 17.0, 20.0), WHITE_GROUND, box.names, frozenset(), True)
    assert found.mix is None and "no longer in the paintbox" in found.gone and found.answers and found.order.startswith("Begin")
    with pytest.raises(RecipeTrouble, match="its tube is no longer"):
        worked_back(mixer, PlannedGlaze((77,), 0.05), (62.0, 17.0, 20.0))


def test_every_tube_has_its_colour_ready(mixer, box):
    for tube in box.tubes:
        column = np.eye(len(mixer.paints))[mixer.paints.column(tube.id)]
        assert mixer.tubes[tube.id, False] == srgb_of(mixer.paints.lab(column))
        if not tube.white:
            pale, own = mixer.tubes[tube.id, True], mixer.tubes[tube.id, False]
            assert sum(pale) > sum(own), tube.called
    assert mixer.bytes > mixer.table.bytes > 20e6


def test_warm_light_calls_for_warm_additions_and_cool_for_cool(mixer):
    """What cures 'too blue' is warm, and what cures 'too orange' is cool."""
    recipe = (Share(1, 6.0), Share(4, 1.0), Share(18, 1.0))
    found = dict(cures(mixer, recipe, {t.id: t.entry.key for t in starter("twenty tubes").tubes}))
    assert any(key in found["too blue"] for key in ("PY", "PO", "PR", "NapY", "PBr"))
    assert any(key in found["too orange"] for key in ("PB29", "PB15", "PBk", "PG18"))


@pytest.mark.parametrize(("medium", "held"), [("acrylic", 8), ("watercolour", 7), ("oil", 8), ("soft pastel", 8)])
def test_a_starter_box_for_each_medium(medium, held):
    box = starter("eight earths and primaries", medium)
    assert len(box.of(medium)) == held and set(box.names_of(medium)) == {t.id for t in box.tubes}
    both = starter("eight earths and primaries", "oil", starter("eight earths and primaries"))
    assert both.names_of("oil")[both.of("oil")[0].id] == "titanium white", "names are told apart only within a medium"


def test_a_tint_counts_when_a_white_and_one_colour_were_seen(box):
    tint = SeenMix((Share(1, 10.0), Share(4, 1.0)), (80.0, 5.0, 20.0), 2.0)
    for seen, tinted in (
        (tint, {4}),
        (replace(tint, wet=True), set()),
        (replace(tint, recipe=(Share(4, 2.0), Share(6, 1.0))), set()),
        (replace(tint, recipe=(Share(1, 8.0), Share(4, 1.0), Share(6, 1.0))), set()),
    ):
        assert saw_mix(box, seen).tinted == tinted
