"""One list of what is to be mended, wherever it is looked at: Check's places and Deliver's last list never say otherwise."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import NOON
from yarrow_lane.canvas_photo.taken import Taken
from yarrow_lane.check.record import CheckTrouble, MeantSo, ToMend, with_photo
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.last_list import is_mended, listed, meant, mended, noted, struck, to_mend_now, unlisted
from yarrow_lane.deliver.handover import mark_line
from yarrow_lane.intake.brief import new_brief

NEW = Commission("c1", new_brief("Quill", "cat", "T.", "acrylic", NOON.date(), None))
CHEEK = ToMend("left cheek, a value too dark", (40.0, 60.0), (("value", -1),), 20.0, "p1", 12.0)
EAR = ToMend("right ear too warm", (180.0, 40.0), (("warmth", 1),), 10.0, "p1", 12.0)


def words(c: Commission) -> list[str]:
    return [line.text for line in c.deliver.last_list]


def test_a_place_on_checks_list_is_on_the_last_list_once():
    c = listed(listed(NEW, CHEEK), CHEEK)
    assert words(c) == [CHEEK.words] and [t.words for t in c.check.to_mend] == [CHEEK.words]
    assert words(unlisted(c, CHEEK)) == [] and unlisted(c, CHEEK).check.to_mend == ()


def test_what_is_done_stays_when_it_is_taken_off():
    c = listed(NEW, CHEEK)
    c = replace(c, deliver=mark_line(c.deliver, 0, True))
    assert words(unlisted(c, CHEEK)) == [CHEEK.words], "it was mended: that is not forgotten"


def test_what_is_no_longer_found_is_done():
    c = struck(listed(listed(NEW, CHEEK), EAR), (CHEEK,))
    assert [(line.text, line.done) for line in c.deliver.last_list] == [(CHEEK.words, True), (EAR.words, False)]
    assert [t.words for t in c.check.to_mend] == [EAR.words]


def test_meant_so_takes_it_off_both_lists():
    c = meant(listed(listed(NEW, CHEEK), EAR), MeantSo(CHEEK.kinds, CHEEK.at, CHEEK.mm))
    assert words(c) == [EAR.words] and [t.words for t in c.check.to_mend] == [EAR.words] and len(c.check.meant_so) == 1


def test_what_the_painter_saw_is_on_the_list_and_empty_words_are_not():
    c = noted(NEW, "  the collar is stiff ")
    assert words(c) == ["the collar is stiff"] == list(c.check.seen)
    assert words(noted(c, "the collar is stiff")) == ["the collar is stiff"]
    with pytest.raises(CheckTrouble):
        noted(NEW, "   ")


@given(st.lists(st.tuples(st.sampled_from(["list", "unlist", "meant", "strike"]), st.sampled_from([CHEEK, EAR])), max_size=12))
def test_whatever_is_done_open_lines_and_places_agree(steps):
    c = NEW
    for step, line in steps:
        match step:
            case "list":
                c = listed(c, line)
            case "unlist":
                c = unlisted(c, line)
            case "meant":
                c = meant(c, MeantSo(line.kinds, line.at, line.mm))
            case "strike":
                c = struck(c, (line,))
    on_check = {t.words for t in c.check.to_mend}
    assert {line.text for line in c.deliver.last_list if not line.done} <= on_check, (
        "nothing is left to mend that Check does not know"
    )
    assert len(words(c)) == len(set(words(c)))


def test_a_place_mended_at_the_easel_waits_for_the_next_photograph():
    first, second = (
        ToMend(f"Fur, place {n}: too dark", (10.0 * n, 10.0), (("value", -1),), 9.0, "photo 1", 12.0) for n in (1, 2)
    )
    c = listed(listed(with_photo_named(NEW, "photo 1"), first), second)
    assert to_mend_now(c) == (second, first), "the newest on the list first"
    c = mended(c, second)
    assert to_mend_now(c) == (first,) and is_mended(c, second) and not is_mended(c, first)
    assert second in c.check.to_mend, "Check's own list keeps it until a photograph shows it"
    later = with_photo_named(c, "photo 2")
    assert not is_mended(later, second), "the next photograph may show otherwise"
    again = listed(unlisted(later, second), second)
    assert second in to_mend_now(again) and [x.done for x in again.deliver.last_list] == [False, False]


def with_photo_named(c, name):
    taken = Taken(name, f"{name}.jpg", (100, 80), NOON, ((1.0, 1.0), (90.0, 1.0), (90.0, 70.0), (1.0, 70.0)))
    return replace(c, check=with_photo(c.check, taken))
