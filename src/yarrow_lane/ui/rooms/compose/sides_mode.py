"""Edges and frame: decided now, painted at the start; what goes round the corner, and what it measures over all."""

from dataclasses import replace
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.ground import Lab
from yarrow_lane.compose.places import widened
from yarrow_lane.compose.sides import (
    DEPTHS_MM,
    SIDE_FINISHES,
    FrameKind,
    SideFinish,
    Sides,
    checked,
    cloth_mm,
    outer,
    paint_area_cm2,
    picture_round_mm,
)
from yarrow_lane.measure.colour.screen import hex_of
from yarrow_lane.measure.lengths import length_text, size_text
from yarrow_lane.ui.bench_sheet import Fact, Length, Line, Meaning, NextAct, Note, Pick, Section, Switch
from yarrow_lane.ui.rooms.compose.at_hand import ReferenceImage
from yarrow_lane.ui.rooms.compose.colour_lines import value_line
from yarrow_lane.ui.rooms.compose.corner_view import Corner, CornerView
from yarrow_lane.ui.rooms.compose.mode import Mode, Sheets
from yarrow_lane.ui.words import area_text

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.compose.page import ComposePage

_FINISH_WORDS: dict[SideFinish, str] = {
    "undecided": "not decided",
    "wrapped": "picture all round",
    "dark": "dark, for a frame",
    "colour": "one colour",
}
_SHOWN_PX = 1400  # of the picture's width: our choice, a corner of it fills the table
_DARK: Lab = (14.0, 1.0, 2.0)  # our choice: what a floating frame's gap hides


