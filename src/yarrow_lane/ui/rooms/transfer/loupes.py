"""The worst places enlarged, side by side: what was drawn, where it belongs, and where a ruler finds that."""

from collections.abc import Callable

from PySide6.QtCore import Qt
from PySide6.QtGui import QMouseEvent, QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from yarrow_lane.measure.lengths import Unit, length_text
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.measure.words import begun
from yarrow_lane.transfer.proof.measured import Off
from yarrow_lane.ui.kit.levels import Levels, single_level
from yarrow_lane.ui.kit.overlays import Ink, Outline, Ring
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.plain import PlainLabel
from yarrow_lane.ui.rooms.transfer.lines_to_draw import Lines
from yarrow_lane.ui.rooms.transfer.measure_view import Told
from yarrow_lane.ui.rooms.transfer.squares_view import drawn_overlay
from yarrow_lane.ui.theme.lettering import SERIF, lettering, px

_COUNT = 3
_REACH_MM = 16.0  # about a place, on 50 cm
_HIGH, _WIDE = 150, 250  # px of the screen: all of it, and the least for one
_ROOM = 380  # px of height that the pictures above want at least: with less no loupe is shown


class _Loupe(QWidget):
    """One place; a click goes near it on the large picture."""

    def __init__(self, near: Callable[[Rect], None]) -> None:
        super().__init__()
        self._near = near
        self._area = Rect(0, 0, 1, 1)
        self.view = PictureView("One place enlarged", margin_px=0)
        self.view.setMinimumSize(px(60), px(60))
        self.view.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        self.view.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.name, self.words, self.ruler = PlainLabel(), PlainLabel(), PlainLabel()
        self.name.setFont(lettering(16, "bold", SERIF))
        self.words.setFont(lettering(13.5, "bold"))
        self.ruler.setFont(lettering(12.5))
        self.ruler.setProperty("role", "soft")
        texts = QVBoxLayout()
        texts.setSpacing(px(2))
        for label in (self.name, self.words, self.ruler):
            label.setWordWrap(True)
            texts.addWidget(label)
        texts.addStretch(1)
        row = QHBoxLayout(self)
        row.setContentsMargins(px(10), px(8), px(4), px(8))
        row.setSpacing(px(8))
        row.addWidget(self.view, 1)
        row.addLayout(texts, 1)

    def show_place(self, number: int, place: Off, told: Told, levels: Levels, size: Point, lines: Lines, unit: Unit) -> None:
        """The drawing about the place, the lines as they belong there, and the way from one to the other."""
        off = place.mm > told.tolerance
        ink: Ink = "off" if off else "holds"
        reach = max(_REACH_MM * max(1.0, max(size) / 500), 1.6 * place.mm)
        self._area = Rect(place.drawn[0] - reach, place.drawn[1] - reach, 2 * reach, 2 * reach)
        self.view.show_levels(levels, size)
        self.view.show_overlays(
            drawn_overlay(lines, 1.0),
            Outline((place.drawn, place.belongs), ink, 2.0, closed=False),
            Ring(place.drawn, radius_px=4, ink=ink, weight=2.0), Ring(place.belongs, radius_px=4, ink="light", weight=2.0),
        )  # fmt: skip
        self.view.fit(self._area)
        self.name.setText(f"{number}  {place.name}")
        self.words.setText(begun(place.words))
        self.words.setProperty("mood", "wrong" if off else "good")
        self.words.style().polish(self.words)
        left, top = length_text(place.belongs[0], unit), length_text(place.belongs[1], unit)
        self.ruler.setText(f"by ruler it belongs {left} from the left, {top} from the top")

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.view.fit(self._area)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self._near(self._area)


class Loupes(QWidget):
    """As many as there are places, three at most; `near(area)` is told when one is clicked."""

    def __init__(self, near: Callable[[Rect], None]) -> None:
        super().__init__()
        self.setObjectName("choices")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFixedHeight(px(_HIGH))
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        self.loupes = [_Loupe(near) for _ in range(_COUNT)]
        for loupe in self.loupes:
            row.addWidget(loupe, 1)
        self._known = 0

    def show_places(self, told: Told, size: Point, lines: Lines, unit: Unit) -> None:
        """The worst places of a measured drawing; hidden while none is known."""
        places = told.verdict.places[:_COUNT] if told.verdict is not None else ()
        if told.flat is None or not places:
            self.hide()
            return
        levels = single_level(told.flat.picture)
        self._known = len(places)
        for number, (place, loupe) in enumerate(zip(places, self.loupes, strict=False), 1):
            loupe.show_place(number, place, told, levels, size, lines, unit)
        self._as_many_as_fit()

    def _as_many_as_fit(self) -> None:
        parent = self.parentWidget()
        self.setVisible(parent is None or parent.height() >= px(_HIGH + _ROOM))
        fit = max(1, self.width() // px(_WIDE))
        for number, loupe in enumerate(self.loupes):
            loupe.setVisible(number < min(self._known, fit))

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        if self._known:
            self._as_many_as_fit()
