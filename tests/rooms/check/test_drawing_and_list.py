"""Moves against those scikit-image made; words, places, remedies, strips, film, and what is kept."""

import io
from datetime import timedelta

import numpy as np
import pytest
import skimage.data
import skimage.filters
import skimage.transform
from PIL import Image

from tests.conftest import NOON
from yarrow_lane.canvas_photo.taken import Taken
from yarrow_lane.check.drawing import alike, moved_back, moves_of, places_moved, plain
from yarrow_lane.check.edges import soft_edges
from yarrow_lane.check.film import before_and_after, film_of, in_one_light, png_of, small
from yarrow_lane.check.measured import ColourFault
from yarrow_lane.check.mending import mend_of
from yarrow_lane.check.ranking import Fault
from yarrow_lane.check.record import (
    CHECK,
    Check,
    CheckTrouble,
    MeantSo,
    ToMend,
    accepted,
    mend,
    middle_of,
    no_longer_meant,
    not_mend,
    note_seen,
    refuse,
    with_corner,
    with_photo,
    with_sheet,
)
from yarrow_lane.check.shine import shine_apart
from yarrow_lane.check.standing import stand
from yarrow_lane.check.strips import chosen_strips
from yarrow_lane.check.wording import where_words
from yarrow_lane.intake.watched import new_pictures
from yarrow_lane.measure.colour.cielab import lightness_from_srgb8
from yarrow_lane.paint.drying import Climate
from yarrow_lane.palette.mixer import make_mixer
from yarrow_lane.palette.paintbox import Paintbox
from yarrow_lane.palette.starters import SUGGESTED, starter
from yarrow_lane.palette.wells import Palette, Well

PX = 2.5
CAT = np.ascontiguousarray(skimage.transform.resize(skimage.data.cat(), (500, 750), preserve_range=True).astype(np.uint8))
SIZE = (300.0, 200.0)


def plain_of(picture):
    return plain(lightness_from_srgb8(picture), PX)


@pytest.mark.parametrize(
    ("right", "down", "scale", "turn"), [(1.5, -1.0, 1.0, 0.0), (0.0, 0.0, 1.01, 0.5), (-0.8, 0.6, 0.992, -0.6)]
)
def test_the_whole_is_what_scikit_image_did(right, down, scale, turn):
    middle = np.array([375.0, 250.0])
    about = skimage.transform.AffineTransform(translation=-middle)
    way = skimage.transform.SimilarityTransform(scale=scale, rotation=np.deg2rad(turn), translation=(right * PX, down * PX))
    back = skimage.transform.AffineTransform(translation=middle)
    whole = about + way + back
    moved = skimage.transform.warp(CAT, whole.inverse, mode="edge", order=3, preserve_range=True).clip(0, 255).astype(np.uint8)
    found, places, noise = places_moved(
        plain_of(CAT), plain_of(moved), PX, (("nose", (150.0, 110.0)),), np.ones((500, 750), bool)
    )
    assert found.shift == pytest.approx((right, down), abs=0.15) and found.scale == pytest.approx(scale, abs=0.0015)
    assert found.degrees == pytest.approx(turn, abs=0.1) and places == () and noise < 0.6
    moves, again = moves_of(plain_of(CAT), plain_of(moved), PX)
    assert again.scale == pytest.approx(scale, abs=0.002)
    assert alike(plain_of(CAT), plain_of(moved_back(moved, moves))) > 0.95 > alike(plain_of(CAT), plain_of(moved)) - 0.3


def test_one_place_that_moved_is_told_with_its_way():
    y, x = np.mgrid[:500, :750].astype(float)
    near = np.exp(-0.5 * (((x - 300) ** 2 + (y - 250) ** 2) / (15 * PX) ** 2) ** 1.5)
    channels = [
        skimage.transform.warp(
            CAT[..., k].astype(float), np.array([y + near * 2 * PX, x - near * 6 * PX]), mode="edge", order=3
        )
        for k in range(3)
    ]
    moved = np.stack(channels, -1).clip(0, 255).astype(np.uint8)
    places = (("left eye", (120.0, 100.0)), ("ear", (210.0, 60.0)))
    _, told, _ = places_moved(plain_of(CAT), plain_of(moved), PX, places, np.ones((500, 750), bool))
    assert [m.name for m in told] == ["left eye"]
    assert (told[0].right, told[0].down) == pytest.approx((6.0, -2.0), abs=1.0)


