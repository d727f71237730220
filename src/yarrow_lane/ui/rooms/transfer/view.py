"""What the transfer room shows now, and what each line means."""

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
from yarrow_lane.measure.lengths import Unit, hours_text, length_text, number_text, size_text
from yarrow_lane.measure.plane import Rect
from yarrow_lane.transfer.squares import (
    FEWEST,
    MOST,
    TRANSFER,
    USUAL_COUNT,
    Paper,
    Squares,
    column_letter,
    minutes_left,
    set_paper,
    whole_counts,
)
from yarrow_lane.ui.bench_sheet import (
    Amount,
    BenchSheet,
    ChoiceSheet,
    Fact,
    Line,
    Meaning,
    NextAct,
    Note,
    Pick,
    Press,
    Section,
    Switch,
    Table,
    plain_options,
)
from yarrow_lane.ui.kit.overlays import Box, Ink, Lattice, Overlay, Wash

Square = tuple[int, int]
_MOST_COUNTS = 8  # our choice: what fits in two lines
_DONE = (78, 107, 58)


class Hands(Protocol):
    """What the page does for the bench."""

    def flip(self, way: str) -> None: ...
    def save_sheets(self) -> None: ...


@dataclass(frozen=True)
class TransferView:
    """The whole room; `squares` is what is shown, even before a count is chosen."""

    squares: Squares | None
    chosen: Square
    words: str
    small: tuple[str, ...]
    on_reference: tuple[Overlay, ...]
    on_canvas: tuple[Overlay, ...]
    close_up: tuple[Overlay, ...]
    bench: BenchSheet
    choices: ChoiceSheet


def transfer_view(c: Commission, studio: Studio, chosen: Square, flipped: bool, hands: Hands, act: NextAct) -> TransferView:
    """Work the room out from what is on record."""
    if not c.compose.framed:
        note = Section("Squares", (Note("The squares follow from the canvas and the crop. Choose both at Compose first."),))
        return TransferView(None, chosen, "", (), (), (), (), BenchSheet((note,), act), ChoiceSheet())
    unit = studio.unit
    squares = Squares(c.compose.width_mm, c.compose.height_mm, c.transfer.count or USUAL_COUNT)
    chosen = (min(chosen[0], squares.columns - 1), min(chosen[1], squares.rows - 1))
    plan = plan_print(squares, c.transfer.paper)
    sections = (
        Section("Squares", _squares_lines(c, squares, plan, unit, hands)),
        # Once the drawing has begun the lines are ruled.
        Section(
            "Lines to rule, from the top left corner",
            _ruling_lines(squares, unit),
            f"{squares.columns - 1} and {squares.rows - 1}" if c.transfer.drawn else "",
        ),
        Section("Drawn", _drawn_lines(c, squares)),
    )
    flips = (("upright", "upright"), ("down", "upside down"))
    choices = ChoiceSheet(
        (Switch("Both pictures", flips, hands.flip, "down" if flipped else "upright"),),
        "arrows walk · Space marks drawn · F turns both",
    )
    rect = squares.rect(*chosen)
    # Upside down the canvas is read as it stands on the easel: its right edge is at the left, its foot above.
    across = (c.compose.width_mm - rect.right, c.compose.width_mm - rect.x) if flipped else (rect.x, rect.right)
    down = (c.compose.height_mm - rect.bottom, c.compose.height_mm - rect.y) if flipped else (rect.y, rect.bottom)
    edge = (
        f"{length_text(across[0], unit, 2)} to {length_text(across[1], unit, 2)} from the left",
        f"{length_text(down[0], unit, 2)} to {length_text(down[1], unit, 2)} from the top",
        "drawn" if chosen in c.transfer.drawn else "not drawn yet",
    )
    here = Box(rect, "here", 3.0)
    drawn = tuple(Wash(squares.rect(*square), _DONE, 70, tick=True) for square in c.transfer.drawn)
    return TransferView(
        squares, chosen, f"Square {squares.name(*chosen)}", edge,
        (_lattice(squares, "light"), here), (*drawn, _lattice(squares, "dark"), here), _close_up(rect),
        BenchSheet(sections, act), choices,
    )  # fmt: skip


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


def _squares_lines(c: Commission, s: Squares, plan: PrintPlan, unit: Unit, hands: Hands) -> tuple[Line, ...]:
    def recounted(value: float) -> Proposal:
        count = round(value)
        return Proposal(f"{count} squares across the short side", "Transfer", partial(recount, count=count))

    def papered(paper: Paper) -> Meaning:
        return Edit(TRANSFER, f"Paper: {paper}", lambda t: set_paper(t, paper))

    return (
        Amount("Across the short side", s.count, FEWEST, MOST, recounted),
        _whole_words(s, unit),
        Fact("Side on the canvas", length_text(s.side_mm, unit, 2)),
        Fact("Side on the print", f"{s.side_mm * plan.scale:.1f}\u202fmm"),
        Fact("Print", size_text(plan.width_mm, plan.height_mm, unit)),
        Fact("Enlargement", f"× {1 / plan.scale:.2f}"),
        Pick("Paper", c.transfer.paper, plain_options(("A4", "Letter")), papered),
        Press("Save the sheets (PDF)…", hands.save_sheets),
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


def _drawn_lines(c: Commission, s: Squares) -> tuple[Line, ...]:
    total, drawn = len(s.all), len(c.transfer.drawn)
    lines: list[Line] = [
        Fact("Squares", f"{drawn} of {total}", "good" if drawn == total else "plain"),
        Fact("Time left, about", hours_text(minutes_left(s, drawn) if drawn < total else 0.0)),
    ]
    printed = of_kind(c.log, Printed)
    if printed:
        older = printed[-1].made_from != reference_key(c.compose)
        words = f"{day_text(printed[-1].at.date())}{', from an earlier composition' if older else ''}"
        lines.append(Fact("Sheets printed", words, "wrong" if older else "plain"))
    return tuple(lines)
