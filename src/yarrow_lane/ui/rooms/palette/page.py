"""The palette page: a string of wells for each sitter, mixed from the painter's own tubes."""

from collections.abc import Callable, Mapping

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QStackedLayout

from yarrow_lane.commission.studio import with_paintbox
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.measure.words import begun
from yarrow_lane.paint.remembered import remembered_colour
from yarrow_lane.paint.seen import Lab, Srgb, srgb_of, triple
from yarrow_lane.paint.wet import wet_lab
from yarrow_lane.palette.amounts import added, from_tubes, needed_ml
from yarrow_lane.palette.mixer import Mixer
from yarrow_lane.palette.other_media import OtherWay
from yarrow_lane.palette.paintbox import Medium, Paintbox, use_up
from yarrow_lane.palette.proposed_string import Step
from yarrow_lane.palette.recipe import Recipe, RecipeTrouble, eighths_of
from yarrow_lane.palette.starters import SUGGESTED, starter
from yarrow_lane.palette.stringing import mark_mixed, take_mixes, take_string, take_words
from yarrow_lane.palette.wells import PALETTE, USUAL_PATCH_MM, Well, value_word
from yarrow_lane.ui.bench_sheet import BenchSheet, ChoiceSheet, Meaning, NextAct, Note, Section, Switch
from yarrow_lane.ui.kit.frame import Frame
from yarrow_lane.ui.room_mode import ModedPage
from yarrow_lane.ui.rooms.palette.answering import MIXED_IN, Answering, box_or_suggested
from yarrow_lane.ui.rooms.palette.calibrate_mode import CalibrateMode
from yarrow_lane.ui.rooms.palette.glaze_mode import GlazeMode
from yarrow_lane.ui.rooms.palette.light_mode import LightMode
from yarrow_lane.ui.rooms.palette.mode import Mode
from yarrow_lane.ui.rooms.palette.skin_mode import SkinMode
from yarrow_lane.ui.rooms.palette.tubes_mode import TubesMode
from yarrow_lane.ui.rooms.palette.wells_mode import WellsMode
from yarrow_lane.ui.workroom import Workroom


