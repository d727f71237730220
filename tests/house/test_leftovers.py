"""The watch that fails a test for what it leaves behind, and names the line."""

import subprocess
import sys
import threading

import pytest
from PySide6.QtCore import QTimer

from tests.house.mutations import MUTATIONS, ROOT
from tests.leftovers import Watch


def test_timers_threads_and_processes_are_named_with_their_line(qapp):
    with pytest.MonkeyPatch.context() as patch:
        watch = Watch(patch)
        timer, stop = QTimer(), threading.Event()
        timer.start(10_000)
        thread = threading.Thread(target=stop.wait)
        thread.start()
        process = subprocess.Popen([sys.executable, "-c", "input()"], stdin=subprocess.PIPE)
        words = watch.left(set())
        assert len(words) == 3 and all("test_leftovers.py" in w for w in words)
        assert "timer.start(10_000)" in words[0] and "thread.start()" in words[1] and "Popen" in words[2]
        assert len(watch.left({process.pid})) == 2
        timer.stop()
        stop.set()
        thread.join()
        process.communicate(b"\n")
        assert watch.left(set()) == []


@pytest.mark.parametrize("mutation", MUTATIONS, ids=lambda m: m.name)
def test_each_wrong_program_can_still_be_written(mutation):
    """`python -m tests.house.mutations` runs them; a text that is gone would make it pass without a look."""
    text = (ROOT / "src" / "yarrow_lane" / mutation.file).read_text()
    assert text.count(mutation.text) == 1 and mutation.text != mutation.instead
    assert (ROOT / "tests" / mutation.tests).is_dir()
