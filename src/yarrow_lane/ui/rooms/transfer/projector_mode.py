"""The projector: where it stands, how its lines are read, whether it stands square, the lines full screen."""

from dataclasses import replace
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING, Any, Literal

from PySide6.QtWidgets import QStackedLayout

from yarrow_lane.measure.lengths import length_text, size_text
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.transfer.landmarks import circles_on
from yarrow_lane.transfer.projector import (
    LEAST_CONTRAST,
    ROOMS,
    Projected,
    ProjectorTrouble,
    knocked,
    knocked_words,
    project,
    read_words,
    squared,
    squared_words,
)
from yarrow_lane.ui.bench_sheet import Amount, Fact, Length, Line, Meaning, NextAct, Note, Section, Switch, Tick
from yarrow_lane.ui.kit.overlays import Drawn
from yarrow_lane.ui.rooms.transfer.crosses_photo import CrossesOnPhoto
from yarrow_lane.ui.rooms.transfer.mode import Mode, Sheets
from yarrow_lane.ui.rooms.transfer.projector_screen import ProjectorScreen
from yarrow_lane.ui.rooms.transfer.projector_view import Beam, Light, ProjectorView
from yarrow_lane.ui.rooms.transfer.squares_view import drawn_overlay
from yarrow_lane.ui.rooms.transfer.way_lines import carried_act, is_carried, way_section

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.transfer.page import TransferPage

_THICK_PX = 3
Look = Literal["room", "crosses"]
_LOOKS: tuple[tuple[Look, str], ...] = (("room", "the room"), ("crosses", "a photograph of the crosses"))
_TAPE = ("Top, cross to cross", "Foot", "Across, top left to lower right", "Across, lower left to top right")
_KNOCK = ("Cross top left: the light is right by", "and below by", "Cross lower right: right by", "and below by ")


