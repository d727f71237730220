"""The layers page: regions on the crop, the passes beneath in their order."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QSplitter, QVBoxLayout

from yarrow_lane.commission.eyes import with_eyes
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.lane.part import Edit
from yarrow_lane.layers.regions import LAYERS, Kind, Layers, LayersTrouble, Region, add_region, region_at
from yarrow_lane.layers.usual import likely_next
from yarrow_lane.measure.plane import Point, Polygon, Rect, polygon_bounds
from yarrow_lane.palette.wells import patch_colour
from yarrow_lane.ui.bench_sheet import Meaning, NextAct
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import show_reference
from yarrow_lane.ui.kit.tools import OutlineTool, PointsTool
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.layers.passes_chart import PassesChart
from yarrow_lane.ui.rooms.layers.view import Drawing, LayersView, layers_view, region_at_glance
from yarrow_lane.ui.workroom import Workroom

Tints = dict[int, tuple[int, int, int]]


class LayersPage(RoomPage):
    """Door 6."""

    door = "Layers"

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.pass_id, self.region_id = "", 0
        self.kind: Kind = "background"
        self._kinds: dict[str, Kind] = {}  # chosen by hand, by commission: it stays over doors
        self.reference = PictureView("The crop with its regions")
        self.outline = OutlineTool(self._close, self.refresh)
        self.pointer = PointsTool(lambda _: None, self._clicked)
        self.reference.tool = self.pointer
        self.picture = self.reference
        self.chart = PassesChart()
        split = QSplitter(Qt.Orientation.Vertical)
        split.addWidget(self.reference)
        split.addWidget(self.chart)
        split.setSizes([380, 340])
        split.setChildrenCollapsible(False)
        split.setHandleWidth(4)
        box = QVBoxLayout(self.table)
        box.setContentsMargins(0, 0, 0, 0)
        box.addWidget(split)
        self.chart.chosen.connect(self.select_pass)
        self.reference.frame.changed.connect(self._show_regions)
        self._tints: tuple[object, Tints] = (None, {})
        self.view: LayersView | None = None

    def opened(self) -> None:
        self.pass_id, self.region_id = "", 0
        self.kind = self._kinds.get(self.commission_id) or likely_next(self.commission.layers, self.commission.brief)
        self.outline.corners, self.outline.shut = None, False

    def refresh(self) -> None:
        c = self.commission
        show_reference(self.reference, self.workroom.references, c.compose, self)
        drawing = self.outline.drawing
        self.reference.tool = self.outline if drawing else self.pointer
        self.pointer.area = c.compose.canvas
        act = self.next_act(self._begin_or_go)
        state: Drawing = "asked" if self.outline.shut else "drawing" if drawing else ""
        if self.outline.shut:
            act = NextAct(f"Keep it as {self.kind}", "Esc goes on drawing", self._keep)
        elif drawing:
            act = NextAct("Close the outline", "after at least three corners", self._close_now)
        view = layers_view(
            c, self.studio, self.pass_id, self.region_id, self.kind, state, self.workroom.now, self, act
        )  # fmt: skip
        self.view = view
        self._show_regions()
        self.reference.update()
        self._show_chart({})
        if c.compose.framed and view.regions:
            self.workroom.references.want(c.compose, self, self._tint)
        self.show_sheets(view.bench, view.choices)

    def _show_regions(self) -> None:
        if self.view is not None:
            chosen = self.view.region.id if self.view.region else 0
            scale = self.reference.scale
            self.reference.show_overlays(
                *(o for r in self.view.regions for o in region_at_glance(r, r.id == chosen, scale))
            )  # fmt: skip

    def _show_chart(self, tints: Tints) -> None:
        if self.view is not None:
            self.chart.show_bars(self.view.bars, self.view.regions, self.pass_id, tints or self._tints[1])

    def _tint(self, shown: Shown) -> None:
        """Bars wear the colour of what they paint: the mean round the middle of each region."""
        c = self.commission
        made_of = (reference_key(c.compose), c.layers.regions)
        if self._tints[0] != made_of:
            scale = shown.picture.shape[1] / c.compose.width_mm
            self._tints = (made_of, {r.id: _tint_of(r, shown, scale) for r in c.layers.regions})
        self._show_chart(self._tints[1])

    def select_pass(self, pass_id: str) -> None:
        """Look at one pass."""
        self.pass_id, self.region_id = pass_id, 0
        self.refresh()

    def select_region(self, region_id: int) -> None:
        """Look at one region."""
        self.region_id, self.pass_id = region_id, ""
        self.refresh()

    def _clicked(self, point: Point) -> None:
        found = region_at(Layers(self.commission.layers.regions), point)
        self.select_region(found.id if found else 0)

    # --- drawing

    def _close(self, corners: Polygon) -> None:
        """The outline is closed: what it is is asked. With too few corners they stay to be gone on with."""
        if len(corners) < 3:
            few = ("no corner", "one corner", "two corners")[len(corners)]
            words = "click on the crop for more, they stay; Esc gives them up"
            self.workroom.report(LayersTrouble("The outline was not closed", f"it has {few} yet", words))
            return
        self.outline.shut = True
        self.refresh()

    def _close_now(self) -> Meaning:
        self.outline.close()
        return None

    def _keep(self) -> Meaning:
        self._add(self.outline.corners or ())
        return None

    def _add(self, corners: Polygon) -> None:
        kind, canvas = self.kind, self.commission.compose.canvas
        number = self.commission.layers.next_id
        edit = Edit(LAYERS, f"Drew a {kind} region", lambda x: add_region(x, kind, corners, canvas))
        if self.hand(lambda: edit) is None:
            self.outline.give_up()
            self._likely_again()
            self.select_region(number)
        else:
            self.outline.shut = False
            self.refresh()

    def _likely_again(self) -> None:
        """After a region the likely one comes next, whatever was chosen for this one."""
        self._kinds.pop(self.commission_id, None)
        self.kind = likely_next(self.commission.layers, self.commission.brief)

    def outline_eyes(self) -> Meaning:
        """A region for each eye that is marked at Intake; the openings are a guess."""
        layers = with_eyes(self.commission)
        if self.hand(lambda: Edit(LAYERS, "Outlined the eyes from their marks", lambda _: layers)) is None:
            self._likely_again()
            self.refresh()
            self.workroom.say("The eyes are outlined from their marks, a guess: wipe one out to draw it by hand.", False)
        return None

    def begin(self) -> None:
        """Start drawing the next region; a background begins as the whole canvas."""
        self.reference.setFocus(Qt.FocusReason.OtherFocusReason)
        if self.kind == "background" and not any(r.kind == "background" for r in self.commission.layers.regions):
            self._add(self.commission.compose.canvas.corners)
            self.workroom.say("The background takes the whole canvas; wipe it out to draw it by hand.", False)
            return
        self.outline.begin()

    def _begin_or_go(self) -> Meaning:
        if not self.commission.compose.framed:
            self.go_to("Compose")
        else:
            self.begin()
        return None

    # --- hands

    def choose_kind(self, kind: Kind) -> None:
        """What the next region is, or the one just drawn."""
        self.kind = self._kinds[self.commission_id] = kind
        self.refresh()

    def draw_or_give_up(self) -> None:
        """Start a region, or give the one being drawn up."""
        self.outline.give_up() if self.outline.drawing else self.begin()

    def key(self, event: QKeyEvent) -> bool:
        if event.key() == Qt.Key.Key_Escape and self.outline.shut:
            self.outline.shut = False
            self.refresh()
        elif event.key() == Qt.Key.Key_Escape and self.outline.drawing:
            self.outline.give_up()
        elif event.key() == Qt.Key.Key_Backspace and self.outline.drawing and not self.outline.shut:
            self.outline.step_back()
        elif event.text().lower() == "d" and self.commission.compose.framed:
            if not self.outline.drawing:  # what is drawn already is not begun anew by a stray key
                self.begin()
        elif event.key() in (Qt.Key.Key_Left, Qt.Key.Key_Right) and self.view and self.view.bars:
            order = [b.pass_id for b in self.view.bars]
            step = -1 if event.key() == Qt.Key.Key_Left else 1
            now = order.index(self.pass_id) if self.pass_id in order else -1 if step == 1 else 0
            self.select_pass(order[(now + step) % len(order)])
        else:
            return False
        return True


def _tint_of(region: Region, shown: Shown, scale: float) -> tuple[int, int, int]:
    b = polygon_bounds(region.outline)
    x, y = (b.x + b.width * 0.06, b.y + b.height * 0.06) if region.kind == "background" else b.centre
    side = min(b.width, b.height) * 0.2
    patch = Rect((x - side / 2) * scale, (y - side / 2) * scale, side * scale, side * scale)
    return patch_colour(shown.picture, patch)[0]
