"""Squares, lines and prints written to files beside the window's own work, and noted as printed."""

from collections.abc import Callable
from typing import TYPE_CHECKING

from yarrow_lane.compose.reference import reference_key, working_px_per_mm
from yarrow_lane.documents.print_plan import PRINT_PX_MM, plan_print
from yarrow_lane.lane.happening import Printed
from yarrow_lane.measure.progress import Progress
from yarrow_lane.transfer.crossings import crossings, to_tick
from yarrow_lane.transfer.squares import Squares
from yarrow_lane.ui.rooms.transfer.squares_view import quartered_of

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.transfer.page import TransferPage

_MOST_PX = 1_000_000  # no limit of px but that of the photograph


def write(
    page: "TransferPage", title: str, about: str, ending: str, make: Callable[[Progress], bytes], noted: str = ""
) -> None:
    """Ask where it goes, make it off the interface's thread, write it; `noted` is what the log says was printed."""
    c = page.commission
    path = page.choose_file(title, f"{c.brief.title} {about}", ending)
    if path is None:
        return

    def done(data: bytes) -> None:
        page.workroom.write_file(path, data)
        if noted:
            page.desk.happen(c.id, Printed(page.workroom.now, noted, reference_key(c.compose)), "Transfer")
        page.workroom.say(f"Written to {path}.", False)

    page.workroom.works.run(title, make, done)


def _print_scale(page: "TransferPage", squares: Squares) -> float:
    """Px per canvas mm for a print of the whole on one sheet."""
    c = page.commission
    plan = plan_print(squares, c.transfer.paper)
    return min(PRINT_PX_MM * plan.scale, working_px_per_mm(c.compose, _MOST_PX))


def save_sheets(page: "TransferPage", squares: Squares) -> None:
    """The squared reference, its lines and every measure, as PDF."""
    c, unit, lines = page.commission, page.studio.unit, page.lines or ()
    px_per_mm = _print_scale(page, squares)
    ticks = to_tick(crossings(lines, squares), squares, quartered_of(c, squares, lines))

    def make(progress: Progress) -> bytes:
        from yarrow_lane.documents.squares_sheet import squares_sheet  # reportlab is loaded with the first document

        picture = page.workroom.references.for_print(c.compose, c.compose.canvas, px_per_mm, progress)
        return squares_sheet(c.brief.title, picture, squares, c.transfer.paper, unit, lines, ticks)

    write(page, "Save the squares", "squares", ".pdf", make, f"squares on {c.transfer.paper}")


def save_png(page: "TransferPage", squares: Squares) -> None:
    """The squared reference at print resolution."""
    c, px_per_mm = page.commission, _print_scale(page, squares)
    width_mm = plan_print(squares, c.transfer.paper).width_mm

    def make(progress: Progress) -> bytes:
        from yarrow_lane.documents.squared_picture import squared_png

        picture = page.workroom.references.for_print(c.compose, c.compose.canvas, px_per_mm, progress)
        return squared_png(picture, squares, width_mm)

    write(page, "Save the squared picture", "squares", ".png", make, "the squared picture")


def save_svg(page: "TransferPage", squares: Squares | None) -> None:
    """Lines at true size, with the squares where there are some."""
    c, lines = page.commission, page.lines or ()

    def make(_: Progress) -> bytes:
        from yarrow_lane.documents.lines_svg import lines_svg

        return lines_svg(c.brief.title, c.compose.width_mm, c.compose.height_mm, lines, squares)

    write(page, "Save the lines", "lines", ".svg", make)
