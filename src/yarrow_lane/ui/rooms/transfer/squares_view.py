"""Carrying the drawing by squares: what is shown, and what each line means."""

from dataclasses import dataclass
from functools import partial
from typing import Protocol

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.recompose import Proposal, recount
from yarrow_lane.commission.studio import Studio
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.documents.print_plan import PrintPlan, plan_print
from yarrow_lane.lane.happening import Printed, of_kind
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.kept import kept
from yarrow_lane.measure.lengths import Unit, hours_text, length_text, number_text, size_text
from yarrow_lane.measure.plane import Circle, Rect
from yarrow_lane.transfer.crossings import MOST_EACH, Crossing, crossing_words, crossings, of_square, to_quarter, to_tick
from yarrow_lane.transfer.landmarks import Place, circles_on
from yarrow_lane.transfer.lines.line import stretches
from yarrow_lane.transfer.paper import Paper
from yarrow_lane.transfer.record import TRANSFER, minutes_each, minutes_left, set_paper
from yarrow_lane.transfer.squares import FEWEST, MOST, USUAL_COUNT, Square, Squares, column_letter, whole_counts
from yarrow_lane.ui.bench_sheet import Amount, Fact, Line, Meaning, Note, Pick, Press, Section, Table, Tick, plain_options
from yarrow_lane.ui.kit.overlays import Box, Drawn, Ink, Lattice, Outline, Overlay, Ring, Ticks, Wash
from yarrow_lane.ui.rooms.transfer.lines_to_draw import Lines

_MOST_COUNTS = 8  # our choice: what fits in two lines
_DONE = (78, 107, 58)


class Hands(Protocol):
    """What the room does for the bench."""

    def save_sheets(self) -> None: ...
    def save_svg(self) -> None: ...
    def save_png(self) -> None: ...
    def quarter(self) -> Meaning: ...
    def mark_row(self) -> Meaning: ...
    def mark_up_to_here(self) -> Meaning: ...
    def show(self, what: str, wanted: bool) -> Meaning: ...


@dataclass(frozen=True)
class Shown:
    """What is looked at: the chosen square, whether left and right, top and bottom change places, and the helps laid over."""

    square: Square
    flips: tuple[bool, bool] = (False, False)
    helps: frozenset[str] = frozenset({"lines", "ticks"})


@dataclass(frozen=True)
class SquaresView:
    """All of it; `squares` is what is shown, even before a count is chosen."""

    squares: Squares
    chosen: Square
    words: str
    small: tuple[str, ...]
    edges: tuple[tuple[str, str], ...]
    on_reference: tuple[Overlay, ...]
    on_canvas: tuple[Overlay, ...]
    close_up: tuple[Overlay, ...]
    close_canvas: tuple[Overlay, ...]
    sections: tuple[Section, ...]


def squares_view(
    c: Commission, studio: Studio, shown: Shown, lines: Lines | None, places: tuple[Place, ...], hands: Hands
) -> SquaresView:  # fmt: skip
    """Work the room out from what is on record and the lines to draw, None while they are looked for."""
    unit, (flip_x, flip_y) = studio.unit, shown.flips
    squares = _squares(c.compose.width_mm, c.compose.height_mm, c.transfer.count or USUAL_COUNT)
    chosen = (min(shown.square[0], squares.columns - 1), min(shown.square[1], squares.rows - 1))
    quartered = quartered_of(c, squares, places, lines or ())
    ticks = ticks_of(lines or (), squares, quartered)
    plan = plan_print(squares, c.transfer.paper)
    sections = (
        Section("Squares", _squares_lines(c, squares, plan, unit)),
        Section("Drawn", _drawn_lines(c, squares, hands)),
        # Once the drawing has begun the lines are ruled.
        Section(
            "Lines to rule, from the top left corner",
            _ruling_lines(squares, unit),
            f"{squares.columns - 1} and {squares.rows - 1}" if c.transfer.drawn else "",
        ),
        Section("Laid over", _help_lines(shown, lines, ticks, hands), f"{len(ticks)} ticks"),
        Section("On paper", _paper_lines(c, hands), c.transfer.paper),
    )
    rect = squares.rect(*chosen)
    # Turned, the canvas is read as it stands on the easel: its right edge may be at the left, its foot above.
    across = (c.compose.width_mm - rect.right, c.compose.width_mm - rect.x) if flip_x else (rect.x, rect.right)
    down = (c.compose.height_mm - rect.bottom, c.compose.height_mm - rect.y) if flip_y else (rect.y, rect.bottom)
    small = (
        f"{length_text(across[0], unit, 2)} to {length_text(across[1], unit, 2)} from the left",
        f"{length_text(down[0], unit, 2)} to {length_text(down[1], unit, 2)} from the top",
        ("drawn" if chosen in c.transfer.drawn else "not drawn yet")
        + (f", quartered: {length_text(squares.side_mm / 2, unit, 2)}" if chosen in quartered else ""),
    )
    own = of_square(ticks, squares, chosen)
    edges = tuple(crossing_words(t, squares, chosen, unit, shown.flips) for t in own) if "ticks" in shown.helps else ()
    here = Box(rect, "here", 3.0)
    drawn = tuple(Wash(squares.rect(*square), _DONE, 70, tick=True) for square in c.transfer.drawn)
    fine = tuple(_halved(squares.rect(*s)) for s in quartered)
    helps = _helps(squares, chosen, shown.helps)
    strokes = (drawn_overlay(lines, 1.0),) if lines and "lines" in shown.helps else ()
    # What is drawn needs no ticks any more.
    open_ticks = [t for t in ticks if not set(t.between(squares)) <= set(c.transfer.drawn)]
    marks = (Ticks(tuple((t.place(squares), t.upright) for t in open_ticks)),) if "ticks" in shown.helps else ()
    close_marks = (Ticks(tuple((t.place(squares), t.upright) for t in own), dots=True),) if "ticks" in shown.helps else ()
    close_lines = (drawn_overlay(lines, 2.0),) if lines and "lines" in shown.helps else ()
    return SquaresView(
        squares, chosen, f"Square {squares.name(*chosen)}", small, edges,
        (_lattice(squares, "light"), *fine, *helps, here), (*strokes, *drawn, _lattice(squares, "dark"), *fine, *marks, *helps, here),
        _close_up(rect), (*close_lines, *_close_up(rect)[:1], *close_marks, here), sections,
    )  # fmt: skip


