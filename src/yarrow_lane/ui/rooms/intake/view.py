"""What the intake room shows now."""

from collections.abc import Mapping
from dataclasses import dataclass

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.doors import kept_wants
from yarrow_lane.commission.studio import Studio
from yarrow_lane.intake.evidence import Evidence
from yarrow_lane.intake.landmarks import TEMPLATES
from yarrow_lane.intake.photos import IRIS_WORKABLE_PX, USES, Eye, Photo, grouped, iris_words, same_shots
from yarrow_lane.intake.ranking import Ranked, rank
from yarrow_lane.intake.request import what_is_missing
from yarrow_lane.intake.rights import CONSENTS, PERMISSION_WORDS
from yarrow_lane.intake.suggestions import can_suggest
from yarrow_lane.measure.days import MONTHS
from yarrow_lane.ui.bench_sheet import (
    BenchSheet,
    ChoiceSheet,
    Fact,
    Field,
    Headline,
    Line,
    NextAct,
    Note,
    Pick,
    Press,
    Section,
    Switch,
    Tone,
    plain_options,
)
from yarrow_lane.ui.rooms.intake.brief_sheet import brief_sections
from yarrow_lane.ui.rooms.intake.evidence_lines import evidence_lines, sitter_of, usable_at_planned_size

HELPS = ("", "coat colour", "ear", "paw", "collar", "expression", "background")
MODES = (("all", "all"), ("one", "one, large"), ("eyes", "eyes side by side"), ("light", "light"), ("letter", "ask for more"))
OVERLAYS = (("", "nothing"), ("cut", "what is cut off"), ("cast", "where the cast is read"))
OVERLAY_WORDS = {
    "": "",
    "cut": "Red stripes: highlights cut off. Blue stripes: shadows cut off.",
    "cast": "Red stripes: the lightest parts. Blue stripes: the least colourful. Both should be grey.",
}
_ORDER = {"lead": 0, "helper": 1, "undecided": 2, "set aside": 3}


@dataclass(frozen=True)
class Look:
    """What the painter is looking at: photograph, mode, which mark is next, and what lies on the bench."""

    chosen_id: str = ""
    mode: str = "all"
    mark: str = "left"
    bench: str = "photo"
    overlay: str = ""
    reading: str = ""
    keep_location: bool = False
    refused: tuple[str, ...] = ()


@dataclass(frozen=True)
class Tile:
    """One photograph in the grid."""

    photo_id: str
    name: str
    use: str
    lines: tuple[str, ...]
    eyes: tuple[Eye, ...]
    size_px: tuple[int, int]
    share: float
    tone: Tone


@dataclass(frozen=True)
class IntakeView:
    """The whole room."""

    tiles: tuple[Tile, ...]
    chosen: Photo | None
    bench: BenchSheet
    choices: ChoiceSheet


def iris_tone(iris_px: float | None) -> Tone:
    """Good from workable up, wrong below."""
    if iris_px is None:
        return "plain"
    return "good" if iris_px >= IRIS_WORKABLE_PX else "wrong"


def marks_for(c: Commission, p: Photo) -> tuple[str, ...]:
    """What can be marked on a photograph: the eyes, and the landmarks of its kind of sitter on a lead."""
    sitter = sitter_of(c, p)
    points = TEMPLATES[sitter.kind if sitter else "other"] if p.use == "lead" else ()
    return ("left", "right", *points)


def intake_view(c: Commission, studio: Studio, look: Look, evidence: Mapping[str, Evidence]) -> IntakeView:
    """Work the room out from what is on record and what is measured so far."""
    ranked = {r.photo_id: r for r in rank(c.intake.photos, evidence)}
    shots = grouped(c.intake)
    photos = _copies_together(sorted(c.intake.photos, key=lambda p: (_ORDER[p.use], -ranked[p.id].score)), shots)
    chosen = next((p for p in photos if p.id == look.chosen_id), photos[0] if photos else None)
    foremost: dict[str, Photo] = {}
    for p in photos:
        foremost.setdefault(shots[p.id], p)
    tiles = tuple(_tile(c, p, ranked[p.id], evidence.get(p.id), foremost[shots[p.id]]) for p in photos)
    if look.bench == "brief":
        bench = BenchSheet(brief_sections(c, studio, look.keep_location), _act(c, chosen))
    elif look.mode == "letter":
        bench = _letter_bench(c, evidence)
    else:
        bench = BenchSheet(tuple(_photo_sections(c, studio, chosen, look, evidence)), _act(c, chosen))
    return IntakeView(tiles, chosen, bench, _choices(c, chosen, look))


