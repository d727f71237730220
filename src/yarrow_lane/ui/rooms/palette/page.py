"""The palette page: take colours from the crop, name them, write the mix."""

from dataclasses import replace

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QVBoxLayout

from yarrow_lane.check.comparison import grey
from yarrow_lane.measure.plane import Rect
from yarrow_lane.palette.wells import USUAL_PATCH_MM, add_well, change_well, empty_well, patch_colour
from yarrow_lane.ui.kit.levels import make_levels
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.palette.sample_canvas import SampleCanvas
from yarrow_lane.ui.rooms.palette.view import PaletteView, palette_view
from yarrow_lane.ui.rooms.palette.wells_row import WellsRow
from yarrow_lane.ui.workroom import Workroom


class PalettePage(RoomPage):
    """Door 5."""

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.chosen_id, self.patch_mm, self.grey = 0, USUAL_PATCH_MM, False
        self.wells = WellsRow()
        self.canvas = SampleCanvas()
        box = QVBoxLayout(self.table)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addWidget(self.wells)
        box.addWidget(self.canvas, 1)
        self.wells.chosen.connect(self.select)
        self.canvas.chosen.connect(self.select)
        self.canvas.taken.connect(self._take)
        self.view: PaletteView | None = None

    def opened(self) -> None:
        self.chosen_id, self.grey = 0, False

    def refresh(self) -> None:
        view = palette_view(self.commission, self.chosen_id, self.patch_mm, self.grey)
        self.view = view
        self.chosen_id = view.chosen.id if view.chosen else 0
        self.wells.show_wells(view.wells, self.chosen_id)
        self.canvas.patch_mm = self.patch_mm
        self.canvas.show_reference(self.workroom.pictures, self.commission)
        self.canvas.show_wells(view.wells, self.chosen_id)
        self.show_sheets(view.bench, view.choices)

    def select(self, well_id: int) -> None:
        self.chosen_id = well_id
        self.refresh()

    def _take(self, x_mm: float, y_mm: float) -> None:
        shown = self.canvas.shown
        assert shown is not None
        px_per_mm = shown.picture.shape[1] / self.commission.compose.width_mm
        side = self.patch_mm * px_per_mm
        patch = Rect(x_mm * px_per_mm - side / 2, y_mm * px_per_mm - side / 2, side, side)
        srgb, lab = patch_colour(shown.picture, patch)
        before = {w.id for w in self.commission.palette.wells}
        self.desk.do_part(
            self.commission_id, "Took a colour", "palette", lambda p: add_well(p, (x_mm, y_mm), self.patch_mm, srgb, lab)
        )  # fmt: skip
        self.select(next(w.id for w in self.commission.palette.wells if w.id not in before))

    def choose(self, key: str, value: str) -> None:
        self.grey = value == "grey"
        shown = self.canvas.shown
        if shown is not None:
            levels = make_levels(grey(shown.picture)) if self.grey else shown.levels
            self.canvas.show_levels(levels, self.canvas.content)
        self.refresh()

    def change(self, key: str, value: object) -> None:
        if key == "patch":
            self.patch_mm = float(str(value))
            self.refresh()
            return
        well = self.commission.palette.well(self.chosen_id)
        text = str(value).strip() or (well.name if key == "name" else "")
        label = f"Named the well {text}" if key == "name" else f"Wrote the mix of {well.name}"
        self._edit(label, replace(well, **{key: text}))

    def _edit(self, label: str, well: object) -> None:
        self.desk.do_part(self.commission_id, label, "palette", lambda p: change_well(p, well))  # type: ignore[arg-type]

    def press(self, key: str) -> None:
        well = self.commission.palette.well(self.chosen_id)
        self.desk.do_part(self.commission_id, f"Emptied {well.name}", "palette", lambda p: empty_well(p, well.id))

    def act(self) -> None:
        c = self.commission
        if not c.compose.framed:
            self.workroom.open_door(c.id, "Compose")
            return
        unmixed = next((w for w in c.palette.by_lightness if not w.mix.strip()), None)
        if unmixed is not None:
            self.select(unmixed.id)
            self.bench.line("mix").setFocus(Qt.FocusReason.OtherFocusReason)
        elif c.palette.wells:
            self.workroom.open_door(c.id, "Layers")

    def key(self, event: QKeyEvent) -> bool:
        step = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(event.key()))
        if step is not None and self.view is not None and self.view.wells:
            order = [w.id for w in self.view.wells]
            self.select(order[(order.index(self.chosen_id) + step) % len(order)])
            return True
        if event.text().lower() == "g":
            self.choose("show", "colour" if self.grey else "grey")
            return True
        return False
