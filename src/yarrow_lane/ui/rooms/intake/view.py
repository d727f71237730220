"""What the intake room shows now, and what each line means."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from datetime import date
from typing import Any, Protocol

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.recompose import Proposal, take_photo_away
from yarrow_lane.commission.studio import Studio
from yarrow_lane.compose.detail import carried_px_per_mm
from yarrow_lane.intake.brief import Brief
from yarrow_lane.intake.consent import sitters_shown
from yarrow_lane.intake.detail import FULL, IRIS_WORKABLE_PX, about, iris_detail, iris_words, shows_more
from yarrow_lane.intake.evidence import Evidence
from yarrow_lane.intake.landmarks import TEMPLATES
from yarrow_lane.intake.partner import lone_eye
from yarrow_lane.intake.photos import (
    INTAKE,
    USES,
    Eye,
    Intake,
    Photo,
    Use,
    change_photo,
    clear_marks,
    grouped,
    same_shots,
    set_rights,
    set_use,
)
from yarrow_lane.intake.ranking import Ranked, rank
from yarrow_lane.intake.rights import CONSENTS, PERMISSION_WORDS
from yarrow_lane.intake.sides import SIDES_NOTE, sitters_own
from yarrow_lane.intake.suggestions import can_suggest
from yarrow_lane.lane.happening import LetterSent, of_kind
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.days import MONTHS
from yarrow_lane.measure.words import counted
from yarrow_lane.ui.bench_sheet import (
    BenchSheet,
    ChoiceSheet,
    Fact,
    Field,
    Headline,
    Line,
    Meaning,
    Mood,
    NextAct,
    Note,
    Pick,
    Press,
    Section,
    Switch,
    Tick,
    plain_options,
)
from yarrow_lane.ui.rooms.intake.brief_sheet import brief_sections
from yarrow_lane.ui.rooms.intake.evidence_lines import evidence_lines, sitter_of
from yarrow_lane.ui.rooms.intake.letter_bench import Hands as LetterHands
from yarrow_lane.ui.rooms.intake.letter_bench import letter_bench

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
    keep_location: bool = False
    partner: tuple[str, Eye] | None = None  # a guess of the other eye, and the photograph it is on


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
    mood: Mood


@dataclass(frozen=True)
class IntakeView:
    """The whole room."""

    tiles: tuple[Tile, ...]
    chosen: Photo | None
    bench: BenchSheet
    choices: ChoiceSheet


class Hands(LetterHands, Protocol):
    """What the page does for the bench."""

    def set_look(self, look: Look) -> None: ...
    def keep_location(self, keep: bool) -> None: ...
    def choose_files(self) -> None: ...
    def forget_odd(self) -> None: ...
    def suggest(self) -> None: ...
    def take_partner(self) -> None: ...
    def snap(self) -> None: ...
    def save_contact_sheet(self) -> None: ...


def iris_mood(detail_px: float | None) -> Mood:
    """Good from workable up, wrong below."""
    if detail_px is None:
        return "plain"
    return "good" if detail_px >= IRIS_WORKABLE_PX else "wrong"


def _resolved(iris_px: float | None, e: Evidence | None) -> float | None:
    """What resolves across an iris; the stored pixels while it is not measured."""
    return iris_px if iris_px is None or e is None else iris_detail(iris_px, e)


def marks_for(c: Commission, p: Photo) -> tuple[str, ...]:
    """What can be marked on a photograph: the eyes, and the landmarks of its kind of sitter on a lead."""
    sitter = sitter_of(c, p)
    points = TEMPLATES[sitter.kind if sitter else "other"] if p.use == "lead" else ()
    return ("left", "right", *points)


def intake_view(
    c: Commission, studio: Studio, look: Look, evidence: Mapping[str, Evidence], odd: tuple[str, ...], today: date, hands: Hands,
    act: NextAct,
) -> IntakeView:  # fmt: skip
    """Work the room out from what is on record and what is measured so far; `odd` are sentences about the last batches."""
    photos, ranked, shots = in_order(c, evidence)
    chosen = next((p for p in photos if p.id == look.chosen_id), photos[0] if photos else None)
    foremost: dict[str, Photo] = {}
    for p in photos:
        foremost.setdefault(shots[p.id], p)
    tiles = tuple(_tile(c, p, ranked[p.id], evidence.get(p.id), foremost[shots[p.id]]) for p in photos)
    if look.bench == "brief":
        bench = BenchSheet(brief_sections(c, studio, today, look.keep_location, hands), act)
    elif look.mode == "letter":
        bench = letter_bench(c, evidence, hands)
    else:
        bench = BenchSheet(tuple(_photo_sections(c, studio, chosen, look, evidence, odd, hands)), act)
    return IntakeView(tiles, chosen, bench, _choices(look, hands))


def in_order(c: Commission, evidence: Mapping[str, Evidence]) -> tuple[list[Photo], dict[str, Ranked], dict[str, str]]:
    """The photographs as they are shown, leads first, then by what they are worth, copies together; ranks; shots."""
    ranked = {r.photo_id: r for r in rank(c.intake.photos, evidence)}
    shots = grouped(c.intake)
    photos = sorted(c.intake.photos, key=lambda p: (_ORDER[p.use], -ranked[p.id].worth))
    return _copies_together(photos, shots), ranked, shots


def _copies_together(photos: list[Photo], shots: dict[str, str]) -> list[Photo]:
    """The same order, but copies of one shot follow the first of them."""
    first: dict[str, int] = {}
    for n, p in enumerate(photos):
        first.setdefault(shots[p.id], n)
    return sorted(photos, key=lambda p: first[shots[p.id]])


def _choices(look: Look, hands: Hands) -> ChoiceSheet:
    benches = (("photo", "photograph"), ("brief", "brief"))
    return ChoiceSheet(
        (
            Switch("Look at", MODES, lambda v: hands.set_look(replace(look, mode=v, bench="photo")), look.mode),
            Switch("Bench", benches, lambda v: hands.set_look(replace(look, bench=v)), look.bench),
            Switch("", (("files", "Choose photographs…"),), lambda _: hands.choose_files()),
        )
    )


def _tile(c: Commission, p: Photo, ranked: Ranked, e: Evidence | None, foremost: Photo) -> Tile:
    iris = p.iris_px
    size = f"{p.width_px} × {p.height_px}\u202fpx"
    detail = _resolved(iris, e)
    measure = size if iris is None else f"iris {iris:.0f}\u202fpx"
    if e is not None and detail is not None:
        if e.eye_share < FULL:
            measure += f", detail of {about(detail)}"
        elif c.compose.sized:
            measure += f" · {carried_px_per_mm(c.compose, p, e):.1f}\u202fpx per mm"
    rights = PERMISSION_WORDS[p.rights.permission]
    if p.use == "helper" and p.helps_with:
        rights = f"for the {p.helps_with} · {rights}"
    reason = ranked.reason if foremost is p else f"copy of {foremost.name}"
    share = ranked.worth if iris is not None else 0.0
    mood = iris_mood(detail) if detail is None or detail < IRIS_WORKABLE_PX else "good" if share > 0.4 else "plain"
    return Tile(p.id, p.name, p.use, (reason, measure, rights), p.eyes, (p.width_px, p.height_px), share, mood)


def _photo_edit(p: Photo, label: str, **changed: Any) -> Edit[Intake]:
    """That photograph with other facts."""
    return Edit(INTAKE, label, lambda i: change_photo(i, replace(i.photo(p.id), **changed)))


def _photo_sections(
    c: Commission, studio: Studio, p: Photo | None, look: Look, evidence: Mapping[str, Evidence], odd: tuple[str, ...],
    hands: Hands,
) -> list[Section]:  # fmt: skip
    if p is None:
        wanted = Section("The eyes decide", (Note("Wanted: sharp lid and iris, a readable glint, light from one side."),))
        return [*_odd_section(odd, hands), wanted]
    sections = [Section("This photograph", _use_lines(c, p, evidence))]
    if look.mode == "one":
        sections.append(Section("Marks", _mark_lines(c, p, look, hands)))
    sections.append(
        Section("Evidence", _eye_lines(p, evidence.get(p.id)) + evidence_lines(c, p, evidence.get(p.id), studio.unit))
    )
    leads = len(c.intake.leads)
    helpers = len(c.intake.kept) - leads
    kept: list[Line] = [Fact("Kept", f"{counted(leads, 'lead')}, {counted(helpers, 'helper')} of {len(c.intake.photos)}")]
    if leads > 3:
        kept.append(Note("More than three leads pull a painting apart; let some of them help instead."))
    kept.append(Press("Save the contact sheet (PDF)…", hands.save_contact_sheet))
    sections.append(Section("All photographs", tuple(kept)))
    away = Proposal(f"Took {p.name} away", "Intake", lambda now: take_photo_away(now, p.id))
    sections.append(Section("Rights", (*_rights_lines(p, c.brief), Press("Take this photograph away", lambda: away))))
    return [*sections, *_odd_section(odd, hands)]


def _odd_section(odd: tuple[str, ...], hands: Hands) -> tuple[Section, ...]:
    if not odd:
        return ()
    notes = tuple(Note(sentence, "wrong") for sentence in odd)
    return (Section("What was odd in the last batch", (*notes, Press("Clear this list", hands.forget_odd))),)


def used(p: Photo, use: Use) -> Edit[Intake]:
    """The painter's own choice of what a photograph is for."""
    return Edit(INTAKE, f"Use: {use}", lambda i: set_use(i, p.id, use))


