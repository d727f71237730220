"""The easel page: paint, not think about the next step."""

from dataclasses import replace
from datetime import datetime
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QHideEvent, QKeyEvent, QShowEvent
from PySide6.QtWidgets import QFileDialog, QStackedWidget, QVBoxLayout

from yarrow_lane.check.record import ToMend
from yarrow_lane.commission.last_list import mended, to_mend_now
from yarrow_lane.commission.recompose import Proposal, Recomposed
from yarrow_lane.commission.standing import passes_in
from yarrow_lane.desk.touch import touch
from yarrow_lane.easel.clock import TimeEntry, clock_face, minutes_logged, running, stopped
from yarrow_lane.easel.session import EASEL, finish_pass, pass_to_begin
from yarrow_lane.lane.happening import ClockStarted, HoursCorrected, Photographed, StretchSettled, of_kind
from yarrow_lane.lane.part import Edit
from yarrow_lane.layers.passes import Pass
from yarrow_lane.measure.late import late
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.words import begun
from yarrow_lane.paint.drying import deficit_hpa
from yarrow_lane.tone.grounds import ground_srgb
from yarrow_lane.ui.bench_sheet import ChoiceSheet, Meaning, Switch
from yarrow_lane.ui.file_words import ENDINGS
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import show_reference
from yarrow_lane.ui.messages import MessageStrip
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.easel.card import CardWords
from yarrow_lane.ui.rooms.easel.mending import line_now, mending_view
from yarrow_lane.ui.rooms.easel.pace_plot import PacePlot, PlotView, pace_plot
from yarrow_lane.ui.rooms.easel.stand_hands import StandHands
from yarrow_lane.ui.rooms.easel.view import EaselView, chosen, easel_view, minutes_at
from yarrow_lane.ui.workroom import Workroom

if TYPE_CHECKING:
    from yarrow_lane.standins import easel_photo
else:
    easel_photo = late("yarrow_lane.standins.easel_photo")

_NOWHERE = "nowhere yet"  # None is the whole canvas
LEAST_MIN = 1.0  # our choice: a clock that ran for less was not what the painting took


