"""Making the tubes known: three tints first, dabs by eye against the screen, and a photographed swatch card."""

from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFileDialog, QStackedLayout

from yarrow_lane.desk.derived import Key, Making
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.paint.calibration.staircase import BY_EYE_DOUBT, Answer, Staircase, answered
from yarrow_lane.paint.doubt import word_of
from yarrow_lane.paint.paints import TINT_PARTS
from yarrow_lane.paint.pigments.curves import curves
from yarrow_lane.paint.seen import srgb_of
from yarrow_lane.palette.card import MOST_TUBES, CardRead
from yarrow_lane.palette.expected import Expected, expected_error
from yarrow_lane.palette.mixer import ENOUGH_TINTS
from yarrow_lane.palette.paintbox import Paintbox, SeenMix, read_tube, saw_mix
from yarrow_lane.palette.question import read_card_picture
from yarrow_lane.palette.recipe import Recipe, Share, recipe_words
from yarrow_lane.standins.swatch_photo import Shot, card_picture, photographed, true_paint
from yarrow_lane.ui.bench_sheet import Fact, Line, Meaning, NextAct, Note, Press, Section, Tick
from yarrow_lane.ui.kit.swatch_rows import SwatchRow, SwatchRows
from yarrow_lane.ui.rooms.palette.answering import box_key
from yarrow_lane.ui.rooms.palette.compare_view import CompareView
from yarrow_lane.ui.rooms.palette.mode import Mode, Sheets

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.palette.page import PalettePage


