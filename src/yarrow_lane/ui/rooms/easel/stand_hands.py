"""What the keys at the stand do: patches forward and back, passes finished and taken up again, the clock, touches, reminders."""

from collections.abc import Callable, Mapping
from datetime import datetime
from typing import TYPE_CHECKING

from PySide6.QtCore import QTimer

from yarrow_lane.commission.standing import passes_in
from yarrow_lane.easel.clock import running, stopped
from yarrow_lane.easel.places import back, forward, patch_now
from yarrow_lane.easel.session import EASEL, Easel, finish_pass, pass_to_begin, readiness, reopened_last
from yarrow_lane.easel.wet import wet_now
from yarrow_lane.lane.happening import ClockStarted
from yarrow_lane.lane.part import Edit
from yarrow_lane.layers.flow.flow import Flow
from yarrow_lane.layers.passes import Pass
from yarrow_lane.layers.patching.patches import Climb
from yarrow_lane.layers.wells_for import AreaColours
from yarrow_lane.measure.days import clock_text
from yarrow_lane.paint.drying import deficit_hpa
from yarrow_lane.ui.deriving import Deriving
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.rooms.easel.calling import call_over
from yarrow_lane.ui.rooms.easel.stand import Stand
from yarrow_lane.ui.rooms.easel.stand_view import AtHand, StandView, patches_of, remedy_for, stand_view

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.easel.page import EaselPage

_SAID_MS = 6000  # our choice: so long an answer stands in the foot


