"""Check: borders, planted faults found and told falsely, what the light hides, the list's steadiness, time and memory.

Two sets: the one that limits were set on, and one made after that with other sitters, another hand, a lamp close by and a camera that lifts
its contrast place by place. `BENCH_FEW=1` runs a quarter of everything.
"""

import os
import subprocess
import sys
import time
from collections.abc import Iterator
from dataclasses import dataclass, field
from multiprocessing import get_context
from multiprocessing.pool import Pool

import numpy as np
from tests.rooms.check.judging import Score, areas_of, measured_of, true_moves
from tests.rooms.check.planting import Painted, Sitter, painted, photo_of, sitter

from bench.figures import figure
from yarrow_lane.canvas_photo.borders import fitted_borders
from yarrow_lane.canvas_photo.straight import straightened
from yarrow_lane.check.ranking import Fault, ranked
from yarrow_lane.measure.colour.cielab import lab_from_linear, linear_from_lab
from yarrow_lane.measure.colour.srgb import linear_from_srgb8, srgb8_from_linear
from yarrow_lane.standins.camera import Taking

TUNED = (
    ("dog1", 1, "strokes"), ("person1", 2, "strokes"), ("cat1", 3, "dabs"), ("astronaut", 4, "strokes"), ("dog1", 6, "dabs"),
    ("person1", 7, "strokes"), ("cat1", 8, "strokes"), ("astronaut", 9, "dabs"),
)  # fmt: skip
HELD = (
    ("dog2", 21, "dabs"), ("rabbit1", 22, "strokes"), ("coffee", 23, "dabs"), ("cat", 24, "dabs"), ("dog2", 26, "strokes"),
    ("rabbit1", 27, "dabs"), ("coffee", 28, "strokes"), ("cat", 29, "strokes"),
)  # fmt: skip
# What the held-out photographs have that no tuned one had, in turn.
_HARDER = ({"lamp": 0.9}, {"local": 0.35}, {"lamp": 1.3, "local": 0.25}, {"shine": 0.2})
_SMALL = Taking(aside=9.0, bulge=0.03, longer_px=2400, blur=(0.5, 0.9))


def _beside() -> Pool:
    """Two processes begun anew: a fork of one that has used OpenCV's threads may wait for ever."""
    return get_context("spawn").Pool(2)


@dataclass
class _Case:
    """One painting measured in three ways."""

    scores: dict[str, Score] = field(default_factory=dict)
    moves: list[tuple[float, float]] = field(default_factory=list)
    agree: list[float] = field(default_factory=list)  # two pairs of photographs, shine found between them
    alone: list[float] = field(default_factory=list)  # two single ones


def _measured(case: tuple[str, int, str, bool]) -> _Case:
    import cv2

    cv2.setNumThreads(1)
    name, seed, hand, held = case
    p = painted(name, seed, hand=hand)
    over = [_HARDER[(seed + k) % len(_HARDER)] if held else {} for k in range(4)]
    photos = [photo_of(p, seed * 10 + k, k < 2, **over[k]) for k in range(4)]
    found = _Case()
    for how, some in (("greys", photos[:2]), ("none", photos[2:])):
        m = measured_of(p, some)
        found.scores[how] = Score({})
        found.scores[how].add(p, m)
        if how == "greys":
            _, truth = true_moves(p)
            found.moves = [
                (float(np.hypot(*truth[k.name])), float(np.hypot(k.right - truth[k.name][0], k.down - truth[k.name][1])))
                for k in m.moved
            ]
    more = [photo_of(p, seed * 10 + k, True, **over[k % 4]) for k in (4, 5)]
    for agree, sets in ((found.agree, (photos[:2], more)), (found.alone, (photos[:1], photos[1:2]))):
        lists = [ranked(measured_of(p, some), areas_of(p), p.sitter.places, p.sitter.size_mm) for some in sets]
        agree += [_first_three(*lists), _first_three(*reversed(lists))]
    return found


def _first_three(one: tuple[Fault, ...], other: tuple[Fault, ...]) -> float:
    """Share of the first three that are among the other's first five."""
    return float(np.mean([any(_same(f, g) for g in other[:5]) for f in one[:3]])) if one else 1.0


