"""Mask film: what is cut, on the picture; printed at true size or as SVG, with the order of masking."""

from dataclasses import replace
from functools import partial
from typing import TYPE_CHECKING, Any

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.cutting.outline import curve
from yarrow_lane.lane.part import Edit
from yarrow_lane.layers.regions import Region
from yarrow_lane.measure.kept import kept
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Polygon
from yarrow_lane.measure.progress import Progress
from yarrow_lane.transfer.film import CAUTION, ORDER, Film, FilmTrouble, film_outlines
from yarrow_lane.transfer.lines.line import Line as Drawing
from yarrow_lane.transfer.record import TRANSFER
from yarrow_lane.transfer.sheets import SheetsTrouble, lay_on_sheets
from yarrow_lane.ui.bench_sheet import Amount, Fact, Line, Meaning, NextAct, Note, Press, Section, Tick
from yarrow_lane.ui.kit.overlays import Outline
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import show_reference
from yarrow_lane.ui.rooms.transfer.mode import Mode, Sheets
from yarrow_lane.ui.rooms.transfer.saving import save_svg, write

if TYPE_CHECKING:
    from yarrow_lane.documents import true_size
    from yarrow_lane.ui.rooms.transfer.page import TransferPage
else:
    true_size = late("yarrow_lane.documents.true_size")  # what writes PDF is loaded with the first document


@kept(2)  # asked for at every refresh
def _rings_of(compose: Compose, regions: tuple[Region, ...], film: Film) -> tuple[Polygon, ...]:
    """What is cut of the sitters and regions it covers, canvas mm. Raises `FilmTrouble`."""
    pieces = [p for p in compose.pieces if film.pieces is None or p.id in film.pieces]
    covered = [[tuple((float(x), float(y)) for x, y in curve(ring, 8)) for ring in p.outline_mm] for p in pieces]
    covered += [list(r.outers) for r in regions if r.id in film.regions]
    return film_outlines(covered, film, (compose.width_mm, compose.height_mm))


class FilmMode(Mode):
    """The reference with what the film covers."""

    name = "film"

    def __init__(self, page: "TransferPage") -> None:
        super().__init__(page)
        self.view = PictureView("What the film covers", page.frame)
        self.picture = self.view
        self.lay(self.view)

    def refresh(self) -> Sheets:
        page, c = self.page, self.page.commission
        show_reference(self.view, page.workroom.references, c.compose, page)
        trouble = ""
        rings: tuple[Polygon, ...] = ()
        if not c.compose.pieces and not c.layers.regions:
            trouble = "Cut a sitter out at Compose, or draw regions at Layers: the film follows their outline."
        else:
            try:
                rings = _rings_of(c.compose, c.layers.regions, c.transfer.film)
            except FilmTrouble as found:
                trouble = str(found)
        self.view.show_overlays(*(Outline(ring, "here", 2.0, filled=True) for ring in rings))
        order = Section(
            "Order of masking", (*(Note(f"{n}. {words}") for n, words in enumerate(ORDER, 1)), Note(CAUTION, "wrong"))
        )
        return Sheets((self._what(trouble), self._paper(rings), order), page.way_switches(), self._act(rings))

    def _act(self, rings: tuple[Polygon, ...]) -> NextAct | None:
        if not rings:
            return None
        return NextAct("Save the outline (PDF)…", "true size; print at 100 %", lambda: self._save(rings))

    def _edit(self, label: str, **values: Any) -> Meaning:
        return Edit(TRANSFER, label, lambda t: replace(t, film=replace(t.film, **values)))

    def _what(self, trouble: str) -> Section:
        c = self.page.commission
        film = c.transfer.film
        taken = set(film.pieces) if film.pieces is not None else {p.id for p in c.compose.pieces}
        lines: list[Line] = []
        if trouble:
            lines.append(Note(trouble, "wrong"))

        def piece(number: int, wanted: bool) -> Meaning:
            after = taken | {number} if wanted else taken - {number}
            return self._edit("What the film covers", pieces=tuple(sorted(after)))

        def region(number: int, wanted: bool) -> Meaning:
            before = set(film.regions)
            after = before | {number} if wanted else before - {number}
            return self._edit("What the film covers", regions=tuple(sorted(after)))

        lines += [Tick(p.name, p.id in taken, partial(piece, p.id)) for p in c.compose.pieces]
        lines += [Tick(r.name, r.id in film.regions, partial(region, r.id)) for r in c.layers.regions]
        lines += [
            Amount(
                "Larger by",
                film.allowance_mm,
                -10,
                20,
                lambda v: self._edit("Allowance of the film", allowance_mm=v),
                0.5,
                1,
                "\u202fmm",
            ),
            Amount(
                "Corners rounded to",
                film.corner_mm,
                0,
                20,
                lambda v: self._edit("Corners of the film", corner_mm=v),
                0.5,
                1,
                "\u202fmm",
            ),
            Note("Below nought it is smaller than the sitter: the background then reaches under the outer hair."),
        ]
        return Section("What the film covers", tuple(lines))

    def _paper(self, rings: tuple[Polygon, ...]) -> Section:
        c = self.page.commission
        lines: list[Line] = [Fact("Outlines to cut", str(len(rings)))]
        try:
            laid = lay_on_sheets(c.compose.width_mm, c.compose.height_mm, c.transfer.paper)
            lines.append(Fact("Sheets", f"{laid.columns} × {laid.rows} {c.transfer.paper}"))
        except SheetsTrouble as trouble:
            lines.append(Note(str(trouble), "wrong"))
        if rings:
            lines.append(
                Press("Save it for a plotter (SVG)…", lambda: save_svg(self.page, None, _as_lines(rings), "film mask"))
            )
        return Section("On paper", tuple(lines))

    def _save(self, rings: tuple[Polygon, ...]) -> Meaning:
        page, c = self.page, self.page.commission
        size, printer = (c.compose.width_mm, c.compose.height_mm), page.equipment.printer
        laid = lay_on_sheets(*size, c.transfer.paper)

        def make(_: Progress) -> bytes:
            return true_size.true_size(f"{c.brief.title}, film mask", laid, size, printer, False, _as_lines(rings))

        write(page, "Save the film mask", "film mask", ".pdf", make, f"film mask on {c.transfer.paper}")
        return None


def _as_lines(rings: tuple[Polygon, ...]) -> tuple[Drawing, ...]:
    return tuple(Drawing(ring, (False,) * len(ring), 0.0, "outline") for ring in rings)
