"""48 damaged files: each gives one clear sentence that names it, none stops the batch."""

import re

import numpy as np
import pytest

from tests.doing import photo_from_file
from tests.rooms.intake.damaged import odd, refused
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.ui.arrivals import read_all


@pytest.fixture(scope="module")
def small(cat_module) -> np.ndarray:
    return np.ascontiguousarray(cat_module[:120, :160])


@pytest.fixture(scope="module")
def cat_module() -> np.ndarray:
    import skimage.data

    return skimage.data.cat()


def test_there_are_forty_eight_of_them(small):
    names = [name for name, _ in (*refused(small), *odd(small))]
    assert len(set(names)) == len(names) == 48


def test_each_gives_one_sentence_and_the_good_ones_still_come_in(desk, small, cat_file, tmp_path):
    files = []
    for name, data in (*refused(small), *odd(small)):
        files.append(tmp_path / name)
        files[-1].write_bytes(data)
    files.insert(20, cat_file)
    landed = []

    def read(path, name, progress):
        return photo_from_file(desk, path, name, progress=progress)

    sentences = read_all(tuple(files), read, landed.append, pytest.fail, Progress())
    for name, _ in (*refused(small), *odd(small)):
        mine = [s for s in sentences if s.startswith(f"“{name}”")]
        assert len(mine) == 1, name
        assert mine[0].endswith(".") and "\n" not in mine[0] and len(mine[0]) < 260, mine[0]
    assert len(sentences) == 48
    kept = {p.name for p in landed if p is not None}
    assert kept == {name for name, _ in odd(small)} | {"cat.jpg"}
    assert len(landed) == 49, "progress counts the failures too"


def test_what_is_refused_leaves_nothing_behind(desk, small):
    for name, data in refused(small):
        with pytest.raises(Trouble) as error:
            photo_from_file(desk, data, name)
        assert error.value.remedy, name
        assert not re.search(r"Error|Traceback|0x[0-9a-f]{4}", error.value.sentence), error.value.sentence
    folder = desk.store.folder / "photos"
    assert not folder.exists() or not [f for f in folder.rglob("*") if f.is_file()]
