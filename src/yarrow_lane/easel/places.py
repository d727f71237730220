"""How far a pass has got, patch by patch: done, done to 80 %, still to paint."""

from dataclasses import dataclass, replace

from yarrow_lane.easel.session import Easel, PassPlace


@dataclass(frozen=True)
class Now:
    """Which patch of a pass is to be painted: its number from 0, how many there are, and whether it comes back for its last fifth.

    `done` and `nearly` are the others; `over` when all are painted.
    """

    patch: int
    count: int
    again: bool = False
    over: bool = False
    done: frozenset[int] = frozenset()
    nearly: frozenset[int] = frozenset()


def place_of(easel: Easel, pass_id: str) -> PassPlace:
    """How far a pass has got."""
    return next((p for p in easel.places if p.pass_id == pass_id), PassPlace(pass_id))


def patch_now(easel: Easel, pass_id: str, patches: int) -> Now:
    """The first patch not touched yet, then those done to 80 %; a pass without patches is one."""
    count = max(1, patches)
    last = {patch: whole for patch, whole in place_of(easel, pass_id).steps if patch < count}
    done = frozenset(n for n, whole in last.items() if whole)
    nearly = frozenset(n for n, whole in last.items() if not whole)
    fresh = next((n for n in range(count) if n not in last), None)
    if fresh is not None:
        return Now(fresh, count, False, False, done, nearly)
    if nearly:
        return Now(min(nearly), count, True, False, done, nearly)
    return Now(count - 1, count, False, True, done, nearly)


def forward(easel: Easel, pass_id: str, patches: int, whole: bool = True) -> Easel:
    """The present patch is done, or to 80 %: then it comes again after the others."""
    at = patch_now(easel, pass_id, patches)
    if at.over or (at.again and not whole):
        return easel
    place = place_of(easel, pass_id)
    return _with(easel, replace(place, steps=(*place.steps, (at.patch, whole))))


def back(easel: Easel, pass_id: str) -> Easel:
    """The last step on this pass is taken back."""
    place = place_of(easel, pass_id)
    return _with(easel, replace(place, steps=place.steps[:-1]))


def _with(easel: Easel, place: PassPlace) -> Easel:
    rest = tuple(p for p in easel.places if p.pass_id != place.pass_id)
    return replace(easel, places=(*rest, place) if place.steps else rest)
