"""What can be done with the sitters placed: every change of the composition that the bench and the keys ask for."""

from collections.abc import Callable
from dataclasses import replace
from typing import TYPE_CHECKING

import numpy as np

from yarrow_lane.commission.recompose import Proposal
from yarrow_lane.compose import agreement, pieces
from yarrow_lane.compose.advice import Advice, done, refused
from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.drawing.sprite import ONE
from yarrow_lane.compose.ground import Ground
from yarrow_lane.compose.pieces import Move, Piece, PieceTrouble
from yarrow_lane.compose.placing import all_at_one_scale, at_share, change_piece, in_order, snapped, without_pieces
from yarrow_lane.compose.scale import Scales, ScaleTrouble, receded
from yarrow_lane.intake.photos import Photo
from yarrow_lane.measure.plane import Point
from yarrow_lane.measure.words import begun
from yarrow_lane.ui.bench_sheet import Meaning
from yarrow_lane.ui.rooms.compose.mode import Mode
from yarrow_lane.ui.rooms.compose.under_hand import UnderHand

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.compose.page import ComposePage


class PlaceChanges(Mode):
    """The composition on the table, who is chosen in it, and each step to another one."""

    def __init__(self, page: "ComposePage") -> None:
        super().__init__(page)
        self.under = UnderHand(page.workroom.references.cut_outs)
        self.chosen = 0
        self.scales = Scales({}, {})
        self._seen: dict[object, agreement.Seen] = {}

    @property
    def compose(self) -> Compose:
        return self.page.shown

    @property
    def piece(self) -> Piece | None:
        return next((p for p in self.compose.pieces if p.id == self.chosen), None)

    def change(self, label: str, step: Callable[[Compose], Compose]) -> None:
        """Take another composition; `step` is from the one shown to the next."""
        self.page.propose_compose(label, step(self.compose))

    def proposed(self, label: str, compose: Compose) -> Proposal:
        return self.page.proposal(label, compose)

    def _done(self, wanted: Advice) -> Compose:
        sizes: dict[str, Point] = {p.id: (p.width_px, p.height_px) for p in self.page.commission.intake.photos}
        return done(self.compose, wanted, sizes)

    def do(self, wanted: Advice) -> Meaning:
        """The proposed move."""
        return self.proposed(begun(wanted.words.rpartition(": ")[2]), self._done(wanted))

    def is_open(self, wanted: Advice) -> bool:
        """Whether its move may be proposed: it changes something, and nothing is drawn or painted from the composition yet."""
        c = self.page.commission
        if not wanted.can_be_done or c.transfer.drawn or c.easel.finished:
            return False
        return self._done(wanted) != self.compose

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
        self.page.take(self.proposed(f"Mirrored {piece.name}", change_piece(self.compose, piece.id, pieces.mirrored)))
        who = f"{piece.name} is mirrored: markings and parting change sides, and a mirrored face is another face."
        self.page.workroom.say(f"{who} Ask the client.", False)
        return None

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
        middle = piece.bounds_mm.centre
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

    def show_distance(self) -> Meaning:
        """The farther sitter a little cooler and flatter, the nearer one warmer: far is cool and of low contrast."""
        piece = self._wanted()
        warm, contrast = receded(piece.far)
        return self.set_move(warm=round(piece.move.warm + warm, 1), contrast=round(contrast, 2))

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
        return pieces.largest(p for p in self.compose.pieces if p.id != self.chosen)

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
