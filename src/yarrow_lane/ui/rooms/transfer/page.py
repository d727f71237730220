"""The transfer page: the lines to draw, and the ways to carry them onto the canvas."""

from collections.abc import Callable, Mapping
from dataclasses import replace
from pathlib import Path

from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QStackedLayout

from yarrow_lane.commission.studio import equipment_of, with_stint
from yarrow_lane.tone.grounds import ground_srgb
from yarrow_lane.transfer.equipment import Equipment
from yarrow_lane.transfer.job import Job, job_of
from yarrow_lane.transfer.landmarks import Place, places_on
from yarrow_lane.transfer.record import parts_left, ways_of
from yarrow_lane.transfer.ways import Stint, Way
from yarrow_lane.ui.bench_sheet import BenchSheet, ChoiceSheet, Meaning, NextAct, Note, Section, Switch
from yarrow_lane.ui.kit.frame import Frame
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import NO_CROP, show_reference
from yarrow_lane.ui.room_mode import ModedPage
from yarrow_lane.ui.rooms.transfer.eye_mode import EyeMode
from yarrow_lane.ui.rooms.transfer.film_mode import FilmMode
from yarrow_lane.ui.rooms.transfer.lines_mode import LinesMode
from yarrow_lane.ui.rooms.transfer.lines_to_draw import Lines, LinesToDraw
from yarrow_lane.ui.rooms.transfer.marks_mode import MarksMode
from yarrow_lane.ui.rooms.transfer.measure_mode import MeasureMode
from yarrow_lane.ui.rooms.transfer.mode import Mode
from yarrow_lane.ui.rooms.transfer.projector_mode import ProjectorMode
from yarrow_lane.ui.rooms.transfer.squares_mode import SquaresMode
from yarrow_lane.ui.rooms.transfer.tracing_mode import TracingMode
from yarrow_lane.ui.rooms.transfer.ways_mode import WaysMode
from yarrow_lane.ui.workroom import Workroom

# Where each way is worked with.
_MODE_OF: dict[Way, str] = {
    "squares": "squares", "scribble marks": "marks", "projector": "projector", "tracing": "on paper",
    "same-size print": "on paper", "by eye": "by eye",
}  # fmt: skip
_SEEN = (("upright", "upright"), ("down", "upside down"), ("mirror", "mirrored"))


