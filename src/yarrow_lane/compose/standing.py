"""Where Compose stands: a size, and a crop laid on a photograph that is still there."""

from collections.abc import Mapping
from types import MappingProxyType

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.detail import DETAIL_POOR_PX_MM, carried_px_per_mm
from yarrow_lane.intake.evidence import Evidence
from yarrow_lane.intake.photos import Intake, Photo
from yarrow_lane.lane.standing import Act, Standing
from yarrow_lane.measure.lengths import Unit, size_text


def lie_word(width_mm: float, height_mm: float) -> str:
    """Square, upright or lying."""
    return "square" if width_mm == height_mm else "upright" if height_mm > width_mm else "lying"


def to_frame(compose: Compose, intake: Intake) -> Photo | None:
    """The photograph already framed, else the first lead, else the first kept or any."""
    laid = compose.background.photo_id if compose.background else ""
    framed = (p for p in intake.photos if p.id == laid)
    return next(iter((*framed, *intake.leads, *intake.kept, *intake.photos)), None)


def _thin(compose: Compose, photo: Photo, evidence: Evidence | None) -> str:
    """What the photograph lacks at this size, in words; stored pixels count where it is not measured yet."""
    detail = carried_px_per_mm(compose, photo, evidence)
    return f"too little detail for this size: {detail:.1f} px per mm" if detail < DETAIL_POOR_PX_MM else ""


def stand(
    compose: Compose, intake: Intake, unit: Unit, evidence: Mapping[str, Evidence] = MappingProxyType({})
) -> Standing:  # fmt: skip
    """Where the room stands; `evidence` by photograph id, as far as it is known."""
    if not compose.sized:
        return Standing("", "no size chosen", Act("Choose the size", "a stock size on the bench, or your own width and height"))
    w, h = compose.width_mm, compose.height_mm
    fact = f"{size_text(w, h, unit)}, {lie_word(w, h)}"
    laid = next((p for p in intake.photos if compose.background and p.id == compose.background.photo_id), None)
    if laid is not None:
        return Standing(fact, worry=_thin(compose, laid, evidence.get(laid.id)))
    if not intake.photos:
        return Standing(fact, "no crop laid", Act("Take photographs in first", "the crop is laid on one of them"))
    return Standing(fact, "no crop laid", Act("Lay the crop", "as large as the photograph allows, never stretched"))
