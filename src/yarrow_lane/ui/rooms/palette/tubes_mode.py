"""The paintbox: own tubes by their pigment, what is left of them, and what has to be bought."""

from dataclasses import replace
from functools import partial
from typing import TYPE_CHECKING, Any

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent

from yarrow_lane.paint.paints import STRONG
from yarrow_lane.paint.pigments.curves import curves
from yarrow_lane.paint.pigments.entries import entries
from yarrow_lane.palette.amounts import to_order
from yarrow_lane.palette.paintbox import MEDIA, Medium, Tube, change_tube, put_in, take_out
from yarrow_lane.palette.starters import STARTERS
from yarrow_lane.ui.bench_sheet import Amount, Fact, Field, Line, Meaning, NextAct, Note, Pick, Press, Section, Switch
from yarrow_lane.ui.rooms.palette.mode import Mode, Sheets
from yarrow_lane.ui.rooms.palette.saving import save_csv, save_gpl, save_sheet, save_swatch_card
from yarrow_lane.ui.rooms.palette.tubes_view import ShownTube, TubesView

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.palette.page import PalettePage

_OPACITIES = (("", "as the pigment"), ("opaque", "opaque"), ("half opaque", "half opaque"), ("transparent", "transparent"))


class TubesMode(Mode):
    """Drawn tubes; the bench tells and changes the chosen one."""

    name = "tubes"

    def __init__(self, page: "PalettePage") -> None:
        super().__init__(page)
        self.view = TubesView()
        self.lay(self.view)
        self.view.chosen.connect(self.choose)
        self.tube_id, self.shown_medium, self.adding = 0, "", "PW6"

    def opened(self) -> None:
        self.tube_id, self.shown_medium = 0, ""

    @property
    def medium(self) -> Medium:
        """The medium whose tubes are shown: the commission's until another is looked at."""
        return self.shown_medium or self.page.medium  # type: ignore[return-value]

    def choose(self, tube_id: int) -> None:
        """Look at another tube."""
        self.page.bench.store_pending()
        self.tube_id = tube_id
        self.page.refresh()

    def _look_at(self, medium: Medium) -> None:
        self.shown_medium, self.tube_id = medium, 0
        self.page.refresh()

    def refresh(self) -> Sheets:
        page = self.page
        box = page.studio.paintbox
        tubes = box.of(self.medium)
        chosen = next((t for t in tubes if t.id == self.tube_id), None)
        self.view.waiting = f"No {self.medium} tube yet. Put a starter box in, or single tubes, on the bench."
        self.view.show_tubes(tuple(self._shown(t) for t in tubes), self.tube_id)
        sections = [self._tube(chosen)] if chosen is not None else [self._starting(bool(tubes))]
        sections.append(self._adding())
        if tubes:
            sections += [self._buying(), self._papers()]
        generic = sum(t.generic for t in tubes)
        remark = f"{len(tubes)} tubes, {generic} generic" if tubes else ""
        act = None
        if not tubes and not page.box_is_suggested:
            act = NextAct("Back to the string", "", lambda: page.work_on("string"))
        return Sheets(
            tuple(sections), (Switch("Tubes of", tuple((m, m) for m in MEDIA), self._look_at, self.medium),), act, remark
        )

    def _shown(self, tube: Tube) -> ShownTube:
        page = self.page
        words = f"{tube.entry.index}, {tube.left_ml:.0f}\u202fml"
        return ShownTube(
            tube.id, page.tube_colour(tube.id, False), page.tube_colour(tube.id, True), page.studio.paintbox.names[tube.id],
            words if tube.generic else f"{words}, read", tube.left_ml / tube.size_ml, tube.generic, tube.scarce,
        )  # fmt: skip

    # --- the bench

    def _starting(self, some: bool) -> Section:
        presses = tuple(Press(f"Put in {name}", partial(self.page.fill_box, name, self.medium)) for name in STARTERS)
        note = Note("All of a starter box is generic: remembered, not measured. Put in what you own, take out what you do not.")
        return Section("Boxes to start from", (*presses, note), "three boxes" if some else "")

    def _change(self, tube: Tube, what: str, **values: Any) -> Meaning:
        page = self.page
        page.change_box(what, change_tube(page.studio.paintbox, replace(tube, **values)))
        return None

    def _tube(self, tube: Tube) -> Section:
        entry, page = tube.entry, self.page
        lines: list[Line] = [
            Fact("Pigment", f"{entry.index}, {entry.name}"),
            Field("Your name for it", tube.name, lambda t: self._change(tube, "Named a tube", name=t.strip()), entry.name, about=tube.id),
            Field("Line, maker", tube.line, lambda t: self._change(tube, "Wrote a tube's line", line=t.strip()), "as on the label", about=tube.id),
            Amount("Size", tube.size_ml, 2, 1000, lambda v: self._change(tube, "Size of a tube", size_ml=v, left_ml=min(tube.left_ml, v)), 5, 0, "\u202fml"),
            Amount("Left in it", round(tube.left_ml), 0, tube.size_ml, lambda v: self._change(tube, "What is left", left_ml=v), 5, 0, "\u202fml"),
            Pick("It covers", tube.opacity or "", _OPACITIES, lambda v: self._change(tube, "Opacity of a tube", opacity=v or None)),
            Fact("It is", f"{entry.opacity}, lightfast: {tube.lightfast or entry.lightfast}"),
            Field("Words on the label", tube.label, lambda t: self._change(tube, "Wrote a tube's label", label=t.strip()), "hazard words as printed", about=tube.id),
        ]  # fmt: skip
        known = "read from its own swatches" if not tube.generic else "generic: remembered, not measured"
        lines.append(Note(f"Known by: {known}."))
        facts = ["stains"] if entry.staining else []
        if curves()[tube.pigment][0].mean() > STRONG:
            facts.append("a strong tinter")
        if facts:
            lines.append(Note(f"{' and '.join(facts).capitalize()} (from memory)."))
        if entry.hazard:
            lines.append(
                Note(
                    f"{entry.hazard.capitalize()}: never sand or spray, wash hands, no food. The label and the safety data sheet decide.",
                    "wrong",
                )
            )
        if entry.lightfast in ("poor", "fair"):
            lines.append(Note(f"Lightfastness {entry.lightfast} (from memory): it may fade.", "wrong"))
        lines.append(Press("Take this tube out", lambda: self._out(tube)))
        return Section(page.studio.paintbox.names[tube.id], tuple(lines))

    def _out(self, tube: Tube) -> Meaning:
        self.tube_id = 0
        self.page.change_box(f"Took {tube.called} out", take_out(self.page.studio.paintbox, tube.id))
        return None

    def _adding(self) -> Section:
        options = tuple((e.key, f"{e.name}, {e.index}") for e in sorted(entries().values(), key=lambda e: e.name))

        def wanted(key: str) -> Meaning:
            self.adding = key
            self.page.refresh()
            return None

        def put() -> Meaning:
            page = self.page
            box = put_in(page.studio.paintbox, self.adding, self.medium)
            self.tube_id = box.tubes[-1].id
            page.change_box(f"Put {box.tubes[-1].called} in", box)
            return None

        lines = (
            Pick("Pigment", self.adding, options, wanted),
            Press("Put this tube in", put),
            Note("Choose by the index name on the tube (PB29, PY43); name it as you do."),
        )
        return Section("One more tube", lines, "by its pigment")

    def _buying(self) -> Section:
        page = self.page
        box = page.studio.paintbox
        short = to_order(box, page.spent) if not page.box_is_suggested else ()
        scarce = [t for t in box.of(self.medium) if t.scarce and t.id not in {s.tube for s in short}]
        lines: list[Line] = [Fact(box.names[s.tube], f"{s.tubes} × {box.tube(s.tube).size_ml:.0f}\u202fml") for s in short]
        lines += [Fact(t.called, "nearly empty") for t in scarce]
        return Section("To buy", tuple(lines) or (Note("Enough for the wells of this commission."),))

    def _papers(self) -> Section:
        page = self.page
        lines = (
            Press("Save the mixing sheet (PDF)…", lambda: save_sheet(page)),
            Press("Save a swatch card to paint on (PDF)…", lambda: save_swatch_card(page)),
            Press("Save the palette as GPL text…", lambda: save_gpl(page)),
            Press("Save the palette as CSV…", lambda: save_csv(page)),
        )
        return Section("On paper and for others", lines)

    def key(self, event: QKeyEvent) -> bool:
        step = {Qt.Key.Key_Up: -1, Qt.Key.Key_Down: 1}.get(Qt.Key(event.key()))
        tubes = self.page.studio.paintbox.of(self.medium)
        if step is None or not tubes:
            return False
        order = [t.id for t in tubes]
        at = order.index(self.tube_id) if self.tube_id in order else (-1 if step > 0 else 0)
        self.choose(order[(at + step) % len(order)])
        return True
