"""What is said of scribble marks, and where more are wanted over the canvas."""

import math
from collections.abc import Callable, Sequence

from yarrow_lane.measure.lengths import Unit, length_text
from yarrow_lane.measure.plane import Circle, Point, Polygon
from yarrow_lane.transfer.marks.empty import WIDE_SHARE
from yarrow_lane.transfer.marks.laid import LaidMarks
from yarrow_lane.ui.bench_sheet import Fact, Line, Meaning, Note, Press, Section
from yarrow_lane.ui.kit.overlays import Outline, Overlay, Words

_STEPS = 48
_SAID = 3  # of the rings carry words: the widest


def before_photo(size_mm: Point, unit: Unit, simulate: Callable[[], Meaning]) -> Section:
    """What will be done; `simulate` takes a photograph with the camera stand-in."""
    wide = length_text(2 * WIDE_SHARE * min(size_mm), unit)
    return Section(
        "Scribble marks",
        (
            Note(f"Scribble loosely all over the toned ground: 30 to 60 marks, none farther than {wide} from the next."),
            Note("Chalk or thinned paint that differs from the ground; every mark another shape. No ruler; walls do too."),
            Note("Photograph it, lay the reference over, and draw where its lines meet the marks."),
            Press("Try it with the camera stand-in", simulate),
        ),
    )


def laid_lines(laid: LaidMarks | None, is_first: bool) -> list[Line]:
    """How a photograph lies: by its corners when it is the first, else by what marks."""
    if laid is None:
        return [Note("Straightening and looking for the marks…")]
    lines: list[Line] = []
    if not is_first and laid.why_not:
        lines.append(Note(f"Not laid on by its marks: {laid.why_not}. It lies there by its corners alone.", "wrong"))
    elif not is_first:
        lines += [
            Fact("Laid on the first by", f"{laid.agreeing} places on marks"),
            Fact("They disagree by", f"{laid.rest_mm:.1f}\u202fmm"),
            Fact("In doubt where it is worst by", f"{laid.doubt_mm:.1f}\u202fmm"),
        ]
    if laid.weak:
        lines.append(Note(f"Not well seen: the {' and '.join(laid.weak)} edge. Look at its corners.", "wrong"))
    return lines


def marks_section(first: LaidMarks | None, unit: Unit) -> Section:
    """Whether they lie close enough."""
    if first is None:
        line = Note("They are looked for…")
    elif not first.marks:
        line = Note("No mark is seen: scribble some, lighter or darker than the ground.", "wrong")
    elif not first.wanting:
        line = Note("✓ They lie close enough everywhere.", "good")
    else:
        away = length_text(first.wanting[0][1], unit)
        line = Note(f"Add marks at the {len(first.wanting)} rings: in the widest the nearest mark is {away} away.", "wrong")
    return Section("The marks", (line,))


def wanting_overlays(wanting: Sequence[Circle], size_mm: Point) -> tuple[Overlay, ...]:
    """Rings, as far as they lie on the canvas, the widest with words."""
    found: list[Overlay] = []
    for number, circle in enumerate(wanting):
        ring = _on_canvas(circle, size_mm)
        found.append(Outline(ring, "here", 1.8, "dashes"))
        if number < _SAID:
            middle = sum(x for x, _ in ring) / len(ring), sum(y for _, y in ring) / len(ring)
            found.append(Words(middle, "add marks", "over"))
    return tuple(found)


def _on_canvas(circle: Circle, size_mm: Point) -> Polygon:
    (x, y), radius = circle
    turns = (2 * math.pi * n / _STEPS for n in range(_STEPS))
    points = ((x + radius * math.cos(turn), y + radius * math.sin(turn)) for turn in turns)
    return tuple((min(max(px, 0.0), size_mm[0]), min(max(py, 0.0), size_mm[1])) for px, py in points)
