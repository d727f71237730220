"""The string of wells over the picture they come from, and the chosen one large."""

from collections.abc import Callable
from dataclasses import replace
from typing import TYPE_CHECKING

import numpy as np
from PySide6.QtGui import QImage, QKeyEvent, QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from yarrow_lane.commission.sitters import sitter_at
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.measure.colour.grey import grey_code
from yarrow_lane.measure.colour.munsell_value import value_text
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.paint.seen import srgb_of
from yarrow_lane.palette.advice import Advice
from yarrow_lane.palette.belonging import USUAL_REACH, Elsewhere
from yarrow_lane.palette.glazing import wants_light_layer
from yarrow_lane.palette.other_media import LEFT_OUT, OtherWay
from yarrow_lane.palette.recipe import Recipe, parts_text, recipe_words, share_name
from yarrow_lane.palette.stringing import target_of
from yarrow_lane.palette.wells import PALETTE, USUAL_PATCH_MM, Well, add_well, change_well, patch_colour
from yarrow_lane.tone.grounds import ground_lab
from yarrow_lane.ui.bench_sheet import Meaning, Switch
from yarrow_lane.ui.kit.levels import see_through
from yarrow_lane.ui.kit.overlays import Ink, Line, Overlay, Ring, Words
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import show_reference
from yarrow_lane.ui.kit.tools import PointsTool
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.rooms.palette.mode import Mode, Sheets
from yarrow_lane.ui.rooms.palette.well_lines import well_sections
from yarrow_lane.ui.rooms.palette.well_panel import Bar, Other, ShownMix, WellPanel
from yarrow_lane.ui.rooms.palette.wells_row import ShownWell, WellsRow
from yarrow_lane.ui.theme.lettering import px

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.palette.page import PalettePage

_LOOKS = (("photo", "the photograph's"), ("dry", "dry"), ("wet", "wet"), ("grey", "grey"))
_LOW = 560  # px at 100 % text below which the row of wells gives way: our choice
_LIFTED = 1.0  # CIEDE2000 from which the fitted colour is shown beside the photograph's: our choice
_CURES = ("too orange", "too pink", "too light", "too dark")  # that are said on the panel; the bench has all


class _Table(QWidget):
    """Row above, picture and panel below; the row is low where there is little height."""

    def __init__(self, row: WellsRow) -> None:
        super().__init__()
        self._row = row

    def resizeEvent(self, event: QResizeEvent) -> None:
        self._row.be_low(event.size().height() < px(_LOW))


