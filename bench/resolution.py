"""What resolves of a photograph, on pictures the constants were not fitted on."""

import itertools
import math
import statistics
import time
from collections.abc import Iterator

import cv2
import numpy as np
import skimage.data

from bench.degraded import AREA, CUBIC, LANCZOS, LINEAR, harms, hidden_harms, kept, sized
from bench.figures import figure
from yarrow_lane.demo.sitter_files import sitter_file
from yarrow_lane.intake.copies import difference_hash
from yarrow_lane.intake.detail import FULL
from yarrow_lane.intake.evidence import measure_photo
from yarrow_lane.intake.opening import open_whole
from yarrow_lane.intake.photos import Eye, Photo
from yarrow_lane.intake.ranking import rank
from yarrow_lane.intake.resolution.enlarged import enlarged
from yarrow_lane.intake.resolution.usable import usable, usable_at

_SHRUNK = 0.4  # so that nearly all pixels of a rendered sitter resolve
_TIMES = 5


def grey(picture: np.ndarray) -> np.ndarray:
    return cv2.cvtColor(np.ascontiguousarray(picture), cv2.COLOR_RGB2GRAY)


def bases() -> dict[str, np.ndarray]:
    """Two real photographs and two rendered sitters, none of them fitted on."""
    found = {"cat": skimage.data.cat(), "coffee": skimage.data.coffee()}
    for name in ("person1", "rabbit1"):
        found[name] = sized(open_whole(sitter_file(name).jpeg, name), _SHRUNK, AREA)
    return found


def measure() -> Iterator[str]:
    """Error, order, false praise, originals against their copies, time."""
    errors, soft, right, pairs, hidden, all_right, all_pairs = [], [], 0, 0, [], 0, 0
    for base in bases().values():
        own = usable(grey(base))
        assert own is not None
        widths = []
        for harm in harms():
            picture = harm.make(base)
            seen = usable(grey(picture))
            if seen is None:
                continue
            truth = min(1.0, harm.share * own.share)
            errors.append(abs(math.log(seen.share / truth)))
            if harm.share < 0.5:
                soft.append(seen.share >= FULL)
            widths.append((truth * picture.shape[1], seen.share * picture.shape[1]))
        more, missed = in_order(widths)
        pairs, right = pairs + more, right + more - missed
        for harm in hidden_harms():
            picture = harm.make(base)
            seen = usable(grey(picture))
            if seen is None:
                continue
            truth = min(1.0, (harm.share or kept(base, picture)) * own.share)
            hidden.append((harm.name, math.log(seen.share / truth)))
            widths.append((truth * picture.shape[1], seen.share * picture.shape[1]))
        more, missed = in_order(widths)
        all_pairs, all_right = all_pairs + more, all_right + more - missed
    yield figure(f"error of the share, median of {len(errors)}", statistics.median(errors), 0.10, "of its logarithm")
    yield figure("the same, 90th percentile", float(np.percentile(errors, 90)), 0.35, "of its logarithm")
    yield figure(f"pairs out of order, of {pairs} more than a tenth apart", 100 * (1 - right / pairs), 2, "%")
    yield figure(f"called full though under half resolves, of {len(soft)}", 100 * statistics.mean(soft), 3, "%")
    yield figure(
        f"pairs out of order with movement, sharpening and denoisers, of {all_pairs}", 100 * (1 - all_right / all_pairs), 4, "%"
    )
    for name in dict.fromkeys(name for name, _ in hidden):
        values = [value for n, value in hidden if n == name]
        yield figure(
            f"seen more than is there, {name}, median of {len(values)}", statistics.median(values), 0.35, "of the logarithm"
        )
    yield from _originals()
    yield from _time()


def in_order(widths: list[tuple[float, float]]) -> tuple[int, int]:
    """Of (true, found) widths: pairs whose truths are more than a tenth apart, and how many of them are found the wrong way round."""
    apart = [(x, y) for x, y in itertools.combinations(widths, 2) if abs(math.log(x[0] / y[0])) > 0.1]
    return len(apart), sum((x[0] > y[0]) != (x[1] > y[1]) for x, y in apart)


def _originals() -> Iterator[str]:
    eyes = {
        "cat": (Eye("left", 171, 116, 32), Eye("right", 318, 137, 24.5)),
        "person1": tuple(Eye(e.side, e.x * _SHRUNK, e.y * _SHRUNK, e.radius_px * _SHRUNK) for e in sitter_file("person1").eyes),
        "rabbit1": tuple(Eye(e.side, e.x * _SHRUNK, e.y * _SHRUNK, e.radius_px * _SHRUNK) for e in sitter_file("rabbit1").eyes),
    }
    lost = count = 0
    for name, marked in eyes.items():
        base = bases()[name]
        original = Photo("original", "original", base.shape[1], base.shape[0], eyes=marked, shot=difference_hash(base))
        shown = {"original": measure_photo(base, marked)}
        for times, how in itertools.product((2.0, 3.0, 3.9), (LINEAR, CUBIC, LANCZOS, cv2.INTER_NEAREST)):
            copy = sized(base, times, how)
            moved = tuple(Eye(e.side, e.x * times, e.y * times, e.radius_px * times) for e in marked)
            count += 1
            enlargement = Photo("copy", "copy", copy.shape[1], copy.shape[0], eyes=moved, shot=difference_hash(copy))
            best = rank((enlargement, original), shown | {"copy": measure_photo(copy, moved)})[0]
            lost += best.photo_id == "copy"
    yield figure(f"enlarged copies ranked above their original, of {count}", lost, 0, "copies")


def _time() -> Iterator[str]:
    threads = cv2.getNumThreads()
    cv2.setNumThreads(1)
    large = grey(cv2.resize(skimage.data.astronaut(), (6000, 4000), interpolation=cv2.INTER_CUBIC))
    large = np.clip(large + np.random.default_rng(1).normal(0, 4, large.shape), 0, 255).astype(np.uint8)
    found = []
    for _ in range(_TIMES):
        begin = time.thread_time()
        usable(large)
        usable_at(large, Eye("left", 2390, 793, 40))
        enlarged(large)
        found.append(time.thread_time() - begin)
    cv2.setNumThreads(threads)
    yield figure("24 MP, whole and eye, one core", statistics.median(found), 0.3, "s CPU")
