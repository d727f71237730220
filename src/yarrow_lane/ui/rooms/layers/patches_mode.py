"""Patches: what is painted in one go, numbered in the order to climb; corrected on the picture."""

import math
from collections.abc import Callable
from dataclasses import replace
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent

from yarrow_lane.commission.to_propose import focal_of
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.lane.part import Edit
from yarrow_lane.layers import coverage
from yarrow_lane.layers.brushes import finest_mm
from yarrow_lane.layers.flow.axis import UNSURE_DEG
from yarrow_lane.layers.patch_record import Patches, cut, lock, merge, move, only_locked, taken
from yarrow_lane.layers.patching.patches import Climb, PatchFacts, wants_cutting
from yarrow_lane.layers.regions import LAYERS
from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.ui.bench_sheet import Amount, Fact, Headline, Line, Meaning, NextAct, Note, Press, Section, Tick
from yarrow_lane.ui.kit.overlays import Ink, Outline, Overlay, Words
from yarrow_lane.ui.kit.overlays import Line as Dashed
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import show_reference
from yarrow_lane.ui.rooms.layers.hands import WayTool, arrow_head
from yarrow_lane.ui.rooms.layers.mode import Mode, Sheets
from yarrow_lane.ui.words import area_text

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.layers.page import LayersPage