class ProjectorMode(Mode):
    """The room from the side; below, a piece of the canvas in three lights."""

    name = "projector"

    def __init__(self, page: "TransferPage") -> None:
        super().__init__(page)
        self.view = ProjectorView()
        self.crosses = CrossesOnPhoto(page)
        self._stack = QStackedLayout(self.widget)
        self._stack.addWidget(self.view)
        self._stack.addWidget(self.crosses.view)
        self.look: Look = "room"
        self.screen: ProjectorScreen | None = None
        self.tape = [0.0] * 4  # mm, as measured before the canvas; not kept
        self.knock = [0.0] * 4

        self.shown = False  # the lines were on the wall since this commission was opened

    def opened(self) -> None:
        self.tape, self.knock, self.shown, self.look = [0.0] * 4, [0.0] * 4, False, "room"
        self.crosses.opened()

    def takes_files(self) -> bool:
        return self.look == "crosses"

    def take(self, path: Path) -> None:
        self.crosses.take(path)

    def _look_at(self, look: Look) -> Meaning:
        self.look = look
        self.page.refresh()
        return None

    def refresh(self) -> Sheets:
        switch = Switch("Look at", _LOOKS, self._look_at, self.look)
        self._stack.setCurrentWidget(self.crosses.view if self.look == "crosses" else self.view)
        self.picture = self.crosses.view if self.look == "crosses" else None
        sheets = self.crosses.refresh() if self.look == "crosses" else self._refresh_room()
        return replace(sheets, switches=(switch, *sheets.switches))

    def _refresh_room(self) -> Sheets:
        compose, equipment = self.page.commission.compose, self.page.equipment
        try:
            projected = project(equipment.projector, compose.width_mm, compose.height_mm, equipment.room_lux)
        except ProjectorTrouble as trouble:
            self.view.show_beam(None)
            return Sheets((*self._own(), Section("What lands on the canvas", (Note(f"{trouble}", "wrong"),))), (), None)
        self.view.show_beam(self._beam(projected))
        sections = (way_section(self.page, "projector"), *self._own(), self._lands(projected), self._square(), self._knocked())
        return Sheets(sections, (), self._act(projected), "")

    def _act(self, projected: Projected) -> NextAct | None:
        if self.page.lines is None:
            return NextAct("Looking for the lines…", "some seconds, once for each composition", None, False)
        if is_carried(self.page, "projector"):
            return None
        done = carried_act(self.page, "projector") if self.shown else None
        if done is not None:
            return done
        if projected.contrast < LEAST_CONTRAST:
            return NextAct(
                "Show the lines full screen", f"darken the room to {projected.most_lux:.0f}\u202flx first", self._show
            )
        return NextAct("Show the lines full screen", "Esc ends · + − thickness · C colour · B blinks the crosses", self._show)

    def _show(self) -> Meaning:
        c = self.page.commission
        lines = drawn_overlay(self.page.lines or (), 1.0)
        canvas = (c.compose.width_mm, c.compose.height_mm)
        self.screen = ProjectorScreen(lines, canvas, _THICK_PX, self.page.equipment.projector.upright)
        screens = self.page.screen().virtualSiblings()
        if len(screens) > 1:  # the projector is the other one
            self.screen.setGeometry(next(s for s in screens if s is not self.page.screen()).geometry())
        self.screen.showFullScreen()
        self.shown = True
        self.page.refresh()
        return None

    def _beam(self, projected: Projected) -> Beam:
        c, unit = self.page.commission, self.page.studio.unit
        compose, equipment = c.compose, self.page.equipment
        lights = [Light("your room", equipment.room_lux, projected.contrast, True)]
        others = sorted(ROOMS, key=lambda room: abs(room[1] - equipment.room_lux))[1:]
        for name, lux in sorted(others, key=lambda room: room[1]):
            found = project(equipment.projector, compose.width_mm, compose.height_mm, lux)
            lights.append(Light(name, lux, found.contrast, False))
        return Beam(
            projected, (compose.width_mm, compose.height_mm), self._part(),
            drawn_overlay(self.page.lines, 1.0) if self.page.lines else Drawn(()),
            self.page.ground, tuple(lights),
            f"{projected.distance_mm / 1000:.2f}\u202fm from lens to canvas", length_text(compose.height_mm, unit),
        )  # fmt: skip

    def _part(self) -> Rect:
        """What the patches show: the head, or the middle."""
        compose = self.page.commission.compose
        circles = circles_on(self.page.places())
        at: Point = circles[0][0] if circles else (compose.width_mm / 2, compose.height_mm / 2)
        wide = compose.width_mm * 0.5
        high = wide * 0.6
        x = min(max(0.0, at[0] - wide / 2), compose.width_mm - wide)
        y = min(max(0.0, at[1] - high / 2), max(0.0, compose.height_mm - high))
        return Rect(x, y, wide, high)

    # --- the bench

    def _own(self) -> tuple[Section, ...]:
        equipment = self.page.equipment
        p = equipment.projector

        def edit(label: str, **values: Any) -> Meaning:
            return self.page.equip(label, replace(equipment, projector=replace(p, **values)))

        def lit(lux: float) -> Meaning:
            return self.page.equip(f"The room has {lux:.0f} lx", replace(equipment, room_lux=lux))

        lines: tuple[Line, ...] = (
            Amount("Throw: distance over width", p.throw, 0.1, 10, lambda v: edit("Set the throw", throw=v), 0.1, 2),
            Amount("Picture, px across", p.wide_px, 100, 8000, lambda v: edit("Set its picture", wide_px=round(v)), 10),
            Amount("and down", p.high_px, 100, 8000, lambda v: edit("Set its picture", high_px=round(v)), 10),
            Amount("Light, lumens", p.lumens, 0, 20000, lambda v: edit("Set its light", lumens=v), 50),
            Amount("Its own contrast, to 1", p.contrast, 2, 100000, lambda v: edit("Set its contrast", contrast=v), 100),
            Tick("Turned on its side", p.upright, lambda v: edit("Turned the projector", upright=v)),
            Amount("Light of the room, lux", equipment.room_lux, 0, 20000, lit, 10),
        )
        return (Section("Your projector", lines, f"{p.wide_px} × {p.high_px}, {p.lumens:.0f} lm"),)

    def _lands(self, projected: Projected) -> Section:
        unit = self.page.studio.unit
        said = read_words(projected.contrast)
        return Section(
            "What lands on the canvas",
            (
                Fact("The whole image", size_text(projected.width_mm, projected.height_mm, unit)),
                Fact("One px", f"{projected.mm_per_px:.2f}\u202fmm"),
                Fact("Light on the canvas", f"{projected.lux:.0f}\u202flx"),
                Fact("Line against ground", f"{projected.contrast:.1f} : 1, {said}", "wrong" if said == "lost" else "good"),
                Fact("Still read up to", f"{projected.most_lux:.0f}\u202flx in the room"),
                Fact("Finest line", f"{projected.finest_mm:.1f}\u202fmm"),
                Note(
                    "Trace outlines; whiskers and single hairs stay work by hand. Guesses: a dim room 20 lx, daylight 200 to 1000."
                ),
                Note("Do not look into the lamp. Lay cables where nobody trips; heed what its maker says."),
            ),
        )

    def _square(self) -> Section:
        unit, width = self.page.studio.unit, self.page.commission.compose.width_mm

        def measured(number: int, mm: float) -> Meaning:
            self.tape[number] = mm
            self.page.refresh()
            return None

        lines: list[Line] = [
            Length(label, self.tape[n], unit, partial(measured, n), 0.0, True) for n, label in enumerate(_TAPE)
        ]
        if all(self.tape):
            found = squared(width, *self.tape)
            lines += [Note(words, "good" if found.holds else "wrong") for words in squared_words(found)]
        lines.append(Note("Equal diagonals alone prove nothing: an image wider at its top has them too."))
        return Section("Does it stand square?", tuple(lines), "by tape, cross to cross")

    def _knocked(self) -> Section:
        compose = self.page.commission.compose

        def moved(number: int, mm: float) -> Meaning:
            self.knock[number] = mm
            self.page.refresh()
            return None

        lines: list[Line] = [
            Amount(label, self.knock[n], -200, 200, partial(moved, n), 1, 0, "\u202fmm") for n, label in enumerate(_KNOCK)
        ]
        if any(self.knock):
            crosses = ((0.0, 0.0), (compose.width_mm, compose.height_mm))
            light = ((self.knock[0], self.knock[1]), (crosses[1][0] + self.knock[2], crosses[1][1] + self.knock[3]))
            lines.append(Note(knocked_words(*knocked(crosses, light))))
        return Section("Knocked?", tuple(lines), "from pencilled cross to the light")
