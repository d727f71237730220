"""The process that measures: the same numbers as here, trouble in words, no harm when it dies."""

import io
import json
import os
import signal

import pytest

from tests.rooms.intake.degraded import CAT_EYES
from yarrow_lane.intake.judge import EVIDENCE, Judge, answer_all, measure_file
from yarrow_lane.measure.progress import Cancelled, Progress
from yarrow_lane.measure.trouble import Trouble


@pytest.fixture
def judge():
    judge = Judge()
    yield judge
    judge.close()


def test_the_same_numbers_as_in_this_process(judge, cat_file):
    assert judge.measure(cat_file, "cat.jpg", CAT_EYES) == measure_file(cat_file, "cat.jpg", CAT_EYES)
    assert judge.measure(cat_file, "cat.jpg", ()) == measure_file(cat_file, "cat.jpg", ())


def test_trouble_crosses_over_in_words(judge, tmp_path, cat_file):
    broken = tmp_path / "broken.jpg"
    broken.write_bytes(cat_file.read_bytes()[:2000])
    with pytest.raises(Trouble) as there:
        judge.measure(broken, "broken.jpg", ())
    with pytest.raises(Trouble) as here:
        measure_file(broken, "broken.jpg", ())
    assert there.value.sentence == here.value.sentence
    assert judge.measure(cat_file, "cat.jpg", ()).noise > 0, "it goes on with the next"


def test_when_it_dies_the_photograph_is_measured_all_the_same(judge, cat_file):
    first = judge.measure(cat_file, "cat.jpg", CAT_EYES)
    os.kill(judge._process.pid, signal.SIGKILL)
    judge._process.wait()
    assert judge.measure(cat_file, "cat.jpg", CAT_EYES) == first
    process = judge._process
    os.kill(process.pid, signal.SIGSTOP)
    calls = []

    def told(share: float) -> None:
        calls.append(share)
        if len(calls) == 3:
            os.kill(process.pid, signal.SIGKILL)

    assert judge.measure(cat_file, "cat.jpg", CAT_EYES, Progress(told)) == first


def test_without_any_process_it_is_measured_here(judge, cat_file, monkeypatch):
    def refused(*_: object, **__: object) -> None:
        raise OSError("no process to be had")

    monkeypatch.setattr("subprocess.Popen", refused)
    assert judge.measure(cat_file, "cat.jpg", ()) == measure_file(cat_file, "cat.jpg", ())


def test_an_answer_given_up_is_not_taken_for_the_next(judge, cat_file):
    with pytest.raises(Cancelled):
        judge.measure(cat_file, "cat.jpg", CAT_EYES, Progress(stopped=lambda: True))
    found = judge.measure(cat_file, "cat.jpg", ())
    assert found.sharpness is None, "this is the answer without eyes"


def test_lines_in_lines_out(cat_file, tmp_path):
    requests = [
        {"number": 1, "path": str(cat_file), "name": "cat.jpg", "eyes": []},
        {"number": 2, "path": str(tmp_path / "gone.jpg"), "name": "gone.jpg", "eyes": []},
    ]
    out = io.StringIO()
    answer_all(io.StringIO("".join(json.dumps(r) + "\n" for r in requests)), out)
    good, bad = (json.loads(line) for line in out.getvalue().splitlines())
    assert EVIDENCE.validate_python(good["evidence"]) == measure_file(cat_file, "cat.jpg", ())
    assert bad["number"] == 2 and bad["trouble"][0] == "“gone.jpg” cannot be read"


def test_closing_ends_the_process(judge, cat_file):
    judge.measure(cat_file, "cat.jpg", ())
    process = judge._process
    judge.close()
    assert process.poll() is not None
    judge.close()
