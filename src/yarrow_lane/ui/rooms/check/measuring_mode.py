"""Measuring: the painting straightened, numbered where it is off, worst first; each place enlarged with how it is mended."""

from collections.abc import Sequence
from dataclasses import replace
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout

from yarrow_lane.check.measured import Measured
from yarrow_lane.check.mending import Mend, mend_of
from yarrow_lane.check.ranking import Fault, ranked
from yarrow_lane.check.record import CHECK, accepted, with_corner
from yarrow_lane.commission.last_list import is_mended
from yarrow_lane.easel.standing import last_painted
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.measure.words import counted
from yarrow_lane.paint.caution import CAUTIONS
from yarrow_lane.paint.drying import PAINT_OF
from yarrow_lane.ui.bench_sheet import Fact, Line, Meaning, NextAct, Note, Press, Section, Tick
from yarrow_lane.ui.kit.levels import Levels, make_levels
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.tools import Still
from yarrow_lane.ui.on_photo import PhotoCorners, corners_section
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.rooms.check.asking import Asking, areas_of, places_of
from yarrow_lane.ui.rooms.check.legend import Legend
from yarrow_lane.ui.rooms.check.looking_mode import photo_lines
from yarrow_lane.ui.rooms.check.measuring_view import (
    Told,
    hidden_bars,
    legend_words,
    list_minutes,
    mended_of,
    near,
    overlays_of,
    photo_facts,
    rest_note,
    rows_of,
)
from yarrow_lane.ui.rooms.check.mending_hands import MendingHands
from yarrow_lane.ui.rooms.check.mode import Mode, Sheets
from yarrow_lane.ui.rooms.check.place_strip import PlaceStrip

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.check.page import CheckPage

_BLINK_MS = 700
_MEASURING = "Straightening, evening the light, comparing…"
_NEAR_MM = 60.0  # about a place that blinks: our choice


class _Pointing(Still):
    """A click on the canvas looks at the fault there."""

    def __init__(self, mode: "MeasuringMode") -> None:
        self._mode = mode

    def press(self, point: Point, reach: float) -> None:
        self._mode.point_at(point, reach)


