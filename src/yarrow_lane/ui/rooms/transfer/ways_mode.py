"""Which way to carry the drawing over: all of them side by side, for all of it or for a part."""

from functools import partial
from typing import TYPE_CHECKING, Literal

from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.measure.words import begun
from yarrow_lane.transfer.offers import advised, minutes_of, offer
from yarrow_lane.transfer.record import ways_of
from yarrow_lane.transfer.ways import WAYS, WHAT_WORDS, Way, Ways, What
from yarrow_lane.ui.bench_sheet import Fact, Line, Meaning, NextAct, Note, Pick, Section, Switch, plain_options
from yarrow_lane.ui.rooms.transfer.mode import Mode, Sheets
from yarrow_lane.ui.rooms.transfer.way_lines import taken
from yarrow_lane.ui.rooms.transfer.ways_view import Row, WaysView

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.transfer.page import TransferPage

For = What | Literal["all"]
_FOR: tuple[tuple[For, str], ...] = (("all", "all of it"), ("outline", "the outline"), ("details", "eyes, nose and mouth"))


class WaysMode(Mode):
    """Click a way to take it."""

    name = "which way"

    def __init__(self, page: "TransferPage") -> None:
        super().__init__(page)
        self.view = WaysView(self._clicked)
        self.lay(self.view)
        self.part: For = "all"

    def opened(self) -> None:
        self.part = "all"

    def refresh(self) -> Sheets:
        page = self.page
        ways, job, stints = ways_of(page.commission.transfer), page.job, page.studio.stints
        best = advised(job, stints)
        what = None if self.part == "all" else self.part
        rows = tuple(Row(offer(way, job, stints, what), self._advised(best, way), self._taken_for(ways, way)) for way in WAYS)
        self.view.show_rows("Making ready light, drawing dark; times are guesses until yours are known.", rows)
        switches = (Switch("For", _FOR, self._for, self.part),)
        return Sheets((self._taken(ways), self._advice(best)), switches, self._act(ways, best))

    def _advised(self, best: Ways, way: Way) -> bool:
        if self.part == "all":
            return way in (best.outline, best.details)
        return way == best.of(self.part)

    def _taken_for(self, ways: Ways, way: Way) -> str:
        if ways.one == way:
            return "all of it"
        return next((WHAT_WORDS[what] for what in ("outline", "details") if ways.of(what) == way), "")

    def _act(self, ways: Ways, best: Ways) -> NextAct | None:
        act = self.page.standing().act
        if not ways.chosen and act is not None:  # what the studio says too
            return NextAct(act.title, act.detail, lambda: self._take(best))
        return self.page.way_act()

    def _take(self, ways: Ways) -> Meaning:
        self.page.take(taken(ways))
        self.page.carry_on()
        return None

    def _for(self, part: For) -> Meaning:
        self.part = part
        self.page.refresh()
        return None

    def _clicked(self, way: Way) -> None:
        self.page.hand(lambda: self.choose(way))

    def choose(self, way: Way) -> Meaning:
        """Take that way for what is switched to."""
        return taken(Ways(way, way)) if self.part == "all" else self._choose_for(self.part, way)

    def _choose_for(self, what: What, way: Way) -> Meaning:
        """The other part keeps its own, or has the advised one."""
        ways = ways_of(self.page.commission.transfer)
        both = ways if ways.chosen else advised(self.page.job, self.page.studio.stints)
        return taken(Ways(way, both.details) if what == "outline" else Ways(both.outline, way))

    def _taken(self, ways: Ways) -> Section:
        options = plain_options(WAYS)

        lines: list[Line] = []
        if ways.chosen:
            lines = [
                Pick("The outline by", ways.outline, options, partial(self._choose_for, "outline")),
                Pick("Eyes, nose and mouth by", ways.details, options, partial(self._choose_for, "details")),
                Fact("Together about", hours_text(minutes_of(self.page.job, ways, self.page.studio.stints))),
            ]
        else:
            lines.append(Note("Nothing is taken yet: the yellow field takes what is advised."))
        return Section("What you take", tuple(lines))

    def _advice(self, best: Ways) -> Section:
        page, job = self.page, self.page.job
        minutes = minutes_of(job, best, page.studio.stints)
        two = Note(
            f"Two ways: {best.outline} carries the outline quickest, {best.details} is true enough for eyes."
            if best.one is None
            else f"{begun(best.words)} is the quickest that reaches this size and is true enough for eyes."
        )
        learnt = len(page.studio.stints)
        lines: tuple[Line, ...] = (
            Fact("Advised", best.words),
            Fact("Together about", hours_text(minutes)),
            two,
            Fact("The sitter on the canvas", f"{job.subject_cm2:.0f}\u202fcm²"),
            Fact(
                "Of it eyes, nose and mouth", f"{job.details_cm2:.0f}\u202fcm²" if job.details_cm2 else "not marked at Intake"
            ),
            Fact("Your own times known", str(learnt) if learnt else "none yet"),
        )
        return Section("Why", lines)
