"""The wash that tones the canvas: what goes in, how much, how long it takes to lay and how long it can be wiped."""

from collections.abc import Sequence
from dataclasses import dataclass

from yarrow_lane.intake.brief import Medium
from yarrow_lane.measure.plane import Point
from yarrow_lane.paint.amounts import LOSS, coat_ml
from yarrow_lane.paint.drying import RETARDED, Climate, Film, drying_minutes
from yarrow_lane.tone.grounds import GROUNDS

# Parts of a wash and of an opaque ground: paint, medium, water. Water alone beyond about a third of the paint breaks the film (from memory),
# so medium carries it. Our choices, near common practice.
_WASH, _OPAQUE = (1.0, 1.0, 5.0), (1.0, 0.0, 0.25)
RETARDER_SHARE = 0.1  # of the whole, as the easel's numbers reckon it: our choice
_IN_THE_BRUSH = 2.0  # half stays in brush and jar: our choice
_CM2_PER_MIN = 300.0  # a wide brush, each stroke into the last: our choice
_WIPED_SHARE = 1 / 3  # of the drying time a glaze can be wiped or moved: our choice; common practice says 5 to 10 minutes
_BRUSHES = ((200.0, 25), (900.0, 50), (3000.0, 75))  # cm2 up to which a flat brush of so many mm serves: our choice


@dataclass(frozen=True)
class Wash:
    """ml of each part, the whole, the brush's width in mm, minutes to lay it, to wipe it, until it is dry."""

    parts: tuple[tuple[str, float], ...]
    ml: float
    brush_mm: int
    laying_min: float
    wipe_min: float
    dry_min: float


def wash_for(ground: str, cm2: float, medium: Medium, climate: Climate, retarder: bool) -> Wash:
    """For a canvas of that area in today's climate."""
    opaque = GROUNDS[ground].how == "opaque"
    film: Film = "normal" if opaque else "wash"
    total = coat_ml(cm2, film) * _IN_THE_BRUSH
    paint, carrier, water = _OPAQUE if opaque else _WASH
    slow = retarder and medium != "watercolour"
    left = total * (1 - RETARDER_SHARE * slow)
    whole = paint + carrier + water
    named = (("paint", paint), ("medium", carrier), ("water", water))
    parts = [(word, left * share / whole) for word, share in named if share]
    if slow:
        parts.insert(2 if carrier else 1, ("retarder", total * RETARDER_SHARE))
    dry = drying_minutes(film, "acrylic" if medium != "watercolour" else medium, climate) * (RETARDED if slow else 1.0)
    brush = next((mm for most, mm in _BRUSHES if cm2 <= most), 100)
    return Wash(tuple(parts), total, brush, cm2 / _CM2_PER_MIN * 50 / brush, dry * _WIPED_SHARE, dry)


@dataclass(frozen=True)
class Band:
    """A strip of the canvas from the top, mm, laid from minute `begins` to `ends`; wiped at the latest at `wiped_by`."""

    top_mm: float
    bottom_mm: float
    begins: float
    ends: float
    wiped_by: float


def laid_in_bands(wash: Wash, height_mm: float, lifting_min: float) -> tuple[Band, ...]:
    """Top to bottom, so that each band is wiped while it can be: all at once where laying and lifting both fit into the window.

    `lifting_min` is what lifting the lights takes in all.
    """
    spend = wash.laying_min + lifting_min
    count = max(1, -int(-spend // max(0.1, wash.wipe_min)))
    bands, now = [], 0.0
    for n in range(count):
        ends = now + wash.laying_min / count
        bands.append(Band(height_mm * n / count, height_mm * (n + 1) / count, now, ends, now + wash.wipe_min))
        now = ends + lifting_min / count
    return tuple(bands)


LIFT_MIN = 0.5  # minutes to lift a light with a rag: our choice


def lifts_in_order(places: Sequence[Point], bands: Sequence[Band]) -> tuple[int, ...]:
    """Lights by number in the order to lift them: band by band as they set, in a band from left to right."""

    def band_of(at: Point) -> int:
        return next((n for n, b in enumerate(bands) if at[1] <= b.bottom_mm), len(bands) - 1)

    return tuple(sorted(range(len(places)), key=lambda n: (band_of(places[n]), places[n][0])))


# Gesso: two more coats on primed canvas for fine work, sanded between (common practice); an hour each in a usual room
# (our choice).
GESSO_COATS, _GESSO_HOURS = 2, 1.0


def gesso_ml(cm2: float, coats: int) -> float:
    """Gesso for so many coats."""
    return coat_ml(cm2, "normal", coats) * LOSS


def gesso_hours(coats: int) -> float:
    """Until the last coat may be toned."""
    return coats * _GESSO_HOURS
