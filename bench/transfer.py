"""Lines to draw, straightened photographs, proofs of drawings: against rendered sitters and a camera that knows the truth."""

import time
from collections.abc import Iterator

import cv2
import numpy as np

from bench.borders import on_canvas, share_covered, true_borders
from bench.drawings import drawing
from bench.figures import figure
from bench.transfer_marks import corners, marks, tiled
from yarrow_lane.canvas_photo.straight import canvas_of, straightened
from yarrow_lane.standins.camera import Taking, drawn_on, photograph
from yarrow_lane.transfer.lines.choice import Choice
from yarrow_lane.transfer.lines.drawing import lines_to_draw
from yarrow_lane.transfer.lines.outlines import Outlines
from yarrow_lane.transfer.proof.find import found_places
from yarrow_lane.transfer.question import find_lines

# dog2 (dusk) was never tuned on: its goal is what the worked-out design reached there.
_LEFT_OPEN = {"cat1": 0.20, "dog1": 0.30, "person1": 0.30, "rabbit1": 0.07, "dog2": 0.45}
_SHOTS, _DRAWINGS = 60, 4


def _lines() -> Iterator[str]:
    for name, goal in _LEFT_OPEN.items():
        canvas = on_canvas(name)
        begin = time.process_time()
        base = find_lines(canvas.picture, canvas.px_per_mm, canvas.circles, [canvas.rough])
        spent = time.process_time() - begin
        begin = time.process_time()
        lines = lines_to_draw(base, Choice(), canvas.size_mm, Outlines())
        pick = time.process_time() - begin
        open_ = 1 - share_covered(lines, true_borders(canvas), canvas.size_mm)
        yield figure(f"lines: {name}, borders without a line within 1.5 mm, rough outline, {len(lines)} lines", open_, goal, "")
        cut = find_lines(canvas.picture, canvas.px_per_mm, canvas.circles, [canvas.outline])
        own = lines_to_draw(cut, Choice(), canvas.size_mm, Outlines((canvas.outline,), (canvas.outline,)))
        open_ = 1 - share_covered(own, true_borders(canvas), canvas.size_mm)
        yield figure(f"lines: {name}, the same with the cut-out of one loop", open_, goal, "")
        yield figure(f"lines: {name}, built", spent, 5, "s CPU")
        yield figure(f"lines: {name}, the slider", pick, 0.2, "s CPU")


def _straight() -> Iterator[str]:
    rng = np.random.default_rng(77)
    errors, bulges, spent = [], [], 0.0
    for n in range(_SHOTS):
        size = ((400.0, 500.0), (500.0, 400.0), (300.0, 400.0), (1000.0, 800.0))[n % 4]
        ground = tuple(np.clip(rng.uniform(60, 235) + rng.normal(0, 18, 3), 20, 250))

        def draw(picture: np.ndarray, px: float, seed: int = n, size: tuple[float, float] = size) -> None:
            own = np.random.default_rng(seed)
            for _ in range(25):
                path = own.uniform(0, 1, (6, 2)) * np.array(size) * px
                cv2.polylines(picture, [path.astype(np.int32)], False, (60, 50, 45), max(1, int(px)), cv2.LINE_AA)

        shot = photograph(drawn_on(*size, 2.0, n, ground, draw), *size, 5000 + n, Taking(longer_px=1200))
        clicks = shot.corners(*size) + rng.normal(0, 1.5, (4, 2))
        begin = time.process_time()
        straight = straightened(shot.picture, clicks, size)
        spent += time.process_time() - begin
        x, y = np.meshgrid(np.linspace(0, size[0], 9), np.linspace(0, size[1], 11))
        places = np.stack([x.ravel(), y.ravel()], 1)
        errors.append(np.hypot(*(straight.mm(shot.px(places)) - places).T) / max(size) * 500)
        bulges.append(abs(straight.lens.bulge - shot.lens.bulge))
    every = np.concatenate(errors)
    yield figure(f"straight: {_SHOTS} photographs from clicks of 1.5 px, on 50 cm, median", float(np.median(every)), 0.35, "mm")
    yield figure("straight: 95 of 100 within", float(np.percentile(every, 95)), 1.0, "mm")
    yield figure("straight: bulge, median", float(np.median(bulges)), 0.0015, "")
    yield figure("straight: its time at 1 MP, mean", spent / _SHOTS, 0.5, "s CPU")


def _proof() -> Iterator[str]:
    for never, squares in ((0.0, 0.0), (0.2, 50.0)):
        errors, sure, spent = [], [], []
        for name in ("cat1", "person1", "rabbit1"):
            canvas = on_canvas(name)
            base = find_lines(canvas.picture, canvas.px_per_mm, canvas.circles, [canvas.outline])
            lines = lines_to_draw(base, Choice(), canvas.size_mm, Outlines((canvas.outline,), (canvas.outline,)))
            ruled = tuple(np.arange(squares, 500, squares)) if squares else ()
            for n in range(_DRAWINGS):
                flat, truth = drawing(canvas, lines, 900 + n, never, squares)
                begin = time.process_time()
                found = found_places(flat, 2.0, [line.points for line in lines], list(canvas.places.values()), (ruled, ruled))
                spent.append(time.process_time() - begin)
                if found is not None:
                    errors += np.hypot(*(np.array([f.at for f in found]) - truth).T).tolist()
                    sure += [f.sure for f in found]
        off, known = np.array(errors), np.array(sure)
        what = "a fifth never drawn, squares ruled" if never else "all drawn"
        yield figure(f"proof: {what}, places found without a click, median", float(np.median(off)), 0.7, "mm")
        yield figure(f"proof: {what}, more than 2 mm off", float((off > 2).mean()), 0.05, "")
        yield figure(
            f"proof: {what}, of the {known.mean():.0%} called sure, more than 2 mm off",
            float((off[known] > 2).mean()),
            0.05,
            "",
        )
        yield figure(f"proof: {what}, its time, mean", float(np.mean(spent)), 2, "s CPU")


def _large() -> Iterator[str]:
    canvas = drawn_on(800.0, 1000.0, 2.0, 4)
    shot = photograph(canvas, 800.0, 1000.0, 4, Taking(longer_px=5656))
    begin = time.process_time()
    straight = straightened(shot.picture, shot.corners(800.0, 1000.0), (800.0, 1000.0))
    canvas_of(shot.picture, straight, 1.0)
    yield figure("straight: 24 MP straightened and cut out", time.process_time() - begin, 2, "s CPU")


def measure() -> Iterator[str]:
    """A line a figure."""
    for part in (_lines, _straight, _proof, _large, corners, marks, tiled):
        yield from part()