class EaselPage(RoomPage):
    """Door 7."""

    door = "Easel"

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.correction, self.why = 0.0, ""
        self.took: float | None = None
        self.mending = ""
        self._minute: datetime | None = None  # that is shown
        self.whole = False
        self.place = PictureView("Where to paint")
        self.picture = self.place
        self.words = CardWords()
        box = QVBoxLayout(self.table)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        self.look = "place"
        self.plot = PacePlot()
        self._stack = QStackedWidget()
        self._stack.addWidget(self.place)
        self._stack.addWidget(self.plot)
        box.addWidget(self._stack, 1)
        box.addWidget(self.words)
        self._tick = QTimer(self)
        self._tick.setInterval(1000)
        self._tick.timeout.connect(workroom.guard.guarded(self._second))
        self._aimed: object = _NOWHERE
        self.view: EaselView | None = None
        self._hands: StandHands | None = None

    @property
    def hands(self) -> StandHands:
        """What the stand does."""
        if self._hands is None:
            self._hands = StandHands(self)
        return self._hands

    def look_at(self, what: str) -> None:
        """The place to paint, or own pace."""
        self.look = what
        self.refresh()

    def _pace_plot(self, now: datetime) -> PlotView:
        standings = self.desk.standings
        safe, guessed = standings.outlook(self.commission_id, now).safe, standings.safe_by_first_guess(self.commission_id, now)
        return pace_plot(standings.logged(now).passes, standings.pace(now), safe, guessed)

    def feel(self, pass_id: str, dry: bool) -> None:
        """A film was touched."""
        self.workroom.say(begun(self.touch(pass_id, dry)), False)
        self.refresh()

    def choose_photo(self) -> None:
        """Ask for a photograph of the canvas."""
        name, _ = QFileDialog.getOpenFileName(self, "File a photograph of the canvas", str(Path.home()), ENDINGS)
        if name:
            self.take_files([Path(name)])

    def takes_files(self) -> bool:
        """A photograph dropped at the easel shows the canvas."""
        return bool(self.commission.easel.finished) or running(self.commission.log) is not None

    def take_files(self, paths: list[Path]) -> None:
        """A photograph of the canvas is filed to the pass that is painted."""
        for path in paths:
            self._file(path, path.name)

    def take_stand_in(self) -> None:
        """The camera that is none looks at the canvas as far as it is painted."""
        c = self.commission
        passes = passes_in(c, self.studio.climate)
        share = len(c.easel.finished) / max(1, len(passes))
        size, ground, number = (
            (c.compose.width_mm, c.compose.height_mm),
            ground_srgb(c.tone.ground),
            len(of_kind(c.log, Photographed)),
        )

        def make(progress: Progress) -> bytes:
            painting = self.workroom.references.for_print(c.compose, c.compose.canvas, 1.0, progress)
            return easel_photo.photograph_of_painting(size, ground, painting, share, number)

        self.workroom.works.run("The camera stand-in", make, lambda data: self._file(data, f"camera stand-in {number + 1}.jpg"))

    def _file(self, source: Path | bytes, name: str) -> None:
        paint, commission_id = self.view.paint if self.view else None, self.commission_id
        about = paint.id if paint is not None else ""

        def work(progress: Progress) -> str:
            return str(self.workroom.photographs.keep_picture(source, name, progress)[0])

        def done(photo_id: str) -> None:
            self.desk.happen(commission_id, Photographed(self.workroom.now, photo_id, name, about=about))
            title = paint.title if paint is not None else "the painting"
            self.workroom.say(f"“{name}” is filed to {title}.", False)

        self.workroom.works.run(f"Reading {name}", work, done)

    def open_stand(self) -> None:
        """The whole window for painting; Esc comes back."""
        if self.view is not None and self.view.mend is not None:
            self.workroom.say("The stand shows passes; a place to mend is shown here.", False)
            return
        self.hands.open()

    def said_behind(self) -> str:
        """What the window says beneath the stand, in words; "" for nothing."""
        strip = self.window().findChild(MessageStrip)
        return strip.text if strip is not None and not strip.isHidden() else ""

    def workroom_hand(self) -> None:
        """The painter is here: the clock is not taken for forgotten."""
        self.hand_seen.emit()

    def touch(self, pass_id: str, dry: bool) -> str:
        """A film was touched: what is said of it, the record and the room's factor with it."""
        return touch(self.desk, self.commission_id, pass_id, self.workroom.now, dry)

    def opened(self) -> None:
        self.correction, self.why, self.took, self.whole, self._aimed = 0.0, "", None, False, _NOWHERE

    def refresh(self) -> None:
        c = self.commission
        act = self.next_act(self._begin)
        if act.do == self._begin and self._to_begin() is not None:
            act = replace(act, detail=f"Enter starts the clock · {act.detail}")
        now = self.workroom.now
        self._minute = now.replace(second=0, microsecond=0)
        pace = self.desk.standings.pace(now)
        paint = self._to_begin()
        own = pace.likely(paint.family, paint.minutes, c.id) if paint is not None else 0.0
        view = easel_view(self.seen, self.studio, now, self.correction, self.why, self.took, self, act, own)
        lines = to_mend_now(c)
        if view.paint is None and lines:
            line = line_now(c, lines, self.mending)
            view = mending_view(self.seen, line, lines, now, self.correction, self.why, self, self.choose_mend)
        self.view = view
        show_reference(self.place, self.workroom.references, c.compose, self, lambda _: self._aim(True))
        self.place.show_overlays(*view.marks)
        self._aim(False)
        self.words.show_view(view)
        looks = (("place", "the place to paint"), ("pace", "your pace"))
        switches = (Switch("Look at", looks, self.look_at, self.look),) if c.layers.regions else ()
        if self.look == "pace":
            self.plot.show_plot(self._pace_plot(now))
        self._stack.setCurrentIndex(1 if self.look == "pace" else 0)
        self.show_sheets(view.bench, ChoiceSheet(switches))

    def _aim(self, again: bool) -> None:
        """Enlarge to the region being painted, or to the whole."""
        area = self.view.area(self.commission.compose.canvas) if self.view is not None and not self.whole else None
        if again or area != self._aimed:
            self._aimed = area
            self.place.fit(area)

    def _second(self) -> None:
        now = self.workroom.now
        if self._hands is not None and self._hands.is_open:
            self._hands.refresh()
        elif self.commission_id and (self.view is None or now.replace(second=0, microsecond=0) != self._minute):
            self.refresh()  # drying and waits are told by the minute
        elif self.commission_id and self.view is not None and self.view.running and self.view.work is not None:
            clock = clock_face(minutes_at(self.commission.log, self.view.work[0], now))
            self.words.show_view(replace(self.view, clock=clock))

    def showEvent(self, event: QShowEvent) -> None:
        self._tick.start()

    def hideEvent(self, event: QHideEvent) -> None:
        self._tick.stop()
        super().hideEvent(event)

    def left(self) -> None:
        if self._hands is not None:
            self._hands.left()
        super().left()

    # --- the clock

    def start(self) -> None:
        """The clock starts on the pass shown."""
        work = self.view.work if self.view else None
        if work is not None and running(self.commission.log) is None:
            self.desk.happen(self.commission_id, ClockStarted(self.workroom.now, *work))

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
        if self.view is not None and self.view.mend is not None:
            self._mended(self.view.mend)
            return
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
        self.take(
            Edit(EASEL, f"Finished {paint.title}", lambda e: finish_pass(e, paint, now, deficit_hpa(self.studio.climate)))
        )

    def _mended(self, line: ToMend) -> None:
        if running(self.commission.log) is not None:
            self.start_or_stop()
        self.hand(lambda: Proposal(f"Mended: {line.words}", "Check", lambda c: Recomposed(mended(c, line))))

    def choose_mend(self, words: str) -> Meaning:
        """Mend this place next."""
        self.mending = words
        self.refresh()
        return None

    def ask_minutes(self, minutes: float) -> None:
        """How long it took, as it stands in the field."""
        self.took = minutes
        self.refresh()

    def _to_begin(self) -> Pass | None:
        """The pass the yellow field starts: the one shown, or while that waits the first that does not."""
        c = self.commission
        return pass_to_begin(c.easel, passes_in(c, self.studio.climate), self.workroom.now)

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
        elif event.text().lower() == "f":
            self.open_stand()
        elif event.text().lower() == "z":
            self.whole = not self.whole
            self._aim(False)
        else:
            return False
        return True
