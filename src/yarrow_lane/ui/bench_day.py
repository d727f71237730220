"""A date on the bench: written in the local order or in words, or picked from a month."""

from datetime import date

from PySide6.QtCore import QPoint, QSignalBlocker, Qt
from PySide6.QtGui import QPaintEvent
from PySide6.QtWidgets import QLineEdit, QPushButton

from yarrow_lane.measure.dates import parse_day
from yarrow_lane.measure.days import dated
from yarrow_lane.store.trouble import StoreTrouble
from yarrow_lane.ui.bench_editors import Hand, Labelled, chevron
from yarrow_lane.ui.bench_sheet import Day, Meaning
from yarrow_lane.ui.kit.calendar_popup import CalendarPopup
from yarrow_lane.ui.local import local_order
from yarrow_lane.ui.theme.lettering import lettering, px


def _written(day: date | None) -> str:
    return dated(day) if day is not None else ""


class _Opens(QPushButton):
    """The mark beside the field that opens the month."""

    def __init__(self, about: str) -> None:
        super().__init__()
        self.setAccessibleName(f"{about}: open a calendar")
        self.setFixedWidth(px(28))
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)

    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        chevron(self)


class DayLine(Labelled):
    """A date, or none yet. A day on the unusual side of today is asked about: a second Enter keeps it."""

    def __init__(self, line: Day, hand: Hand) -> None:
        self.line = line
        self.editor = QLineEdit()
        self.editor.setFont(lettering(14.5))
        self.editor.setAccessibleName(line.label)
        self.editor.setPlaceholderText("18 Dec, fri, +3w")
        self.editor.setFixedWidth(px(136))
        self._opens = _Opens(line.label)
        self._opens.clicked.connect(self.open_month)
        self._stored, self._asked = "", ""
        super().__init__(line.label, (self.editor, self._opens), True, hand)
        self.editor.editingFinished.connect(self.store)
        self._month: CalendarPopup | None = None
        self.show_line(line)

    @property
    def asks(self) -> bool:
        """Whether a day on the unusual side of today waits for a second Enter."""
        return bool(self._asked)

    def open_month(self) -> None:
        """The calendar, at the day written or at today."""
        if self._month is None:
            self._month = CalendarPopup(self)
            self._month.picked.connect(self._picked)
        below = self.editor.mapToGlobal(QPoint(0, self.editor.height()))
        self._month.show_at(below, self.line.value or self.line.today, self.line.today)

    def let_go(self) -> None:
        if self._month is not None:
            self._month.close()

    def _picked(self, day: date) -> None:
        self.editor.setText(_written(day))
        self.editor.setFocus(Qt.FocusReason.OtherFocusReason)
        self.store()

    def store(self) -> StoreTrouble | None:
        """Pass on what is written, if it is new; returns why it could not be put on record.

        A day on the unusual side of today is asked about first.
        """
        text, line = self.editor.text().strip(), self.line
        again = text == self._asked and self.editor.hasFocus()  # Enter once more, not only leaving it
        if text == self._stored or (text == self._asked and not again):
            return None
        odd: date | None = None

        def meaning() -> Meaning:
            nonlocal odd
            day = parse_day(text, line.today, local_order(), line.ahead)
            if day is not None and not again and (day < line.today if line.ahead else day > line.today):
                odd = day
                return None
            return line.edit(day)

        trouble = self.hand_over(meaning)
        if trouble is not None:
            return trouble if isinstance(trouble, StoreTrouble) else None
        self._ask(text if odd is not None else "", odd)
        if odd is None:
            self._stored = text  # as it was written; what is on record is written out next
            self.show_line(self.line)
        return None

    def _ask(self, text: str, day: date | None) -> None:
        self._asked = text
        self.editor.setProperty("asks", day is not None)
        if day is not None:
            side = "is past" if self.line.ahead else "has not come yet"
            self.fault.setText(f"{_written(day)} {side}. Enter again keeps it.")
        self.fault.setVisible(day is not None)

    def show_line(self, line: Day) -> None:
        self.line = line
        self.label.setText(line.label)
        text = _written(line.value)
        if self._asked or text == self._stored:
            return  # what is asked about or could not be read stays to be mended
        self._stored = text
        blocker = QSignalBlocker(self.editor)
        self.editor.setText(text)
        del blocker
