"""What the rows of eyes and the dials of light say, as plain values."""

from collections.abc import Mapping
from itertools import combinations

from yarrow_lane.commission.commission import Commission
from yarrow_lane.intake.detail import about, iris_detail
from yarrow_lane.intake.evidence import Evidence
from yarrow_lane.intake.light import apart, side_words
from yarrow_lane.intake.photos import Photo
from yarrow_lane.intake.ranking import rank
from yarrow_lane.ui.rooms.intake.eyes_row import EyePair
from yarrow_lane.ui.rooms.intake.light_dials import Dial

# Leads for one picture should be lit from within so many degrees of each other: our choice (one hour of the clock
# either side is not seen, two are).
AGREE_DEGREES = 45.0


def eye_rows(c: Commission, evidence: Mapping[str, Evidence]) -> tuple[tuple[str, tuple[EyePair, ...]], ...]:
    """For each sitter its photographs, the best first; those that show all of them stand with each."""
    order = [r.photo_id for r in rank(c.intake.photos, evidence)]
    photos = sorted(c.intake.photos, key=lambda p: order.index(p.id))
    rows = []
    for sitter in c.brief.sitters:
        mine = tuple(_pair(p, evidence.get(p.id)) for p in photos if p.sitter_id in (0, sitter.id) and p.use != "set aside")
        rows.append((sitter.name, mine))
    return tuple(rows)


def _pair(p: Photo, e: Evidence | None) -> EyePair:
    iris = f"iris {p.iris_px:.0f}\u202fpx" if p.iris_px is not None else "no eye marked"
    sharp = (
        f"detail of {about(iris_detail(p.iris_px, e))}\u202fpx" if e is not None and p.iris_px is not None else "not measured"
    )
    return EyePair(p.id, p.name, (p.width_px, p.height_px), p.eyes, (f"{iris} · {sharp}", p.use))


def light_dials(c: Commission, evidence: Mapping[str, Evidence]) -> tuple[tuple[Dial, ...], str]:
    """A dial for each lead, and whether they can share one picture."""
    dials, known = [], []
    for p in c.intake.leads:
        e = evidence.get(p.id)
        if e is None or e.light.degrees is None:
            dials.append(Dial(p.name, None, False, ("unknown", e.light.why if e else "being measured")))
            continue
        degrees = e.light.degrees
        known.append((p.name, degrees))
        dials.append(
            Dial(
                p.name,
                degrees,
                e.light.confidence == "sure",
                (f"{degrees:.0f}°, from {side_words(degrees)}", e.light.confidence),
            )
        )
    return tuple(dials), _verdict(known, len(dials))


def _verdict(known: list[tuple[str, float]], leads: int) -> str:
    if leads == 0:
        return "No leads yet: the light of the leads is compared here."
    if leads == 1:
        return "One lead: there is no other light to agree with."
    if len(known) < 2:
        return "The light of too few leads can be read: judge it by eye before you combine them."
    (a, da), (b, db) = max(combinations(known, 2), key=lambda pair: apart(pair[0][1], pair[1][1]))
    gap = apart(da, db)
    unread = f" {leads - len(known)} cannot be read: judge by eye." if len(known) < leads else ""
    if gap <= AGREE_DEGREES:
        return f"The light agrees: at most {gap:.0f}° apart.{unread}"
    return f"The light disagrees: {a} and {b} are lit {gap:.0f}° apart. Correct one on purpose, or choose another.{unread}"
