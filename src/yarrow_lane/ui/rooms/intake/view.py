"""What the intake room shows now."""

from dataclasses import dataclass
from datetime import datetime

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.doors import photo_wants
from yarrow_lane.intake.brief import MEDIA
from yarrow_lane.intake.photos import IRIS_GOOD_PX, IRIS_WORKABLE_PX, USES, Eye, Photo, iris_words
from yarrow_lane.intake.rights import PERMISSION_WORDS
from yarrow_lane.measure.days import MONTHS
from yarrow_lane.ui.bench_sheet import (
    BenchSheet,
    ChoiceSheet,
    Day,
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

EYES_GOAL = "sharp lid and iris, a readable glint, light from one side"


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
    mode: str
    bench: BenchSheet
    choices: ChoiceSheet


def iris_tone(iris_px: float | None) -> Tone:
    """Good from workable up, wrong below."""
    if iris_px is None:
        return "plain"
    return "good" if iris_px >= IRIS_WORKABLE_PX else "wrong"


def intake_view(c: Commission, chosen_id: str, mode: str, side: str, now: datetime) -> IntakeView:
    """Work the room out from what is on record."""
    photos = c.intake.photos
    chosen = next((p for p in photos if p.id == chosen_id), photos[0] if photos else None)
    look = Switch("mode", "Look at", (("all", "all photographs"), ("one", "one, large")), mode)
    switches = [look, Switch("add", "", (("files", "Choose photographs…"),))]
    if mode == "one" and chosen is not None:
        switches.insert(1, Switch("side", "Mark the", (("left", "left eye"), ("right", "right eye")), side))
    remark = "drag from rim to rim of the iris" if mode == "one" and chosen else ""
    return IntakeView(
        tuple(_tile(c, p) for p in photos), chosen, mode, _bench(c, chosen), ChoiceSheet(tuple(switches), remark)
    )  # fmt: skip


def _tile(c: Commission, p: Photo) -> Tile:
    iris = p.iris_px
    lines = [f"iris {iris:.0f}\u202fpx across: {iris_words(iris)}" if iris is not None else "no eye marked yet"]
    lines.append(
        f"{p.width_px} × {p.height_px}\u202fpx"
        + (f" · {p.taken.day} {MONTHS[p.taken.month - 1]} {p.taken.year}" if p.taken else "")
    )
    wants = photo_wants(p) if p.use in ("lead", "helper") else ""
    lines.append(PERMISSION_WORDS[p.rights.permission] if not wants or p.rights.known else "rights unknown: ask")
    share = min(1.0, (iris or 0.0) / (2 * IRIS_GOOD_PX))
    return Tile(p.id, p.name, p.use, tuple(lines), p.eyes, (p.width_px, p.height_px), share, iris_tone(iris))


def _bench(c: Commission, photo: Photo | None) -> BenchSheet:
    sections: list[Section] = []
    if photo is not None:
        sections.append(Section("This photograph", _photo_lines(c, photo)))
    leads = len(c.intake.leads)
    helpers = len(c.intake.kept) - leads
    kept = [Fact("Kept", f"{leads} lead{'s' * (leads != 1)}, {helpers} helper{'s' * (helpers != 1)} of {len(c.intake.photos)}")]
    if leads > 3:
        kept.append(Fact("Leads", "more than three pull apart", "wrong"))
    sections.append(Section("The eyes decide", (Note(f"Wanted: {EYES_GOAL}."), *kept)))
    sections.append(Section("Brief", _brief_lines(c)))
    return BenchSheet(tuple(sections), _act(c, photo))


def _photo_lines(c: Commission, p: Photo) -> tuple[Line, ...]:
    lines: list[Line] = [Headline(p.name)]
    for side in ("left", "right"):
        eye = p.eye(side)  # type: ignore[arg-type]
        text = f"{eye.across_px:.0f}\u202fpx, {iris_words(eye.across_px)}" if eye else "not marked"
        lines.append(Fact(f"Iris across, {side}", text, iris_tone(eye.across_px) if eye else "plain"))
    if c.compose.sized and c.compose.photo_id == p.id and c.compose.framed:
        lines.append(Fact("On the canvas", f"{c.compose.px_per_mm:.1f}\u202fpx per mm"))
    lines.append(Pick("use", "Use it as", p.use, plain_options(USES)))
    lines.append(Pick("permission", "Rights", p.rights.permission, tuple(PERMISSION_WORDS.items())))
    lines.append(Field("taken_by", "Taken by", p.rights.taken_by, "who pressed the shutter"))
    if p.rights.permission == "licence":
        lines.append(Field("licence", "Licence, its text", p.rights.licence, "the words of the licence", long=True))
    if p.eyes:
        lines.append(Press("clear eyes", "Take the eye marks off"))
    lines.append(Press("take away", "Take this photograph away"))
    return tuple(lines)


def _brief_lines(c: Commission) -> tuple[Line, ...]:
    sitters = tuple(Fact(s.name, s.kind) for s in c.brief.sitters)
    return (
        Field("title", "Name of the commission", c.brief.title),
        *sitters,
        Field("client", "Client", c.brief.client),
        Pick("medium", "Medium", c.brief.medium, plain_options(MEDIA)),
        Day("promised", "Promised for", c.brief.promised),
        Field("wish", "Asked for", c.brief.wish, "close likeness, leave the collar on…", long=True),
    )


def _act(c: Commission, chosen: Photo | None) -> NextAct:
    if not c.intake.photos:
        return NextAct("Choose photographs", "or drop them anywhere on the window")
    if not c.intake.leads:
        name = f" {chosen.name}" if chosen else ""
        return NextAct(f"Make{name} the lead", "one to three photographs carry the painting")
    wants = next(((p, w) for p in c.intake.kept if (w := photo_wants(p))), None)
    if wants is not None:
        words = wants[1]
        return NextAct(
            words[:1].upper() + words[1:], "drag across each iris" if "eyes" in words else "write down how permission came"
        )
    return NextAct("Go on to Compose", "the leads hold: eyes marked, rights known")
