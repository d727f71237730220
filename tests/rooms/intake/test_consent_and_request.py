"""Who must be asked before painting, and the letter that asks for better photographs."""

from dataclasses import replace
from datetime import date

import pytest

from tests.conftest import NOON
from tests.rooms.intake.test_ranking import PLAIN, resolving
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.standing import stand
from yarrow_lane.commission.studio import Studio
from yarrow_lane.intake.brief import Brief, Sitter, add_sitter, new_brief
from yarrow_lane.intake.consent import consent_wants, sitters_shown
from yarrow_lane.intake.photos import Eye, Intake, Photo
from yarrow_lane.intake.request import compose_letter, missing_for, next_letter, what_is_missing
from yarrow_lane.intake.rights import CONSENTS, Rights
from yarrow_lane.intake.standing import photo_wants
from yarrow_lane.lane.happening import LetterSent

ANNA, TIM, REX = Sitter(1, "Anna", "person"), Sitter(2, "Tim", "person", child=True), Sitter(3, "Rex", "dog")
BRIEF = Brief("All three", (ANNA, TIM, REX), "M. Okonjo")
GOOD_EYES = (Eye("left", 100, 100, 40), Eye("right", 200, 100, 40))


def shot(sitter: int, consent: str = "not asked", **change) -> Photo:
    rights = Rights("client", consent=consent)
    return replace(Photo("p", "p.jpg", 900, 600, eyes=GOOD_EYES, use="lead", rights=rights, sitter_id=sitter), **change)


@pytest.mark.parametrize(
    ("sitter", "consent", "words"),
    [
        (1, "not asked", "ask Anna for consent to be painted"),
        (1, "asked", "wait for consent from Anna"),
        (1, "given", ""),
        (2, "not asked", "ask a guardian for consent to paint Tim"),
        (2, "given", "ask a guardian for consent to paint Tim"),
        (2, "asked", "wait for the guardian of Tim"),
        (2, "given by guardian", ""),
        (0, "given", "ask a guardian for consent to paint Tim"),
        (3, "not asked", ""),
        (1, "not needed", ""),
    ],
)
def test_people_consent_and_guardians_for_children(sitter, consent, words):
    assert consent_wants(shot(sitter, consent), BRIEF) == words


def test_those_who_have_died_are_not_asked():
    brief = replace(BRIEF, sitters=(replace(ANNA, living=False),))
    assert consent_wants(shot(1), brief) == ""
    assert sitters_shown(shot(0), BRIEF) == BRIEF.sitters and sitters_shown(shot(2), BRIEF) == (TIM,)


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"eyes": ()}, "mark the eyes on p.jpg"),
        ({"rights": Rights()}, "ask who may use p.jpg"),
        ({"rights": Rights("licence", consent="given")}, "ask who may use p.jpg"),
        ({"rights": Rights("licence", licence="CC BY 4.0", consent="given")}, ""),
        ({"rights": Rights("written", "J. Poe", consent="given")}, ""),
        ({"use": "helper", "eyes": (), "rights": Rights("client", consent="given")}, ""),
    ],
)
def test_unknown_rights_keep_the_door_open(change, words):
    photo = shot(1, "given", **change)
    assert photo_wants(photo, BRIEF) == words
    commission = Commission("c", BRIEF, Intake((photo,) if photo.use == "lead" else (shot(1, "given"), replace(photo, id="q"))))
    door = stand(commission, Studio(), NOON).doors[0]
    assert (door.state, door.wants) == (("ahead", words) if words else ("shut", ""))


def test_what_is_wanted_shows_as_a_worry_in_the_studio():
    commission = Commission("c", BRIEF, Intake((shot(1),)))
    found = stand(commission, Studio(), NOON)
    assert found.worry == "ask Anna for consent to be painted" and "Ask Anna" in found.act.title


def test_every_consent_is_offered():
    assert set(CONSENTS) == {"not asked", "asked", "given", "given by guardian", "not needed"}


# --- the letter


def brief_of(*sitters: tuple[str, str, bool]) -> Brief:
    brief = new_brief(sitters[0][0], sitters[0][1], "M. Okonjo", "acrylic", date(2026, 3, 1), None)
    for name, kind, _ in sitters[1:]:
        brief = add_sitter(brief, name, kind)
    living = dict(zip((s.id for s in brief.sitters), (alive for _, _, alive in sitters), strict=True))
    return replace(brief, sitters=tuple(replace(s, living=living[s.id]) for s in brief.sitters))


@pytest.mark.parametrize(
    ("photos", "evidence", "why"),
    [
        ((), {}, "no photograph yet"),
        ((replace(shot(1), use="helper"),), {}, "none of the photographs can lead"),
        ((replace(shot(1), eyes=()),), {}, "the eyes cannot be read"),
        ((replace(shot(1), eyes=(Eye("left", 5, 5, 6),)),), {}, "the eyes are too small in the picture"),
        ((shot(1),), {"p": replace(PLAIN, eye=resolving(0.1))}, "the eyes are not sharp"),
        ((shot(1),), {"p": replace(PLAIN, eye_lightness=9.0)}, "the eyes lie in the dark"),
        ((shot(1),), {"p": PLAIN}, ""),
        ((replace(shot(1), eyes=()), replace(shot(1), id="q")), {}, ""),
    ],
)
def test_what_is_missing_for_a_sitter(photos, evidence, why):
    assert missing_for(Intake(photos), ANNA, evidence, only_one=False) == why


def test_a_photograph_of_nobody_named_counts_for_the_only_sitter():
    brief = brief_of(("Pip", "cat", True))
    assert what_is_missing(Intake((shot(0),)), brief, {"p": PLAIN}) == ()
    two = add_sitter(brief, "Moss", "dog")
    assert [s.name for s, _ in what_is_missing(Intake((shot(0),)), two, {"p": PLAIN})] == ["Pip", "Moss"]


def test_the_letter_asks_for_each_sitter_in_its_own_way():
    brief = brief_of(("Pip", "cat", True), ("Great-uncle Tom", "person", False), ("Beryl", "bird", True))
    letter = compose_letter(brief, what_is_missing(Intake(), brief, {}), "R. Thorne")
    pip, tom, beryl = (next(line for line in letter.splitlines() if line.startswith(s.name)) for s in brief.sitters)
    assert "eye height" in pip and "both ears" in pip and "window" in pip and "no flash" in pip
    assert "no new picture can be taken" in tom and "eye height" not in tom
    assert "near eye" in beryl
    assert letter.startswith("Dear M. Okonjo,") and letter.endswith("R. Thorne")


def test_nothing_missing_is_a_thank_you():
    letter = compose_letter(brief_of(("Pip", "cat", True)), (), "")
    assert "I have what I need" in letter and "may I ask" not in letter and letter.endswith("your painter")


def test_letters_are_numbered_on():
    assert next_letter(()) == 1
    assert next_letter((LetterSent(NOON, 2, "second"), LetterSent(NOON, 1, "first"))) == 3
