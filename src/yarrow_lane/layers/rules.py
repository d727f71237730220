"""What an order breaks, and what moves when it changes."""

from bisect import bisect_left
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from yarrow_lane.intake.brief import Medium
from yarrow_lane.layers.grammar import fits, fitting, grammar
from yarrow_lane.layers.passes import Area, Meetings, Pass, columns_of
from yarrow_lane.layers.school import School


@dataclass(frozen=True)
class Warned:
    """A pass that breaks a rule where it stands: the rule's short name, why it holds, and the pass it is about."""

    pass_id: str
    rule: str
    why: str
    about: str = ""


def warnings_of(order: Sequence[Pass], areas: Sequence[Area], school: School, medium: Medium) -> tuple[Warned, ...]:
    """What this order breaks, a line for each pass and rule. An order of the program's own breaks nothing but `light over dark`."""
    g, found = grammar(), list[Warned]()
    wish = {**{k: str(v) for k, v in vars(school).items()}, "medium": medium}
    meets = Meetings(order, areas)
    columns, count = columns_of(order), len(order)
    for rule in g["rule"]:
        if "unless" in rule and fits(rule["unless"], wish):
            continue
        late, early = fitting(rule["first"], columns, count), fitting(rule["then"], columns, count)
        broken = np.triu(early[:, None] & late & meets.over(rule["over"]), 1)
        for n in np.nonzero(broken.any(0))[0].tolist():
            first = int(np.nonzero(broken[:, n])[0][0])
            found.append(Warned(order[n].id, rule["id"], rule["why"], order[first].id))
    found += _coats_out_of_step(order, meets)
    return (*found, *_too_light(order))


def _coats_out_of_step(order: Sequence[Pass], meets: Meetings) -> list[Warned]:
    """A coat painted after one that should lie over it."""
    step = np.array([p.step for p in order], int)
    broken = np.triu(meets.same & (step[:, None] > step), 1)
    why = "each coat was planned over the one before it; painted later it covers what lies over it"
    return [
        Warned(order[n].id, "coats in their order", why, order[int(np.nonzero(broken[:, n])[0][0])].id)
        for n in np.nonzero(broken.any(0))[0].tolist()
    ]


def _too_light(order: Sequence[Pass]) -> list[Warned]:
    """Transparent coats that would have to lighten what lies beneath."""
    rule, top, found = grammar()["lighter"], dict[tuple[int, int], Pass](), list[Warned]()
    for p in order:
        if any(fits(part, p.attributes) for part in ("nature=fix|mask|bare", "role=line")):
            continue
        beneath = top.get((p.region_id, p.square))
        if beneath and fits(rule["transparent"], p.attributes) and p.lightness > beneath.lightness + rule["most"]:
            found.append(Warned(p.id, rule["id"], rule["why"], beneath.id))
        top[p.region_id, p.square] = p
    return found


def on_ground(order: Sequence[Pass], lightness: float) -> tuple[Warned, ...]:
    """Transparent first coats lighter than the ground beneath them (L*): they show nothing, so the painting does not begin light."""
    rule, seen, found = grammar()["lighter"], set[tuple[int, int]](), list[Warned]()
    for p in order:
        place = (p.region_id, p.square)
        if place in seen or any(fits(part, p.attributes) for part in ("nature=fix|mask|bare", "role=line")):
            continue
        seen.add(place)
        if fits(rule["transparent"], p.attributes) and p.lightness > lightness + rule["most"]:
            why = (
                f"a thin light wash on a ground of L* {lightness:.0f} shows nothing; take a ground above L* 80, or begin opaque"
            )
            found.append(Warned(p.id, rule["on_ground"], why))
    return tuple(found)


def moves(before: Sequence[Pass], after: Sequence[Pass]) -> tuple[str, ...]:
    """The passes that move when the order changes: all outside the longest run that keeps its order; new ones count as moved."""
    place = {p.id: n for n, p in enumerate(before)}
    stay = [p.id for p in after if p.id in place]
    numbers = [place[i] for i in stay]
    tails: list[int] = []
    ends: list[int] = []
    previous = [-1] * len(numbers)
    for n, number in enumerate(numbers):
        at = bisect_left(tails, number)
        if at == len(tails):
            tails.append(number)
            ends.append(n)
        else:
            tails[at], ends[at] = number, n
        previous[n] = ends[at - 1] if at else -1
    kept: set[str] = set()
    n = ends[-1] if ends else -1
    while n >= 0:
        kept.add(stay[n])
        n = previous[n]
    return tuple(p.id for p in after if p.id not in kept)


def moved_words(before: Sequence[Pass], after: Sequence[Pass]) -> str:
    """In words for the painter: "4 passes move, 3 are new, 2 fall away"."""
    old, new = {p.id for p in before}, {p.id for p in after}
    moving = len([i for i in moves(before, after) if i in old])
    parts = [(moving, "move", "moves"), (len(new - old), "are new", "is new"), (len(old - new), "fall away", "falls away")]
    said = [f"{n} {'pass' if n == 1 else 'passes'} {one if n == 1 else many}" for n, many, one in parts if n]
    return ", ".join(said) or "nothing moves"
