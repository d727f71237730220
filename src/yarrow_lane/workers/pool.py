"""A pool of worker processes, asked from threads that wait."""

import os
import select
import subprocess
import sys
import threading
import time
from dataclasses import dataclass
from typing import Any

from yarrow_lane.measure.faults import FaultElsewhere
from yarrow_lane.measure.progress import SILENT, Cancelled, Progress
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.workers.wire import Wire, pair

WORKERS = 2  # our choice: two cores
_NICENESS = 10  # our choice: about a tenth of the interface's share while both want a core
_LOOK_S = 0.05  # our choice: how often it is asked whether the answer is still wanted
_ENDING_S = 5.0  # our choice: a killed process is gone in milliseconds
_STOPPING_S = 2.0  # our choice: a question that does not stop by then is ended with its process


class WorkerTrouble(Trouble):
    """A question that could not be answered within its limits."""


@dataclass(frozen=True)
class Limits:
    """What one question may take: memory on top of what the process has, and time."""

    memory_bytes: int = 2_000_000_000
    seconds: float = 120.0


class _Worker:
    """The handle of one process."""

    def __init__(self) -> None:
        ours, theirs = pair()
        command = [sys.executable, "-m", "yarrow_lane.workers.worker", str(theirs.fileno())]
        quiet = {**os.environ, "OMP_NUM_THREADS": "1", "OPENBLAS_NUM_THREADS": "1", "OPENCV_FOR_THREADS_NUM": "1"}
        # Libraries grumble there about damaged pictures; what goes wrong comes over the wire.
        self._process = subprocess.Popen(
            command, pass_fds=(theirs.fileno(),), stdin=subprocess.DEVNULL, stderr=subprocess.DEVNULL, env=quiet
        )
        theirs.close()
        # From its first moment on: what it loads must not hold the window up.
        os.setpriority(os.PRIO_PROCESS, self._process.pid, _NICENESS)
        self._wire = Wire(ours)
        self._number = 0

    def ask(self, question: str, arguments: tuple[Any, ...], progress: Progress, limits: Limits) -> tuple[str, Any]:
        """What it said and found; raises EOFError or OSError when the process is gone, TimeoutError past its time."""
        self._number += 1
        self._wire.send(("ask", question, arguments, limits.memory_bytes, self._number))
        deadline, share, stopping = time.monotonic() + limits.seconds, 0.0, False
        while time.monotonic() < deadline:
            ready, _, _ = select.select([self._wire], [], [], _LOOK_S)
            if ready:
                message = self._wire.receive()
                if message[0] == "share":
                    share = message[1]
                elif message[2] == self._number:
                    return message[0], message[1]
            if not stopping:
                try:
                    progress.at(share)
                except Cancelled:
                    stopping = True
                    deadline = min(deadline, time.monotonic() + _STOPPING_S)
                    self._wire.send(("stop",))
        raise TimeoutError

    def kill(self) -> None:
        """Whoever waits for its answer hears that it is gone."""
        self._process.kill()

    def end(self) -> bool:
        """End the process; False when the system does not let go of it in time, as it may while a disk hangs."""
        self._wire.close()
        self._process.kill()
        try:
            self._process.wait(_ENDING_S)
        except subprocess.TimeoutExpired:
            return False
        return True


class Workers:
    """Started with the first question; a worker that dies fails its question in words and is replaced.

    A question is never asked again by itself, and never answered in the window's own process.
    """

    def __init__(self, count: int = WORKERS) -> None:
        self._count = count
        self._free: list[_Worker] = []
        self._busy: set[_Worker] = set()
        self._changed = threading.Condition()
        self._closed, self._ended = False, True

    def ask(self, question: str, *arguments: Any, progress: Progress = SILENT, limits: Limits = Limits()) -> Any:
        """Answer "module:function" of this program with these arguments, in a process; blocks the calling thread.

        The function takes `progress` as its last, named argument. Raises what it raises as `Trouble`, `Cancelled` when it is no
        longer wanted, and `WorkerTrouble` when it took too long or too much memory or its process died.
        """
        worker = self._take(progress)
        whole = False
        try:
            said, found = worker.ask(question, arguments, progress, limits)
            whole = True
        except TimeoutError:
            progress.at(0.0)  # given up on purpose is not too long
            raise _trouble(f"it took longer than {limits.seconds:.0f} seconds") from None
        except (EOFError, OSError) as error:
            raise _trouble("its process ended in the middle") from error
        finally:
            self._give_back(worker, whole)
        if said == "answer":
            return found
        if said == "stopped":
            raise Cancelled
        if said == "trouble":
            raise Trouble(*found)
        if said == "memory":
            raise _trouble(f"it needs more than {limits.memory_bytes / 1e9:.0f} GB of memory")
        raise FaultElsewhere(found)

    def _take(self, progress: Progress) -> _Worker:
        with self._changed:
            while not self._free and len(self._busy) >= self._count:
                if self._closed:
                    raise Cancelled
                progress.at(0.0)
                self._changed.wait(_LOOK_S)
            if self._closed:
                raise Cancelled
            worker = self._free.pop() if self._free else _Worker()
            self._busy.add(worker)
            return worker

    def _give_back(self, worker: _Worker, whole: bool) -> None:
        with self._changed:
            self._busy.discard(worker)
            if whole and not self._closed:
                self._free.append(worker)
            else:
                self._ended = worker.end() and self._ended
            self._changed.notify()

    def close(self) -> bool:
        """End all processes; questions under way fail. Returns whether all that were ended went in time."""
        with self._changed:
            self._closed = True
            for worker in self._free:
                self._ended = worker.end() and self._ended
            self._free.clear()
            for worker in self._busy:  # whoever asked it ends it
                worker.kill()
            self._changed.notify_all()
            return self._ended


def _trouble(why: str) -> WorkerTrouble:
    return WorkerTrouble("This could not be worked out", why, "try a smaller picture, or close other programs and try again")
