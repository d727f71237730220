"""What is marked on the canvas with sitters on it: lengths of life, neutrals, the focus, parts tried in another colour."""

import math
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING, Literal

import numpy as np

from yarrow_lane.compose import agreement, pieces
from yarrow_lane.compose.composition import Focus
from yarrow_lane.compose.drawing.sprite import ONE
from yarrow_lane.compose.known import DOUBT_SHARE, Known
from yarrow_lane.compose.pieces import Move, Piece, PieceTrouble
from yarrow_lane.compose.placing import change_piece
from yarrow_lane.compose.recolour import Recoloured, checked
from yarrow_lane.measure.lengths import length_text
from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.ui.bench_sheet import Meaning
from yarrow_lane.ui.kit.drawing_tools import LengthTool, Round, RoundTool
from yarrow_lane.ui.kit.tools import PointsTool
from yarrow_lane.ui.rooms.compose.place_changes import PlaceChanges

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.compose.page import ComposePage

Hand = Literal["moves", "marks a length", "picks a neutral", "sets the focus", "recolours a part"]
_A_LENGTH = "a length"
_FOCUS_SHARE = 0.12  # of the shorter side: the first radius of a focus, our choice


@dataclass(frozen=True)
class Asking:
    """A length drawn on a sitter (canvas mm), its mm of life not written yet."""

    a: Point
    b: Point
    piece_id: int
    what: str = ""


class PlaceMarks(PlaceChanges):
    """What the hand does when it does not move sitters."""

    def __init__(self, page: "ComposePage") -> None:
        super().__init__(page)
        self.measuring = LengthTool(self._measured, self._length_words)
        self.pointing = PointsTool(lambda _: None, self._pointed)
        self.rounding = RoundTool(self._part_drawn, lambda: None)
        self.hand: Hand = "moves"
        self.part = 0  # the recoloured part on the bench
        self.asking: Asking | None = None
        self._neutral: tuple[int, np.ndarray] | None = None

    def at(self, point: Point) -> int:
        """The sitter in front there; 0 for none."""
        return next((p.id for p in reversed(self.compose.pieces) if pieces.holds(p, point)), 0)

    def use(self, hand: Hand) -> None:
        """What the hand does on the canvas."""
        self.hand, self.asking, self._neutral = hand, None, None
        self.rounding.give_up()
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
        self.chosen, self.asking = piece_id, Asking(a, b, piece_id)
        self.page.refresh()
        self.page.bench.point_at("Length in life")

    def _length_words(self, a: Point, b: Point) -> str:
        return length_text(math.dist(a, b), self.page.studio.unit, 1)

    def name_length(self, what: str) -> None:
        """What the length drawn is of."""
        if self.asking is not None:
            self.asking = replace(self.asking, what=what.strip())

    def add_known(self, mm: float) -> Meaning:
        """What was drawn is so long in life."""
        asked, self.asking = self.asking, None
        if asked is None:
            return None
        self.hand = "moves"
        piece = self.compose.piece(asked.piece_id)
        a, b = (pieces.to_photo(piece, p) for p in (asked.a, asked.b))
        return self.know(Known(piece.id, asked.what or _A_LENGTH, a, b, mm, DOUBT_SHARE * mm, "measured"))

    def know(self, known: Known) -> Meaning:
        """A length of a sitter is known; it takes the place of one of the same name."""
        others = tuple(k for k in self.compose.known if (k.piece_id, k.what) != (known.piece_id, known.what))
        name = self.compose.piece(known.piece_id).name
        return self.proposed(f"{name}: {known.what} {known.mm:g} mm", replace(self.compose, known=(*others, known)))

    def turn_known(self, known: Known, degrees: float) -> Meaning:
        """It does not lie across the view but is turned so far towards or away from it: less of it is seen."""
        seen = round(math.cos(math.radians(degrees)), 4)
        after = tuple(replace(k, seen=seen) if k == known else k for k in self.compose.known)
        return self.proposed(f"The {known.what} is turned {degrees:.0f}°", replace(self.compose, known=after))

    def forget_known(self, known: Known) -> Meaning:
        left = tuple(k for k in self.compose.known if k != known)
        return self.proposed(f"Gave {known.what} up as a length", replace(self.compose, known=left))

    def _part_drawn(self, points: Polygon, _: Round) -> None:
        self.page.attempt(lambda: self._take_part(points))

    def _take_part(self, points: Polygon) -> None:
        checked(self.compose.recoloured, points)
        number = self.compose.next_piece
        part = Recoloured(number, f"part {len(self.compose.recoloured) + 1}", points)
        self.part, self.chosen, self.hand = number, 0, "moves"
        self.change("Drew a part to recolour", lambda c: replace(c, recoloured=(*c.recoloured, part), next_piece=number + 1))

    def choose_part(self, part_id: int) -> None:
        self.part = part_id
        self.page.refresh()

    def set_part(self, part: Recoloured) -> Meaning:
        """That part as given, by its id."""
        parts = tuple(part if p.id == part.id else p for p in self.compose.recoloured)
        return self.proposed(f"{part.name}: {agreement.move_words(part.move)}", replace(self.compose, recoloured=parts))

    def no_part(self, part_id: int) -> Meaning:
        left = tuple(p for p in self.compose.recoloured if p.id != part_id)
        return self.proposed("Gave a recoloured part up", replace(self.compose, recoloured=left))

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
