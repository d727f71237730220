"""What is shown and said while a sitter is cut out."""

from collections.abc import Sequence
from typing import TYPE_CHECKING

from yarrow_lane.commission.commission import Commission
from yarrow_lane.compose.cutting.coats import share_of_coats
from yarrow_lane.compose.cutting.outline import curve
from yarrow_lane.compose.pieces import COATS, Ring, sides_cut
from yarrow_lane.measure.plane import Point
from yarrow_lane.measure.words import begun
from yarrow_lane.ui.bench_sheet import Fact, Line, NextAct, Note, Pick, Press, Section, Switch, Table
from yarrow_lane.ui.kit.overlays import Outline, Overlay, Words
from yarrow_lane.ui.kit.overlays import Ring as Circle
from yarrow_lane.ui.rooms.compose.cut_ground import Ground
from yarrow_lane.ui.rooms.compose.mode import Sheets

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.compose.cut_mode import CutMode

_STROKES = ("adds", "takes away", "fur", "skin", "cloth")
_STROKE_WORDS = ("adds", "takes", "fur", "skin", "cloth")
_GROUND_WORDS: dict[Ground, str] = {
    "photograph": "photo",
    "black": "black",
    "white": "white",
    "grey": "grey",
    "as placed": "placed",
}
_COAT_LINES = {"fur": "solid", "skin": "dots", "cloth": "dashes"}


def cut_overlays(
    rings: Sequence[Ring], weak: Sequence[Point], guessed: bool, plain: bool, means: str
) -> tuple[Overlay, ...]:  # fmt: skip
    """The line, its coats told apart by kind of line while coats are set, and the places where it is unsure."""
    if plain:
        return ()
    found: list[Overlay] = []
    for ring in rings:
        line = tuple((float(x), float(y)) for x, y in curve(ring.points, 6))
        if means in COATS:
            found += _by_coat(ring, line)
        else:
            found.append(Outline(line, "faint" if guessed else "light", 1.8, "dashes" if guessed else "solid"))
    for number, at in enumerate(weak):
        found.append(Circle(at, radius_px=17, ink="here", weight=2.0, line="dashes"))
        if number == 0:
            found.append(Words(at, "look here", "right", shift=(20.0, 0.0)))
    return tuple(found)


def _by_coat(ring: Ring, line: tuple[Point, ...]) -> list[Overlay]:
    samples = len(line) // max(1, len(ring.points))
    found: list[Overlay] = []
    place = 0
    count = len(ring.points)
    while place < count:
        coat, start = ring.coat(place), place
        while place < count and ring.coat(place) == coat:
            place += 1
        span = (*line, line[0])[start * samples : place * samples + 1]
        ink = "here" if coat == "fur" else "light"
        found.append(Outline(tuple(span), ink, 2.4, _COAT_LINES[coat], closed=False))  # type: ignore[arg-type]
    return found


def cut_sheets(c: Commission, mode: "CutMode", act: NextAct | None) -> Sheets:
    """The bench and the switches."""
    photo, work = mode.photo, mode.work
    order = (*c.intake.leads, *(p for p in c.intake.photos if p.use != "lead"))
    who = tuple((s.id, s.name) for s in c.brief.sitters)
    lines: list[Line] = [Pick("Who", work.sitter_id, who, mode.choose_sitter)]
    if photo is not None:
        lines.append(Pick("Cut from", photo.id, tuple((p.id, f"{p.name}, {p.use}") for p in order), mode.choose_photo))
    sections = [Section("Sitter", tuple(lines))]
    if work.rings:
        sections.append(Section("The line", _line_lines(mode)))
    else:
        note = "Hold the button and go round in one loop, or click about twelve corners and close with a double click."
        sections.append(Section("The line", (Note(note),)))
    others = [p for p in c.compose.pieces if p.id != work.piece_id]
    placed = tuple(Press(f"Cut {p.name} out again", lambda i=p.id: mode.cut_again(i)) for p in others)  # type: ignore[misc]
    if placed:
        sections.append(Section("On the canvas", placed))
    words = "A stroke adds, with Alt it takes away. X swaps, [ and ] make it finer or wider, P shows points, Space other grounds, ⌫ takes a stroke back."
    sections.append(Section("Hands", (Note(words),), "stroke, Alt, X, [ ], P, Space"))
    switches = []
    if work.rings and not work.guessed:
        strokes = tuple((stroke, _coat_word(mode, words)) for stroke, words in zip(_STROKES, _STROKE_WORDS, strict=True))
        switches.append(Switch("A stroke", strokes, mode.choose_stroke, mode.means))
        grounds = tuple((g, _GROUND_WORDS[g]) for g in mode.grounds)
        switches.append(Switch("Seen on", grounds, mode.show_on, mode.seen_on.ground))
    remark = "looking…" if mode.waiting else ""
    return Sheets(tuple(sections), tuple(switches), act, remark)


def _coat_word(mode: "CutMode", word: str) -> str:
    """People wear hair where animals wear fur; both have the same edge."""
    person = mode.sitter is not None and mode.sitter.kind == "person"
    return "hair" if word == "fur" and person else word


def _line_lines(mode: "CutMode") -> tuple[Line, ...]:
    work, photo = mode.work, mode.photo
    lines: list[Line] = []
    if work.guessed:
        lines.append(Note("A guess from the marks at Intake. Draw round the sitter for a better one.", "wrong"))
    coats = share_of_coats(work.rings)
    rows = tuple((_coat_word(mode, coat), f"{share:.0%}") for coat, share in coats.items() if share >= 0.005)
    lines.append(Table(("soft edge as of", "of the line"), rows))
    lines.append(Fact("Points", f"{sum(len(r.points) for r in work.rings)}"))
    if work.strokes:
        lines.append(Fact("Strokes", f"{len(work.strokes)}"))
    if photo is not None and mode.found is not None:
        cut = sides_cut(work.rings, (photo.width_px, photo.height_px))
        if cut:
            lines.append(
                Note(
                    f"{begun(' and '.join(cut))}: the photograph ends before the sitter does. It is laid to the canvas's edge."
                )
            )
    lines.append(Press("Go round it anew", mode.anew))
    return tuple(lines)
