"""The lines to draw: as few or as many as wished, with what the painter drops and draws."""

from collections.abc import Callable
from dataclasses import replace
from typing import TYPE_CHECKING

from PySide6.QtGui import QKeyEvent

from yarrow_lane.compose.reference import reference_key
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.plane import Point, Polygon, Rect
from yarrow_lane.transfer.lines.choice import ALL, OUTLINE, USUAL, Choice, share_of, with_share
from yarrow_lane.transfer.lines.drawing import drawn, dropped, with_level_there
from yarrow_lane.transfer.lines.mending import mended, softer
from yarrow_lane.transfer.record import TRANSFER, Transfer, set_lines
from yarrow_lane.ui.bench_sheet import Amount, Fact, Line, Meaning, NextAct, Note, Press, Section, Switch, Tick
from yarrow_lane.ui.kit.drawing_tools import Round, RoundTool, StrokeTool
from yarrow_lane.ui.kit.overlays import Outline
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import beside_or_above, show_reference
from yarrow_lane.ui.kit.tools import PointsTool
from yarrow_lane.ui.rooms.transfer.mode import Mode, Sheets
from yarrow_lane.ui.rooms.transfer.squares_view import drawn_overlay

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.transfer.page import TransferPage

_REACH_PX = 9.0
_HANDS = (
    ("drops", "drops"),
    ("draws", "draws"),
    ("mends", "joins, redraws"),
    ("softens", "smooths"),
    ("more", "more here"),
    ("fewer", "fewer here"),
)
_LEVELS = ((OUTLINE, "outline"), (USUAL, "usual"), (ALL, "all"))
_THERE = 1.6  # times the level within a part where fewer are wished, one over it where more are: our choice