def _same(f: Fault, g: Fault) -> bool:
    near = np.hypot(f.at[0] - g.at[0], f.at[1] - g.at[1]) < max(18.0, 0.6 * max(f.mm, g.mm))
    return bool(near and set(f.kinds) & set(g.kinds))


def _set_figures(words: str, cases: tuple[tuple[str, int, str], ...], held: bool) -> Iterator[str]:
    with _beside() as pool:
        found = pool.map(_measured, [(*c, held) for c in cases], chunksize=1)
    for how, most in (("greys", 0.06), ("none", 0.15)):
        planted: dict[float, list[bool]] = {}
        told = false = 0
        for case in found:
            score = case.scores[how]
            told, false = told + score.told, false + score.false
            for size, hits in score.planted.items():
                planted.setdefault(size, []).extend(hits)
        said = "with the frame" if how == "greys" else "without greys"
        if how == "greys":
            yield figure(f"{words}: planted 10 found {said}", float(np.mean(planted[10.0])), 0.95, "", True)
            yield figure(f"{words}: planted 6 found {said}", float(np.mean(planted[6.0])), 0.65, "", True)
            yield figure(f"{words}: planted 15 found {said}", float(np.mean(planted[15.0])), 0.95, "", True)
        yield figure(f"{words}: false clumps {said}, of {told}", false / max(1, told), most, "")
    far = [off for size, off in (m for case in found for m in case.moves) if 6 <= size <= 10.5]
    yield figure(f"{words}: moves of 6 to 10 told, median error of {len(far)}", float(np.median(far)), 0.4, "mm")
    for name, rows in (
        ("of two photographs each", [a for c in found for a in c.agree]),
        ("of one each", [a for c in found for a in c.alone]),
    ):
        yield figure(f"{words}: first three in the other's five, {name}", float(np.mean(rows)), 0.9, "", True)


def _border(seed: int) -> tuple[float, float, float, float]:
    import cv2

    cv2.setNumThreads(1)
    s = sitter(("dog1", "person1", "cat1", "astronaut", "dog2", "rabbit1", "coffee", "cat")[seed % 8])
    p = Painted(s, s.picture, (), (), np.zeros((*s.picture.shape[:2], 2), np.float32))
    grid = np.stack(np.meshgrid(*(np.linspace(0, side, 9) for side in s.size_mm)), -1).reshape(-1, 2)
    row = []
    for greys in (False, True):
        f = photo_of(p, 1000 + seed, greys, Taking(aside=9.0, bulge=0.03, longer_px=3000, blur=(0.5, 0.9)))
        found = fitted_borders(f.picture, straightened(f.picture, f.corners, s.size_mm))
        off = np.hypot(*(found.mm(f.shot.px(grid)) - grid).T)
        row += [float(np.median(off)), float(off.max())]
    return tuple(row)


def _borders(many: int) -> Iterator[str]:
    with _beside() as pool:
        rows = np.array(pool.map(_border, range(many), chunksize=4))
    yield figure(f"borders of {many} photographs, median", float(np.median(rows[:, 0])), 0.06, "mm")
    yield figure("borders, 95 of 100 photographs' worst place", float(np.percentile(rows[:, 1], 95)), 0.2, "mm")
    yield figure("borders, worst place of all", float(rows[:, 1].max()), 0.2, "mm")
    yield figure("borders with the frame pinned by hand, median", float(np.median(rows[:, 2])), 0.06, "mm")
    yield figure("borders with the frame, worst place of all", float(rows[:, 3].max()), 0.2, "mm")


def _off_whole(s: Sitter, number: int | None, by: float) -> Painted:
    """A picture that is off evenly, all of it or one region."""
    lab = lab_from_linear(linear_from_srgb8(s.picture))
    share = np.ones(s.regions.shape) if number is None else (s.regions == number).astype(float)
    picture = srgb8_from_linear(
        np.maximum(linear_from_lab(lab + share[..., None] * np.array([by, 0, 0])), 0).astype(np.float32)
    )
    return Painted(s, picture, (), (), np.zeros((*s.picture.shape[:2], 2), np.float32))


