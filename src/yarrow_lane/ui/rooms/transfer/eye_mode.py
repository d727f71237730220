"""By eye: the handiest checks one after another on reference and canvas, shapes between things, own measures."""

import math
from functools import partial
from typing import TYPE_CHECKING, Literal

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent

from yarrow_lane.compose.composition import Compose
from yarrow_lane.measure.kept import kept
from yarrow_lane.measure.lengths import length_text
from yarrow_lane.measure.plane import Point, Polygon, ring_area
from yarrow_lane.measure.words import begun
from yarrow_lane.transfer.by_eye.between import edges_of, shapes_between
from yarrow_lane.transfer.by_eye.checks import Check, checks_of
from yarrow_lane.transfer.landmarks import Place, head_mm
from yarrow_lane.transfer.lines.outlines import outlines_of
from yarrow_lane.ui.bench_sheet import Fact, Line, Meaning, NextAct, Note, Press, Section, Switch
from yarrow_lane.ui.kit.drawing_tools import LengthTool
from yarrow_lane.ui.kit.overlays import Ink, Outline, Overlay, Ring, Words
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import beside_or_above, show_reference
from yarrow_lane.ui.rooms.transfer.mode import Mode, Sheets
from yarrow_lane.ui.rooms.transfer.way_lines import carried_act, way_section

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.transfer.page import TransferPage

Look = Literal["checks", "between", "measure"]
_LOOKS: tuple[tuple[Look, str], ...] = (("checks", "checks"), ("between", "shapes between"), ("measure", "own measures"))
_HEAD_SHARE = 0.4  # of the shorter side, while crown and chin are not marked: our choice
_MOST_OWN = 6
_FLAT = (74, 74, 74)


# Walking the checks changes none of them.
@kept(2)
def _checks_on(compose: Compose, places: tuple[Place, ...]) -> tuple[Check, ...]:
    size = compose.width_mm, compose.height_mm
    several = len(compose.pieces) > 1
    named = [(piece.name if several else "", ring) for piece in compose.pieces for ring in piece.outline_mm[:1]]
    head = head_mm(places) or _HEAD_SHARE * min(size)
    return checks_of({p.full_name: p.at for p in places}, head, edges_of(named, size))


@kept(2)
def _shapes_on(compose: Compose) -> tuple[Polygon, ...]:
    rings = outlines_of(compose).rings
    return shapes_between(rings, (compose.width_mm, compose.height_mm)) if rings else ()