def _copies_together(photos: list[Photo], shots: dict[str, str]) -> list[Photo]:
    """The same order, but copies of one shot follow the first of them."""
    first: dict[str, int] = {}
    for n, p in enumerate(photos):
        first.setdefault(shots[p.id], n)
    return sorted(photos, key=lambda p: first[shots[p.id]])


def _choices(c: Commission, chosen: Photo | None, look: Look) -> ChoiceSheet:
    switches = [Switch("mode", "Look at", MODES, look.mode)]
    switches.append(Switch("bench", "Bench", (("photo", "photograph"), ("brief", "brief")), look.bench))
    if look.reading:
        switches.append(Switch("stop", "", (("stop", "Stop reading"),)))
    else:
        switches.append(Switch("add", "", (("files", "Choose photographs…"),)))
    return ChoiceSheet(tuple(switches), look.reading)


def _tile(c: Commission, p: Photo, ranked: Ranked, e: Evidence | None, foremost: Photo) -> Tile:
    iris = p.iris_px
    size = f"{p.width_px} × {p.height_px}\u202fpx"
    measure = f"iris {iris:.0f}\u202fpx" if iris is not None else size
    if iris is not None and e is not None and (usable := usable_at_planned_size(c, p, e)) is not None:
        measure += f" · {usable:.1f}\u202fpx per mm"
    rights = PERMISSION_WORDS[p.rights.permission]
    if p.use == "helper" and p.helps_with:
        rights = f"for the {p.helps_with} · {rights}"
    reason = ranked.reason if foremost is p else f"copy of {foremost.name}"
    share = ranked.score if iris is not None else 0.0
    tone = iris_tone(iris) if iris is None or iris < IRIS_WORKABLE_PX else "good" if share > 0.4 else "plain"
    return Tile(p.id, p.name, p.use, (reason, measure, rights), p.eyes, (p.width_px, p.height_px), share, tone)


def _photo_sections(
    c: Commission, studio: Studio, p: Photo | None, look: Look, evidence: Mapping[str, Evidence]
) -> list[Section]:  # fmt: skip
    if p is None:
        wanted = Section("The eyes decide", (Note("Wanted: sharp lid and iris, a readable glint, light from one side."),))
        return [*_refused_section(look), wanted]
    sections = [Section("This photograph", _use_lines(c, p))]
    if look.mode == "one":
        sections.append(Section("Marks", _mark_lines(c, p, look)))
    sections.append(Section("Evidence", _eye_lines(p) + evidence_lines(c, p, evidence.get(p.id), studio.unit)))
    leads = len(c.intake.leads)
    helpers = len(c.intake.kept) - leads
    kept: list[Line] = [
        Fact("Kept", f"{leads} lead{'s' * (leads != 1)}, {helpers} helper{'s' * (helpers != 1)} of {len(c.intake.photos)}")
    ]
    if leads > 3:
        kept.append(Note("More than three leads pull a painting apart; let some of them help instead."))
    kept.append(Press("sheet", "Save the contact sheet (PDF)…"))
    sections.append(Section("All photographs", tuple(kept)))
    sections.append(Section("Rights", (*_rights_lines(p), Press("take away", "Take this photograph away"))))
    return [*sections, *_refused_section(look)]


def _refused_section(look: Look) -> tuple[Section, ...]:
    if not look.refused:
        return ()
    notes = tuple(Note(sentence, "wrong") for sentence in look.refused)
    return (Section("What was odd in the last batch", (*notes, Press("forget refused", "Clear this list"))),)


def _use_lines(c: Commission, p: Photo) -> tuple[Line, ...]:
    lines: list[Line] = [Headline(p.name), Pick("use", "Use it as", p.use, plain_options(USES))]
    if p.use == "helper":
        lines.append(Pick("helps_with", "for the", p.helps_with, tuple((h, h or "nothing named") for h in HELPS)))
    if len(c.brief.sitters) > 1:
        who = (("0", "all of them"), *((str(s.id), s.name) for s in c.brief.sitters))
        lines.append(Pick("sitter_id", "Shows", str(p.sitter_id), who))
    lines.append(Note(_taken_words(p)))
    copies = same_shots(c.intake, p)
    if copies:
        best = copies[0]
        larger = best.width_px > p.width_px
        words = f"{best.name} is the same shot, {'larger' if larger else 'smaller or equal'}: {best.width_px} × {best.height_px}\u202fpx"
        lines.append(Note(words, "wrong" if larger else "plain"))
    if c.intake.requests:
        asked = (("0", "not asked for"), *((str(r.number), f"letter {r.number}") for r in c.intake.requests))
        lines.append(Pick("answers", "Came for", str(p.answers), asked))
    return tuple(lines)


