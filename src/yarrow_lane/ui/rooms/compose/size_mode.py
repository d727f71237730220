"""Size and crop: the canvas, and the part of the photograph that fills it; what they do to later work is shown before."""

from collections.abc import Callable
from dataclasses import replace
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent

from yarrow_lane.commission.recompose import Proposal
from yarrow_lane.compose.composition import Compose, ComposeTrouble, frame, largest_crop_width, set_size, turn
from yarrow_lane.compose.formats import Series, stock_formats
from yarrow_lane.compose.nearest import Near
from yarrow_lane.compose.rack import Rack, Stretched, count, like, of_composition, put, words
from yarrow_lane.compose.standing import lie_word, to_frame
from yarrow_lane.intake.photos import Photo
from yarrow_lane.measure.lengths import length_text, size_text
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.ui.bench_sheet import Meaning
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.tools import Handles
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.rooms.compose.mode import Mode, Sheets
from yarrow_lane.ui.rooms.compose.view import Mine, compose_overlays, compose_view

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.compose.page import ComposePage

_NUDGE = 0.01  # of the crop's width for one arrow: our choice
_ARROWS = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1)}


class SizeMode(Mode):
    """The photograph with the crop on it."""

    name = "size and crop"

    def __init__(self, page: "ComposePage") -> None:
        super().__init__(page)
        self.view = PictureView("The crop")
        self.handles = Handles(self._preview, self._dragged)
        self.view.tool = self.handles
        self.widget = self.picture = self.view
        self.series: Series | Mine = "metric"
        self.support = "linen"
        self.nearest = False
        self._shown_id = ""
        self._half = (0.0, 0.0)

    def opened(self) -> None:
        self._shown_id, self._half, self.nearest = "", (0.0, 0.0), False
        name = self.page.commission.compose.format_name
        self.series = next((f.series for f in stock_formats() if f"{f.series} {f.name}" == name), "metric")
        if not name and self.page.studio.unit == "in":
            self.series = "inch"

    @property
    def _shown(self) -> Compose:
        return self.page.shown

    def refresh(self) -> Sheets:
        page = self.page
        act = page.next_act(self.lay_or_go)
        photo = to_frame(self._shown, page.commission.intake)
        evidence = page.workroom.judging.evidence((photo,) if photo is not None else ())
        view = compose_view(
            page.commission, self._shown, page.studio, self.series, self._half, evidence, self.nearest, self.support,
            page.size_to_take, self,
        )  # fmt: skip
        self._show_photo(view.photo)
        self.handles.show(view.crop)
        if not self.handles.dragging:
            self.view.show_overlays(*view.overlays)
            self.view.update()
        return Sheets(view.sections, view.switches, act)

    def _show_photo(self, photo: Photo | None) -> None:
        if photo is None:
            self._shown_id = ""
            words = "No photograph yet: take the client's photographs in at Intake, then frame one here."
            self.view.waiting = words
            self.view.show_levels(None, (1, 1))
            return
        size = (photo.width_px, photo.height_px)
        if photo.id != self._shown_id:
            self._shown_id = photo.id
            self.view.waiting = f"Reading {photo.name}…"
            self.view.show_levels(None, size)
        elif self.view.levels is not None:
            return

        def ready(shown: Shown) -> None:
            if self._shown_id == photo.id:
                self.view.show_levels(shown.levels, size)

        self.page.workroom.pictures.photo(photo.id, photo.name, self.page, ready)

    # --- what a change would be

    def _framed_size(self) -> Point | None:
        laid = self._shown.background
        photo = next((p for p in self.page.commission.intake.photos if laid and p.id == laid.photo_id), None)
        return (photo.width_px, photo.height_px) if photo else None

    def _reframed(self, width_px: float, centre: Point) -> Compose:
        photo = to_frame(self._shown, self.page.commission.intake)
        if photo is None:
            raise ComposeTrouble("The crop was not laid", "there is no photograph", "take photographs in at Intake first")
        return frame(self._shown, photo.id, (photo.width_px, photo.height_px), width_px, centre)

    def _preview(self, width_px: float, centre: Point) -> Rect | None:
        laid = self._reframed(width_px, centre).background
        if laid is not None:
            self.view.show_overlays(*compose_overlays(laid.crop))
        return laid.crop if laid else None

    def _dragged(self, width_px: float, centre: Point) -> None:
        self.page.attempt(lambda: self.page.propose_compose("Laid the crop", self._reframed(width_px, centre)))

    def _lay_largest(self, photo: Photo) -> Compose:
        size = (photo.width_px, photo.height_px)
        return frame(self._shown, photo.id, size, largest_crop_width(self._shown, size), (size[0] / 2, size[1] / 2))

    def _resized(self, width_mm: float, height_mm: float, name: str) -> Proposal:
        label = f"Chose {size_text(width_mm, height_mm, self.page.studio.unit)}"
        return self.page.proposal(label, set_size(self._shown, width_mm, height_mm, name, self._framed_size()))

    # --- what the bench asks for

    def show_nearest(self, wanted: bool) -> None:
        """Draw the stock sizes nearest to the crop on the photograph, or the thirds."""
        self.nearest = wanted
        self.page.refresh()

    def take_near(self, near: Near) -> Proposal:
        """The canvas in another size, its crop as it was drawn."""
        c = near.composed
        return self.page.proposal(f"Chose {size_text(c.width_mm, c.height_mm, self.page.studio.unit)}", c)

    # --- the rack

    def take_stretched(self, one: Stretched) -> Proposal:
        """The canvas of the rack, lying as the canvas lies now, as deep as it is."""
        width, height = (one.long_mm, one.short_mm) if self._shown.lies else (one.short_mm, one.long_mm)
        sized = set_size(self._shown, width, height, "", self._framed_size())
        deep = replace(sized, sides=replace(sized.sides, depth_mm=one.depth_mm))
        return self.page.proposal(f"Took {words(one, self.page.studio.unit)}", deep)

    def count_stretched(self, one: Stretched, left: float) -> None:
        self._change_rack(f"{round(left)} left of {words(one, self.page.studio.unit)}", lambda r: count(r, one, round(left)))

    def write_support(self, text: str) -> None:
        self.support = text

    def put_on_rack(self) -> None:
        self.page.bench.store_pending()
        one = of_composition(self._shown, self.support)
        self._change_rack(f"Put {words(one, self.page.studio.unit)} on the rack", lambda r: put(r, one))

    def like_size(self, wanted: bool) -> None:
        name = self._shown.format_name
        self._change_rack(f"{'One' if wanted else 'None'} of my sizes: {name}", lambda r: like(r, name, wanted))

    def _change_rack(self, label: str, step: Callable[[Rack], Rack]) -> None:
        self.page.desk.do_studio(label, lambda s: replace(s, rack=step(s.rack)))
        if self.series == "mine" and not self.page.studio.rack.favourites:
            self.series = "metric"
        self.page.refresh()

    def show_series(self, series: Series | Mine) -> None:
        self.series = series
        self.page.refresh()

    def choose_format(self, name: str) -> Proposal:
        chosen = next(f for f in stock_formats() if f"{f.series} {f.name}" == name)
        width, height = (chosen.long_mm, chosen.short_mm) if self._shown.lies else (chosen.short_mm, chosen.long_mm)
        return self._resized(width, height, name)

    def own_width(self, width_mm: float) -> Meaning:
        return self._own_side(width_mm, self._shown.height_mm or self._half[1], (width_mm, self._half[1]), "height")

    def own_height(self, height_mm: float) -> Meaning:
        return self._own_side(self._shown.width_mm or self._half[0], height_mm, (self._half[0], height_mm), "width")

    def _own_side(self, width_mm: float, height_mm: float, half: tuple[float, float], other: str) -> Meaning:
        if width_mm and height_mm:
            self._half = (0.0, 0.0)
            return self._resized(width_mm, height_mm, "")
        self._half = half
        length = length_text(width_mm or height_mm, self.page.studio.unit)
        self.page.workroom.say(f"{length}; now write the {other}.", False)
        return None

    def turn(self, lie: str) -> Meaning:
        if lie == lie_word(self._shown.width_mm, self._shown.height_mm):
            return None
        return self.page.proposal(f"Turned the canvas {lie}", turn(self._shown, self._framed_size()))

    def lay_on(self, photo_id: str) -> Meaning:
        photo = self.page.commission.intake.photo(photo_id)
        laid = self._lay_largest(photo)
        seen = replace(laid, ground=replace(laid.ground, kind="photograph"))
        return self.page.proposal(f"Laid the crop on {photo.name}", seen)

    def lay_or_go(self) -> Meaning:
        """What the room's own act means: take the size proposed or choose one, lay the crop, take photographs in, or answer the client."""
        if not self._shown.sized:
            proposed = self.page.size_to_take
            if proposed is not None:
                return self._resized(proposed.width_mm, proposed.height_mm, proposed.name)
            self.page.bench.point_at("Stock size")
            return None
        if self._shown.framed:
            self.page.work_on("proof")
            return None
        photo = to_frame(self._shown, self.page.commission.intake)
        if photo is None:
            self.page.go_to("Intake")
            return None
        return self.page.proposal(f"Laid the crop on {photo.name}", self._lay_largest(photo))

    def key(self, event: QKeyEvent) -> bool:
        laid = self._shown.background
        step = _ARROWS.get(Qt.Key(event.key()))
        if laid is None or not self._shown.sized or (step is None and event.text() not in ("+", "-")):
            return False
        crop = laid.crop
        if step is not None:
            far = crop.width * _NUDGE * (5 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1)
            wanted = crop.width, (crop.centre[0] + step[0] * far, crop.centre[1] + step[1] * far)
        else:
            wanted = crop.width * (1 + 2 * _NUDGE if event.text() == "+" else 1 - 2 * _NUDGE), crop.centre
        self.page.propose_compose("Moved the crop", self._reframed(*wanted))
        return True
