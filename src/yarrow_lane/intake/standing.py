"""Where Intake stands: photographs, a lead with marked eyes, rights and consent of what is kept."""

from collections.abc import Mapping
from types import MappingProxyType

from yarrow_lane.intake.brief import Brief
from yarrow_lane.intake.consent import consent_wants
from yarrow_lane.intake.detail import FULL, IRIS_WORKABLE_PX, about, iris_detail
from yarrow_lane.intake.evidence import Evidence
from yarrow_lane.intake.photos import Intake, Photo
from yarrow_lane.lane.standing import Act, Standing
from yarrow_lane.measure.words import begun, counted


def photo_wants(photo: Photo, brief: Brief) -> str:
    """What a lead or helper still lacks, in words; empty when nothing."""
    if photo.use == "lead" and photo.wants_eyes:
        return f"mark the eyes on {photo.name}"
    if not photo.rights.known:
        return f"ask who may use {photo.name}"
    return consent_wants(photo, brief)


def kept_wants(intake: Intake, brief: Brief) -> tuple[Photo, str] | None:
    """The first kept photograph that still lacks something, and what."""
    return next(((p, wants) for p in intake.kept if (wants := photo_wants(p, brief))), None)


def _small_eyes(intake: Intake, evidence: Mapping[str, Evidence]) -> str:
    """The lead whose eyes show least, where that is too little, in words; the stored pixels count where it is not measured yet."""
    found: list[tuple[float, str]] = []
    for p in intake.leads:
        seen = evidence.get(p.id)
        if p.iris_px is None:
            continue
        detail = p.iris_px if seen is None else iris_detail(p.iris_px, seen)
        if detail < IRIS_WORKABLE_PX:
            resolves = "" if seen is None or seen.eye_share >= FULL else f", detail of {about(detail)}"
            which = f" on {p.name}" if len(intake.leads) > 1 else ""
            found.append((detail, f"needs an eye photograph: {p.iris_px:.0f} px across the iris{resolves}{which}"))
    return min(found)[1] if found else ""


def stand(intake: Intake, brief: Brief, evidence: Mapping[str, Evidence] = MappingProxyType({})) -> Standing:
    """Where the room stands; `evidence` by photograph id, as far as it is known."""
    photos = intake.photos
    if not photos:
        return Standing("", "no photographs yet", Act("Take in the photographs", "or drop them anywhere on the window"))
    fact = f"{counted(len(photos), 'photo')}, {len(intake.kept)} kept"
    if not intake.leads:
        act = Act("Choose the lead photograph", "one to three photographs carry the painting")
        return Standing(fact, "no photograph is lead", act, worry="no lead photograph")
    worry = _small_eyes(intake, evidence)
    wanting = kept_wants(intake, brief)
    if wanting is None:
        return Standing(fact, worry=worry)
    photo, wants = wanting
    how = "drag across each iris" if photo.use == "lead" and photo.wants_eyes else f"then write it down on {photo.name}"
    return Standing(fact, wants, Act(begun(wants), how), worry=worry or wants)
