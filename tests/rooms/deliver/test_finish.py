"""Made ready: where to sign, frame and varnish by the clock, pictures for the web. On real pictures from scikit-image (CC0)."""

import io
from dataclasses import replace
from datetime import date, timedelta

import numpy as np
import pytest
import skimage.data
from PIL import Image

from tests.conftest import NOON
from yarrow_lane.deliver.gallery import GalleryTrouble, gallery_jpeg
from yarrow_lane.deliver.handover import (
    Deliver,
    DeliverTrouble,
    answered,
    begin_rest,
    brought_to,
    into_frame,
    lies_ahead,
    look_again,
    pack_from,
    sign,
    step_now,
    varnish,
    with_finish,
)
from yarrow_lane.deliver.signature import corner_words, signature_length, signature_place
from yarrow_lane.deliver.standing import frame_from, stand, tasks_left
from yarrow_lane.deliver.timing import by_the_clock

HOUR, DAY = timedelta(hours=1), timedelta(days=1)


def noisy(quiet: tuple[slice, slice], grey: int) -> np.ndarray:
    """A picture of noise, 400 x 500 px, with one quiet place."""
    picture = np.random.default_rng(3).integers(0, 255, (500, 400, 3), dtype=np.uint8)
    picture[quiet] = grey
    return picture


@pytest.mark.parametrize(
    ("columns", "where", "grey", "light"),
    [
        (slice(290, 400), "bottom right", 40, True),
        (slice(0, 120), "bottom left", 220, False),
        (slice(150, 250), "bottom middle", 30, True),
    ],
)
def test_the_quiet_place_is_found_and_what_reads_there(columns, where, grey, light):
    found = signature_place(noisy((slice(420, 500), columns), grey), 400, 500)
    assert found is not None and corner_words(found.at, 400) == where and found.light is light
    assert found.busy < 12 and found.at[1] > 400 and found.length_mm == signature_length(400)


def test_right_before_left_where_both_are_quiet():
    assert signature_place(np.full((500, 400, 3), 60, np.uint8), 400, 500).at[0] > 300


def test_not_where_paint_is_still_to_come():
    flat = np.full((500, 400, 3), 60, np.uint8)
    right = ((200.0, 0.0), (400.0, 0.0), (400.0, 500.0), (200.0, 500.0))
    assert signature_place(flat, 400, 500, (right,)).at[0] < 200
    whole = ((0.0, 0.0), (400.0, 0.0), (400.0, 500.0), (0.0, 500.0))
    assert signature_place(flat, 400, 500, (whole,)) is None


@pytest.mark.parametrize("name", ["cat", "astronaut", "coffee", "rocket"])
def test_on_real_pictures_it_is_quieter_than_the_band_beneath(name):
    picture = getattr(skimage.data, name)()[..., :3]
    high, wide = picture.shape[:2]
    found = signature_place(picture, wide / 2, high / 2)
    grey = picture.astype(float) @ (0.299, 0.587, 0.114)
    steps = np.abs(np.diff(grey, axis=1))[:-1] + np.abs(np.diff(grey, axis=0))[:, :-1]
    assert found.busy <= steps[int(high * 0.8) :].mean() * 1.05
    assert 0 < found.at[0] < wide / 2 and high / 2 * 0.8 - 1 <= found.at[1] < high / 2


def test_a_picture_for_the_web_is_small_plain_and_marked(cat):
    plain, marked = (Image.open(io.BytesIO(gallery_jpeg(cat, 400, name))) for name in ("", "© R. Thorne"))
    assert max(plain.size) == 400 and not plain.getexif() and plain.size == marked.size
    difference = np.abs(np.asarray(plain).astype(int) - np.asarray(marked)).max(axis=2)
    rows, columns = np.nonzero(difference > 60)
    assert len(rows) > 30 and rows.min() > plain.height * 0.85 and columns.min() > plain.width * 0.4, "low at the right"
    assert max(Image.open(io.BytesIO(gallery_jpeg(cat, 4000))).size) == max(cat.shape), "never enlarged"
    with pytest.raises(GalleryTrouble, match="outside 400 to 4000"):
        gallery_jpeg(cat, 100)


def finished() -> Deliver:
    """Signed, rested and looked at."""
    return look_again(begin_rest(sign(Deliver(), NOON), NOON), NOON + DAY)


def test_a_framed_one_waits_for_hard_varnish_and_for_its_frame():
    d = finished()
    for n in range(2):
        d = varnish(d, NOON + DAY + n * 3 * HOUR, None)
    assert step_now(d, "acrylic") == "pack" and step_now(d, "acrylic", True) == "frame"
    dry = pack_from(d, "acrylic")
    with pytest.raises(DeliverTrouble, match="take marks"):
        into_frame(d, dry - HOUR, dry)
    late = with_finish(d, comes=date(2026, 3, 20))
    assert frame_from(late, "acrylic", NOON.tzinfo).date() == date(2026, 3, 20)
    with pytest.raises(DeliverTrouble, match="frame has not come"):
        into_frame(late, dry + HOUR, dry)
    d = into_frame(d, dry + HOUR, dry)
    assert step_now(d, "acrylic", True) == "pack" and d.finish.framed == dry + HOUR


def test_the_way_out_by_the_clock():
    d = varnish(finished(), NOON + DAY, None)
    now = NOON + DAY + HOUR
    tasks = tasks_left(d, "acrylic", NOON, False, "normal", courier=2, framed=True)
    rows = {r.words: r.at for r in by_the_clock(tasks, now)}
    assert rows["varnish"] == NOON + DAY + 3 * HOUR, "three hours after the first coat"
    assert rows["into the frame"] >= rows["varnish"] + DAY
    assert rows["on its way to the client"] >= rows["hand over"] + 2 * DAY
    assert list(rows.values()) == sorted(rows.values())


def test_money_still_to_pay_is_said_before_it_leaves():
    d = replace(finished(), coats=(NOON, NOON), packed=NOON)
    said = stand(d, "acrylic", None, NOON, False, "normal", NOON + 9 * DAY, unpaid="£ 240")
    assert said.act is not None and "£ 240 still to pay" in said.act.detail
    assert stand(d, "acrylic", None, NOON, False, "normal", NOON + 9 * DAY).act.detail.startswith("balance paid")


def test_what_was_said_and_moments_of_a_wrong_clock():
    d = answered(Deliver(), "  she cried ", date(2026, 3, 9))
    assert (d.answer.words, d.answer.on) == ("she cried", date(2026, 3, 9)) and answered(d, " ", None).answer.on is None
    d = with_finish(d, sides=NOON + DAY, hung=NOON - DAY)
    assert lies_ahead(d, NOON) == NOON + DAY
    mended = brought_to(d, NOON)
    assert (mended.finish.sides, mended.finish.hung, mended.answer) == (NOON, NOON - DAY, d.answer)
