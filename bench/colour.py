"""Recipes, strings, glazes, calibration, value studies: figures of the colour engine. Simulated: no real paint was measured."""

import resource
import time
from collections.abc import Iterator

import cv2
import numpy as np
import skimage.data

from bench.colour_window import longest_block
from bench.figures import figure
from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.paint.calibration.strengths import Dab, learnt_strengths, with_strengths
from yarrow_lane.paint.calibration.swatches import Reading, own_curves, swatch
from yarrow_lane.paint.films.backwards import under_for
from yarrow_lane.paint.films.glaze import Glaze, GlazeTable, laid
from yarrow_lane.paint.kubelka_munk import from_outside, thick
from yarrow_lane.paint.paints import Paint, Paints
from yarrow_lane.paint.pigments.curves import curves
from yarrow_lane.paint.pigments.entries import WHITES, entries
from yarrow_lane.paint.recipes.solver import CLOSE, SIMPLE, Wish, solve
from yarrow_lane.paint.recipes.string import strung
from yarrow_lane.paint.recipes.table import RecipeTable, make_table
from yarrow_lane.paint.seen import lab_of
from yarrow_lane.standins.swatch_photo import true_paint
from yarrow_lane.tone.colours import colours_of
from yarrow_lane.tone.record import Tone
from yarrow_lane.tone.study import squinted, study

FOURTEEN = (
    "PW6", "PW6:1", "PY43", "PY37", "PO73", "PR108", "PR101", "PR122", "PBr7bs", "PBr7bu", "PB29", "PB15:3", "PG7", "PBk9",
)  # fmt: skip
_TEN = ("PW6", "PW6:1", "PY43", "PBr7bu", "PR122", "PB29", "PBr7bs", "PR108", "PB15:3", "PG7")


def _box(keys: tuple[str, ...], known: dict | None = None, doubt: float = 0.3) -> Paints:
    known = known or curves()
    return Paints.of([Paint(n, *known[k], k in WHITES, entries()[k].opacity, doubt) for n, k in enumerate(keys, 1)])


def _mixes(paints: Paints, count: int, rng: np.random.Generator) -> np.ndarray:
    """Random mixes of two to four tubes, strong ones in less, half of them with white."""
    out = np.zeros((count, len(paints)))
    for n in range(count):
        some = rng.choice(len(paints), rng.integers(2, 5), replace=False)
        out[n, some] = rng.dirichlet(np.ones(len(some))) / (paints.absorbing[some].mean(axis=1) + 0.15) ** 0.5
        out[n, 0] += (n % 2) * rng.uniform(0, 1) * out[n].sum()
    return out


def _recipes(table: RecipeTable, goals: np.ndarray) -> Iterator[str]:
    for name, wish, goal in (("simple", SIMPLE, 0.55), ("as close as can be", CLOSE, 0.2), ("three tubes", Wish(3), 0.65)):
        begin = time.process_time()
        found = [solve(table, g, wish) for g in goals]
        spent = (time.process_time() - begin) / len(goals)
        off = np.array([f.difference[0] for f in found])
        tubes = float(np.mean([(f.parts[0] > 0).sum() for f in found]))
        words = f"recipes, {name}: 200 reachable colours, {tubes:.1f} tubes, 90 of 100 within {np.percentile(off, 90):.2f}"
        yield figure(words, float(np.median(off)), goal, "dE00")
        yield figure(f"recipes, {name}: a solve", 1e3 * spent, 25, "ms CPU")


def _families() -> dict[str, np.ndarray]:
    """Strings of the design: through a local colour, duller towards dark and light."""

    def steps(middle: tuple[float, float, float], count: int, low: float, high: float) -> np.ndarray:
        lightness = np.linspace(low, high, count)
        dark = 0.55 + 0.45 * (lightness - 12) / (middle[0] - 12)
        light = 1 - 0.75 * np.clip((lightness - middle[0]) / (100 - middle[0]), 0, 1) ** 1.2
        strength = np.where(lightness < middle[0], dark, light) * np.clip((lightness - 12) / 30, 0.25, 1)
        return np.stack([lightness, middle[1] * strength, middle[2] * strength], 1)

    return {
        "skin": steps((55, 18, 20), 7, 26, 88), "dark skin": steps((38, 15, 19), 7, 22, 66), "orange fur": steps((52, 14, 28), 7, 26, 84),
        "hair": steps((40, 8, 12), 6, 24, 80), "orange cloth": steps((52, 35, 40), 5, 36, 78), "green eye": steps((45, -2, 25), 5, 28, 70),
        "violet": steps((51, 9, -10), 5, 26, 75), "grey": steps((75, 1, 3), 9, 24, 92),
    }  # fmt: skip


def _strings(table: RecipeTable) -> Iterator[str]:
    off, spent, tubes = [], [], []
    for goals in _families().values():
        begin = time.process_time()
        found = strung(table, goals)
        spent.append(time.process_time() - begin)
        off += list(found.difference)
        tubes.append(len({p.id for p in found.paints.all}))
    words = f"strings: 8 of 5 to 9 steps on {min(tubes)} to {max(tubes)} tubes, 90 of 100 within {np.percentile(off, 90):.2f}"
    yield figure(words, float(np.median(off)), 0.75, "dE00")
    yield figure("strings: the slowest of 8", max(spent), 0.3, "s CPU")


def _tables() -> Iterator[str]:
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    begin = time.process_time()
    table = make_table(_box(FOURTEEN))
    yield figure("tables of 14 tubes: built", time.process_time() - begin, 1.0, "s CPU")
    grown = (resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before) / 1024
    yield figure(
        f"tables of 14 tubes: {sum(g.size for g in table.groups):,} recipes, memory at most",
        max(grown, table.bytes / 2**20),
        70,
        "MB",
    )


