"""A sketch of the painter's own, scanned or photographed from paper: its corners, then its lines on the canvas."""

from dataclasses import replace
from typing import TYPE_CHECKING, Any

from yarrow_lane.canvas_photo.taken import Taken
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.raster import Picture
from yarrow_lane.transfer.record import TRANSFER
from yarrow_lane.ui.bench_sheet import Fact, Line, Press, Section
from yarrow_lane.ui.kit.levels import single_level
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.rooms.transfer.mode import Sheets
from yarrow_lane.ui.rooms.transfer.straightened_photo import PhotoWords, StraightenedPhoto

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.transfer.page import TransferPage

_PX_PER_MM = 4.0  # what 100 px per inch show, on 50 cm; larger canvases are drawn in larger strokes: our choice
_WORDS = PhotoWords(
    "A sketch of yours",
    "Choose the sketch",
    "its four corners in the picture",
    "Draw on paper first, as large or small as you like, then scan or photograph it.",
    "It is straightened, scaled to the canvas and cleaned of paper and shadow; then printed over sheets.",
    "the sketch",
    "its top left",
    ("Lay it on the canvas", "its corners become the canvas's"),
    "Straightening and cleaning the sketch…",
)


class SketchOnPaper(StraightenedPhoto[Picture]):
    """On record with the commission; found is the sketch as it will be on the canvas."""

    def __init__(self, page: "TransferPage", view: PictureView) -> None:
        super().__init__(page, view, _WORDS, "transfer.question:clean_sketch", lambda clean: clean.nbytes)

    def opened(self) -> None:
        super().opened()
        self.accepted = self.photo is not None  # what is on record was accepted once

    @property
    def photo(self) -> Taken | None:
        return self.page.commission.transfer.sketch

    def keep(self, photo: Taken, label: str) -> None:
        self.page.take(Edit(TRANSFER, label, lambda t: replace(t, sketch=photo)))

    def more_told(self) -> tuple[Any, ...]:
        return (_PX_PER_MM / max(1.0, max(self.size_mm) / 500),)

    @property
    def clean(self) -> Picture | None:
        """The sketch as it will be on the canvas, once it is."""
        return self.asked.found

    def refresh(self) -> Sheets | None:
        """What is shown until the sketch lies on the canvas; None once it does."""
        sheets = self.on_the_way()
        if sheets is None and self.clean is not None:
            self.view.setProperty("reference", "")
            self.view.show_levels(single_level(self.clean), self.size_mm)
        return sheets

    def section(self) -> Section:
        """The sketch on the bench."""
        lines: tuple[Line, ...] = (
            Fact("Sketch", self.photo.name if self.photo is not None else ""),
            Press("Set its corners again", self.to_corners),
            Press("Choose another sketch…", self.choose),
        )
        return Section(_WORDS.title, lines)