class PatchesMode(Mode):
    """The reference with its patches."""

    name = "patches"

    def __init__(self, page: "LayersPage") -> None:
        super().__init__(page)
        self.view = PictureView("The patches in the order to paint")
        self.picture = self.view
        self.lay(self.view)
        self.tool = WayTool(self._drawn, self._clicked)
        self.tool.words = "cuts the patch in two"
        self.view.tool = self.tool
        self.climb: Climb | None = None
        self.patch_id, self._none, self._merging = 0, False, False
        self.view.frame.changed.connect(self._show)

    def why_not(self) -> str:
        return self.needs_regions()

    def opened(self) -> None:
        self.climb, self.patch_id, self._none, self._merging = None, 0, False, False

    def refresh(self) -> Sheets:
        page, c = self.page, self.page.commission
        show_reference(self.view, page.workroom.references, c.compose, page)
        asked = c.layers.patches, c.layers.lie, c.layers.regions, reference_key(c.compose)

        def came(climb: Climb | None) -> None:
            now = page.commission
            same = (now.layers.patches, now.layers.lie, now.layers.regions, reference_key(now.compose)) == asked
            if page.commission_id == c.id and same:
                changed = climb is not self.climb
                self.climb, self._none = climb, climb is None
                if changed:
                    page.show_mode(self)

        page.deriving.climb(c, came)
        self._show()
        return Sheets(self._sections(), (), self._act())

    @property
    def shown(self) -> tuple[PatchFacts, ...]:
        """In the order to paint."""
        return self.climb.patches if self.climb is not None else ()

    def numbers_of(self, region_id: int) -> tuple[int, ...]:
        """The numbers of a region's patches, once they are sorted."""
        return tuple(n for n, p in enumerate(self.shown, 1) if p.region_id == region_id)

    def _chosen(self) -> tuple[int, PatchFacts] | None:
        return next(((n, p) for n, p in enumerate(self.shown) if p.id == self.patch_id), None)

    def _show(self) -> None:
        marks: list[Overlay] = []
        guessed = not self.page.commission.layers.patches.taken
        for n, patch in enumerate(self.shown):
            here = patch.id == self.patch_id
            line: Dashed = "solid" if patch.locked or here or not guessed else "dashes"
            ink: Ink = "here" if here else "light"
            weight, filled = (2.6, len(patch.rings) == 1) if here else (1.2, False)
            marks += [Outline(r, ink, weight, line, filled=filled) for r in patch.rings]
            marks.append(Words(patch.middle, str(n + 1), "over"))
        chosen = self._chosen()
        if chosen is not None:
            marks += _way_of(chosen[1])
        self.view.show_overlays(*marks)
        self.view.update()

    # --- the bench

    def _sections(self) -> tuple[Section, ...]:
        if self._none:
            return (Section("Patches", (Note("No region here is fur, hair or feathers: each is painted as one."),)),)
        if self.climb is None:
            return (Section("Patches", (Note("Sorting the fur into patches…"),)),)
        record, sections = self.page.commission.layers.patches, []
        chosen = self._chosen()
        if chosen is not None:
            sections.append(self._patch_section(*chosen))
        lines: list[Line] = [
            Fact("Patches", f"{len(self.shown)}, in the order to paint"),
            Fact(
                "Tips fall over what is below",
                f"{100 * self.climb.kept:.0f}\u202f% of the overlap",
                "good" if self.climb.kept >= 0.95 else "plain",
            ),
        ]
        if not record.taken:
            lines.append(
                Note("A proposal: start low, where the tips point, and climb. Click a patch; draw a line across one to cut it.")
            )
        broken = [p for p in self.shown if p.pull]
        lines += [Note(f"{p.pull[0].upper()}{p.pull[1:]}.") for p in broken[:3]]
        if record.taken:
            locked = sum(p.locked for p in record.taken)
            words = f"Propose anew round the {locked} locked" if locked else "Propose all anew"
            lines.append(Press(words, lambda: self._edit("Proposed the patches anew", only_locked(record))))
        sections.append(Section("The climb", tuple(lines)))
        return tuple(sections)

    def _patch_section(self, n: int, patch: PatchFacts) -> Section:
        region = next((r for r in self.page.commission.layers.regions if r.id == patch.region_id), None)
        way = "turn with the form" if patch.turns else f"towards {patch.clock:g} o'clock"
        lines: list[Line] = [
            Headline(f"{n + 1} of {len(self.shown)}" + (f", {region.name}" if region is not None else "")),
            Fact("Area", area_text(patch.cm2)),
            Fact("Strokes", way),
            Fact("Hair seen", f"{patch.length:.0f}\u202fmm"),
        ]
        c = self.page.commission
        diagonal = math.hypot(c.compose.width_mm, c.compose.height_mm)
        lines.append(
            Fact("Finest stroke seen here", f"{finest_mm(math.dist(patch.middle, focal_of(c)), diagonal):.1f}\u202fmm")
        )
        if patch.dots > 0.4:
            lines.append(Note("Much of it points at the viewer: dab dots, do not stroke."))
        if wants_cutting(patch):
            lines.append(Note("Hair runs many ways in it: draw a line across to cut it."))
        if patch.doubt >= UNSURE_DEG:
            lines.append(Note("The way is a guess here: one stroke in the lie of the fur settles it.", "wrong"))
        lines.append(Amount("Paint it as number", n + 1, 1, len(self.shown), lambda to: self._moved(patch.id, int(to) - 1)))
        lines.append(Tick("Keep it when proposed anew", patch.locked, lambda on: self._locked(patch.id, on)))
        following = self.shown[n + 1] if n + 1 < len(self.shown) else None
        if following is not None and following.region_id == patch.region_id:
            lines.append(
                Press(
                    f"Merge with {n + 2}",
                    lambda: self._change("Merged two patches", lambda p: merge(p, patch.id, following.id)),
                )
            )
        lines.append(Press("Stroke card of this patch…", lambda: self.page.save_card(patch)))
        return Section("This patch", tuple(lines))

    def _act(self) -> NextAct | None:
        if self.climb is not None and not self.page.commission.layers.patches.taken and self.shown:
            return NextAct("Take these patches", "numbered in the order to paint; each can be changed later", self._take)
        return self.page.onward(self.name)

    # --- doing

    def _edit(self, label: str, patches: Patches) -> Meaning:
        return Edit(LAYERS, label, lambda x: replace(x, patches=patches))

    def _record(self) -> Patches:
        """Those on record, else those shown."""
        record = self.page.commission.layers.patches
        whole = record.taken and not all(p.locked for p in record.taken)
        return record if whole else taken([(p.id, p.region_id, p.rings, p.locked) for p in self.shown])

    def _take(self) -> Meaning:
        return self._edit("Took the patches", self._record())

    def _change(self, label: str, step: Callable[[Patches], Patches]) -> Meaning:
        return self._edit(label, step(self._record()))

    def _moved(self, patch_id: int, to: int) -> Meaning:
        return self._change("Moved a patch in the order", lambda p: move(p, patch_id, to))

    def _locked(self, patch_id: int, on: bool) -> Meaning:
        return self._change("Locked a patch" if on else "Unlocked a patch", lambda p: lock(p, patch_id, on))

    def _clicked(self, point: Point) -> None:
        found = next((p.id for p in self.shown if coverage.holds(p.rings, point)), 0)
        self.choose_patch(0 if found == self.patch_id else found)

    def choose_patch(self, patch_id: int) -> None:
        """Look at that patch; 0 at none."""
        self.patch_id = patch_id
        self.page.refresh()

    def _drawn(self, points: Polygon) -> None:
        middle = points[len(points) // 2]
        found = next((p.id for p in self.shown if coverage.holds(p.rings, middle)), 0)
        if found:
            self.page.hand(lambda: self._change("Cut a patch", lambda p: cut(p, found, points)))

    def key(self, event: QKeyEvent) -> bool:
        """Arrows walk the patches in their order, up and down move the chosen one in it."""
        key = event.key()
        if key == Qt.Key.Key_Escape and self.patch_id:
            self.patch_id = 0
            self.page.refresh()
            return True
        if not self.shown:
            return False
        ids = [p.id for p in self.shown]
        if key in (Qt.Key.Key_Left, Qt.Key.Key_Right):
            step = 1 if key == Qt.Key.Key_Right else -1
            now = ids.index(self.patch_id) if self.patch_id in ids else -1 if step == 1 else 0
            self.patch_id = ids[(now + step) % len(ids)]
            self.page.refresh()
            return True
        if key in (Qt.Key.Key_Up, Qt.Key.Key_Down) and self.patch_id in ids:
            to = ids.index(self.patch_id) + (-1 if key == Qt.Key.Key_Up else 1)
            self.page.hand(lambda: self._moved(self.patch_id, to))
            return True
        return False


def _way_of(patch: PatchFacts) -> list[Overlay]:
    """An arrow through the middle as long as the hair seen, at least 8 mm."""
    half = max(8.0, patch.length) / 2
    dx, dy = math.sin(math.radians(patch.angle)) * half, -math.cos(math.radians(patch.angle)) * half
    x, y = patch.middle
    line = ((x - dx, y - dy), (x + dx, y + dy))
    return [Outline(line, "here", 2.4, closed=False), Outline(arrow_head(list(line), 4.0), "here", 2.4, closed=False)]
