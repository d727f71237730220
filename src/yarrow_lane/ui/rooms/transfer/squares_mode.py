"""Squares: walk them, tick the crossings, mark them drawn, print the sheets."""

from dataclasses import replace
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.transfer.record import (
    TRANSFER,
    Transfer,
    mark_drawn,
    mark_several,
    minutes_left,
    set_count,
    set_quartered,
    squares_of,
    ways_of,
)
from yarrow_lane.transfer.squares import USUAL_COUNT, Square, Squares
from yarrow_lane.transfer.ways import Way
from yarrow_lane.ui.bench_sheet import Meaning, NextAct
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.plain import PlainLabel
from yarrow_lane.ui.kit.reference_view import show_reference
from yarrow_lane.ui.kit.tools import PointsTool
from yarrow_lane.ui.rooms.transfer.mode import Mode, Sheets
from yarrow_lane.ui.rooms.transfer.saving import save_png, save_sheets, save_svg
from yarrow_lane.ui.rooms.transfer.squares_view import Shown, SquaresView, quartered_of, squares_view
from yarrow_lane.ui.rooms.transfer.way_lines import about_words, parts_by, way_section
from yarrow_lane.ui.theme.lettering import SERIF, lettering, px

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.transfer.page import TransferPage

_STEPS = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1)}


