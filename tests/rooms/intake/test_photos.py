"""Marks, use and rights of photographs, and the brief."""

from dataclasses import replace
from datetime import date

import pytest

from yarrow_lane.intake.brief import BriefTrouble, Sitter, add_sitter, change_sitter, new_brief, with_title
from yarrow_lane.intake.detail import iris_words
from yarrow_lane.intake.photos import (
    INTAKE,
    Eye,
    Intake,
    Photo,
    PhotoTrouble,
    add_photo,
    add_photos,
    change_photo,
    clear_marks,
    mark_eye,
    set_rights,
    set_use,
    take_away,
)
from yarrow_lane.intake.rights import Rights
from yarrow_lane.intake.standing import stand
from yarrow_lane.store.codec import from_json, to_json

A, B = Photo("a", "a.jpg", 1000, 800), Photo("b", "b.jpg", 1000, 800)
BOTH = Intake((A, B))


def test_an_eye_is_marked_once_for_each_side():
    intake = mark_eye(BOTH, "a", Eye("left", 300, 300, 40))
    intake = mark_eye(intake, "a", Eye("right", 600, 310, 35))
    intake = mark_eye(intake, "a", Eye("left", 305, 300, 42))
    assert [e.side for e in intake.photo("a").eyes] == ["left", "right"]
    assert intake.photo("a").iris_px == 84
    assert clear_marks(intake, "a").photo("a").iris_px is None


@pytest.mark.parametrize("eye", [Eye("left", -5, 10, 20), Eye("left", 5, 900, 20), Eye("left", 5, 5, 0.4)])
def test_a_circle_off_the_picture_or_of_no_size_is_refused(eye):
    with pytest.raises(PhotoTrouble, match="eye was not marked"):
        mark_eye(BOTH, "a", eye)


def test_the_same_picture_is_not_taken_in_twice():
    with pytest.raises(PhotoTrouble, match=r"same picture as “a\.jpg”"):
        add_photo(BOTH, Photo("a", "copy.jpg", 1000, 800))
    assert add_photos(BOTH, (A, Photo("c", "c.jpg", 1, 1), Photo("c", "again.jpg", 1, 1))).photos == (
        A,
        B,
        Photo("c", "c.jpg", 1, 1),
    )


def test_use_and_rights():
    intake = set_rights(set_use(BOTH, "a", "lead"), "a", Rights("licence"))
    assert intake.leads[0].id == "a" and not intake.photo("a").rights.known
    assert set_rights(intake, "a", Rights("licence", licence="free to paint")).photo("a").rights.known
    assert take_away(intake, "a").photos == (B,)
    with pytest.raises(PhotoTrouble):
        take_away(BOTH, "zz")


@pytest.mark.parametrize(
    ("px", "word"), [(40, "good"), (39, "workable"), (20, "workable"), (19, "poor"), (10, "poor"), (9, "too small")]
)
def test_iris_words_follow_the_table(px, word):
    """Iris across in px that resolve: two thirds of the handbook's 60, 30 and 15, which count a camera's pixels."""
    assert iris_words(px) == word


def test_the_brief():
    with pytest.raises(BriefTrouble, match="no sitter is named"):
        new_brief("  ", "dog", "x", "acrylic", date(2026, 1, 1), None)
    brief = add_sitter(new_brief("Pip", "cat", "x", "acrylic", date(2026, 1, 1), None), "Moss", "dog")
    assert with_title(brief, " ").title == "Pip and Moss"
    changed = change_sitter(brief, Sitter(2, "Mossy", "dog"))
    assert [s.name for s in changed.sitters] == ["Pip", "Mossy"]
    assert replace(changed, sitters=brief.sitters) == brief


def test_a_lead_on_which_no_eye_is_seen_asks_for_none():
    intake = add_photos(Intake(), (replace(A, use="lead", rights=Rights("client")),))
    brief = new_brief("Wilf", "dog", "A. Client", "acrylic", date(2026, 3, 9), None)
    assert stand(intake, brief).wants.startswith("mark the eyes")
    behind = change_photo(intake, replace(intake.photos[0], no_eyes=True))
    assert stand(behind, brief).wants == "" and stand(behind, brief).worry == ""
    assert not mark_eye(behind, A.id, Eye("left", 10, 10, 4)).photos[0].no_eyes, "a marked eye is seen"
    assert from_json(INTAKE, to_json(INTAKE, behind)) == behind
