"""The easel page: paint, not think about the next step."""

from dataclasses import replace

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QHideEvent, QKeyEvent, QShowEvent
from PySide6.QtWidgets import QVBoxLayout

from yarrow_lane.commission.standing import passes_in
from yarrow_lane.easel.clock import TimeEntry, minutes_logged, running, stopped
from yarrow_lane.easel.session import EASEL, finish_pass, pass_meanwhile, pass_now
from yarrow_lane.lane.happening import ClockStarted, HoursCorrected, StretchSettled
from yarrow_lane.lane.part import Edit
from yarrow_lane.layers.passes import Pass
from yarrow_lane.ui.bench_sheet import ChoiceSheet, Meaning
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import show_reference
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.easel.card import CardWords
from yarrow_lane.ui.rooms.easel.view import EaselView, area_round, chosen, easel_view, shown_round
from yarrow_lane.ui.workroom import Workroom

LEAST_MIN = 1.0  # our choice: a clock that ran for less was not what the painting took


class EaselPage(RoomPage):
    """Door 7."""

    door = "Easel"

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.correction, self.why = 0.0, ""
        self.took: float | None = None
        self.whole = False
        self.place = PictureView("Where to paint")
        self.picture = self.place
        self.words = CardWords()
        box = QVBoxLayout(self.table)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addWidget(self.place, 1)
        box.addWidget(self.words)
        self._tick = QTimer(self)
        self._tick.setInterval(1000)
        self._tick.timeout.connect(workroom.guard.guarded(self._second))
        self._aimed: object = None
        self.view: EaselView | None = None

    def opened(self) -> None:
        self.correction, self.why, self.took, self.whole, self._aimed = 0.0, "", None, False, None

    def refresh(self) -> None:
        c = self.commission
        act = self.next_act(self._begin)
        if act.do == self._begin and self._to_begin() is not None:
            act = replace(act, detail=f"Enter starts the clock · {act.detail}")
        view = easel_view(c, self.studio, self.workroom.now, self.correction, self.why, self.took, self, act)
        self.view = view
        show_reference(self.place, self.workroom.references, c.compose, self, lambda _: self._aim(True))
        self.place.show_overlays(*shown_round(view.region))
        self._aim(False)
        self.words.show_view(view)
        self.show_sheets(view.bench, ChoiceSheet())

    def _aim(self, again: bool) -> None:
        """Enlarge to the region being painted, or to the whole."""
        region = self.view.region if self.view else None
        aimed = (region, self.whole)
        if again or aimed != self._aimed:
            self._aimed = aimed
            self.place.fit(None if region is None or self.whole else area_round(region, self.commission.compose.canvas))

    def _second(self) -> None:
        # While nothing runs only drying changes with time; once a second costs nothing either way.
        if self.commission_id:
            self.refresh()

    def showEvent(self, event: QShowEvent) -> None:
        self._tick.start()

    def hideEvent(self, event: QHideEvent) -> None:
        self._tick.stop()
        super().hideEvent(event)

    # --- the clock

    def start(self) -> None:
        """The clock starts on the pass shown."""
        paint = self.view.paint if self.view else None
        if paint is not None and running(self.commission.log) is None:
            self.desk.happen(self.commission_id, ClockStarted(self.workroom.now, paint.id, paint.title))

    def start_or_stop(self) -> None:
        """Space: the clock starts on the pass shown, or stops."""
        stop = stopped(self.commission.log, self.workroom.now)
        if stop is not None:
            self.desk.happen(self.commission_id, stop)
        else:
            self.start()

    def finish(self) -> None:
        """The pass is painted; a running clock stops with it. One whose clock hardly ran asks for its minutes first."""
        paint, now = self.view.paint if self.view else None, self.workroom.now
        if paint is None:
            return
        if running(self.commission.log) is not None:
            self.start_or_stop()
        if self.took is None and minutes_logged(self.commission.log, paint.id) < LEAST_MIN:
            self.ask_minutes(paint.minutes)
            return
        if self.took:
            about = HoursCorrected(now, paint.id, paint.title, self.took, "painted without the clock")
            self.desk.happen(self.commission_id, about)
        self.took = None
        self.take(Edit(EASEL, f"Finished {paint.title}", lambda e: finish_pass(e, paint, now)))

    def ask_minutes(self, minutes: float) -> None:
        """How long it took, as it stands in the field."""
        self.took = minutes
        self.refresh()

    def _to_begin(self) -> Pass | None:
        """The pass the yellow field starts: the one shown, or while that waits the first that does not."""
        c, now = self.commission, self.workroom.now
        passes = passes_in(c, self.studio.climate)
        return pass_meanwhile(c.easel, passes, now) or pass_now(c.easel, passes, now)

    def _begin(self) -> Meaning:
        paint = self._to_begin()
        if paint is None:
            self.go_to("Layers")
            return None
        if self.view is None or self.view.paint is None or self.view.paint.id != paint.id:
            self.take(chosen(paint.id))
        self.start()
        return None

    # --- hours

    def set_correction(self, minutes: float) -> None:
        self.correction = minutes
        self.refresh()

    def write_why(self, why: str) -> None:
        self.why = why

    def correct(self) -> None:
        """Write the correction down; it happened outside and is never undone."""
        self.bench.store_pending()
        paint = self.view.paint if self.view else None
        about, title = (paint.id, paint.title) if paint else ("", self.commission.brief.title)
        minutes, why = self.correction, self.why
        self.correction, self.why = 0.0, ""
        self.desk.happen(self.commission_id, HoursCorrected(self.workroom.now, about, title, minutes, why))

    def settle(self, stretch: TimeEntry, minutes: float) -> None:
        """The painter says what a stretch in doubt counts."""
        happening = StretchSettled(self.workroom.now, stretch.about, stretch.title, stretch.start, minutes)
        self.desk.happen(self.commission_id, happening)

    def key(self, event: QKeyEvent) -> bool:
        if event.key() == Qt.Key.Key_Escape and self.took is not None:
            self.took = None
            self.refresh()
        elif event.key() == Qt.Key.Key_Space:
            self.start_or_stop()
        elif event.text().lower() == "z":
            self.whole = not self.whole
            self._aim(False)
        else:
            return False
        return True