# Walking the squares changes none of what follows: kept for the lines and squares last shown.
_squares = kept(2)(Squares)


@kept(2)
def ticks_of(lines: Lines, squares: Squares, quartered: tuple[Square, ...]) -> tuple[Crossing, ...]:
    """Where to tick."""
    return to_tick(crossings(lines, squares, quartered), squares, quartered)


@kept(2)
def _quarters(lines: Lines, squares: Squares, circles: tuple[Circle, ...]) -> tuple[Square, ...]:
    return to_quarter(lines, squares, circles)


def quartered_of(c: Commission, squares: Squares, places: tuple[Place, ...], lines: Lines) -> tuple[Square, ...]:
    """The squares ruled finer: as the painter chose, else as proposed."""
    if c.transfer.quartered is not None:
        return c.transfer.quartered
    return _quarters(lines, squares, circles_on(places))


@kept(4)
def drawn_overlay(lines: Lines, weight: float) -> Drawn:
    """The lines to draw over a bare canvas, lost edges broken."""
    parts = [stretch for line in lines for stretch in stretches(line)]
    return Drawn(tuple(p for p, lost in parts if not lost), tuple(p for p, lost in parts if lost), weight=weight)


def _halved(rect: Rect) -> Lattice:
    return Lattice(rect, (rect.centre[0],), (rect.centre[1],), "dark", 0.6)


def _helps(s: Squares, chosen: Square, helps: frozenset[str]) -> tuple[Overlay, ...]:
    """Diagonals of the canvas and a circle in the square: both find middles without measuring."""
    found: list[Overlay] = []
    if "diagonals" in helps:
        for path in (((0.0, 0.0), (s.width_mm, s.height_mm)), ((s.width_mm, 0.0), (0.0, s.height_mm))):
            found.append(Outline(path, "faint", 0.8, closed=False))
    if "circle" in helps:
        rect = s.rect(*chosen)
        found.append(Ring(rect.centre, min(rect.width, rect.height) / 2, "faint", 0.8))
    return tuple(found)


def _lattice(s: Squares, ink: Ink) -> Lattice:
    columns = tuple((s.rect(n, 0).centre[0], column_letter(n)) for n in range(s.columns))
    rows = tuple((s.rect(0, n).centre[1], str(n + 1)) for n in range(s.rows))
    xs, ys = (0.0, *s.lines_across(), s.width_mm), (0.0, *s.lines_down(), s.height_mm)
    return Lattice(Rect(0, 0, s.width_mm, s.height_mm), xs, ys, ink, 1.2 if ink == "dark" else 1.0, columns, rows)


def _close_up(r: Rect) -> tuple[Overlay, ...]:
    """Quarters, and quarters of them, fine."""

    def lines(parts: int) -> tuple[tuple[float, ...], tuple[float, ...]]:
        between = [n / parts for n in range(1, parts)]
        return tuple(r.x + r.width * n for n in between), tuple(r.y + r.height * n for n in between)

    return Lattice(r, *lines(4), weight=0.5), Lattice(r, *lines(2), weight=1.2), Box(r, "here", 3.0)