def test_shine_is_what_one_photograph_has_and_the_other_has_not():
    rng = np.random.default_rng(1)
    one, other = (50 + rng.normal(0, 0.5, (60, 50)) for _ in range(2))
    y, x = np.mgrid[:60, :50]
    one = one + 9 * np.exp(-0.5 * ((x - 12) ** 2 + (y - 20) ** 2) / 16)
    other = other + 6 * np.exp(-0.5 * ((x - 38) ** 2 + (y - 40) ** 2) / 16)
    here, there = shine_apart(one, other)
    assert here[20, 12] and there[40, 38] and not here[40, 38] and not there[20, 12] and here.mean() < 0.15
    calm = shine_apart(one * 0 + 50, other * 0 + 50)
    assert not calm[0].any() and not calm[1].any()


# --- words


PLACES = (("left eye", (100.0, 100.0)), ("right eye", (150.0, 102.0)), ("chin", (120.0, 180.0)))


@pytest.mark.parametrize(
    ("at", "words"),
    [
        ((101.0, 103.0), "Cheek, at the left eye"), ((100.0, 130.0), "Cheek, 3\u202fcm below the left eye"),
        ((160.0, 112.0), "Cheek, 1½\u202fcm below right of the right eye"), ((120.0, 160.0), "Cheek, 2\u202fcm above the chin"),
        ((290.0, 390.0), "Cheek, lower right"),
    ],
)  # fmt: skip
def test_places_in_words(at, words):
    assert where_words(at, "cheek", PLACES, (300.0, 400.0)) == words
    assert where_words((10.0, 10.0), "", (), (300.0, 400.0)) == "Upper left"
    assert where_words((101.0, 101.0), "", (("Pip's left eye", (100.0, 100.0)),), (300.0, 400.0)) == "At Pip's left eye"


# --- remedies


def fault(value=0.0, warmth=0.0, wanted=(40.0, 12.0, 20.0)):
    seen = (wanted[0] + value, wanted[1] + 0.57 * warmth, wanted[2] + 0.82 * warmth)
    c = ColourFault((50.0, 60.0), 900.0, 1, value, warmth, 1.0, wanted, seen, ())
    return Fault((("value", 1),), c.at, 30.0, 5.0, "Cheek", "off", 1, colour=c)


WELLS = Palette(
    (
        Well(1, "dark", (10, 10), 4, (20, 16, 12), (6.0, 1.0, 2.0), "black 1"),
        Well(2, "cheek", (10, 10), 4, (130, 84, 60), (41.0, 14.0, 21.0), "umber 1"),
    )
)


def test_a_value_is_mended_from_the_nearest_well():
    found = mend_of(fault(value=12.0), WELLS, None, Paintbox(), Climate(), "acrylic")
    assert found.short == "well 2" and "cheek" in found.steps[0].words and found.minutes > 8
    far = mend_of(fault(value=-12.0, wanted=(70.0, -30.0, 30.0)), WELLS, None, Paintbox(), Climate(), "acrylic")
    assert "dE off" in far.steps[0].detail
    assert mend_of(fault(value=9.0), Palette(), None, Paintbox(), Climate(), "acrylic").short == "mix"


def test_warmth_alone_is_glazed_when_a_glaze_helps():
    box = starter(SUGGESTED, "acrylic", Paintbox())
    mixer = make_mixer(box, "acrylic")
    cool = fault(warmth=-12.0, wanted=(45.0, 15.0, 25.0))
    found = mend_of(cool, WELLS, mixer, box, Climate(), "acrylic")
    assert found.short.startswith("glaze 1 : ") and "once it is dry" in found.steps[0].detail
    both = mend_of(fault(value=11.0, warmth=-12.0, wanted=(45.0, 15.0, 25.0)), WELLS, mixer, box, Climate(), "acrylic")
    assert both.steps[0].short == "well 2" and len(both.steps) == 2, "the value first, then the warmth"
    pastel = mend_of(cool, WELLS, mixer, box, Climate(), "pastel")
    assert "glaze" not in pastel.short


