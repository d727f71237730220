"""The order in which stints are laid, bettered step by step: whole canvases to other places first, then runs of stints.

The order is a list of job numbers; which stint of the job is laid is the job's own choice by a rule, until the last round, in which
single stints are named. Every step can be taken back, so only the tail of the order is laid anew, and a laying is dropped as soon as it is surely
later than the best. Effort is counted in stints laid, not in seconds: the same plan for the same work.
"""

import random
from collections.abc import Callable, Iterable, Sequence, Set
from itertools import takewhile
from math import log

from yarrow_lane.calendar.board import Full
from yarrow_lane.calendar.laying import RULES, Laying, Rule
from yarrow_lane.calendar.own_time import DAY_MIN
from yarrow_lane.measure.progress import SILENT, Progress

Order = list[int]
Named = list[tuple[int, int]]  # (job, stint)
CommissionDay = tuple[str, int]  # a commission and a day, counted from the plan's first
_STALE = 40  # steps without gain before it starts from the best again, besides one for each stint: our choice
_FEW = 80  # up to so many stints single ones are tried elsewhere: our choice
_LONG = 20_000  # from so much effort on every rule is tried: our choice
_TASTE = 0.26  # of the effort, for each rule before the best is gone on with: our choice, after trials
_WARM = 0.005  # of the cost, what is taken worse at the beginning: our choice, after trials
_INF = float("inf")


