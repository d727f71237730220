"""Pictures of the finished painting, for the web and for prints, and the commission as one open file."""

import io
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np
from PIL import Image

from yarrow_lane.deliver.gallery import USUAL_PX, gallery_jpeg
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.store.archive import write_archive
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.straight_canvas import want_canvas

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.deliver.page import DeliverPage

_FINE_DPI = 150.0  # half of what printers ask for at arm's length (300, common practice)


class Keeping:
    """Holds the straightened photograph of the finished painting while the page is open."""

    def __init__(self, page: "DeliverPage") -> None:
        self.page = page
        self.web_px, self.web_name = USUAL_PX, True
        self.canvas: Shown | None = None
        self._canvas_of = ""

    def forget(self) -> None:
        """Another commission came in."""
        self.canvas, self._canvas_of = None, ""

    def want_canvas(self) -> None:
        """The newest photograph of the painting, straightened; the page is shown again when it has come."""
        photo, compose = self.page.commission.check.newest, self.page.commission.compose
        key = photo.photo_id if photo is not None else ""
        if not compose.sized or key == self._canvas_of or photo is None:
            return
        self._canvas_of = key

        def ready(shown: Shown) -> None:
            self.canvas, self.page.papers.picture = shown, shown.picture
            self.page.refresh()

        want_canvas(self.page.workroom, photo, (compose.width_mm, compose.height_mm), self.page, ready)

    def want_web(self, px: int, name: bool) -> None:
        self.web_px, self.web_name = px, name
        self.page.refresh()

    def save_web(self) -> None:
        """A small picture of the finished painting."""
        if self.canvas is None:
            raise Trouble(
                "There is no picture of it yet",
                "the finished painting was not photographed",
                "photograph it and take it in at Check",
            )
        name = f"© {self.page.studio.painter or self.page.studio.name}" if self.web_name else ""
        data = gallery_jpeg(self.canvas.picture, self.web_px, name)
        self.page.save_file("Save a picture for the web", f"{self.page.papers.title} web", ".jpg", data)

    def save_print(self) -> None:
        """The photograph of the painting as large as it is, with its size in the file, so that a printer prints it true."""
        if self.canvas is None:
            raise Trouble(
                "There is no picture of it yet",
                "the finished painting was not photographed",
                "photograph it and take it in at Check",
            )
        picture = np.ascontiguousarray(self.canvas.picture)
        dots = picture.shape[1] / self.page.commission.compose.width_mm * 25.4
        out = io.BytesIO()
        Image.fromarray(picture).save(out, "TIFF", compression="tiff_lzw", dpi=(dots, dots))
        if dots < _FINE_DPI:
            self.page.workroom.say(f"Only {dots:.0f} dots an inch at the painting's own size: good for smaller prints.", False)
        self.page.save_file("Save a picture for prints", f"{self.page.papers.title} print", ".tif", out.getvalue())

    def save_archive(self) -> None:
        """One open file of the whole commission, written beside the window and read again before it counts."""
        c = self.page.commission
        path = self.page.choose_file("Save the commission", f"{c.brief.title} archive", ".zip")
        if path is None:
            return
        photos, papers = self.page.desk.store.photos, self.page.papers.all_pdfs()

        def work(progress: Progress) -> Path:
            write_archive(c, photos, papers, path, progress)
            return path

        self.page.workroom.works.run(
            f"Saving {c.brief.title}", work, lambda p: self.page.workroom.say(f"Written to {p}, and read again.", False)
        )