class WellsMode(Mode):
    """Row, picture, panel."""

    name = "string"

    def __init__(self, page: "PalettePage") -> None:
        super().__init__(page)
        self.look, self.patch_mm = "dry", USUAL_PATCH_MM
        self.elsewhere_on, self.reach = False, USUAL_REACH
        self.advice: Advice | None = None
        self.elsewhere: Elsewhere | None = None
        self.ways: tuple[OtherWay, ...] = ()
        self.hues: tuple[tuple[str, float], ...] | None = None
        self.trouble = ""
        self._advised: object = None
        self.row, self.panel = WellsRow(), WellPanel()
        self.reference = PictureView("The reference: click to take a colour", page.frame)
        self.tool = PointsTool(page.select, self._take_colour)
        self.reference.tool = self.tool
        self.picture = self.reference
        self.widget = _Table(self.row)
        box = QVBoxLayout(self.widget)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addWidget(self.row)
        below = QHBoxLayout()
        below.addWidget(self.reference, 1)
        below.addWidget(self.panel, 1)
        box.addLayout(below, 1)
        self.row.chosen.connect(page.select)
        self.panel.taken.connect(self._take_other)

    def opened(self) -> None:
        self.advice = self.elsewhere = self.hues = None
        self.ways = ()
        self._advised = None
        self.trouble = ""
        self.page.frame.turn(grey=False)

    # --- showing

    def refresh(self) -> Sheets:
        page, c = self.page, self.page.commission
        show_reference(self.reference, page.workroom.references, c.compose, page)
        self.tool.patch, self.tool.area = self.patch_mm, c.compose.canvas
        self.tool.marks = tuple((w.id, w.at_mm) for w in page.wells if w.at_mm is not None)
        well = page.chosen
        if well is not None and c.compose.framed:
            self._ask(well)
        else:
            self.advice, self._advised = None, None
        names = page.box.names
        self.row.waiting = "No colours yet: the string is looked for, or click on the picture to take one."
        self.row.show_wells(tuple(self._shown(w, names) for w in page.wells), page.chosen_id)
        self.reference.show_overlays(*self._overlays())
        self.reference.laid = self._laid()
        self.reference.update()
        self.panel.show_mix(self._mix(well), self.trouble or page.mixing_trouble or "Mixing in the head…")
        tubes = len({s.tube for w in page.wells for s in w.recipe})
        whose = "a suggested box of tubes" if page.box_is_suggested else "the paintbox"
        remark = f"{tubes} tubes carry {len(page.wells)} wells" if tubes else f"mixed from {whose}"
        switches = (Switch("Show", _LOOKS, self.show, self.look),)
        return Sheets(well_sections(self, well), switches, None, remark)

    def _shown(self, well: Well, names: dict[int, str]) -> ShownWell:
        page = self.page
        srgb = well.srgb
        if self.look == "grey":
            grey = int(grey_code(well.lab[0]))
            srgb = (grey, grey, grey)
        elif self.look != "photo" and (lab := page.mix_colour(well.recipe, self.look == "wet")) is not None:
            srgb = srgb_of(lab)
        mix = recipe_words(well.recipe, names) if well.recipe else well.mix or "no mix yet"
        return ShownWell(
            well.id, srgb, page.name_of(well), value_text(well.lab[0]), mix, well.id > 0, well.mixed_on is not None
        )  # fmt: skip

    def _ask(self, well: Well) -> None:
        page, c = self.page, self.page.commission
        asked = (well.id, well.lab, well.recipe, page.box, c.palette.fit_darks, c.tone.ground)

        def ready(advice: Advice) -> None:
            if page.commission_id == c.id and page.chosen_id == well.id and (self.advice is not advice or self.trouble):
                self.advice, self._advised, self.trouble = advice, asked, ""
                page.refresh_soon()

        def failed(trouble: Trouble) -> None:
            if page.commission_id == c.id and page.chosen_id == well.id and self.trouble != str(trouble):
                self.advice, self.trouble = None, str(trouble)
                page.refresh_soon()

        if self._advised != asked:
            self.advice = None
        if page.mixes:
            page.answering.advice(c, page.box, page.medium, well, ready, failed)
        else:
            self._ask_ways(well, failed)
        if self.hues is None:
            page.answering.hues(c, self._heard_hues)

        def found(places: Elsewhere) -> None:
            if page.chosen_id == well.id and self.elsewhere is not places:
                self.elsewhere = places
                page.refresh_soon()

        page.answering.elsewhere(c, well, self.reach, found)

    def _heard_hues(self, hues: tuple[tuple[str, float], ...]) -> None:
        self.hues = hues
        self.page.refresh_soon()

    def _ask_ways(self, well: Well, failed: Callable[[Trouble], None]) -> None:
        page = self.page

        def ready(ways: tuple[tuple[OtherWay, ...], ...]) -> None:
            if page.chosen_id == well.id and self.ways is not ways[0]:
                self.ways = ways[0]
                page.refresh_soon()

        page.answering.other_ways(page.box, page.medium, (well.lab,), ready, failed)

    def _overlays(self) -> tuple[Overlay, ...]:
        page = self.page
        found: list[Overlay] = []
        for well in page.wells:
            if well.at_mm is not None:
                here = well.id == page.chosen_id
                ink: Ink = "here" if here else "light"
                line: Line = "solid" if well.id > 0 else "dashes"
                found.append(Ring(well.at_mm, radius_px=10, ink=ink, weight=3 if here else 2, fill=well.srgb, line=line))
                if here:
                    found.append(Words(well.at_mm, page.name_of(well), shift=(11, 0)))
        return tuple(found)

    def _laid(self) -> QImage | None:
        """All but where the colour belongs, dimmed."""
        if not self.elsewhere_on or self.elsewhere is None:
            return None
        dim = np.where(self.elsewhere.mask, 0, 205).astype(np.uint8)
        return see_through(np.full((*dim.shape, 3), 0x8C, np.uint8), dim)

    def _mix(self, well: Well | None) -> ShownMix | None:
        advice, page = self.advice, self.page
        if well is not None and not page.mixes:
            return self._way(well)
        if well is None or advice is None:
            return None
        names = page.box.names
        mix = advice.mix or advice.answers[0].mix
        swatches = [(well.srgb, "in the photo"), (srgb_of(mix.lab), "mixed, dry" if advice.mix else "would be, dry")]
        target = target_of(well.lab, page.commission.palette.fit_darks)
        if float(difference(target, well.lab)) >= _LIFTED:
            swatches.insert(1, (srgb_of(target), "fitted to paint"))
        if mix.wet is not None:
            swatches.append((srgb_of(mix.wet), "mixed, wet"))
        total = sum(s.parts for s in mix.recipe)
        bars = tuple(
            Bar(s.parts / total, parts_text(s.parts), share_name(s, names), page.tube_colour(s.tube, s.tint))
            for s in mix.recipe
        )
        cures = dict(advice.cures)
        said = [f"{fault.capitalize()}? {cures[fault]}." for fault in _CURES if fault in cures]
        ground = ground_lab(page.commission.tone.ground or "white")
        light = "Bright on dark: an opaque light layer beneath it first." if wants_light_layer(well.lab, ground) else ""
        words = (
            advice.order,
            " ".join(said),
            light,
            f"Hides {mix.covers} over {page.commission.tone.ground or 'white'}.",
            *mix.care,
        )
        others = tuple(
            Other(
                ", ".join(a.names), a.price, recipe_words(a.mix.recipe, names), srgb_of(a.mix.lab), a.mix.recipe == well.recipe
            )
            for a in advice.answers
        )
        far = f"Out of reach: {advice.out_of_reach}. A glaze or a gloss varnish reaches further." if advice.out_of_reach else ""
        note = " ".join(words for words in (advice.gone, far) if words)
        return ShownMix(page.name_of(well), tuple(swatches), bars, tuple(w for w in words if w), others, note)

    def _way(self, well: Well) -> ShownMix | None:
        """A well of watercolour or pastel: its way in words beside the others."""
        if not self.ways:
            return None
        now = next((w for w in self.ways if w.words == well.mix), self.ways[0])
        others = tuple(
            Other("proposed" if n == 0 else "another way", f"{w.off:.1f} off", w.words, srgb_of(w.lab), w.words == well.mix)
            for n, w in enumerate(self.ways)
        )
        swatches = ((well.srgb, "in the photo"), (srgb_of(now.lab), "as reckoned"))
        return ShownMix(self.page.name_of(well), swatches, (), (well.mix or now.words, LEFT_OUT[self.page.medium]), others)

    # --- doing

    def show(self, look: str) -> None:
        """The colours of the photograph, of the mixes dry or wet, or their greys."""
        self.look = look
        self.page.frame.turn(grey=look == "grey")
        self.page.refresh()

    def change(self, label: str, well: Well, join: str = "") -> Meaning:
        """A well on record written anew; a proposal is changed by taking it."""
        if well.id < 0:
            return None
        return Edit(PALETTE, label, lambda p: change_well(p, well), join)

    def take_recipe(self, well: Well, recipe: Recipe) -> Meaning:
        """That mix for the well; what was mixed before is another heap."""
        words = recipe_words(recipe, self.page.box.names)
        return self.change(f"Mix of {self.page.name_of(well)}: {words}", replace(well, recipe=recipe, mix="", mixed_on=None))

    def _next_way(self) -> None:
        """The way after the one the well has."""
        well = self.page.chosen
        if well is None:
            return
        if self.page.mixes:
            same = [a.mix.recipe == well.recipe for a in self.advice.answers] if self.advice is not None else []
        else:
            same = [w.words == well.mix for w in self.ways]
        if same:
            self._take_other((same.index(True) + 1) % len(same) if True in same else 0)

    def _take_other(self, n: int) -> None:
        well, advice = self.page.chosen, self.advice
        if well is not None and well.id < 0:
            self.page.workroom.say("Take the string first; then each well's mix can be changed.", True)
            return
        if well is not None and not self.page.mixes and n < len(self.ways):
            way, name = self.ways[n], self.page.name_of(well)
            self.page.hand(lambda: self.change(f"Way to {name}: {way.words}", replace(well, mix=way.words, recipe=())))
            return
        if well is None or advice is None or n >= len(advice.answers):
            return
        recipe = advice.answers[n].mix.recipe
        self.page.hand(lambda: self.take_recipe(well, recipe))

    def _take_colour(self, at_mm: Point) -> None:
        page, compose = self.page, self.page.commission.compose
        sitter_id = page.sitter_id or sitter_at(page.commission, at_mm)

        def ready(shown: Shown) -> None:
            scale = shown.picture.shape[1] / compose.width_mm
            side = self.patch_mm * scale
            patch = Rect(at_mm[0] * scale - side / 2, at_mm[1] * scale - side / 2, side, side)
            srgb, lab = patch_colour(shown.picture, patch)
            patch_mm, number = self.patch_mm, page.commission.palette.next_id
            edit = Edit(PALETTE, "Took a colour", lambda p: add_well(p, at_mm, patch_mm, srgb, lab, "", sitter_id))
            if page.hand(lambda: edit) is None:
                page.select(number)

        page.workroom.references.want(compose, page, ready)

    def key(self, event: QKeyEvent) -> bool:
        if event.text().lower() == "g":
            self.show("dry" if self.look == "grey" else "grey")
            return True
        if event.text().lower() == "w":
            self._next_way()
            return True
        if event.text().lower() == "e":
            self.elsewhere_on = not self.elsewhere_on
            self.page.refresh()
            return True
        return False
