"""The compose page: size, turn and crop; what they do to later work is shown before."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QVBoxLayout

from yarrow_lane.commission.recompose import Proposal, recompose
from yarrow_lane.compose.composition import Compose, ComposeTrouble, frame, largest_crop_width, set_size, turn
from yarrow_lane.compose.formats import Series, stock_formats
from yarrow_lane.compose.nearest import Near
from yarrow_lane.compose.standing import lie_word, to_frame
from yarrow_lane.intake.photos import Photo
from yarrow_lane.measure.lengths import length_text, size_text
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.ui.bench_sheet import Meaning
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.tools import Handles
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.compose.view import compose_overlays, compose_view
from yarrow_lane.ui.workroom import Workroom

_NUDGE = 0.01  # of the crop's width for one arrow: our choice
_ARROWS = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1)}


class ComposePage(RoomPage):
    """Door 2."""

    door = "Compose"

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.crop_view = PictureView("The crop")
        self.handles = Handles(self._preview, self._dragged)
        self.crop_view.tool = self.handles
        self.picture = self.crop_view
        box = QVBoxLayout(self.table)
        box.setContentsMargins(0, 0, 0, 0)
        box.addWidget(self.crop_view)
        self.series: Series = "metric"
        self.nearest = False
        self.pending: Compose | None = None  # what is proposed while later work waits for an answer
        self._shown_id = ""
        self._half = (0.0, 0.0)
        workroom.judging.judged.connect(self._judged)  # a method: it is let go with the page, a closure would outlive it

    def _judged(self) -> None:
        self.workroom.guard.attempt(self._measured)

    def _measured(self) -> None:
        if self.commission_id and self.isVisible() and not self.handles.dragging:
            self.refresh()

    def opened(self) -> None:
        self._shown_id, self.pending, self._half, self.nearest = "", None, (0.0, 0.0), False
        name = self.commission.compose.format_name
        self.series = next((f.series for f in stock_formats() if f"{f.series} {f.name}" == name), "metric")
        if not name and self.studio.unit == "in":
            self.series = "inch"

    @property
    def shown(self) -> Compose:
        """What is on the table: the composition on record, or the one proposed."""
        return self.pending or self.commission.compose

    def refresh(self) -> None:
        act = self.next_act(self._lay_or_go)
        photo = to_frame(self.shown, self.commission.intake)
        evidence = self.workroom.judging.evidence((photo,) if photo is not None else ())
        view = compose_view(
            self.commission, self.shown, self.studio, self.series, self._half, evidence, self.nearest, self, act
        )
        self._show_photo(view.photo)
        self.handles.show(view.crop)
        if not self.handles.dragging:
            self.crop_view.show_overlays(*view.overlays)
            self.crop_view.update()
        self.show_sheets(view.bench, view.choices)

    def _show_photo(self, photo: Photo | None) -> None:
        if photo is None:
            self._shown_id = ""
            words = "No photograph yet: take the client's photographs in at Intake, then frame one here."
            self.crop_view.waiting = words
            self.crop_view.show_levels(None, (1, 1))
            return
        size = (photo.width_px, photo.height_px)
        if photo.id != self._shown_id:
            self._shown_id = photo.id
            self.crop_view.waiting = f"Reading {photo.name}…"
            self.crop_view.show_levels(None, size)
        elif self.crop_view.levels is not None:
            return

        def ready(shown: Shown) -> None:
            if self._shown_id == photo.id:
                self.crop_view.show_levels(shown.levels, size)

        self.workroom.pictures.photo(photo.id, photo.name, self, ready)

    # --- what a change would be

    def _propose(self, label: str, compose: Compose) -> None:
        """Take another composition; while later work waits for an answer it is shown as proposed."""
        self.pending = compose

        def answered(_: bool) -> None:
            self.pending = None

        self.propose(self._proposal(label, compose), answered)
        self.refresh()

    @staticmethod
    def _proposal(label: str, compose: Compose) -> Proposal:
        return Proposal(label, "Compose", lambda c: recompose(c, compose))

    def _framed_size(self) -> Point | None:
        laid = self.shown.background
        photo = next((p for p in self.commission.intake.photos if laid and p.id == laid.photo_id), None)
        return (photo.width_px, photo.height_px) if photo else None

    def _reframed(self, width_px: float, centre: Point) -> Compose:
        photo = to_frame(self.shown, self.commission.intake)
        if photo is None:
            raise ComposeTrouble("The crop was not laid", "there is no photograph", "take photographs in at Intake first")
        return frame(self.shown, photo.id, (photo.width_px, photo.height_px), width_px, centre)

    def _preview(self, width_px: float, centre: Point) -> Rect | None:
        laid = self._reframed(width_px, centre).background
        if laid is not None:
            self.crop_view.show_overlays(*compose_overlays(laid.crop))
        return laid.crop if laid else None

    def _dragged(self, width_px: float, centre: Point) -> None:
        self.workroom.guard.attempt(lambda: self._propose("Laid the crop", self._reframed(width_px, centre)))

    def _lay_largest(self, photo: Photo) -> Compose:
        size = (photo.width_px, photo.height_px)
        return frame(self.shown, photo.id, size, largest_crop_width(self.shown, size), (size[0] / 2, size[1] / 2))

    def _resized(self, width_mm: float, height_mm: float, name: str) -> Proposal:
        label = f"Chose {size_text(width_mm, height_mm, self.studio.unit)}"
        return self._proposal(label, set_size(self.shown, width_mm, height_mm, name, self._framed_size()))

    # --- what the bench asks for

    def show_nearest(self, wanted: bool) -> None:
        """Draw the stock sizes nearest to the crop on the photograph, or the thirds."""
        self.nearest = wanted
        self.refresh()

    def take_near(self, near: Near) -> Proposal:
        """The canvas in another size, its crop as it was drawn."""
        c = near.composed
        return self._proposal(f"Chose {size_text(c.width_mm, c.height_mm, self.studio.unit)}", c)

    def show_series(self, series: Series) -> None:
        self.series = series
        self.refresh()

    def choose_format(self, name: str) -> Proposal:
        chosen = next(f for f in stock_formats() if f"{f.series} {f.name}" == name)
        width, height = (chosen.long_mm, chosen.short_mm) if self.shown.lies else (chosen.short_mm, chosen.long_mm)
        return self._resized(width, height, name)

    def own_width(self, width_mm: float) -> Meaning:
        return self._own_side(width_mm, self.shown.height_mm or self._half[1], (width_mm, self._half[1]), "height")

    def own_height(self, height_mm: float) -> Meaning:
        return self._own_side(self.shown.width_mm or self._half[0], height_mm, (self._half[0], height_mm), "width")

    def _own_side(self, width_mm: float, height_mm: float, half: tuple[float, float], other: str) -> Meaning:
        if width_mm and height_mm:
            self._half = (0.0, 0.0)
            return self._resized(width_mm, height_mm, "")
        self._half = half
        length = length_text(width_mm or height_mm, self.studio.unit)
        self.workroom.say(f"{length}; now write the {other}.", False)
        return None

    def turn(self, lie: str) -> Meaning:
        if lie == lie_word(self.shown.width_mm, self.shown.height_mm):
            return None
        return self._proposal(f"Turned the canvas {lie}", turn(self.shown, self._framed_size()))

    def lay_on(self, photo_id: str) -> Meaning:
        photo = self.commission.intake.photo(photo_id)
        return self._proposal(f"Laid the crop on {photo.name}", self._lay_largest(photo))

    def _lay_or_go(self) -> Meaning:
        if not self.shown.sized:
            self.bench.point_at("Stock size")
            return None
        photo = to_frame(self.shown, self.commission.intake)
        if photo is None:
            self.go_to("Intake")
            return None
        return self._proposal(f"Laid the crop on {photo.name}", self._lay_largest(photo))

    def key(self, event: QKeyEvent) -> bool:
        laid = self.shown.background
        step = _ARROWS.get(Qt.Key(event.key()))
        if laid is None or not self.shown.sized or (step is None and event.text() not in ("+", "-")):
            return False
        crop = laid.crop
        if step is not None:
            far = crop.width * _NUDGE * (5 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1)
            wanted = crop.width, (crop.centre[0] + step[0] * far, crop.centre[1] + step[1] * far)
        else:
            wanted = crop.width * (1 + 2 * _NUDGE if event.text() == "+" else 1 - 2 * _NUDGE), crop.centre
        self._propose("Moved the crop", self._reframed(*wanted))
        return True