class StandHands:
    """Made with the first opening of the stand; it belongs to the easel's page."""

    def __init__(self, page: "EaselPage") -> None:
        self.page = page
        self.stand = Stand(page.window())
        self.stand.asked.connect(page.workroom.guard.guarded(self.do))
        self._deriving = Deriving(page.workroom, page)
        self._colours: Mapping[int, AreaColours] = {}
        self._climb: Climb | None = None
        self._flow: Flow | None = None
        self._asked = 0
        self._said: set[str] = set()
        self._levels: Shown | None = None
        self._quiet = QTimer(self.stand)
        self._quiet.setSingleShot(True)
        self._quiet.timeout.connect(self._hush)

    @property
    def is_open(self) -> bool:
        """Whether the stand covers the window."""
        return self.stand.isVisible()

    # --- opening

    def open(self) -> None:
        """Cover the window; what is needed is worked out meanwhile, and the clock starts."""
        page = self.page
        c = page.commission
        self._colours, self._climb, self._flow, self._asked, self._levels = {}, None, None, 0, None
        self.stand.keys = page.studio.easel_keys
        self.stand.said, self.stand.remedy = "", None
        self.stand.open()
        page.workroom.references.want(c.compose, page, self._took_reference)
        if c.compose.framed and c.layers.regions:
            self._deriving.colours(c, self._took_colours)
            self._deriving.climb(c, self._took_climb)
            self._deriving.flow(c, self._took_flow)
        self.start()
        self.refresh()

    def close(self) -> None:
        """Back to the room; the clock stops, for the painter has gone from the easel."""
        self._stop()
        self.left()
        self.page.setFocus()
        self.page.refresh()

    def left(self) -> None:
        """The room is left: nothing is said any more."""
        self._quiet.stop()
        self.stand.hide()

    def _took_reference(self, shown: Shown) -> None:
        self._levels = shown
        self.refresh()

    def _took_colours(self, found: Mapping[int, AreaColours]) -> None:
        self._colours = found
        self.refresh()

    def _took_climb(self, found: Climb | None) -> None:
        self._climb = found
        self.refresh()

    def _took_flow(self, found: Flow | None) -> None:
        self._flow = found
        self.refresh()

    # --- showing

    def refresh(self) -> None:
        """Show what is on record now; what is due is said once."""
        if not self.is_open:
            return
        page, now = self.page, self.page.workroom.now
        c = page.commission
        passes = passes_in(c, page.studio.climate)
        view = stand_view(c, page.studio, passes, now, page.desk.air.air, self._at_hand())
        paint = next((p for p in passes if p.id == view.pass_id), None)
        self.stand.remedy = remedy_for(paint, self._asked) if paint is not None else None
        levels = self._levels.levels if self._levels is not None else None
        self.stand.show_view(view, levels, (c.compose.width_mm or 1.0, c.compose.height_mm or 1.0))
        told = page.said_behind()
        if told:  # it would stand behind the stand: a forgotten clock, a disk that is full
            self.stand.said = told
        self._call(view)

    def _at_hand(self) -> AtHand:
        page = self.page
        patches = self._climb.patches if self._climb is not None else ()
        return AtHand(self._colours, patches, self._flow, page.desk.standings.pace(page.workroom.now))

    def _call(self, view: StandView) -> None:
        """By light and words here; by the desktop where another window is in front; by a soft ring if wished. Once each."""
        for reminder in view.due:
            if reminder.name not in self._said:
                self._said.add(reminder.name)
                call_over(reminder.words, self.page.studio.sound, self.page.window().isActiveWindow())

    def say(self, words: str) -> None:
        """An answer in the foot, for some seconds."""
        self.stand.said = words
        self._quiet.start(_SAID_MS)
        self.stand.update()

    def _hush(self) -> None:
        self.stand.said = ""
        self.stand.update()

    # --- what keys mean

    def do(self, meaning: str) -> None:
        """Do what a key asks for."""
        self.page.workroom_hand()
        match meaning:
            case "leave":
                self.close()
            case "forward":
                self._on(True)
            case "nearly":
                self._on(False)
            case "back":
                self._back()
            case "clock":
                self._start_or_stop()
            case "remedy":
                self._asked += 1
            case "dry" | "wet":
                self._touched(meaning == "dry")
        if meaning != "remedy" and self._asked and meaning in ("forward", "back", "nearly"):
            self._asked = 0
        self.refresh()

    def _present(self) -> tuple[Pass | None, int, datetime]:
        """The pass on the stand, how many patches it has, and the moment."""
        page, now = self.page, self.page.workroom.now
        passes = passes_in(page.commission, page.studio.climate)
        easel = page.commission.easel
        paint = pass_to_begin(easel, passes, now)
        patches = patches_of(paint, self._climb.patches) if paint is not None and self._climb is not None else ()
        return paint, len(patches), now

    def _edit(self, label: str, step: Callable[[Easel], Easel]) -> None:
        self.page.desk.do(self.page.commission_id, Edit(EASEL, label, step))

    def _on(self, whole: bool) -> None:
        paint, patches, now = self._present()
        if paint is None:
            self.say("There is nothing left to paint here.")
            return
        page = self.page
        state = readiness(page.commission.easel, paint, now)
        if not state.ready:
            self.say(
                f"Wet beneath until about {clock_text(state.dry_at, now)}: another canvas meanwhile."
                if state.dry_at
                else "Other passes come first."
            )
            return
        self.start()
        at = patch_now(page.commission.easel, paint.id, patches)
        last = at.over or (whole and len(at.done) + 1 >= at.count)
        if not whole and (at.again or at.count == 1):
            self.say("Only the last fifth is left here: finish it.")
            return
        if not last:
            label = f"{paint.title}: patch {at.patch + 1}" + ("" if whole else " to 80 %")
            self._edit(label, lambda e: forward(e, paint.id, patches, whole))
            return
        self._stop()
        deficit = deficit_hpa(page.studio.climate)
        self._edit(f"Finished {paint.title}", lambda e: finish_pass(e, paint, now, deficit))
        following, _, _ = self._present()
        if following is not None and readiness(page.commission.easel, following, now).ready:
            self.start()
            self.say(f"{paint.title} is painted. Now {following.title}.")
        elif following is not None:
            self.say(f"{paint.title} is painted. The next one waits until it is dry.")

    def _back(self) -> None:
        paint, _, _ = self._present()
        easel = self.page.commission.easel
        if paint is not None and any(p.pass_id == paint.id for p in easel.places):
            self._edit("A patch again", lambda e: back(e, paint.id))
            return
        if easel.finished:
            self._stop()
            self._edit("The last pass again", reopened_last)
            return
        self.say("This is the beginning.")

    def start(self) -> None:
        """The clock runs on the pass on the stand, where nothing has to be waited for."""
        paint, _, now = self._present()
        page = self.page
        if paint is None or running(page.commission.log) is not None or not readiness(page.commission.easel, paint, now).ready:
            return
        page.desk.happen(page.commission_id, ClockStarted(now, paint.id, paint.title))

    def _stop(self) -> None:
        stop = stopped(self.page.commission.log, self.page.workroom.now)
        if stop is not None:
            self.page.desk.happen(self.page.commission_id, stop)

    def _start_or_stop(self) -> None:
        if running(self.page.commission.log) is not None:
            self._stop()
        else:
            self.start()

    def _touched(self, dry: bool) -> None:
        """A touch overrules what was reckoned, and teaches the room's factor."""
        page, now = self.page, self.page.workroom.now
        passes = passes_in(page.commission, page.studio.climate)
        wet = wet_now(page.commission.easel, passes, now)
        if not wet:
            self.say("Nothing is wet here.")
            return
        touched = page.touch(wet[0].pass_id, dry)
        self.say(f"{wet[0].title}: {touched}")
