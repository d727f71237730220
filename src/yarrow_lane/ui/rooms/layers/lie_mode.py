"""The lie of the fur: arrows on the picture with their doubt, put right by strokes from root to tip, partings and dots."""

import math
from dataclasses import replace
from typing import TYPE_CHECKING, Literal

import numpy as np

from yarrow_lane.compose.reference import reference_key
from yarrow_lane.lane.part import Edit
from yarrow_lane.layers.flow.axis import SURE_DEG, UNSURE_DEG
from yarrow_lane.layers.flow.flow import Flow
from yarrow_lane.layers.lie_record import Lie, add_dots, add_parting, add_stroke, without_last
from yarrow_lane.layers.regions import LAYERS
from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.measure.shares import percents
from yarrow_lane.ui.bench_sheet import Fact, Line, Meaning, NextAct, Note, Press, Section, Switch
from yarrow_lane.ui.kit.overlays import Drawn, Outline, Overlay, Ring, Words
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import show_reference
from yarrow_lane.ui.rooms.layers.hands import WayTool, arrow_head
from yarrow_lane.ui.rooms.layers.mode import Mode, Sheets

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.layers.page import LayersPage

Drawing = Literal["way", "hair", "parting", "dots", "away"]
_DRAW: tuple[tuple[Drawing, str], ...] = (
    ("way", "the way it grows"), ("hair", "one hair, root to tip"), ("parting", "a parting"), ("dots", "it points at me"), ("away", "take off")
)  # fmt: skip
_SAID: dict[Drawing, str] = {
    "way": "grows this way", "hair": "one hair, {}", "parting": "a parting", "dots": "dots here", "away": "",
}  # fmt: skip
# Screen px between arrows, and how long one is at most of that: our choice.
_EVERY_PX, _OF_STEP = 34, 0.78
_DOT_MM, _TAKE_MM = 8.0, 8.0


