"""From the last pass to the client's hands. Waits: handbook table of numbers."""

from datetime import timedelta

import pytest

from tests.conftest import NOON
from yarrow_lane.deliver.handover import (
    Deliver,
    DeliverTrouble,
    add_line,
    begin_rest,
    hand_over,
    look_again,
    mark_line,
    pack,
    pack_from,
    sign,
    step_now,
    varnish,
    varnish_from,
)

HOUR, DAY = timedelta(hours=1), timedelta(days=1)


def test_the_whole_way_out():
    d = sign(Deliver(), NOON)
    d = begin_rest(d, NOON)
    assert step_now(d, "acrylic") == "rest"
    with pytest.raises(DeliverTrouble, match="24 to 48 h unseen"):
        look_again(d, NOON + 23 * HOUR)
    d = look_again(d, NOON + 24 * HOUR)
    d = add_line(d, "soften the collar")
    assert step_now(d, "acrylic") == "last list"
    d = mark_line(d, 0, True)
    ready = varnish_from("acrylic", NOON, "normal")
    assert ready == NOON + 3 * DAY
    with pytest.raises(DeliverTrouble, match="not dry through"):
        varnish(d, NOON + 2 * DAY, ready)
    d = varnish(d, ready, ready)
    with pytest.raises(DeliverTrouble, match="still soft"):
        varnish(d, ready + 2 * HOUR, ready)
    d = varnish(d, ready + 3 * HOUR, ready)
    wait = pack_from(d, "acrylic")
    assert wait == ready + 27 * HOUR
    with pytest.raises(DeliverTrouble, match="stick"):
        pack(d, wait - HOUR, wait)
    d = hand_over(pack(d, wait, wait), wait + DAY)
    assert step_now(d, "acrylic") is None


def test_media_differ():
    assert varnish_from("acrylic", NOON, "wash") == NOON + DAY
    assert varnish_from("acrylic", NOON, "thick") == NOON + 14 * DAY
    assert varnish_from("oil over acrylic", NOON, "normal") > NOON + 180 * DAY
    assert varnish_from("watercolour", NOON, "wash") is None
    rested = look_again(begin_rest(sign(Deliver(), NOON), NOON), NOON + 2 * DAY)
    assert step_now(rested, "watercolour") == "pack"
    assert pack_from(rested, "watercolour") == NOON + 2 * DAY