def test_a_line_is_redrawn_before_its_colours():
    from yarrow_lane.check.drawing import Moved

    line = Fault((("drawing", 1),), (1, 1), 10, 1, "Left eye", "off", moved=Moved("left eye", (1, 1), 2.0, 4.4))
    found = mend_of(line, WELLS, None, Paintbox(), Climate(), "acrylic")
    assert found.short == "redraw" and "4½\u202fmm up and 2\u202fmm to the left" in found.steps[0].words


# --- strips, film


def test_strips_cross_what_is_off_and_show_the_values():
    rng = np.random.default_rng(2)
    faults = [
        ((float(x), float(y)), float(w))
        for x, y, w in zip(rng.uniform(20, 280, 10), rng.uniform(20, 380, 10), rng.uniform(1, 5, 10), strict=True)
    ]
    lightness = np.tile(np.linspace(0, 100, 300, dtype=np.float32), (400, 1))
    found = chosen_strips(faults, (300.0, 400.0), lightness)
    assert len(found.strips) == 4 and found.covered > 0.75 and found.values >= 7
    even = [n for n, (at, _) in enumerate(faults) if any(abs(at[1] - 400 * share) < 14 for share in (0.2, 0.4, 0.6, 0.8))]
    assert found.covered > sum(faults[n][1] for n in even) / sum(w for _, w in faults), "better than four even rows"
    for strip in found.strips:
        a = strip.area
        assert a.x >= 0 and a.y >= 0 and a.right <= 300 and a.bottom <= 400 and {a.width, a.height} == {20.0, 180.0}
    assert chosen_strips([], (120.0, 90.0), lightness[:90, :120]).covered == 0.0, "a small canvas, nothing off"


def test_a_film_runs_in_one_light():
    lit = [
        np.clip(CAT.astype(float) * np.linspace(a, b, 750)[None, :, None], 0, 255).astype(np.uint8)
        for a, b in ((0.6, 1.0), (1.0, 0.7), (0.9, 0.9))
    ]
    even = in_one_light(lit, CAT, PX, SIZE)
    spread = lambda frames: np.abs(frames[0].astype(float) - frames[-1])[20:-20, 20:-20].mean()  # noqa: E731
    assert spread(even) < 0.35 * spread(lit)
    frames = small(even, 120)
    film = Image.open(io.BytesIO(film_of(small((CAT, CAT[::-1], CAT[:, ::-1]), 120))))
    assert film.format == "WEBP" and film.n_frames == 3 + 2 * 4 and film.size == (120, 80)
    assert Image.open(io.BytesIO(png_of(frames[0]))).size == (120, 80)
    assert Image.open(io.BytesIO(before_and_after(frames[0], frames[2]))).size[1] == 80


# --- what is kept


def taken(n=0, at=NOON):
    return Taken(f"h{n}", f"{n}.jpg", (100, 80), at, ((1.0, 1.0), (90.0, 1.0), (90.0, 70.0), (1.0, 70.0)))


def test_photographs_are_kept_in_time_and_a_second_of_one_state_beside_it():
    check = with_photo(Check(), taken(0))
    assert check.photo_id == "h0" and not check.newest.accepted and check.together == check.photos
    check = accepted(with_corner(check, 0, (2.345, 3.0)))
    assert check.newest.corners[0] == (2.35, 3.0) or check.newest.corners[0] == (2.34, 3.0)
    check = with_photo(check, taken(1, NOON + timedelta(hours=1)), second=True)
    assert [p.photo_id for p in check.together] == ["h0", "h1"] and check.at == NOON + timedelta(hours=1)
    assert with_photo(Check(), taken(0), second=True).together == with_photo(Check(), taken(0)).together, (
        "a second wants a first"
    )
    check = with_photo(check, taken(2))
    assert len(check.photos) == 3 and [p.photo_id for p in check.together] == ["h2"]
    assert with_sheet(check, "s", "sheet.jpg").newest.sheet_id == "s"
    with pytest.raises(CheckTrouble):
        accepted(Check())


