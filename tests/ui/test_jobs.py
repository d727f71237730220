"""Work off the interface thread: the newest answer counts, errors reach the person, nothing outlives the window."""

import threading
import time

import pytest

from yarrow_lane.measure.progress import SILENT, Cancelled, Progress
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.ui.jobs import Jobs


@pytest.fixture
def said():
    return []


@pytest.fixture
def jobs(qapp, said):
    jobs = Jobs(said.append)
    yield jobs
    jobs.close()


def test_an_answer_comes_back_on_the_interface_thread(qtbot, jobs):
    threads, answers = [], []
    jobs.run("sum", lambda _: threads.append(threading.get_ident()) or 42, lambda a: answers.append((a, threading.get_ident())))
    assert jobs.busy and jobs.asked("sum")
    qtbot.waitUntil(lambda: bool(answers))
    assert answers == [(42, threading.get_ident())] and threads[0] != threading.get_ident()
    qtbot.waitUntil(lambda: not jobs.busy)
    assert not jobs.asked("sum")


def test_only_the_newest_of_a_kind_answers(qtbot, jobs):
    answers, go = [], threading.Event()
    jobs.run("look", lambda _: go.wait(5) and "old", answers.append)
    jobs.run("look", lambda _: "new", answers.append)
    go.set()
    qtbot.waitUntil(lambda: not jobs.busy)
    assert answers == ["new"]


def test_kinds_do_not_drop_each_other(qtbot, jobs):
    answers = []
    for kind in "abc":
        jobs.run(kind, lambda _, k=kind: k, answers.append)
    qtbot.waitUntil(lambda: not jobs.busy)
    assert sorted(answers) == ["a", "b", "c"]


def test_stopped_work_is_told_so_and_answers_nothing(qtbot, jobs):
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

    jobs.run("long", work, answers.append)
    assert begun.wait(5)
    jobs.stop("long")
    qtbot.waitUntil(lambda: not jobs.busy)
    assert seen == ["stopped"] and answers == []


def test_trouble_is_said_and_faults_of_ours_are_named(qtbot, jobs, said, capsys):
    def trouble(_: Progress) -> None:
        raise Trouble("The picture was not read", "it is empty", "ask again")

    jobs.run("a", trouble, print)
    qtbot.waitUntil(lambda: len(said) == 1)
    assert said[0].sentence == "The picture was not read, because it is empty; ask again."
    jobs.run("b", lambda _: 1 / 0, print)
    qtbot.waitUntil(lambda: len(said) == 2)
    assert "Yarrow Lane itself" in said[1].sentence and "ZeroDivisionError" in said[1].sentence
    assert "ZeroDivisionError" in capsys.readouterr().err


def test_a_job_may_take_its_own_trouble(qtbot, jobs, said):
    mine = []

    def trouble(_: Progress) -> None:
        raise Trouble("Gone")

    jobs.run("thumb", trouble, print, mine.append)
    qtbot.waitUntil(lambda: bool(mine))
    assert said == []


def test_progress_is_heard_while_it_runs(qtbot, jobs):
    heard = []
    jobs.advanced.connect(lambda kind, share: heard.append((kind, share)))

    def work(progress: Progress) -> None:
        for n in range(3):
            progress.at(n / 2)

    jobs.run("steps", work, lambda _: None)
    qtbot.waitUntil(lambda: len(heard) == 3)
    assert heard == [("steps", 0.0), ("steps", 0.5), ("steps", 1.0)]
    SILENT.at(1.0)


def test_closing_waits_for_what_runs_and_drops_the_rest(qtbot, jobs):
    done, answers = [], []
    for n in range(6):
        jobs.run(f"slow {n}", lambda _: time.sleep(0.02) or done.append(1), answers.append)
    jobs.close()
    assert len(done) <= 6 and not jobs.busy
    qtbot.wait(50)
    assert answers == []
