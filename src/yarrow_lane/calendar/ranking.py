"""A first order of the canvases: one machine, minutes in a row over the free hours, and for each canvas its waits at the end."""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.calendar.jobs import LONG_WAIT_MIN, NEVER, Job
from yarrow_lane.calendar.laying import EASY_SHARE, due_minute
from yarrow_lane.calendar.own_time import DAY_MIN
from yarrow_lane.calendar.windows import Windows

Perm = NDArray[np.int64]
_TRIES, _BATCH = 40, 64  # rounds without gain before it stops, moves looked at in one: our choice
_ROUNDS, _MANY, _ROUNDS_OF_MANY = 120, 24, 12  # rounds in all, fewer where there are many jobs: our choice
_CHANGES = 3  # minutes of changing wells and canvas per stint: our choice


def ranked(jobs: Sequence[Job], windows: Windows, seed: int = 1) -> list[int]:
    """Numbers of the jobs, the first to be laid first.

    The best of four rules (nearest promise; shortest; two by what waiting costs), then moved about in batches until forty rounds gain
    nothing or the rounds are over. The same for the same jobs.
    """
    count = len(jobs)
    if count < 2 or not windows.begin:
        return list(range(count))
    minutes = np.array([j.minutes + _CHANGES * len(j.stints) for j in jobs], float)
    tails = np.array([_tail(j) for j in jobs], float)
    due = np.array([min(due_minute(j, windows), NEVER) for j in jobs], float)
    begin, end = np.array(windows.begin, float), np.array(windows.end, float)
    filled = np.concatenate([[0], np.cumsum(end - begin)])

    def ends(perms: Perm) -> NDArray[np.float64]:
        worked = np.cumsum(minutes[perms], -1)
        at = np.clip(np.searchsorted(filled, worked) - 1, 0, len(begin) - 1)
        return np.asarray(begin[at] + worked - filled[at] + tails[perms])

    def cost(perms: Perm) -> NDArray[np.float64]:
        done = ends(perms)
        uneasy = np.maximum(0, done - EASY_SHARE * due[perms]).sum(-1)
        return np.asarray(np.maximum(0, done - due[perms]).sum(-1) + 2e-3 * uneasy + 1e-6 * done.sum(-1))

    starts = [np.argsort(due - tails, kind="stable"), np.argsort(minutes, kind="stable")]
    starts += [_by_cost_of_waiting(minutes, due - tails, begin, end, filled, patience) for patience in (0.5, 2.0)]
    perm = min(starts, key=lambda p: float(cost(p)))
    best, rng, fails = float(cost(perm)), np.random.default_rng(seed), 0
    for _ in range(_ROUNDS if count <= _MANY else _ROUNDS_OF_MANY):
        if fails >= _TRIES or count < 3:
            break
        moved = _moved(perm, rng)
        costs = cost(moved)
        n = int(costs.argmin())
        if costs[n] < best - 1e-9:
            best, perm, fails = float(costs[n]), moved[n], 0
        else:
            fails += 1
    return [int(p) for p in perm]


def _tail(job: Job) -> int:
    """Wall minutes from the end of the painting to the client's hands."""
    if not job.stints:
        return 0
    body = next((k for k, s in enumerate(job.stints) if any(lag >= LONG_WAIT_MIN for _, lag in s.needs)), len(job.stints) - 1)
    return job.chain[body] + max((lag for _, lag in job.stints[body].needs), default=0)


def _by_cost_of_waiting(
    minutes: NDArray[np.float64], due: NDArray[np.float64], begin: NDArray[np.float64], end: NDArray[np.float64],
    filled: NDArray[np.float64], patience: float,
) -> Perm:  # fmt: skip
    """What costs most to put off goes first (apparent tardiness cost; Vepsalainen and Morton, 1987)."""
    share = float((end - begin).mean()) / DAY_MIN
    wait = float(minutes.mean()) * patience
    left, order, worked = np.arange(len(minutes)), [], 0.0
    while len(left):
        at = int(np.clip(np.searchsorted(filled, worked) - 1, 0, len(begin) - 1))
        slack = np.maximum(0, due[left] - (begin[at] + worked - filled[at]) - minutes[left]) * share
        pick = int(np.argmax(np.exp(-slack / wait) / minutes[left]))
        order.append(int(left[pick]))
        worked += minutes[left[pick]]
        left = np.delete(left, pick)
    return np.array(order)


def _moved(perm: Perm, rng: np.random.Generator) -> Perm:
    """A batch of orders in which one job stands elsewhere or two have changed places."""
    count = len(perm)
    reach = max(2, count // 4)
    a = rng.integers(0, count, (_BATCH, 1))
    b = np.clip(a + rng.integers(-reach, reach + 1, (_BATCH, 1)), 0, count - 1)
    at = np.arange(count)[None]
    taken = at + ((at >= a) & (at < b)) - ((at <= a) & (at > b))
    swaps = rng.random((_BATCH, 1)) < 0.4
    taken = np.where(swaps, np.where(at == a, b, at), taken)
    return np.asarray(perm[np.where(at == b, a, taken)])