def _hidden(case: tuple[str, int | None, int]) -> tuple[str, float, float]:
    """The share of an even fault of 8 that was not seen, against the same photograph of a painting without it; and as foretold."""
    import cv2

    cv2.setNumThreads(1)
    name, number, seed = case
    s = sitter(name)
    seen, foretold = [], 0.0
    for by in (8.0, 0.0):
        p = _off_whole(s, number, by)
        m = measured_of(p, [photo_of(p, seed, True, _SMALL, shine=0.0)])
        wanted = 0 if number is None else number + 1
        seen.append(next(a.value for a in m.areas if a.area_id == wanted))
        shares = {h.area_id: h.share for h in m.hidden}
        foretold = max(shares.values()) if number is None else shares[wanted]
    return name, 1 - (seen[0] - seen[1]) / 8.0, foretold


def _hiding(many: int) -> Iterator[str]:
    cases = [
        (name, number, 500 + n)
        for n in range(many)
        for name, number in (("dog1", None), ("person1", None), ("dog1", 2), ("person1", 7))
    ]
    with _beside() as pool:
        found = pool.map(_hidden, cases, chunksize=1)
    whole = [f[1] for f, c in zip(found, cases, strict=True) if c[1] is None]
    some = [f[1] for f, c in zip(found, cases, strict=True) if c[1] is not None]
    yield figure("fault of the whole hidden with the frame", float(np.mean(whole)), 0.03, "")
    yield figure("fault of body or skin hidden with the frame", float(np.mean(some)), 0.03, "")


_ONE = """
import sys, time
import numpy as np
from tests.rooms.check.planting import painted, photo_of, jpeg, NEAR
from tests.rooms.check.judging import areas_of
from dataclasses import replace
from pathlib import Path
from yarrow_lane.check.question import PhotoFile, measure_painting
import cv2
cv2.setNumThreads(1)
path, saved = Path(sys.argv[1]), Path(sys.argv[2])
import pickle
p, corners, size = pickle.loads(saved.read_bytes())
photo = PhotoFile(path, "easel.jpg", size, tuple(map(tuple, corners.tolist())))
areas = areas_of(p)
measure_painting([photo], p.sitter.picture, p.sitter.size_mm, areas, p.sitter.places, None)  # loads what a worker has loaded
begin = time.process_time()
found = measure_painting([photo], p.sitter.picture, p.sitter.size_mm, areas, p.sitter.places, None)
spent = time.process_time() - begin
peak = next(line for line in Path("/proc/self/status").read_text().splitlines() if line.startswith("VmHWM"))
print(spent, int(peak.split()[1]) / 1024, len(found.colour) + len(found.moved))
"""


def _cost() -> Iterator[str]:
    import pickle
    import tempfile
    from pathlib import Path

    from tests.rooms.check.planting import jpeg

    p = painted("dog1", 1)
    f = photo_of(p, 11, True, Taking(aside=9.0, bulge=0.03, longer_px=5660, blur=(0.8, 1.4)))
    height, width = f.picture.shape[:2]
    with tempfile.TemporaryDirectory() as folder:
        path, saved = Path(folder, "easel.jpg"), Path(folder, "case")
        path.write_bytes(jpeg(f.picture))
        saved.write_bytes(pickle.dumps((p, f.corners, (width, height))))
        out = subprocess.run(
            [sys.executable, "-c", _ONE, str(path), str(saved)], capture_output=True, text=True, check=True,
            env={**os.environ, "OPENBLAS_NUM_THREADS": "1", "OMP_NUM_THREADS": "1"},
        ).stdout  # fmt: skip
    spent, memory, lines = (float(v) for v in out.split()[-3:])
    yield figure(f"{width * height / 1e6:.0f} MP photograph to {lines:.0f} lines, CPU", spent, 2.5, "s")
    yield figure("memory of the worker", memory, 400, "MB")


def measure() -> Iterator[str]:
    """All figures."""
    few = bool(os.environ.get("BENCH_FEW"))
    begin = time.time()
    yield from _cost()
    yield from _borders(25 if few else 100)
    yield from _hiding(3 if few else 8)
    yield from _set_figures("tuned", TUNED[:3] if few else TUNED, False)
    yield from _set_figures("held out", HELD[:3] if few else HELD, True)
    yield f"took {time.time() - begin:.0f} s"
