"""What goes wrong outside every guarded step is said too; no wait is without an end; no words are read as anything but words."""

import ast
import subprocess
import threading
from datetime import timedelta
from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QApplication, QLabel

import yarrow_lane
from tests.journeys.hands import keys
from tests.workers.test_workers import LONG
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.measure.progress import Progress
from yarrow_lane.ui import main as starting
from yarrow_lane.ui import threads as threads_module
from yarrow_lane.ui.guard import Guard
from yarrow_lane.ui.threads import Threads
from yarrow_lane.workers import pool

SOURCE = Path(yarrow_lane.__file__).parent


def test_what_no_guard_saw_is_said_and_written_down_without_words_of_clients(qapp, fonts, tmp_path):
    application = starting.Application(tmp_path / "mine")
    application.start()
    try:
        try:
            raise ZeroDivisionError("Mrs Ambrose")
        except ZeroDivisionError as error:
            application.say_unseen(type(error), error, error.__traceback__)
        assert "ZeroDivisionError" in application.window.message.text
        log = (tmp_path / "mine" / "yarrow-lane.log").read_text()
        assert "test_nothing_unseen.py" in log and "Ambrose" not in log
    finally:
        application.close()


def test_a_log_that_cannot_be_written_is_said(tmp_path):
    said = []
    (tmp_path / "yarrow-lane.log").mkdir()
    guard = Guard(tmp_path, said.append)
    guard.attempt(lambda: 1 / 0)
    guard.close()
    assert "could not be written" in said[0].sentence


def test_closing_ends_though_a_thread_hangs(qapp, tmp_path, monkeypatch):
    monkeypatch.setattr(threads_module, "_ENDING_MS", 100)
    guard = Guard(tmp_path, lambda trouble: pytest.fail(trouble.sentence))
    threads, begun, hang = Threads(guard.attempt, guard.fault), threading.Event(), threading.Event()

    def hangs(progress: Progress) -> None:
        begun.set()
        hang.wait(60)  # as a disk does that has gone

    threads.run(hangs, lambda _: None, lambda trouble: None)
    assert begun.wait(5)
    threads.close()
    assert not threads.ended
    hang.set()
    assert threads_module._STUCK.pop().waitForDone(5000)
    guard.close()


def test_a_worker_the_system_does_not_let_go_of_is_left(monkeypatch):
    workers = pool.Workers(1)
    with pytest.raises(Exception, match="process ended"):
        threading.Timer(0.3, lambda: [w.kill() for w in workers._busy]).start()
        workers.ask("measure.raster:piece", *LONG)
    (worker,) = [workers._take(Progress())]
    workers._give_back(worker, True)

    def never(self, timeout=None):
        raise subprocess.TimeoutExpired("worker", timeout)

    with monkeypatch.context() as patch:
        patch.setattr(subprocess.Popen, "wait", never)
        assert workers.close() is False
    worker._process.wait(5)


def waits_without_end() -> list[str]:
    """Calls named wait, waitForDone, join or recv without an argument, in the program."""
    found = []
    for path in SOURCE.rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text())):
            if (
                isinstance(node, ast.Call)
                and isinstance(node.func, ast.Attribute)
                and node.func.attr in ("wait", "waitForDone", "communicate")
                and not node.args
                and not node.keywords
            ):
                found.append(f"{path.relative_to(SOURCE)}:{node.lineno}")
    return found


def test_every_wait_on_a_thread_or_process_has_an_end():
    assert waits_without_end() == []


def test_every_label_is_plain():
    """Only the label of a deed writes its own marks, and it escapes the words in them."""
    found = [
        str(path.relative_to(SOURCE))
        for path in (SOURCE / "ui").rglob("*.py")
        for node in ast.walk(ast.parse(path.read_text()))
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id == "QLabel"
    ]
    assert found == ["ui/bench_words.py"]


def test_a_title_that_looks_like_a_page_is_shown_letter_by_letter(qtbot, window):
    title = '<img src="/etc/hostname"> & <b>Pip</b>'
    commission_id = window.desk.start_commission(new_brief(title, "cat", title, "acrylic", window.workroom.now.date(), None))
    for door in ("", "Intake", "Compose", "Tone", "Easel", "Deliver"):
        window.open_door(commission_id, door) if door else window.open_studio()
        window.grab()
        for label in window.findChildren(QLabel):
            if label.textFormat() != Qt.TextFormat.PlainText and "img" in label.text():
                assert "&lt;img" in label.text() and "<img" not in label.text(), label.text()
        for widget in QApplication.allWidgets():
            assert "<img" not in widget.toolTip(), widget
    window.open_studio()
    window.studio_page.select(commission_id)
    put_away = next(s.widget for s in window.studio_page.bench._slots if "Put " in getattr(s.line, "label", ""))
    assert "&&" in put_away.text(), "one & would be taken for a key"


def test_a_key_at_the_easel_that_cannot_be_stored_is_said(qtbot, demo_window, monkeypatch):
    from yarrow_lane.store.trouble import StoreTrouble

    window = demo_window
    window.desk.clock.now += timedelta(hours=3)  # the film of the last pass is dry
    window.open_door(window.desk.studio.on_shelf[1], "Easel")
    log = window.desk.commission(window.commission_id).log

    def full(*_, **__):
        raise StoreTrouble("It was not stored", "the disk is full")

    monkeypatch.setattr(window.desk.store.database, "happen", full)
    for key in (Qt.Key.Key_Space, Qt.Key.Key_Return):
        window.message.clear()
        keys(qtbot, window, key)
        assert "disk is full" in window.message.text, key
    assert window.desk.commission(window.commission_id).log == log and not window.current.view.running