class LinesMode(Mode):
    """The reference beside the bare canvas with the lines on it; both take the hand."""

    name = "lines"

    def __init__(self, page: "TransferPage") -> None:
        super().__init__(page)
        self.reference = PictureView("Reference", page.frame)
        self.canvas = PictureView("The lines to draw", page.frame)
        self.picture = self.canvas
        self._pair = self.lay(self.reference, self.canvas)
        self.hand = "drops"
        self.clicks = PointsTool(lambda _: None, self._clicked)
        self.path = StrokeTool(self._drawn)
        self.path.width = 2.0  # mm on the canvas: a pencil
        self.round = RoundTool(self._went_round, lambda: page.attempt(page.refresh))

    def opened(self) -> None:
        self.hand = "drops"
        self.round.give_up()

    @property
    def choice(self) -> Choice:
        return self.page.commission.transfer.lines

    def _edit(self, label: str, choice: Choice, join: str = "") -> Edit[Transfer]:
        """Another choice, noted with the reference it belongs to."""
        made_from = reference_key(self.page.commission.compose)
        return Edit(TRANSFER, label, lambda t: set_lines(t, choice, made_from), join)

    def use(self, hand: str) -> Meaning:
        """What the hand does on the lines."""
        self.hand = hand
        self.round.give_up()
        self.page.refresh()
        return None

    def refresh(self) -> Sheets:
        page = self.page
        c, lines = page.commission, page.lines
        size = (c.compose.width_mm, c.compose.height_mm)
        self._pair.setDirection(beside_or_above(c.compose))
        show_reference(self.reference, page.workroom.references, c.compose, page)
        self.canvas.ground = self.page.ground
        self.canvas.show_levels(None, size)
        self.clicks.area = Rect(0, 0, *size)
        tools = {"drops": self.clicks, "softens": self.clicks, "draws": self.path, "mends": self.path}
        tool = tools.get(self.hand, self.round)
        self.canvas.tool = self.reference.tool = tool
        there = tuple(Outline(polygon, "here", 1.2, "dots") for polygon, _ in self.choice.there)
        self.canvas.show_overlays(*((drawn_overlay(lines, 1.3),) if lines else ()), *there)
        self.reference.show_overlays(*there)
        near = min(_LEVELS, key=lambda level: abs(level[0] - self.choice.level))
        switches = (
            *page.way_switches(),
            Switch("As many as", _LEVELS, self.set_level, near[0] if abs(near[0] - self.choice.level) < 1e-6 else None),
            Switch("The hand", _HANDS, self.use, self.hand),
        )
        return Sheets((self._section(),), switches, self._act())

    def _act(self) -> NextAct | None:
        if self.page.lines is None:
            return NextAct("Looking for the lines…", "some seconds, once for each composition", None, False)
        if not self.choice.made_from:
            return NextAct("Take these lines", f"{len(self.page.lines)} of them, a proposal", self._take_them)
        return self.page.way_act()

    def _take_them(self) -> Meaning:
        self.page.take(self._edit("Took the lines to draw", self.choice))
        self.page.carry_on()
        return None

    def _section(self) -> Section:
        lines, choice = self.page.lines, self.choice
        share = round(share_of(choice.level))
        found: list[Line] = [Amount("Of all lines, from outline on", share, 0, 100, self.set_share, 5, 0, "\u202f%")]
        if lines is not None:
            lost = sum(any(line.weak) for line in lines)
            found.append(Fact("Lines", str(len(lines))))
            found.append(Fact("Of them with lost edges, broken", str(lost)))
            found.append(Fact("Drawn by hand", str(len(choice.by_hand))))
            found.append(Fact("Dropped", str(len(choice.dropped))))
        found.append(Tick("Borders of the values, broken", choice.values, self._with_values))
        found.append(
            Note("Eyes, nose and mouth marked at Intake count more; the edge of a cut-out closes what they leave open.")
        )
        if choice.made_from and choice.made_from != reference_key(self.page.commission.compose) and choice.touched:
            found.append(
                Note("What you dropped and drew belongs to the earlier composition: look whether it still fits.", "wrong")
            )
        if choice.touched:
            found.append(Press("Undo all by hand", self._plain))
        return Section("The lines to draw", tuple(found))

    def _with_values(self, wanted: bool) -> Meaning:
        label = "Borders of the values are drawn too" if wanted else "Without the borders of the values"
        return self._edit(label, replace(self.choice, values=wanted))

    def set_share(self, share: float) -> Meaning:
        """The slider, 0 to 100."""
        return self._edit(f"Lines: {share:.0f} %", with_share(self.choice, share), "lines")

    def set_level(self, level: float) -> Meaning:
        """One of the three usual places of the slider."""
        return self.set_share(share_of(level))

    def _plain(self) -> Meaning:
        return self._edit("Took back what was done to the lines by hand", Choice(self.choice.level, values=self.choice.values))

    def _take(self, label: str, change: Callable[[Choice], Choice]) -> None:
        """What a hand on the picture did; trouble is said."""
        self.page.attempt(lambda: self.page.take(self._edit(label, change(self.choice))))

    def _clicked(self, point: Point) -> None:
        lines = self.page.lines
        if lines is not None:
            reach = self._reach_mm
            if self.hand == "softens":
                self._take("Smoothed a line", lambda choice: softer(choice, lines, point, reach))
            else:
                self._take("Dropped a line", lambda choice: dropped(choice, lines, point, reach))

    @property
    def _reach_mm(self) -> float:
        return _REACH_PX / max(self.canvas.scale, 1e-6)

    def _drawn(self, path: Polygon) -> None:
        lines, reach = self.page.lines or (), self._reach_mm
        if self.hand == "mends":
            self._take("Mended a line", lambda choice: mended(choice, lines, path, reach))
        else:
            self._take("Drew a line", lambda choice: drawn(choice, path))

    def _went_round(self, polygon: Polygon, how: Round) -> None:
        factor = _THERE if self.hand == "fewer" else 1 / _THERE
        label = f"{'Fewer' if self.hand == 'fewer' else 'More'} lines in a part"
        self._take(label, lambda choice: with_level_there(choice, polygon, choice.level * factor))

    def key(self, event: QKeyEvent) -> bool:
        hands = {"d": "draws", "x": "drops", "j": "mends", "s": "softens"}
        if event.text().lower() in hands:
            self.use(hands[event.text().lower()])
            return True
        return False
