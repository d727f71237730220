"""One commission: the parts of the nine rooms as one immutable value."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from datetime import date
from typing import Any, TypeVar

from yarrow_lane.books.draft import BOOKS, QuoteDraft
from yarrow_lane.check.record import CHECK, Check
from yarrow_lane.compose.composition import COMPOSE, Compose
from yarrow_lane.compose.proofs import PROOFS, Proofs
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.deliver.handover import DELIVER, Deliver
from yarrow_lane.easel.session import EASEL, Easel
from yarrow_lane.intake.brief import BRIEF, Brief
from yarrow_lane.intake.photos import INTAKE, Intake
from yarrow_lane.lane.happening import Log
from yarrow_lane.lane.part import Edit, Part, Plain
from yarrow_lane.layers.regions import LAYERS, Layers
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.palette.wells import PALETTE, Palette
from yarrow_lane.tone.record import TONE, Tone
from yarrow_lane.transfer.record import TRANSFER, Transfer

T = TypeVar("T")


class CommissionTrouble(Trouble):
    """A change that the commission cannot take."""


@dataclass(frozen=True)
class Waived:
    """A door waived against the facts, with the painter's reason."""

    door: str
    reason: str
    on: date


@dataclass(frozen=True)
class Doors:
    """The doors waived against the facts."""

    waived: tuple[Waived, ...] = ()

    def reason(self, door: str) -> str:
        """Why that door was waived; empty when it was not."""
        return next((w.reason for w in self.waived if w.door == door), "")


def _waived(plain: Plain, _: Mapping[str, Plain]) -> Plain:
    """Before version 1 a waived door was called passed, which is also what a coat of paint is called."""
    return {"waived": plain.get("passed", [])}


DOORS_PART = Part("doors", Doors, "", (_waived,))


@dataclass(frozen=True)
class Commission:
    """Everything on record about one portrait.

    The fields named in `PARTS` are versioned and can be undone; `log` is what happened outside, append-only.
    """

    id: str
    brief: Brief
    intake: Intake = Intake()
    compose: Compose = Compose()
    proofs: Proofs = Proofs()
    transfer: Transfer = Transfer()
    tone: Tone = Tone()
    palette: Palette = Palette()
    layers: Layers = Layers()
    easel: Easel = Easel()
    check: Check = Check()
    deliver: Deliver = Deliver()
    doors: Doors = Doors()
    books: QuoteDraft = QuoteDraft()
    log: Log = field(default=(), compare=False)


PARTS: tuple[Part[Any], ...] = (
    BRIEF, INTAKE, COMPOSE, PROOFS, TRANSFER, TONE, PALETTE, LAYERS, EASEL, CHECK, DELIVER, DOORS_PART,
    BOOKS,
)  # fmt: skip
# Parts whose work rests on the reference: they note which one it was begun from.
RESTS_ON_REFERENCE: tuple[Part[Any], ...] = (TRANSFER, PALETTE, LAYERS, EASEL, CHECK)


def part_of(commission: Commission, part: Part[T]) -> T:
    """That part's value."""
    value: T = getattr(commission, part.name)
    return value


def with_part(commission: Commission, part: Part[T], value: T) -> Commission:
    """The commission with another value of that part; the part itself is kept where nothing differs."""
    before = part_of(commission, part)
    if value is before or value == before:
        return commission
    changed: dict[str, Any] = {part.name: value}
    return replace(commission, **changed)


def apply(commission: Commission, edit: Edit[Any]) -> Commission:
    """Take an edit; work begun on a reference notes which one. A step that raises has changed nothing."""
    before = part_of(commission, edit.part)
    after = edit.step(before)
    if edit.part in RESTS_ON_REFERENCE and after != before and not after.made_from:
        after = replace(after, made_from=reference_key(commission.compose))
    return with_part(commission, edit.part, after)


def waive_door(doors: Doors, door: str, reason: str, on: date) -> Doors:
    """Go on against the facts; raises `CommissionTrouble` without a reason."""
    if not reason.strip():
        raise CommissionTrouble(f"The door {door} was not waived", "no reason is written", "write why it may be waived")
    others = tuple(w for w in doors.waived if w.door != door)
    return Doors((*others, Waived(door, reason.strip(), on)))


def unwaive_door(doors: Doors, door: str) -> Doors:
    """Take the waiving back: the facts decide again."""
    return Doors(tuple(w for w in doors.waived if w.door != door))
