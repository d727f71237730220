"""Placing: the canvas with its sitters under the hand; scale of life, colour, light, focus and advice beside it."""

import math
from dataclasses import replace
from typing import TYPE_CHECKING, Literal

import numpy as np
from PySide6.QtCore import Qt
from PySide6.QtGui import QImage, QKeyEvent
from PySide6.QtWidgets import QVBoxLayout, QWidget

from yarrow_lane.commission.recompose import Proposal
from yarrow_lane.compose import agreement, pieces
from yarrow_lane.compose.advice import Advice, advice, done, faces, refused
from yarrow_lane.compose.composition import Compose, Focus
from yarrow_lane.compose.drawing.dragging import Dragging
from yarrow_lane.compose.drawing.sprite import ONE
from yarrow_lane.compose.ground import Ground
from yarrow_lane.compose.known import DOUBT_SHARE, Known
from yarrow_lane.compose.pieces import Move, Piece, PieceTrouble
from yarrow_lane.compose.placing import all_at_one_scale, at_share, change_piece, in_order, snapped, without_pieces
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.compose.scale import Scales, ScaleTrouble, share_words, solve
from yarrow_lane.intake.photos import Photo
from yarrow_lane.lane.happening import ProofSent, of_kind
from yarrow_lane.measure.colour.srgb import srgb8_from_linear
from yarrow_lane.measure.lengths import length_text
from yarrow_lane.measure.plane import Point
from yarrow_lane.measure.words import begun
from yarrow_lane.ui.bench_sheet import Meaning, NextAct
from yarrow_lane.ui.kit.drawing_tools import LengthTool
from yarrow_lane.ui.kit.levels import Levels
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.piece_tool import PieceTool, Way
from yarrow_lane.ui.kit.tools import PointsTool
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.rooms.compose.depth_strip import DepthStrip
from yarrow_lane.ui.rooms.compose.mode import Mode, Sheets
from yarrow_lane.ui.rooms.compose.place_view import place_overlays, place_sheets, standings
from yarrow_lane.ui.rooms.compose.under_hand import UnderHand

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.compose.page import ComposePage

Hand = Literal["moves", "marks a length", "picks a neutral", "sets the focus"]
_NUDGE_MM, _FAR = 1.0, 10.0  # our choice
_ARROWS = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1)}
_FOCUS_SHARE = 0.12  # of the shorter side: the first radius of a focus, our choice
_FACE_PX = 160


