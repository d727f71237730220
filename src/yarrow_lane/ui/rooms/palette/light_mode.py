"""The palette where the client hangs it: the same mixes under other lamps, and where neighbours part."""

from typing import TYPE_CHECKING

from yarrow_lane.paint.bands import LIGHTS, Light
from yarrow_lane.paint.seen import srgb_of
from yarrow_lane.palette.client_light import Broken, broken_under, looks_under
from yarrow_lane.palette.wells import Well
from yarrow_lane.ui.bench_sheet import Line, Note, Section
from yarrow_lane.ui.kit.swatch_rows import SwatchRow, SwatchRows
from yarrow_lane.ui.rooms.palette.mode import Mode, Sheets

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.palette.page import PalettePage


class LightMode(Mode):
    """A row for each light, a column for each well."""

    name = "client's light"

    def __init__(self, page: "PalettePage") -> None:
        super().__init__(page)
        self.rows = SwatchRows("The palette under other lamps")
        self.lay(self.rows)

    def why_not(self) -> str:
        return "" if any(w.recipe for w in self.page.wells) else "only mixes can be looked at under a lamp: take a string first"

    def refresh(self) -> Sheets:
        page = self.page
        wells = tuple(w for w in page.wells if w.recipe)
        mixer = page.mixer
        if mixer is None or not wells:
            self.rows.show_rows(())
            self.rows.waiting = "Mixing in the head…" if wells else "No well has a mix by tubes."
            return Sheets()
        rows, found = [], []
        for light in LIGHTS:
            looks = looks_under(mixer, [w.recipe for w in wells], light)
            broken = broken_under(mixer, [w.recipe for w in wells], light)
            found += [(light, b) for b in broken]
            rows.append(
                SwatchRow(
                    light, self._words(light, broken, wells),
                    tuple((srgb_of(lab), page.name_of(w)) for lab, w in zip(looks, wells, strict=True)), warned=bool(broken),
                )
            )  # fmt: skip
        self.rows.show_rows(tuple(rows))
        lines: list[Line] = [
            Note("Reckoned from the tubes' spectra by Kubelka and Munk, for eyes that have grown used to each lamp."),
            *(Note(f"Under {light}: {self._pair(b, wells)}", "wrong") for light, b in found[:4]),
        ]
        if not found:
            lines.append(Note("✓ Neighbours stay as near to each other under every lamp as by day.", "good"))
        lines.append(Note("A well that parts from its neighbour: take “holds in every light” among its ways."))
        return Sheets((Section("Under the client's lamp", tuple(lines)),))

    def _words(self, light: Light, broken: tuple[Broken, ...], wells: tuple[Well, ...]) -> str:
        if light == "daylight":
            return "as they are mixed"
        return "; ".join(self._pair(b, wells) for b in broken[:1]) or "holds together"

    def _pair(self, broken: Broken, wells: tuple[Well, ...]) -> str:
        one, other = (self.page.name_of(wells[n]) for n in (broken.one, broken.other))
        return f"{one} and {other}, {broken.by_day:.1f} apart by day, are {broken.there:.1f} apart"