def _use_lines(c: Commission, p: Photo, evidence: Mapping[str, Evidence]) -> tuple[Line, ...]:
    lines: list[Line] = [Headline(p.name), Pick("Use it as", p.use, plain_options(USES), lambda v: used(p, v))]
    if p.use == "helper":
        helps = tuple((h, h or "nothing named") for h in HELPS)
        lines.append(Pick("for the", p.helps_with, helps, lambda v: _photo_edit(p, "Said what it helps with", helps_with=v)))
    if len(c.brief.sitters) > 1:
        who = ((0, "all of them"), *((s.id, s.name) for s in c.brief.sitters))
        lines.append(Pick("Shows", p.sitter_id, who, lambda v: _photo_edit(p, "Said who it shows", sitter_id=v)))
    lines.append(Note(_taken_words(p)))
    copies = same_shots(c.intake, p)
    if copies:
        words, better = _copy_words(p, copies[0], evidence)
        lines.append(Note(words, "wrong" if better else "plain"))
    letters = of_kind(c.log, LetterSent)
    if letters:
        asked = ((0, "not asked for"), *((r.number, f"letter {r.number}") for r in letters))
        lines.append(Pick("Came for", p.answers, asked, lambda v: _photo_edit(p, "Linked it to a letter", answers=v)))
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


