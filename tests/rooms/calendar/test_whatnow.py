"""What to do now: a dozen moments decided by hand beforehand."""

import pytest

from yarrow_lane.calendar.whatnow import Choice, Moment, advised, weighed

C, M = Choice, Moment

CASES = [
    ("stay on the canvas when all is equal", M("A", "fur"), [C("A", "A under", 60, palette="fur", fur=True), C("B", "B under", 60, palette="g")], "A under"),
    ("another pass of the same canvas while it dries", M("A", "fur"), [C("A", "A middle", 60, palette="fur", ready_in=30), C("A", "A nose", 25, palette="n")], "A nose"),
    ("wet for eight minutes: wait rather than change", M("A", "fur"), [C("A", "A middle", 60, palette="fur", ready_in=8), C("B", "B block", 60, palette="g")], "A middle"),
    ("a late one pulls", M("A", "fur"), [C("A", "A under", 60, 12, "fur"), C("B", "B tips", 60, 0, "b")], "B tips"),
    ("varnish first: its days run by themselves", M(), [C("C", "Varnish C", 15, 6, painting=False, frees=1440), C("A", "A under", 60, 6, "fur")], "Varnish C"),
    ("skin while the light lasts", M(light_left=80), [C("A", "A fur", 60, 8, "fur", fur=True), C("D", "D skin", 60, 8, "s", daylight=True)], "D skin"),
    ("no colour after dark", M(light_left=10), [C("A", "A fur", 60, 8, "fur"), C("D", "D skin", 60, 3, "s", daylight=True)], "A fur"),
    ("after two hours of fur, the nose", M("A", "fur", fur=120, since_break=20), [C("A", "A under", 60, palette="fur", fur=True), C("A", "A nose", 20, palette="n", small=True)], "A nose"),
    ("fifty minutes: a break", M("A", "fur", since_break=55), [C("A", "A under", 60, palette="fur")], "Break of ten minutes, look from two metres"),
    ("a quarter of an hour left: the letter", M("A", "fur", left=15), [C("A", "A under", 60, 5, "fur"), C("E", "Ask for a photograph", 10, 9, painting=False)], "Ask for a photograph"),
    ("wells would dry", M(), [C("A", "A under", 60, 8, "fur", wells_open=40), C("B", "B under", 60, 8, "g")], "A under"),
    ("the plan decides when nothing else does", M(), [C("B", "B under", 60, 9, "g", planned=True), C("A", "A under", 60, 9, "fur")], "B under"),
]  # fmt: skip


@pytest.mark.parametrize(("words", "at", "choices", "first"), CASES, ids=[c[0] for c in CASES])
def test_the_first_act_is_the_one_decided_by_hand(words, at, choices, first):
    assert advised(choices, at)[0].choice.title == first


def test_at_most_two_reasons_and_what_speaks_for_it_first():
    found = weighed(C("A", "skin", 60, 0, "s", daylight=True, planned=True, frees=900), M("B", "x", light_left=90))
    assert found.reasons == ("0 working days in hand", "planned for now")
    assert weighed(C("A", "x", 60, -3), M()).reasons[0] == "3 working days late"
    assert weighed(C("A", "x", 60, 1), M()).reasons[0] == "1 working day in hand"


def test_what_cannot_be_done_is_left_out():
    assert advised([C("A", "skin", 60, daylight=True)], M(light_left=0)) == ()
    assert weighed(C("A", "letter", 30, painting=False), M(left=20)) is None
    assert weighed(C("A", "fur", 60), M(left=10)) is None
