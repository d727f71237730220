"""Work off the interface thread: answers come back on it, dropped ones never, errors reach the person."""

import os
import sys
import threading
from collections.abc import Callable
from typing import Any

from PySide6.QtCore import QObject, QRunnable, QThreadPool, Signal

from yarrow_lane.measure.progress import Cancelled, Progress
from yarrow_lane.measure.trouble import Trouble

_THREADS = 4  # our choice: they wait for disk and workers, two of which are at work at a time
_ENDING_MS = 10_000  # our choice: workers are given two seconds to stop, a disk longer
_STUCK: list[QThreadPool] = []  # a pool waits for its threads when it goes: one that would wait for ever never goes
_NICENESS = 10  # our choice: about a tenth of the interface thread's share while both want a core


class Ticket:
    """One piece of work; dropped, it answers nobody."""

    def __init__(
        self, work: Callable[[Progress], Any], done: Callable[[Any], None], failed: Callable[[Trouble], None],
        told: Callable[[float], None] | None,
    ) -> None:  # fmt: skip
        self.work, self.done, self.failed, self.told = work, done, failed, told
        self.dropped = False

    def drop(self) -> None:
        self.dropped = True


class _Run(QRunnable):
    def __init__(self, threads: "Threads", ticket: Ticket) -> None:
        super().__init__()
        self._threads, self._ticket = threads, ticket

    def run(self) -> None:
        _step_back()
        ticket = self._ticket
        answer: Any = None
        error: Exception | None = None
        try:
            if not ticket.dropped:
                answer = ticket.work(Progress(self._tell, lambda: ticket.dropped))
        except Cancelled:
            ticket.dropped = True
        except Exception as caught:  # whatever went wrong must reach the person, not vanish in a thread
            error = caught
        self._threads.answered.emit(ticket, answer, error)

    def _tell(self, share: float) -> None:
        if self._ticket.told is not None:
            self._threads.advanced.emit(self._ticket, share)


def _step_back() -> None:
    """Give this thread less of the processor than the interface has (Linux counts niceness by thread)."""
    if sys.platform.startswith("linux"):
        os.setpriority(os.PRIO_PROCESS, threading.get_native_id(), _NICENESS)


class Threads(QObject):
    """A small pool. `guard` does a step and sees to whatever it raises; every answer comes through it."""

    answered = Signal(object, object, object)
    advanced = Signal(object, float)
    idle = Signal()

    def __init__(self, guard: Callable[[Callable[[], object]], object], fault: Callable[[Exception], Trouble]) -> None:
        super().__init__()
        self._pool = QThreadPool()
        self._pool.setMaxThreadCount(_THREADS)
        self._guard, self._fault = guard, fault
        self.ended = True
        self._open: set[Ticket] = set()
        self.answered.connect(self._answer)
        self.advanced.connect(self._advance)

    @property
    def busy(self) -> bool:
        return bool(self._open)

    def run(
        self, work: Callable[[Progress], Any], done: Callable[[Any], None], failed: Callable[[Trouble], None], priority: int = 0,
        told: Callable[[float], None] | None = None,
    ) -> Ticket:  # fmt: skip
        """Do `work` on a thread and hand its answer to `done`, or trouble to `failed`; `told` hears its share meanwhile."""
        ticket = Ticket(work, done, failed, told)
        self._open.add(ticket)
        self._pool.start(_Run(self, ticket), priority)
        return ticket

    def _advance(self, ticket: Ticket, share: float) -> None:
        if not ticket.dropped and ticket.told is not None:
            ticket.told(share)

    def _answer(self, ticket: Ticket, answer: Any, error: Exception | None) -> None:
        self._open.discard(ticket)
        if not ticket.dropped:
            if error is None:
                self._guard(lambda: ticket.done(answer))
            else:
                trouble = error if isinstance(error, Trouble) else self._fault(error)
                self._guard(lambda: ticket.failed(trouble))
        if not self._open:
            self.idle.emit()

    def close(self) -> None:
        """Drop everything and wait for the threads, but not without end: a disk that hangs must not hold the window."""
        for ticket in self._open:
            ticket.drop()
        self._pool.clear()
        self.ended = self._pool.waitForDone(_ENDING_MS)
        if not self.ended:
            _STUCK.append(self._pool)
        self._open.clear()
