"""Placing: the canvas with its sitters under the hand; scale of life, colour, light, focus and advice beside it."""

from dataclasses import replace
from typing import TYPE_CHECKING

import numpy as np
from PySide6.QtCore import Qt
from PySide6.QtGui import QImage, QKeyEvent
from PySide6.QtWidgets import QVBoxLayout, QWidget

from yarrow_lane.commission.sitters import not_placed
from yarrow_lane.compose import pieces
from yarrow_lane.compose.advice import Advice, advice, faces
from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.drawing.dragging import Dragging
from yarrow_lane.compose.drawing.sprite import ONE
from yarrow_lane.compose.pieces import Piece
from yarrow_lane.compose.placing import change_piece, scales_of
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.compose.scale import share_words
from yarrow_lane.lane.happening import ProofSent, of_kind
from yarrow_lane.measure.colour.srgb import srgb8_from_linear
from yarrow_lane.measure.words import begun
from yarrow_lane.ui.bench_sheet import Meaning, NextAct
from yarrow_lane.ui.kit.levels import Levels, see_through
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.piece_tool import PieceTool, Way
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.rooms.compose.at_hand import BehindPhoto
from yarrow_lane.ui.rooms.compose.depth_strip import DepthStrip
from yarrow_lane.ui.rooms.compose.mode import Sheets
from yarrow_lane.ui.rooms.compose.place_canvas import place_overlays
from yarrow_lane.ui.rooms.compose.place_marks import PlaceMarks
from yarrow_lane.ui.rooms.compose.place_view import place_sheets, standings
from yarrow_lane.ui.theme.lettering import px

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.compose.page import ComposePage

_ROOM_FOR_STRIP = 420  # px of height below which the canvas needs all of it: our choice
_SAID = 3  # shares of life beside the strip: what fits
_NUDGE_MM, _FAR = 1.0, 10.0  # our choice
_ARROWS = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1)}
_FACE_PX = 160