def _glazes(table: RecipeTable, goals: np.ndarray) -> Iterator[str]:
    paints, rng = table.paints, np.random.default_rng(5)
    glazes = GlazeTable(paints)
    off, spent = [], 0.0
    for goal in goals[:100]:
        under = thick(*paints.mixed(solve(table, goal).parts[0]))
        wanted = glazes.over(under)[int(rng.integers(0, 2100))] + rng.normal(size=3) * 0.6
        begin = time.process_time()
        off.append(min(o.difference for o in glazes.towards(under, wanted)))
        spent += time.process_time() - begin
    yield figure("glazes: 100 wanted changes, the nearest", float(np.median(off)), 0.7, "dE00")
    yield figure("glazes: a search of 2,100", 10 * spent, 25, "ms CPU")
    off, spent = [], 0.0
    for n in range(100):
        glaze = Glaze((int(rng.integers(2, 14)),), float(rng.choice([0.03, 0.05, 0.075, 0.1])), 1)
        target = lab_of(from_outside(laid(paints, glaze, thick(*paints.mixed(solve(table, goals[(7 * n) % 200]).parts[0])))))
        begin = time.process_time()
        off.append(under_for(table, target, glaze).difference)
        spent += time.process_time() - begin
    yield figure(
        f"backwards: 100 planned glazes, 90 of 100 end within {np.percentile(off, 90):.2f}", float(np.median(off)), 0.6, "dE00"
    )
    yield figure("backwards: an underlayer", 10 * spent, 60, "ms CPU")


def _swatches(true: tuple, rng: np.random.Generator, noise: float = 0.04) -> list[Reading]:
    found = []
    for tint in (False, True):
        for over in ("white", "black"):
            seen = swatch(
                true,
                curves()["PW6"],
                tint,
                over,
                float(np.clip(0.3 + 0.12 * rng.normal(), 0, 0.8)),
                float(np.exp(0.25 * rng.normal())),
            )
            lab = lab_of(np.clip(seen * (1 + noise * rng.normal()), 1e-4, 1.2)) + rng.normal(size=3) * 0.6
            found.append(Reading(tint, over, tuple(float(v) for v in lab), 1.55))
    return found


def _calibration() -> Iterator[str]:
    rng, before, after, tinted, spent = np.random.default_rng(11), [], [], [], []
    known = _box(_TEN)
    for _ in range(6):
        true = {k: true_paint(curves()[k], rng) if k != "PW6" else curves()[k] for k in _TEN}
        own = {"PW6": curves()["PW6"]}
        for key in _TEN[1:]:
            begin = time.process_time()
            own[key] = own_curves(curves()[key], curves()["PW6"], _swatches(true[key], rng)).curves
            spent.append(time.process_time() - begin)
        parts = _mixes(known, 150, rng)
        slipped = np.where(parts > 0, parts * np.exp(0.09 * rng.normal(size=parts.shape)), 0)
        real = _box(_TEN, true).lab(slipped)
        before.append(difference(known.lab(parts), real))
        after.append(difference(_box(_TEN, own).lab(parts), real))
        strong = {k: (v[0] * 2.0, v[1]) if k not in WHITES else v for k, v in true.items()}
        wide = _box(_TEN, doubt=0.5)
        dabs = []
        for column in (2, 4, 5):
            tint = np.eye(len(_TEN))[column] + 10 * np.eye(len(_TEN))[0]
            dabs.append(Dab(tint, tuple(_box(_TEN, strong).lab(tint) + rng.normal(size=3)), 1.5))
        taught = with_strengths(wide, learnt_strengths(wide, dabs))
        real = _box(_TEN, strong).lab(parts)
        tinted.append(
            (float(np.median(difference(wide.lab(parts), real))), float(np.median(difference(taught.lab(parts), real))))
        )
    b, a = np.concatenate(before), np.concatenate(after)
    words = f"simulated: all tubes off 30 %, parts by eye; generic {np.median(b):.2f}, every tube read (90 of 100 within {np.percentile(a, 90):.2f})"
    yield figure(words, float(np.median(a)), 1.6, "dE00")
    first, then = np.median(np.array(tinted), axis=0)
    yield figure(
        f"simulated: all tubes twice as strong and off 30 %; generic {first:.2f}, three tints",
        float(then),
        0.6 * float(first),
        "dE00",
    )
    yield figure("reading a tube's four swatches", 1e3 * float(np.median(spent)), 130, "ms CPU")


def _studies() -> Iterator[str]:
    for name, picture in (("cat", skimage.data.chelsea()), ("astronaut", skimage.data.astronaut())):
        side = cv2.resize(picture[:, : round(picture.shape[0] * 0.8)], (1280, 1600), interpolation=cv2.INTER_CUBIC)
        begin = time.process_time()
        squint = squinted(colours_of(side, 1280 / 400), 3.0)
        for count in (3, 5, 7):
            study(squint, Tone(count=count))
        spent = time.process_time() - begin
        yield figure(f"values: {name} on 40 x 50 cm in 3, 5 and 7", spent, 0.3, "s CPU")


def measure() -> Iterator[str]:
    """Every figure of the issue."""
    cv2.setNumThreads(1)
    yield from _tables()
    table = make_table(_box(FOURTEEN))
    goals = table.paints.lab(_mixes(table.paints, 200, np.random.default_rng(1)))
    yield from _recipes(table, goals)
    yield from _strings(table)
    yield from _glazes(table, goals)
    yield from _calibration()
    yield from _studies()
    yield from longest_block()
