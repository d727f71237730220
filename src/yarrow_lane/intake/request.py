"""The letter that asks for the photographs that are missing, in the painter's voice."""

from collections.abc import Mapping, Sequence

from yarrow_lane.intake.brief import Brief, Sitter
from yarrow_lane.intake.detail import IRIS_WORKABLE_PX, iris_detail
from yarrow_lane.intake.evidence import Evidence
from yarrow_lane.intake.photos import Intake, Photo
from yarrow_lane.intake.ranking import DARK_EYE
from yarrow_lane.lane.happening import Happening, LetterSent, of_kind

_WANTED = {
    "person": "one from eye height, by a window with the light from one side, the whole head in it, eyes sharp, no flash",
    "bird": "one from the bird's own height, in daylight from one side, the whole head in it, the near eye sharp",
}
_WANTED_ANIMAL = "one from eye height, by a window or in open shade, the whole head with both ears in it, eyes sharp, no flash"


def missing_for(intake: Intake, sitter: Sitter, evidence: Mapping[str, Evidence], only_one: bool) -> str:
    """What is still missing for one sitter, in words; empty when a lead carries it.

    With `only_one` sitter every photograph is taken to show it, marked or not.
    """
    mine = [p for p in intake.photos if p.sitter_id == sitter.id or (p.sitter_id == 0 and only_one)]
    leads = [p for p in mine if p.use == "lead"]
    faults = [fault for p in leads if (fault := _fault(p, evidence.get(p.id)))]
    if leads and len(faults) < len(leads):
        return ""
    if not mine:
        return "no photograph yet"
    if not leads:
        return "none of the photographs can lead"
    return faults[0]


def _fault(photo: Photo, evidence: Evidence | None) -> str:
    iris = photo.iris_px
    if iris is None:
        return "the eyes cannot be read"
    if iris < IRIS_WORKABLE_PX:
        return "the eyes are too small in the picture"
    if evidence is not None and iris_detail(iris, evidence) < IRIS_WORKABLE_PX:
        return "the eyes are not sharp" if not evidence.enlarged else "the picture was enlarged and its eyes show too little"
    if evidence is not None and evidence.eye_lightness is not None and evidence.eye_lightness < DARK_EYE:
        return "the eyes lie in the dark"
    return ""


def what_is_missing(intake: Intake, brief: Brief, evidence: Mapping[str, Evidence]) -> tuple[tuple[Sitter, str], ...]:
    """Each sitter that lacks a lead photograph, and why."""
    only_one = len(brief.sitters) == 1
    found = ((s, missing_for(intake, s, evidence, only_one)) for s in brief.sitters)
    return tuple((s, why) for s, why in found if why)


def next_letter(log: Sequence[Happening]) -> int:
    """The number of the next letter that asks for photographs."""
    return 1 + max((letter.number for letter in of_kind(log, LetterSent)), default=0)


def compose_letter(brief: Brief, missing: tuple[tuple[Sitter, str], ...], painter: str) -> str:
    """A draft to be edited freely; nothing is sent by writing it."""
    lines = [f"Dear {brief.client or 'client'},", ""]
    if not missing:
        lines += ["thank you for the photographs. I have what I need and can begin.", ""]
        return "\n".join([*lines, "Warm regards", painter or "your painter"])
    lines.append("thank you for the photographs. The eyes decide whether a portrait lives, so may I ask for a little more?")
    for sitter, why in missing:
        lines.append("")
        if sitter.living:
            lines.append(f"{sitter.name} ({why}): {_WANTED.get(sitter.kind, _WANTED_ANIMAL)}.")
        else:
            lines.append(
                f"{sitter.name} ({why}): I know no new picture can be taken. Is there an older one in which the eyes are"
                " larger and sharp, or the original file of one you have sent? Albums and friends' telephones often hold one."
            )
    lines += ["", "The original file is best: pictures sent by messenger come out too small to paint from.", ""]
    return "\n".join([*lines, "Warm regards", painter or "your painter"])
