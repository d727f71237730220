"""Glazes over a well: for a wanted change, or worked backwards from a planned one."""

from dataclasses import replace
from typing import TYPE_CHECKING

from yarrow_lane.desk.derived import Key, Making
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.paint.films.glaze import MOST_COATS, STRENGTHS
from yarrow_lane.paint.seen import srgb_of
from yarrow_lane.palette.glazing import (
    CHANGES,
    Back,
    Change,
    Way,
    changed,
    glaze_words,
    glazes_for,
    wants_light_layer,
    worked_back,
)
from yarrow_lane.palette.mixer import Mixer
from yarrow_lane.palette.recipe import recipe_words
from yarrow_lane.palette.stringing import target_of
from yarrow_lane.palette.wells import PALETTE, PlannedGlaze, Well, change_well
from yarrow_lane.tone.grounds import ground_lab
from yarrow_lane.ui.bench_sheet import Amount, Line, Meaning, NextAct, Note, Pick, Press, Section, Switch
from yarrow_lane.ui.kit.swatch_rows import SwatchRow
from yarrow_lane.ui.rooms.palette.answering import box_key
from yarrow_lane.ui.rooms.palette.mode import RowsMode, Sheets

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.palette.page import PalettePage

_LOOKS = ("thin", "as usual", "thick")
_USUAL = 0.075  # of paint in a glaze: the middle of common practice