class CalibrateMode(Mode):
    """What is known of each tube; while a dab is compared, a large patch."""

    name = "calibrate"

    def __init__(self, page: "PalettePage") -> None:
        super().__init__(page)
        self.rows, self.compare = SwatchRows("How well the tubes are known"), CompareView()
        self._stack = QStackedLayout(self.widget)
        self._stack.addWidget(self.rows)
        self._stack.addWidget(self.compare)
        self.rows.chosen.connect(self._begin_tint)
        self.stairs: Staircase | None = None
        self.comparing: Recipe = ()
        self.wet = False
        self.expected: Expected | None = None
        self.on_card: tuple[int, ...] = ()
        self.said = ""

    def opened(self) -> None:
        self.stairs, self.comparing, self.expected, self.said, self.on_card = None, (), None, "", ()

    def why_not(self) -> str:
        return "put tubes in the paintbox first" if self.page.box_is_suggested else ""

    # --- showing

    def refresh(self) -> Sheets:
        page = self.page
        box = page.studio.paintbox
        if self.stairs is not None:
            self._stack.setCurrentWidget(self.compare)
            self.compare.show_colour(srgb_of(self.stairs.shown), self._asked())
            return self._comparing()
        self._stack.setCurrentWidget(self.rows)
        self._ask()
        self.rows.show_rows(self._shown(box))
        self.rows.waiting = "The paintbox is empty."
        return Sheets((self._first(box), self._dab(), self._card(box)), (), self._act(box))

    def _ask(self) -> None:
        page, c = self.page, self.page.commission
        box, medium = page.studio.paintbox, page.medium
        recipes = tuple(w.recipe for w in c.palette.wells if w.recipe)
        key = Key("expected error", (box_key(box),), (medium, recipes))

        def ready(found: Expected) -> None:
            if page.mode is self and self.expected is not found:
                self.expected = found
                page.refresh_soon()

        if box.of(medium):
            making = Making(lambda _: expected_error(box, medium, recipes), lambda _: 200)
            page.workroom.derived.want(key, page, making, ready)

    def _shown(self, box: Paintbox) -> tuple[SwatchRow, ...]:
        page = self.page
        tinted = box.tinted
        rows = []
        for tube in box.of(page.medium):
            known = ["its own swatches"] if not tube.generic else []
            known += ["a tint"] if tube.id in tinted else []
            if tube.white:
                continue
            rows.append(
                SwatchRow(
                    box.names[tube.id],
                    f"known by {' and '.join(known)}" if known else "remembered only: click to compare its tint of 1 to 10",
                    ((page.tube_colour(tube.id, False), "pure"), (page.tube_colour(tube.id, True), "1 to 10")),
                    tube.id,
                )
            )
        return tuple(rows)

    def _first(self, box: Paintbox) -> Section:
        done = len(box.tinted)
        lines: list[Line] = [Fact("Tints compared", f"{done} of {ENOUGH_TINTS}", "good" if done >= ENOUGH_TINTS else "plain")]
        if self.expected is not None:
            e = self.expected
            lines.append(Fact("Mixes may be off, tubes unread", f"± {e.unread:.1f}: {word_of(e.unread)}"))
            lines.append(
                Fact("as they are known now", f"± {e.now:.1f}: {word_of(e.now)}", "good" if e.now < e.unread - 0.2 else "plain")
            )
            lines.append(Fact("once three tints are compared", f"± {e.with_tints:.1f}"))
        lines.append(
            Note(
                "How strong tubes are against your white is the greatest doubt: three tints of 1 part to 10 of white take most of it away."
            )
        )
        if self.said:
            lines.append(Note(self.said, "good" if self.said.startswith("✓") else "wrong"))
        return Section("Three tints first", tuple(lines))

    def _dab(self) -> Section:
        well = self.page.chosen
        lines: list[Line] = [
            Note("Paint a dab of a well, hold it beside the screen in daylight, and say how it differs: the tubes in it learn.")
        ]
        if well is not None and well.recipe:
            name = self.page.name_of(well)
            lines.append(Press(f"Compare a dry dab of {name}", lambda: self.begin(well.recipe, False)))
            if self.page.medium == "acrylic":
                lines.append(Press(f"Compare a wet dab of {name}", lambda: self.begin(well.recipe, True)))
        return Section("A dab by eye", tuple(lines), "against the screen")

    def _card(self, box: Paintbox) -> Section:
        tubes = [t for t in box.of(self.page.medium) if not t.white]
        chosen = self.on_card or tuple(t.id for t in tubes[:MOST_TUBES])

        def put(tube_id: int, on: bool) -> Meaning:
            rest = tuple(i for i in chosen if i != tube_id)
            self.on_card = (*rest, tube_id)[-MOST_TUBES:] if on else rest
            self.page.refresh()
            return None

        lines: list[Line] = [
            Note(
                f"Paint up to {MOST_TUBES} tubes on the printed card, pure and 1 to 10, lay a grey card with steps on it, photograph it from above."
            )
        ]
        lines += [Tick(box.names[t.id], t.id in chosen, partial(put, t.id)) for t in tubes]
        lines.append(Press("Read a photograph of the card…", lambda: self._choose_photo(chosen), bool(chosen)))
        lines.append(Press("Read it with the camera stand-in", lambda: self._stand_in(chosen), bool(chosen)))
        return Section("A swatch card, photographed", tuple(lines), "up to four tubes")

    def _act(self, box: Paintbox) -> NextAct | None:
        done = box.tinted
        if len(done) >= ENOUGH_TINTS:
            return None
        unseen = [t for t in box.of(self.page.medium) if not t.white and t.id not in done]
        white = next((t for t in box.of(self.page.medium) if t.white), None)
        if white is None or not unseen:
            return NextAct("Put a white in the paintbox", "tints need one", lambda: self.page.work_on("tubes"))
        # Strong and much used tubes tell most.
        tube = max(unseen, key=lambda t: min(4.0, float(curves()[t.pigment][0].mean())))
        return NextAct(
            f"Compare a tint of {tube.called}",
            f"mix 1 part to {TINT_PARTS} of {white.called}, let it dry, hold it to the screen",
            lambda: self._begin_tint(tube.id),
        )

    # --- comparing by eye

    def _begin_tint(self, tube_id: int) -> Meaning:
        box = self.page.studio.paintbox
        white = next((t for t in box.of(self.page.medium) if t.white), None)
        if white is None:
            self.page.workroom.say("A tint needs a white, and the paintbox holds none: put one in at tubes.", True)
            return None
        return self.begin((Share(white.id, float(TINT_PARTS)), Share(tube_id, 1.0)), False)

    def begin(self, recipe: Recipe, wet: bool) -> Meaning:
        """Compare a dab of that mix with the screen."""
        lab = self.page.mix_colour(recipe, wet)
        if lab is None:
            self.page.workroom.say("That mix cannot be shown: a tube of it is gone, or the tubes are not ready yet.", True)
            return None
        self.comparing, self.wet, self.said = recipe, wet, ""
        self.stairs = Staircase(lab)
        self.page.refresh()
        return None

    def _asked(self) -> str:
        assert self.stairs is not None
        more, less = self.stairs.asks
        return f"Hold the {'wet' if self.wet else 'dry'} dab to this patch. Is the paint {more} or {less}?"

    def _comparing(self) -> Sheets:
        assert self.stairs is not None
        more, less = self.stairs.asks

        def say(answer: Answer) -> Meaning:
            self._answer(answer)
            return None

        words = recipe_words(self.comparing, self.page.studio.paintbox.names)
        lines: list[Line] = [
            Note(words),
            Press(f"The paint is {more}", lambda: say("more")),
            Press(f"The paint is {less}", lambda: say("less")),
            Press("It looks the same", lambda: say("same")),
            Press("Give it up", self._give_up),
            Note("In daylight, without gloss, the dab against the screen; step back when unsure. Good to about two."),
        ]
        act = NextAct("It looks the same", f"look {self.stairs.stage + 1} of 4", lambda: say("same"))
        return Sheets((Section("Paint against screen", tuple(lines)),), (), act)

    def _give_up(self) -> Meaning:
        self.stairs = None
        self.page.refresh()
        return None

    def _answer(self, answer: Answer) -> None:
        assert self.stairs is not None
        self.stairs = answered(self.stairs, answer)
        if self.stairs.done:
            seen, self.stairs = self.stairs, None
            page = self.page
            before = self.expected.now if self.expected is not None else None
            mix = SeenMix(self.comparing, seen.shown, BY_EYE_DOUBT, self.wet, "eye", page.workroom.now.date())
            self.said = (
                "✓ Noted; the tubes in it have learnt." if before is None else f"✓ Noted. Before, mixes were ± {before:.1f}."
            )
            self.expected = None
            page.change_box("Compared a dab", saw_mix(page.studio.paintbox, mix))
            return
        self.page.refresh()

    # --- the card

    def _choose_photo(self, tubes: tuple[int, ...]) -> Meaning:
        chosen, _ = QFileDialog.getOpenFileName(self.page, "A photograph of the card", str(Path.home()))
        if chosen:
            self.read_photo(Path(chosen), tubes)
        return None

    def read_photo(self, path: Path, tubes: tuple[int, ...]) -> None:
        """A photograph of the card with those tubes on it, in that order."""
        page = self.page

        def work(progress: object) -> CardRead:
            found: CardRead = page.workroom.workers.ask(
                "palette.question:read_card_photo",
                path,
                path.name,
                len(tubes),
                progress=progress,  # type: ignore[arg-type]
            )
            return found

        page.workroom.threads.run(work, lambda read: self._read(read, tubes), self._refused)

    def _stand_in(self, tubes: tuple[int, ...]) -> Meaning:
        """The camera stand-in photographs a card painted with tubes that differ from the table; seeded by the tubes."""
        page, box = self.page, self.page.studio.paintbox

        def work(_: object) -> CardRead:
            rng = np.random.default_rng(sum(tubes))
            known = curves()
            paints = [true_paint(known[box.tube(t).pigment], rng) for t in tubes]
            return read_card_picture(photographed(card_picture(paints, known["PW6"]), Shot(), rng), len(tubes))

        page.workroom.threads.run(work, lambda read: self._read(read, tubes), self._refused)
        return None

    def _read(self, read: CardRead, tubes: tuple[int, ...]) -> None:
        page, box = self.page, self.page.studio.paintbox
        for tube_id, readings in zip(tubes, read.readings, strict=False):
            box = read_tube(box, tube_id, readings)
        self.said = (
            f"✓ {len(tubes)} tubes read; the grey steps fit to {read.step_error:.1f}, the light to {100 * read.uneven:.0f} %."
        )
        self.expected = None
        page.change_box(f"Read {len(tubes)} tubes from a card", box)

    def _refused(self, trouble: Trouble) -> None:
        self.said = str(trouble)
        self.page.workroom.report(trouble)
        self.page.refresh()

    def key(self, event: QKeyEvent) -> bool:
        return self.rows.take_key(event)
