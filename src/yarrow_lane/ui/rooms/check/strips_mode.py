"""Strips: which parts of the reference to print at true size and hold beside the paint."""

from typing import TYPE_CHECKING

from yarrow_lane.check.strips import MOST, Strips, chosen_strips
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.measure.colour.cielab import lightness_from_srgb8
from yarrow_lane.measure.words import counted
from yarrow_lane.ui.bench_sheet import Amount, Fact, Line, Meaning, NextAct, Note, Section
from yarrow_lane.ui.kit.overlays import Badge, Box, Overlay
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import show_reference
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.rooms.check.mode import Mode, Sheets
from yarrow_lane.ui.rooms.check.saving import save_strips

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.check.page import CheckPage

_HOW = "Hold the strip's edge on the paint: lighter or darker first, then warmer or cooler. A print has its own blacks."


class StripsMode(Mode):
    """The reference with the strips that tell most."""

    name = "strips"

    def __init__(self, page: "CheckPage") -> None:
        super().__init__(page)
        self.view = PictureView("The reference with its strips")
        self.picture = self.view
        self.lay(self.view)
        self.many = MOST
        self._shown: Shown | None = None
        self._of = ""
        self._found: tuple[tuple[object, ...], Strips] | None = None  # kept: a thousand places are looked at

    def opened(self) -> None:
        self._shown, self._of, self._found = None, "", None

    def why_not(self) -> str:
        return "" if self.page.commission.compose.framed else "there is nothing to print yet: compose the picture first"

    def _came(self, shown: Shown) -> None:
        self._shown, self._of = shown, reference_key(self.page.commission.compose)
        self.page.refresh()

    def strips(self) -> Strips | None:
        """Those that tell most of what is measured; without it those that show most values."""
        if self._shown is None:
            return None
        told = self.page.measuring.told()
        found = told.faults if told is not None else ()
        of = (self._shown, found, self.many)
        if self._found is None or any(a is not b for a, b in zip(self._found[0], of, strict=True)):
            faults = [(f.at, f.score) for f in found if f.meant is None]
            compose = self.page.commission.compose
            lightness = lightness_from_srgb8(self._shown.picture[::4, ::4])
            self._found = of, chosen_strips(faults, (compose.width_mm, compose.height_mm), lightness, self.many)
        return self._found[1]

    def refresh(self) -> Sheets:
        page, c = self.page, self.page.commission
        if self._of != reference_key(c.compose):
            self._shown = None
            page.workroom.references.want(c.compose, page, self._came)
        show_reference(self.view, page.workroom.references, c.compose, page)
        found = self.strips()
        if found is None:
            return Sheets()
        overlays: list[Overlay] = []
        for number, strip in enumerate(found.strips, 1):
            overlays += [Box(strip.area, "here", 2.0), Badge((strip.area.x, strip.area.y), str(number), shift=(14, 14))]
        self.view.show_overlays(*overlays)
        told = page.measuring.told()
        lines: list[Line] = [
            Amount("Strips", self.many, 1, 8, self._set_many),
            Fact("Values they show", f"{found.values} of 10"),
        ]
        if told is not None and told.counting:
            lines.append(Fact("Of what is off they cross", f"{100 * found.covered:.0f}\u202f%"))
        else:
            lines.append(Note("Measure the painting first, and they are laid where it is off."))
        lines.append(Note(_HOW))
        act = NextAct(f"Print {counted(len(found.strips), 'strip')}…", "true size, no white border, with a map", self._print)
        return Sheets((Section("Strips to hold beside the paint", tuple(lines)),), (), act)

    def _set_many(self, many: float) -> Meaning:
        self.many = round(many)
        self.page.refresh()
        return None

    def _print(self) -> Meaning:
        found = self.strips()
        if found is not None:
            save_strips(self.page, found.strips)
        return None
