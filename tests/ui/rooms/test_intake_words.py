"""What the intake room says: evidence, ranks, light, letters, as plain values without a window."""

from dataclasses import replace

import pytest

from tests.conftest import NOON
from tests.rooms.commission.making import LEAD, STUDIO, fresh, shut_up_to
from tests.rooms.intake.test_ranking import PLAIN, resolving
from yarrow_lane.compose.composition import Compose, Framed
from yarrow_lane.compose.detail import carried_px_per_mm
from yarrow_lane.intake.brief import add_sitter
from yarrow_lane.intake.exposure import Cast
from yarrow_lane.intake.landmarks import Landmark
from yarrow_lane.intake.light import Glint, Light
from yarrow_lane.intake.photos import Eye, Intake
from yarrow_lane.intake.rights import Rights
from yarrow_lane.lane.happening import LetterSent
from yarrow_lane.measure.plane import Rect
from yarrow_lane.ui.bench_sheet import Fact, NextAct, Note
from yarrow_lane.ui.kit.overlays import Arrow, Box, Outline, Ring, Words
from yarrow_lane.ui.rooms.intake.comparing import eye_rows, light_dials
from yarrow_lane.ui.rooms.intake.evidence_lines import evidence_lines
from yarrow_lane.ui.rooms.intake.marks import marks_on
from yarrow_lane.ui.rooms.intake.view import Look, intake_view, marks_for


class Hands:
    """What the page would do: nothing, here."""

    def __getattr__(self, name):
        return lambda *_: None


SURE = Light(300.0, "sure", "the glints of both eyes agree")


def facts(lines) -> dict[str, tuple[str, str]]:
    return {x.label: (x.value.replace("\u202f", " "), x.mood) for x in lines if isinstance(x, Fact)}


def notes(lines) -> str:
    return " ".join(x.text for x in lines if isinstance(x, Note))


def judged(c, photo=LEAD, **change):
    return evidence_lines(c, photo, replace(PLAIN, **change), "cm")


def test_every_measure_has_its_number_and_its_meaning():
    lines = judged(shut_up_to("Compose"), light=SURE, glints=(Glint(1, 1, 50, 300),), high_share=0.034, low_share=0.2)
    found = facts(lines)
    assert found["Detail at the eyes"] == ("about 120 px, good", "good") and found["Of each pixel’s side"] == (
        "about 100 %",
        "plain",
    )
    assert "Edges full; look whether the hair is there." in notes(lines)
    assert found["At the planned size"] == ("10.0 usable px per mm", "good")
    assert found["Largest canvas it carries"] == ("60 × 75 cm", "plain")
    assert found["Highlights cut"] == ("3.4%, some", "plain") and found["Shadows cut"] == ("20.0%, much", "wrong")
    assert found["Readable glints"] == ("1 of 2 eyes", "plain")
    assert found["Light from"] == ("your upper left, 300°", "plain") and "Sure: the glints of both eyes agree" in notes(lines)


@pytest.mark.parametrize(
    ("change", "label", "value", "tone"),
    [
        ({"eye": resolving(0.1)}, "Detail at the eyes", "about 12 px, poor", "wrong"),
        ({"eye": resolving(0.25)}, "Detail at the eyes", "about 30 px, workable", "good"),
        ({"whole": resolving(0.31)}, "Of each pixel’s side", "about 31 %", "wrong"),
        ({"whole": None}, "Of each pixel’s side", "not measured", "plain"),
        ({"cast": Cast((0, 9), (1, 8))}, "Colour cast", "may be too yellow", "wrong"),
        ({"whole": resolving(0.23)}, "At the planned size", "2.3 usable px per mm", "wrong"),
    ],
)
def test_words_follow_the_measures(change, label, value, tone):
    assert facts(judged(shut_up_to("Compose"), **change))[label] == (value, tone)


def test_what_cannot_be_said_is_said():
    c = fresh()
    assert notes(evidence_lines(c, LEAD, None, "cm")) == "Being measured…"
    lines = judged(c, replace(LEAD, eyes=()))
    assert "At the planned size" not in facts(lines) and facts(lines)["Readable glints"][0] == "mark the eyes first"
    assert facts(lines)["Light from"][0] == "unknown" and "No readable glint." in notes(lines)
    assert facts(lines)["Close-up swelling"][0] == "no focal length in the file"


