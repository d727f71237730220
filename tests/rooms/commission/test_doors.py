"""Each door's state follows from the facts, one after the other."""

from dataclasses import replace
from datetime import timedelta

import pytest

from tests.conftest import NOON
from tests.rooms.commission.making import LEAD, STUDIO, fresh, painting_at, shut_up_to
from yarrow_lane.commission.commission import CommissionTrouble, unwaive_door, waive_door
from yarrow_lane.commission.recompose import take_photo_away
from yarrow_lane.commission.standing import passes_in, stand, thickest_film
from yarrow_lane.easel.standing import passes_left
from yarrow_lane.intake.photos import Intake
from yarrow_lane.lane.doors import DOORS, door_now
from yarrow_lane.palette.wells import Palette
from yarrow_lane.transfer.record import Transfer


def doors_of(commission, studio):
    return stand(commission, studio, NOON).doors


@pytest.mark.parametrize("door", DOORS)
def test_the_facts_shut_one_door_after_the_other(door):
    reach = DOORS.index(door)
    doors = doors_of(shut_up_to(door), STUDIO)
    assert [d.state for d in doors[: reach + 1]] == ["shut"] * (reach + 1), [d.wants for d in doors]
    assert all(d.state == "ahead" and d.wants for d in doors[reach + 1 :])
    assert door_now(doors).name == DOORS[min(reach + 1, 8)]


def test_a_new_commission_stands_before_all_nine():
    doors = doors_of(fresh(), STUDIO)
    assert [d.name for d in doors] == list(DOORS) and {d.state for d in doors} == {"ahead"}
    assert doors[0].wants == "no photographs yet" and doors[8].fact == "promised Fri 10\u202fApr"


@pytest.mark.parametrize(
    ("door", "change", "wants"),
    [
        ("Intake", {"intake": Intake((replace(LEAD, use="helper"),))}, "no photograph is lead"),
        ("Intake", {"intake": Intake((replace(LEAD, eyes=()),))}, "mark the eyes on window.jpg"),
        ("Transfer", {"transfer": Transfer(4, ((0, 0), (1, 0)))}, "18 squares to draw"),
        ("Transfer", {"transfer": Transfer(0, ())}, "no way of carrying it over chosen"),
        ("Palette", {"palette": Palette()}, "no colour taken"),
        (
            "Check",
            {"check": painting_at(NOON - timedelta(days=9))},
            "compare again when the painting is done",
        ),
    ],
)
def test_what_a_door_still_wants(door, change, wants):
    commission = replace(shut_up_to("Deliver"), **change)
    found = next(d for d in doors_of(commission, STUDIO) if d.name == door)
    assert (found.state, found.wants) == ("ahead", wants)


def test_facts_are_told_in_one_line_in_the_painters_unit():
    facts = {d.name: d.fact.replace("\u202f", " ") for d in doors_of(shut_up_to("Deliver"), STUDIO)}
    assert facts["Intake"] == "1 photo, 1 kept"
    assert facts["Compose"] == "24 × 30 cm, upright"
    assert facts["Transfer"] == "4 × 5 squares, 6 cm"
    assert facts["Tone"] == "raw umber wash"
    assert facts["Palette"] == "1 well, 1 with a mix"
    assert facts["Deliver"] == "delivered Mon 9 Mar"
    inches = {d.name: d.fact.replace("\u202f", " ") for d in doors_of(shut_up_to("Compose"), replace(STUDIO, unit="in"))}
    assert inches["Compose"] == "9 7/16 × 11 13/16 in, upright"


def waived(c, door, reason):
    return replace(c, doors=waive_door(c.doors, door, reason, NOON.date()))


def test_a_waived_door_keeps_its_reason_until_the_facts_decide_again():
    c = waived(fresh(), "Intake", "  prints come by post ")
    (intake, *_) = doors_of(c, STUDIO)
    assert intake.state == "waived" and intake.wants == "no photographs yet"
    assert c.doors.reason("Intake") == "prints come by post"
    again = waived(c, "Intake", "they came")
    assert len(again.doors.waived) == 1 and again.doors.reason("Intake") == "they came"
    assert doors_of(replace(c, doors=unwaive_door(c.doors, "Intake")), STUDIO)[0].state == "ahead"
    # Facts outrank the waiving: once the door would shut by itself, it is shut.
    assert doors_of(replace(shut_up_to("Intake"), doors=c.doors), STUDIO)[0].state == "shut"
    with pytest.raises(CommissionTrouble):
        waived(fresh(), "Intake", "   ")


def test_a_photograph_that_leaves_takes_its_crop_along():
    c = shut_up_to("Compose")
    found = take_photo_away(c, "p1")
    gone = found.commission
    assert gone.intake.photos == () and gone.compose.background is None and gone.compose.sized
    assert found.changes == ("The crop laid on it goes with it.",)
    other = replace(c, intake=Intake((LEAD, replace(LEAD, id="p2"))))
    assert take_photo_away(other, "p2").commission.compose == c.compose and take_photo_away(other, "p2").changes == ()


def test_work_left_shrinks_with_every_finished_pass():
    def left(n):
        c = shut_up_to("Easel", n)
        return sum(p.minutes for p in passes_left(c.easel, passes_in(c, STUDIO.climate)))

    whole, half, done = (left(n) for n in (99, 5, 0))
    assert whole > half > done == 0
    assert thickest_film(passes_in(shut_up_to("Easel"), STUDIO.climate)) in ("normal", "thick")
    assert passes_in(fresh(), STUDIO.climate) == ()