class MeasuringMode(Mode):
    """The answer first: a list of what to mend."""

    name = "measuring"

    def __init__(self, page: "CheckPage") -> None:
        super().__init__(page)
        self.view = PictureView("The painting, measured")
        self.picture = self.view
        self.legend = Legend()
        self.hands = MendingHands(self)
        self.strip = PlaceStrip(self.hands.list_it, self.hands.mean_it)
        outer = QVBoxLayout(self.widget)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.setSpacing(0)
        row = QHBoxLayout()
        row.setSpacing(0)
        row.addWidget(self.view, 1)
        row.addWidget(self.legend)
        outer.addLayout(row, 1)
        outer.addWidget(self.strip)
        self.asking = Asking(page, self._came)
        self.corners = PhotoCorners(self.view, page, self._corner_moved)
        self.chosen: int | None = None  # the first that is left to mend
        self.edges = False  # whether softer borders are shown
        self._told: tuple[tuple[object, ...], Told] | None = None  # kept: each glaze is looked for through thousands
        self._levels: tuple[object, Levels] | None = None
        self._reference: Shown | None = None
        self._reference_of: object = None
        self._pointing = _Pointing(self)
        self._blink = QTimer(self.widget)
        self._blink.setInterval(_BLINK_MS)
        self._blink.timeout.connect(page.workroom.guard.guarded(self.blink_now))
        self._reference_shows = False

    def opened(self) -> None:
        self.asking.forget()
        self.corners.forget()
        self.chosen, self._levels, self._told, self._reference, self._reference_of = None, None, None, None, None
        self.left()
        self.view.show_levels(None, (1, 1))
        self.view.show_overlays()

    def left(self) -> None:
        self._blink.stop()
        self._reference_shows = False

    def why_not(self) -> str:
        return "" if self.page.commission.compose.framed else "there is nothing to compare with yet: compose the picture first"

    # --- what is known

    @property
    def _size(self) -> Point:
        compose = self.page.commission.compose
        return compose.width_mm, compose.height_mm

    def told(self) -> Told | None:
        """The measured painting and what is made of it; None until it is measured."""
        found = self.asking.measured.found
        if found is None:
            return None
        c, studio = self.page.commission, self.page.studio
        of = (found, c, studio, self.asking.mixer)
        if self._told is None or any(a is not b for a, b in zip(self._told[0], of, strict=True)):
            faults = ranked(found, areas_of(c, studio), places_of(c), self._size, c.check)
            paint, box = PAINT_OF[c.brief.medium], self.asking.box
            mends = tuple(mend_of(f, c.palette, self.asking.mixer, box, studio.climate, paint) for f in faults)
            self._told = (of, Told(found, faults, mends))
        told = self._told[1]
        chosen = self.chosen if self.chosen is not None else self._first_left(told.faults) or 0
        return replace(told, chosen=max(0, min(chosen, len(told.faults) - 1)))

    def _first_left(self, faults: Sequence[Fault]) -> int | None:
        """The worst place that is neither meant so nor mended."""
        c = self.page.commission
        left = (n for n, f in enumerate(faults) if f.meant is None and not (f.listed and is_mended(c, f.listed)))
        return next(left, None)

    def refresh(self) -> Sheets:
        c = self.page.commission
        photo = c.check.newest
        if photo is None:
            return self._bare()
        if not photo.accepted:
            return self._at_corners()
        self.corners.forget()
        self.asking.want()
        told = self.told()
        if told is None:
            return self._waiting()
        self._want_reference()
        self._show(told)
        return self._sheets(told)

    def _bare(self) -> Sheets:
        self.view.tool = None
        self.view.waiting = "Photograph the painting: straight on, all four edges in it, then drop the file here."
        self.view.show_levels(None, (1, 1))
        self.view.show_overlays()
        self._only_picture()
        note = Note(
            "With the grey frame round it a fault of all of it shows too; without one only what differs from place to place."
        )
        return Sheets((Section("The painting", (note, *self.page.photo_presses())), self.page.seen_section()))

    def _at_corners(self) -> Sheets:
        photo = self.page.commission.check.newest
        assert photo is not None
        self._levels = None
        self.corners.show(photo)
        self._only_picture()
        act = NextAct("Measure it", "the four edges are fitted from there, with the lens", self._accept)
        section = corners_section("the canvas", "the canvas's own top left")
        sections = (section, Section("The painting", tuple(self.page.photo_presses())), self.page.seen_section())
        return Sheets(sections, (), act, "← → walk the corners, enlarged")

    def _waiting(self) -> Sheets:
        trouble = self.asking.measured.trouble
        self.view.tool = None
        self.view.waiting = trouble or _MEASURING
        self.view.show_levels(None, self._size)
        self.view.show_overlays()
        self._only_picture()
        lines: list[Line] = [Note(self.view.waiting, "wrong" if trouble else "plain")]
        act = (
            NextAct("Look at the corners", "pull them to where they are", self.to_corners)
            if trouble
            else NextAct("Measuring…", "a moment", None, False)
        )
        return Sheets((Section("The painting", (*lines, *self.page.photo_presses())), self.page.seen_section()), (), act)

    def _only_picture(self) -> None:
        self.legend.hide()
        self.strip.hide()

    # --- shown

    def _show(self, told: Told) -> None:
        size = self._size
        if self._levels is None or self._levels[0] is not told.measured:
            self._levels = (told.measured, make_levels(told.measured.flat))
        levels = self._levels[1]
        reference = self._reference.levels if self._reference is not None else None
        self.view.tool = self._pointing
        self.view.ground = None
        self.view.setProperty("reference", "")
        self.view.show_levels(reference if self._reference_shows and reference is not None else levels, size)
        self.view.show_overlays(*(() if self._blink.isActive() else overlays_of(told, self.edges)))
        self.legend.show_bars(hidden_bars(told.measured), legend_words(told.measured))
        self.legend.show()
        if told.at is None:
            self.strip.hide()
        else:
            self.strip.show_place(told.at, told.mends[told.chosen], levels, reference, size)

    def _want_reference(self) -> None:
        compose = self.page.commission.compose
        if self._reference_of is compose:
            return
        self._reference_of = compose

        def ready(shown: Shown) -> None:
            if self._reference_of is compose:
                self._reference = shown
                self.page.refresh()

        self.page.workroom.references.want(compose, self.page, ready)

    def _sheets(self, told: Told) -> Sheets:
        page, c = self.page, self.page.commission
        rows = rows_of(told, c, self._choose)
        title = f"To mend, {counted(told.counting, 'place')}" if told.counting else "Nothing to mend"
        sections = [Section(title, (*rows, Note(rest_note(told))))]
        if told.at is not None and told.at.meant is None:
            sections.append(Section("What usually helps", self._helps(told.mends[told.chosen])))
        mended = mended_of(c.check, told.faults)
        if mended:
            gone: list[Line] = [Fact(t.words, "mended", "good") for t in mended]
            sections.append(Section("No longer found", (*gone, Press("Strike them off", lambda: self.hands.strike(mended)))))
        if c.check.to_mend:
            sections.append(Section("On the last list", (Fact(counted(len(c.check.to_mend), "line"), list_minutes(c.check)),)))
        about = [*photo_lines(c.check.newest, last_painted(c.easel), page.workroom.now), *photo_facts(told)]
        soft = len(told.measured.soft_edges)
        about.append(Tick(f"Show where edges are softer ({soft})", self.edges, self.show_edges))
        sections.append(Section("The painting", tuple(about)))
        corners = Press("Look at the corners again", self.to_corners)
        another = (*page.photo_presses(True), corners, Press("Print the grey frame…", page.save_frame))
        sections.append(Section("Another photograph", another, f"{len(c.check.photos)} so far"))
        sections.append(page.seen_section())
        return Sheets(tuple(sections), (), self._act(told), "B blinks the place, ↑ ↓ the next")

    def _helps(self, found: Mend) -> tuple[Line, ...]:
        paint = PAINT_OF[self.page.commission.brief.medium]
        caution = CAUTIONS.get(paint, "")
        return (Note(found.advice), *((Note(caution, "wrong"),) if caution else ()))

    def _act(self, told: Told) -> NextAct | None:
        fault = told.at
        if fault is None or fault.meant is not None:
            return None
        c = self.page.commission
        if fault.listed is not None and is_mended(c, fault.listed):
            other = self._first_left(told.faults)
            if other is not None:
                return NextAct(f"Look at place {other + 1}", f"place {told.chosen + 1} is mended", lambda: self._choose(other))
            return NextAct("Photograph it again", "what is mended is told from the next photograph", self.page.choose_photo)
        m = told.mends[told.chosen]
        steps = ", then ".join(s.short or s.words for s in m.steps)
        return NextAct(f"Mend place {told.chosen + 1} at the easel", f"{steps} · {hours_text(m.minutes)}", self.hands.to_easel)

    # --- what hands mean

    def _choose(self, number: int) -> Meaning:
        self.chosen = number
        if self._blink.isActive():
            self._go_near()
        self.page.refresh()
        return None

    def point_at(self, point: Point, reach: float) -> None:
        """A click on the canvas."""
        told = self.told()
        found = near(point, told, reach) if told is not None else None
        if found is not None:
            self._choose(found)

    def _accept(self) -> Meaning:
        self.corners.whole()
        return Edit(CHECK, "Set the corners of the painting", accepted)

    def to_corners(self) -> Meaning:
        """Back to the corners."""
        self.asking.forget()
        self.view.frame.fit()
        return Edit(CHECK, "Looked at the corners again", lambda x: accepted(x, False))

    def _corner_moved(self, number: int, to: Point) -> None:
        edit = Edit(CHECK, "Set a corner of the painting", lambda x: with_corner(x, number, to))
        self.page.hand(lambda: edit)

    def _came(self, _: Measured) -> None:
        self.chosen = None  # the first that is left to mend

    # --- blinking

    def show_edges(self, shown: bool) -> Meaning:
        """Borders that are firm in the reference and softer here, as a layer to look at."""
        self.edges = shown
        self.page.refresh()
        return None

    def _go_near(self) -> None:
        told = self.told()
        if told is not None and told.at is not None:
            x, y = told.at.at
            reach = max(_NEAR_MM, told.at.mm)
            self.view.fit(Rect(x - reach, y - reach, 2 * reach, 2 * reach))

    def blink_now(self) -> None:
        """Show the other one of the two."""
        self._reference_shows = not self._reference_shows
        self.page.refresh()

    def _set_blinking(self, on: bool) -> None:
        """The place looked at blinks, or all of the painting stands still."""
        self._reference_shows = False
        if on:
            self._go_near()
            self._blink.start()
        else:
            self._blink.stop()
            self.view.frame.fit()
        self.page.refresh()

    def _key_at_corners(self, event: QKeyEvent) -> bool:
        """While corners are set: arrows walk them enlarged, Esc shows all of the photograph."""
        photo = self.page.commission.check.newest
        if photo is None or photo.accepted:
            return False
        step = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(event.key()))
        if step is not None:
            self.corners.walk(step)
            return True
        return event.key() == Qt.Key.Key_Escape and self.corners.whole()

    def key(self, event: QKeyEvent) -> bool:
        if self._key_at_corners(event):
            return True
        told = self.told()
        word = event.text().lower()
        step = {Qt.Key.Key_Up: -1, Qt.Key.Key_Down: 1}.get(Qt.Key(event.key()))
        if told is None or not told.faults:
            return False
        if step is not None:
            self._choose((told.chosen + step) % len(told.faults))
        elif word == "b":
            self._set_blinking(not self._blink.isActive())
        elif word == "e":
            self.show_edges(not self.edges)
        elif word == "l":
            self.hands.list_it()
        elif word == "m":
            self.hands.mean_it()
        elif event.key() == Qt.Key.Key_Escape and self._blink.isActive():
            self._set_blinking(False)
        else:
            return False
        return True
