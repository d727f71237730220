"""A photograph of the canvas: taken in, and shown with its four corners as handles."""

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING, Literal

from PySide6.QtWidgets import QFileDialog

from yarrow_lane.canvas_photo.taken import Taken, usual_corners
from yarrow_lane.lane.happening import Photographed, of_kind
from yarrow_lane.measure.plane import Point, Polygon, Rect
from yarrow_lane.measure.progress import Progress
from yarrow_lane.ui.bench_sheet import Note, Section
from yarrow_lane.ui.file_words import ENDINGS
from yarrow_lane.ui.kit.drawing_tools import CornersTool
from yarrow_lane.ui.kit.overlays import Outline
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.pictures import Shown

if TYPE_CHECKING:
    from yarrow_lane.ui.room_page import RoomPage

Source = Path | bytes
_NEAR = 0.09  # of the photograph's longer side, about a corner looked at closely: our choice


def chosen_file(page: "RoomPage", title: str) -> Path | None:
    """Ask for a picture."""
    name, _ = QFileDialog.getOpenFileName(page, title, str(Path.home()), ENDINGS)
    return Path(name) if name else None


def take_in(page: "RoomPage", source: Source, name: str, size_mm: Point, kept: Callable[[Taken], None]) -> None:
    """Keep the picture and look for a surface of that size in it; `kept` hears of it, with corners to be pulled right."""
    workroom = page.workroom

    def work(progress: Progress) -> Taken:
        photo_id, facts = workroom.photographs.keep_picture(source, name, progress)
        size = facts.width_px, facts.height_px
        path = workroom.pictures.file(photo_id, name)
        found: Polygon | None = workroom.workers.ask(
            "transfer.question:suggest_corners", path, name, size_mm, progress=progress
        )
        return Taken(photo_id, name, size, workroom.now, found or usual_corners(*size, *size_mm))

    workroom.works.run(f"Reading {name}", work, kept)


def note_photograph(page: "RoomPage", photo: Taken, purpose: Literal["drawing", "marks", "crosses"], bulge: float) -> None:
    """Log the photograph once it was measured: with its corners, the lens's bulge and what it was for."""
    known = [(h.photo_id, h.corners) for h in of_kind(page.commission.log, Photographed) if h.purpose == purpose]
    if (photo.photo_id, photo.corners) not in known:
        happened = Photographed(page.workroom.now, photo.photo_id, photo.name, purpose, photo.corners, round(bulge, 5))
        page.desk.happen(page.commission_id, happened, page.door)


def corners_section(of: str, clockwise_from: str) -> Section:
    """How corners are set."""
    pull = f"Where {of} seems to lie is a guess: pull each corner right, clockwise from {clockwise_from}, or click: the nearest follows. The wheel enlarges."
    return Section(
        "The corners",
        (
            Note(pull),
            Note("A stretched canvas shows its depth too: the inner edge is the face's. The sides are fitted from there."),
        ),
    )


class PhotoCorners:
    """On one view; `moved(number, to)` is told when a corner was put elsewhere."""

    def __init__(self, view: PictureView, page: "RoomPage", moved: Callable[[int, Point], None]) -> None:
        self._view, self._page = view, page
        self._shown, self._near = "", -1  # the photograph, and the corner looked at closely
        self.tool = CornersTool(self._moving, moved)

    def forget(self) -> None:
        """Something else is shown on the view."""
        self._shown, self._near = "", -1

    def walk(self, step: int) -> None:
        """The next corner, enlarged."""
        if self.tool.points:
            self._near = (
                (self._near + step) % len(self.tool.points)
                if self._near >= 0
                else 0
                if step > 0
                else -1 % len(self.tool.points)
            )
            (x, y), wide = self.tool.points[self._near], _NEAR * max(self._view.content)
            self._view.fit(Rect(x - wide / 2, y - wide / 2, wide, wide))

    def whole(self) -> bool:
        """All of the photograph again; whether a corner was looked at."""
        was, self._near = self._near, -1
        if was >= 0:
            self._view.frame.fit()
        return was >= 0

    def show(self, photo: Taken) -> None:
        """The photograph with its corners."""
        self.tool.points = photo.corners
        self._view.tool, self._view.ground = self.tool, None
        self._view.show_overlays(Outline(photo.corners, "here", 1.6))
        if self._shown == photo.photo_id:
            return
        self._shown = photo.photo_id
        self._view.setProperty("reference", "")
        self._view.waiting = f"Reading {photo.name}…"
        self._view.show_levels(None, photo.size_px)

        def ready(shown: Shown) -> None:
            if self._shown == photo.photo_id:
                self._view.show_levels(shown.levels, photo.size_px)

        self._page.workroom.pictures.photo(photo.photo_id, photo.name, self._page, ready)

    def _moving(self, number: int, to: Point) -> None:
        corners = tuple(to if n == number else c for n, c in enumerate(self.tool.points))
        self.tool.points = corners
        self._view.show_overlays(Outline(corners, "here", 1.6))
