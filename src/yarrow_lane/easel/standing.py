"""Where the easel stands: the pass to paint now, what it waits for, and the painting still to be planned."""

from collections.abc import Sequence
from datetime import datetime

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.easel.clock import doubts, minutes_logged
from yarrow_lane.easel.session import Easel, dry_at, finished_ahead, pass_meanwhile, pass_now, readiness
from yarrow_lane.lane.happening import Happening
from yarrow_lane.lane.standing import BEFORE, Act, Standing, Task, stale_words
from yarrow_lane.layers.passes import Pass
from yarrow_lane.measure.lengths import hours_text

# Our choice: a film dry within this time is waited for in the same sitting, over another region or a cup of tea.
SHORT_WAIT_MIN = 120.0


def passes_left(easel: Easel, passes: tuple[Pass, ...]) -> list[Pass]:
    """Those not yet painted, in order."""
    done = {f.pass_id for f in easel.finished}
    return [p for p in passes if p.id not in done]


def last_painted(easel: Easel) -> datetime | None:
    """When the last pass was finished."""
    return max((f.at for f in easel.finished), default=None)


def tasks_left(easel: Easel, passes: tuple[Pass, ...], now: datetime) -> tuple[Task, ...]:
    """The painting still to be planned.

    One stretch where every film dries within a sitting; else a task for each pass, with the waits between them, and for what
    is painted already the moment it is dry.
    """
    left = passes_left(easel, passes)
    if not left:
        return ()
    if max(p.dry_minutes for p in passes) <= SHORT_WAIT_MIN:
        return (Task("paint", sum(p.minutes for p in left)),)
    place = {p.id: n for n, p in enumerate(left)}
    by_id = {p.id: p for p in passes}
    done = {f.pass_id: f for f in easel.finished}
    tasks = []
    for p in left:
        after = tuple((place[n.id], by_id[n.id].dry_minutes if n.dry else 0.0) for n in p.needs if n.id in place)
        dries = [dry_at(done[n.id], now) for n in p.needs if n.dry and n.id in done]
        tasks.append(Task(f"paint {p.title}", p.minutes, after or ((BEFORE, 0.0),), max(dries, default=None)))
    return tuple(tasks)


def stand(
    easel: Easel, passes: tuple[Pass, ...], planned: tuple[Pass, ...], log: Sequence[Happening], compose: Compose, now: datetime
) -> Standing:  # fmt: skip
    """Where the room stands; `planned` are the passes the days are reckoned by, a usual head's before the sitter is drawn."""
    stale = stale_words(easel.made_from, reference_key(compose))
    if not passes:
        guess = tasks_left(easel, planned, now)
        return Standing("", "no passes yet", Act("Go to Layers", "draw the regions"), guess, stale=stale)
    fact = f"{hours_text(minutes_logged(log))} of {hours_text(sum(p.minutes for p in planned))}"
    left = passes_left(easel, passes)
    paint = pass_now(easel, passes, now)
    doubtful, early = len(doubts(log)), finished_ahead(easel, now)
    worry = "a pass was finished in the future" if early else "hours in doubt" if doubtful else ""
    if paint is None and passes_left(easel, planned):
        act = Act("Go to Layers", "draw the sitter's regions")
        return Standing(fact, "the sitter is to be painted", act, tasks_left(easel, planned, now), stale=stale, worry=worry)
    if paint is None:
        return Standing(fact, stale=stale, worry=worry)
    state = readiness(easel, paint, now)
    other = pass_meanwhile(easel, passes, now)
    if other is not None:
        waits = "other passes come first" if state.waits_for else "it is wet beneath"
        act = Act(f"Paint {other.title}", f"meanwhile: {paint.title} waits, {waits}", other.minutes)
    else:
        detail = "other passes come first" if state.waits_for else "everything beneath is dry"
        act = Act(f"Paint {paint.title}", detail, paint.minutes, state.dry_at, "beneath it is wet until")
    dries = (dry_at(f, now) for f in easel.finished)
    until = min((moment for moment in dries if moment > now), default=None)
    wants = f"{len(left)} pass{'es' * (len(left) != 1)} to paint"
    return Standing(fact, wants, act, tasks_left(easel, planned, now), stale=stale, until=until, worry=worry)