class PalettePage(ModedPage):
    """Door 5."""

    door = "Palette"

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.chosen_id, self.sitter_id = 0, 0
        self.answering = Answering(workroom, self)
        self.frame = Frame()
        self.mixer: Mixer | None = None  # the paintbox made ready, once it has come
        self.proposed: tuple[Well, ...] = ()  # the string proposed while no well is taken
        self.areas: dict[int, float] = {}
        self.mixing_trouble = ""
        self.string, self.calibrating = WellsMode(self), CalibrateMode(self)
        order: tuple[Mode, ...] = (
            self.string, SkinMode(self), GlazeMode(self), TubesMode(self), self.calibrating, LightMode(self),
        )  # fmt: skip
        self.modes: Mapping[str, Mode] = {mode.name: mode for mode in order}
        self.mode: Mode = self.string
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.setInterval(0)
        self._soon.timeout.connect(workroom.guard.guarded(self._show_what_came))
        self._stack = QStackedLayout(self.table)
        for mode in order:
            self._stack.addWidget(mode.widget)
        self.picture = self.string.picture

    def opened(self) -> None:
        self.chosen_id, self.sitter_id, self.mixer, self.proposed, self.areas = 0, 0, None, (), {}
        self.mixing_trouble = ""
        for mode in self.modes.values():
            mode.opened()
        self.mode = self.string

    # --- what is at hand

    @property
    def medium(self) -> Medium:
        """What is mixed for this commission."""
        return MIXED_IN[self.commission.brief.medium]

    @property
    def box(self) -> Paintbox:
        """The painter's paintbox, or a suggested one while it is empty."""
        return box_or_suggested(self.studio.paintbox, self.medium)[0]

    @property
    def box_is_suggested(self) -> bool:
        return box_or_suggested(self.studio.paintbox, self.medium)[1]

    @property
    def mixes(self) -> bool:
        """Whether heaps are mixed: watercolour is thinned on paper, and pastel laid."""
        return self.medium in ("acrylic", "oil")

    @property
    def wells(self) -> tuple[Well, ...]:
        """Those of the sitter looked at, from dark to light; while there are none, the proposed ones."""
        return self.commission.palette.of(self.sitter_id) or self.proposed

    @property
    def chosen(self) -> Well | None:
        """The well looked at."""
        return next((w for w in self.wells if w.id == self.chosen_id), self.wells[len(self.wells) // 2] if self.wells else None)

    def name_of(self, well: Well) -> str:
        """As it stands in the row."""
        palette = self.commission.palette
        if well.id > 0:
            return palette.name_of(well)
        return f"{value_word(well.lab[0])} {1 + self.wells.index(well)}"

    def ml_of(self, well: Well) -> float:
        """What is mixed of it."""
        return needed_ml(self.areas.get(well.id, 0.0), well.coats)

    @property
    def waiting(self) -> tuple[Well, ...]:
        """Heaps of the sitter looked at that are still to be mixed."""
        return self.commission.palette.to_mix(self.sitter_id)

    @property
    def spent(self) -> dict[int, float]:
        """ml of each tube for those heaps."""
        white = min((t.id for t in self.box.of(self.medium) if t.white), default=None)
        return added(from_tubes(w.recipe, self.ml_of(w), white) for w in self.waiting)

    def mix_colour(self, recipe: Recipe, wet: bool = False) -> Lab | None:
        """A mix dry or wet, as reckoned; None while the tubes are not ready or one of them is gone."""
        if self.mixer is None or not recipe:
            return None
        paints = self.mixer.paints
        try:
            parts = eighths_of(paints, recipe)
        except RecipeTrouble:
            return None
        return triple(wet_lab(paints, parts, self.mixer.wetness) if wet and self.medium == "acrylic" else paints.lab(parts))

    def tube_colour(self, tube_id: int, tint: bool) -> Srgb:
        """A tube's own colour, or its let-down's; as remembered while the tubes are not ready."""
        known = self.mixer.tubes if self.mixer is not None else {}
        if (found := known.get((tube_id, tint), known.get((tube_id, False)))) is not None:
            return found
        pigment = next((t.pigment for t in (*self.box.tubes, *self.studio.paintbox.tubes) if t.id == tube_id), "PW6")
        return remembered_colour(pigment, tint)

    # --- showing

    def refresh_soon(self) -> None:
        """What has been worked out arrives in bursts: it is shown once for all of them."""
        if not self._soon.isActive():
            self._soon.start()

    def refresh(self) -> None:
        c = self.commission
        if c.compose.framed:
            self._ask()
        well = self.chosen
        self.chosen_id = well.id if well is not None else 0
        sheets = self.mode.refresh()
        self._stack.setCurrentWidget(self.mode.widget)
        self.picture = self.mode.picture
        switches = [Switch("Work on", tuple((name, name) for name in self.modes), self.work_on, self.mode.name)]
        sitters = c.brief.sitters
        if len(sitters) > 1 and self.mode in (self.string, self.modes["client's light"]):
            options = ((0, "all"), *((s.id, s.name) for s in sitters))
            switches.append(Switch("Sitter", options, self.choose_sitter, self.sitter_id))
        sections = sheets.sections
        if not c.compose.framed and self.mode is self.string:
            sections = (Section("The palette", (Note("Colours are taken from the composed picture. Compose it first."),)),)
        act = sheets.act or self._act()
        self.show_sheets(BenchSheet(sections, act), ChoiceSheet((*switches, *sheets.switches), sheets.remark))

    def _show_what_came(self) -> None:
        if self.commission_id:
            self.refresh()

    def _ask(self) -> None:
        c, box, medium = self.commission, self.box, self.medium

        def same() -> bool:
            return self.commission_id == c.id and self.box is box

        def ready(mixer: Mixer) -> None:
            if same() and self.mixer is not mixer:
                self.mixer, self.mixing_trouble = mixer, ""
                self.refresh_soon()

        def failed(trouble: Trouble) -> None:
            if same() and self.mixing_trouble != str(trouble):
                self.mixing_trouble = str(trouble)
                self.refresh_soon()

        if self.mixes:
            self.answering.mixer(box, medium, ready, failed)
        if not c.palette.of(self.sitter_id):
            sitter = self.sitter_id

            def strung(wells: tuple[Well, ...]) -> None:
                if same() and self.sitter_id == sitter and self.proposed != wells:
                    self.proposed = wells
                    self.refresh_soon()

            if self.mixes:
                self.answering.string(c, box, medium, sitter, strung, failed)
            else:
                self.answering.steps(c, sitter, lambda steps: self._with_ways(steps, sitter, strung, failed))
        wells = self.wells

        def measured(areas: dict[int, float]) -> None:
            if self.commission_id == c.id and areas != self.areas:
                self.areas = areas
                self.refresh_soon()

        if wells:
            self.answering.areas(c, self.sitter_id, wells, measured)

    def _with_ways(
        self, steps: tuple[Step, ...], sitter: int, ready: Callable[[tuple[Well, ...]], None], failed: Callable[[Trouble], None]
    ) -> None:
        """Steps with the best way to each, as proposed wells."""

        def found(ways: tuple[tuple[OtherWay, ...], ...]) -> None:
            wells = [
                Well(-n, "", step.at, USUAL_PATCH_MM, srgb_of(step.lab), step.lab, way[0].words if way else "", (), sitter)
                for n, (step, way) in enumerate(zip(steps, ways, strict=True), 1)
            ]
            ready(tuple(wells))

        self.answering.other_ways(self.box, self.medium, tuple(s.lab for s in steps), found, failed)

    # --- doing

    def _act(self) -> NextAct:
        c = self.commission
        palette = c.palette
        if not c.compose.framed:
            return self.next_act(lambda: self.go_to("Compose"))
        if self.mixing_trouble:
            return NextAct("Look at the tubes", self.mixing_trouble, lambda: self.work_on("tubes"))
        if self.box_is_suggested:
            return NextAct(
                f"Put {len(self.box.of(self.medium))} tubes in the paintbox",
                "earths and primaries, generic, to start from; change them at tubes",
                self.fill_box,
            )
        if not palette.of(self.sitter_id):
            if not self.proposed:
                return NextAct("Looking for the colours…", "a second or two", None, False)
            tubes = len({s.tube for w in self.proposed for s in w.recipe})
            detail = f"a proposal{f' on {tubes} tubes' if tubes else ''}; click on the picture for others"
            return NextAct(f"Take this string of {len(self.proposed)}", detail, self.take_string)
        open_ones = palette.unanswered(self.sitter_id)
        if open_ones:
            title = f"Find the mixes of {len(open_ones)} wells" if len(open_ones) > 1 else "Find its mix"
            return NextAct(
                title, f"on at most {palette.most} tubes" if self.mixes else "the nearest way to each", self.take_mixes
            )
        waiting = self.waiting
        if waiting:
            ml = sum(self.ml_of(w) for w in waiting)
            words = f"{ml:.0f}\u202fml of paint; paint a patch of each on scrap and let it dry"
            return NextAct(
                f"{len(waiting)} heaps are mixed" if len(waiting) > 1 else "The heap is mixed", words, self.mark_mixed
            )
        return self.next_act(lambda: None)

    def fill_box(self, name: str = SUGGESTED, medium: Medium | None = None) -> Meaning:
        """A starter box goes into the studio's paintbox."""
        self.change_box(f"Filled the paintbox: {name}", starter(name, medium or self.medium, self.studio.paintbox))
        return None

    def string_anew(self) -> Meaning:
        """A fresh string beside the wells there are."""
        c = self.commission

        def ready(wells: tuple[Well, ...]) -> None:
            if self.commission_id == c.id:
                self.hand(lambda: Edit(PALETTE, f"Took a string of {len(wells)}", lambda p: take_string(p, wells)))

        self.answering.string(c, self.box, self.medium, self.sitter_id, ready, self.workroom.report)
        return None

    def take_string(self) -> Meaning:
        """The proposed wells become the sitter's."""
        proposed = self.proposed
        if not proposed:
            return None
        self.chosen_id = self.commission.palette.next_id + len(proposed) // 2
        return Edit(PALETTE, f"Took a string of {len(proposed)}", lambda p: take_string(p, proposed))

    def take_mixes(self) -> Meaning:
        """Mixes for the wells that have none."""
        c = self.commission
        wells = c.palette.unanswered(self.sitter_id)

        def ready(recipes: dict[int, Recipe]) -> None:
            if self.commission_id == c.id:
                self.hand(lambda: Edit(PALETTE, f"Found the mixes of {len(recipes)} wells", lambda p: take_mixes(p, recipes)))

        def said(ways: tuple[tuple[OtherWay, ...], ...]) -> None:
            words = {w.id: way[0].words for w, way in zip(wells, ways, strict=True) if way}
            if self.commission_id == c.id:
                self.hand(lambda: Edit(PALETTE, f"Found the mixes of {len(words)} wells", lambda p: take_words(p, words)))

        if not self.mixes:
            labs = tuple(w.lab for w in wells)
            self.answering.other_ways(self.box, self.medium, labs, said, self.workroom.report)
            return None
        self.answering.mixes(c, self.box, self.medium, wells, ready, self.workroom.report)
        return None

    def mark_mixed(self) -> Meaning:
        """The heaps lie on the palette; what they took leaves the tubes."""
        spent, today = self.spent, self.workroom.now.date()
        ids = [w.id for w in self.waiting]
        self.take(Edit(PALETTE, f"{len(ids)} heaps are mixed", lambda p: mark_mixed(p, ids, today)))
        self.desk.do_studio("Pressed paint out", lambda s: with_paintbox(s, use_up(s.paintbox, spent)))
        self.refresh()
        return None

    def choose_sitter(self, sitter_id: int) -> None:
        """Another sitter's palette."""
        self.sitter_id, self.chosen_id, self.proposed, self.areas = sitter_id, 0, (), {}
        self.refresh()

    def compare_dab(self, well: Well) -> Meaning:
        """Over to the patch on the screen, with a dry dab of that well."""
        self.work_on(self.calibrating.name)
        return self.calibrating.begin(well.recipe, False)

    def change_box(self, label: str, box: Paintbox) -> None:
        """The paintbox of the studio changes."""
        self.desk.do_studio(begun(label), lambda s: with_paintbox(s, box))
        self.refresh()

    def select(self, well_id: int) -> None:
        """Look at another well."""
        self.bench.store_pending()
        self.chosen_id = well_id
        self.refresh()

    def key(self, event: QKeyEvent) -> bool:
        step = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(event.key()))
        if step is not None and self.wells:
            order = [w.id for w in self.wells]
            self.select(order[(order.index(self.chosen_id) + step) % len(order)])
            return True
        return self.mode.key(event)
