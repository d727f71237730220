"""Tracing and the print of the same size: true to the millimetre over as few sheets as it takes."""

from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING, Literal

from yarrow_lane.compose.reference import reference_key
from yarrow_lane.lane.happening import Printed, of_kind
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.raster import Picture
from yarrow_lane.transfer.carrying import carried_with
from yarrow_lane.transfer.paper import Paper
from yarrow_lane.transfer.record import TRANSFER, set_paper
from yarrow_lane.transfer.sheets import LaidSheets, SheetsTrouble, lay_on_sheets, set_right
from yarrow_lane.transfer.sketch import cut_out
from yarrow_lane.transfer.ways import Way
from yarrow_lane.ui.bench_sheet import (
    Amount,
    Fact,
    Line,
    Meaning,
    NextAct,
    Note,
    Pick,
    Press,
    Section,
    Switch,
    Tick,
    plain_options,
)
from yarrow_lane.ui.kit.overlays import Box, Words
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import show_reference
from yarrow_lane.ui.rooms.transfer.mode import Mode, Sheets
from yarrow_lane.ui.rooms.transfer.saving import print_px_per_mm, save_svg, write
from yarrow_lane.ui.rooms.transfer.sketch_paper import SketchOnPaper
from yarrow_lane.ui.rooms.transfer.squares_view import drawn_overlay
from yarrow_lane.ui.rooms.transfer.way_lines import carried_act, is_carried, way_section

if TYPE_CHECKING:
    from yarrow_lane.documents import true_size
    from yarrow_lane.ui.rooms.transfer.page import TransferPage
else:
    true_size = late("yarrow_lane.documents.true_size")  # what writes PDF is loaded with the first document

What = Literal["lines", "picture", "sketch"]
_WHAT: tuple[tuple[What, str], ...] = (("lines", "the lines"), ("picture", "the picture"), ("sketch", "a sketch of yours"))


