"""Where Intake stands: photographs, a lead with marked eyes, rights and consent of what is kept."""

from yarrow_lane.intake.brief import Brief
from yarrow_lane.intake.consent import consent_wants
from yarrow_lane.intake.photos import IRIS_WORKABLE_PX, Intake, Photo
from yarrow_lane.lane.standing import Act, Standing


def photo_wants(photo: Photo, brief: Brief) -> str:
    """What a lead or helper still lacks, in words; empty when nothing."""
    if photo.use == "lead" and not photo.eyes:
        return f"mark the eyes on {photo.name}"
    if not photo.rights.known:
        return f"ask who may use {photo.name}"
    return consent_wants(photo, brief)


def kept_wants(intake: Intake, brief: Brief) -> tuple[Photo, str] | None:
    """The first kept photograph that still lacks something, and what."""
    return next(((p, wants) for p in intake.kept if (wants := photo_wants(p, brief))), None)


def stand(intake: Intake, brief: Brief) -> Standing:
    """Where the room stands."""
    photos = intake.photos
    if not photos:
        return Standing("", "no photographs yet", Act("Take in the photographs", "or drop them anywhere on the window"))
    fact = f"{len(photos)} photo{'s' * (len(photos) != 1)}, {len(intake.kept)} kept"
    if not intake.leads:
        act = Act("Choose the lead photograph", "one to three photographs carry the painting")
        return Standing(fact, "no photograph is lead", act, worry="no lead photograph")
    small = next((p for p in intake.leads if p.iris_px is not None and p.iris_px < IRIS_WORKABLE_PX), None)
    worry = f"needs an eye photograph: {small.iris_px:.0f} px across the iris" if small is not None else ""
    wanting = kept_wants(intake, brief)
    if wanting is None:
        return Standing(fact, worry=worry)
    photo, wants = wanting
    how = "drag across each iris" if photo.use == "lead" and not photo.eyes else f"then write it down on {photo.name}"
    return Standing(fact, wants, Act(wants[:1].upper() + wants[1:], how), worry=worry or wants)
