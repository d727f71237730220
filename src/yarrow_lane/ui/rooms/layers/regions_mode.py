"""Regions: the proposal is taken or corrected by strokes on the picture; what a stroke does follows from its form."""

from collections.abc import Callable
from dataclasses import replace
from typing import TYPE_CHECKING, Literal

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent

from yarrow_lane.commission.eyes import with_eyes
from yarrow_lane.commission.recompose import Proposal, resequence
from yarrow_lane.commission.to_propose import focal_of
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.lane.part import Edit
from yarrow_lane.layers.kinds import Kind, is_ground
from yarrow_lane.layers.regions import (
    LAYERS,
    Layers,
    LayersTrouble,
    Region,
    add_lines,
    add_region,
    move_corner,
    region_at,
)  # fmt: skip
from yarrow_lane.layers.strokes.drawing import (
    cut,
    draw_anew,
    draw_mouth,
    draw_part,
    give_enclosed,
    name_piece,
    redraw_border,
)
from yarrow_lane.layers.strokes.meaning import Meant, meant
from yarrow_lane.layers.strokes.pieces import Pieces
from yarrow_lane.layers.strokes.snapping import snapped, snaps
from yarrow_lane.layers.usual import likely_next
from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.measure.words import begun
from yarrow_lane.ui.bench_sheet import (
    Meaning,
    NextAct,
)
from yarrow_lane.ui.deriving import regions_key, shown_layers
from yarrow_lane.ui.kit.overlays import Cross, Overlay, Words
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import show_reference
from yarrow_lane.ui.kit.tools import OutlineTool
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.rooms.layers.hands import MeaningTool
from yarrow_lane.ui.rooms.layers.mode import Mode, Sheets
from yarrow_lane.ui.rooms.layers.regions_bench import overlays_of, sections

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.layers.page import LayersPage

LinesFor = Literal["", "whiskers", "mouth", "focal"]


