"""The layers page: regions, the lie of the fur, patches, the score of passes, and Play."""

from collections.abc import Mapping

from PySide6.QtCore import QTimer
from PySide6.QtGui import QKeyEvent, QResizeEvent
from PySide6.QtWidgets import QStackedLayout

from yarrow_lane.commission.standing import passes_in
from yarrow_lane.easel.session import pass_now
from yarrow_lane.layers.kinds import is_hairy
from yarrow_lane.layers.patching.patches import PatchFacts
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.tone.grounds import ground_lab
from yarrow_lane.ui.bench_sheet import BenchSheet, ChoiceSheet, Meaning, NextAct, Switch
from yarrow_lane.ui.deriving import Deriving
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import NO_CROP, show_reference
from yarrow_lane.ui.room_mode import ModedPage
from yarrow_lane.ui.rooms.layers import papers
from yarrow_lane.ui.rooms.layers.lie_mode import LieMode
from yarrow_lane.ui.rooms.layers.mode import Mode
from yarrow_lane.ui.rooms.layers.patches_mode import PatchesMode
from yarrow_lane.ui.rooms.layers.play_mode import PlayMode
from yarrow_lane.ui.rooms.layers.playing import Playing
from yarrow_lane.ui.rooms.layers.regions_mode import RegionsMode
from yarrow_lane.ui.rooms.layers.score_mode import ScoreMode
from yarrow_lane.ui.words import area_text
from yarrow_lane.ui.workroom import Workroom


class LayersPage(ModedPage):
    """Door 6."""

    door = "Layers"

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.deriving = Deriving(workroom, self)
        self.playing = Playing(self, self.deriving)
        self.drawing, self.lying, self.patching = RegionsMode(self), LieMode(self), PatchesMode(self)
        self.scoring, self.foreseeing = ScoreMode(self), PlayMode(self)
        order: tuple[Mode, ...] = (self.drawing, self.lying, self.patching, self.scoring, self.foreseeing)
        self.modes: Mapping[str, Mode] = {mode.name: mode for mode in order}
        self.mode: Mode = self.drawing
        self.bare = PictureView("Reference")  # while there is nothing to paint from
        self._stack = QStackedLayout(self.table)
        for widget in (*(mode.widget for mode in order), self.bare):
            self._stack.addWidget(widget)
        self.picture = self.drawing.view
        self.school_name = ""
        self._said = ""
        self._soon = QTimer(self)  # areas of Play come one after the other: shown together
        self._soon.setSingleShot(True)
        self._soon.setInterval(60)
        self._soon.timeout.connect(workroom.guard.guarded(self._play_came))

    def opened(self) -> None:
        self.playing.forget()
        for mode in self.modes.values():
            mode.opened()
        self.mode = self.scoring if self.commission.layers.sitter_drawn else self.drawing

    def left(self) -> None:
        self._soon.stop()
        super().left()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        if self.commission_id and self.mode is self.scoring and self.scoring.fits_otherwise():
            self.refresh()

    def refresh(self) -> None:
        c = self.commission
        if not c.compose.framed:
            self._show_bare()
            return
        if self.mode.why_not():
            self.mode = self.drawing
        sheets = self.mode.refresh()
        self._stack.setCurrentWidget(self.mode.widget)
        self.picture = self.mode.picture
        switch = Switch("Work on", tuple((name, name) for name in self.modes), self.work_on, self.mode.name)
        remark = self._remark()
        act = sheets.act or self.next_act(self._go)
        self.show_sheets(BenchSheet(sheets.sections, act), ChoiceSheet((switch, *sheets.switches), sheets.remark or remark))
        if self._said:
            said, self._said = self._said, ""
            self.workroom.say(said, False)

    def _remark(self) -> str:
        passes = passes_in(self.commission, self.studio.climate)
        done = {f.pass_id for f in self.commission.easel.finished}
        on = sum(p.id in done for p in passes)
        return f"{on} of {len(passes)} on the canvas" if passes and self.mode is self.scoring and self.scoring.wide else ""

    def _show_bare(self) -> None:
        self._stack.setCurrentWidget(self.bare)
        self.picture = self.bare
        self.bare.waiting = NO_CROP
        show_reference(self.bare, self.workroom.references, self.commission.compose, self)
        self.show_sheets(BenchSheet((), self.next_act(self._go)), ChoiceSheet())

    def _go(self) -> Meaning:
        if not self.commission.compose.framed:
            self.go_to("Compose")
        else:
            self.work_on("regions")
        return None

    def show_mode(self, mode: Mode, bench_only: bool = False) -> None:
        """What a mode asked for has come; shown while it is still worked in."""
        if self.mode is mode and self.commission_id and (not bench_only or self.isVisible()):
            self.refresh()

    def play_changed(self) -> None:
        """A picture of Play may look otherwise."""
        self._soon.start()

    def _play_came(self) -> None:
        if self.mode in (self.scoring, self.foreseeing) and self.commission_id:
            self.mode.play_changed()

    # --- what the modes share

    def onward(self, name: str) -> NextAct:
        """On to what is worked on next in this room, after the last to the next door."""
        c = self.commission
        hairy = any(is_hairy(r.kind) for r in c.layers.regions)
        passes = passes_in(c, self.studio.climate)
        paint = pass_now(c.easel, passes, self.workroom.now)
        if name in ("score", "play") and paint is not None and c.layers.sitter_drawn:
            own = self.desk.standings.pace(self.workroom.now).likely(paint.family, paint.minutes, c.id)
            detail = f"{area_text(paint.area_cm2)}, about {hours_text(own)} · go to the easel"
            return NextAct(f"Paint {paint.title}", detail, lambda: self.go_to("Easel"))
        following = {
            "regions": ("lie of the fur", "which way it grows, read from the picture")
            if hairy
            else ("score", "the order of work"),
            "lie of the fur": ("patches", "what is painted in one go, and in which order"),
            "patches": ("score", "the order of work over all regions"),
        }.get(name)
        if following is None or c.easel.finished:
            return self.next_act(self._go)
        to, detail = following
        return NextAct(f"Go on to the {to}", detail, lambda: self.work_to(to))

    def work_to(self, name: str) -> Meaning:
        """Another way of working, as a next act."""
        self.work_on(name)
        return None

    @property
    def ground_lightness(self) -> float | None:
        """L* of what the painting begins on; None until Tone has a ground."""
        ground = self.commission.tone.ground
        return ground_lab(ground)[0] if ground else None

    def say_after(self, words: str) -> None:
        """Say this once what is being done is done."""
        self._said = words

    def write_school_name(self, text: str) -> None:
        """How the painter calls the present school."""
        self.school_name = text

    def save_card(self, patch: PatchFacts) -> Meaning:
        """The stroke card of a patch."""
        papers.save_card(self, patch)
        return None

    def save_strip(self) -> Meaning:
        """The stages on paper."""
        papers.save_strip(self)
        return None

    def key(self, event: QKeyEvent) -> bool:
        return self.commission.compose.framed and self.mode.key(event)
