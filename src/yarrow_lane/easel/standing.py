"""Where the easel stands: the pass to paint now, what it waits for, and the painting still to be planned."""

from collections.abc import Collection, Mapping, Sequence
from datetime import datetime
from types import MappingProxyType

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.easel.clock import doubts, minutes_by_pass, minutes_logged
from yarrow_lane.easel.session import Easel, dry_at, finished_ahead, pass_meanwhile, pass_now, readiness
from yarrow_lane.lane.happening import Happening
from yarrow_lane.lane.standing import BEFORE, Act, Standing, Task, stale_words
from yarrow_lane.layers.passes import Pass
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.measure.words import counted

LEAST_LEFT_MIN = 10.0  # a pass begun and not finished has at least so much left: our choice
_NONE: Mapping[str, float] = MappingProxyType({})


def passes_left(easel: Easel, passes: tuple[Pass, ...]) -> list[Pass]:
    """Those not yet painted, in order."""
    done = {f.pass_id for f in easel.finished}
    return [p for p in passes if p.id not in done]


def last_painted(easel: Easel) -> datetime | None:
    """When the last pass was finished."""
    return max((f.at for f in easel.finished), default=None)


def tasks_left(
    easel: Easel, passes: tuple[Pass, ...], now: datetime, daylight: Collection[str] = (), spent: Mapping[str, float] = _NONE
) -> tuple[Task, ...]:  # fmt: skip
    """The painting still to be planned: a task for each pass, with the waits between them, and for what is painted already the moment
    it is dry. Kinds of area in `daylight` need it; `spent` are minutes already painted of a pass.
    """
    left = passes_left(easel, passes)
    place = {p.id: n for n, p in enumerate(left)}
    by_id = {p.id: p for p in passes}
    done = {f.pass_id: f for f in easel.finished}
    tasks = []
    for p in left:
        after = tuple((place[n.id], by_id[n.id].dry_minutes if n.dry else 0.0) for n in p.needs if n.id in place)
        dries = [dry_at(done[n.id], now) for n in p.needs if n.dry and n.id in done]
        minutes = max(p.minutes - spent.get(p.id, 0.0), min(p.minutes, LEAST_LEFT_MIN))
        tasks.append(
            Task(
                p.title, minutes, after or ((BEFORE, 0.0),), max(dries, default=None), key=p.id, palette=f"{p.family} {p.sitter_id}",
                family=p.family, daylight=p.family in daylight,
            )
        )  # fmt: skip
    return tuple(tasks)


def stand(
    easel: Easel, passes: tuple[Pass, ...], planned: tuple[Pass, ...], log: Sequence[Happening], compose: Compose, now: datetime,
    daylight: Collection[str] = (),
) -> Standing:  # fmt: skip
    """Where the room stands; `planned` are the passes the days are reckoned by, a usual head's before the sitter is drawn."""
    spent = minutes_by_pass(log)
    tasks = tasks_left(easel, planned, now, daylight, spent)
    stale = stale_words(easel.made_from, reference_key(compose))
    if not passes:
        return Standing("", "no passes yet", Act("Go to Layers", "draw the regions"), tasks, stale=stale)
    fact = f"{hours_text(minutes_logged(log))} of {hours_text(sum(p.minutes for p in planned))}"
    left = passes_left(easel, passes)
    paint = pass_now(easel, passes, now)
    doubtful, early = len(doubts(log)), finished_ahead(easel, now)
    worry = "a pass was finished in the future" if early else "hours in doubt" if doubtful else ""
    if paint is None and passes_left(easel, planned):
        act = Act("Go to Layers", "draw the sitter's regions")
        return Standing(fact, "the sitter is to be painted", act, tasks, stale=stale, worry=worry)
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
    wants = f"{counted(len(left), 'pass')} to paint"
    return Standing(fact, wants, act, tasks, stale=stale, until=until, worry=worry)
