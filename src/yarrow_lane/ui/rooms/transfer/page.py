"""The transfer page: walk the squares, mark them drawn, print the sheets."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QHBoxLayout, QLabel, QVBoxLayout, QWidget

from yarrow_lane.documents.squares_sheet import squares_sheet
from yarrow_lane.tone.three_values import GROUNDS
from yarrow_lane.transfer.squares import mark_drawn, set_count, set_paper
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.transfer.square_close_up import SquareCloseUp
from yarrow_lane.ui.rooms.transfer.squares_canvas import SquaresCanvas
from yarrow_lane.ui.rooms.transfer.view import TransferView, transfer_view
from yarrow_lane.ui.theme.lettering import SERIF, lettering, px
from yarrow_lane.ui.workroom import Workroom


class TransferPage(RoomPage):
    """Door 3."""

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.square = (0, 0)
        self.flipped = False
        self.reference = SquaresCanvas("Reference")
        self.canvas = SquaresCanvas("Your canvas")
        self.close_up = SquareCloseUp()
        self.view: TransferView | None = None
        self._shown: Shown | None = None
        self._build()
        for side in (self.reference, self.canvas):
            side.chosen.connect(self._choose_square)

    def _build(self) -> None:
        box = QVBoxLayout(self.table)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        pair = QHBoxLayout()
        pair.setSpacing(0)
        pair.addWidget(self.reference, 1)
        pair.addWidget(self.canvas, 1)
        box.addLayout(pair, 1)
        foot = QWidget()
        foot.setObjectName("bench")
        foot.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        row = QHBoxLayout(foot)
        row.setContentsMargins(px(14), px(10), px(14), px(10))
        row.setSpacing(px(18))
        self.close_up.setFixedSize(px(190), px(190))
        row.addWidget(self.close_up)
        words = QVBoxLayout()
        words.setSpacing(px(4))
        self._name = QLabel()
        self._name.setFont(lettering(24, "bold", SERIF))
        words.addWidget(self._name)
        self._edges = QLabel()
        self._edges.setFont(lettering(16))
        self._edges.setWordWrap(True)
        words.addWidget(self._edges)
        words.addStretch(1)
        row.addLayout(words, 1)
        self._foot = foot
        box.addWidget(foot)

    def opened(self) -> None:
        self.square, self._shown = (0, 0), None
        drawn = set(self.commission.transfer.drawn)
        squares = self.commission.squares
        if squares is not None:
            self.square = next((s for s in squares.all if s not in drawn), (0, 0))

    def refresh(self) -> None:
        c = self.commission
        view = transfer_view(c, self.studio, self.square, self.flipped)
        self.view, self.square = view, view.chosen
        self._foot.setVisible(view.squares is not None)
        self.reference.waiting = "" if view.squares else "Choose the size and lay the crop at Compose first."
        for side in (self.reference, self.canvas):
            side.upside_down = self.flipped
            side.show_squares(view.squares, self.square, c.transfer.drawn)
        self.canvas.setVisible(view.squares is not None)
        self.canvas.ground = GROUNDS.get(c.tone.ground, GROUNDS["white"])
        self._name.setText(view.words)
        self._edges.setText("\n".join(view.small))
        if view.squares is None:
            self.reference.show_levels(None, (1, 1))
        else:
            self.close_up.upside_down = self.flipped
            self.workroom.pictures.reference(c, self._ready)
            self.close_up.show_area(view.squares.rect(*self.square))
        self.show_sheets(view.bench, view.choices)

    def _ready(self, shown: Shown) -> None:
        self._shown = shown
        size = (self.commission.compose.width_mm, self.commission.compose.height_mm)
        self.reference.show_levels(shown.levels, size)
        self.close_up.show_levels(shown.levels, size)
        if self.view and self.view.squares:
            self.close_up.show_area(self.view.squares.rect(*self.square))

    def _choose_square(self, column: int, row: int) -> None:
        self.square = (column, row)
        self.refresh()

    def mark(self) -> None:
        """Mark the chosen square drawn, or take the mark off, and step on to the next one."""
        if self.view is None or self.view.squares is None:
            return
        squares, square = self.view.squares, self.square
        drawn = square not in self.commission.transfer.drawn
        name = squares.name(*square)
        self._take_count(squares.count)
        label = f"Drew square {name}" if drawn else f"Square {name} is not drawn after all"
        self.desk.do_part(self.commission_id, label, "transfer", lambda t: mark_drawn(t, *square, drawn))
        if drawn:
            order = squares.all
            left = [s for s in (*order[order.index(square) :], *order) if s not in self.commission.transfer.drawn]
            self.square = left[0] if left else square
            self.refresh()

    def _take_count(self, count: int) -> None:
        if self.commission.transfer.count != count:
            label = f"{count} squares across the short side"
            self.desk.do_part(self.commission_id, label, "transfer", lambda t: set_count(t, count))

    def choose(self, key: str, value: str) -> None:
        self.flipped = value == "down"
        self.refresh()

    def change(self, key: str, value: object) -> None:
        if key == "count":
            self._take_count(int(float(str(value))))
        elif key == "paper":
            self.desk.do_part(self.commission_id, f"Paper: {value}", "transfer", lambda t: set_paper(t, value))  # type: ignore[arg-type]

    def sheet_bytes(self) -> bytes:
        """The PDF of the gridded reference and its measures; needs the reference on the table."""
        assert self._shown is not None and self.view is not None and self.view.squares is not None
        c = self.commission
        return squares_sheet(c.brief.title, self._shown.picture, self.view.squares, c.transfer.paper, self.studio.unit)

    def press(self, key: str) -> None:
        if key == "pdf" and self._shown is not None:
            self.save_file("Save the squares", f"{self.commission.brief.title} squares.pdf", ".pdf", self.sheet_bytes())

    def act(self) -> None:
        view = self.view
        if view is None or view.squares is None:
            self.workroom.open_door(self.commission_id, "Compose")
        elif not self.commission.transfer.count:
            self._take_count(view.squares.count)
        elif len(self.commission.transfer.drawn) < len(view.squares.all):
            self.mark()
        else:
            self.workroom.open_door(self.commission_id, "Tone")

    def key(self, event: QKeyEvent) -> bool:
        steps = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1)}
        step = steps.get(Qt.Key(event.key()))
        if self.view is None or self.view.squares is None:
            return False
        if step is not None:
            turn = -1 if self.flipped else 1  # the arrows follow what is seen
            s = self.view.squares
            column = min(max(0, self.square[0] + turn * step[0]), s.columns - 1)
            self._choose_square(column, min(max(0, self.square[1] + turn * step[1]), s.rows - 1))
        elif event.key() == Qt.Key.Key_Space:
            self.mark()
        elif event.text().lower() == "f":
            self.choose("flip", "upright" if self.flipped else "down")
        else:
            return False
        return True