class SquaresMode(Mode):
    """The reference and the bare canvas under the same squares; below them the square that is drawn now."""

    name = "squares"

    def __init__(self, page: "TransferPage") -> None:
        super().__init__(page)
        self.shown = Shown((0, 0))
        self.frame = page.frame
        self.reference = PictureView("Reference", self.frame, margin_px=30)
        self.canvas = PictureView("Your canvas", self.frame, margin_px=30)
        self.close_up = PictureView("The chosen square, enlarged", margin_px=0)
        self.close_canvas = PictureView("The same square on the canvas", margin_px=0)
        for view in (self.close_up, self.close_canvas):
            view.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.tool = PointsTool(lambda _: None, self._clicked)
        self.reference.tool = self.canvas.tool = self.tool
        self.picture = self.reference
        self.view: SquaresView | None = None
        self._build()

    def _build(self) -> None:
        box = QVBoxLayout(self.widget)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        pair = QHBoxLayout()
        pair.setSpacing(0)
        pair.addWidget(self.reference, 1)
        pair.addWidget(self.canvas, 1)
        box.addLayout(pair, 2)
        foot = QWidget()
        foot.setObjectName("choices")
        foot.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        row = QHBoxLayout(foot)
        row.setContentsMargins(0, 0, px(14), 0)
        row.setSpacing(px(10))
        row.addWidget(self.close_up, 5)
        row.addWidget(self.close_canvas, 5)
        words = QVBoxLayout()
        words.setContentsMargins(0, px(10), 0, px(8))
        words.setSpacing(px(3))
        self.heading, self.edges, self.sides, self.places = PlainLabel(), PlainLabel(), PlainLabel(), PlainLabel()
        self.heading.setFont(lettering(20, "bold", SERIF))
        self.edges.setFont(lettering(13))
        self.sides.setFont(lettering(13.5))
        self.places.setFont(lettering(13.5, "bold"))
        for label in (self.heading, self.edges):
            label.setWordWrap(True)
            words.addWidget(label)
        crossing = QHBoxLayout()
        crossing.setSpacing(px(10))
        for label in (self.sides, self.places):
            label.setAlignment(Qt.AlignmentFlag.AlignTop | Qt.AlignmentFlag.AlignLeft)
            crossing.addWidget(label)
        crossing.addStretch(1)
        words.addLayout(crossing)
        words.addStretch(1)
        row.addLayout(words, 6)
        box.addWidget(foot, 1)

    def opened(self) -> None:
        drawn = set(self.page.commission.transfer.drawn)
        squares = squares_of(self.page.commission.compose, self.page.commission.transfer)
        first = next((s for s in squares.all if s not in drawn), (0, 0)) if squares is not None else (0, 0)
        self.shown = Shown(first, helps=self.shown.helps)

    def begin(self, way: Way) -> None:
        # Where squares carry all of it the yellow field of the room has named them: coming here takes them.
        transfer = self.page.commission.transfer
        if ways_of(transfer).one == "squares" and not transfer.count:
            self._take_count(USUAL_COUNT)

    @property
    def square(self) -> Square:
        """The chosen one: column, row."""
        return self.shown.square

    def refresh(self) -> Sheets:
        page = self.page
        c = page.commission
        self.shown = replace(self.shown, flips=self.frame.flips)
        view = squares_view(c, page.studio, self.shown, page.lines, page.places(), self)
        self.view, self.shown = view, replace(self.shown, square=view.chosen)
        act = self._act(view)
        self.heading.setText(view.words)
        self.edges.setText(" · ".join(view.small))
        self.sides.setText("\n".join(edge for edge, _ in view.edges))
        self.places.setText("\n".join(place for _, place in view.edges))
        ground = self.page.ground
        size = (c.compose.width_mm, c.compose.height_mm)
        self.tool.area = Rect(0, 0, *size)
        for picture in (self.reference, self.close_up):
            show_reference(picture, page.workroom.references, c.compose, page)
        for picture in (self.canvas, self.close_canvas):
            picture.ground = ground
            picture.show_levels(None, size)
        self.reference.show_overlays(*view.on_reference)
        self.canvas.show_overlays(*view.on_canvas)
        self.close_up.show_overlays(*view.close_up)
        self.close_canvas.show_overlays(*view.close_canvas)
        rect = view.squares.rect(*self.square)
        for close in (self.close_up, self.close_canvas):
            close.frame.turn(upside_down=self.frame.upside_down, mirrored=self.frame.mirrored)
            close.fit(rect)
        remark = "arrows walk · Space marks drawn · Q quarters · F turns both"
        ways = ways_of(c.transfer)
        # Where squares carry all of it they are marked one by one, and nothing else is to be said.
        own = () if ways.one == "squares" or not ways.chosen else (way_section(page, "squares"),)
        return Sheets((*own, *view.sections), self.page.way_switches(), act, remark)

    def _act(self, view: SquaresView) -> NextAct:
        page, transfer = self.page, self.page.commission.transfer
        ways = ways_of(transfer)
        squares, name = view.squares, view.squares.name(*self.square)
        if not ways.chosen or (parts_by(page, "squares") and not transfer.count):
            words = f"{len(squares.all)} squares, about {hours_text(minutes_left(squares, transfer))}"
            return NextAct(f"Take {squares.columns} × {squares.rows} squares", words, self._do_next)
        if ways.one == "squares":
            act = page.next_act(self._do_next)
            if act.do == self._do_next and transfer.count:
                act = replace(act, title=f"Draw square {name}", detail=f"Enter marks it drawn · {act.detail}")
            return act
        if parts_by(page, "squares"):
            words = f"Enter marks it drawn · for {about_words(parts_by(page, 'squares'))}"
            return NextAct(f"Draw square {name}", words, self._do_next)
        return page.way_act()

    # --- squares

    def _clicked(self, point: Point) -> None:
        if self.view is not None:
            s = self.view.squares
            self._choose(min(int(point[0] // s.side_mm), s.columns - 1), min(int(point[1] // s.side_mm), s.rows - 1))

    def _choose(self, column: int, row: int) -> None:
        self.shown = replace(self.shown, square=(column, row))
        self.page.refresh()

    def mark(self) -> None:
        """Mark the chosen square drawn, or take the mark off, and step on to the next one."""
        if self.view is None:
            return
        squares, page = self.view.squares, self.page
        square, name = self.square, squares.name(*self.square)
        drawn = square not in page.commission.transfer.drawn
        self._take_count(squares.count)
        label = f"Drew square {name}" if drawn else f"Square {name} is not drawn after all"
        now = page.workroom.now
        page.take(Edit(TRANSFER, label, lambda t: mark_drawn(t, *square, drawn, now)))
        if drawn:
            self._go_on_from(squares, square)

    def _go_on_from(self, squares: Squares, square: Square) -> None:
        order = squares.all
        left = [s for s in (*order[order.index(square) :], *order) if s not in self.page.commission.transfer.drawn]
        self._choose(*(left[0] if left else square))

    def _take_count(self, count: int) -> None:
        if self.page.commission.transfer.count != count:
            self.page.take(Edit(TRANSFER, f"{count} squares across the short side", lambda t: set_count(t, count)))

    def _do_next(self) -> Meaning:
        if self.view is not None and not self.page.commission.transfer.count:
            self._take_count(self.view.squares.count)
        else:
            self.mark()
        return None

    def _several(self, label: str, wanted: tuple[Square, ...]) -> Meaning:
        if self.view is None:
            return None
        squares = self.view.squares
        self._take_count(squares.count)
        self.page.take(Edit(TRANSFER, label, lambda t: mark_several(t, wanted)))
        self._go_on_from(squares, self.square)
        return None

    def mark_row(self) -> Meaning:
        """The whole row of the chosen square is drawn."""
        assert self.view is not None
        row = self.square[1]
        return self._several(f"Row {row + 1} is drawn", tuple(s for s in self.view.squares.all if s[1] == row))

    def mark_up_to_here(self) -> Meaning:
        """All squares before the chosen one, row by row, and it are drawn."""
        assert self.view is not None
        order = self.view.squares.all
        name = self.view.squares.name(*self.square)
        return self._several(f"All up to {name} is drawn", order[: order.index(self.square) + 1])

    def quarter(self) -> Meaning:
        """Rule the chosen square finer, or not."""
        if self.view is None:
            return None
        squares, square = self.view.squares, self.square
        before = quartered_of(self.page.commission, squares, self.page.places(), self.page.lines or ())
        after = tuple(s for s in before if s != square) if square in before else (*before, square)
        name = squares.name(*square)

        def step(transfer: Transfer) -> Transfer:
            return set_quartered(transfer, after)

        return Edit(TRANSFER, f"Square {name} is {'not ' if square in before else ''}quartered", step)

    def show(self, what: str, wanted: bool) -> Meaning:
        """One of the helps laid over, or taken off."""
        helps = self.shown.helps | {what} if wanted else self.shown.helps - {what}
        self.shown = replace(self.shown, helps=helps)
        self.page.refresh()
        return None

    # --- on paper

    def save_sheets(self) -> None:
        """The squared reference, its lines and every measure, as PDF."""
        if self.view is not None:
            save_sheets(self.page, self.view.squares)

    def save_svg(self) -> None:
        """Squares and lines at true size."""
        if self.view is not None:
            save_svg(self.page, self.view.squares, self.page.lines or ())

    def save_png(self) -> None:
        """The squared reference at print resolution."""
        if self.view is not None:
            save_png(self.page, self.view.squares)

    def key(self, event: QKeyEvent) -> bool:
        step = _STEPS.get(Qt.Key(event.key()))
        if self.view is None:
            return False
        squares = self.view.squares
        if step is not None:
            across, down = (-1 if flip else 1 for flip in self.frame.flips)  # the arrows follow what is seen
            column = min(max(0, self.square[0] + across * step[0]), squares.columns - 1)
            self._choose(column, min(max(0, self.square[1] + down * step[1]), squares.rows - 1))
        elif event.key() == Qt.Key.Key_Space:
            self.mark()
        elif event.text().lower() == "q":
            meaning = self.quarter()
            if meaning is not None:
                self.page.take(meaning)
        else:
            return False
        return True
