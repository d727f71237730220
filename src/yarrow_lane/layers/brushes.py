"""Brush, stroke, loads, paint and hours of a pass; and how small strokes may get where. Widths and loads: our choice, not measured."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from yarrow_lane.layers.kinds import facts_of
from yarrow_lane.layers.passes import Pass
from yarrow_lane.layers.play.rules import PlayTrouble, Rule, rule_of
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.paint.amounts import LOSS, coat_ml

# Hair widths in mm as brushes are sold (from memory).
STEPS = (1, 2, 3, 4, 6, 8, 10, 12, 16, 20, 25, 30, 40, 50, 60)
# What one dip carries, ml, by brush width in mm: our choice, unmeasured.
_LOAD_SQUARE, _LOAD_LINEAR = 0.003, 0.008


@dataclass(frozen=True)
class Brush:
    """A brush of the jar: its kind and width in mm."""

    kind: str
    mm: int

    @property
    def words(self) -> str:
        return f"{self.kind} {self.mm}\u202fmm"


class JarTrouble(Trouble):
    """A jar that cannot be read."""


def read_jar(text: str) -> tuple[Brush, ...]:
    """Brushes as the painter writes them: "flat 20, filbert 8, liner 1"; raises `JarTrouble` for one without a width in mm."""
    found = []
    for part in (p.strip() for p in text.replace(";", ",").split(",") if p.strip()):
        kind, _, width = part.rpartition(" ")
        mm = width.removesuffix("mm")
        if not kind.strip() or not mm.replace(".", "", 1).isdigit() or not 0 < float(mm) <= 200:
            raise JarTrouble(
                "The brushes were not taken", f"“{part}” has no kind or no width in mm", "write “flat 20, liner 1”"
            )
        found.append(Brush(kind.strip(), max(1, round(float(mm)))))
    return tuple(found)


def jar_text(jar: Sequence[Brush]) -> str:
    """The jar as it is written."""
    return ", ".join(f"{b.kind} {b.mm}" for b in jar)


@dataclass(frozen=True)
class Advice:
    """How a pass is painted.

    `brush` as advised, `own` the nearest of the jar (None without one); strokes `stroke_mm` wide and `long_mm` (shortest, longest) long;
    `dips` of the brush, `ml` on the canvas and `mixed_ml` with what is lost.
    """

    brush: Brush
    own: Brush | None
    stroke_mm: float
    long_mm: tuple[float, float]
    dips: int
    ml: float
    mixed_ml: float
    texture: bool


def _step(mm: float) -> int:
    return next((s for s in STEPS if s >= mm - 0.3), STEPS[-1])


def _rule(p: Pass, inner_mm: float) -> Rule | None:
    try:
        return rule_of(p.family, p.id.split(":")[2], p.role, p.nature, inner_mm)
    except PlayTrouble:
        return None


def _advised(p: Pass, rule: Rule | None, inner_mm: float) -> Brush:
    """Which kind and how wide, by what the pass does (common practice: as large as the stage allows, then smaller)."""
    width = rule.width if rule is not None else 1.0
    hairy, ground = facts_of(p.kind).hairy, p.family in ("background", "scene")
    if p.role == "glint":
        return Brush("round, size 0, one touch", 1)
    if p.role in ("whisker", "line"):
        return Brush("rigger, thinned paint", 2)
    if p.nature in ("mask", "bare"):
        return Brush("old round for masking fluid", 2)
    if p.nature == "fix":
        return Brush("spray, no brush", 1)
    if rule is not None and rule.film:
        soft = p.role == "lid" or p.family == "eye"
        return (
            Brush("soft round", _step(max(2, 0.3 * inner_mm)))
            if soft
            else Brush("large soft mop", _step(min(max(0.35 * inner_mm, 6), 50)))
        )
    if p.family == "eye":
        return Brush("filbert", _step(width)) if p.role == "dark" else Brush("small round", 2)
    if ground:
        return (
            Brush("filbert, then a dry mop", _step(2 * width))
            if p.role == "soften"
            else Brush("stiff flat", _step(1.6 * width))
        )
    if hairy and p.role == "mass":
        return Brush("flat" if width > 6 else "filbert", _step(width))
    if hairy and p.role == "under":
        return Brush("rake or worn fan", _step(2.5 * width)) if width < 4 else Brush("filbert", _step(1.2 * width))
    if hairy and p.role in ("middle", "dark", "light", "colour"):
        return Brush("filbert on its edge", _step(4 * width))
    if hairy:
        return Brush("liner", _step(max(1, 2 * width)))
    if p.role in ("mass", "wash"):
        return Brush("flat", _step(width))
    return Brush("filbert", _step(1.2 * width)) if width > 1.5 else Brush("small round", _step(max(1, 1.6 * width)))


def advice(p: Pass, inner_mm: float, hair_mm: float = 0.0, jar: Sequence[Brush] = ()) -> Advice:
    """Brush, strokes, paint and hours of one pass; `inner_mm` is the radius of the largest circle in its area, `hair_mm` its hair."""
    rule = _rule(p, inner_mm)
    brush = _advised(p, rule, inner_mm)
    width = rule.width if rule is not None else 1.0
    hairy = facts_of(p.kind).hairy
    hair = hair_mm or facts_of(p.kind).hair_mm
    length = (rule.length * hair if hairy else (rule.length or 3.0) * width) if rule is not None else 10.0
    length = min(max(length, 1.7 * width if hairy else length), 45.0)
    touched = 1.0 if rule is None or rule.film or rule.cover > 1.4 else 1 - math.exp(-rule.cover)
    if p.role in ("glint", "reserve", "whisker"):
        touched = 0.02
    ml = coat_ml(p.area_cm2, p.film) * touched
    load = _LOAD_SQUARE * brush.mm**2 + _LOAD_LINEAR * brush.mm
    kinds = [b for b in jar if b.kind.split()[0] == brush.kind.split()[0]]
    own = min(kinds, key=lambda b: abs(math.log(b.mm / brush.mm)), default=None)
    return Advice(
        brush, own, width, (0.7 * length, 1.2 * length), max(1, math.ceil(ml / load)), ml, ml * LOSS,
        texture=(hairy and p.role in ("middle", "tips")) or p.family == "eye",
    )  # fmt: skip


# --- the budget of detail

_MAR_RAD = math.radians(1 / 60)  # one minute of arc: definition of 20/20 acuity
_HALVES_AT_DEG = (
    2.5  # eccentricity at which the eye resolves half as well: Levi, Klein and Aitsebaomo, Vision Research 25, 1985
)
_DIAGONALS = 2.0  # viewing distance (handbook: 1.5 to 2 diagonals, from memory)
_PER_STROKE = 2.0  # a stroke finer than twice what is resolved is not seen as a stroke (our choice)


def finest_mm(away_mm: float, diagonal_mm: float) -> float:
    """The finest stroke that is seen as one at so many mm from where the viewer looks, from two diagonals away."""
    distance = _DIAGONALS * diagonal_mm
    degrees = math.degrees(math.atan2(away_mm, distance))
    return _PER_STROKE * distance * math.tan(_MAR_RAD * (1 + degrees / _HALVES_AT_DEG))


def wasted_beyond(stroke_mm: float, diagonal_mm: float) -> float | None:
    """How far from the focal point strokes of that width are finer than is seen, mm; None within the canvas nowhere."""
    if stroke_mm < finest_mm(0, diagonal_mm):
        return 0.0
    low, high = 0.0, diagonal_mm
    if stroke_mm >= finest_mm(high, diagonal_mm):
        return None
    for _ in range(40):
        middle = (low + high) / 2
        low, high = (middle, high) if finest_mm(middle, diagonal_mm) < stroke_mm else (low, middle)
    return high
