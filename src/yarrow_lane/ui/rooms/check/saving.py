"""What Check prints and writes: the grey frame, strips, the film and its frames."""

from collections.abc import Callable, Sequence
from pathlib import Path
from typing import TYPE_CHECKING

from yarrow_lane.check.strips import Strip
from yarrow_lane.compose.reference import working_px_per_mm
from yarrow_lane.documents.print_plan import PRINT_PX_MM
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.raster import Picture
from yarrow_lane.ui.written import write

if TYPE_CHECKING:
    from yarrow_lane.documents import grey_frame, strips_sheet
    from yarrow_lane.ui.rooms.check.page import CheckPage
else:
    grey_frame, strips_sheet = late("yarrow_lane.documents.grey_frame"), late("yarrow_lane.documents.strips_sheet")

_NO_LIMIT_PX = 1_000_000  # the photograph itself is the limit


def save_frame(page: "CheckPage") -> None:
    """The grey frame of this canvas's size as PDF."""
    c = page.commission
    size, paper = (c.compose.width_mm, c.compose.height_mm), c.transfer.paper
    write(
        page, "The grey frame", "grey frame", ".pdf", lambda _: grey_frame.grey_frame(c.brief.title, size, paper), "grey frame"
    )


def save_strips(page: "CheckPage", strips: Sequence[Strip]) -> None:
    """The strips at true size as PDF."""
    c = page.commission
    px_per_mm = min(PRINT_PX_MM, working_px_per_mm(c.compose, _NO_LIMIT_PX))

    def make(progress: Progress) -> bytes:
        def part(area: Rect) -> Picture:
            return page.workroom.references.for_print(c.compose, area, px_per_mm, progress)

        size = (c.compose.width_mm, c.compose.height_mm)
        return strips_sheet.strips_sheet(c.brief.title, strips, size, c.transfer.paper, part)

    write(page, "Strips of the reference", "strips", ".pdf", make, "strips")


def save_frames(page: "CheckPage", make: Callable[[Progress], Sequence[bytes]]) -> None:
    """Every frame as a numbered PNG beside the name that is chosen."""
    c = page.commission
    path = page.choose_file("Frames of the film", f"{c.brief.title} 01", ".png")
    if path is None:
        return

    def done(frames: Sequence[bytes]) -> None:
        stem = path.stem.removesuffix("01").rstrip()
        for number, data in enumerate(frames, 1):
            page.workroom.write_file(Path(path.parent, f"{stem} {number:02d}.png"), data)
        page.workroom.say(f"{len(frames)} frames written to {path.parent}.", False)

    page.workroom.works.run("Frames of the film", make, done)
