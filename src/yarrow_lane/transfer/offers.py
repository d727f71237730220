"""What each way offers for a drawing: what it takes, how far it reaches, what it leaves on the canvas, and which is advised."""

from collections.abc import Sequence
from dataclasses import dataclass

from yarrow_lane.transfer.job import Job
from yarrow_lane.transfer.projector import LEAST_CONTRAST
from yarrow_lane.transfer.ways import WAYS, WHAT, Stint, Way, Ways, What, pace_of

# Minutes to make ready, and cm2 of the sitter drawn in a minute. Squares, projector and tracing: handbook table of pace; the others
# are our choice until the painter's own times are known.
_READY: dict[Way, float] = {
    "squares": 15.0, "scribble marks": 25.0, "projector": 20.0, "tracing": 25.0, "same-size print": 20.0, "by eye": 5.0,
}  # fmt: skip
_CM2: dict[Way, float] = {"scribble marks": 30.0, "projector": 60.0, "tracing": 20.0, "same-size print": 15.0, "by eye": 25.0}
# How far off a line lands when all goes well, mm: our choice. Eyes want the finer ones.
_OFF_MM: dict[Way, float] = {
    "squares": 1.5, "scribble marks": 3.0, "projector": 1.0, "tracing": 0.7, "same-size print": 1.0, "by eye": 6.0,
}  # fmt: skip
_LEAVES: dict[Way, str] = {
    "squares": "ruled lines: white charcoal wipes off, pencil does not",
    "scribble marks": "marks that thin paint lets through; opaque coats end them",
    "projector": "nothing but the line",
    "tracing": "nothing but the line",
    "same-size print": "pricks or dots",
    "by eye": "nothing",
}
_MANY_SHEETS = {"tracing": 12, "same-size print": 12}  # more are not glued true by hand: our choice
_FINE_SHARE, _FINE_MM = (
    0.006,
    1.5,
)  # of the shorter side, and at least: a way less true than this does not carry eyes; our choice
_UNIT_MM = 500.0  # from this size on strokes are larger and more cm2 are drawn in a minute: our choice


@dataclass(frozen=True)
class Offer:
    """A way for a part or for all: minutes to make ready and to draw, how true (mm), in words how far it reaches, what it leaves, and
    why it does not do; empty when it does. `own` when the painter's own times were used.
    """

    way: Way
    ready: float
    draw: float
    off_mm: float
    reach: str
    leaves: str
    why_not: str
    own: bool

    @property
    def minutes(self) -> float:
        return self.ready + self.draw


def offer(way: Way, job: Job, stints: Sequence[Stint] = (), what: What | None = None) -> Offer:
    """What that way takes for a part of the drawing; None for all of it."""
    ready, draw = guessed_minutes(way, job, what)
    pace = pace_of(way, stints)
    by = pace if pace is not None else 1.0
    return Offer(
        way, ready * by, draw * by, off_mm(way, job), _reach(way, job), _LEAVES[way], _why_not(way, job, what), pace is not None
    )


def guessed_minutes(way: Way, job: Job, what: What | None) -> tuple[float, float]:
    """To make ready and to draw, before the painter's own times are known."""
    if way == "squares":
        # Ruling takes its time whatever is drawn in the squares.
        count = {None: job.squares, "details": job.detail_squares, "outline": job.squares - job.detail_squares}[what]
        return _READY[way], count * job.square_minutes
    cm2 = {None: job.subject_cm2, "details": job.details_cm2, "outline": max(0.0, job.subject_cm2 - job.details_cm2)}[what]
    return _READY[way], cm2 / _CM2[way] / _strokes(job)


def off_mm(way: Way, job: Job) -> float:
    """How far off a line lands when all goes well."""
    if way == "projector" and job.projected is not None:
        return max(_OFF_MM[way], job.projected.finest_mm)
    return _OFF_MM[way] * (_strokes(job) if way in ("scribble marks", "by eye", "squares") else 1.0)


def _strokes(job: Job) -> float:
    """How much larger strokes are than on 50 cm."""
    return max(1.0, max(job.width_mm, job.height_mm) / _UNIT_MM)


def _reach(way: Way, job: Job) -> str:
    if way == "squares":
        return f"{job.squares} squares"
    if way in ("tracing", "same-size print"):
        return f"{job.sheets} {'sheet' if job.sheets == 1 else 'sheets'} at true size" if job.sheets else "too many sheets"
    if way == "projector":
        if job.projected is None:
            return "yours is not described yet"
        p = job.projected
        return f"{p.distance_mm / 1000:.1f}\u202fm away, {p.contrast:.0f} : 1 in your light, {p.finest_mm:.1f}\u202fmm lines"
    return "any size, uneven walls too" if way == "scribble marks" else "any size, with checks"


def _why_not(way: Way, job: Job, what: What | None) -> str:
    if way == "projector":
        if job.projected is None:
            return "describe your projector first"
        if job.projected.contrast < LEAST_CONTRAST:
            return f"too faint: darken the room to {job.projected.most_lux:.0f}\u202flx"
    if way in _MANY_SHEETS and (job.sheets is None or job.sheets > _MANY_SHEETS[way]):
        return "more sheets than are glued true by hand"
    if what != "outline" and off_mm(way, job) > fine_mm(job):
        return f"{off_mm(way, job):.0f}\u202fmm is too coarse for eyes"
    return ""


def fine_mm(job: Job) -> float:
    """How true a way must be to carry eyes."""
    return max(_FINE_MM, _FINE_SHARE * min(job.width_mm, job.height_mm))


def advised(job: Job, stints: Sequence[Stint] = ()) -> Ways:
    """The quickest that does: one way for all, or two where that saves more than a second setting up costs."""
    one = [o for o in (offer(way, job, stints) for way in WAYS) if not o.why_not]
    best, least = Ways("squares", "squares"), float("inf")
    for found in one:
        if found.minutes < least:
            best, least = Ways(found.way, found.way), found.minutes
    for way in WAYS:
        outline = offer(way, job, stints, "outline")
        for other in WAYS:
            details = offer(other, job, stints, "details")
            if way != other and not outline.why_not and not details.why_not and way != "by eye":
                both = outline.minutes + details.minutes
                if both < least:
                    best, least = Ways(way, other), both
    return best


def minutes_of(job: Job, ways: Ways, stints: Sequence[Stint] = ()) -> float:
    """What those ways take together."""
    if ways.one is not None:
        return offer(ways.one, job, stints).minutes
    return sum(minutes_for(job, ways, what, stints) for what in WHAT)


def minutes_for(job: Job, ways: Ways, what: What, stints: Sequence[Stint] = ()) -> float:
    """What a part takes."""
    way = ways.of(what)
    return offer(way, job, stints, what).minutes if way is not None else 0.0
