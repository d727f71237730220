"""Lines of the bench that only say something: facts, notes, deeds, headlines, swatches, tables."""

from html import escape

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QLabel, QVBoxLayout, QWidget

from yarrow_lane.ui.bench_sheet import Deed, Fact, Headline, Note, Swatch, Table
from yarrow_lane.ui.kit.plain import PlainLabel, breakable
from yarrow_lane.ui.theme.lettering import SERIF, lettering, px
from yarrow_lane.ui.theme.sheet import colours

WIDTH_PX = 306  # of the bench


def set_property(widget: QWidget, name: str, value: str) -> None:
    """Set a style-sheet property and let the style look again."""
    if widget.property(name) != value:
        widget.setProperty(name, value)
        widget.style().unpolish(widget)
        widget.style().polish(widget)


def small_label(text: str, role: str = "", size: float = 14) -> QLabel:
    label = PlainLabel(text)
    label.setFont(lettering(size))
    label.setWordWrap(True)
    if role:
        label.setProperty("role", role)
    return label


class FactLine(QWidget):
    """Label at the left, bold number at the right."""

    def __init__(self, line: Fact) -> None:
        super().__init__()
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(0, px(2), 0, px(2))
        self._row.setSpacing(px(8))
        self._label = small_label("")
        self._value = small_label("")
        self._value.setFont(lettering(14.5, "bold"))
        self._value.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignTop)
        self._label.setAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop)
        self._row.addWidget(self._label, 1)
        self._row.addWidget(self._value, 1)
        self.show_line(line)

    def show_line(self, line: Fact) -> None:
        self._label.setText(line.label)
        self._value.setText(line.value)
        # The longer side gets the room, so that neither wraps without need.
        self._row.setStretch(0, max(6, len(line.label)))
        self._row.setStretch(1, max(6, round(len(line.value) * 1.15)))
        set_property(self._value, "tone", line.mood)


class NoteLine(PlainLabel):
    """A sentence in small type."""

    def __init__(self, line: Note) -> None:
        super().__init__()
        self.setWordWrap(True)
        self.setFont(lettering(13.5))
        self.setProperty("role", "soft")
        self.show_line(line)

    def show_line(self, line: Note) -> None:
        self.setText(line.text)
        set_property(self, "tone", line.mood)


class DeedLine(QWidget):
    """Clock time at the left; who, what and the small print beside it."""

    def __init__(self, line: Deed) -> None:
        super().__init__()
        row = QHBoxLayout(self)
        row.setContentsMargins(0, px(3), 0, px(3))
        row.setSpacing(px(10))
        self._when, self._what, self._detail = small_label(""), QLabel(), small_label("", "soft", 13)
        self._when.setFont(lettering(14.5, "bold"))
        self._when.setFixedWidth(px(44))
        self._when.setAlignment(Qt.AlignmentFlag.AlignTop)
        self._what.setFont(lettering(14.5))
        self._what.setTextFormat(Qt.TextFormat.RichText)
        self._what.setWordWrap(True)
        words = QVBoxLayout()
        words.setSpacing(0)
        words.addWidget(self._what)
        words.addWidget(self._detail)
        row.addWidget(self._when)
        row.addLayout(words, 1)
        self.show_line(line)

    def show_line(self, line: Deed) -> None:
        self._when.setText(line.when)
        self._what.setText(f"<b>{escape(breakable(line.who))}</b>, {escape(breakable(line.what))}")
        self._detail.setText(line.detail)


class HeadlineLine(PlainLabel):
    """A name in large type."""

    def __init__(self, line: Headline) -> None:
        super().__init__()
        self.setWordWrap(True)
        self.setFont(lettering(19, "bold", SERIF))
        self.show_line(line)

    def show_line(self, line: Headline) -> None:
        self.setText(line.text)


class _Chip(QWidget):
    """A square of colour."""

    def __init__(self) -> None:
        super().__init__()
        self.colour = QColor(0, 0, 0)
        self.setFixedSize(px(46), px(30))

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setPen(QPen(QColor(colours().soft), 1))
        painter.setBrush(self.colour)
        painter.drawRect(QRectF(0.5, 0.5, self.width() - 1, self.height() - 1))
        painter.end()


class SwatchLine(QWidget):
    """A colour beside its name and its numbers."""

    def __init__(self, line: Swatch) -> None:
        super().__init__()
        row = QHBoxLayout(self)
        row.setContentsMargins(0, px(3), 0, px(3))
        row.setSpacing(px(10))
        self._chip, self._label, self._value = _Chip(), small_label(""), small_label("")
        self._value.setFont(lettering(14.5, "bold"))
        self._value.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        row.addWidget(self._chip)
        row.addWidget(self._label, 1)
        row.addWidget(self._value, 2)
        self.show_line(line)

    def show_line(self, line: Swatch) -> None:
        self._chip.colour = QColor(*line.srgb)
        self._chip.update()
        self._label.setText(line.label)
        self._value.setText(line.value)


class TableLine(QWidget):
    """Figures under each other."""

    def __init__(self, line: Table) -> None:
        super().__init__()
        self._grid = QGridLayout(self)
        self._grid.setContentsMargins(0, px(2), 0, px(2))
        self._grid.setHorizontalSpacing(px(12))
        self._grid.setVerticalSpacing(px(1))
        self._grid.setColumnStretch(0, 1)
        self._cells: dict[tuple[int, int], QLabel] = {}
        self.show_line(line)

    def show_line(self, line: Table) -> None:
        rows = (line.head, *line.rows)
        for place in [p for p in self._cells if p[0] >= len(rows) or p[1] >= len(rows[p[0]])]:
            self._cells.pop(place).deleteLater()
        for n, row in enumerate(rows):
            for column, text in enumerate(row):
                self._cell(n, column).setText(text)

    def _cell(self, row: int, column: int) -> QLabel:
        if (row, column) not in self._cells:
            cell = small_label("", "soft" if row == 0 else "", 13 if row == 0 else 14)
            cell.setWordWrap(column == 0)
            if column:
                cell.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignTop)
                if row:
                    cell.setFont(lettering(14, "bold"))
            self._cells[row, column] = cell
            self._grid.addWidget(cell, row, column)
        return self._cells[row, column]
