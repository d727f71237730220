"""The transfer page: walk the squares, mark them drawn, print the sheets."""

from dataclasses import replace

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from yarrow_lane.compose.reference import reference_key, working_px_per_mm
from yarrow_lane.documents.print_plan import PRINT_PX_MM, plan_print
from yarrow_lane.lane.happening import Printed
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.measure.progress import Progress
from yarrow_lane.tone.three_values import GROUNDS
from yarrow_lane.transfer.squares import TRANSFER, mark_drawn, set_count, squares_of
from yarrow_lane.ui.bench_sheet import Meaning
from yarrow_lane.ui.kit.frame import Frame
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.plain import PlainLabel
from yarrow_lane.ui.kit.reference_view import NO_CROP, show_reference
from yarrow_lane.ui.kit.tools import PointsTool
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.transfer.view import TransferView, transfer_view
from yarrow_lane.ui.theme.lettering import SERIF, lettering, px
from yarrow_lane.ui.workroom import Workroom

_STEPS = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1)}


class TransferPage(RoomPage):
    """Door 3."""

    door = "Transfer"

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.square = (0, 0)
        self.frame = Frame()
        self.reference = PictureView("Reference", self.frame, margin_px=30)
        self.canvas = PictureView("Your canvas", self.frame, margin_px=30)
        self.close_up = PictureView("The chosen square, enlarged", margin_px=0)
        self.close_up.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.tool = PointsTool(lambda _: None, self._clicked)
        self.reference.tool = self.canvas.tool = self.tool
        self.picture = self.reference
        self.view: TransferView | None = None
        self._build()

    def _build(self) -> None:
        box = QVBoxLayout(self.table)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        pair = QHBoxLayout()
        pair.setSpacing(0)
        pair.addWidget(self.reference, 1)
        pair.addWidget(self.canvas, 1)
        box.addLayout(pair, 3)
        self._foot = QWidget()
        self._foot.setObjectName("bench")
        self._foot.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        row = QHBoxLayout(self._foot)
        row.setContentsMargins(0, 0, px(14), 0)
        row.setSpacing(px(18))
        row.addWidget(self.close_up, 3)
        words = QVBoxLayout()
        words.setContentsMargins(0, px(14), 0, px(10))
        words.setSpacing(px(4))
        self.name, self.edges = PlainLabel(), PlainLabel()
        self.name.setFont(lettering(24, "bold", SERIF))
        self.edges.setFont(lettering(16))
        for label in (self.name, self.edges):
            label.setWordWrap(True)
            words.addWidget(label)
        words.addStretch(1)
        row.addLayout(words, 2)
        box.addWidget(self._foot, 2)

    def opened(self) -> None:
        self.square = (0, 0)
        drawn = set(self.commission.transfer.drawn)
        squares = squares_of(self.commission.compose, self.commission.transfer)
        if squares is not None:
            self.square = next((s for s in squares.all if s not in drawn), (0, 0))

    def refresh(self) -> None:
        c = self.commission
        act = self.next_act(self._do_next)
        squares = squares_of(c.compose, c.transfer)
        if act.do == self._do_next and squares is not None:
            act = replace(act, title=f"Draw square {squares.name(*self.square)}", detail=f"Enter marks it drawn · {act.detail}")
        view = transfer_view(c, self.studio, self.square, self.frame.upside_down, self, act)
        self.view, self.square = view, view.chosen
        self._foot.setVisible(view.squares is not None)
        self.canvas.setVisible(view.squares is not None)
        self.name.setText(view.words)
        self.edges.setText("\n".join(view.small))
        self.reference.waiting = NO_CROP
        self.canvas.ground = GROUNDS.get(c.tone.ground, GROUNDS["white"]) if view.squares else None
        show_reference(self.reference, self.workroom.references, c.compose, self)
        show_reference(self.close_up, self.workroom.references, c.compose, self)
        if view.squares is not None:
            size = (c.compose.width_mm, c.compose.height_mm)
            self.canvas.show_levels(None, size)
            self.tool.area = Rect(0, 0, *size)
            self.reference.show_overlays(*view.on_reference)
            self.canvas.show_overlays(*view.on_canvas)
            self.close_up.show_overlays(*view.close_up)
            self.close_up.frame.turn(upside_down=self.frame.upside_down)
            self.close_up.fit(view.squares.rect(*self.square))
        self.show_sheets(view.bench, view.choices)

    # --- squares

    def _clicked(self, point: Point) -> None:
        s = self.view.squares if self.view else None
        if s is not None:
            self._choose(min(int(point[0] // s.side_mm), s.columns - 1), min(int(point[1] // s.side_mm), s.rows - 1))

    def _choose(self, column: int, row: int) -> None:
        self.square = (column, row)
        self.refresh()

    def mark(self) -> None:
        """Mark the chosen square drawn, or take the mark off, and step on to the next one."""
        squares = self.view.squares if self.view else None
        if squares is None:
            return
        square, name = self.square, squares.name(*self.square)
        drawn = square not in self.commission.transfer.drawn
        self._take_count(squares.count)
        label = f"Drew square {name}" if drawn else f"Square {name} is not drawn after all"
        self.take(Edit(TRANSFER, label, lambda t: mark_drawn(t, *square, drawn)))
        if drawn:
            order = squares.all
            left = [s for s in (*order[order.index(square) :], *order) if s not in self.commission.transfer.drawn]
            self.square = left[0] if left else square
            self.refresh()

    def _take_count(self, count: int) -> None:
        if self.commission.transfer.count != count:
            self.take(Edit(TRANSFER, f"{count} squares across the short side", lambda t: set_count(t, count)))

    def _do_next(self) -> Meaning:
        squares = self.view.squares if self.view else None
        if squares is None:
            self.go_to("Compose")
        elif not self.commission.transfer.count:
            self._take_count(squares.count)
        else:
            self.mark()
        return None

    def flip(self, way: str) -> None:
        """Both pictures upright or upside down."""
        self.frame.turn(upside_down=way == "down")
        self.refresh()

    # --- the sheets

    def save_sheets(self) -> None:
        """Ask where the gridded reference and its measures go; they are written beside the window's own work."""
        c, unit = self.commission, self.studio.unit
        squares = self.view.squares if self.view else None
        if squares is None:
            return
        path = self.choose_file("Save the squares", f"{c.brief.title} squares", ".pdf")
        if path is None:
            return
        plan = plan_print(squares, c.transfer.paper)
        px_per_mm = min(PRINT_PX_MM * plan.scale, working_px_per_mm(c.compose, 1_000_000))

        def work(progress: Progress) -> bytes:
            from yarrow_lane.documents.squares_sheet import squares_sheet  # reportlab is loaded with the first document

            picture = self.workroom.references.for_print(c.compose, c.compose.canvas, px_per_mm, progress)
            return squares_sheet(c.brief.title, picture, squares, c.transfer.paper, unit)

        def done(data: bytes) -> None:
            self.workroom.write_file(path, data)
            printed = Printed(self.workroom.now, f"squares on {c.transfer.paper}", reference_key(c.compose))
            self.desk.happen(c.id, printed, "Transfer")
            self.workroom.say(f"Written to {path}.", False)

        self.workroom.works.run("Writing the sheets", work, done)

    def key(self, event: QKeyEvent) -> bool:
        step = _STEPS.get(Qt.Key(event.key()))
        squares = self.view.squares if self.view else None
        if squares is None:
            return False
        if step is not None:
            way = -1 if self.frame.upside_down else 1  # the arrows follow what is seen
            column = min(max(0, self.square[0] + way * step[0]), squares.columns - 1)
            self._choose(column, min(max(0, self.square[1] + way * step[1]), squares.rows - 1))
        elif event.key() == Qt.Key.Key_Space:
            self.mark()
        elif event.text().lower() == "f":
            self.flip("upright" if self.frame.upside_down else "down")
        else:
            return False
        return True
