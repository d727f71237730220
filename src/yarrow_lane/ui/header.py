"""The head of the window: whose portrait, and whether the promise holds."""

from datetime import datetime

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QSizePolicy, QVBoxLayout, QWidget

from yarrow_lane.commission.standing import Outlook
from yarrow_lane.commission.studio import Studio
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.lengths import size_text
from yarrow_lane.measure.words import counted
from yarrow_lane.ui.bench_words import set_property
from yarrow_lane.ui.kit.plain import PlainLabel, tip
from yarrow_lane.ui.rooms.studio.view import StudioView
from yarrow_lane.ui.theme.lettering import SERIF, lettering, px


class Header(QWidget):
    """Title and small print at the left, promise and standing at the right."""

    back = Signal()

    def __init__(self) -> None:
        super().__init__()
        self._said: tuple[str, str, str, str, bool, bool] | None = None
        self.setObjectName("header")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFixedHeight(px(52))
        row = QHBoxLayout(self)
        row.setContentsMargins(px(18), 0, px(18), 0)
        row.setSpacing(px(14))
        self.shelf = QPushButton("‹ Studio")
        self.shelf.setFont(lettering(14))
        self.shelf.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.shelf.clicked.connect(self.back)
        self.title, self.small, self.promise, self.standing = PlainLabel(), PlainLabel(), PlainLabel(), PlainLabel()
        self.clock = PlainLabel()
        self.clock.setFont(lettering(14.5, "bold"))
        self.clock.hide()
        self.title.setFont(lettering(23, "bold", SERIF))
        self.small.setFont(lettering(14.5))
        self.small.setProperty("role", "soft")
        self.promise.setFont(lettering(14.5, "bold"))
        self.standing.setFont(lettering(14.5, "bold"))
        # A very long name gives way before the promise does.
        for label in (self.title, self.small):
            label.setSizePolicy(
                QSizePolicy.Policy.Ignored if label is self.small else QSizePolicy.Policy.Maximum, QSizePolicy.Policy.Preferred
            )
        row.addWidget(self.shelf)
        row.addWidget(self.title)
        row.addWidget(self.small, 1)
        row.addWidget(self.clock)
        right = QVBoxLayout()
        right.setSpacing(0)
        right.setContentsMargins(0, px(5), 0, px(5))
        for label in (self.promise, self.standing):
            label.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
            right.addWidget(label)
        row.addLayout(right)

    def resizeEvent(self, event: QResizeEvent) -> None:
        if self._said is not None:
            self.show_words(*self._said)

    def show_clock(self, words: str) -> None:
        """The clock that runs, wherever one is; empty for none."""
        self.clock.setText(words)
        self.clock.setVisible(bool(words))

    def show_words(self, title: str, small: str, promise: str, standing: str, wrong: bool, in_studio: bool) -> None:
        self._said = (title, small, promise, standing, wrong, in_studio)
        self.shelf.setVisible(not in_studio)
        room = max(px(160), self.width() - px(560))
        self.title.setText(self.title.fontMetrics().elidedText(title, Qt.TextElideMode.ElideRight, room))
        self.title.setToolTip(tip(title))
        self.promise.setText(promise)
        self.standing.setText(standing)
        right = max(label.sizeHint().width() for label in (self.promise, self.standing))
        shelf = 0 if in_studio else self.shelf.sizeHint().width()
        clock = self.clock.sizeHint().width() + px(14) if self.clock.text() else 0
        left = self.width() - shelf - self.title.sizeHint().width() - right - clock - px(96)
        self.small.setText(self.small.fontMetrics().elidedText(small, Qt.TextElideMode.ElideRight, left))
        self.small.setToolTip(tip(small))
        self.promise.setVisible(bool(promise))
        self.standing.setVisible(bool(standing))
        set_property(self.standing, "tone", "wrong" if wrong else "good")


def show_studio(header: Header, view: StudioView, now: datetime) -> None:
    """The studio's name, the day and the air."""
    header.show_words(view.heading, f"{day_text(now.date())} · {view.count}", "", view.under, view.worried, True)


def show_hall(header: Header, heading: tuple[str, str, str]) -> None:
    """Another room of the studio: its title, small print, and what stands at the right."""
    title, small, right = heading
    header.show_words(title, small, "", right, False, False)


def show_commission(header: Header, outlook: Outlook, studio: Studio) -> None:
    """Whose portrait, for whom, how large, and whether the promise holds."""
    s = outlook.standing
    for_whom = f"for {s.client} · " if s.client else ""
    size = f" · {size_text(s.compose.width_mm, s.compose.height_mm, studio.unit)}" if s.compose.sized else ""
    promise = f"Promised {day_text(s.promised)}" if s.promised else "No date promised"
    words = outlook.worry
    days = outlook.days_in_hand(studio.time.weekdays)
    if not words and days is not None and s.delivered is None and s.compose.sized:
        words = f"{counted(days, 'working day')} in hand"
    header.show_words(s.title, f"{for_whom}{s.medium}{size}", promise, words, bool(outlook.worry), False)
