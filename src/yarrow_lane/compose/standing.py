"""Where Compose stands: a size, and a crop laid on a photograph that is still there."""

from collections.abc import Mapping, Sequence
from types import MappingProxyType
from typing import TYPE_CHECKING

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.detail import DETAIL_POOR_PX_MM, thinnest
from yarrow_lane.compose.proofs import Proofs, answer_to, as_approved
from yarrow_lane.compose.proposed_size import ProposedSize
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.intake.evidence import Evidence
from yarrow_lane.intake.photos import Intake, Photo
from yarrow_lane.lane.happening import Happening, ProofSent, of_kind
from yarrow_lane.lane.standing import Act, Standing, Task
from yarrow_lane.measure.late import late
from yarrow_lane.measure.lengths import Unit, size_text
from yarrow_lane.measure.moments import after

if TYPE_CHECKING:
    from yarrow_lane.compose import changes
else:
    changes = late("yarrow_lane.compose.changes")


def lie_word(width_mm: float, height_mm: float) -> str:
    """Square, upright or lying."""
    return "square" if width_mm == height_mm else "upright" if height_mm > width_mm else "lying"


def to_frame(compose: Compose, intake: Intake) -> Photo | None:
    """The photograph already framed, else the first lead, else the first kept or any."""
    laid = compose.background.photo_id if compose.background else ""
    framed = (p for p in intake.photos if p.id == laid)
    return next(iter((*framed, *intake.leads, *intake.kept, *intake.photos)), None)


def _thin(compose: Compose, intake: Intake, evidence: Mapping[str, Evidence]) -> str:
    """What the photographs lack at this size, in words; stored pixels count where one is not measured yet."""
    found = thinnest(compose, intake.photos, evidence)
    if found is None or found[1] >= DETAIL_POOR_PX_MM:
        return ""
    return f"too little detail for this size: {found[1]:.1f} px per mm"


_NONE = Proofs()
_COUNTS = ("no sitter", "one sitter", "two sitters", "three sitters", "four sitters", "five sitters")


def _placed(compose: Compose) -> str:
    count = len(compose.pieces)
    if not count:
        return ""
    return ", " + (_COUNTS[count] if count < len(_COUNTS) else f"{count} sitters")


def stand(
    compose: Compose, intake: Intake, unit: Unit, evidence: Mapping[str, Evidence] = MappingProxyType({}),
    proofs: Proofs = _NONE, log: Sequence[Happening] = (), answer_days: int = 0, proposed: ProposedSize | None = None,
) -> Standing:  # fmt: skip
    """Where the room stands; `evidence` by photograph id, as far as it is known, a client answers within `answer_days`.

    `proposed` is the size to take while there is none. A proof that was sent keeps the door open until it is answered, and every
    change after an approval opens it again.
    """
    if not compose.sized:
        return Standing("", "no size chosen", _size_act(proposed, unit))
    w, h = compose.width_mm, compose.height_mm
    fact = f"{size_text(w, h, unit)}, {lie_word(w, h)}{_placed(compose)}"
    laid = next((p for p in intake.photos if compose.background and p.id == compose.background.photo_id), None)
    if compose.framed and (laid is not None or compose.pieces):
        asked = asked_of_client(compose, proofs, log)
        worry = _thin(compose, intake, evidence)
        if not asked:
            return Standing(fact, worry=worry)
        return Standing(fact, asked, _ACTS[asked], _waits(asked, log, answer_days), worry)
    if not intake.photos:
        return Standing(fact, "no crop laid", Act("Take photographs in first", "the crop is laid on one of them"))
    return Standing(fact, "no crop laid", Act("Lay the crop", "as large as the photograph allows, never stretched"))


def _size_act(proposed: ProposedSize | None, unit: Unit) -> Act:
    if proposed is None:
        return Act("Choose the size", "a stock size on the bench, or your own width and height")
    size = size_text(proposed.width_mm, proposed.height_mm, unit)
    return Act(f"Take {size}", f"proposed: {proposed.why}; or another on the bench")


def _waits(asked: str, log: Sequence[Happening], answer_days: int) -> tuple[Task, ...]:
    """Nothing is painted before the client's answer, which is there when clients usually answer."""
    if asked != UNANSWERED:
        return ()
    sent = of_kind(log, ProofSent)[-1].at
    return (Task("wait for the client's answer", 0.0, earliest=after(sent, answer_days * 1440.0), whole=True),)


UNANSWERED, REFUSED, CHANGED = "proof not answered yet", "the client wants changes", "changed since the client approved it"
_ACTS = {
    UNANSWERED: Act("Write down the client's answer", "to the proof that was sent"),
    REFUSED: Act("Send a new proof", "once their wishes are in it"),
    CHANGED: Act("Send a new proof", "it is new scope: show what changed and ask again"),
}


def asked_of_client(compose: Compose, proofs: Proofs, log: Sequence[Happening]) -> str:
    """What is still open with the client; empty when nothing is, or no proof was ever sent."""
    sent = of_kind(log, ProofSent)
    if not sent:
        return ""
    answer = answer_to(log, sent[-1].number)
    if answer is None:
        return UNANSWERED
    if not answer.approved:
        return REFUSED
    shown = next((p for p in proofs.sent if p.number == answer.number), None)
    changed = sent[-1].made_from != reference_key(compose) if shown is None else seen_since(shown.composed, compose)
    return CHANGED if changed else ""


def seen_since(shown: Compose, now: Compose) -> bool:
    """Whether anything changed that the client would see."""
    return as_approved(shown) != as_approved(now) and any(c.seen for c in changes.changes(shown, now))