def _taken_words(p: Photo) -> str:
    """What the file itself says: size, day, focal length."""
    words = [f"{p.width_px} × {p.height_px}\u202fpx"]
    if p.taken:
        words.append(f"taken {p.taken.day}\u202f{MONTHS[p.taken.month - 1]} {p.taken.year}")
    if p.focal_35_mm:
        words.append(f"{p.focal_35_mm:.0f}\u202fmm lens (as on 35\u202fmm film)")
    elif p.focal_mm:
        words.append(f"{p.focal_mm:.1f}\u202fmm lens")
    return " · ".join(words)


def _mark_lines(c: Commission, p: Photo, look: Look) -> tuple[Line, ...]:
    done = {e.side for e in p.eyes} | {m.name for m in p.landmarks}
    names = tuple((m, f"{m}{' eye' if m in ('left', 'right') else ''}{' ✓' if m in done else ''}") for m in marks_for(c, p))
    hint = "Drag from rim to rim of the iris; arrows move it by a pixel, [ and ] change its size."
    if look.mark not in ("left", "right"):
        hint = "Click the point itself, arrows move it by a pixel; the next one follows."
    lines: list[Line] = [Pick("mark", "Mark the", look.mark, names), Note(hint)]
    sitter = sitter_of(c, p)
    if sitter is not None and can_suggest(sitter.kind):
        lines.append(Press("suggest", "Suggest the eyes"))
    elif not p.eyes:
        lines.append(Note("No detector is good enough for this sitter: drag across each iris yourself."))
    if p.eyes or p.landmarks:
        lines.append(Press("clear marks", "Take the marks off"))
    lines.append(Pick("overlay", "Lay over it", look.overlay, OVERLAYS))
    if look.overlay:
        lines.append(Note(OVERLAY_WORDS[look.overlay]))
    return tuple(lines)


def _eye_lines(p: Photo) -> tuple[Line, ...]:
    lines: list[Line] = []
    for side in ("left", "right"):
        eye = p.eye(side)  # type: ignore[arg-type]
        text = f"{eye.across_px:.0f}\u202fpx, {iris_words(eye.across_px)}" if eye else "not marked"
        lines.append(Fact(f"Iris across, {side}", text, iris_tone(eye.across_px) if eye else "plain"))
    return tuple(lines)


def _rights_lines(p: Photo) -> tuple[Line, ...]:
    lines: list[Line] = [
        Pick("permission", "Permission", p.rights.permission, tuple(PERMISSION_WORDS.items())),
        Field("taken_by", "Taken by", p.rights.taken_by, "who pressed the shutter"),
        Pick("consent", "Consent of who is shown", p.rights.consent, plain_options(CONSENTS)),
    ]
    if p.rights.permission == "licence":
        lines.insert(1, Field("licence", "Licence, its text", p.rights.licence, "the words of the licence", long=True))
    return tuple(lines)


def _letter_bench(c: Commission, evidence: Mapping[str, Evidence]) -> BenchSheet:
    missing = what_is_missing(c.intake, c.brief, evidence)
    lines: list[Line] = [Fact(s.name, why, "wrong") for s, why in missing]
    sections = [Section("What is missing", tuple(lines) or (Note("Every sitter has a lead photograph that holds."),))]
    if c.brief.contact_warning:
        sections.append(Section("Careful", (Note(c.brief.contact_warning + ".", "wrong"),)))
    sent = [
        Fact(f"Letter {r.number}, {r.sent.day}\u202f{MONTHS[r.sent.month - 1]}", f"{n} came back" if n else "no answer yet")
        for r in c.intake.requests
        for n in [sum(p.answers == r.number for p in c.intake.photos)]
    ]
    if sent:
        sections.append(Section("Sent", tuple(sent)))
    sections.append(
        Section(
            "The letter",
            (
                Note("Edit it freely. It goes to the outbox as a mail file; nothing leaves this machine."),
                Press("redraft", "Write it anew"),
            ),
        )
    )
    return BenchSheet(tuple(sections), NextAct("Put it in the outbox", "as .eml, for any mail program"))


def _act(c: Commission, chosen: Photo | None) -> NextAct:
    if not c.intake.photos:
        return NextAct("Choose photographs", "or drop them anywhere on the window")
    if not c.intake.leads:
        name = f" {chosen.name}" if chosen else ""
        return NextAct(f"Make{name} the lead", "one to three photographs carry the painting")
    wanting = kept_wants(c)
    if wanting is not None:
        photo, words = wanting
        unmarked = photo.use == "lead" and not photo.eyes
        how = "drag across each iris" if unmarked else f"then write it down on {photo.name}"
        return NextAct(words[:1].upper() + words[1:], how)
    return NextAct("Go on to Compose", "the leads hold: eyes marked, rights known")