def test_swelling_from_focal_length_and_head():
    """Head of 230 mm, 1000 px long on 2400 x 3000 px at 26 mm (35 mm film): pinhole puts the camera 531 mm away."""
    marks = (Landmark("crown", 1000, 500), Landmark("chin", 1000, 1500))
    photo = replace(LEAD, focal_35_mm=26.0, landmarks=marks)
    c = fresh()
    assert facts(judged(c, photo))["Close-up swelling"][0] == "write the head's measures in the brief"
    sitter = replace(c.brief.sitters[0], head_mm=230.0, muzzle_mm=120.0)
    c = replace(c, brief=replace(c.brief, sitters=(sitter,)))
    assert facts(judged(c, replace(photo, landmarks=())))["Close-up swelling"][0] == "mark crown and chin"
    assert facts(judged(c, photo))["Close-up swelling"] == ("the muzzle is 1.3 times too large", "wrong")
    assert "53 cm from the eyes" in notes(judged(c, photo)).replace("\u202f", " ")
    near = replace(c, brief=replace(c.brief, sitters=(replace(sitter, muzzle_mm=600.0),)))
    assert "would touch the camera" in notes(judged(near, photo))


def test_the_planned_size_is_judged_on_the_crop_when_it_is_laid_on_this_photograph():
    c = shut_up_to("Compose")
    half = replace(c, compose=replace(c.compose, background=Framed("p1", Rect(0, 0, 1200, 1500))))
    assert carried_px_per_mm(half.compose, LEAD, PLAIN) == pytest.approx(5.0)
    assert carried_px_per_mm(half.compose, replace(LEAD, id="other"), PLAIN) == pytest.approx(10.0)
    assert "At the planned size" not in facts(judged(replace(c, compose=Compose())))


def test_marks_stand_where_they_were_measured():
    marks = (Landmark("crown", 1000, 500), Landmark("chin", 1000, 1500))
    shown = marks_on(replace(LEAD, landmarks=marks), replace(PLAIN, light=SURE), "left", None)
    words = {o.text: o.at for o in shown if isinstance(o, Words)}
    (box,) = [o for o in shown if isinstance(o, Box)]
    assert box.rect.centre == (900, 900) and words["detail 120\u202fpx"] == (box.rect.x, box.rect.bottom)
    assert ((1000, 500), (1000, 1500)) in [o.points for o in shown if isinstance(o, Outline)]
    assert words["head 1000\u202fpx"] == (1000, 700)
    (arrow,) = [o for o in shown if isinstance(o, Arrow)]
    assert (arrow.to, arrow.degrees, arrow.sure) == ((1150, 900), 300.0, True)
    assert arrow.reach > 250 + 60, "outside both eyes"
    rings = {(o.centre, o.radius): o.ink for o in shown if isinstance(o, Ring) and o.radius}
    assert rings == {((900, 900), 60): "light", ((1400, 900), 58): "faint"}
    assert marks_on(replace(LEAD, eyes=()), None, "chin", None) == ()


def test_leads_get_the_template_of_their_sitter():
    c = fresh()
    assert marks_for(c, LEAD)[:2] == ("left", "right") and "left ear tip" in marks_for(c, LEAD)
    assert marks_for(c, replace(LEAD, use="helper")) == ("left", "right")


# --- comparing


def three_leads(*lights: Light):
    photos = tuple(replace(LEAD, id=f"p{n}", name=f"{n}.jpg") for n in range(len(lights)))
    c = replace(fresh(), intake=Intake(photos))
    return light_dials(c, {p.id: replace(PLAIN, light=x) for p, x in zip(photos, lights, strict=True)})


