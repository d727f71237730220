"""The layers page: regions on the crop, the score of passes beneath."""

from dataclasses import replace

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QSplitter, QVBoxLayout

from yarrow_lane.layers.regions import Kind, Region, add_region, change_region, choose_school, wipe_region
from yarrow_lane.measure.plane import Polygon, Rect, polygon_bounds
from yarrow_lane.palette.wells import patch_colour
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.layers.region_canvas import RegionCanvas
from yarrow_lane.ui.rooms.layers.score import Score
from yarrow_lane.ui.rooms.layers.view import LayersView, layers_view
from yarrow_lane.ui.workroom import Workroom


class _Canvas(RegionCanvas):
    def __init__(self, page: "LayersPage") -> None:
        super().__init__()
        self._page = page

    def arrived(self) -> None:
        self._page.refresh()


class LayersPage(RoomPage):
    """Door 6."""

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.pass_id, self.region_id = "", 0
        self.kind: Kind = "background"
        self.canvas = _Canvas(self)
        self.score = Score()
        split = QSplitter(Qt.Orientation.Vertical)
        split.addWidget(self.canvas)
        split.addWidget(self.score)
        split.setSizes([380, 340])
        split.setChildrenCollapsible(False)
        split.setHandleWidth(4)
        box = QVBoxLayout(self.table)
        box.setContentsMargins(0, 0, 0, 0)
        box.addWidget(split)
        self.canvas.closed.connect(self._close)
        self.canvas.chosen.connect(self.select_region)
        self.canvas.changed.connect(self.refresh)
        self.score.chosen.connect(self.select_pass)
        self.view: LayersView | None = None

    def opened(self) -> None:
        self.pass_id, self.region_id = "", 0
        self.kind = "background" if not self.commission.layers.regions else "fur"
        if self.canvas.drawing:
            self.canvas.give_up()

    def refresh(self) -> None:
        c = self.commission
        self.canvas.show_reference(self.workroom.pictures, c)
        view = layers_view(
            c, self.studio, self.pass_id, self.region_id, self.kind, self.canvas.drawing, self.workroom.now
        )  # fmt: skip
        self.view = view
        self.canvas.show_regions(view.regions, view.region.id if view.region else 0)
        self.score.show_score(view.score, view.regions, self.pass_id, self._tints(view.regions))
        self.show_sheets(view.bench, view.choices)

    def _tints(self, regions: tuple[Region, ...]) -> dict[int, tuple[int, int, int]]:
        """The mean colour round the middle of each region: bars wear the colour of what they paint."""
        shown, c = self.canvas.shown, self.commission
        if shown is None:
            return {}
        scale = shown.picture.shape[1] / c.compose.width_mm
        tints: dict[int, tuple[int, int, int]] = {}
        for region in regions:
            b = polygon_bounds(region.outline)
            x, y = (b.x + b.width * 0.06, b.y + b.height * 0.06) if region.kind == "background" else b.centre
            side = min(b.width, b.height) * 0.2
            patch = Rect((x - side / 2) * scale, (y - side / 2) * scale, side * scale, side * scale)
            tints[region.id] = patch_colour(shown.picture, patch)[0]
        return tints

    def select_pass(self, pass_id: str) -> None:
        self.pass_id, self.region_id = pass_id, 0
        self.refresh()

    def select_region(self, region_id: int) -> None:
        self.region_id, self.pass_id = region_id, ""
        self.refresh()

    # --- drawing

    def _close(self, corners: Polygon) -> None:
        kind = self.kind
        c = self.commission
        if self.workroom.attempt(
            lambda: self.desk.do_part(c.id, f"Drew a {kind} region", "layers", lambda x: add_region(x, kind, corners, c.canvas))
        ):
            self.select_region(self.commission.layers.regions[-1].id)
            self.kind = "fur" if kind == "background" else kind
            self.refresh()

    def begin(self) -> None:
        """Start drawing the next region; a background begins as the whole canvas."""
        self.canvas.setFocus(Qt.FocusReason.OtherFocusReason)
        if self.kind == "background" and not any(r.kind == "background" for r in self.commission.layers.regions):
            r = self.commission.canvas
            self._close(((0, 0), (r.width, 0), (r.width, r.height), (0, r.height)))
            self.workroom.say("The background takes the whole canvas; wipe it out to draw it by hand.", False)
            return
        self.canvas.begin()

    # --- hands

    def choose(self, key: str, value: str) -> None:
        self.desk.do_part(
            self.commission_id, f"{key.capitalize()} {value}", "layers",
            lambda x: choose_school(x, replace(x.school, **{key: value})),
        )  # fmt: skip
        self.refresh()

    def change(self, key: str, value: object) -> None:
        if key == "kind":
            self.kind = value  # type: ignore[assignment]
            self.refresh()
            return
        assert self.view is not None and self.view.region is not None
        region = self.view.region
        if key == "name" and str(value).strip():
            changed = replace(region, name=str(value).strip())
        elif key == "region kind":
            changed = replace(region, kind=value)  # type: ignore[arg-type]
        else:
            return
        self.desk.do_part(self.commission_id, f"Changed {region.name}", "layers", lambda x: change_region(x, changed))

    def press(self, key: str) -> None:
        if key == "draw":
            self.canvas.give_up() if self.canvas.drawing else self.begin()
        elif self.view is not None and self.view.region is not None:
            region = self.view.region
            self.desk.do_part(self.commission_id, f"Wiped {region.name} out", "layers", lambda x: wipe_region(x, region.id))

    def act(self) -> None:
        c = self.commission
        if not c.compose.framed:
            self.workroom.open_door(c.id, "Compose")
        elif self.canvas.drawing:
            self.canvas.close_outline()
        elif not c.layers.regions:
            self.begin()
        else:
            self.workroom.open_door(c.id, "Easel")

    def key(self, event: QKeyEvent) -> bool:
        if event.key() == Qt.Key.Key_Escape and self.canvas.drawing:
            self.canvas.give_up()
        elif event.key() == Qt.Key.Key_Backspace and self.canvas.drawing:
            self.canvas.step_back()
        elif event.text().lower() == "d" and self.commission.compose.framed:
            self.begin()
        elif event.key() in (Qt.Key.Key_Left, Qt.Key.Key_Right) and self.view and self.view.score:
            order = [b.pass_id for b in self.view.score]
            step = -1 if event.key() == Qt.Key.Key_Left else 1
            now = order.index(self.pass_id) if self.pass_id in order else -1 if step == 1 else 0
            self.select_pass(order[(now + step) % len(order)])
        else:
            return False
        return True