def _squares_lines(c: Commission, s: Squares, plan: PrintPlan, unit: Unit) -> tuple[Line, ...]:
    def recounted(value: float) -> Proposal:
        count = round(value)
        return Proposal(f"{count} squares across the short side", "Transfer", partial(recount, count=count))

    return (
        Amount("Across the short side", s.count, FEWEST, MOST, recounted),
        _whole_words(s, unit),
        Fact("Side on the canvas", length_text(s.side_mm, unit, 2)),
        Fact("Side on the print", f"{s.side_mm * plan.scale:.1f}\u202fmm"),
        Fact("Print", size_text(plan.width_mm, plan.height_mm, unit)),
        Fact("Enlargement", f"× {1 / plan.scale:.2f}"),
    )


def _help_lines(shown: Shown, lines: Lines | None, ticks: tuple[Crossing, ...], hands: Hands) -> tuple[Line, ...]:
    what = (
        ("lines", "The lines to draw"),
        ("ticks", "Ticks where they cross"),
        ("diagonals", "Diagonals"),
        ("circle", "A circle in the square"),
    )
    said = (
        "They are looked for…"
        if lines is None
        else f"{len(lines)} lines, {len(ticks)} ticks, at most {MOST_EACH} round a square."
    )
    return (
        Note(said),
        *(Tick(label, name in shown.helps, partial(hands.show, name)) for name, label in what),
        Press("Quarter this square, or not", hands.quarter),
    )


def _paper_lines(c: Commission, hands: Hands) -> tuple[Line, ...]:
    def papered(paper: Paper) -> Meaning:
        return Edit(TRANSFER, f"Paper: {paper}", lambda t: set_paper(t, paper))

    return (
        Pick("Paper", c.transfer.paper, plain_options(("A4", "Letter")), papered),
        Press("Save the sheets (PDF)…", hands.save_sheets),
        Press("Save the squared picture (PNG)…", hands.save_png),
        Press("Save squares and lines (SVG)…", hands.save_svg),
    )


def _whole_words(s: Squares, unit: Unit) -> Line:
    """Whether the squares are whole, and with which counts they are."""
    counts = whole_counts(s.width_mm, s.height_mm)
    listed = ", ".join(map(str, counts[:_MOST_COUNTS])) + (" and more" if len(counts) > _MOST_COUNTS else "")
    if s.whole:
        others = f" So they are with {listed}." if len(counts) > 1 else ""
        return Note(f"✓ All squares are whole.{others}")
    last = s.rect(s.columns - 1, s.rows - 1)
    row, cut = ("row", last.height) if s.height_mm >= s.width_mm else ("column", last.width)
    return Note(
        f"The last {row} is cut to {length_text(cut, unit, 1)}. {f'Whole squares with {listed}.' if counts else ''}".strip()
    )


def _ruling_lines(s: Squares, unit: Unit) -> tuple[Line, ...]:
    across, down = s.lines_across(), s.lines_down()
    rows = []
    for n in range(max(len(across), len(down))):
        one = number_text(across[n], unit, 2) if n < len(across) else ""
        other = number_text(down[n], unit, 2) if n < len(down) else ""
        rows.append((f"line {n + 1}", one, other))
    note = "Rule all from one edge, so that errors do not add up. White charcoal on a toned ground wipes off dry."
    return Table(("", f"across, {unit}", f"down, {unit}"), tuple(rows)), Note(note)


def _drawn_lines(c: Commission, s: Squares, hands: Hands) -> tuple[Line, ...]:
    total, drawn = len(s.all), len(c.transfer.drawn)
    lines: list[Line] = [
        Fact("Squares", f"{drawn} of {total}", "good" if drawn == total else "plain"),
        Fact("Time left, about", hours_text(minutes_left(s, c.transfer) if drawn < total else 0.0)),
    ]
    if len(c.transfer.minutes) >= 3:
        lines.append(Fact("A square takes you", f"{minutes_each(c.transfer):.1f}\u202fmin"))
    if drawn < total:
        lines += [Press("Mark the row drawn", hands.mark_row), Press("All up to here are drawn", hands.mark_up_to_here)]
    printed = of_kind(c.log, Printed)
    if printed:
        older = printed[-1].made_from != reference_key(c.compose)
        words = f"{day_text(printed[-1].at.date())}{', from an earlier composition' if older else ''}"
        lines.append(Fact("Sheets printed", words, "wrong" if older else "plain"))
    return tuple(lines)
