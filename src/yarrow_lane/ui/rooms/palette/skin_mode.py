"""Skin the four-colour way, step by step; the box's blacks, the shade at the hairline, the whites of fur."""

from typing import TYPE_CHECKING

from yarrow_lane.desk.derived import Key, Making
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.measure.colour.munsell_value import value_text
from yarrow_lane.paint.seen import Lab, srgb_of
from yarrow_lane.palette.four_colours import SkinStep
from yarrow_lane.palette.mixer import Mixer
from yarrow_lane.palette.recipe import Recipe, recipe_words
from yarrow_lane.palette.skin import School, school_of
from yarrow_lane.palette.stringing import take_string, target_of
from yarrow_lane.palette.wells import PALETTE, USUAL_PATCH_MM, Palette, Well
from yarrow_lane.palette.words import hue_words
from yarrow_lane.ui.bench_sheet import Fact, Meaning, Note, Pick, Section
from yarrow_lane.ui.kit.swatch_rows import SwatchRow
from yarrow_lane.ui.rooms.palette.answering import box_key
from yarrow_lane.ui.rooms.palette.mode import RowsMode, Sheets

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.palette.page import PalettePage


_SKIN: Lab = (60.0, 17.0, 19.0)  # a middle skin of any kind, to begin with: our choice


class SkinMode(RowsMode):
    """Rows of steps; a click takes one as a well."""

    name = "skin and blacks"

    def __init__(self, page: "PalettePage") -> None:
        super().__init__(page, "Steps of the four-colour way")
        self.rows.chosen.connect(self._take)
        self.school: School | None = None
        self._looked_for = False
        self._steps: dict[int, tuple[str, Recipe, Lab]] = {}

    def opened(self) -> None:
        self.school = None

    def why_not(self) -> str:
        return "" if self.page.wells else "take a string first: the middle tone is one of its wells"

    def left(self) -> None:
        self._looked_for = False

    def _look_for_skin(self) -> None:
        """On coming in, the well most like a middle skin is looked at."""
        page = self.page
        if not self._looked_for and page.wells and any(s.kind == "person" for s in page.commission.brief.sitters):
            self._looked_for = True
            page.chosen_id = min(page.wells, key=lambda w: float(difference(w.lab, _SKIN))).id

    def refresh(self) -> Sheets:
        page = self.page
        self._look_for_skin()
        well = page.chosen
        if well is None or not page.mixes:
            self.rows.show_rows(())
            self.rows.waiting = "This school mixes acrylic or oil from four tubes."
            return Sheets()
        self._ask(well)
        self._steps = {}
        self.rows.show_rows(self._shown(well) if self.school is not None else ())
        self.rows.waiting = "Mixing in the head…"
        options = tuple((w.id, page.name_of(w)) for w in page.wells)
        lines = (
            Pick("The middle tone is", well.id, options, page.select),
            Fact("It is", f"{value_text(well.lab[0])}, {hue_words(well.lab).split(',')[0]}"),
            Note("Middle tone first, then darks and lights from the same tubes. A click on a step takes it as a well."),
            Note("Common practice: a red and an ochre give an orange, very little blue dulls it, white lightens."),
        )
        return Sheets((Section("Skin from four colours", lines),))

    def _ask(self, well: Well) -> None:
        page, c = self.page, self.page.commission
        p, box, medium = c.palette, page.box, page.medium
        row = page.wells
        place = row.index(well)
        beside = row[place - 1] if place else None
        labs = tuple(target_of(w.lab, p.fit_darks) for w in row)
        key = Key("skin school", (box_key(box),), (medium, labs, place))

        def ready(school: School) -> None:
            if page.mode is self and self.school is not school:
                self.school = school
                page.refresh_soon()

        def with_mixer(mixer: Mixer) -> None:
            making = Making(
                lambda _: school_of(mixer, box, medium, labs[place], labs[place - 1] if beside else None, labs), lambda _: 8000
            )
            page.workroom.derived.want(key, page, making, ready)

        page.answering.mixer(box, medium, with_mixer)

    def _shown(self, well: Well) -> tuple[SwatchRow, ...]:
        school, page = self.school, self.page
        assert school is not None
        rows: list[SwatchRow] = [SwatchRow(f"To {page.name_of(well)}", head=True)]
        if school.missing:
            rows.append(
                SwatchRow("Not from this box", f"it holds no {' and no '.join(school.missing)} for it: put one in at tubes")
            )
        rows += [self._row(step, "skin") for step in school.steps]
        if school.blacks:
            rows.append(SwatchRow("Blacks of this box, darkest first", head=True))
            for black in school.blacks:
                neutral = "neutral" if black.chroma < 2 else f"{black.chroma:.0f} off neutral"
                rows.append(self._row(SkinStep(f"L* {black.lab[0]:.0f}, {neutral}", black.recipe, black.lab), "black"))
        if school.transition is not None:
            rows += [SwatchRow("Hair meets skin", head=True), self._row(school.transition, "hairline")]
        if school.whites:
            rows.append(SwatchRow("White fur, from grey to pure", head=True))
            rows += [self._row(step, "white") for step in school.whites]
        return tuple(rows)

    def _row(self, step: SkinStep, name: str) -> SwatchRow:
        key = len(self._steps) + 1
        self._steps[key] = (name, step.recipe, step.lab)
        words = recipe_words(step.recipe, self.page.box.names)
        return SwatchRow(step.words, words, ((srgb_of(step.lab), value_text(step.lab[0])),), key)

    def _take(self, key: int) -> None:
        name, recipe, lab = self._steps[key]
        sitter = self.page.sitter_id

        def meaning() -> Meaning:
            well = Well(0, name, None, USUAL_PATCH_MM, srgb_of(lab), lab, "", recipe, sitter)

            def taken(p: Palette) -> Palette:
                return take_string(p, (well,))

            return Edit(PALETTE, f"Took {name} as a well", taken)

        self.page.hand(meaning)
