"""What is being cut out, kept while the painter looks elsewhere."""

from dataclasses import dataclass, replace

from yarrow_lane.compose.cutting.cut import Stroke
from yarrow_lane.compose.cutting.outline import drag
from yarrow_lane.compose.pieces import Ring
from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.ui.kit.drawing_tools import Round


@dataclass(frozen=True)
class Work:
    """What is being cut out of which photograph: the line drawn, the strokes, the lines found; `guessed` before a hand drew."""

    photo_id: str = ""
    sitter_id: int = 0
    piece_id: int = 0
    outline: Polygon = ()
    drawn: Round = "traced"
    guessed: bool = False
    strokes: tuple[Stroke, ...] = ()
    rings: tuple[Ring, ...] = ()
    by_hand: bool = False  # points were dragged since: strokes would begin from the line again

    @property
    def asked(self) -> tuple[object, ...]:
        """What the sitter is looked for by."""
        return self.photo_id, self.outline, self.drawn, self.strokes

    def with_point(self, number: int, to: Point, reach: float) -> tuple[Ring, ...]:
        """The lines with one of their points, counted through all of them, put elsewhere; those near it follow."""
        found = []
        for ring in self.rings:
            if 0 <= number < len(ring.points):
                found.append(replace(ring, points=drag(ring.points, number, to, reach)))
            else:
                found.append(ring)
            number -= len(ring.points)
        return tuple(found)
