"""The palette page: take colours from the crop, name them, write the mix."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QVBoxLayout

from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.palette.mixes import counts_as_mix
from yarrow_lane.palette.proposed import proposed_places
from yarrow_lane.palette.wells import PALETTE, USUAL_PATCH_MM, Palette, add_well, patch_colour
from yarrow_lane.ui.bench_sheet import Meaning
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import show_reference
from yarrow_lane.ui.kit.tools import PointsTool
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.palette.view import PaletteView, palette_view
from yarrow_lane.ui.rooms.palette.wells_row import WellsRow
from yarrow_lane.ui.workroom import Workroom


class PalettePage(RoomPage):
    """Door 5."""

    door = "Palette"

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.chosen_id, self.patch_mm = 0, USUAL_PATCH_MM
        self.wells = WellsRow()
        self.reference = PictureView("The crop: click to take a colour")
        self.tool = PointsTool(self.select, self._take_colour)
        self.reference.tool = self.tool
        self.picture = self.reference
        box = QVBoxLayout(self.table)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addWidget(self.wells)
        box.addWidget(self.reference, 1)
        self.wells.chosen.connect(self.select)
        self.view: PaletteView | None = None

    def opened(self) -> None:
        self.chosen_id = 0
        self.reference.frame.turn(grey=False)

    def refresh(self) -> None:
        c, frame = self.commission, self.reference.frame
        view = palette_view(c, self.chosen_id, self.patch_mm, frame.grey, self, self.next_act(self._write_next))
        self.view = view
        self.chosen_id = view.chosen.id if view.chosen else 0
        self.wells.show_wells(view.wells, self.chosen_id)
        show_reference(self.reference, self.workroom.references, c.compose, self)
        self.tool.patch = self.patch_mm
        self.tool.area = c.compose.canvas
        self.tool.marks = tuple((w.id, w.at_mm) for w, _ in view.wells if w.at_mm is not None)
        self.reference.show_overlays(*view.overlays)
        self.show_sheets(view.bench, view.choices)

    def select(self, well_id: int) -> None:
        """Look at another well."""
        self.bench.store_pending()
        self.chosen_id = well_id
        self.refresh()

    def _take_colour(self, at_mm: Point) -> None:
        compose = self.commission.compose

        def ready(shown: Shown) -> None:
            scale = shown.picture.shape[1] / compose.width_mm
            srgb, lab = patch_colour(shown.picture, _patch(at_mm, self.patch_mm, scale))
            patch_mm, number = self.patch_mm, self.commission.palette.next_id
            if self.hand(lambda: Edit(PALETTE, "Took a colour", lambda p: add_well(p, at_mm, patch_mm, srgb, lab))) is None:
                self.select(number)

        self.workroom.references.want(compose, self, ready)

    def _take_first(self) -> None:
        """The colours proposed: a dark, a middle and a light, where the crop is even."""
        compose, patch_mm = self.commission.compose, self.patch_mm
        if not compose.framed:
            self.go_to("Compose")
            return

        def taken(palette: Palette, shown: Shown) -> Palette:
            scale = shown.picture.shape[1] / compose.width_mm
            for place in proposed_places(shown.picture, scale, patch_mm):
                palette = add_well(palette, place, patch_mm, *patch_colour(shown.picture, _patch(place, patch_mm, scale)))
            return palette

        def ready(shown: Shown) -> None:
            self.hand(lambda: Edit(PALETTE, "Took the first colours", lambda p: p if p.wells else taken(p, shown)))

        self.workroom.references.want(compose, self, ready)

    def set_patch(self, mm: float) -> None:
        """The side of the patch that is averaged."""
        self.patch_mm = mm
        self.refresh()

    def show_grey(self, in_grey: bool) -> None:
        """Colours, or greys of equal lightness."""
        self.reference.frame.turn(grey=in_grey)
        self.refresh()

    def _write_next(self) -> Meaning:
        if not self.commission.palette.wells:
            self._take_first()
            return None
        unmixed = next((w for w in self.commission.palette.by_lightness if not counts_as_mix(w.mix)), None)
        if unmixed is not None:
            self.select(unmixed.id)
            self.bench.point_at("Mix, in parts")
        return None

    def key(self, event: QKeyEvent) -> bool:
        step = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(event.key()))
        if step is not None and self.view is not None and self.view.wells:
            order = [w.id for w, _ in self.view.wells]
            self.select(order[(order.index(self.chosen_id) + step) % len(order)])
            return True
        if event.text().lower() == "g":
            self.show_grey(not self.reference.frame.grey)
            return True
        return False


def _patch(centre_mm: Point, patch_mm: float, px_per_mm: float) -> Rect:
    """A patch of the canvas in pixels of the reference."""
    side = patch_mm * px_per_mm
    return Rect(centre_mm[0] * px_per_mm - side / 2, centre_mm[1] * px_per_mm - side / 2, side, side)
