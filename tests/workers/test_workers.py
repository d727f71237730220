"""Questions to other processes: answers, trouble in words, stopping, limits of time and memory, and processes that die."""

import threading
import time

import numpy as np
import pytest

from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.progress import SILENT, Cancelled, Progress
from yarrow_lane.measure.raster import piece
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.workers.pool import Limits, Workers, WorkerTrouble
from yarrow_lane.workers.wire import Wire, pair

PIECE = "measure.raster:piece"
LONG = (np.zeros((4000, 4000, 3), np.uint8), Rect(0, 0, 4000, 4000), 2001, 3999)


def whole(picture: np.ndarray) -> Rect:
    return Rect(0, 0, picture.shape[1], picture.shape[0])


def test_the_same_answer_as_here(workers, cat):
    found = workers.ask(PIECE, cat, whole(cat), 100, 60)
    assert (found == piece(cat, whole(cat), 100, 60)).all()


def test_large_arrays_travel_both_ways(workers):
    dice = np.random.default_rng(1)
    picture = dice.integers(0, 256, (3000, 2000, 3), dtype=np.uint8)
    found = workers.ask(PIECE, picture, whole(picture), 2000, 3000)
    assert (found == picture).all()


def test_arrays_of_any_kind_cross_the_wire():
    ours, theirs = pair()
    one, other = Wire(ours), Wire(theirs)
    sent = (
        "x",
        {"a": np.arange(300_000, dtype=np.float64).reshape(3, -1)},
        [np.zeros(0), np.array(2 + 3j), np.ones(5, bool)],
        "ö",
    )
    done = []
    reader = threading.Thread(target=lambda: done.append(other.receive()))
    reader.start()
    one.send(sent)
    reader.join(5)
    (found,) = done
    assert found[0] == "x" and found[3] == "ö" and (found[1]["a"] == sent[1]["a"]).all()
    assert [a.dtype for a in found[2]] == [a.dtype for a in sent[2]]
    one.close()
    with pytest.raises((EOFError, OSError)):
        other.receive()
    other.close()


def test_trouble_keeps_its_words(workers):
    with pytest.raises(Trouble, match=r"notes\.txt.*no JPEG"):
        workers.ask("intake.arriving:arrive", b"some words", "notes.txt")


def test_a_fault_of_ours_is_told_and_the_process_goes_on(workers):
    with pytest.raises(RuntimeError, match="TypeError"):
        workers.ask(PIECE, "no picture")
    with pytest.raises(RuntimeError, match="ModuleNotFoundError"):
        workers.ask("no.such:thing")
    assert workers.ask(PIECE, np.zeros((4, 4, 3), np.uint8), Rect(0, 0, 4, 4), 2, 2).shape == (2, 2, 3)


def test_what_is_no_longer_wanted_stops(workers):
    begun = time.monotonic()
    with pytest.raises(Cancelled):
        workers.ask(PIECE, *LONG, progress=Progress(stopped=lambda: time.monotonic() - begun > 0.2))
    assert workers.ask(PIECE, np.zeros((4, 4, 3), np.uint8), Rect(0, 0, 4, 4), 2, 2).shape == (2, 2, 3)


def test_its_share_is_told(workers):
    shares = []
    workers.ask(PIECE, *LONG, progress=Progress(shares.append))
    assert shares == sorted(shares) and 0 < shares[-1] <= 1


def test_too_long_and_too_much_are_said_and_the_next_question_is_answered(workers):
    with pytest.raises(WorkerTrouble, match="longer than 0 seconds"):
        workers.ask(PIECE, *LONG, limits=Limits(seconds=0.01))
    small = np.zeros((4, 4, 3), np.uint8)
    with pytest.raises(WorkerTrouble, match="of memory"):
        workers.ask(PIECE, small, Rect(0, 0, 4, 4), 30_000, 30_000, limits=Limits(memory_bytes=300_000_000))
    assert workers.ask(PIECE, small, Rect(0, 0, 4, 4), 2, 2).shape == (2, 2, 3)


def test_a_process_that_dies_fails_its_question_in_words_and_is_replaced():
    workers = Workers(1)
    ask = workers.ask(PIECE, np.zeros((4, 4, 3), np.uint8), Rect(0, 0, 4, 4), 2, 2)
    (first,) = workers._free
    asked = []

    def die(share: float) -> None:
        asked.append(share)
        first._process.kill()

    with pytest.raises(WorkerTrouble, match="ended in the middle"):
        workers.ask(PIECE, *LONG, progress=Progress(die))
    assert asked and not workers._free, "it is not asked again"
    assert (workers.ask(PIECE, np.zeros((4, 4, 3), np.uint8), Rect(0, 0, 4, 4), 2, 2) == ask).all()
    assert workers._free[0]._process.pid != first._process.pid
    workers.close()
    with pytest.raises(Cancelled):
        workers.ask(PIECE, *LONG)
    assert first._process.poll() is not None


def test_questions_wait_for_a_free_process():
    workers = Workers(1)
    answers = []
    picture = np.zeros((500, 500, 3), np.uint8)
    asking = [
        threading.Thread(target=lambda: answers.append(workers.ask(PIECE, picture, whole(picture), 50, 50).shape))
        for _ in range(4)
    ]
    for thread in asking:
        thread.start()
    for thread in asking:
        thread.join(30)
    assert answers == [(50, 50, 3)] * 4 and len(workers._free) == 1
    workers.close()
    SILENT.at(0.5)