class EyeMode(Mode):
    """The reference beside the canvas: what is compared is shown at the same place on both."""

    name = "by eye"

    def __init__(self, page: "TransferPage") -> None:
        super().__init__(page)
        self.reference = PictureView("Reference", page.frame)
        self.canvas = PictureView("The same on your canvas", page.frame)
        self.picture = self.reference
        self._pair = self.lay(self.reference, self.canvas)
        self.look: Look = "checks"
        self.number = 0
        self.own: list[tuple[Point, Point]] = []  # of this sitting; not kept
        self.tool = LengthTool(self._measured, self._words)

    def opened(self) -> None:
        self.look, self.number, self.own = "checks", 0, []

    def checks(self) -> tuple[Check, ...]:
        """The handiest of this composition."""
        return _checks_on(self.page.commission.compose, self.page.places())

    def refresh(self) -> Sheets:
        page = self.page
        self._pair.setDirection(beside_or_above(page.commission.compose))
        show_reference(self.reference, page.workroom.references, page.commission.compose, page)
        self.canvas.ground = page.ground
        self.canvas.show_levels(None, (page.commission.compose.width_mm, page.commission.compose.height_mm))
        self.reference.tool = self.canvas.tool = self.tool if self.look == "measure" else None
        switches = (Switch("Look at", _LOOKS, self._look_at, self.look), *page.way_switches())
        show = {"checks": self._show_checks, "between": self._show_between, "measure": self._show_own}[self.look]
        sections, act, remark = show()
        return Sheets((*sections, way_section(page, "by eye")), switches, act, remark)

    def _look_at(self, look: Look) -> Meaning:
        self.look = look
        self.page.refresh()
        return None

    def _on_both(self, *overlays: Overlay) -> None:
        self.reference.show_overlays(*overlays)
        self.canvas.show_overlays(*overlays)

    # --- checks

    def _show_checks(self) -> tuple[tuple[Section, ...], NextAct | None, str]:
        found = self.checks()
        if not found:
            self._on_both()
            why = Note("Mark eyes, nose, ears, crown and chin at Intake: the checks are made from them.", "wrong")
            return (Section("Checks", (why,)),), None, ""
        self.number = min(self.number, len(found) - 1)
        now = found[self.number]
        self._on_both(*_check_overlays(now))
        unit = self.page.studio.unit
        lines: list[Line] = [
            Note(f"{begun(now.words)}{f': {now.rest}' if now.rest else ''}."),
        ]
        lines += [Fact(f"Length {n}", length_text(math.dist(*segment), unit)) for n, segment in enumerate(now.segments, 1)]
        lines.append(Note("Hold the brush handle against the canvas: does it hold there too?"))
        others = [Press(begun(check.words), partial(self.go_to, n)) for n, check in enumerate(found) if n != self.number]
        sections = (
            Section(f"Check {self.number + 1} of {len(found)}", tuple(lines)),
            Section("The others", tuple(others), f"{len(others)}"),
        )
        last = self.number == len(found) - 1
        act = NextAct("The next check", "Enter · arrows go back and forth", lambda: self.go_to(self.number + 1))
        return sections, carried_act(self.page, "by eye") if last else act, ""

    def go_to(self, number: int) -> Meaning:
        """Another check; round at the ends."""
        self.number = number % max(1, len(self.checks()))
        self.page.refresh()
        return None

    # --- shapes between

    def _show_between(self) -> tuple[tuple[Section, ...], NextAct | None, str]:
        shapes = _shapes_on(self.page.commission.compose)
        self._on_both(*(Outline(shape, "light", 1.2, flat=_FLAT) for shape in shapes))
        words = (
            "Draw these flat shapes instead of the sitter: where they are right, the sitter is."
            if shapes
            else "Cut a sitter out at Compose: what it leaves of the canvas is shown here."
        )
        rows: list[Line] = [Note(words, "plain" if shapes else "wrong")]
        rows += [Fact(f"Shape {n}", f"{ring_area(shape) / 100:.0f}\u202fcm²") for n, shape in enumerate(shapes[:8], 1)]
        return (Section("Shapes between things", tuple(rows)),), None, ""

    # --- own measures

    def _measured(self, one: Point, other: Point) -> None:
        self.own = [*self.own, (one, other)][-_MOST_OWN:]
        self.page.attempt(self.page.refresh)

    def _words(self, one: Point, other: Point) -> str:
        return length_text(math.dist(one, other), self.page.studio.unit)

    def _show_own(self) -> tuple[tuple[Section, ...], NextAct | None, str]:
        overlays: list[Overlay] = []
        for n, segment in enumerate(self.own, 1):
            ink: Ink = "here" if n == len(self.own) else "light"
            overlays += [Outline(segment, ink, 2.0, closed=False), Words(segment[1], f"{n}", "right", (6.0, 0.0))]
        self._on_both(*overlays)
        rows: list[Line] = [
            Note("Draw from one place to another on either picture: the same lies on the other, in canvas measure.")
        ]
        for n, segment in enumerate(self.own, 1):
            against = (
                f", {math.dist(*segment) / math.dist(*self.own[0]):.2f} of the first"
                if n > 1 and math.dist(*self.own[0]) > 0
                else ""
            )
            rows.append(Fact(f"Measure {n}", f"{length_text(math.dist(*segment), self.page.studio.unit)}{against}"))
        if self.own:
            rows.append(Press("Clear them", self._clear))
        return (Section("Own measures", tuple(rows)),), None, ""

    def _clear(self) -> Meaning:
        self.own = []
        self.page.refresh()
        return None

    def key(self, event: QKeyEvent) -> bool:
        step = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(event.key()), 0)
        if self.look != "checks" or not step:
            return False
        self.go_to(self.number + step)
        return True


def _check_overlays(check: Check) -> tuple[Overlay, ...]:
    found: list[Overlay] = []
    for n, segment in enumerate(check.segments):
        ink: Ink = "here" if n == 0 else "light"
        found.append(Outline(segment, ink, 2.6, closed=False))
        found += [Ring(end, radius_px=5, ink=ink, weight=2.0) for end in segment]
    if check.kind in ("plumb", "level"):
        (x, y), (u, v) = check.segments[0]
        true = ((x, y), (x, v)) if check.kind == "plumb" else ((x, y), (u, y))
        found.append(Outline(true, "dark", 1.4, "dashes", closed=False))
    return tuple(found)
