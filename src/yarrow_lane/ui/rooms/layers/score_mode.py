"""The score: the order of work for the painter's school, what lies on what, what may be painted now."""

from collections.abc import Callable, Mapping
from dataclasses import replace
from datetime import date
from itertools import pairwise
from typing import TYPE_CHECKING

import numpy as np
from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QImage, QKeyEvent

from yarrow_lane.commission.recompose import Proposal, resequence
from yarrow_lane.commission.standing import passes_in
from yarrow_lane.desk.touch import touch
from yarrow_lane.easel.session import EASEL, choose_pass, dry_at, pass_now, readiness
from yarrow_lane.easel.standing import passes_left
from yarrow_lane.easel.wet import wet_now
from yarrow_lane.lane.part import Edit
from yarrow_lane.layers.kinds import facts_of
from yarrow_lane.layers.own_order import OwnOrder, add_pass, leave_out, merge, move, part
from yarrow_lane.layers.passes import Pass
from yarrow_lane.layers.play.strokes import lab_to_srgb
from yarrow_lane.layers.regions import LAYERS, change_order, spread_of
from yarrow_lane.layers.score import days_of, films_of, longest_chain
from yarrow_lane.layers.sequence import warned
from yarrow_lane.layers.telling import remedies
from yarrow_lane.layers.wells_for import AreaColours, wanted_lab
from yarrow_lane.measure.days import clock_text, day_text
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.ui.bench_sheet import Fact, Field, Line, Meaning, NextAct, Note, Pick, Press, Section
from yarrow_lane.ui.rooms.layers.mode import Mode, Sheets
from yarrow_lane.ui.rooms.layers.pass_lines import pass_sections
from yarrow_lane.ui.rooms.layers.school_sheet import drying_section, jar_section, school_section, school_switches
from yarrow_lane.ui.rooms.layers.score_chart import Rgb, Row, Score, ScoreChart
from yarrow_lane.ui.theme.lettering import px
from yarrow_lane.ui.words import drying_text

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.layers.page import LayersPage

_STAGE_PX = 160
_WIDE = 600  # px at 100 % text under which the school is chosen on the bench, so that the chart keeps its height: our choice
_PLAY_AFTER_MS = 1500  # who only passes through does not start five seconds of work: our choice
_MOST_STAGES = 8
_OWN_MIN = 30.0  # a pass of one's own until its time is told: our choice