class LieMode(Mode):
    """The reference with the field on it."""

    name = "lie of the fur"

    def __init__(self, page: "LayersPage") -> None:
        super().__init__(page)
        self.view = PictureView("The lie of the fur")
        self.picture = self.view
        self.lay(self.view)
        self.drawing: Drawing = "way"
        self.tool = WayTool(self._drawn, self._clicked)
        self.view.tool = self.tool
        self.flow: Flow | None = None
        self._none = False
        self.view.frame.changed.connect(self._show)

    def why_not(self) -> str:
        return self.needs_regions()

    def opened(self) -> None:
        self.flow, self._none, self.drawing = None, False, "way"

    def refresh(self) -> Sheets:
        page, c = self.page, self.page.commission
        show_reference(self.view, page.workroom.references, c.compose, page)
        self.tool.words = _SAID[self.drawing]
        asked = c.layers.lie, c.layers.regions, reference_key(c.compose)

        def came(flow: Flow | None) -> None:
            now = page.commission
            if page.commission_id == c.id and (now.layers.lie, now.layers.regions, reference_key(now.compose)) == asked:
                changed = flow is not self.flow
                self.flow, self._none = flow, flow is None
                if changed:
                    page.show_mode(self)

        page.deriving.flow(c, came)
        self._show()
        switch = Switch("Draw", _DRAW, self._choose, self.drawing)
        return Sheets(self._sections(), (switch,), self._act())

    # --- showing

    def _show(self) -> None:
        lie, marks = self.page.commission.layers.lie, list[Overlay]()
        if self.flow is not None:
            marks += _field_marks(self.flow, self.view.scale)
        for s in lie.strokes:
            marks.append(Outline(s.points, "here", 2.4, closed=False))
            marks.append(Outline(arrow_head(list(s.points), 4.0), "here", 2.4, closed=False))
        marks += [Outline(p, "off", 2.4, closed=False) for p in lie.partings]
        marks += [Ring(at, r, "here", 1.4, line="dots") for at, r in lie.dots]
        if self.flow is not None:
            marks += [Ring(w, radius_px=7, ink="light", weight=1.4) for w in self.flow.whorls]
            marks += [Words(w, "whorl", shift=(9, 4)) for w in self.flow.whorls]
            if self.flow.ask is not None:
                marks.append(Ring(self.flow.ask, radius_px=16, ink="here", weight=2.6))
                marks.append(Words(self.flow.ask, "which way here?", shift=(20, 5)))
        self.view.show_overlays(*marks)
        self.view.update()

    def _sections(self) -> tuple[Section, ...]:
        lie = self.page.commission.layers.lie
        if self._none:
            return (Section("The lie", (Note("No region here is fur, hair or feathers: strokes follow the form instead."),)),)
        if self.flow is None:
            return (Section("The lie", (Note("Reading how the fur lies…"),)),)
        flow = self.flow
        fur = flow.fur
        doubt = flow.doubt[fur] if fur.any() else np.zeros(1)
        shares = percents(
            (
                float((doubt < SURE_DEG).mean()),
                float(((doubt >= SURE_DEG) & (doubt < UNSURE_DEG)).mean()),
                float((doubt >= UNSURE_DEG).mean()),
            )
        )
        lines: list[Line] = [
            Fact("Axis read surely", f"{shares[0]}\u202f%", "good" if shares[0] >= 60 else "plain"),
            Fact(f"With a doubt of {SURE_DEG:.0f} to {UNSURE_DEG:.0f}°", f"{shares[1]}\u202f%"),
            Fact("Guessed, drawn dashed", f"{shares[2]}\u202f%"),
            Fact("Your strokes", f"{len(lie.strokes)}" + (f", {len(lie.partings)} partings" if lie.partings else "")),
        ]
        lengths = flow.length[fur] if fur.any() else np.ones(1)
        told = any(s.one_hair for s in lie.strokes)
        words = f"{np.percentile(lengths, 10):.0f} to {np.percentile(lengths, 90):.0f}\u202fmm"
        lines.append(Fact("Length seen" if told else "Length, a guess", words))
        note = (
            "Until you draw a stroke, which end is the tip is guessed from nose and gravity." if not lie.strokes
            else "One stroke in each piece that partings bound settles which end is the tip."
        )  # fmt: skip
        lines.append(Note(note))
        if lie.touched:
            lines.append(Press("Take all of it back", lambda: self._edit("Took the lie back", Lie())))
        return (Section("The lie", tuple(lines)),)

    def _act(self) -> NextAct | None:
        if self.flow is not None and self.flow.ask is not None and not self.page.commission.layers.lie.strokes:
            return NextAct(
                "Go on with the guess",
                "or draw one stroke at the ring, root to tip; it settles most",
                lambda: self.page.work_to("patches"),
            )
        return self.page.onward(self.name)

    # --- doing

    def _choose(self, drawing: Drawing) -> Meaning:
        self.drawing = drawing
        self.page.refresh()
        return None

    def _edit(self, label: str, lie: Lie) -> Meaning:
        return Edit(LAYERS, label, lambda x: replace(x, lie=lie))

    def _drawn(self, points: Polygon) -> None:
        lie, drawing = self.page.commission.layers.lie, self.drawing
        if drawing == "away":
            self._clicked(points[-1])
        elif drawing == "parting":
            self.page.hand(lambda: self._edit("Drew a parting", add_parting(lie, points)))
        elif drawing == "dots":
            middle, reach = points[len(points) // 2], max(_DOT_MM, math.dist(points[0], points[-1]) / 2)
            self.page.hand(lambda: self._edit("Fur points at the viewer", add_dots(lie, middle, reach)))
        else:
            label = "Drew one hair" if drawing == "hair" else "Drew how it grows"
            self.page.hand(lambda: self._edit(label, add_stroke(lie, points, drawing == "hair")))

    def _clicked(self, point: Point) -> None:
        lie = self.page.commission.layers.lie
        if self.drawing == "dots":
            self.page.hand(lambda: self._edit("Fur points at the viewer", add_dots(lie, point, _DOT_MM)))
        elif self.drawing == "away":
            rest = without_last(lie, point, _TAKE_MM)
            if rest is not lie:
                self.page.hand(lambda: self._edit("Took a stroke off", rest))


def _field_marks(flow: Flow, scale: float) -> list[Overlay]:
    """Arrows at the screen's spacing: white where sure, dashed where guessed, dots where it points at the viewer."""
    step = max(2, round(_EVERY_PX / max(scale, 0.05) / flow.px_mm))
    rows, columns = flow.x.shape
    sure: list[Polygon] = []
    heads: list[Polygon] = []
    guessed: list[Polygon] = []
    dots: list[Overlay] = []
    for row in range(step // 2, rows, step):
        for column in range(step // 2, columns, step):
            if not flow.fur[row, column]:
                continue
            x, y = (column + 0.5) * flow.px_mm, (row + 0.5) * flow.px_mm
            if flow.dots[row, column]:
                dots.append(Ring((x, y), radius_px=2.0, ink="light", weight=1.6))
                continue
            half = step * flow.px_mm * _OF_STEP / 2
            dx, dy = float(flow.x[row, column]) * half, float(flow.y[row, column]) * half
            line = ((x - dx, y - dy), (x + dx, y + dy))
            if flow.doubt[row, column] < UNSURE_DEG:
                sure.append(line)
                heads.append(arrow_head(list(line), half * 0.6))
            else:
                guessed.append(line)
    # A dark line under the white one: fur is light and dark.
    return [Drawn((*sure, *heads), (), (25, 25, 25), 3.0), Drawn((*sure, *heads), tuple(guessed), (255, 255, 255), 1.4), *dots]
