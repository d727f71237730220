"""The widget for each kind of line on a bench."""

from collections.abc import Callable

from PySide6.QtWidgets import QWidget

from yarrow_lane.ui.bench_editors import AmountLine, Changed, DayLine, FieldLine, PickLine, PressLine, TickLine
from yarrow_lane.ui.bench_sheet import Amount, Day, Deed, Fact, Field, Headline, Line, Note, Pick, Press, Tick
from yarrow_lane.ui.bench_words import DeedLine, FactLine, HeadlineLine, NoteLine


def line_widget(line: Line, changed: Changed, pressed: Callable[[str], None]) -> QWidget:
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
        case Field():
            return FieldLine(line, changed)
        case Amount():
            return AmountLine(line, changed)
        case Day():
            return DayLine(line, changed)
        case Pick():
            return PickLine(line, changed)
        case Tick():
            return TickLine(line, changed)
        case Press():
            return PressLine(line, pressed)
