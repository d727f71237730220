"""Which coat an outline runs along, point by point: a guess from the sitter, then as the painter's strokes say."""

import itertools
import math
from collections.abc import Sequence

from yarrow_lane.compose.pieces import Coat, Ring
from yarrow_lane.intake.brief import SitterKind
from yarrow_lane.intake.landmarks import Landmark
from yarrow_lane.measure.plane import Point, Polygon


def usual_coats(rings: Sequence[Polygon], kind: SitterKind, marks: Sequence[Landmark]) -> tuple[Ring, ...]:
    """Animals wear fur all round; of a person hair down to the chin, and cloth below. Without a chin all is taken for hair."""
    chin = next((m.y for m in marks if m.name == "chin"), None)
    found = []
    for ring in rings:
        if kind == "person" and chin is not None:
            found.append(Ring(ring, "".join("f" if y <= chin else "c" for _, y in ring)))
        else:
            found.append(Ring(ring, "f" * len(ring)))
    return tuple(found)


def coat_along(rings: Sequence[Ring], stroke: Polygon, reach: float, coat: Coat) -> tuple[Ring, ...]:
    """The same lines, of that coat wherever the stroke passes within `reach` px."""
    return tuple(
        Ring(
            r.points,
            "".join(coat[0] if _near(p, stroke, reach) else r.coat(n)[0] for n, p in enumerate(r.points)),
        )
        for r in rings
    )


def _near(point: Point, stroke: Polygon, reach: float) -> bool:
    if len(stroke) == 1:
        return math.dist(point, stroke[0]) <= reach
    for (x0, y0), (x1, y1) in itertools.pairwise(stroke):
        dx, dy = x1 - x0, y1 - y0
        along = ((point[0] - x0) * dx + (point[1] - y0) * dy) / max(dx * dx + dy * dy, 1e-9)
        along = min(1.0, max(0.0, along))
        if math.hypot(point[0] - x0 - along * dx, point[1] - y0 - along * dy) <= reach:
            return True
    return False


def carried_coats(rings: Sequence[Polygon], before: Sequence[Ring], otherwise: Sequence[Ring]) -> tuple[Ring, ...]:
    """New lines wear the coats of the old ones where those ran near; else what `otherwise` says, ring for ring."""
    old = [(p, r.coat(n)[0]) for r in before for n, p in enumerate(r.points)]
    if not old:
        return tuple(otherwise)
    found = []
    for ring in rings:
        letters = []
        for x, y in ring:
            letters.append(min(old, key=lambda o: (o[0][0] - x) ** 2 + (o[0][1] - y) ** 2)[1])
        found.append(Ring(ring, "".join(letters)))
    return tuple(found)


def share_of_coats(rings: Sequence[Ring]) -> dict[Coat, float]:
    """What share of the border's length each coat has, 0 to 1."""
    long: dict[Coat, float] = {"fur": 0.0, "skin": 0.0, "cloth": 0.0}
    for ring in rings:
        for n, (one, two) in enumerate(zip(ring.points, (*ring.points[1:], *ring.points[:1]), strict=True)):
            long[ring.coat(n)] += math.dist(one, two)
    whole = sum(long.values()) or 1.0
    return {coat: part / whole for coat, part in long.items()}
