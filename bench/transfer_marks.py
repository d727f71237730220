"""Photographs laid on each other by scribble marks, and a large print over sheets: the figures of the ways on paper and on marks."""

import subprocess
import sys
import time
from collections.abc import Iterator

import numpy as np

from bench.borders import on_canvas
from bench.figures import figure
from yarrow_lane.canvas_photo.register import PX_PER_MM, Registered, registered
from yarrow_lane.canvas_photo.straight import canvas_of, straightened
from yarrow_lane.canvas_photo.suggest import suggested_corners
from yarrow_lane.standins.camera import Taking, drawn_on, photograph
from yarrow_lane.standins.surface import DARK_INK, LIGHT_INK, marked, painted, scribbles

_SIZE, _PX, _PAIRS, _NEVER = (400.0, 500.0), 2.5, 15, 60


def marks() -> Iterator[str]:
    """45 scribbles, two photographs each, paint over a share of their length; answers off by more than 3 mm anywhere are wrong."""
    wrong, asked = 0, 0
    for covered in (0.4, 0.7, 0.9, 1.0):
        off: list[float] = []
        alone: list[float] = []
        answered, spent, worst = 0, 0.0, 0.0
        for n in range(_PAIRS):
            found, moved, raw, seconds = _pair(n, covered, n)
            asked += 1
            spent += seconds
            alone += raw.tolist()
            if found:
                answered += 1
                off += moved.tolist()
                worst = max(worst, float(np.median(moved)))
                wrong += float(np.percentile(moved, 95)) > 3.0
        what = f"marks: {covered:.0%} under paint"
        yield figure(f"{what}, not answered of {_PAIRS} (corners alone: median {np.median(alone):.2f} mm, 95 of 100 within "
                     f"{np.percentile(alone, 95):.2f})", _PAIRS - answered, 0 if covered == 0.4 else _PAIRS, "")  # fmt: skip
        if off:
            # The goals are asked for at 40 %; how they fare beyond is told against the same.
            yield figure(f"{what}, median", float(np.median(off)), 0.3, "mm")
            yield figure(f"{what}, 95 of 100 within", float(np.percentile(off, 95)), 1.0, "mm")
        yield figure(f"{what}, its time, mean", spent / _PAIRS, 4, "s CPU")
    for n in range(_NEVER - asked if asked < _NEVER else 0):
        found, moved, _, _ = _pair(100 + n, 0.8, n)
        wrong += bool(found and np.percentile(moved, 95) > 3.0)
    # A surface with other marks has no right answer: any is wrong.
    for n in range(10):
        found, _, _, _ = _pair(n, 0.4, 500 + n)
        wrong += bool(found)
    yield figure(f"marks: wrong answers of {max(asked, _NEVER) + 10}, 10 of them other surfaces", wrong, 0, "")


def _pair(seed: int, covered: float, other: int) -> tuple[bool, np.ndarray, np.ndarray, float]:
    """Whether an answer came, how far off it is at 99 places and how far the corners alone are (mm), and the seconds it took."""
    rng = np.random.default_rng(900 + seed)
    light = rng.random() < 0.5
    bare = drawn_on(*_SIZE, _PX, seed, (140.0, 110.0, 90.0) if light else (200.0, 175.0, 150.0))
    ink = LIGHT_INK if light else DARK_INK
    strokes = scribbles(*_SIZE, 45, seed)
    first = marked(bare, _PX, strokes, ink, seed)
    later = first
    if other != seed:
        strokes = scribbles(*_SIZE, 45, other)
        later = marked(bare, _PX, strokes, ink, other)
    flats, places = [], []
    x, y = np.meshgrid(np.linspace(10, 390, 9), np.linspace(10, 490, 11))
    for number, canvas in enumerate((first, painted(later, on_canvas("cat1").picture, _PX, strokes, covered, seed))):
        shot = photograph(canvas, *_SIZE, 2000 + 1000 * number + seed, Taking(longer_px=1200))
        straight = straightened(shot.picture, shot.corners(*_SIZE) + rng.normal(0, 1.5, (4, 2)), _SIZE)
        flats.append(canvas_of(shot.picture, straight, PX_PER_MM))
        places.append(straight.mm(shot.px(np.stack([x.ravel(), y.ravel()], 1))))
    begin = time.process_time()
    found = registered(flats[0], flats[1], PX_PER_MM)
    spent = time.process_time() - begin
    raw = np.hypot(*(places[1] - places[0]).T)
    if not isinstance(found, Registered):
        return False, np.zeros(0), raw, spent
    return True, np.hypot(*(found.moved(places[1]) - places[0]).T), raw, spent


def corners() -> Iterator[str]:
    """The guess of the corners, as the room makes it, against where they are."""
    shares = []
    for n in range(24):
        size = ((400.0, 500.0), (500.0, 400.0), (300.0, 400.0))[n % 3]
        ground = tuple(np.clip(np.random.default_rng(n).uniform(60, 235, 3), 40, 235))
        canvas = marked(drawn_on(*size, 2.0, n, ground), 2.0, scribbles(*size, 30, n), DARK_INK, n)
        shot = photograph(canvas, *size, 8000 + n, Taking(longer_px=2000, aside=(12, 24, 35)[n % 3]))
        found = suggested_corners(shot.picture, size[0] / size[1])
        if found is None:
            shares.append(1.0)
            continue
        fitted = np.array(straightened(shot.picture, found, size, reach_px=24, doubt_px=12).corners)
        shares.append(float(np.hypot(*(fitted - shot.corners(*size)).T).max()) / 2000)
    yield figure(
        "corners guessed: worst corner of a photograph, median, share of its longer side", float(np.median(shares)), 0.01, ""
    )
    yield figure("corners guessed: to be pulled (more than 1 % off)", float(np.mean(np.array(shares) > 0.01)), 0.35, "")


_PRINT = """
import resource, time
import numpy as np
from yarrow_lane.documents.true_size import true_size
from yarrow_lane.transfer.sheets import Printer, lay_on_sheets
laid = lay_on_sheets(800.0, 1000.0, "A4")
rng = np.random.default_rng(1)
small = rng.integers(0, 255, (250, 200, 3), dtype=np.uint8)
import cv2
whole = cv2.resize(small, (4000, 5000), interpolation=cv2.INTER_CUBIC)
def part(area):
    return whole[int(area.y * 5):int(area.bottom * 5), int(area.x * 5):int(area.right * 5)]
begin = time.process_time()
data = true_size("x", laid, (800.0, 1000.0), Printer(), False, (), part)
print(time.process_time() - begin, resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024, len(laid.sheets), len(data) / 1e6)
"""


def tiled() -> Iterator[str]:
    """A picture of 80 x 100 cm over sheets, in a process of its own."""
    said = subprocess.run([sys.executable, "-c", _PRINT], capture_output=True, text=True, check=True).stdout.split()
    seconds, memory, sheets, size = map(float, said)
    yield figure(f"print: 80 x 100 cm over {sheets:.0f} sheets of A4, {size:.0f} MB", seconds, 5, "s CPU")
    yield figure("print: its memory, the picture of 5 px per mm in it", memory, 500, "MB")