class TracingMode(Mode):
    """The canvas with the sheets that lie on it."""

    name = "on paper"

    def __init__(self, page: "TransferPage") -> None:
        super().__init__(page)
        self.view = PictureView("How the sheets lie on the canvas", page.frame)
        self.picture = self.view
        self.lay(self.view)
        self.what: What = "lines"
        self.mirrored = False
        self.laid: LaidSheets | None = None
        self.sketch = SketchOnPaper(page, self.view)

    def opened(self) -> None:
        self.what, self.mirrored = "lines", False
        self.sketch.opened()

    def begin(self, way: Way) -> None:
        if way != self.way:
            self.what = "picture" if way == "same-size print" else "lines"

    @property
    def way(self) -> Way:
        """The way that what is printed belongs to."""
        return "same-size print" if self.what == "picture" else "tracing"

    def takes_files(self) -> bool:
        return self.what == "sketch"

    def take(self, path: Path) -> None:
        self.sketch.take(path)

    def refresh(self) -> Sheets:
        page, c = self.page, self.page.commission
        compose, transfer = c.compose, c.transfer
        size = compose.width_mm, compose.height_mm
        on_paper = Switch("On paper", _WHAT, self._print_what, self.what)
        if self.what == "sketch":
            corners = self.sketch.refresh()
            if corners is not None:
                return replace(corners, switches=(on_paper, *corners.switches))
        trouble = ""
        try:
            self.laid = lay_on_sheets(*size, transfer.paper)
        except SheetsTrouble as found:
            self.laid, trouble = None, str(found)
        if self.what == "picture":
            show_reference(self.view, page.workroom.references, compose, page)
        elif self.what == "lines":
            self.view.setProperty("reference", "")
            self.view.ground = (250, 250, 248)
            self.view.show_levels(None, size)
        lines = (drawn_overlay(page.lines, 1.2),) if page.lines and self.what == "lines" else ()
        boxes = [Box(s.part, "here", 1.4) for s in self.laid.sheets] if self.laid else []
        names = [Words((s.part.x, s.part.y), s.name, "right", (8.0, 20.0)) for s in self.laid.sheets] if self.laid else []
        self.view.show_overlays(*lines, *boxes, *names)
        self.view.tool = None
        switches = (on_paper, *page.way_switches())
        own = (self.sketch.section(),) if self.what == "sketch" else ()
        return Sheets(
            (*own, way_section(page, self.way), self._sheets(trouble), self._carry(), self._printer()), switches, self._act()
        )

    def _act(self) -> NextAct | None:
        if self.laid is None or is_carried(self.page, self.way):
            return None
        if self.what == "lines" and self.page.lines is None:
            return NextAct("Looking for the lines…", "some seconds, once for each composition", None, False)
        if self.what == "sketch" and self.sketch.clean is None:
            return NextAct("Cleaning the sketch…", "a moment", None, False)
        printed = of_kind(self.page.commission.log, Printed)
        if printed and printed[-1].what == self._noted and printed[-1].made_from == reference_key(self.page.commission.compose):
            done = carried_act(self.page, self.way)
            if done is not None:
                return done
        count = len(self.laid.sheets)
        return NextAct(
            f"Save the {f'{count} sheets' if count > 1 else 'sheet'} (PDF)…", "true size; print at 100 %", self._save
        )

    @property
    def _noted(self) -> str:
        """What the log says of these sheets."""
        return f"{self.what} at true size on {self.page.commission.transfer.paper}"

    def _print_what(self, what: What) -> Meaning:
        self.what = what
        self.sketch.left()
        self.page.refresh()
        return None

    def _mirror(self, wanted: bool) -> Meaning:
        self.mirrored = wanted
        self.page.refresh()
        return None

    def _sheets(self, trouble: str) -> Section:
        transfer = self.page.commission.transfer

        def papered(paper: Paper) -> Meaning:
            return Edit(TRANSFER, f"Paper: {paper}", lambda t: set_paper(t, paper))

        lines: list[Line] = [Pick("Paper", transfer.paper, plain_options(("A4", "Letter")), papered)]
        if self.laid is not None:
            lines += [
                Fact("Sheets", f"{self.laid.columns} × {self.laid.rows}"),
                Fact("They overlap by", "10\u202fmm"),
                Note("Each has crosses to lay on the next, a ruler of 100 mm and greys to check the printer."),
            ]
        else:
            lines.append(Note(trouble, "wrong"))
        lines.append(Tick("Mirrored, for a rubbed back", self.mirrored, self._mirror))
        lines.append(Press("Save the lines (SVG)…", lambda: save_svg(self.page, None, self.page.lines or ())))
        return Section("Sheets at true size", tuple(lines))

    def _carry(self) -> Section:
        ground = self.page.ground
        return Section("What carries the line over", tuple(Note(words) for words in carried_with(ground)))

    def _printer(self) -> Section:
        printer = self.page.equipment.printer

        def measured(**values: float) -> Meaning:
            after = replace(printer, **values)
            found = set_right(after.across_mm, after.along_mm)
            return self.page.equip("Set the printer right", replace(self.page.equipment, printer=found))

        off = max(abs(printer.across_mm - 100), abs(printer.along_mm - 100))
        lines: tuple[Line, ...] = (
            Note("Print one sheet, measure its ruler, and one turned by a quarter: what is off is taken out of every sheet."),
            Amount("100 mm came out across", printer.across_mm, 80, 120, lambda v: measured(across_mm=v), 0.1, 1, "\u202fmm"),
            Amount("and along", printer.along_mm, 80, 120, lambda v: measured(along_mm=v), 0.1, 1, "\u202fmm"),
        )
        return Section("Your printer", lines, f"off by {off:.1f} %" if printer.measured else "as it is")

    def _save(self) -> Meaning:
        page, c, laid = self.page, self.page.commission, self.laid
        if laid is None:
            return None
        compose, printer, mirrored, what = c.compose, page.equipment.printer, self.mirrored, self.what
        lines, clean = page.lines or (), self.sketch.clean
        px_per_mm = print_px_per_mm(page, 1.0)

        def make(progress: Progress) -> bytes:
            def part(area: Rect) -> Picture:
                return page.workroom.references.for_print(compose, area, px_per_mm, progress)

            size = compose.width_mm, compose.height_mm
            if what == "lines":
                return true_size.true_size(c.brief.title, laid, size, printer, mirrored, lines)
            if what == "sketch":
                assert clean is not None
                return true_size.true_size(
                    c.brief.title, laid, size, printer, mirrored, (), lambda area: cut_out(clean, size, area)
                )
            return true_size.true_size(c.brief.title, laid, size, printer, mirrored, (), part)

        write(page, "Save the sheets", f"{what} at true size", ".pdf", make, self._noted)
        return None