class ScoreMode(Mode):
    """The chart of films."""

    name = "score"

    def __init__(self, page: "LayersPage") -> None:
        super().__init__(page)
        self.chart = ScoreChart()
        self.lay(self.chart)
        self.pass_id, self.remedy, self.own_name, self.wide = "", 0, "", True
        self.colours: Mapping[int, AreaColours] = {}
        self._soon = QTimer(self.widget)
        self._soon.setSingleShot(True)
        self._soon.setInterval(_PLAY_AFTER_MS)
        self._soon.timeout.connect(page.workroom.guard.guarded(self._want_play))
        self.chart.chosen.connect(self.select_pass)
        self.chart.moved.connect(self._moved)

    def why_not(self) -> str:
        return "" if self.page.seen.layers.regions else "take or draw the regions first"

    def opened(self) -> None:
        self.pass_id, self.remedy, self.colours, self.own_name = "", 0, {}, ""

    def left(self) -> None:
        self._soon.stop()

    def fits_otherwise(self) -> bool:
        """Whether the sentence above the chart has come to have room, or lost it."""
        return self.wide != (self.page.table.width() >= px(_WIDE))

    def select_pass(self, pass_id: str) -> None:
        """Look at one pass; again takes the look away."""
        self.pass_id, self.remedy = ("" if pass_id == self.pass_id else pass_id), 0
        self.page.refresh()

    def refresh(self) -> Sheets:
        page, c = self.page, self.page.seen
        passes = passes_in(c, page.studio.climate)
        if c.compose.framed and c.layers.regions:
            asked = c.layers.regions

            def came(found: Mapping[int, AreaColours]) -> None:
                if page.commission_id == c.id and page.commission.layers.regions == asked and found is not self.colours:
                    self.colours = found
                    page.show_mode(self)

            page.deriving.colours(c, came)
            if self._soon.isActive() or not page.playing.has(passes):
                self._soon.start()
        self._show_chart(passes)
        self.wide = page.table.width() >= px(_WIDE)
        return Sheets(self._sections(passes), school_switches(page) if self.wide else (), self._act(passes))

    def _want_play(self) -> None:
        page = self.page
        if page.mode is self and page.isVisible() and page.commission_id:
            page.playing.want(page.commission, passes_in(page.commission, page.studio.climate))
            self.play_changed()

    def play_changed(self) -> None:
        """Stages may be drawn now."""
        if self.page.playing.ready:
            self._show_chart(passes_in(self.page.seen, self.page.studio.climate))

    def _days(self, passes: tuple[Pass, ...]) -> dict[str, date | None]:
        page, c = self.page, self.page.seen
        painted = {f.pass_id: f.at.date() for f in c.easel.finished}
        outlook = page.desk.standings.outlook(c.id, page.workroom.now)
        return days_of(passes, painted, [(s.day, s.minutes) for s in outlook.sittings])

    def _show_chart(self, passes: tuple[Pass, ...]) -> None:
        page, c, now = self.page, self.page.seen, self.page.workroom.now
        done = frozenset(f.pass_id for f in c.easel.finished)
        wet = frozenset(f.pass_id for f in c.easel.finished if dry_at(f, now) > now)
        free = frozenset(p.id for p in passes if p.id not in done and readiness(c.easel, p, now).ready)
        following = pass_now(c.easel, passes, now)
        order = {p.region_id: n for n, p in reversed(list(enumerate(passes)))}
        regions = sorted(c.layers.regions, key=lambda r: -_depth(order, passes, r.id))
        cm2 = spread_of(c.layers.regions).cm2
        rows = tuple(Row(r.id, r.name, cm2[r.id], r.rings or r.lines) for r in regions if r.id in order)
        colour = {p.id: self._colour(p) for p in passes}
        broken = frozenset(w.pass_id for w in warned(c.layers, c.brief.medium, page.studio.climate, page.ground_lightness))
        chain = frozenset(longest_chain(passes, tuple(done)).ids)
        days = self._days(passes) if passes else {}
        score = Score(
            rows, passes, (c.compose.width_mm, c.compose.height_mm), colour, films_of(passes), done, wet, free, broken, chain,
            following.id if following is not None else "", days, now.date(), self._stages(passes, days),
        )  # fmt: skip
        self.chart.show_score(score, self.pass_id)

    def _stages(self, passes: tuple[Pass, ...], days: Mapping[str, date | None]) -> tuple[tuple[int, QImage], ...]:
        playing = self.page.playing
        if not playing.ready or not passes:
            return ()
        ends = [n for n, (p, q) in enumerate(pairwise(passes), 1) if days.get(p.id) != days.get(q.id)]
        ends = [*ends, len(passes)]
        if len(ends) > _MOST_STAGES:
            ends = [ends[round(k * (len(ends) - 1) / (_MOST_STAGES - 1))] for k in range(_MOST_STAGES)]
        found = []
        for count in dict.fromkeys(ends):
            image = playing.thumb(count, _STAGE_PX)
            if image is not None:
                found.append((count, image))
        return tuple(found)

    def _colour(self, p: Pass) -> Rgb:
        area = self.colours.get(p.region_id)
        if area is None:
            grey = round(40 + p.lightness * 1.9)
            return grey, grey, grey
        r, g, b = lab_to_srgb(np.array([wanted_lab(p, area)], np.float32))[0].tolist()
        return r, g, b

    # --- the bench

    def _sections(self, passes: tuple[Pass, ...]) -> tuple[Section, ...]:
        page, c, now = self.page, self.page.seen, self.page.workroom.now
        sections: list[Section] = []
        at = next((n for n, p in enumerate(passes) if p.id == self.pass_id), None)
        if at is not None:
            p = passes[at]
            found = warned(c.layers, c.brief.medium, page.studio.climate, page.ground_lightness)
            sections += pass_sections(
                c,
                page.studio,
                passes,
                p,
                at + 1,
                now,
                self.colours,
                found,
                self.remedy,
                page.desk.standings.pace(now),
                page.patching.numbers_of(p.region_id),
            )
            sections.append(self._change_section(passes, p, at))
        else:
            sections += self._whole(passes)
        sections += [school_section(page, not self.wide), drying_section(page), jar_section(page)]
        return tuple(sections)

    def _whole(self, passes: tuple[Pass, ...]) -> list[Section]:
        page, c, now = self.page, self.page.seen, self.page.workroom.now
        left, pace = passes_left(c.easel, passes), page.desk.standings.pace(now)
        free: list[Line] = [
            Fact(f"{n}  {p.title}", hours_text(pace.likely(p.family, p.minutes, c.id)))
            for n, p in enumerate(passes, 1)
            if p in left and readiness(c.easel, p, now).ready
        ]
        sections = [Section("May be painted now", tuple(free[:4]) or (Note("Nothing: all of it waits."),))] if left else []
        wet = wet_now(c.easel, passes, now)
        if wet:
            lines = tuple(
                Fact(w.title, f"dry about {clock_text(w.likely, now)}, surely {clock_text(w.surely, now)}", "wrong")
                for w in wet[:3]
            )
            press = Press("It is dry by touch", lambda: self._felt(wet[0].pass_id, wet[0].title))
            sections.append(Section("Wet now", (*lines, press)))
        chain = longest_chain(passes, tuple(f.pass_id for f in c.easel.finished))
        lines_whole: list[Line] = [
            Fact("Passes", f"{len(passes) - len(left)} of {len(passes)} on the canvas"),
            Fact("Still to paint", hours_text(sum(pace.likely(p.family, p.minutes, c.id) for p in left))),
            Fact("Longest chain", f"{len(chain.ids)} passes, {drying_text(chain.minutes)}"),
        ]
        if passes:
            um = films_of(passes)
            thick, where = max((sum(um[p.id] for p in passes if p.region_id == r.id), r.name) for r in c.layers.regions)
            lines_whole.append(Fact("Thickest", f"{thick / 1000:.2f}\u202fmm, {where}"))
            last = self._days(passes).get(passes[-1].id)
            if last is not None and left:
                lines_whole.append(Fact("Last pass", day_text(last)))
        sections.append(Section("Whole painting", tuple(lines_whole)))
        found = warned(c.layers, c.brief.medium, page.studio.climate, page.ground_lightness)
        if found:
            title = {p.id: p.title for p in passes}
            notes = tuple(Note(f"{title.get(w.pass_id, '')}: {w.why}.", "wrong") for w in found[:3])
            sections.insert(0, Section("Mind", notes))
        if not c.layers.own.plain:
            again = Press(
                "The school's own order again",
                lambda: self._own("Took the school's order again", lambda o: OwnOrder(next_number=o.next_number)),
            )
            sections.append(Section("Your own order", (again,)))
        return sections

    def _change_section(self, passes: tuple[Pass, ...], p: Pass, at: int) -> Section:
        c = self.page.seen
        lines: list[Line] = []
        if remedies(p):
            lines.append(Press("What usually goes wrong?" if not self.remedy else "And what else?", self._next_remedy))
        done = c.easel.done(p.id)
        if done is None:
            lines.append(Press("Paint it next", lambda: Edit(EASEL, f"{p.title} is next", lambda e: choose_pass(e, p.id))))
            if at > 0:
                lines.append(
                    Press("Earlier", lambda: self._own(f"Moved {p.title}", lambda o: move(o, p.id, passes[at - 1].id)))
                )
            if at + 1 < len(passes):
                later = passes[at + 2].id if at + 2 < len(passes) else ""
                lines.append(Press("Later", lambda: self._own(f"Moved {p.title}", lambda o: move(o, p.id, later))))
            lines.append(
                Press(
                    "Paint it with the coat beneath", lambda: self._own(f"Merged {p.title}", lambda o: merge(o, passes, p.id))
                )
            )
            if not p.own:
                lines.append(Press("In two halves", lambda: self._own(f"Cut {p.title}", lambda o: part(o, p))))
            lines.append(Press("Leave it out", lambda: self._own(f"Left {p.title} out", lambda o: leave_out(o, p))))
        elif dry_at(done, self.page.workroom.now) > self.page.workroom.now:
            lines.append(Press("It is dry by touch", lambda: self._felt(p.id, p.title)))
        wells = tuple((w.id, c.palette.name_of(w)) for w in c.palette.wells)
        if wells:
            chosen = dict(c.layers.wells).get(p.id, 0)
            lines.append(Pick("Well", chosen, ((0, "the nearest"), *wells), lambda well: self._well(p, well)))
        lines.append(Field("A pass of your own after it", self.own_name, self._write_own))
        lines.append(Press("Add it", lambda: self._add(p)))
        return Section("Change it", tuple(lines), "moved, merged, cut, left out, added")

    # --- doing

    def _own(self, label: str, step: Callable[[OwnOrder], OwnOrder]) -> Meaning:
        climate = self.page.studio.climate
        own = step(self.page.seen.layers.own)
        return Proposal(label, "Layers", lambda c: resequence(c, replace(c, layers=change_order(c.layers, own)), climate))

    def _moved(self, pass_id: str, before: str) -> None:
        c = self.page.seen
        title = next((p.title for p in passes_in(c, self.page.studio.climate) if p.id == pass_id), "")
        if c.easel.done(pass_id) is not None:
            self.page.workroom.say(f"“{title}” is painted: it stays where it is.", False)
            return
        self.page.hand(lambda: self._own(f"Moved {title}", lambda o: move(o, pass_id, before)))

    def _write_own(self, text: str) -> None:
        self.own_name = text

    def _add(self, p: Pass) -> Meaning:
        self.page.bench.store_pending()
        name, self.own_name = self.own_name, ""
        return self._own(f"Added {name}", lambda o: add_pass(o, p.region_id, name, p.id, _OWN_MIN))

    def _well(self, p: Pass, well: int) -> Meaning:
        rest = tuple(w for w in self.page.seen.layers.wells if w[0] != p.id)
        chosen = (*rest, (p.id, well)) if well else rest
        return Edit(LAYERS, f"Chose a well for {p.title}", lambda x: replace(x, wells=chosen))

    def _felt(self, pass_id: str, title: str) -> Meaning:
        page = self.page
        page.workroom.say(f"{title}: {touch(page.desk, page.commission_id, pass_id, page.workroom.now, True)}", False)
        return None

    def _next_remedy(self) -> Meaning:
        self.remedy += 1
        self.page.refresh()
        return None

    def _act(self, passes: tuple[Pass, ...]) -> NextAct | None:
        return self.page.onward(self.name)

    def key(self, event: QKeyEvent) -> bool:
        """Arrows walk the passes; W asks what usually goes wrong; Esc looks at the whole again."""
        passes = passes_in(self.page.seen, self.page.studio.climate)
        key = event.key()
        chosen = next((p for p in passes if p.id == self.pass_id), None)
        if event.text().lower() == "w" and chosen is not None and remedies(chosen):
            self._next_remedy()
            return True
        if key == Qt.Key.Key_Escape and self.pass_id:
            self.select_pass(self.pass_id)
            return True
        if key in (Qt.Key.Key_Left, Qt.Key.Key_Right) and passes:
            order = [p.id for p in passes]
            step = -1 if key == Qt.Key.Key_Left else 1
            now = order.index(self.pass_id) if self.pass_id in order else -1 if step == 1 else 0
            self.pass_id, self.remedy = order[(now + step) % len(order)], 0
            self.page.refresh()
            return True
        return False


def _depth(order: Mapping[int, int], passes: tuple[Pass, ...], region_id: int) -> float:
    """The background lowest, what is nearest on top; earlier first within a level."""
    own = next((p for p in passes if p.region_id == region_id), None)
    return (facts_of(own.kind).depth - order[region_id] / 1000) if own is not None else -1.0
