"""The widget for each kind of line on a bench."""

from PySide6.QtWidgets import QWidget

from yarrow_lane.ui.bench_day import DayLine
from yarrow_lane.ui.bench_editors import (
    AmountLine,
    FieldLine,
    Hand,
    LengthLine,
    PickLine,
    PressLine,
    SpanLine,
    TickLine,
)
from yarrow_lane.ui.bench_row import RowLine
from yarrow_lane.ui.bench_sheet import (
    Amount,
    Day,
    Deed,
    Fact,
    Field,
    Headline,
    Length,
    Line,
    Note,
    Pick,
    Press,
    Row,
    Span,
    Swatch,
    Table,
    Tick,
)
from yarrow_lane.ui.bench_words import DeedLine, FactLine, HeadlineLine, NoteLine, SwatchLine, TableLine


def line_widget(line: Line, hand: Hand) -> QWidget:
    """The widget that shows and edits one line."""
    match line:
        case Fact():
            return FactLine(line)
        case Note():
            return NoteLine(line)
        case Deed():
            return DeedLine(line)
        case Headline():
            return HeadlineLine(line)
        case Swatch():
            return SwatchLine(line)
        case Table():
            return TableLine(line)
        case Field():
            return FieldLine(line, hand)
        case Length():
            return LengthLine(line, hand)
        case Amount():
            return AmountLine(line, hand)
        case Span():
            return SpanLine(line, hand)
        case Day():
            return DayLine(line, hand)
        case Pick():
            return PickLine(line, hand)
        case Tick():
            return TickLine(line, hand)
        case Press():
            return PressLine(line, hand)
        case Row():
            return RowLine(line, hand)