def partner_on(p: Photo, look: Look) -> Eye | None:
    """The guess of the other eye, while one eye alone is marked on that photograph."""
    if look.partner is None or look.partner[0] != p.id or lone_eye(p) is None:
        return None
    return look.partner[1] if p.eye(look.partner[1].side) is None else None


def _mark_lines(c: Commission, p: Photo, look: Look, hands: Hands) -> tuple[Line, ...]:
    done = {e.side for e in p.eyes} | {m.name for m in p.landmarks}
    names = tuple(
        (m, f"{sitters_own(m)}{' eye' if m in ('left', 'right') else ''}{' ✓' if m in done else ''}") for m in marks_for(c, p)
    )
    hint = "Drag from rim to rim across the whole iris, also where a lid covers it; arrows move it by a pixel, [ and ] change its size."
    if look.mark not in ("left", "right"):
        hint = "Click the point itself, arrows move it by a pixel; the next one follows."
    lines: list[Line] = [
        Pick("Mark the", look.mark, names, lambda v: hands.set_look(replace(look, mark=v))),
        Note(f"{hint} {SIDES_NOTE}"),
    ]
    guess = partner_on(p, look)
    if guess is not None:
        lines.append(Press(f"P: take the dashed ring as the {sitters_own(guess.side)} eye", hands.take_partner))
        lines.append(Note("The dashed ring is a guess of the other eye; about one in five is wrong."))
    if look.mark in ("left", "right") and p.eye(look.mark) is not None:  # type: ignore[arg-type]
        lines.append(Press("R: set the ring to the iris's rim", hands.snap))
    sitter = sitter_of(c, p)
    if sitter is not None and can_suggest(sitter.kind):
        lines.append(Press("Suggest the eyes", hands.suggest))
    elif not p.eyes:
        lines.append(Note("No detector is good enough for this sitter: drag across each iris yourself."))
    if not p.eyes:
        lines.append(
            Tick("No eye is seen on it", p.no_eyes, lambda on: _photo_edit(p, "Said whether an eye is seen", no_eyes=on))
        )
        if p.no_eyes:
            lines.append(Note("From behind, asleep or hidden: landmarks tell where the head is."))
    if p.eyes or p.landmarks:
        off = Edit(INTAKE, "Took the marks off", lambda i: clear_marks(i, p.id))
        lines.append(Press("Take the marks off", lambda: off))
    lines.append(Pick("Lay over it", look.overlay, OVERLAYS, lambda v: hands.set_look(replace(look, overlay=v))))
    if look.overlay:
        lines.append(Note(OVERLAY_WORDS[look.overlay]))
    return tuple(lines)