class Search:
    """Betters an order; `price` adds to a laying's cost what moving sittings costs. Raises `Cancelled` when it is stopped."""

    def __init__(
        self, laying: Laying, price: Callable[[Laying], float], seed: int = 1, progress: Progress = SILENT
    ) -> None:  # fmt: skip
        self._laying, self._price, self._progress = laying, price, progress
        self._until = 1
        self._rng = random.Random(seed)
        self.spent = 0
        self.best: Order = []
        self.named: Named = []
        self.cost = _INF

    def whole(self, rank: Sequence[int]) -> Order:
        """The order that lays one canvas after another."""
        return [job for job in rank for _ in range(self._laying.left[job])]

    def run(self, order: Order, limit: float = _INF) -> float:
        """The cost of an order; infinite as soon as it is surely above `limit`, or when the windows end before the work does."""
        laying = self._laying
        self._progress.at(min(1.0, self.spent / self._until))
        same = self._keep(step[0] == job for step, job in zip(laying.steps, order, strict=False))
        try:
            for job in order[same:]:
                laying.lay(job)
                self.spent += 1
                if laying.bound > limit:
                    return _INF
        except Full:
            return _INF
        return laying.cost() + self._price(laying)

    def run_named(self, order: Named) -> float:
        """The cost of laying single stints in an order; infinite where one comes before what it needs."""
        laying = self._laying
        same = self._keep(step[:2] == wanted for step, wanted in zip(laying.steps, order, strict=False))
        try:
            for job, stint in order[same:]:
                if not laying.is_ready(job, stint):
                    return _INF
                laying.lay_stint(job, stint)
                self.spent += 1
                if laying.bound > self.cost:
                    return _INF
        except Full:
            return _INF
        return laying.cost() + self._price(laying)

    def _keep(self, alike: Iterable[bool]) -> int:
        """Take off what the new order does not begin with; how many steps stay."""
        same = sum(1 for _ in takewhile(bool, alike))
        while len(self._laying.steps) > same:
            self._laying.take_off()
        return same

    def begin(self, order: Order) -> None:
        """The order to better."""
        self.best, self.cost = list(order), self.run(order)

    def better(self, effort: int) -> None:
        """Search on until about `effort` more stints have been laid: where there is much, a little with each rule, and on with the best."""
        jobs = sorted(set(self.best))
        if len(jobs) < 2:
            return
        until = self._until = self.spent + effort
        if effort >= _LONG:
            begin = list(self.best)
            found = [(self.cost, begin, self.named, self.rule)]
            for rule in RULES:
                self.follow(rule)
                self.best, self.named = list(begin), []
                self.cost = self.run(begin)
                self._leg(jobs, self.spent + int(effort * _TASTE))
                found.append((self.cost, self.best, self.named, rule))
            self.cost, self.best, self.named, rule = min(found, key=lambda f: f[0])
            self.follow(rule)
        self._leg(jobs, until)

    def _leg(self, jobs: Sequence[int], until: int) -> None:
        few, left = len(self.best) <= _FEW, until - self.spent
        self._move_canvases(jobs, self.spent + left // 2)
        self._move_runs(jobs, until - few * left // 4)
        if few:
            self._move_stints(until)

    @property
    def rule(self) -> Rule:
        """By which a canvas chooses among its own stints."""
        return self._laying.rule

    def follow(self, rule: Rule) -> None:
        """Another rule; what lies was laid by the one before."""
        while self._laying.steps:
            self._laying.take_off()
        self._laying.rule = rule

    def laid(self) -> Laying:
        """The best order, laid."""
        if self.named:
            self.run_named(self.named)
        else:
            self.run(self.best)
        return self._laying

    # --- how orders are changed

    def _move_canvases(self, jobs: Sequence[int], until: int) -> None:
        """Every canvas to every other place, the first gain taken, until none gains."""
        gained = True
        while gained:
            gained = False
            pairs = [(a, b) for a in range(len(jobs)) for b in range(len(jobs)) if a != b]
            self._rng.shuffle(pairs)
            for a, b in pairs:
                if self.spent > until:
                    return
                order = list(dict.fromkeys(self.best))
                job, beside = order[a], order[b]
                rest = [x for x in self.best if x != job]
                at = rest.index(beside) if b < a else len(rest) - rest[::-1].index(beside)
                new = [*rest[:at], *([job] * (len(self.best) - len(rest))), *rest[at:]]
                cost = self.run(new, self.cost)
                if cost < self.cost - 1e-9:
                    self.best, self.cost, self.named, gained = new, cost, [], True

    def _move_runs(self, jobs: Sequence[int], until: int) -> None:
        """Runs of stints of one canvas moved in the order, mostly late ones forward.

        A little worse is taken at first (annealing, almost cold); when nothing gains it goes on from the best.
        """
        rng, begin = self._rng, self.spent
        now, cost = list(self.best), self.run(self.best)
        late = self._late()
        stale, size = 0, len(self.best)
        warm = _WARM * max(self.cost, DAY_MIN)
        while self.spent < until:
            if stale > _STALE + size:
                stale, now = 0, list(self.best)
                cost = self.run(now)
                late = self._late()
            stale += 1
            new = self._changed(now, jobs, late)
            if new is None:
                self.spent += 1  # an order that cannot be changed ends the search all the same
                continue
            left = (until - self.spent) / max(1, until - begin)
            limit = cost - warm * left**2 * log(max(1e-12, rng.random()))
            found = self.run(new, limit)
            if found <= limit:
                stale = 0 if found < cost - 1e-9 else stale
                now, cost, late = new, found, self._late()
                if found < self.cost - 1e-9:
                    self.best, self.cost, self.named = list(new), found, []

    def _move_stints(self, until: int) -> None:
        """Single stints to other places in the order: the job's own choice among those that are ready may not be the best."""
        if not self.named:
            self.run(self.best)
            self.named = [(step[0], step[1]) for step in self._laying.steps]
        rng = self._rng
        now = list(self.named)
        while self.spent < until:
            a = rng.randrange(len(now))
            b = max(0, min(len(now) - 1, a + round(rng.gauss(0, 4))))
            self.spent += 1
            if a == b:
                continue
            new = list(now)
            new.insert(b, new.pop(a))
            cost = self.run_named(new)
            if cost <= self.cost:
                now = new
                if cost < self.cost - 1e-9:
                    self.named, self.cost = list(new), cost

    def _late(self) -> list[int]:
        return [job for job, late in enumerate(self._laying.late) if late > 0]

    def _changed(self, order: Order, jobs: Sequence[int], late: Sequence[int]) -> Order | None:
        rng, draw = self._rng, self._rng.random()
        job = rng.choice(late) if late and draw < 0.6 else rng.choice(jobs)
        at = [n for n, x in enumerate(order) if x == job]
        if not (draw < 0.25 or 0.6 <= draw < 0.7):
            first = rng.randrange(len(at))
            length = 1 + int(rng.expovariate(1 / max(2.0, len(at) / 4)))
            at = at[first : first + length]
        gone = set(at)
        rest = [x for n, x in enumerate(order) if n not in gone]
        if late and draw < 0.6:
            place = rng.randrange(at[0] + 1)
        else:
            place = max(0, min(len(rest), at[0] + int(rng.gauss(0, max(3.0, len(order) / 8)))))
        new = [*rest[:place], *([job] * len(at)), *rest[place:]]
        return None if new == order else new


def days_of(laying: Laying, days: int) -> Set[CommissionDay]:
    """Which commission is painted on which of the first days."""
    return {
        (job.commission_id, start // DAY_MIN)
        for job, row in zip(laying.jobs, laying.start, strict=True)
        for stint, start in zip(job.stints, row, strict=True)
        if 0 <= start < days * DAY_MIN and stint.minutes
    }


def moved(one: Set[CommissionDay], other: Set[CommissionDay]) -> float:
    """How many sittings stand on other days."""
    return len(one ^ other) / 2
