"""The deliver page: the way out, step by step."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QFontMetricsF, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QHBoxLayout, QWidget

from yarrow_lane.deliver.handover import (
    add_line,
    begin_rest,
    hand_over,
    look_again,
    mark_line,
    pack,
    pack_from,
    sign,
    step_now,
    varnish,
)
from yarrow_lane.documents.delivery_sheet import delivery_sheet
from yarrow_lane.ui.bench_sheet import ChoiceSheet
from yarrow_lane.ui.kit.reference_canvas import ReferenceCanvas
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.deliver.sheet import sheet_of
from yarrow_lane.ui.rooms.deliver.view import StepShown, deliver_view, earliest_varnish
from yarrow_lane.ui.theme.lettering import SERIF, lettering, px
from yarrow_lane.ui.theme.sheet import colours
from yarrow_lane.ui.workroom import Workroom


class StepsPainted(QWidget):
    """The steps down the page with their dates; the present one is lit."""

    def __init__(self) -> None:
        super().__init__()
        self.setMinimumWidth(px(290))
        self._steps: tuple[StepShown, ...] = ()

    def show_steps(self, steps: tuple[StepShown, ...]) -> None:
        self._steps = steps
        self.setAccessibleName("; ".join(f"{s.name}: {s.state} {s.date}" for s in steps))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        c = colours()
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(c.paper))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        height = min(px(112), (self.height() - px(24)) / max(1, len(self._steps)))
        for n, step in enumerate(self._steps):
            self._paint_step(painter, QRectF(px(24), px(12) + n * height, self.width() - px(44), height), step, n)
        painter.end()

    def _paint_step(self, painter: QPainter, row: QRectF, step: StepShown, n: int) -> None:
        c = colours()
        dot = QPointF(row.left() + px(14), row.top() + px(26))
        if n + 1 < len(self._steps):
            painter.setPen(QPen(QColor(c.soft), 2, Qt.PenStyle.SolidLine if step.state == "done" else Qt.PenStyle.DotLine))
            painter.drawLine(dot + QPointF(0, px(14)), dot + QPointF(0, row.height() - px(14)))
        fill = {"done": QColor(c.soft), "now": QColor(c.here), "ahead": QColor(c.paper)}[step.state]
        painter.setBrush(fill)
        painter.setPen(QPen(QColor(c.here_edge if step.state == "now" else c.soft), 2))
        painter.drawEllipse(dot, px(11), px(11))
        if step.state == "done":
            painter.setPen(QPen(QColor(c.paper), 2.4))
            painter.drawPolyline([dot + QPointF(-5, 0), dot + QPointF(-1, 4), dot + QPointF(5, -4)])
        x = row.left() + px(44)
        strong = step.state != "ahead"
        font = lettering(21, "bold", SERIF)
        painter.setFont(font)
        painter.setPen(QColor(c.text if strong else c.soft))
        painter.drawText(QPointF(x, row.top() + px(33)), step.name)
        name_w = QFontMetricsF(font).horizontalAdvance(step.name)
        dates = lettering(17, "bold")
        painter.setFont(dates)
        date_x = x + name_w + px(14)
        beside = date_x + QFontMetricsF(dates).horizontalAdvance(step.date) <= row.right()
        if beside:
            painter.drawText(QPointF(date_x, row.top() + px(33)), step.date)
        painter.setFont(lettering(15.5))
        painter.setPen(QColor(c.soft))
        room = QRectF(x, row.top() + px(40), row.right() - x, row.height() - px(40))
        detail = step.detail if beside else f"{step.date}: {step.detail}"
        painter.drawText(room, Qt.AlignmentFlag.AlignLeft | Qt.TextFlag.TextWordWrap, detail)


class DeliverPage(RoomPage):
    """Door 9."""

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.draft = ""
        self.reference = ReferenceCanvas("The portrait")
        self.steps = StepsPainted()
        row = QHBoxLayout(self.table)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addWidget(self.reference, 4)
        row.addWidget(self.steps, 5)

    def opened(self) -> None:
        self.draft = ""

    def refresh(self) -> None:
        c = self.commission
        view = deliver_view(c, self.studio, self.draft, self.workroom.now)
        self.reference.show_reference(self.workroom.pictures, c)
        self.steps.show_steps(view.steps)
        self.show_sheets(view.bench, ChoiceSheet())

    def change(self, key: str, value: object) -> None:
        if key == "line":
            self.draft = str(value)
        else:
            number = int(key.split()[1])
            self._edit("Marked a line of the last list", lambda d: mark_line(d, number, bool(value)))

    def press(self, key: str) -> None:
        if key == "sheet":
            c = self.commission
            data = delivery_sheet(sheet_of(c, self.studio), c.transfer.paper)
            self.save_file("Save the delivery sheet", f"{c.brief.title} delivery.pdf", ".pdf", data)
            return
        self.bench.store_pending()
        text, self.draft = self.draft, ""
        self._edit("Put a line on the last list", lambda d: add_line(d, text))
        self.refresh()

    def _edit(self, label: str, step: object) -> None:
        self.desk.do_part(self.commission_id, label, "deliver", step)  # type: ignore[arg-type]

    def act(self) -> None:
        c, now = self.commission, self.workroom.now
        match step_now(c.deliver, c.brief.medium):
            case "sign":
                self._edit("Signed it", lambda d: sign(d, now))
            case "rest" if c.deliver.rest_from is None:
                self._edit("Turned it to the wall", lambda d: begin_rest(d, now))
            case "rest":
                self._edit("Looked with fresh eyes", lambda d: look_again(d, now))
            case "varnish":
                earliest = earliest_varnish(c, self.studio)
                self._edit("Varnished, a thin coat", lambda d: varnish(d, now, earliest))
            case "pack":
                earliest = pack_from(c.deliver, c.brief.medium)
                self._edit("Packed it", lambda d: pack(d, now, earliest))
            case "deliver":
                self._edit("Delivered it", lambda d: hand_over(d, now))
