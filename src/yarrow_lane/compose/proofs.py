"""Other ways the composition could be, and what the client was shown of it."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime

from yarrow_lane.compose.composition import Compose, ComposeTrouble
from yarrow_lane.compose.wall import Wall
from yarrow_lane.lane.happening import Happening, ProofAnswered, of_kind
from yarrow_lane.lane.part import Part
from yarrow_lane.measure.words import one_line

MOST_VARIANTS = 6  # our choice: more are not compared, they are browsed


@dataclass(frozen=True)
class Variant:
    """A composition under a name of its own."""

    name: str
    composed: Compose


@dataclass(frozen=True)
class Proof:
    """What was shown to the client: the whole composition as it was, so that every change since can be told."""

    number: int
    at: datetime
    composed: Compose


@dataclass(frozen=True)
class Proofs:
    """`price` and `included` are lines of the page; with a watermark the picture carries one, `with_wall` adds a page of the wall."""

    variants: tuple[Variant, ...] = ()
    sent: tuple[Proof, ...] = ()
    price: str = ""
    included: str = ""
    watermark: bool = True
    with_wall: bool = False


PROOFS = Part("proofs", Proofs, "Compose")


def keep_variant(proofs: Proofs, name: str, composed: Compose) -> Proofs:
    """Keep the composition as it is under a name. Raises `ComposeTrouble` for no name, one that is there, or more than six."""
    name = one_line(name)
    if not name:
        raise ComposeTrouble("The variant was not kept", "it has no name", "write what is different about it")
    if any(v.name == name for v in proofs.variants):
        raise ComposeTrouble(f"“{name}” was not kept", "a variant of that name is there", "write another name")
    if len(proofs.variants) >= MOST_VARIANTS:
        raise ComposeTrouble(f"“{name}” was not kept", f"{MOST_VARIANTS} variants are there already", "give one up first")
    return replace(proofs, variants=(*proofs.variants, Variant(name, composed)))


def next_name(proofs: Proofs) -> str:
    """A name nobody has taken: "variant A", "variant B"."""
    taken = {v.name for v in proofs.variants}
    return next(n for letter in "ABCDEFGH" if (n := f"variant {letter}") not in taken)


def swap_variant(proofs: Proofs, name: str, present: Compose) -> tuple[Proofs, Compose]:
    """Take a variant up; what was there is kept as one itself, unless it is, so that nothing is lost. Raises `ComposeTrouble`."""
    found = _variant(proofs, name)
    if any(v.composed == present for v in proofs.variants):
        return proofs, found.composed
    return keep_variant(proofs, next_name(proofs), present), found.composed


def drop_variant(proofs: Proofs, name: str) -> Proofs:
    """Give a variant up (undo brings it back). Raises `ComposeTrouble`."""
    _variant(proofs, name)
    return replace(proofs, variants=tuple(v for v in proofs.variants if v.name != name))


def _variant(proofs: Proofs, name: str) -> Variant:
    for variant in proofs.variants:
        if variant.name == name:
            return variant
    raise ComposeTrouble(f"There is no variant “{name}”", "it was given up", "choose another")


def answer_to(log: Sequence[Happening], number: int) -> ProofAnswered | None:
    """What the client said last to that proof."""
    return next((a for a in reversed(of_kind(log, ProofAnswered)) if a.number == number), None)


def approved_proof(proofs: Proofs, log: Sequence[Happening]) -> Proof | None:
    """The newest proof the client approved, if what was shown is on record."""
    for proof in reversed(proofs.sent):
        answer = answer_to(log, proof.number)
        if answer is not None and answer.approved:
            return proof
    return None


def as_approved(compose: Compose) -> Compose:
    """The composition without what the client does not see in it."""
    nameless = tuple(replace(p, far=1.0, sitter_id=0) for p in compose.pieces)
    return replace(
        compose, format_name="", pieces=nameless, next_piece=1, known=(), focus=None, wall=Wall(), meant=(),
        background=compose.behind,
    )  # fmt: skip
