"""Deliver in plain values: parts with their waits, sections folded to their decisions, what the parcel's bench says."""

from dataclasses import replace
from datetime import date, timedelta

import pytest

from tests.conftest import NOON
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.standing import room_standings, unpaid_words
from yarrow_lane.commission.studio import Studio
from yarrow_lane.compose.composition import Compose, set_size
from yarrow_lane.compose.sides import Sides
from yarrow_lane.deliver.handover import Answer, Deliver, sign, with_finish
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.lane.money import Paid, PriceAgreed
from yarrow_lane.ui.bench_sheet import Note, Press
from yarrow_lane.ui.rooms.deliver.finish_bench import finish_sections
from yarrow_lane.ui.rooms.deliver.parts_view import parts_shown

STUDIO = Studio()


def piece(medium: str = "acrylic", sides: Sides = Sides(), deliver: Deliver = Deliver(), kind: str = "cat") -> Commission:  # noqa: B008
    brief = new_brief("Quill", kind, "T.", medium, NOON.date(), NOON.date() + timedelta(days=20))
    return Commission("c1", brief, compose=replace(set_size(Compose(), 240, 300), sides=sides), deliver=deliver)


def parts(c: Commission, earliest=None) -> dict:
    return {p.key: p for p in parts_shown(c, STUDIO, earliest, NOON)}


class Kept:
    web_px, web_name = 1600, True

    def __getattr__(self, name):
        return lambda *_: None


def section(c: Commission, title: str):
    return next((s for s in finish_sections(c, STUDIO, NOON.date(), Kept()) if s.title == title), None)


def test_what_it_consists_of_depends_on_what_it_is():
    assert set(parts(piece())) == {"parcel", "hanging", "sides", "signature", "varnish 1", "varnish 2", "glassine"}
    assert "frame" in parts(piece(sides=Sides(frame="floating")))
    assert not {"varnish 1", "varnish 2"} & set(parts(piece("watercolour"))), "paper goes behind glass"
    bare = piece(deliver=with_finish(Deliver(), hanging="none"))
    assert "hanging" not in parts(bare)


def test_one_part_is_next_and_what_is_on_says_since_when():
    fresh = parts(piece())
    assert [k for k, p in fresh.items() if p.state == "next"] == ["signature"] and fresh["signature"].name == "Signature"
    signed = parts(piece(deliver=sign(with_finish(Deliver(), place=(200.0, 290.0)), NOON)))
    assert (
        signed["signature"].state == "on"
        and signed["signature"].words[1] == "bottom right"
        and signed["signature"].name == "Signed"
    )
    d = replace(Deliver(), signed=NOON, rest_from=NOON, looked=NOON, coats=(NOON,))
    wait = parts(piece(deliver=d), NOON + timedelta(hours=3))
    assert (wait["varnish 1"].state, wait["varnish 2"].state) == ("on", "next") and wait["varnish 2"].words[1] == "from 15:00"
    assert "on since" in wait["varnish 1"].words[1] and wait["glassine"].state == "ahead"
    sprayed = parts(piece(deliver=with_finish(d, spray=True, sheen="matt")))
    assert sprayed["varnish 1"].words[0] == "matt, sprayed"


def test_the_parcel_says_its_size_or_why_not():
    found = parts(piece())["parcel"]
    assert found.words[0].startswith("40 × 34 × 12") and "charged 3.5" in found.words[1]
    none = parts(replace(piece(), compose=Compose()))["parcel"]
    assert none.words[0] == "no size yet"
    gone = parts(piece(deliver=replace(Deliver(), delivered=NOON)))["parcel"]
    assert gone.state == "on" and "handed over" in gone.words[1]


def test_a_frame_that_has_not_come_says_when():
    d = with_finish(replace(Deliver(), coats=(NOON, NOON), looked=NOON), frame="oak", comes=date(2026, 3, 20))
    frame = parts(piece(sides=Sides(frame="floating"), deliver=d))["frame"]
    assert frame.words[0] == "oak" and frame.words[1].startswith("comes Fri") and frame.wait.startswith("from")


def test_sections_fold_to_their_decisions():
    assert section(piece(), "Varnish").decision == "satin, brushed" and section(piece("watercolour"), "Varnish") is None
    assert section(piece(), "Title and signature").decision == "Quill"
    assert "no frame" in section(piece(), "Hanging and frame").decision
    framed = section(piece(sides=Sides(frame="floating", gap_mm=8.0)), "Hanging and frame")
    assert "in a frame" in framed.decision and any(
        "0.8" in getattr(x, "value", "") for x in framed.lines if not hasattr(x, "options")
    )


def test_what_can_hurt_is_said_where_it_arises():
    sprayed = section(piece(deliver=with_finish(Deliver(), spray=True)), "Varnish")
    assert any(isinstance(x, Note) and "respirator" in x.text and x.mood == "wrong" for x in sprayed.lines)


@pytest.mark.parametrize(("prints", "enabled"), [("", False), ("not agreed", False), ("agreed", True)])
def test_prints_only_once_agreed_and_people_only_with_consent(prints, enabled):
    c = piece(deliver=replace(Deliver(), answer=Answer(prints=prints)), kind="person")
    found = section(c, "Pictures of it")
    (press,) = [x for x in found.lines if isinstance(x, Press) and "prints" in x.words]
    assert press.enabled is enabled and any("consent" in x.text for x in found.lines if isinstance(x, Note))


def test_what_is_still_to_pay_is_the_same_in_deliver_and_in_the_books():
    c = replace(piece(), log=(PriceAgreed(NOON, 480_00, 192_00, "GBP"), Paid(NOON, 1, 1, 192_00, "GBP", NOON.date())))
    assert unpaid_words(c, STUDIO) == "£\u2009288" and unpaid_words(piece(), STUDIO) == ""
    done = replace(c, deliver=replace(Deliver(), signed=NOON, rest_from=NOON, looked=NOON, coats=(NOON, NOON), packed=NOON))
    act = room_standings(done, STUDIO, NOON + timedelta(days=9))["Deliver"].act
    assert act is not None and act.detail == "£\u2009288 still to pay before it leaves"
