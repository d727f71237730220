"""The score: on which day each pass falls, how thick it lies, what it frees, and the longest chain of passes that wait for each other."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date

from yarrow_lane.layers.passes import Pass
from yarrow_lane.paint.drying import FILM_UM


@dataclass(frozen=True)
class Chain:
    """Passes that wait for each other, first to last; work and drying together, minutes."""

    ids: tuple[str, ...]
    minutes: float


def days_of(
    passes: Sequence[Pass], painted: Mapping[str, date], sittings: Sequence[tuple[date, float]]
) -> dict[str, date | None]:  # fmt: skip
    """The day of each pass: when it was painted, else the planned sitting in whose minutes it falls; None beyond the plan."""
    found: dict[str, date | None] = {}
    left = [(day, minutes) for day, minutes in sittings if minutes > 0]
    at, used = 0, 0.0
    for p in passes:
        if p.id in painted:
            found[p.id] = painted[p.id]
            continue
        while at < len(left) and used >= left[at][1] - 1e-6:
            used -= left[at][1]
            at += 1
        found[p.id] = left[at][0] if at < len(left) else (left[-1][0] if left else None)
        used += p.minutes
    return found


def films_of(passes: Sequence[Pass]) -> dict[str, float]:
    """The film of each pass, µm, over its whole region: a block of squares adds its share of one coat."""
    coat: dict[tuple[int, str], float] = {}
    for p in passes:
        coat[p.region_id, p.key] = coat.get((p.region_id, p.key), 0.0) + p.area_cm2
    return {p.id: FILM_UM[p.film] * (p.area_cm2 / coat[p.region_id, p.key] if p.area_cm2 else 1.0) for p in passes}


def frees(passes: Sequence[Pass], pass_id: str) -> tuple[str, ...]:
    """The passes that wait for this one."""
    return tuple(p.id for p in passes if any(n.id == pass_id for n in p.needs))


def longest_chain(passes: Sequence[Pass], done: Sequence[str] = ()) -> Chain:
    """What holds the finish back: the longest way through needs, with drying where a need must be dry; painted passes cost nothing."""
    have = set(done)
    ends: dict[str, float] = {}
    before: dict[str, str] = {}
    by_id = {p.id: p for p in passes}
    for p in passes:
        begin = 0.0
        for need in p.needs:
            if need.id not in ends:
                continue
            wait = by_id[need.id].dry_minutes if need.dry and need.id not in have else 0.0
            if ends[need.id] + wait > begin:
                begin, before[p.id] = ends[need.id] + wait, need.id
        ends[p.id] = begin + (0.0 if p.id in have else p.minutes)
    if not ends:
        return Chain((), 0.0)
    last = max(ends, key=lambda i: ends[i])
    chain, at = [last], last
    while at in before:
        at = before[at]
        chain.append(at)
    return Chain(tuple(reversed(chain)), ends[last])
