"""The easel page: paint, not think about the next step."""

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QHideEvent, QKeyEvent, QShowEvent
from PySide6.QtWidgets import QVBoxLayout

from yarrow_lane.easel.clock import Happening, running
from yarrow_lane.easel.session import choose_pass, finish_pass
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.easel.card import CardWords, RegionShown
from yarrow_lane.ui.rooms.easel.view import EaselView, easel_view
from yarrow_lane.ui.workroom import Workroom


class EaselPage(RoomPage):
    """Door 7."""

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.correction, self.why = 0.0, ""
        self.place = RegionShown()
        self.words = CardWords()
        box = QVBoxLayout(self.table)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addWidget(self.place, 1)
        box.addWidget(self.words)
        self._tick = QTimer(self)
        self._tick.setInterval(1000)
        self._tick.timeout.connect(self._second)
        self.view: EaselView | None = None

    def opened(self) -> None:
        self.correction, self.why = 0.0, ""

    def refresh(self) -> None:
        c = self.commission
        view = easel_view(c, self.studio, self.workroom.now, self.correction, self.why)
        self.view = view
        self.place.show_reference(self.workroom.pictures, c)
        self.place.show_region(view.region)
        self.words.show_view(view)
        self.show_sheets(view.bench, view.choices)

    def _second(self) -> None:
        # While nothing runs only drying changes with time; once a second costs nothing either way.
        if self.commission_id:
            self.refresh()

    def showEvent(self, event: QShowEvent) -> None:
        self._tick.start()

    def hideEvent(self, event: QHideEvent) -> None:
        self._tick.stop()

    # --- the clock

    def start_or_stop(self) -> None:
        """Space: the clock starts on the pass shown, or stops."""
        view, now = self.view, self.workroom.now
        started = running(self.commission.log)
        if started is not None:
            self.desk.happen(self.commission_id, Happening("clock stopped", now, started.about, started.title))
        elif view is not None and view.paint is not None:
            self.desk.happen(self.commission_id, Happening("clock started", now, view.paint.id, view.paint.title))

    def finish(self) -> None:
        """Enter: the pass is painted; a running clock stops with it."""
        view, now = self.view, self.workroom.now
        if view is None or view.paint is None:
            return
        paint = view.paint
        if running(self.commission.log) is not None:
            self.start_or_stop()
        self.desk.do_part(self.commission_id, f"Finished {paint.title}", "easel", lambda e: finish_pass(e, paint, now))

    def change(self, key: str, value: object) -> None:
        if key == "pass":
            self.desk.do_part(self.commission_id, "Chose what to paint", "easel", lambda e: choose_pass(e, str(value)))
        elif key == "correction":
            self.correction = float(str(value))
            self.refresh()
        elif key == "why":
            self.why = str(value)

    def press(self, key: str) -> None:
        paint = self.view.paint if self.view else None
        about, title = (paint.id, paint.title) if paint else ("", self.commission.brief.title)
        minutes, why = self.correction, self.why
        self.correction, self.why = 0.0, ""
        self.desk.happen(
            self.commission_id, Happening("hours corrected", self.workroom.now, about, title, minutes, why)
        )  # fmt: skip

    def act(self) -> None:
        view = self.view
        if view is None or view.paint is None:
            self.workroom.open_door(self.commission_id, "Check" if self.commission.layers.regions else "Layers")
        elif view.running:
            self.finish()
        else:
            self.start_or_stop()

    def key(self, event: QKeyEvent) -> bool:
        if event.key() == Qt.Key.Key_Space:
            self.start_or_stop()
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            # Finishing is Enter's meaning here, with or without the clock.
            self.finish() if self.view and self.view.paint else self.act()
        elif event.text().lower() == "z":
            self.place.toggle_whole()
        else:
            return False
        return True
