"""The compose page: size, turn and crop."""

from dataclasses import replace

from PySide6.QtWidgets import QVBoxLayout

from yarrow_lane.compose.canvas import Compose, frame, largest_crop_width, set_size, turn
from yarrow_lane.compose.formats import Series, stock_formats
from yarrow_lane.intake.photos import Photo
from yarrow_lane.measure.lengths import length_text, parse_length, size_text
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.compose.crop_canvas import CropCanvas
from yarrow_lane.ui.rooms.compose.view import compose_view, lead_to_frame
from yarrow_lane.ui.workroom import Workroom


class ComposePage(RoomPage):
    """Door 2."""

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.canvas = CropCanvas()
        self.canvas.framed.connect(self._frame)
        self.canvas.preview = self._preview
        box = QVBoxLayout(self.table)
        box.setContentsMargins(0, 0, 0, 0)
        box.addWidget(self.canvas)
        self.series: Series = "metric"
        self._shown_id = ""
        self._pending: dict[str, float] = {}

    def opened(self) -> None:
        self._shown_id = ""
        self._pending = {}
        name = self.commission.compose.format_name
        self.series = next((f.series for f in stock_formats() if f"{f.series} {f.name}" == name), "metric")
        if not name and self.studio.unit == "in":
            self.series = "inch"

    def refresh(self) -> None:
        view = compose_view(self.commission, self.studio, self.series)
        self._show_photo(view.photo)
        self.canvas.show_crop(self.commission.compose.crop if self.commission.compose.framed else None)
        self.show_sheets(view.bench, view.choices)

    def _show_photo(self, photo: Photo | None) -> None:
        if photo is None:
            self._shown_id = ""
            self.canvas.waiting = "No photograph yet: take the client's photographs in at Intake, then frame one here."
            self.canvas.show_levels(None, (1, 1))
            return
        if photo.id == self._shown_id:
            return
        self._shown_id = photo.id
        size = (photo.width_px, photo.height_px)
        self.canvas.waiting = f"Reading {photo.name}…"
        self.canvas.show_levels(None, size)

        def ready(shown: Shown) -> None:
            if self._shown_id == photo.id:
                self.canvas.show_levels(shown.levels, size)

        self.workroom.pictures.photo(photo.id, photo.name, ready)

    def _size_of(self, photo: Photo | None) -> Point | None:
        return (photo.width_px, photo.height_px) if photo else None

    def _framed(self, compose: Compose, width_px: float, centre: Point) -> Compose:
        photo = lead_to_frame(self.commission)
        assert photo is not None
        return frame(compose, photo.id, (photo.width_px, photo.height_px), width_px, centre)

    def _preview(self, width_px: float, centre: Point) -> Rect | None:
        return self._framed(self.commission.compose, width_px, centre).crop

    def _frame(self, width_px: float, centre: Point) -> None:
        self.workroom.attempt(
            lambda: self.desk.do_part(
                self.commission_id, "Laid the crop", "compose", lambda c: self._framed(c, width_px, centre)
            )
        )

    def _lay_largest(self, photo: Photo) -> None:
        size = (photo.width_px, photo.height_px)

        def step(compose: Compose) -> Compose:
            most = largest_crop_width(compose, size)
            return frame(compose, photo.id, size, most, (size[0] / 2, size[1] / 2))

        self.desk.do_part(self.commission_id, f"Laid the crop on {photo.name}", "compose", step)

    def _resize(self, width_mm: float, height_mm: float, name: str) -> None:
        c = self.commission
        label = f"Chose {size_text(width_mm, height_mm, self.studio.unit)}"
        size = self._size_of(c.photo)
        self.desk.do(
            c.id, label, "Compose",
            lambda now: replace(
                now,
                compose=set_size(now.compose, width_mm, height_mm, name, size),
                # Another shape of canvas is another lattice: squares drawn before mean nothing on it.
                transfer=replace(now.transfer, drawn=()),
            ),
        )  # fmt: skip

    def choose(self, key: str, value: str) -> None:
        if key == "series":
            self.series = value  # type: ignore[assignment]
            self.refresh()
        elif key == "turn":
            now = self.commission.compose
            lying = now.width_mm > now.height_mm
            if lying != (value == "lying"):
                size = self._size_of(self.commission.photo)
                self.desk.do(
                    self.commission_id, f"Turned the canvas {value}", "Compose",
                    lambda c: replace(c, compose=turn(c.compose, size), transfer=replace(c.transfer, drawn=())),
                )  # fmt: skip
            self.refresh()

    def change(self, key: str, value: object) -> None:
        if key == "format":
            chosen = next(f for f in stock_formats() if f"{f.series} {f.name}" == value)
            lying = self.commission.compose.width_mm > self.commission.compose.height_mm
            width, height = (chosen.long_mm, chosen.short_mm) if lying else (chosen.short_mm, chosen.long_mm)
            self._resize(width, height, str(value))
        elif key == "photo":
            self._lay_on(str(value))
        elif key in ("width", "height"):
            self._own_size(key, str(value))

    def _lay_on(self, photo_id: str) -> None:
        photo = self.commission.intake.photo(photo_id)
        if self.commission.compose.sized:
            self._lay_largest(photo)
        else:
            self.workroom.say("Choose the size first; the crop is laid on the photograph after that.", False)
            self.refresh()

    def _own_size(self, key: str, text: str) -> None:
        length = parse_length(text, self.studio.unit)
        now = self.commission.compose
        if now.sized:
            width, height = (length, now.height_mm) if key == "width" else (now.width_mm, length)
            self._resize(width, height, "")
            return
        self._pending[key] = length
        if len(self._pending) == 2:
            self._resize(self._pending["width"], self._pending["height"], "")
            self._pending = {}
        else:
            other = "height" if key == "width" else "width"
            self.workroom.say(f"{key.capitalize()} {length_text(length, self.studio.unit)}; now write the {other}.", False)

    def act(self) -> None:
        photo = lead_to_frame(self.commission)
        if photo is None:
            self.workroom.open_door(self.commission_id, "Intake")
        elif not self.commission.compose.framed:
            self._lay_largest(photo)
        else:
            self.workroom.open_door(self.commission_id, "Transfer")
