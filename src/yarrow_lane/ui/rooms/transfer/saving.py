"""Squares, lines and prints written to files beside the window's own work, and noted as printed."""

from collections.abc import Sequence
from typing import TYPE_CHECKING

from yarrow_lane.compose.reference import working_px_per_mm
from yarrow_lane.documents.lines_svg import lines_svg
from yarrow_lane.documents.print_plan import PRINT_PX_MM, plan_print
from yarrow_lane.documents.squared_picture import squared_png
from yarrow_lane.measure.late import late
from yarrow_lane.measure.progress import Progress
from yarrow_lane.transfer.lines.line import Line
from yarrow_lane.transfer.marks.laid import LaidMarks, laid_over
from yarrow_lane.transfer.squares import Squares
from yarrow_lane.ui.rooms.transfer.squares_view import quartered_of, ticks_of
from yarrow_lane.ui.written import write

if TYPE_CHECKING:
    from yarrow_lane.documents import overlay_page, squares_sheet
    from yarrow_lane.ui.rooms.transfer.page import TransferPage
else:
    overlay_page = late("yarrow_lane.documents.overlay_page")
    squares_sheet = late("yarrow_lane.documents.squares_sheet")  # what writes PDF is loaded with the first document

_NO_LIMIT_PX = 1_000_000  # the photograph itself is the limit


def print_px_per_mm(page: "TransferPage", scale: float) -> float:
    """Px per canvas mm for a print at so much of the canvas's size: what paper shows, as far as the photograph has it."""
    return min(PRINT_PX_MM * scale, working_px_per_mm(page.commission.compose, _NO_LIMIT_PX))


def save_sheets(page: "TransferPage", squares: Squares) -> None:
    """The squared reference, its lines and every measure, as PDF."""
    c, unit, lines = page.commission, page.studio.unit, page.lines or ()
    px_per_mm = print_px_per_mm(page, plan_print(squares, c.transfer.paper).scale)
    ticks = ticks_of(lines, squares, quartered_of(c, squares, page.places(), lines))

    def make(progress: Progress) -> bytes:
        picture = page.workroom.references.for_print(c.compose, c.compose.canvas, px_per_mm, progress)
        return squares_sheet.squares_sheet(c.brief.title, picture, squares, c.transfer.paper, unit, lines, ticks)

    write(page, "Save the squares", "squares", ".pdf", make, f"squares on {c.transfer.paper}")


def save_png(page: "TransferPage", squares: Squares) -> None:
    """The squared reference at print resolution."""
    c = page.commission
    plan = plan_print(squares, c.transfer.paper)
    px_per_mm = print_px_per_mm(page, plan.scale)

    def make(progress: Progress) -> bytes:
        picture = page.workroom.references.for_print(c.compose, c.compose.canvas, px_per_mm, progress)
        return squared_png(picture, squares, plan.width_mm)

    write(page, "Save the squared picture", "squares", ".png", make, "the squared picture")


def save_svg(page: "TransferPage", squares: Squares | None, lines: Sequence[Line], about: str = "lines") -> None:
    """Lines at true size, with the squares where there are some."""
    c = page.commission

    def make(_: Progress) -> bytes:
        return lines_svg(c.brief.title, c.compose.width_mm, c.compose.height_mm, lines, squares)

    write(page, f"Save the {about}", about, ".svg", make)


def save_overlay(page: "TransferPage", laid: LaidMarks, share: float) -> None:
    """The marked canvas with the reference over it, or with its lines when `share` is 0, on one page."""
    c, lines = page.commission, page.lines or ()
    compose = c.compose
    px_per_mm = laid.picture.shape[1] / compose.width_mm

    def make(progress: Progress) -> bytes:
        picture = laid.picture
        if share > 0:
            picture = laid_over(
                picture, page.workroom.references.for_print(compose, compose.canvas, px_per_mm, progress), share
            )
        drawn = () if share > 0 else lines
        return overlay_page.overlay_page(c.brief.title, picture, (compose.width_mm, compose.height_mm), c.transfer.paper, drawn)

    write(page, "Save the marks with the reference", "over the marks", ".pdf", make, f"over the marks on {c.transfer.paper}")
