"""What a test leaves behind: timers, threads, processes and windows, each with the line that began it."""

import linecache
import subprocess
import sys
import threading
from collections.abc import Callable
from typing import Any

from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QApplication
from shiboken6 import isValid


def _line() -> str:
    """The innermost line of ours or of a test that is under way; asked at each start of a timer, so without the whole stack."""
    innermost = frame = sys._getframe(2)
    while frame.f_back is not None and not ("yarrow_lane" in frame.f_code.co_filename or "/tests/" in frame.f_code.co_filename):
        frame = frame.f_back
    if frame.f_back is None:
        frame = innermost
    file, number = frame.f_code.co_filename, frame.f_lineno
    return f"{file}:{number}: {linecache.getline(file, number).strip()}"


class Watch:
    """Remembers what is begun while it is in place (`patch` is pytest's monkeypatch)."""

    def __init__(self, patch: Any) -> None:
        self._begun: list[tuple[Callable[[], bool], str]] = []
        self.processes: list[tuple[subprocess.Popen, str]] = []
        self._windows = {id(w) for w in _windows()}
        start, run, popen = QTimer.start, threading.Thread.start, subprocess.Popen.__init__
        watch = self

        def timer_start(timer: QTimer, *how: Any) -> None:
            start(timer, *how)
            watch._begun.append((lambda: isValid(timer) and timer.isActive(), f"a timer still runs, begun at {_line()}"))

        def thread_start(thread: threading.Thread) -> None:
            run(thread)
            watch._begun.append((thread.is_alive, f"a thread still runs, begun at {_line()}"))

        def process(found: subprocess.Popen, *how: Any, **more: Any) -> None:
            popen(found, *how, **more)
            watch.processes.append((found, f"a process still runs, begun at {_line()}"))

        patch.setattr(QTimer, "start", timer_start)
        patch.setattr(threading.Thread, "start", thread_start)
        patch.setattr(subprocess.Popen, "__init__", process)

    def left(self, lasting: set[int]) -> list[str]:
        """A sentence for each thing left; processes whose pids are `lasting` may stay."""
        found = [*dict.fromkeys(words for alive, words in self._begun if alive())]
        found += [words for process, words in self.processes if process.poll() is None and process.pid not in lasting]
        return found + [f"a window still shows: {w!r}" for w in _windows() if id(w) not in self._windows]


def _windows() -> list[Any]:
    return [w for w in QApplication.topLevelWidgets() if w.isVisible()] if QApplication.instance() else []
