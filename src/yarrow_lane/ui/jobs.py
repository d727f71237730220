"""Work off the interface thread: one newest ticket per kind, late answers dropped, errors reach the person."""

import os
import sys
import threading
import traceback
from collections.abc import Callable
from typing import Any

import cv2
from PySide6.QtCore import QObject, QRunnable, QThreadPool, Signal

from yarrow_lane.measure.progress import Cancelled, Progress
from yarrow_lane.measure.trouble import Trouble

_WORKERS = 2  # our choice: two cores; more would only crowd the interface thread
_NICENESS = 10  # our choice: about a tenth of the interface thread's share while both want a core


class _Ticket:
    """One piece of work asked for; `dropped` once a newer one of its kind is asked for."""

    def __init__(
        self, kind: str, work: Callable[[Progress], Any], done: Callable[[Any], None], failed: Callable[[Trouble], None]
    ) -> None:
        self.kind, self.work, self.done, self.failed = kind, work, done, failed
        self.dropped = False


class _Run(QRunnable):
    def __init__(self, jobs: "Jobs", ticket: _Ticket) -> None:
        super().__init__()
        self._jobs, self._ticket = jobs, ticket

    def run(self) -> None:
        _step_back()
        ticket = self._ticket
        answer: Any = None
        error: Exception | None = None
        try:
            if not ticket.dropped:
                told = self._jobs.advanced.emit
                answer = ticket.work(Progress(lambda share: told(ticket.kind, share), lambda: ticket.dropped))
        except Cancelled:
            ticket.dropped = True
        except Exception as caught:  # whatever went wrong must reach the person, not vanish in a thread
            error = caught
        self._jobs.answered.emit(ticket, answer, error)


def _step_back() -> None:
    """Give this worker's thread less of the processor than the interface has (Linux counts niceness by thread)."""
    if sys.platform.startswith("linux"):
        os.setpriority(os.PRIO_PROCESS, threading.get_native_id(), _NICENESS)


class Jobs(QObject):
    """Runs work on a small pool; answers come back on the interface thread."""

    answered = Signal(object, object, object)
    advanced = Signal(str, float)
    idle = Signal()

    def __init__(self, failed: Callable[[Trouble], None]) -> None:
        super().__init__()
        self._pool = QThreadPool()
        self._pool.setMaxThreadCount(_WORKERS)
        # The workers are all the threads there should be: OpenCV would start as many again inside each.
        cv2.setNumThreads(1)
        self._failed = failed
        self._newest: dict[str, _Ticket] = {}
        self._open: set[_Ticket] = set()
        self.answered.connect(self._answer)

    @property
    def busy(self) -> bool:
        return bool(self._open)

    def run(
        self,
        kind: str,
        work: Callable[[Progress], Any],
        done: Callable[[Any], None],
        failed: Callable[[Trouble], None] | None = None,
        priority: int = 0,
    ) -> None:
        """Do `work` and hand its answer to `done`; an older piece of the same kind is dropped."""
        self.stop(kind)
        ticket = _Ticket(kind, work, done, failed or self._failed)
        self._newest[kind] = ticket
        self._open.add(ticket)
        self._pool.start(_Run(self, ticket), priority)

    def asked(self, kind: str) -> bool:
        """Whether a piece of that kind is under way."""
        return kind in self._newest

    def stop(self, kind: str) -> None:
        """Drop the newest piece of that kind, if any."""
        if kind in self._newest:
            self._newest.pop(kind).dropped = True

    def _answer(self, ticket: _Ticket, answer: Any, error: Exception | None) -> None:
        self._open.discard(ticket)
        if not ticket.dropped:
            self._newest.pop(ticket.kind, None)
            if error is None:
                ticket.done(answer)
            elif isinstance(error, Trouble):
                ticket.failed(error)
            else:
                traceback.print_exception(error)
                ticket.failed(Trouble("Something went wrong in Yarrow Lane itself", f"{type(error).__name__}: {error}"))
        if not self._open:
            self.idle.emit()

    def close(self) -> None:
        """Drop everything and wait for the workers."""
        for ticket in self._open:
            ticket.dropped = True
        self._pool.clear()
        self._pool.waitForDone()
        self._open.clear()