class RegionsMode(Mode):
    """The reference with its regions."""

    name = "regions"

    def __init__(self, page: "LayersPage") -> None:
        super().__init__(page)
        self.view = PictureView("The reference with its regions")
        self.picture = self.view
        self.lay(self.view)
        self.outline = OutlineTool(self._closed, self.page_refresh)
        self.hand = MeaningTool(self._meaning, self._stroked, self._clicked, self._dragged)
        self.view.tool = self.hand
        self.region_id = 0
        self.kind: Kind = "background"
        self.lines_for: LinesFor = ""
        self._kinds: dict[str, Kind] = {}  # chosen by hand, by commission: it stays over doors
        self._proposed: tuple[Region, ...] = ()
        self._pieces: tuple[str, Pieces] | None = None
        self.view.frame.changed.connect(self._show)

    def page_refresh(self) -> None:
        self.page.refresh()

    def opened(self) -> None:
        self.region_id, self._proposed, self._pieces, self.lines_for = 0, (), None, ""
        c = self.page.commission
        self.kind = self._kinds.get(c.id) or likely_next(c.layers, c.brief)
        self.outline.corners, self.outline.shut = None, False

    # --- showing

    @property
    def layers(self) -> Layers:
        """Those on record, else the proposal."""
        return shown_layers(self.page.commission.layers, self._proposed)

    def refresh(self) -> Sheets:
        page, c = self.page, self.page.commission
        show_reference(self.view, page.workroom.references, c.compose, page)
        if not c.layers.regions and not self._proposed and c.compose.framed:
            key = reference_key(c.compose)
            page.deriving.proposal(c, lambda found: self._came(c.id, key, found))
        self.view.tool = self.outline if self.outline.drawing else self.hand
        if not self.outline.drawing and c.id not in self._kinds:
            self.kind = likely_next(self.layers, c.brief)
        self._show()
        return Sheets(sections(self), (), self._act())

    def _came(self, commission_id: str, key: str, found: tuple[Region, ...]) -> None:
        page = self.page
        same = page.commission_id == commission_id and reference_key(page.commission.compose) == key
        if same and not page.commission.layers.regions and page.mode is self:
            self._proposed = found
            page.refresh()

    def _show(self) -> None:
        layers = self.layers
        guessed = layers.proposed or not self.page.commission.layers.regions if layers.regions else False
        chosen = next((r for r in layers.regions if r.id == self.region_id), None)
        self.hand.corners = (
            tuple(p for ring in chosen.rings for p in ring) if chosen is not None and self.view.scale > 2.2 else ()
        )
        marks: list[Overlay] = []
        for region in layers.regions:
            marks += overlays_of(region, region is chosen, guessed, self.view.scale)
        if layers.regions:
            focal = focal_of(self.page.commission)
            said = "the viewer looks here" if self.page.commission.layers.focal is not None else ""
            marks += [Cross(focal), Words(focal, said, shift=(10, 16))] if said or self.lines_for == "focal" else []
        self.view.show_overlays(*marks)
        self.view.update()

    def _act(self) -> NextAct | None:
        c = self.page.commission
        if not c.compose.framed:
            return self.page.next_act(lambda: self.page.go_to("Compose"))
        if self.outline.shut:
            return NextAct(f"Keep it as {self.kind}", "Esc goes on drawing", self._keep)
        if self.outline.drawing:
            return NextAct("Close the outline", "after at least three corners", self._close_now)
        if c.layers.regions:
            if not c.layers.sitter_drawn:
                return NextAct(
                    f"Draw the {likely_next(c.layers, c.brief)}", "once round it on the picture, or by corners", self._begin
                )
            return self.page.onward("regions")
        if self._proposed and any(not is_ground(r.kind) for r in self._proposed):
            count = len(self._proposed)
            return NextAct(
                "Take these regions", f"{count} guessed; each can be corrected by a stroke, before or after", self.take
            )
        if self._proposed:
            return NextAct(
                "Draw the sitter",
                "once round it, or Enter and click its corners; no eyes or cut-out tell where it is",
                self._begin,
            )
        return NextAct("Looking for the sitter…", "or draw once round it", None)

    # --- doing

    def taken(self, layers: Layers) -> Layers:
        """The part with the proposal taken, when nothing was on record."""
        found = shown_layers(layers, self._proposed)
        if found is layers:
            return layers
        return replace(found, proposed=False, made_from=reference_key(self.page.commission.compose))

    def take(self) -> Meaning:
        """Take the proposal."""
        return self.relayered("Took the proposed regions", lambda x: x)

    def relayered(self, label: str, step: Callable[[Layers], Layers]) -> Proposal:
        """A change of regions: what becomes of finished passes is shown before."""
        climate = self.page.studio.climate
        return Proposal(label, "Layers", lambda c: resequence(c, replace(c, layers=step(self.taken(c.layers))), climate))

    def _do(self, label: str, step: Callable[[Layers], Layers]) -> bool:
        return self.page.hand(lambda: self.relayered(label, step)) is None

    def _meaning(self, points: Polygon, reach: float) -> Meant:
        if self.lines_for:
            return Meant("none", {"whiskers": "a whisker", "mouth": "a mouth"}.get(self.lines_for, ""))
        return meant(self.layers, points, self.region_id, reach)

    def _stroked(self, points: Polygon, reach: float) -> None:
        canvas = self.page.commission.compose.canvas
        held = tuple((min(max(x, canvas.x), canvas.right), min(max(y, canvas.y), canvas.bottom)) for x, y in points)
        if self.lines_for == "focal":
            self._clicked(held[-1])
            return
        if self.lines_for:
            self._line(held)
            return
        found = meant(self.layers, held, self.region_id, reach)
        self._perform(found, held)

    def _perform(self, found: Meant, points: Polygon) -> None:
        canvas, layers, kind = self.page.commission.compose.canvas, self.layers, self.kind
        name = layers.region(found.region_id).name if found.region_id else ""
        number = layers.next_id
        sitter = layers.region(found.region_id).sitter_id if found.region_id else 0
        if found.act == "none":
            if found.words:
                self.page.workroom.say(f"{begun(found.words)}.", False)
            self.page.refresh()
        elif found.act == "part":
            wanted = kind if kind != "background" or not layers.regions else "fur"
            if self._do(f"Drew a {wanted} region", lambda x: draw_part(x, points, wanted, canvas, sitter)):
                self._chose_new(number)
        elif found.act == "cut":
            if self._do(f"Cut {name}", lambda x: cut(x, found.region_id, points, canvas)):
                self.choose_region(number)
        elif found.act == "border":
            points = self._led(found, points)
            self._do(
                f"Drew the border of {name} anew", lambda x: redraw_border(x, found.region_id, found.other_id, points, canvas)
            )
        elif found.act == "anew":
            self._do(f"Drew {name} anew", lambda x: draw_anew(x, found.region_id, points, canvas))
        elif found.act == "give":
            self._do(f"{name} took what was enclosed", lambda x: give_enclosed(x, found.region_id, points, canvas))
        else:
            self._name(found, points, name)

    def _led(self, found: Meant, points: Polygon) -> Polygon:
        """The line led to the edge beside it, where the picture knows that better than a hand."""
        c, layers = self.page.commission, self.layers
        came: list[Shown] = []
        if snaps(layers.region(found.region_id), layers.region(found.other_id)):
            self.page.workroom.references.want(c.compose, self.page, came.append)
        return snapped(came[0].picture, came[0].picture.shape[1] / c.compose.width_mm, points) if came else points

    def _name(self, found: Meant, points: Polygon, name: str) -> None:
        """A name stroke: the picture's pieces are asked for first, they come at once after the first time."""
        page, c, layers = self.page, self.page.commission, self.layers
        canvas, key = c.compose.canvas, regions_key(layers.regions)

        def ready(pieces: Pieces) -> None:
            if page.commission_id == c.id and regions_key(self.layers.regions) == key:
                self._do(f"{name} took a piece", lambda x: name_piece(x, pieces, points, found.region_id, canvas))

        page.deriving.pieces(c, layers.regions, ready)

    def _line(self, points: Polygon) -> None:
        under = region_at(self.layers, points[0])
        sitter = under.sitter_id if under is not None else 0
        if self.lines_for == "whiskers":
            self._do("Drew a whisker", lambda x: add_lines(x, (points,), sitter))
            return
        canvas = self.page.commission.compose.canvas
        self._do("Drew a mouth", lambda x: draw_mouth(x, points, canvas, sitter))

    def _clicked(self, point: Point) -> None:
        if self.lines_for == "focal":
            self.lines_for = ""
            self.page.hand(
                lambda: Edit(LAYERS, "Set where the viewer should look", lambda x: replace(self.taken(x), focal=point))
            )
            return
        found = region_at(self.layers, point)
        self.choose_region(found.id if found is not None and found.id != self.region_id else 0)

    def _dragged(self, corner: Point, to: Point) -> None:
        canvas = self.page.commission.compose.canvas
        self._do("Moved a border", lambda x: move_corner(x, corner, to, canvas))

    def choose_region(self, region_id: int) -> None:
        """Look at that region; 0 at none."""
        self.region_id = region_id
        self.page.refresh()

    def _chose_new(self, region_id: int) -> None:
        self._kinds.pop(self.page.commission_id, None)
        self.kind = likely_next(self.page.commission.layers, self.page.commission.brief)
        self.choose_region(region_id)

    # --- by corners

    def by_corners(self) -> Meaning:
        """Begin an outline by corners, or give it up."""
        if self.outline.drawing:
            self.outline.give_up()
        else:
            self._begin()
        return None

    def _begin(self) -> Meaning:
        self.view.setFocus(Qt.FocusReason.OtherFocusReason)
        self.outline.begin()
        return None

    def _closed(self, corners: Polygon) -> None:
        """The outline is closed: what it is is asked. With too few corners they stay to be gone on with."""
        if len(corners) < 3:
            few = ("no corner", "one corner", "two corners")[len(corners)]
            words = "click on the picture for more, they stay; Esc gives them up"
            self.page.workroom.report(LayersTrouble("The outline was not closed", f"it has {few} yet", words))
            return
        self.outline.shut = True
        self.page.refresh()

    def _close_now(self) -> Meaning:
        self.outline.close()
        return None

    def _keep(self) -> Meaning:
        self._add(self.outline.corners or ())
        return None

    def _add(self, corners: Polygon) -> None:
        kind, canvas = self.kind, self.page.commission.compose.canvas
        record = self.page.commission.layers
        number = record.next_id
        edit = self._from_record(f"Drew a {kind} region", lambda x: add_region(x, kind, corners, canvas))
        if self.page.hand(lambda: edit) is None:
            self.outline.give_up()
            self._chose_new(number)
        else:
            self.outline.shut = False
            self.page.refresh()

    def _from_record(self, label: str, step: Callable[[Layers], Layers]) -> Proposal:
        """Corners are drawn by those who want none of the proposal: nothing of it is taken."""
        climate = self.page.studio.climate
        return Proposal(label, "Layers", lambda c: resequence(c, replace(c, layers=step(c.layers)), climate))

    def outline_eyes(self) -> Meaning:
        """A region for each eye that is marked at Intake; the openings are a guess."""
        layers = with_eyes(self.page.commission)
        if self.page.hand(lambda: Edit(LAYERS, "Outlined the eyes from their marks", lambda _: layers)) is None:
            self._chose_new(0)
            self.page.workroom.say("The eyes are outlined from their marks, a guess: draw round one to correct it.", False)
        return None

    def draw_lines(self, what: LinesFor) -> Meaning:
        """The next strokes are lines of this kind; "" ends it."""
        self.lines_for = what
        self.page.refresh()
        return None

    def choose_kind(self, kind: Kind) -> None:
        """What the next region is, or the one just drawn."""
        self.kind = self._kinds[self.page.commission_id] = kind
        self.page.refresh()

    # --- keys

    def key(self, event: QKeyEvent) -> bool:
        """D begins an outline by corners; Esc steps back; Backspace takes a corner; arrows walk the regions."""
        key = event.key()
        if key == Qt.Key.Key_Escape:
            return self._step_back()
        if key == Qt.Key.Key_Backspace and self.outline.drawing and not self.outline.shut:
            self.outline.step_back()
            return True
        if event.text().lower() == "d" and self.page.commission.compose.framed:
            if not self.outline.drawing:  # what is drawn already is not begun anew by a stray key
                self._begin()
            return True
        if key in (Qt.Key.Key_Left, Qt.Key.Key_Right) and self.layers.regions and not self.outline.drawing:
            ids = [r.id for r in self.layers.regions]
            step = 1 if key == Qt.Key.Key_Right else -1
            now = ids.index(self.region_id) if self.region_id in ids else -1 if step == 1 else 0
            self.choose_region(ids[(now + step) % len(ids)])
            return True
        return False

    def _step_back(self) -> bool:
        if self.hand.drawing:
            self.hand.give_up()
            self.view.update()
        elif self.outline.shut:
            self.outline.shut = False
            self.page.refresh()
        elif self.outline.drawing:
            self.outline.give_up()
        elif self.lines_for:
            self.draw_lines("")
        elif self.region_id:
            self.choose_region(0)
        else:
            return False
        return True