def test_refused_is_not_to_be_mended_and_counts_again_when_wished():
    line = ToMend("Cheek: too light", (50.0, 50.0), (("value", 1),), 20.0)
    check = mend(mend(Check(), line), line)
    assert check.to_mend == (line,) and not_mend(check, line.words).to_mend == ()
    meant = MeantSo((("value", 1),), (55.0, 52.0), 20.0)
    check = refuse(check, meant)
    assert check.to_mend == () and check.meant_so == (meant,) and no_longer_meant(check, meant).meant_so == ()
    assert note_seen(check, " the ear ").seen == ("the ear",)
    with pytest.raises(CheckTrouble):
        note_seen(check, " ")


def test_the_door_says_what_is_to_be_mended_and_what_is_meant_so():
    early = with_photo(Check(made_from="old"), taken())
    assert early.made_from == "", "a new photograph is compared with the present reference"
    assert stand(Check(), NOON, True, "r").wants == "no photograph of the painting"
    assert stand(early, NOON + timedelta(days=1), True, "r").wants == "compare again when the painting is done"
    assert stand(early, NOON, False, "r").wants and stand(early, NOON - timedelta(days=1), True, "r").wants == ""
    told = refuse(mend(early, ToMend("x", (0, 0), (("value", 1),), 5)), MeantSo((("warmth", 1),), (90, 90), 9))
    assert stand(told, NOON - timedelta(days=1), True, "r").fact.endswith("1 to mend, 1 meant so")


def test_a_photograph_of_before_is_the_first_of_many():
    plain_ = {
        "photo_id": "h",
        "photo_name": "a.jpg",
        "size_px": [1000, 500],
        "at": "2026-03-01T12:00:00+00:00",
        "seen": ["ear"],
        "made_from": "r",
    }
    for step in CHECK.upgrades:
        plain_ = step(plain_, {"compose": {"width_mm": 300, "height_mm": 300}})
    assert plain_["seen"] == ["ear"] and plain_["photos"][0]["corners"] == [[250, 0], [750, 0], [750, 500], [250, 500]]
    assert middle_of((400, 300), 2.0) == ((0.0, 50.0), (400.0, 50.0), (400.0, 250.0), (0.0, 250.0))


def test_new_pictures_of_a_folder(tmp_path):
    (tmp_path / "a.jpg").write_bytes(b"x")
    (tmp_path / "b.txt").write_bytes(b"x")
    (tmp_path / "c.PNG").write_bytes(b"")
    known = frozenset(p.name for p in new_pictures(str(tmp_path), frozenset()))
    assert known == {"a.jpg"}
    (tmp_path / "d.heic").write_bytes(b"y")
    assert [p.name for p in new_pictures(str(tmp_path), known)] == ["d.heic"]
    assert new_pictures("", known) == () and new_pictures(str(tmp_path / "gone"), known) == ()


def test_a_border_made_soft_is_seen_and_no_other():
    """The picture itself with one part of it blurred by 2 mm."""
    lightness = lightness_from_srgb8(CAT)
    blurred = skimage.filters.gaussian(lightness, 2.0 * PX)
    soft = lightness.copy()
    soft[120:330, 180:520] = blurred[120:330, 180:520]
    told = soft_edges(lightness, soft, PX, np.ones(lightness.shape, bool))
    assert len(told) >= 2 and all(t > 1.8 for _, t in told)
    assert all(180 / PX - 4 < x < 520 / PX + 4 and 120 / PX - 4 < y < 330 / PX + 4 for (x, y), _ in told)
    assert soft_edges(lightness, lightness, PX, np.ones(lightness.shape, bool)) == ()
    assert soft_edges(lightness, blurred, PX, np.zeros(lightness.shape, bool)) == (), "nothing is painted"