class PlaceMode(PlaceMarks):
    """The canvas, and beneath it the sitters seen from the side."""

    name = "place"

    def __init__(self, page: "ComposePage") -> None:
        super().__init__(page)
        self.view = PictureView("The composition")
        self.picture = self.view
        self.strip = DepthStrip(self._pulled, self.choose)
        self.widget = QWidget()
        box = QVBoxLayout(self.widget)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addWidget(self.view, 1)
        box.addWidget(self.strip)
        self.tool = PieceTool(self, self._dropped)
        self._shown_key = self._asked_key = ""
        self.behind = BehindPhoto(page)
        self._faces: dict[int, tuple[object, QImage]] = {}
        self._start: Piece | None = None
        self.moving_piece: Piece | None = None

    def why_not(self) -> str:
        compose = self.page.commission.compose
        if not compose.sized:
            return "the canvas has no size yet: choose one first"
        if not compose.pieces and not compose.framed:
            return "no sitter is cut out yet: cut one out first"
        return ""

    def opened(self) -> None:
        self.chosen, self.hand, self.asking, self._neutral, self.part = 0, "moves", None, None, 0
        self._shown_key = self._asked_key = ""
        self._faces, self._seen = {}, {}
        self.behind.forget()
        self.under.let_go()

    def left(self) -> None:
        self._asked_key = self._shown_key  # what is still being made is asked for again
        self.behind.leave()

    # --- showing

    def refresh(self) -> Sheets:
        c, compose = self.page.commission, self.compose
        self.page.workroom.judging.evidence(tuple(p for p in c.intake.photos if p.id in {q.photo_id for q in compose.pieces}))
        self.scales = scales_of(compose)
        self._show_picture(compose)
        self.view.tool = {
            "moves": self.tool, "marks a length": self.measuring, "picks a neutral": self.pointing, "sets the focus": self.pointing,
            "recolours a part": self.rounding,
        }[self.hand]  # fmt: skip
        self.pointing.area = compose.canvas
        found = self.advice()
        if not self.tool.held:  # under the hand the frame and what is written follow it
            self._show_frame()
            self.view.show_overlays(*place_overlays(self, compose, found))
        self.strip.setVisible(bool(compose.pieces) and self.widget.height() >= px(_ROOM_FOR_STRIP))
        self.strip.show_sitters(standings(compose, self.scales), self.chosen, self._small_faces(compose), self._strip_note())
        return place_sheets(self, found, self._act(found))

    def advice(self) -> tuple[Advice, ...]:
        """What could be better in the composition now."""
        compose = self.compose
        return advice(compose, faces(compose, self.page.commission.intake.photos), self.page.studio.unit)

    def _strip_note(self) -> str:
        known = [p for p in self.compose.pieces if p.id in self.scales.sigma]
        if not known:
            return "No length of life is known yet: mark one, such as the pupils or a collar, and every size has its distance."
        said = [f"{p.name} {self.scales.share(p.id, p.mm_per_px)[0]:.2f} of life" for p in known]  # type: ignore[index]
        more = f" and {len(said) - _SAID} more, on the bench" if len(said) > _SAID else ""
        return ", ".join(said[:_SAID]) + more + ". Alt only changes who stands before whom."

    def _act(self, found: tuple[Advice, ...]) -> NextAct | None:
        doable = next((a for a in found if self.is_open(a)), None)
        if self.asking is not None:
            return NextAct("Write how long it is in life", "in mm, on the bench", self._to_length)
        # Who is on a photograph behind the cut-outs is in the picture already.
        left = not_placed(self.page.commission) if self.compose.behind is None else ()
        if left and self.compose.pieces:
            among = f"{len(self.compose.pieces)} of {len(self.page.commission.brief.sitters)} are in the picture"
            return NextAct(f"Cut out {left[0].name}", among, self._to_cut)
        if doable is not None:
            what, _, how = doable.words.rpartition(": ")
            return NextAct(begun(how), what, lambda: self.do(doable))
        if self.compose.framed and not of_kind(self.page.commission.log, ProofSent):
            return NextAct("Look at the proof", "the page as the client will see it", self._to_proof)
        return None

    def _to_cut(self) -> Meaning:
        self.page.work_on("cut out")
        return None

    def _to_proof(self) -> Meaning:
        self.page.work_on("proof")
        return None

    def _to_length(self) -> Meaning:
        self.page.bench.point_at("Length in life")
        return None

    def _show_picture(self, compose: Compose) -> None:
        size = (compose.width_mm, compose.height_mm)
        key = reference_key(compose)
        if not key:
            self.view.ground = (200, 198, 192)
            self.view.show_levels(None, size)
            self._shown_key = self._asked_key = ""
            return
        self.view.ground = None
        if self.view.content != size:
            self.view.waiting = "Cutting the sitters out…"
            self.view.show_levels(None, size)
        if key not in (self._shown_key, self._asked_key) and not self.tool.held:
            self._asked_key = key

            def ready(shown: Shown) -> None:
                if self._asked_key == key and not self.tool.held:
                    self._shown_key = key
                    self.view.show_levels(shown.levels, size)
                    self.page.refresh()

            self.page.workroom.references.want_soon(compose, self.page, ready)
        self.behind.of(compose)  # asked for before it is needed under the hand

    def _show_frame(self) -> None:
        piece = self.piece
        self.tool.frame = () if piece is None else tuple(pieces.to_canvas(piece, corner) for corner in piece.bounds.corners)
        self.view.update()

    def _small_faces(self, compose: Compose) -> dict[int, QImage]:
        found = {}
        for piece in compose.pieces:
            key = (piece.outline, piece.move, piece.mirrored)
            kept = self._faces.get(piece.id)
            if kept is None or kept[0] != key:
                sprite = self.under.pixels_of(piece)
                if sprite is None:
                    continue
                wanted = _FACE_PX / max(1.0, piece.bounds.height)
                level = sprite.level(sprite.level_for(wanted)).astype(np.float32) / ONE
                if piece.mirrored:
                    level = level[:, ::-1]
                self._faces[piece.id] = (key, _as_image(level))
            found[piece.id] = self._faces[piece.id][1]
        return found

    # --- the hand on the canvas

    def picked(self, thing: int) -> None:
        if thing != self.chosen:
            self.choose(thing)

    def choose(self, piece_id: int) -> None:
        """Work on that sitter; 0 on none."""
        self.chosen = piece_id
        self.page.refresh()

    def begun(self, way: Way) -> None:
        self._start, self.moving_piece = self.piece, None
        photo = self.behind.of(self.compose)
        if self._start is not None and not self.under.begin(self.compose, self.chosen, photo, self.view.scale):
            self.page.workroom.say("The picture is still being made: the frame shows where it goes.", False)

    def _follow(self, piece: Piece, image: QImage | None) -> None:
        self.tool.frame = tuple(pieces.to_canvas(piece, corner) for corner in piece.bounds.corners)
        if image is not None:
            self.view.show_levels(Levels((image,)), self.view.content)
        words = self.words_at_hand(piece)
        self.view.show_overlays(*place_overlays(self, change_piece(self.compose, piece.id, lambda _: piece), (), words))
        self.moving_piece = piece

    def moving(self, across: float, down: float) -> None:
        if self._start is None:
            return

        def step(dragging: Dragging, scale: float) -> None:
            dragging.shift(round(across * scale), round(down * scale))

        image = self.under.follow(step)
        after = self.under.dragging.piece if self.under.dragging is not None else pieces.moved(self._start, across, down)
        self._follow(after, image)

    def scaling(self, factor: float) -> None:
        if self._start is not None:
            self._became(pieces.scaled(self._start, factor, self._start.bounds_mm.centre))

    def turning(self, degrees: float) -> None:
        if self._start is not None:
            self._became(pieces.turned(self._start, degrees, self._start.bounds_mm.centre))

    def _became(self, piece: Piece) -> None:
        self._follow(piece, self.under.follow(lambda dragging, _: dragging.become(piece)))

    def ended(self) -> None:
        self.under.let_go()

    def _dropped(self) -> None:
        start, self._start = self._start, None
        after = self.moving_piece
        if start is None or after is None:
            return
        words = "Moved" if after.mm_per_px == start.mm_per_px and after.turn_deg == start.turn_deg else (
            "Scaled" if after.mm_per_px != start.mm_per_px else "Turned"
        )  # fmt: skip
        self.page.attempt(lambda: self.change(f"{words} {after.name}", lambda c: change_piece(c, after.id, lambda _: after)))

    def words_at_hand(self, piece: Piece) -> str:
        """What stands beside the pointer while a sitter is moved, scaled or turned."""
        share = self.scales.share(piece.id, piece.mm_per_px)
        size = f"{1 / piece.mm_per_px:.1f}\u202fpx per mm"
        turn = f" · {piece.turn_deg:+.0f}°" if abs(piece.turn_deg) >= 0.5 else ""
        return (share_words(*share) if share is not None else size) + turn

    def _pulled(self, piece_id: int, metres: float, freed: bool) -> None:
        self.page.attempt(lambda: self._pull(piece_id, metres, freed))

    def _pull(self, piece_id: int, metres: float, freed: bool) -> None:
        compose = self.compose
        shown = {s.piece_id: s for s in standings(compose, self.scales)}
        before = shown[piece_id].metres
        far = {**{i: s.metres for i, s in shown.items()}, piece_id: metres}
        if not freed:
            factor = before / metres
            compose = change_piece(compose, piece_id, lambda p: pieces.scaled(p, factor, pieces.foot(p)))
            compose = change_piece(compose, piece_id, lambda p: replace(p, far=p.far / factor))
        order = sorted(compose.pieces, key=lambda p: -far[p.id])
        compose = replace(compose, pieces=tuple(order))
        name = compose.piece(piece_id).name
        self.chosen = piece_id
        self.page.propose_compose(f"Pulled {name} {'nearer' if metres < before else 'farther'}", compose)

    # --- keys

    def key(self, event: QKeyEvent) -> bool:
        step, letter = _ARROWS.get(Qt.Key(event.key())), event.text().lower()
        if event.key() == Qt.Key.Key_Escape and (self.hand != "moves" or self.chosen):
            if self.hand != "moves":
                self.use("moves")
            else:
                self.choose(0)
            return True
        if letter == "n" and self.compose.pieces:
            order = [0, *(p.id for p in self.compose.pieces)]
            self.choose(order[(order.index(self.chosen) + 1) % len(order)] if self.chosen in order else order[-1])
            return True
        if letter in ("l", "o") and self.compose.pieces:
            self.page.hand(self.life_size if letter == "l" else self.one_scale)
            return True
        piece = self.piece
        if piece is None:
            return False
        if step is not None:
            far = _NUDGE_MM * (_FAR if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1)
            self.change(
                f"Moved {piece.name}",
                lambda c: change_piece(c, piece.id, lambda p: pieces.moved(p, step[0] * far, step[1] * far)),
            )
        elif event.text() in ("+", "-"):
            factor = 1.01 if event.text() == "+" else 1 / 1.01
            middle = piece.bounds_mm.centre
            self.change(f"Scaled {piece.name}", lambda c: change_piece(c, piece.id, lambda p: pieces.scaled(p, factor, middle)))
        elif event.text() in ("<", ">"):
            self.page.hand(lambda: self.set_turn(piece.turn_deg + (1 if event.text() == ">" else -1)))
        elif letter == "m":
            self.page.hand(self.mirror)
        elif event.key() in (Qt.Key.Key_PageUp, Qt.Key.Key_PageDown):
            self.page.hand(lambda: self.nearer(1 if event.key() == Qt.Key.Key_PageUp else -1))
        elif event.key() == Qt.Key.Key_Delete:
            self.page.hand(self.take_off)
        else:
            return False
        return True


def _as_image(level: np.ndarray) -> QImage:
    """Premultiplied light and alpha as a see-through picture."""
    alpha = np.clip(level[..., 3:], 0, 1)
    codes = srgb8_from_linear(np.clip(level[..., :3] / np.maximum(alpha, 1e-4), 0, 1))
    return see_through(codes, np.round(alpha[..., 0] * 255).astype(np.uint8))