class SidesMode(Mode):
    """A corner of the canvas, large."""

    name = "sides and frame"

    def __init__(self, page: "ComposePage") -> None:
        super().__init__(page)
        self.corner = CornerView()
        self.widget = self.corner
        self._picture = ReferenceImage(page, _SHOWN_PX)

    def why_not(self) -> str:
        return "" if self.page.commission.compose.sized else "the canvas has no size yet: choose one first"

    def opened(self) -> None:
        self._picture.forget()

    def left(self) -> None:
        self._picture.leave()

    @property
    def sides(self) -> Sides:
        return self.page.shown.sides

    def refresh(self) -> Sheets:
        compose, sides, unit = self.page.shown, self.sides, self.page.studio.unit
        self._show(compose, sides)
        finishes = tuple((f, _FINISH_WORDS[f]) for f in SIDE_FINISHES)
        edges: list[Line] = [Pick("Edges", sides.finish, finishes, self._finish)]
        depths = tuple((d, "none, panel or paper" if d == 0 else f"{d:g} mm") for d in sorted({*DEPTHS_MM, sides.depth_mm}))
        edges.append(Pick("Depth", sides.depth_mm, depths, lambda v: self._set("Chose the depth", depth_mm=v)))
        if sides.finish in ("dark", "colour"):
            edges.append(value_line("Value of the edge", sides.colour, lambda c: self._set("Chose the edge's value", colour=c)))
        if sides.depth_mm > 0:
            edges.append(Fact("To paint", area_text(paint_area_cm2(sides, compose.width_mm, compose.height_mm))))
            cloth = cloth_mm(sides, compose.width_mm, compose.height_mm)
            edges.append(Fact("Cloth to stretch it", size_text(*cloth, unit)))
        round_mm = picture_round_mm(sides)
        if round_mm:
            edges.append(Fact("Picture beyond the front", f"{length_text(round_mm, unit, 1)} each side"))
            edges += self._beyond(compose, round_mm)
        if sides.finish == "undecided":
            edges.append(Note("White edges look unfinished: decide now, they are painted first.", "wrong"))
        sections = [Section("Edges", tuple(edges)), Section("Frame", self._frame_lines(compose, sides))]
        return Sheets(tuple(sections), self._switches(), self._act(sides))

    def _switches(self) -> tuple[Switch, ...]:
        return (Switch("Frame", (("none", "none"), ("floating", "floating")), self._frame, self.sides.frame),)

    def _act(self, sides: Sides) -> NextAct | None:
        if sides.finish != "undecided":
            return None
        if sides.frame == "floating":
            return NextAct("Paint the edges dark", "the usual in a floating frame", lambda: self._finish("dark"))
        return NextAct(
            "Let the picture go round",
            f"{picture_round_mm(replace(sides, finish='wrapped')):g} mm on each side",
            lambda: self._finish("wrapped"),
        )

    def _beyond(self, compose: Compose, round_mm: float) -> list[Line]:
        """Whether the photograph reaches so far."""
        laid = compose.behind
        photo = next((p for p in self.page.commission.intake.photos if laid and p.id == laid.photo_id), None)
        if laid is None or photo is None:
            return []
        crop = widened(compose, round_mm).background
        assert crop is not None
        r = crop.crop
        short = max(-r.x, -r.y, r.right - photo.width_px, r.bottom - photo.height_px)
        if short <= 0:
            return []
        lost = short * compose.width_mm / laid.crop.width
        unit = self.page.studio.unit
        return [
            Note(
                f"The photograph ends {length_text(lost, unit, 1)} too early: its edge is carried on, or make the crop smaller.",
                "wrong",
            )
        ]

    def _frame_lines(self, compose: Compose, sides: Sides) -> tuple[Line, ...]:
        unit = self.page.studio.unit
        lines: list[Line] = []
        if sides.frame == "floating":
            lines += [
                Length("Gap", sides.gap_mm, unit, lambda v: self._set("Set the gap", gap_mm=v)),
                Length("Face of the frame", sides.bar_mm, unit, lambda v: self._set("Set the frame's face", bar_mm=v)),
                value_line(
                    "Value of the frame", sides.bar_colour, lambda c: self._set("Chose the frame's value", bar_colour=c)
                ),
            ]
        if self.page.commission.brief.medium in ("watercolour", "soft pastel"):
            lines += [
                Length("Mount, each side", sides.mount_mm, unit, lambda v: self._set("Set the mount", mount_mm=v), 50.0, True),
                Length(
                    "more at the foot",
                    sides.mount_foot_mm,
                    unit,
                    lambda v: self._set("Set the mount's foot", mount_foot_mm=v),
                    10.0,
                    True,
                ),
                Note("Paper never touches glass: the mount keeps it off."),
            ]
        size = outer(sides, compose.width_mm, compose.height_mm)
        lines.append(Fact("Over all", size_text(size.width_mm, size.height_mm, unit)))
        if sides.frame == "none":
            lines.append(Note("Without a frame the edges are seen from the side."))
        return tuple(lines)

    def _show(self, compose: Compose, sides: Sides) -> None:
        unit = self.page.studio.unit
        round_mm = picture_round_mm(sides)
        wide = widened(compose, round_mm)
        picture = self._picture.of(wide)
        size = outer(sides, compose.width_mm, compose.height_mm)
        measures = (
            f"{size_text(compose.width_mm, compose.height_mm, unit)}, {sides.depth_mm:g} mm deep",
            f"{_FINISH_WORDS[sides.finish]}; over all {size_text(size.width_mm, size.height_mm, unit)}",
        )
        self.corner.show_corner(
            Corner(compose.width_mm, compose.height_mm, sides, hex_of(sides.colour), hex_of(sides.bar_colour), picture, round_mm, measures)
        )  # fmt: skip

    # --- changes

    def _set(self, label: str, **values: object) -> Meaning:
        sides = checked(replace(self.sides, **values))  # type: ignore[arg-type]
        return self.page.proposal(label, replace(self.page.shown, sides=sides))

    def _finish(self, finish: SideFinish) -> Meaning:
        colour = _DARK if finish == "dark" else self.sides.colour
        return self._set(f"Edges: {_FINISH_WORDS[finish]}", finish=finish, colour=colour)

    def _frame(self, frame: FrameKind) -> Meaning:
        return self._set("A floating frame" if frame == "floating" else "No frame", frame=frame)

    def key(self, event: QKeyEvent) -> bool:
        step = {Qt.Key.Key_Left: (-6, 0), Qt.Key.Key_Right: (6, 0), Qt.Key.Key_Up: (0, 6), Qt.Key.Key_Down: (0, -6)}.get(
            Qt.Key(event.key())
        )
        if step is None:
            return False
        self.corner.turn(self.corner.yaw + step[0], self.corner.pitch + step[1])
        return True
