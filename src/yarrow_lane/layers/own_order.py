"""The painter's own changes to the order a school gives: passes added, left out, merged, moved, cut in two."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from yarrow_lane.layers.passes import Area, Pass, SequenceTrouble, needs_anew
from yarrow_lane.layers.school import School
from yarrow_lane.paint.drying import FILM_UM, Climate, Film, film_minutes


@dataclass(frozen=True)
class OwnPass:
    """A pass of the painter's own; it goes after the pass `after`, first when that is gone. `minutes` of work."""

    number: int
    region_id: int
    name: str
    after: str
    minutes: float
    film: Film = "normal"
    role: str = "light"


@dataclass(frozen=True)
class OwnOrder:
    """What the painter changed, by pass ids; what no longer fits a new school is passed over and comes back with the old one.

    `merged` are pairs of which the second is painted in the first; `moved` pairs of a pass and the one before which it goes, "" for the
    end; `parted` passes painted in two halves.
    """

    added: tuple[OwnPass, ...] = ()
    left_out: tuple[str, ...] = ()
    merged: tuple[tuple[str, str], ...] = ()
    moved: tuple[tuple[str, str], ...] = ()
    parted: tuple[str, ...] = ()
    next_number: int = 1

    @property
    def plain(self) -> bool:
        """Whether the school's order stands as it is."""
        return not (self.added or self.left_out or self.merged or self.moved or self.parted)


def own_id(own: OwnPass) -> str:
    """The name of an own pass on record: it keeps its place whatever the kind and the order of values."""
    return f"{own.region_id}:own:own:own{own.number}"


def applied(
    passes: Sequence[Pass], areas: Sequence[Area], school: School, climate: Climate, own: OwnOrder
) -> tuple[Pass, ...]:  # fmt: skip
    """The painter's order: in turn left out, parted, merged, added, moved; needs are worked out anew."""
    if own.plain:
        return tuple(passes)
    order = [p for p in passes if p.id not in own.left_out]
    order = [half for p in order for half in (_halves(p) if p.id in own.parted else (p,))]
    for into, other in own.merged:
        order = _merged(order, into, other)
    by_id = {a.id: a for a in areas}
    for added in own.added:
        if added.region_id in by_id:
            order = _with(order, by_id[added.region_id], added, climate)
    for moving, before in own.moved:
        order = _moved(order, moving, before)
    return needs_anew(order, areas, school)


def _halves(p: Pass) -> tuple[Pass, Pass]:
    first = replace(p, name=f"{p.name}, first half", minutes=p.minutes / 2, share=p.share / 2)
    return first, replace(first, id=f"{p.id}'", name=f"{p.name}, second half")


def _merged(order: list[Pass], into: str, other: str) -> list[Pass]:
    a = next((p for p in order if p.id == into), None)
    b = next((p for p in order if p.id == other), None)
    if a is None or b is None:
        return order
    both = replace(
        a, name=f"{a.name} and {b.name}", minutes=a.minutes + b.minutes, share=a.share + b.share, fat=max(a.fat, b.fat),
        film=max((a.film, b.film), key=FILM_UM.__getitem__), dry_minutes=max(a.dry_minutes, b.dry_minutes),
        nature="opaque" if "opaque" in (a.nature, b.nature) else a.nature,
    )  # fmt: skip
    return [both if p is a else p for p in order if p is not b]


def _with(order: list[Pass], area: Area, own: OwnPass, climate: Climate) -> list[Pass]:
    at = next((n + 1 for n, p in enumerate(order) if p.id == own.after), 0)
    beside = [p for p in order if p.region_id == area.id]
    beneath = [p for p in order[:at] if p.region_id == area.id]
    like = beneath[-1] if beneath else beside[0] if beside else None
    paint = like.paint if like is not None else "acrylic"
    made = Pass(
        own_id(own), area.id, area.name, area.kind, own.name, area.cm2, own.minutes, own.film,
        film_minutes(own.film, paint, climate), key=f"own{own.number}", role=own.role, paint=paint,
        fat=like.fat if like is not None else 0, lightness=like.lightness if like is not None else 50, share=0.0,
        sitter_id=area.sitter_id, part=area.part, step=like.step if like is not None else 0,
        progress=like.progress if like is not None else 0.5, own=True,
    )  # fmt: skip
    return [*order[:at], made, *order[at:]]


def _moved(order: list[Pass], moving: str, before: str) -> list[Pass]:
    p = next((p for p in order if p.id == moving), None)
    if p is None or moving == before:
        return order
    rest = [q for q in order if q is not p]
    at = next((n for n, q in enumerate(rest) if q.id == before), None)
    if at is None and before:
        return order
    at = len(rest) if at is None else at
    return [*rest[:at], p, *rest[at:]]


# --- changes


def add_pass(own: OwnOrder, region_id: int, name: str, after: str, minutes: float, film: Film = "normal") -> OwnOrder:
    """A pass of the painter's own; raises `SequenceTrouble` without a name or with no time."""
    if not name.strip():
        raise SequenceTrouble("The pass was not added", "it has no name", "say in a word or two what is painted")
    if not 0 < minutes <= 60 * 100:
        raise SequenceTrouble("The pass was not added", f"{minutes:g} minutes is no time to paint it in")
    made = OwnPass(own.next_number, region_id, name.strip(), after, minutes, film)
    return replace(own, added=(*own.added, made), next_number=own.next_number + 1)


def leave_out(own: OwnOrder, p: Pass) -> OwnOrder:
    """A pass that is not painted; an own one is gone."""
    if p.own:
        return replace(own, added=tuple(a for a in own.added if own_id(a) != p.id))
    return replace(own, left_out=(*own.left_out, p.id))


def merge(own: OwnOrder, passes: Sequence[Pass], pass_id: str) -> OwnOrder:
    """Paint a pass together with the one before it of the same area; raises `SequenceTrouble` when there is none."""
    place = next((n for n, p in enumerate(passes) if p.id == pass_id), -1)
    if place < 0:
        raise SequenceTrouble("The pass was not merged", "it is not in the order any more")
    p = passes[place]
    before = [q for q in passes[:place] if q.region_id == p.region_id and q.square == p.square]
    if not before:
        raise SequenceTrouble(f"“{p.title}” was not merged", "it is the first of its area")
    if before[-1].paint != p.paint:
        raise SequenceTrouble(f"“{p.title}” was not merged", f"it is {p.paint}, and the coat beneath is {before[-1].paint}")
    return replace(own, merged=(*own.merged, (before[-1].id, p.id)))


def move(own: OwnOrder, pass_id: str, before: str) -> OwnOrder:
    """Paint a pass before another, "" for last; an earlier move of the same pass is forgotten."""
    return replace(own, moved=(*(m for m in own.moved if m[0] != pass_id), (pass_id, before)))


def part(own: OwnOrder, p: Pass) -> OwnOrder:
    """Paint a pass in two halves, each with its own time; raises `SequenceTrouble` for one that is half already."""
    if p.own or "half" in p.name:
        raise SequenceTrouble(f"“{p.title}” was not cut", "it is the painter's own, or half of a pass already")
    return replace(own, parted=(*own.parted, p.id))
