"""A short share of the attacks that `scripts/bench store` runs for minutes, with the same dice each time."""

import pytest
from bench.attacks import databases, fillings, kills, pictures


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
