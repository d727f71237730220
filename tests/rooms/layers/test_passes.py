"""The sequence of passes and their drying."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.rooms.layers.making import CANVAS, box, portrait
from yarrow_lane.layers.passes import region_minutes, same_place
from yarrow_lane.layers.regions import (
    Layers,
    LayersTrouble,
    School,
    add_region,
    as_kind,
    region_at,
    wipe_region,
)
from yarrow_lane.layers.sequence import sequence
from yarrow_lane.paint.drying import Climate, drying_minutes, saturation_hpa


@pytest.mark.parametrize(("celsius", "hpa"), [(0, 6.11), (10, 12.27), (20, 23.37), (30, 42.43)])
def test_saturation_pressure_against_the_tables(celsius, hpa):
    """WMO No. 8 / Smithsonian Meteorological Tables, saturation vapour pressure over water."""
    assert saturation_hpa(celsius) == pytest.approx(hpa, rel=0.003)


def test_drying_follows_the_handbook():
    """15 min for 80 µm at 20 °C and 50 % [from memory]; film and deficit scale it."""
    assert drying_minutes("normal", "acrylic", Climate(20, 50)) == pytest.approx(15)
    assert drying_minutes("thick", "acrylic", Climate(20, 50)) == pytest.approx(37.5)
    assert drying_minutes("normal", "acrylic", Climate(20, 75)) == pytest.approx(30)
    assert drying_minutes("thick", "watercolour", Climate(20, 50)) == pytest.approx(15 * 30 / 80)
    assert drying_minutes("normal", "soft pastel", Climate()) == 0
    assert 2 * 1440 <= drying_minutes("wash", "oil over acrylic", Climate()) <= 7 * 1440


@given(st.floats(5, 40), st.floats(5, 94))
def test_warmer_and_drier_is_quicker(celsius, humidity):
    here = drying_minutes("normal", "acrylic", Climate(celsius, humidity))
    assert drying_minutes("normal", "acrylic", Climate(celsius, humidity + 1)) > here
    assert drying_minutes("normal", "acrylic", Climate(celsius + 1, humidity)) < here


@pytest.mark.parametrize(
    ("kind", "area", "hours"),
    [("background", 100, 0.12), ("fur", 200, 1.8), ("skin", 100, 1.4), ("eye", 2, 0.9), ("nose", 55, 0.5)],
)
def test_pace_follows_the_table(kind, area, hours):
    """Hours per 100 cm²; each eye 0.6 h + 0.15 h per cm² (handbook table of numbers)."""
    assert region_minutes(kind, area) == pytest.approx(hours * 60)


def test_shares_of_the_fur_passes():
    """Block-in 15 %, under 30 %, middle 30 %, tips 15 %, glaze 10 % (handbook table of numbers)."""
    body = [p for p in sequence(portrait(), "acrylic", Climate()) if p.region_name == "body"]
    total = sum(p.minutes for p in body)
    assert [round(p.minutes / total, 2) for p in body] == [0.15, 0.30, 0.30, 0.15, 0.10]


def test_a_pass_waits_for_its_neighbours():
    passes = {p.id: p for p in sequence(portrait(), "acrylic", Climate())}
    head = next(p for p in passes.values() if p.region_name == "head" and p.name == "under layer")
    needed = {passes[n.id].region_name for n in head.needs}
    assert needed == {"head", "body", "background"}, "an eye that the body waits for already is not told twice"


def test_watercolour_is_never_painted_dark_to_light():
    passes = sequence(portrait(School(values="dark to light")), "watercolour", Climate())
    assert next(p for p in passes if p.kind == "fur").name == "first light wash"


def test_regions_are_cut_named_and_found():
    layers = add_region(portrait(), "fur", box(350, 450, 300, 300), CANVAS)
    assert layers.regions[-1].name == "fur"
    again = add_region(layers, "fur", box(350, 450, 300, 300), CANVAS)
    assert again.regions[-1].name == "fur 2" and as_kind(again, again.regions[-1], "hair").name == "hair", "the name follows"
    head = next(r for r in again.regions if r.name == "head")
    assert as_kind(again, head, "cloth").name == "head", "unless the painter gave it"
    assert max(x for x, _ in layers.regions[-1].outline) == 400
    assert region_at(layers, (145, 110)).name == "left eye"
    assert region_at(wipe_region(layers, 4), (145, 110)).name == "head"
    for outline in (((0, 0), (1, 1)), box(500, 600, 10, 10), ((5, 5), (6, 6), (7, 7))):
        with pytest.raises(LayersTrouble, match="encloses no ground"):
            add_region(layers, "fur", outline, CANVAS)


def test_a_pass_names_region_kind_order_and_role():
    passes = sequence(portrait(), "acrylic", Climate())
    assert passes[0].id == "1:background:dark:wash" and len({p.id for p in passes}) == len(passes)
    assert same_place("2:fur:dark:middle", "2:skin:light:middle") and not same_place("2:fur:dark:middle", "3:fur:dark:middle")
    assert not same_place("2:fur:dark:middle", "2:fur:dark:tips")


def test_deeper_things_come_before_nearer_ones():
    """Within one stage of the subject the back is painted before the front: cloth, fur, skin, then mouth and nose."""
    layers = add_region(Layers(), "nose", box(10, 10, 50, 50), CANVAS)
    layers = add_region(layers, "cloth", box(100, 10, 50, 50), CANVAS)
    layers = add_region(layers, "mouth", box(200, 10, 50, 50), CANVAS)
    kinds = [p.kind for p in sequence(layers, "acrylic", Climate()) if p.kind != "background"]
    assert kinds[:3] == ["cloth", "mouth", "nose"]


def test_a_region_drawn_after_one_was_wiped_out_takes_a_new_id():
    layers = portrait()
    again = add_region(wipe_region(layers, 5), "skin", box(0, 0, 50, 50), CANVAS)
    assert again.regions[-1].id == 6