def _copy_words(p: Photo, other: Photo, evidence: Mapping[str, Evidence]) -> tuple[str, bool]:
    """What another copy of the same shot is to this one, and whether it shows more."""
    size = f"{other.width_px} × {other.height_px}\u202fpx"
    larger = other.width_px > p.width_px
    mine, theirs = evidence.get(p.id), evidence.get(other.id)
    if mine is None or theirs is None:
        return f"{other.name} is the same shot, {'larger' if larger else 'smaller or equal'}: {size}", larger
    more, plainly = shows_more((p.width_px, mine), (other.width_px, theirs))
    if more > plainly:
        return f"{other.name} is the same shot and shows more: {size}", True
    less = more < 1 / plainly
    sharper = "and shows less" if less else "larger but no sharper" if larger else "no sharper"
    return f"{other.name} is the same shot, {sharper}: {size}", False


def _eye_lines(p: Photo, e: Evidence | None) -> tuple[Line, ...]:
    lines: list[Line] = []
    for side in ("left", "right"):
        eye = p.eye(side)
        detail = _resolved(eye.across_px, e) if eye is not None else None
        if eye is None or detail is None:
            lines.append(Fact(f"Iris across, {sitters_own(side)}", "not seen" if p.no_eyes else "not marked"))
            continue
        resolves = f", detail of {about(detail)}" if e is not None and e.eye_share < FULL else ""
        lines.append(
            Fact(
                f"Iris across, {sitters_own(side)}",
                f"{eye.across_px:.0f}\u202fpx{resolves}, {iris_words(detail)}",
                iris_mood(detail),
            )
        )
    return tuple(lines)


def _rights_lines(p: Photo, brief: Brief) -> tuple[Line, ...]:
    def sets(name: str) -> Callable[[Any], Meaning]:
        def edit(value: Any) -> Meaning:
            changed: dict[str, Any] = {name: value}
            return Edit(
                INTAKE, "Wrote down the rights", lambda i: set_rights(i, p.id, replace(i.photo(p.id).rights, **changed))
            )  # fmt: skip

        return edit

    r = p.rights
    lines: list[Line] = [
        Pick("Permission", r.permission, tuple(PERMISSION_WORDS.items()), sets("permission")),
        Field("Taken by", r.taken_by, sets("taken_by"), "who pressed the shutter", about=p.id),
    ]
    if any(s.kind == "person" for s in sitters_shown(p, brief)):
        lines.append(Pick("Consent of who is shown", r.consent, plain_options(CONSENTS), sets("consent")))
    if r.permission == "licence":
        lines.insert(1, Field("Licence, its text", r.licence, sets("licence"), "the words of the licence", True, p.id))
    return tuple(lines)
