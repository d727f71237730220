"""A simulated painter who corrects regions by strokes, the costliest fault first, with a hand that is not steady.

It knows the truth and picks the place that costs most; its lines follow the truth but for the wobble. Real hands need a little more.
"""

from dataclasses import dataclass, field

import cv2
import numpy as np

from yarrow_lane.layers.raster import labels_of
from yarrow_lane.layers.regions import Layers, LayersTrouble
from yarrow_lane.layers.strokes.drawing import draw_anew, draw_part, give_enclosed, name_piece
from yarrow_lane.layers.strokes.pieces import Pieces
from yarrow_lane.measure.plane import Rect

STEADY_MM, STEADY_SMALL_MM = 0.8, 0.35
_LEAST_MM2 = 60.0


@dataclass
class Corrected:
    """How it went: strokes used, and the overlap (IoU) of each region at the end."""

    strokes: int = 0
    overlaps: dict[str, float] = field(default_factory=dict)
    layers: Layers = field(default_factory=Layers)


def overlaps_of(labels, truth, of) -> dict[str, float]:
    """IoU by name; `of` maps a name to (true label, region id)."""
    found = {}
    for name, (true, region) in of.items():
        a, b = labels == region, truth == true
        union = float((a | b).sum())
        found[name] = float((a & b).sum()) / union if union else 1.0
    return found


def _wobbled(mask, sd_px, rng):
    """The outline of a mask as a hand would draw it: wandering by `sd_px`."""
    contours, _ = cv2.findContours(mask.astype(np.uint8), cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_NONE)
    line = max(contours, key=cv2.contourArea)[:, 0].astype(float) + 0.5
    count = len(line)
    knots = max(4, count // 24)
    wander = rng.normal(size=(knots, 2)) * sd_px
    at = np.linspace(0, knots, count, endpoint=False)
    smooth = np.stack([np.interp(at, np.arange(knots + 1), np.r_[wander[:, k], wander[:1, k]]) for k in (0, 1)], 1)
    return line + smooth


def _worst(labels, truth, of, failing):
    """The wrong piece that costs most, of the failing regions while there are any: (loss, name it should be, name it is, mask)."""
    best = None
    region_name = {region: name for name, (_, region) in of.items()}
    for name, (true, region) in of.items():
        size = float((truth == true).sum())
        wrong = (truth == true) & (labels != region)
        count, pieces, stats, _ = cv2.connectedComponentsWithStats(wrong.astype(np.uint8), connectivity=4)
        for n in np.argsort(-stats[1:, 4])[:2] + 1 if count > 1 else ():
            piece = pieces == n
            is_now = region_name.get(int(np.bincount(labels[piece]).argmax()), "")
            other = float((truth == of[is_now][0]).sum()) if is_now in of else np.inf
            if not is_now or (failing and not {name, is_now} & failing):
                continue
            loss = stats[n, 4] / size + stats[n, 4] / other
            if best is None or loss > best[0]:
                best = (loss, name, is_now, piece)
    return best


def correct(
    layers: Layers, truth, of, canvas: Rect, pieces: Pieces, seed: int, most: int = 14, unsteady: float = 1.0, least=0.85, mean=0.92
) -> Corrected:  # fmt: skip
    """Stroke until every region overlaps by `least` and all by `mean`, or `most` strokes are drawn."""
    rng = np.random.default_rng(seed)
    scale, size = pieces.px_per_mm, (truth.shape[1], truth.shape[0])
    done, tried = Corrected(layers=layers), []
    of = dict(of)
    while True:
        labels = labels_of({r.id: r.rings for r in done.layers.regions if r.rings}, size, scale)
        done.overlaps = overlaps_of(labels, truth, of)
        values = list(done.overlaps.values())
        if (min(values) >= least and np.mean(values) >= mean) or done.strokes >= most:
            return done
        failing = {n for n, v in done.overlaps.items() if v < least}
        worst = _worst(labels, truth, of, failing)
        if worst is None:
            return done
        _, name, is_now, piece = worst
        done.strokes += 1
        try:
            done.layers = _stroke(done, of, labels, truth, name, is_now, piece, canvas, pieces, rng, unsteady, tried)
        except LayersTrouble:
            continue


def _stroke(done, of, labels, truth, name, is_now, piece, canvas, pieces, rng, unsteady, tried):
    scale = pieces.px_per_mm
    small = [n for n in (name, is_now) if n and ("eye" in n or n == "nose")]
    small = small or [n for n in (name, is_now) if "ear" in n and done.overlaps.get(n, 1) < 0.8]
    if of[name][1] == 0 and not small:
        small = [name]
    if small:
        part = small[0]
        sd = (STEADY_SMALL_MM if "ear" not in part else STEADY_MM) * unsteady * scale
        line = _as_mm(_wobbled(truth == of[part][0], sd, rng), scale)
        if of[part][1] == 0:
            kind = "eye" if "eye" in part else "nose" if part == "nose" else "fur"
            changed = draw_part(done.layers, line, kind, canvas)
            of[part] = (of[part][0], changed.next_id - 1)
            return changed
        return draw_anew(done.layers, of[part][1], line, canvas)
    alike = {"head", "body", "left ear", "right ear"}
    again = any(t == name and (m & piece).sum() > 0.3 * piece.sum() for t, m in tried)
    if again or {name, is_now} <= alike:
        grown = cv2.morphologyEx(piece.astype(np.uint8), cv2.MORPH_OPEN, np.ones((3, 3), np.uint8)) > 0
        line = _as_mm(_wobbled(grown if grown.any() else piece, STEADY_MM * unsteady * scale, rng), scale)
        return give_enclosed(done.layers, of[name][1], line, canvas)
    tried.append((name, piece))
    return name_piece(done.layers, pieces, _middle_stroke(piece, rng, scale), of[name][1], canvas)


def _as_mm(line, scale):
    return tuple((float(x), float(y)) for x, y in line / scale)


def _middle_stroke(piece, rng, scale):
    """A short stroke along the middle of the piece, half its length, at its thickest."""
    depth = cv2.distanceTransform(np.pad(piece.astype(np.uint8), 1), cv2.DIST_L2, 5)[1:-1, 1:-1]
    y, x = np.unravel_index(depth.argmax(), depth.shape)
    r = depth[y, x]
    core = (depth > 0.45 * r) & piece
    _, joined = cv2.connectedComponents(core.astype(np.uint8))
    places = np.argwhere(joined == joined[y, x])[:, ::-1].astype(float)
    middle = places.mean(0)
    axis = np.linalg.svd(places[:: max(1, len(places) // 2000)] - middle, full_matrices=False)[2][0]
    along = (places - middle) @ axis
    low, high = np.quantile(along, 0.2), np.quantile(along, 0.8)
    line = []
    for v in np.linspace(low, high, 7):
        near = places[np.abs(along - v) < max(2.0, (high - low) / 10)]
        if len(near):
            line.append(near[depth[near[:, 1].astype(int), near[:, 0].astype(int)].argmax()])
    line = np.array(line if len(line) > 1 else [[x, y], [x + 1, y]], float)
    return _as_mm(line + 0.5 + rng.normal(size=line.shape) * min(0.5 * scale, r / 4), scale)
