"""A sketch of the painter's own, scanned or photographed from paper: its corners, then its lines on the canvas."""

from dataclasses import replace
from typing import TYPE_CHECKING

from yarrow_lane.canvas_photo.taken import Taken, with_corner
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.plane import Point
from yarrow_lane.measure.raster import Picture
from yarrow_lane.transfer.record import TRANSFER
from yarrow_lane.ui.bench_sheet import Fact, Line, Meaning, NextAct, Note, Press, Section
from yarrow_lane.ui.kit.levels import Levels, qimage
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.rooms.transfer.asked import Asked
from yarrow_lane.ui.rooms.transfer.mode import Sheets
from yarrow_lane.ui.rooms.transfer.on_photo import PhotoCorners, Source, chosen_file, corners_section, take_in

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.transfer.page import TransferPage

_PX_PER_MM = 4.0  # what 100 px per inch show, on 50 cm; larger canvases are drawn in larger strokes: our choice
_CLEANING = "Straightening and cleaning the sketch…"


class SketchOnPaper:
    """On one view: first the corners, then `clean`, the sketch as it will be on the canvas."""

    def __init__(self, page: "TransferPage", view: PictureView) -> None:
        self._page, self._view = page, view
        self._corners = PhotoCorners(view, page, self._corner_moved)
        self._cleaning: Asked[Picture] = Asked(page, "transfer.question:clean_sketch", lambda clean: clean.nbytes)
        self._set = False  # the corners were accepted

    def opened(self) -> None:
        """Another commission came in."""
        self._cleaning.forget()
        self._set = self._page.commission.transfer.sketch is not None
        self._corners.forget()

    def left(self) -> None:
        """Something else is shown on the view."""
        self._corners.forget()

    @property
    def _size(self) -> Point:
        compose = self._page.commission.compose
        return compose.width_mm, compose.height_mm

    def take(self, source: Source, name: str) -> None:
        """Keep that picture as the sketch."""
        page, commission_id = self._page, self._page.commission_id

        def kept(photo: Taken) -> None:
            self._set = False
            self._cleaning.forget()
            self._corners.forget()
            page.desk.do(commission_id, Edit(TRANSFER, f"Took a sketch in: {name}", lambda t: replace(t, sketch=photo)))

        take_in(page, source, name, self._size, kept)

    def refresh(self) -> Sheets | None:
        """What is shown until the sketch lies on the canvas; None once it does."""
        photo = self._page.commission.transfer.sketch
        if photo is None:
            self._view.tool = None
            self._view.setProperty("reference", "")
            self._view.waiting = "Draw on paper first, as large or small as you like, then scan or photograph it."
            self._view.show_levels(None, (1, 1))
            self._view.show_overlays()
            note = Note("It is straightened, scaled to the canvas and cleaned of paper and shadow; then printed over sheets.")
            act = NextAct("Choose the sketch…", "its four corners in the picture", self._choose)
            return Sheets((Section("A sketch of yours", (note,)),), (), act)
        if not self._set:
            self._corners.show(photo)
            act = NextAct("Lay it on the canvas", "its corners become the canvas's", self._accept)
            return Sheets((corners_section("the sketch", "its top left"), self.section()), (), act)
        self._corners.forget()
        self._want(photo)
        self._view.setProperty("reference", "")
        self._view.waiting = self._cleaning.trouble or _CLEANING
        self._view.show_levels(Levels((qimage(self.clean),)) if self.clean is not None else None, self._size)
        if self._cleaning.trouble:
            act = NextAct("Look at the corners", "pull them to where they are", self._back)
            return Sheets((Section("A sketch of yours", (Note(self._cleaning.trouble, "wrong"),)),), (), act)
        return None

    def section(self) -> Section:
        """The sketch on the bench."""
        photo = self._page.commission.transfer.sketch
        assert photo is not None
        rows: list[Line] = [
            Fact("Sketch", photo.name),
            Press("Set its corners again", self._back),
            Press("Choose another sketch…", self._choose),
        ]
        return Section("A sketch of yours", tuple(rows))

    def _choose(self) -> Meaning:
        path = chosen_file(self._page, "Choose the sketch")
        if path is not None:
            self.take(path, path.name)
        return None

    def _accept(self) -> Meaning:
        self._set = True
        self._page.refresh()
        return None

    def _back(self) -> Meaning:
        self._set = False
        self._cleaning.forget()
        self._page.refresh()
        return None

    def _corner_moved(self, number: int, to: Point) -> None:
        photo = self._page.commission.transfer.sketch
        if photo is not None:
            moved = with_corner(photo, number, to)
            edit = Edit(TRANSFER, "Set a corner of the sketch", lambda t: replace(t, sketch=moved))
            self._page.attempt(lambda: self._page.take(edit))

    def _want(self, photo: Taken) -> None:
        size, pictures = self._size, self._page.workroom.pictures
        px_per_mm = _PX_PER_MM / max(1.0, max(size) / 500)

        def arguments() -> tuple[object, ...]:
            return (pictures.file(photo.photo_id, photo.name), photo.name, photo.corners), size, px_per_mm

        self._cleaning.want(photo.photo_id, (photo.photo_id, photo.corners, size), arguments)

    @property
    def clean(self) -> Picture | None:
        """The sketch as it will be on the canvas, once it is."""
        return self._cleaning.found