class PlaceMode(Mode):
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
        self.measuring = LengthTool(self._measured, self._length_words)
        self.pointing = PointsTool(lambda _: None, self._pointed)
        self.under = UnderHand(page.workroom.references.cut_outs)
        self.chosen = 0
        self.hand: Hand = "moves"
        self.asking: tuple[Point, Point, int] | None = None  # a length drawn, its mm not written yet
        self._neutral: tuple[int, np.ndarray] | None = None
        self._shown_key = self._asked_key = ""
        self._photo: tuple[str, Shown] | None = None
        self._faces: dict[int, tuple[object, QImage]] = {}
        self._seen: dict[object, agreement.Seen] = {}
        self.scales = Scales({}, {})
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
        self.chosen, self.hand, self.asking, self._neutral = 0, "moves", None, None
        self._shown_key = self._asked_key = ""
        self._photo, self._faces, self._seen = None, {}, {}
        self.under.let_go()

    def left(self) -> None:
        self._asked_key = self._shown_key  # what is still being made is asked for again

    @property
    def compose(self) -> Compose:
        return self.page.shown

    @property
    def piece(self) -> Piece | None:
        return next((p for p in self.compose.pieces if p.id == self.chosen), None)

    # --- showing

    def refresh(self) -> Sheets:
        c, compose = self.page.commission, self.compose
        self.page.workroom.judging.evidence(tuple(p for p in c.intake.photos if p.id in {q.photo_id for q in compose.pieces}))
        self.scales = self._solved(compose)
        self._show_picture(compose)
        self.view.tool = {
            "moves": self.tool, "marks a length": self.measuring, "picks a neutral": self.pointing, "sets the focus": self.pointing,
        }[self.hand]  # fmt: skip
        self.pointing.area = compose.canvas
        self._show_frame()
        found = self.advice()
        if not self.tool.held:
            self.view.show_overlays(*place_overlays(self, compose, found))
        self.strip.setVisible(bool(compose.pieces))
        self.strip.show_sitters(standings(compose, self.scales), self.chosen, self._small_faces(compose), self._strip_note())
        return place_sheets(self, found, self._act(found))

    def _solved(self, compose: Compose) -> Scales:
        names = {p.id: p.name for p in compose.pieces}
        return solve(compose.known, names)

    def advice(self) -> tuple[Advice, ...]:
        """What could be better in the composition now."""
        compose = self.compose
        return advice(compose, faces(compose, self.page.commission.intake.photos), self.page.studio.unit)

    def _strip_note(self) -> str:
        known = [p for p in self.compose.pieces if p.id in self.scales.sigma]
        if not known:
            return "No length of life is known yet: mark one, such as the pupils or a collar, and every size has its distance."
        said = [f"{p.name} {self.scales.share(p.id, p.mm_per_px)[0]:.2f} of life" for p in known]  # type: ignore[index]
        return ", ".join(said) + ". Alt only changes who stands before whom."

    def _act(self, found: tuple[Advice, ...]) -> NextAct | None:
        doable = next((a for a in found if a.can_be_done), None)
        if self.asking is not None:
            return NextAct("Write how long it is in life", "in mm, on the bench", self._to_length)
        if doable is not None:
            what, _, how = doable.words.rpartition(": ")
            return NextAct(begun(how), what, lambda: self.do(doable))
        if self.compose.framed and not of_kind(self.page.commission.log, ProofSent):
            return NextAct("Look at the proof", "the page as the client will see it", self._to_proof)
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
        self._want_photo(compose)

    def _want_photo(self, compose: Compose) -> None:
        behind = compose.behind
        if behind is None or (self._photo is not None and self._photo[0] == behind.photo_id):
            return
        photo = next((p for p in self.page.commission.intake.photos if p.id == behind.photo_id), None)
        if photo is None:
            return

        def ready(shown: Shown) -> None:
            if shown.whole:
                self._photo = (photo.id, shown)

        self.page.workroom.pictures.photo(photo.id, photo.name, self.page, ready)

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

    def at(self, point: Point) -> int:
        return next((p.id for p in reversed(self.compose.pieces) if pieces.holds(p, point)), 0)

    def picked(self, thing: int) -> None:
        if thing != self.chosen:
            self.choose(thing)

    def choose(self, piece_id: int) -> None:
        """Work on that sitter; 0 on none."""
        self.chosen = piece_id
        self.page.refresh()

    def begun(self, way: Way) -> None:
        self._start = self.piece
        photo = self._photo[1].picture if self._photo is not None else None
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
            self._became(pieces.scaled(self._start, factor, pieces.bounds_mm(self._start).centre))

    def turning(self, degrees: float) -> None:
        if self._start is not None:
            self._became(pieces.turned(self._start, degrees, pieces.bounds_mm(self._start).centre))

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
            compose = change_piece(compose, piece_id, lambda p: pieces.scaled(p, factor, _foot(p)))
            compose = change_piece(compose, piece_id, lambda p: replace(p, far=p.far / factor))
        order = sorted(compose.pieces, key=lambda p: -far[p.id])
        compose = replace(compose, pieces=tuple(order))
        name = compose.piece(piece_id).name
        self.chosen = piece_id
        self.page.propose_compose(f"Pulled {name} {'nearer' if metres < before else 'farther'}", compose)

    # --- changes

    def change(self, label: str, step: object) -> None:
        """Take another composition; `step` is from the one shown to the next."""
        assert callable(step)
        self.page.propose_compose(label, step(self.compose))

    def proposed(self, label: str, compose: Compose) -> Proposal:
        return self.page.proposal(label, compose)

    def do(self, wanted: Advice) -> Meaning:
        """The proposed move."""
        sizes: dict[str, Point] = {p.id: (p.width_px, p.height_px) for p in self.page.commission.intake.photos}
        return self.proposed(begun(wanted.words.rpartition(": ")[2]), done(self.compose, wanted, sizes))

    def refuse(self, wanted: Advice) -> Meaning:
        return self.proposed("Meant so", refused(self.compose, wanted))

    def one_scale(self) -> Meaning:
        return self.proposed("Brought all to one scale", all_at_one_scale(self.compose, self.scales))

    def life_size(self) -> Meaning:
        piece = self._wanted()
        if piece.id not in self.scales.sigma:
            raise ScaleTrouble(f"{piece.name} was not brought to life size", "none of its lengths is known", "mark one first")
        return self.proposed(f"Brought {piece.name} to life size", at_share(self.compose, self.scales, piece.id, 1.0))

    def _wanted(self) -> Piece:
        if self.piece is None:
            raise PieceTrouble("Nothing was changed", "no sitter is chosen", "click one on the canvas")
        return self.piece

    def mirror(self) -> Meaning:
        piece = self._wanted()
        who = f"{piece.name} is mirrored: markings and parting change sides, and a mirrored face is another face."
        self.page.workroom.say(f"{who} Ask the client.", False)
        return self.proposed(f"Mirrored {piece.name}", change_piece(self.compose, piece.id, pieces.mirrored))

    def take_off(self) -> Meaning:
        piece = self._wanted()
        self.chosen = 0
        return self.proposed(f"Took {piece.name} off the canvas", without_pieces(self.compose, {piece.id}))

    def nearer(self, by: int) -> Meaning:
        """One place towards the front, or the back."""
        piece = self._wanted()
        place = [p.id for p in self.compose.pieces].index(piece.id)
        where = "forward" if by > 0 else "back"
        return self.proposed(f"Brought {piece.name} {where}", in_order(self.compose, piece.id, place + by))

    def snap(self) -> Meaning:
        piece = self._wanted()
        photo = self.photo_of(piece)
        size = (photo.width_px, photo.height_px) if photo is not None else (0.0, 0.0)
        return self.proposed(f"Laid {piece.name}'s cut to the edge", snapped(self.compose, piece.id, size))

    def photo_of(self, piece: Piece) -> Photo | None:
        return next((p for p in self.page.commission.intake.photos if p.id == piece.photo_id), None)

    def set_move(self, **values: float) -> Meaning:
        piece = self._wanted()
        seen = self.seen(piece)
        pivot = seen.lightness[1] if seen is not None else piece.move.pivot
        move = replace(piece.move, pivot=round(pivot, 1), **values)
        move = Move() if move.plain else move
        after = change_piece(self.compose, piece.id, lambda p: replace(p, move=move))
        return self.proposed(f"{piece.name}: {agreement.move_words(move)}", after)

    def set_turn(self, degrees: float) -> Meaning:
        piece = self._wanted()
        middle = pieces.bounds_mm(piece).centre
        after = change_piece(self.compose, piece.id, lambda p: pieces.turned(p, degrees - p.turn_deg, middle))
        return self.proposed(f"Turned {piece.name}", after)

    def set_ground(self, ground: Ground) -> Meaning:
        return self.proposed("Chose another background", replace(self.compose, ground=ground))

    def set_focus_radius(self, radius_mm: float) -> Meaning:
        focus = self.compose.focus
        return (
            self.proposed("Set the focus", replace(self.compose, focus=replace(focus, radius_mm=radius_mm))) if focus else None
        )

    def no_focus(self) -> Meaning:
        return self.proposed("Took the focus away", replace(self.compose, focus=None))

    def agree(self) -> Meaning:
        """White balance as the greyest parts would have it, half of it: a guess."""
        piece, lead = self._wanted(), self.lead
        here, there = self.seen(piece), self.seen(lead) if lead is not None else None
        if here is None or there is None or lead is None:
            raise PieceTrouble("Nothing was compared", "the sitters are still being cut out", "wait a moment")
        move = agreement.by_statistics(here, there, piece.move)
        after = change_piece(self.compose, piece.id, lambda p: replace(p, move=move))
        return self.proposed(f"{piece.name}: {agreement.move_words(move)}", after)

    @property
    def lead(self) -> Piece | None:
        """The sitter all others agree with: the largest on the canvas that is not chosen."""
        others = [p for p in self.compose.pieces if p.id != self.chosen]
        return max(others, key=lambda p: pieces.bounds_mm(p).width * pieces.bounds_mm(p).height, default=None)

    def seen(self, piece: Piece) -> agreement.Seen | None:
        """What its pixels are like as photographed; None while it is being cut out."""
        key = (piece.photo_id, piece.outline)
        if key not in self._seen:
            sprite = self.under.pixels_of(replace(piece, move=Move()))
            if sprite is None:
                return None
            level = sprite.level(sprite.level_for(300 / max(1.0, piece.bounds.height))).reshape(-1, 4).astype(np.float32) / ONE
            inside = level[level[:, 3] > 0.98]
            if len(inside) == 0:
                return None
            self._seen[key] = agreement.seen(inside[:, :3])
        return self._seen[key]

    # --- lengths, neutrals, the focus

    def use(self, hand: Hand) -> None:
        """What the hand does on the canvas."""
        self.hand, self.asking, self._neutral = hand, None, None
        if hand == "picks a neutral":
            self.page.workroom.say(
                "Click something grey or white on one sitter, then the same kind of thing on the one it is to agree with.",
                False,
            )
        self.page.refresh()

    def _measured(self, a: Point, b: Point) -> None:
        middle = ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
        piece_id = self.at(a) or self.at(b) or self.at(middle)
        if not piece_id:
            self.page.workroom.report(PieceTrouble("No length was taken", "it lies on no sitter", "draw it on one"))
            return
        self.chosen, self.asking = piece_id, (a, b, piece_id)
        self.page.refresh()
        self.page.bench.point_at("Length in life")

    def _length_words(self, a: Point, b: Point) -> str:
        return length_text(math.dist(a, b), self.page.studio.unit, 1)

    def add_known(self, what: str, mm: float, doubt_mm: float = 0.0, source: str = "") -> Meaning:
        """What was drawn is so long in life."""
        if self.asking is None:
            return None
        a, b, piece_id = self.asking
        piece = self.compose.piece(piece_id)
        known = Known(
            piece_id, what, pieces.to_photo(piece, a), pieces.to_photo(piece, b), mm, doubt_mm or DOUBT_SHARE * mm, source
        )  # fmt: skip
        self.asking = None
        others = tuple(k for k in self.compose.known if (k.piece_id, k.what) != (piece_id, what))
        self.hand = "moves"
        return self.proposed(f"{piece.name}: {what} {mm:g} mm", replace(self.compose, known=(*others, known)))

    def use_pupils(self, a: Point, b: Point, mm: float, doubt_mm: float) -> Meaning:
        """The eyes marked at Intake as a known length."""
        piece = self._wanted()
        known = Known(piece.id, "pupils", a, b, mm, doubt_mm, "published mean for adults")
        return self.proposed(f"{piece.name}: pupils {mm:g} mm", replace(self.compose, known=(*self.compose.known, known)))

    def use_head(self, a: Point, b: Point, mm: float, source: str) -> Meaning:
        piece = self._wanted()
        known = Known(piece.id, "head", a, b, mm, DOUBT_SHARE * mm, source)
        return self.proposed(f"{piece.name}: head {mm:g} mm", replace(self.compose, known=(*self.compose.known, known)))

    def forget_known(self, known: Known) -> Meaning:
        left = tuple(k for k in self.compose.known if k != known)
        return self.proposed(f"Gave {known.what} up as a length", replace(self.compose, known=left))

    def _pointed(self, point: Point) -> None:
        self.page.attempt(lambda: self._point(point))

    def _point(self, point: Point) -> None:
        if self.hand == "sets the focus":
            radius = (
                self.compose.focus.radius_mm
                if self.compose.focus
                else _FOCUS_SHARE * min(self.compose.width_mm, self.compose.height_mm)
            )
            self.hand = "moves"
            self.change("Set the focus", lambda c: replace(c, focus=Focus(point, round(radius))))
            return
        piece_id = self.at(point)
        if not piece_id:
            raise PieceTrouble("Nothing was taken", "no sitter lies there", "click on a sitter")
        light = self._light_at(self.compose.piece(piece_id), point)
        if self._neutral is None or self._neutral[0] == piece_id:
            self._neutral = (piece_id, light)
            self.page.workroom.say(f"Now the same on the sitter {self.compose.piece(piece_id).name} is to agree with.", False)
            return
        first, here = self._neutral
        piece = self.compose.piece(first)
        move = agreement.by_neutral(here, light, piece.move)
        self.hand, self._neutral, self.chosen = "moves", None, first
        self.change(
            f"{piece.name}: {agreement.move_words(move)}", lambda c: change_piece(c, first, lambda p: replace(p, move=move))
        )  # fmt: skip

    def _light_at(self, piece: Piece, point: Point) -> np.ndarray:
        """The mean light of a small patch of the sitter, as photographed for the one to change, as shown for the other."""
        first = self._neutral is None or self._neutral[0] == piece.id
        sprite = self.under.pixels_of(replace(piece, move=Move()) if first else piece)
        if sprite is None:
            raise PieceTrouble("Nothing was taken", "the sitters are still being cut out", "wait a moment")
        x, y = pieces.to_photo(piece, point)
        level = sprite.level(0)
        column, row = int((x - sprite.box.x) * sprite.scale), int((y - sprite.box.y) * sprite.scale)
        patch = level[max(0, row - 3) : row + 4, max(0, column - 3) : column + 4].reshape(-1, 4).astype(np.float32) / ONE
        patch = patch[patch[:, 3] > 0.9]
        if len(patch) == 0:
            raise PieceTrouble("Nothing was taken", "that is the sitter's edge", "click well inside it")
        return np.asarray(patch[:, :3].mean(axis=0))

    # --- keys

    def key(self, event: QKeyEvent) -> bool:
        step, letter = _ARROWS.get(Qt.Key(event.key())), event.text().lower()
        if event.key() == Qt.Key.Key_Escape and (self.hand != "moves" or self.chosen):
            if self.hand != "moves":
                self.use("moves")
            else:
                self.choose(0)
            return True
        if event.key() == Qt.Key.Key_Tab and self.compose.pieces:
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
            middle = pieces.bounds_mm(piece).centre
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


def _foot(piece: Piece) -> Point:
    box = pieces.bounds_mm(piece)
    return box.centre[0], box.bottom


def _as_image(level: np.ndarray) -> QImage:
    """Premultiplied light and alpha as a see-through picture."""
    alpha = np.clip(level[..., 3:], 0, 1)
    codes = srgb8_from_linear(np.clip(level[..., :3] / np.maximum(alpha, 1e-4), 0, 1))
    height, width = level.shape[:2]
    image = QImage(width, height, QImage.Format.Format_ARGB32)
    rows = np.frombuffer(image.bits(), np.uint8).reshape(height, image.bytesPerLine())
    pixels = rows[:, : width * 4].reshape(height, width, 4)
    pixels[..., :3] = codes[..., ::-1]
    pixels[..., 3] = np.round(alpha[..., 0] * 255)
    return image
