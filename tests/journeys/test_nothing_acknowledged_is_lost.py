"""A short share of the attacks that `scripts/bench store` runs for minutes, with the same dice each time."""

import pytest
from bench.attacks import databases, fillings, hands, kills, openings, pictures
from PySide6.QtWidgets import QFileDialog


def test_twelve_kills(tmp_path):
    counts = kills.attack(tmp_path / "studio", 12, 20260309)
    assert not counts.bad
    assert counts.held > 60, "the kills came before anything was written: the test proved nothing"


def test_fillings_of_a_small_file_system(tmp_path):
    if not fillings.can_mount(tmp_path / "disk"):
        pytest.skip("this machine gives no file system of one's own; tests/store/test_durable.py fills a stand-in")
    counts = fillings.attack(tmp_path / "disk", 4, 20260309)
    assert not counts.bad and counts.tried == 4 and counts.said >= 4


def test_changed_pictures_of_every_kind():
    counts = pictures.attack(150, 20260309)
    assert not counts.bad
    assert counts.held > 20 and counts.said > 40


def test_damaged_databases(tmp_path):
    counts = databases.attack(tmp_path, 12, 20260309)
    assert not counts.bad
    assert counts.said >= 6


def test_openings_and_closings_in_the_middle_of_work(tmp_path):
    counts = openings.attack(tmp_path / "openings", 4, 20260309)
    assert not counts.bad and counts.held == 4


def test_random_hands(qtbot, demo_window, tmp_path, monkeypatch):
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(tmp_path / "saved"), ""))
    played = hands.Hands(demo_window, tmp_path, 20260309)
    hands.listen(demo_window, played.counts)
    played.play(200)
    qtbot.waitUntil(lambda: not demo_window.threads.busy, timeout=60_000)
    assert not played.counts.bad and played.counts.held == 5