class TransferPage(ModedPage):
    """Door 3."""

    door = "Transfer"

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.frame = Frame()
        self.line_source = LinesToDraw(workroom.references, workroom.derived, workroom.workers)
        self.lines: Lines | None = None  # those to draw, once they have come
        self.took = 0.0  # minutes written for what is carried over now; 0 while nothing is
        self.choosing, self.squaring, self.measuring = WaysMode(self), SquaresMode(self), MeasureMode(self)
        self.marking = MarksMode(self)
        order: tuple[Mode, ...] = (
            self.choosing, LinesMode(self), self.squaring, self.marking, ProjectorMode(self), TracingMode(self), EyeMode(self), FilmMode(self),
            self.measuring,
        )  # fmt: skip
        self.modes: Mapping[str, Mode] = {mode.name: mode for mode in order}
        self.mode: Mode = self.choosing
        self.bare = PictureView("Reference", self.frame)  # while there is nothing to carry over
        self._stack = QStackedLayout(self.table)
        for widget in (*(mode.widget for mode in order), self.bare):
            self._stack.addWidget(widget)
        self.picture = self.mode.picture

    def opened(self) -> None:
        self.lines, self.took = None, 0.0
        for mode in self.modes.values():
            mode.opened()
        way = self.way_now()
        self.mode = self.modes[_MODE_OF[way]] if way is not None else self.choosing
        if way is not None:
            self.mode.begin(way)

    def attempt(self, do: Callable[[], object]) -> None:
        """Do what a hand on the picture means; trouble is said."""
        self.workroom.guard.attempt(do)

    def refresh(self) -> None:
        c = self.commission
        if not c.compose.framed:
            self._show_bare()
            return
        self._want_lines()
        sheets = self.mode.refresh()
        self._stack.setCurrentWidget(self.mode.widget)
        self.picture = self.mode.picture
        options = tuple((name, name) for name in self.modes)
        switch = Switch("Work on", options, self.work_on, self.mode.name)
        act = sheets.act or self.way_act()
        self.show_sheets(BenchSheet(sheets.sections, act), ChoiceSheet((switch, *sheets.switches), sheets.remark))

    def _show_bare(self) -> None:
        self._stack.setCurrentWidget(self.bare)
        self.picture = self.bare
        self.bare.waiting = NO_CROP
        show_reference(self.bare, self.workroom.references, self.commission.compose, self)
        note = Section("Squares", (Note("The squares follow from the canvas and the crop. Choose both at Compose first."),))
        self.show_sheets(BenchSheet((note,), self.next_act(lambda: self.go_to("Compose"))), ChoiceSheet())

    def _want_lines(self) -> None:
        """Those of the choice on record; while others are worked out the ones before stay."""
        c = self.commission
        choice = c.transfer.lines
        lines = self.line_source
        found = lines.have(c, choice)
        if found is not None:
            self.lines = found
            return
        commission_id, wanted = c.id, lines.key(c, choice)

        def ready(came: Lines) -> None:
            now = self.desk.commission(commission_id)
            if self.commission_id == commission_id and lines.key(now, now.transfer.lines) == wanted and self.lines is not came:
                self.lines = came
                self.refresh()

        lines.want(c, choice, self, ready)

    def takes_files(self) -> bool:
        return self.mode.takes_files() and self.commission.compose.framed

    def take_files(self, paths: list[Path]) -> None:
        """A file dropped while the canvas is looked at is a photograph of it."""
        self.mode.take(paths[0])

    # --- the ways

    @property
    def job(self) -> Job:
        """What there is to carry over."""
        c = self.commission
        return job_of(c.compose, c.intake.photos, c.transfer, self.studio.equipment)

    def way_now(self) -> Way | None:
        """The way of what is carried over next; None while none is chosen."""
        c = self.commission
        ways, left = ways_of(c.transfer), parts_left(c.transfer)
        return (ways.of(left[0]) if left else ways.outline) if c.compose.framed else None

    def carry_on(self) -> None:
        """Go to work with the way of what is carried over next; to the choice of one while none is chosen."""
        way = self.way_now()
        if way is not None:
            self.modes[_MODE_OF[way]].begin(way)
        self.work_on(_MODE_OF[way] if way is not None else self.choosing.name)

    def way_act(self) -> NextAct:
        """The yellow field of a way of working that carries nothing now: on to the one that does."""
        return self.next_act(self.carry_on)

    def set_took(self, minutes: float) -> Meaning:
        """Minutes that what is carried over now took, as the painter says."""
        self.took = minutes
        self.refresh()
        return None

    def learn(self, stint: Stint) -> None:
        """How long it took counts for the next promise."""
        self.desk.do_studio(f"Noted how long {stint.way} took", lambda s: with_stint(s, stint))

    # --- what several ways of working ask for

    @property
    def ground(self) -> tuple[int, int, int]:
        """The bare canvas as it is toned, sRGB."""
        return ground_srgb(self.commission.tone.ground)

    def places(self) -> tuple[Place, ...]:
        """Eyes and landmarks where they lie on the canvas."""
        return places_on(self.commission.compose, self.commission.intake.photos)

    @property
    def equipment(self) -> Equipment:
        """The painter's projector, room and printer."""
        return equipment_of(self.studio, self.commission.transfer)

    def equip(self, label: str, equipment: Equipment) -> Meaning:
        """Another projector, light or printer, for all commissions."""
        self.desk.do_studio(label, lambda s: replace(s, equipment=equipment))
        return None

    # --- turned

    def way_switches(self) -> tuple[Switch, ...]:
        """Upright, upside down or mirrored: every view of the room."""
        now = "down" if self.frame.upside_down else "mirror" if self.frame.mirrored else "upright"
        return (Switch("Seen", _SEEN, self.flip, now),)

    def flip(self, way: str) -> Meaning:
        """All pictures upright, upside down or mirrored."""
        for frame in (self.frame, self.measuring.frame):
            frame.turn(upside_down=way == "down", mirrored=way == "mirror")
        self.refresh()
        return None

    def key(self, event: QKeyEvent) -> bool:
        if self.commission.compose.framed and event.text().lower() == "f":
            self.flip("upright" if self.frame.upside_down else "down")
            return True
        return self.commission.compose.framed and self.mode.key(event)