class GlazeMode(RowsMode):
    """Rows of colours: before, wanted, and each glaze laid thin, as usual and thick."""

    name = "glaze"

    def __init__(self, page: "PalettePage") -> None:
        super().__init__(page, "Glazes")
        self.rows.chosen.connect(self._take)
        self.backwards = False
        self.change: Change = "warmer"
        self.by = 8.0
        self.plan: PlannedGlaze | None = None
        self.ways: tuple[Way, ...] | None = None
        self.back: Back | None = None
        self.trouble = ""

    def opened(self) -> None:
        self.ways = self.back = None
        self.plan = None
        self.trouble = ""

    def why_not(self) -> str:
        if not self.page.mixes:
            return f"glazes are not reckoned for {self.page.medium}"
        return "" if any(w.recipe for w in self.page.wells) else "a glaze needs a well with its mix: take a string first"

    def refresh(self) -> Sheets:
        page = self.page
        well = page.chosen
        if well is None or not well.recipe:
            self.rows.show_rows(())
            self.rows.waiting = "This well has no mix yet: find it first, then a glaze can lie over it."
            return Sheets((Section("Over", (self._pick_well(),)),), self._switches())
        self.plan = self.plan or well.glaze or self._first_plan()
        self._ask(well)
        self.rows.waiting = self.trouble or "Laying glazes in the head…"
        self.rows.show_rows(self._shown(well))
        return Sheets(self._sections(well), self._switches(), self._act(well))

    # --- working out

    def _first_plan(self) -> PlannedGlaze | None:
        """A transparent earth if the box has one: the usual glaze over skin and fur."""
        page = self.page
        tubes = [t for t in page.box.of(page.medium) if not t.white]
        first = next((t for t in tubes if t.pigment in ("PBr7bs", "PR101t", "PBr7rs")), tubes[0] if tubes else None)
        return PlannedGlaze((first.id,), _USUAL) if first is not None else None

    def _ask(self, well: Well) -> None:
        page, c = self.page, self.page.commission
        box, medium, target = page.box, page.medium, target_of(well.lab, c.palette.fit_darks)
        wanted = changed(page.mix_colour(well.recipe) or target, self.change, self.by)
        plan = self.plan

        def failed(trouble: Trouble) -> None:
            if self.trouble != str(trouble):
                self.trouble, self.ways, self.back = str(trouble), None, None
                page.refresh_soon()

        def ways_came(ways: tuple[Way, ...]) -> None:
            if page.mode is self and self.ways is not ways:
                self.ways, self.back, self.trouble = ways, None, ""
                page.refresh_soon()

        def back_came(back: Back) -> None:
            if page.mode is self and self.back is not back:
                self.ways, self.back, self.trouble = None, back, ""
                page.refresh_soon()

        def with_mixer(mixer: Mixer) -> None:
            derived = page.workroom.derived
            if not self.backwards:
                key = Key("glazes", (box_key(box),), (medium, well.recipe, wanted))
                forwards = Making(lambda _: glazes_for(mixer, well.recipe, wanted), lambda _: 4000)
                derived.want(key, page, forwards, ways_came, failed)
            elif plan is not None:
                key = Key("glaze back", (box_key(box),), (medium, target, plan))
                backwards = Making(lambda _: worked_back(mixer, plan, target), lambda _: 3000)
                derived.want(key, page, backwards, back_came, failed)

        page.answering.mixer(box, medium, with_mixer, failed)

    # --- showing

    def _shown(self, well: Well) -> tuple[SwatchRow, ...]:
        page, c = self.page, self.page.commission
        names, target = page.box.names, target_of(well.lab, c.palette.fit_darks)
        now = page.mix_colour(well.recipe) or target
        if self.backwards:
            if self.back is None or self.plan is None:
                return ()
            back = self.back
            looks = tuple((srgb_of(lab), word) for lab, word in zip(back.looks, _LOOKS, strict=True))
            return (
                SwatchRow("Where it has to end", head=True),
                SwatchRow(page.name_of(well), "as in the photograph", ((srgb_of(target), "wanted"),)),
                SwatchRow("Paint this now", head=True),
                SwatchRow(
                    "Lighter and harsher than the end", recipe_words(back.recipe, names), ((srgb_of(back.lab), "beneath"),)
                ),
                SwatchRow("Then this glaze over it, once it is dry", head=True),
                SwatchRow(
                    glaze_words(self.plan, page.box),
                    f"ends {back.off:.1f} from it as usual; thickness decides, so look at all three",
                    looks,
                    warned=back.off > 3,
                ),
            )
        wanted = changed(now, self.change, self.by)
        rows = [
            SwatchRow("What lies there, and what is wanted", head=True),
            SwatchRow(
                f"{page.name_of(well)}, {self.change}",
                f"by {self.by:.0f}",
                ((srgb_of(now), "now"), (srgb_of(wanted), "wanted")),
            ),
            SwatchRow("Glazes that get there: click plans one", head=True),
        ]
        for n, way in enumerate(self.ways or (), 1):
            looks = tuple((srgb_of(lab), word) for lab, word in zip(way.looks, _LOOKS, strict=True))
            rows.append(
                SwatchRow(glaze_words(way.glaze, page.box), f"{way.off:.1f} from what is wanted", looks, n, warned=way.off > 4)
            )
        return tuple(rows) if self.ways is not None else ()

    def _switches(self) -> tuple[Switch, ...]:
        ways = Switch("Glaze", ((False, "for a change"), (True, "worked backwards")), self._turn, self.backwards)
        if self.backwards:
            return (ways,)
        return (ways, Switch("Make it", tuple((c, c) for c in CHANGES), self._choose_change, self.change))

    def _pick_well(self) -> Pick:
        page = self.page
        return Pick("Well", page.chosen_id, tuple((w.id, page.name_of(w)) for w in page.wells), page.select)

    def _sections(self, well: Well) -> tuple[Section, ...]:
        page, c = self.page, self.page.commission
        lines: list[Line] = [self._pick_well()]
        if self.backwards and self.plan is not None:
            plan = self.plan
            tubes = [(t.id, t.called) for t in page.box.of(page.medium) if not t.white]
            lines += [
                Pick("Glaze of", plan.tubes[0], tuple(tubes), lambda t: self._plan(replace(plan, tubes=(t,)))),
                Pick(
                    "Paint in it",
                    plan.share,
                    tuple((s, f"{100 * s:g}\u202f%") for s in STRENGTHS),
                    lambda s: self._plan(replace(plan, share=s)),
                ),
                Amount("Coats, each dry first", plan.coats, 1, MOST_COATS, lambda v: self._plan(replace(plan, coats=round(v)))),
            ]
        elif not self.backwards:
            lines.append(Amount("By", self.by, 2, 25, self._by, 1))
        lines.append(
            Note(
                "A brushed glaze is half or twice as thick as meant: try it on scrap first. 90 to 95 parts medium to 5 to 10 of paint is common practice."
            )
        )
        ground = ground_lab(c.tone.ground or "white")
        if wants_light_layer(well.lab, ground):
            lines.append(
                Note("A bright colour on a dark ground: lay an opaque light layer first and let it dry, else it dies.", "wrong")
            )
        if well.glaze is not None:
            words = glaze_words(well.glaze, page.box)
            lines.append(Note(f"✓ Planned over this well: {words}.", "good"))
            lines.append(Press("No glaze over it", lambda: self._set(well, None)))
        return (Section("Over", tuple(lines)),)

    def _act(self, well: Well) -> NextAct | None:
        if well.id < 0 or not self.backwards or self.back is None or self.plan is None:
            return None
        if well.glaze == self.plan and well.recipe == self.back.recipe:
            return None
        return NextAct(
            "Plan it: this beneath, then the glaze", recipe_words(self.back.recipe, self.page.box.names), self._plan_back
        )

    # --- doing

    def _turn(self, backwards: bool) -> None:
        self.backwards, self.ways, self.back = backwards, None, None
        self.page.refresh()

    def _choose_change(self, change: Change) -> None:
        self.change = change
        self.page.refresh()

    def _by(self, by: float) -> Meaning:
        self.by = by
        self.page.refresh()
        return None

    def _plan(self, plan: PlannedGlaze) -> Meaning:
        self.plan = plan
        self.page.refresh()
        return None

    def _take(self, n: int) -> None:
        well = self.page.chosen
        if well is not None and self.ways is not None:
            glaze = self.ways[n - 1].glaze
            if well.id < 0:
                self.page.workroom.say("Take the string first; then a glaze can be planned over a well.", True)
                return
            self.page.hand(lambda: self._set(well, glaze))

    def _set(self, well: Well, glaze: PlannedGlaze | None) -> Meaning:
        name = self.page.name_of(well)
        label = f"Planned a glaze over {name}" if glaze is not None else f"No glaze over {name}"
        return Edit(PALETTE, label, lambda p: change_well(p, replace(well, glaze=glaze)))

    def _plan_back(self) -> Meaning:
        well, back, plan = self.page.chosen, self.back, self.plan
        if well is None or back is None:
            return None
        new = replace(well, recipe=back.recipe, mix="", glaze=plan, mixed_on=None)
        return Edit(PALETTE, f"Planned {self.page.name_of(well)} from its glaze backwards", lambda p: change_well(p, new))
