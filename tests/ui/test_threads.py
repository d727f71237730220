"""Work off the interface thread: answers come back, errors reach the person, nothing outlives the window."""

import threading
import time

import pytest

from yarrow_lane.measure.progress import SILENT, Cancelled, Progress
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.ui.guard import Guard
from yarrow_lane.ui.threads import Threads


@pytest.fixture
def said():
    return []


@pytest.fixture
def guard(tmp_path, said):
    guard = Guard(tmp_path, lambda trouble: said.append(trouble.sentence))
    yield guard
    guard.close()


@pytest.fixture
def threads(qapp, guard):
    threads = Threads(guard.attempt, guard.fault)
    yield threads
    threads.close()


def run(threads, work, done, failed=None, **how):
    return threads.run(work, done, failed or (lambda trouble: pytest.fail(trouble.sentence)), **how)


def test_an_answer_comes_back_on_the_interface_thread(qtbot, threads):
    idents, answers = [], []
    run(threads, lambda _: idents.append(threading.get_ident()) or 42, lambda a: answers.append((a, threading.get_ident())))
    assert threads.busy
    qtbot.waitUntil(lambda: bool(answers))
    assert answers == [(42, threading.get_ident())] and idents[0] != threading.get_ident()
    qtbot.waitUntil(lambda: not threads.busy)


def test_pieces_do_not_drop_each_other(qtbot, threads):
    answers = []
    for kind in "abcdefgh":
        run(threads, lambda _, k=kind: k, answers.append)
    qtbot.waitUntil(lambda: not threads.busy)
    assert sorted(answers) == list("abcdefgh")


def test_dropped_work_is_told_so_and_answers_nothing(qtbot, threads):
    begun, seen, answers = threading.Event(), [], []

    def work(progress: Progress) -> str:
        begun.set()
        try:
            while True:
                progress.at(0.5)
                time.sleep(0.005)
        except Cancelled:
            seen.append("stopped")
            raise

    ticket = run(threads, work, answers.append)
    assert begun.wait(5)
    ticket.drop()
    qtbot.waitUntil(lambda: not threads.busy)
    assert seen == ["stopped"] and answers == []


def test_trouble_is_handed_on_and_faults_of_ours_are_named_and_written_down(qtbot, threads, guard):
    mine = []

    def trouble(_: Progress) -> None:
        raise Trouble("The picture was not read", "it is empty", "ask again")

    run(threads, trouble, print, mine.append)
    qtbot.waitUntil(lambda: len(mine) == 1)
    assert mine[0].sentence == "The picture was not read, because it is empty; ask again."
    run(threads, lambda _: 1 / 0, print, mine.append)
    qtbot.waitUntil(lambda: len(mine) == 2)
    assert "Yarrow Lane itself" in mine[1].sentence and "ZeroDivisionError" in mine[1].sentence
    assert "ZeroDivisionError" in guard.log_file.read_text()


def test_an_answer_that_cannot_be_taken_is_said(qtbot, threads, said):
    def full(_: object) -> None:
        raise Trouble("It was not stored", "the disk is full")

    run(threads, lambda _: 1, full)
    qtbot.waitUntil(lambda: bool(said))
    assert said == ["It was not stored, because the disk is full."]


def test_progress_is_heard_while_it_runs(qtbot, threads):
    heard = []

    def work(progress: Progress) -> None:
        for n in range(3):
            progress.at(n / 2)

    run(threads, work, lambda _: None, told=heard.append)
    qtbot.waitUntil(lambda: len(heard) == 3)
    assert heard == [0.0, 0.5, 1.0]
    SILENT.at(1.0)


def test_closing_waits_for_what_runs_and_drops_the_rest(qtbot, threads):
    done, answers = [], []
    for _ in range(9):
        run(threads, lambda _: time.sleep(0.02) or done.append(1), answers.append)
    threads.close()
    assert len(done) <= 9 and not threads.busy
    qtbot.wait(50)
    assert answers == []
