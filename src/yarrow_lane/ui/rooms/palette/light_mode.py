"""The palette where the client hangs it: the same mixes under other lamps, and where neighbours part."""

from typing import TYPE_CHECKING

from yarrow_lane.desk.derived import Key, Making
from yarrow_lane.paint.bands import Light
from yarrow_lane.paint.seen import srgb_of
from yarrow_lane.palette.client_light import Broken, Look, looks_in_rooms
from yarrow_lane.palette.mixer import Mixer
from yarrow_lane.palette.recipe import Recipe
from yarrow_lane.palette.wells import Well
from yarrow_lane.ui.bench_sheet import Line, Note, Section
from yarrow_lane.ui.kit.swatch_rows import SwatchRow
from yarrow_lane.ui.rooms.palette.answering import box_key
from yarrow_lane.ui.rooms.palette.mode import RowsMode, Sheets

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.palette.page import PalettePage


class LightMode(RowsMode):
    """A row for each light, a column for each well."""

    name = "client's light"

    def __init__(self, page: "PalettePage") -> None:
        super().__init__(page, "The palette under other lamps")
        self.looks: tuple[Look, ...] | None = None
        self._of: tuple[Recipe, ...] = ()

    def why_not(self) -> str:
        return "" if any(w.recipe for w in self.page.wells) else "only mixes can be looked at under a lamp: take a string first"

    def opened(self) -> None:
        self.looks = None

    def refresh(self) -> Sheets:
        page = self.page
        wells = tuple(w for w in page.wells if page.mix_colour(w.recipe) is not None)
        if page.mixer is not None and wells:
            self._ask(page.mixer, tuple(w.recipe for w in wells))
        if self.looks is None or self._of != tuple(w.recipe for w in wells):
            self.rows.show_rows(())
            self.rows.waiting = "Carrying the palette to the lamps…" if wells else "No well has a mix by tubes."
            return Sheets()
        rows, found = [], []
        for look in self.looks:
            found += [(look.light, b) for b in look.broken]
            swatches = tuple((srgb_of(lab), page.name_of(w)) for lab, w in zip(look.labs, wells, strict=True))
            rows.append(SwatchRow(look.light, self._words(look.light, look.broken, wells), swatches, warned=bool(look.broken)))
        self.rows.show_rows(tuple(rows))
        lines: list[Line] = [
            Note("Reckoned from the tubes' spectra by Kubelka and Munk, for eyes that have grown used to each lamp."),
            *(Note(f"Under {light}: {self._pair(b, wells)}", "wrong") for light, b in found[:4]),
        ]
        if not found:
            lines.append(Note("✓ Neighbours stay as near to each other under every lamp as by day.", "good"))
        lines.append(Note("A well that parts from its neighbour: take “holds in every light” among its ways."))
        return Sheets((Section("Under the client's lamp", tuple(lines)),))

    def _ask(self, mixer: Mixer, recipes: tuple[Recipe, ...]) -> None:
        page = self.page
        key = Key("under lamps", (box_key(page.box),), (page.medium, recipes))

        def ready(looks: tuple[Look, ...]) -> None:
            if page.mode is self and self.looks is not looks:
                self.looks, self._of = looks, recipes
                page.refresh_soon()

        page.workroom.derived.want(key, page, Making(lambda _: looks_in_rooms(mixer, recipes), lambda _: 4000), ready)

    def _words(self, light: Light, broken: tuple[Broken, ...], wells: tuple[Well, ...]) -> str:
        if light == "daylight":
            return "as they are mixed"
        return "; ".join(self._pair(b, wells) for b in broken[:1]) or "holds together"

    def _pair(self, broken: Broken, wells: tuple[Well, ...]) -> str:
        one, other = (self.page.name_of(wells[n]) for n in (broken.one, broken.other))
        return f"{one} and {other}, {broken.by_day:.1f} apart by day, are {broken.there:.1f} apart"