@pytest.mark.parametrize(
    ("lights", "words"),
    [
        ((), "No leads yet"),
        ((SURE,), "One lead"),
        ((SURE, Light(None, "unknown", "no readable glint")), "too few leads can be read"),
        ((SURE, Light(320.0, "sure", "")), "The light agrees: at most 20° apart."),
        ((SURE, Light(20.0, "sure", ""), Light(None, "unknown", "x")), "1 cannot be read: judge by eye"),
        (
            (SURE, Light(310.0, "sure", ""), Light(60.0, "likely", "")),
            "The light disagrees: 0.jpg and 2.jpg are lit 120° apart.",
        ),
    ],
)
def test_the_verdict_on_the_light(lights, words):
    dials, verdict = three_leads(*lights)
    assert words in verdict and len(dials) == len(lights)
    assert [d.degrees for d in dials] == [x.degrees for x in lights]


def test_eyes_stand_side_by_side_for_each_sitter_the_best_first():
    c = fresh()
    c = replace(c, brief=add_sitter(c.brief, "Moss", "dog"))
    pip = replace(LEAD, id="pip", name="pip.jpg", sitter_id=1, eyes=(Eye("left", 9, 9, 20),))
    both = replace(LEAD, id="both", name="both.jpg")
    moss = replace(LEAD, id="moss", name="moss.jpg", sitter_id=2, eyes=())
    aside = replace(LEAD, id="aside", name="aside.jpg", use="set aside")
    c = replace(c, intake=Intake((moss, pip, both, aside)))
    rows = eye_rows(c, {p.id: PLAIN for p in c.intake.photos})
    assert [(name, [pair.name for pair in pairs]) for name, pairs in rows] == [
        ("Pip", ["both.jpg", "pip.jpg"]),
        ("Moss", ["both.jpg", "moss.jpg"]),
    ]
    assert rows[1][1][1].words[0].startswith("no eye marked")


# --- the whole view


def view(c, evidence=None, **look):
    odd = look.pop("refused", ())
    return intake_view(c, STUDIO, Look(**look), evidence or {}, odd, NOON.date(), Hands(), NextAct("Do it"))


def test_tiles_say_reason_measure_and_rights():
    c = shut_up_to("Compose")
    (tile,) = view(c, {"p1": PLAIN}).tiles
    assert [line.replace("\u202f", " ") for line in tile.lines] == [
        "large eyes, 120 px of detail",
        "iris 120 px · 10.0 px per mm",
        "client took it",
    ]
    assert tile.mood == "good" and tile.share > 0.4
    blind = replace(LEAD, eyes=(), use="helper", helps_with="paw", rights=Rights("written"))
    (tile,) = view(replace(fresh(), intake=Intake((blind,)))).tiles
    assert tile.lines[2] == "for the paw · agreed in writing" and tile.share == 0 and tile.lines[0] == "no eye marked yet"


def test_what_was_odd_in_the_last_batch_stays_on_the_bench():
    sheet = str(view(fresh(), refused=("“a.jpg” holds no picture.",)).bench)
    assert "“a.jpg” holds no picture." in sheet and "Clear this list" in sheet
    assert "Clear this list" in str(view(shut_up_to("Intake"), refused=("“a.jpg” holds no picture.",)).bench)


def test_letters_sent_and_answers_are_counted():
    c = replace(shut_up_to("Intake"), log=(LetterSent(NOON, 1, "please"),))
    c = replace(c, intake=replace(c.intake, photos=(replace(LEAD, answers=1),)))
    sheet = str(view(c, {"p1": PLAIN}, mode="letter").bench).replace("\\u202f", " ")
    assert "1 came back" in sheet and "Every sitter has a lead photograph that holds" in sheet


def test_the_brief_shows_what_is_needed_for_whom():
    c = fresh()
    person = add_sitter(replace(c.brief, surprise=True, not_to_contact="Anna"), "Tim", "person")
    person = replace(person, sitters=(person.sitters[0], replace(person.sitters[1], child=True, living=False)))
    sheet = str(view(replace(c, brief=person), bench="brief").bench)
    assert "do not contact Anna" in sheet and sheet.count("A child: a guardian consents") == 1
    assert "letters do not ask for new pictures" in sheet
    ledger = str(view(replace(shut_up_to("Intake"), brief=person), bench="brief").bench)
    assert "client took it, consent not asked" in ledger
