"""What the transfer room shows now."""

from dataclasses import dataclass

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.studio import Studio
from yarrow_lane.documents.squares_sheet import plan_print
from yarrow_lane.measure.lengths import hours_text, length_text, number_text, size_text
from yarrow_lane.transfer.squares import FEWEST, MOST, USUAL_COUNT, Squares, minutes_left
from yarrow_lane.ui.bench_sheet import (
    Amount,
    BenchSheet,
    ChoiceSheet,
    Fact,
    NextAct,
    Note,
    Pick,
    Press,
    Section,
    Switch,
    plain_options,
)


@dataclass(frozen=True)
class TransferView:
    """The whole room; `squares` is what is shown, even before a count is chosen."""

    squares: Squares | None
    chosen: tuple[int, int]
    words: str
    small: tuple[str, ...]
    bench: BenchSheet
    choices: ChoiceSheet


def transfer_view(c: Commission, studio: Studio, chosen: tuple[int, int], flipped: bool) -> TransferView:
    """Work the room out from what is on record."""
    unit = studio.unit
    if not c.compose.framed:
        note = Section("Squares", (Note("The squares follow from the canvas and the crop. Choose both at Compose first."),))
        return TransferView(None, chosen, "", (), BenchSheet((note,), NextAct("Go to Compose", "size and crop")), ChoiceSheet())
    count = c.transfer.count or USUAL_COUNT
    squares = Squares(c.compose.width_mm, c.compose.height_mm, count)
    column, row = min(chosen[0], squares.columns - 1), min(chosen[1], squares.rows - 1)
    plan = plan_print(squares, c.transfer.paper)
    total, drawn = len(squares.all), len(c.transfer.drawn)
    sections = (
        Section(
            "Squares",
            (
                Amount("count", "Across the short side", count, FEWEST, MOST),
                Fact("Side on the canvas", length_text(squares.side_mm, unit, 2), "plain"),
                Fact("Side on the print", f"{squares.side_mm * plan.scale:.1f}\u202fmm"),
                Fact("Print", size_text(plan.width_mm, plan.height_mm, unit)),
                Fact("Enlargement", f"× {1 / plan.scale:.2f}"),
                Pick("paper", "Paper", c.transfer.paper, plain_options(("A4", "Letter"))),
                Press("pdf", "Save the sheets (PDF)…"),
            ),
        ),
        Section(
            "Lines to rule, from the top left corner",
            (
                Note(f"across, {unit}: " + " · ".join(number_text(x, unit, 2) for x in squares.lines_across())),
                Note(f"down, {unit}: " + " · ".join(number_text(y, unit, 2) for y in squares.lines_down())),
                Note("Rule all from one edge, so that errors do not add up. White charcoal on a toned ground wipes off dry."),
            ),
        ),
        Section(
            "Drawn",
            (
                Fact("Squares", f"{drawn} of {total}", "good" if drawn == total else "plain"),
                Fact("Time left, about", hours_text(minutes_left(squares, drawn))),
            ),
        ),
    )
    rect = squares.rect(column, row)
    edge = (
        f"{length_text(rect.x, unit, 2)} to {length_text(rect.right, unit, 2)} from the left",
        f"{length_text(rect.y, unit, 2)} to {length_text(rect.bottom, unit, 2)} from the top",
        "drawn" if (column, row) in c.transfer.drawn else "not drawn yet",
    )
    choices = ChoiceSheet(
        (Switch("flip", "Both pictures", (("upright", "upright"), ("down", "upside down")), "down" if flipped else "upright"),),
        "arrows walk · Space marks drawn · F turns both",
    )
    act = _act(c, squares, total, drawn)
    return TransferView(squares, (column, row), f"Square {squares.name(column, row)}", edge, BenchSheet(sections, act), choices)


def _act(c: Commission, squares: Squares, total: int, drawn: int) -> NextAct:
    if not c.transfer.count:
        return NextAct(
            f"Take {squares.columns} × {squares.rows} squares", f"{total} squares, about {hours_text(minutes_left(squares, 0))}"
        )
    if drawn == 0:
        return NextAct(f"Rule the lines, then draw {total} squares", f"about {hours_text(minutes_left(squares, 0))}")
    if drawn < total:
        return NextAct("Draw the next square", f"{drawn} done · about {hours_text(minutes_left(squares, drawn))} left")
    return NextAct("Go on to Tone", "every square is drawn")
