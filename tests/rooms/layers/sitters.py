"""The made-up sitters on a canvas: picture, marks, and the regions a painter would name, with the true lie of their fur."""

import json
from dataclasses import dataclass
from functools import cache
from importlib import resources

import cv2
import numpy as np

from yarrow_lane.layers.proposing.marks import SitterMarks

CANVAS = {"cat1": (400, 500), "dog1": (375, 500), "person1": (416, 500), "rabbit1": (500, 400)}
KIND = {"cat1": "cat", "dog1": "dog", "person1": "person", "rabbit1": "rabbit"}
_MARKS = {
    "top_of_head": "crown", "chin": "chin", "nose_tip": "nose tip", "mouth_corner_viewer_left": "left mouth corner",
    "mouth_corner_viewer_right": "right mouth corner", "ear_tip_viewer_left": "left ear tip", "ear_tip_viewer_right": "right ear tip",
}  # fmt: skip
PX = 2.0


@dataclass(frozen=True)
class Sitter:
    """`truth` holds an index into `names` at each px of the raster of 2 px per mm; names are the viewer's."""

    picture: np.ndarray
    truth: np.ndarray
    names: list[str]
    marks: SitterMarks
    facts: dict
    mm: tuple[int, int]

    def mask(self, *names: str) -> np.ndarray:
        return np.isin(self.truth, [self.names.index(n) for n in names if n in self.names])


def _file(name: str) -> bytes:
    return resources.files("yarrow_lane.demo").joinpath(f"sitters/sitter-{name}").read_bytes()


def _majority(labels, sigma, count):
    best, out = np.full(labels.shape, -1, np.float32), labels.copy()
    for n in range(count):
        soft = cv2.GaussianBlur((labels == n).astype(np.float32), (0, 0), sigma) + 1e-4 * (labels == n)
        out[soft > best] = n
        best = np.maximum(best, soft)
    return out


def _filled(labels, hole):
    _, near = cv2.distanceTransformWithLabels(hole.astype(np.uint8), cv2.DIST_L2, 3, labelType=cv2.DIST_LABEL_PIXEL)
    lookup = np.zeros(int(near.max()) + 1, labels.dtype)
    lookup[near[~hole]] = labels[~hole]
    return lookup[near]


@cache
def sitter(name: str, with_mask: bool = True) -> Sitter:
    """Load one; whiskers and hair gaps belong to what lies around them, lids to the eye, as a painter would draw it."""
    image = cv2.imdecode(np.frombuffer(_file(f"{name}.jpg"), np.uint8), 1)[..., ::-1]
    region = cv2.imdecode(np.frombuffer(_file(f"{name}-regions.png"), np.uint8), 0)
    facts = json.loads(_file(f"{name}.json"))
    size = tuple(round(v * PX) for v in CANVAS[name])
    scale = size[0] / image.shape[1]
    picture = np.ascontiguousarray(cv2.resize(image, size, interpolation=cv2.INTER_AREA))
    region = cv2.resize(region, size, interpolation=cv2.INTER_NEAREST)
    person = KIND[name] == "person"
    names = (
        ["background", "skin", "hair", "cloth"] if person else ["background", "head", "body", "left ear", "right ear", "nose"]
    )
    legend = {0: 0, 7: 1, 8: 2, 9: 3} if person else {0: 0, 1: 1, 2: 2, 3: 3, 5: 5}
    truth = np.full(region.shape, 255, np.uint8)
    for number, place in legend.items():
        truth[region == number] = place
    truth = _majority(_filled(truth, truth == 255), 1.2 * PX, len(names))
    points = {k: (p["x"] * scale, p["y"] * scale) for k, p in facts["points"].items() if p["visible"] or k == "top_of_head"}
    if not person:
        count, pieces, stats, _ = cv2.connectedComponentsWithStats((truth == 3).astype(np.uint8))
        for n in range(1, count):
            places = np.argwhere(pieces == n)[:, ::-1]
            away = {
                s: np.hypot(*(places - points[f"ear_tip_viewer_{s}"]).T).min()
                for s in ("left", "right")
                if f"ear_tip_viewer_{s}" in points
            }
            small = stats[n, 4] < 25 * PX**2 or not away
            truth[pieces == n] = 1 if small else 3 if min(away, key=away.get) == "left" else 4
    eyes = {}
    for viewer, eye in facts["eyes"].items():
        if eye["visible"]:
            side = viewer.removeprefix("viewer_")
            eyes[side] = (eye["x"] * scale, eye["y"] * scale, eye["iris_radius"] * scale)
            names.append(f"{side} eye")
            labels = (4,) if person else (4, 10)
            near = np.hypot(*(np.indices(truth.shape)[::-1] - np.array(eyes[side][:2])[:, None, None])) < 2.2 * eyes[side][2]
            opening = cv2.morphologyEx(
                (np.isin(region, labels) & near).astype(np.uint8), cv2.MORPH_CLOSE, np.ones((5, 5), np.uint8)
            )
            truth[opening > 0] = len(names) - 1
    marks = SitterMarks(
        KIND[name], eyes, {_MARKS[k]: p for k, p in points.items() if k in _MARKS}, truth > 0 if with_mask else None, 1, "Pet"
    )
    return Sitter(picture, truth, names, marks, facts, CANVAS[name])


def true_lie(s: Sitter, shape: tuple[int, int]):
    """The renderer's own direction of fur, root to tip, and where it is known, on a grid of that shape."""
    grid = s.facts["fur_grid"]
    plane = {k: np.array(grid[k], np.float32).reshape(grid["rows"], grid["cols"]) for k in ("dir_x", "dir_y", "coverage")}
    x, y, cover = (cv2.resize(plane[k], shape[::-1], interpolation=cv2.INTER_LINEAR) for k in ("dir_x", "dir_y", "coverage"))
    size = np.hypot(x, y)
    return x / np.maximum(size, 1e-6), y / np.maximum(size, 1e-6), (cover > 0.6) & (size > 0.5)


def own(name: str) -> str:
    """The viewer's name as the sitter's own."""
    first, _, rest = name.partition(" ")
    return f"{ {'left': 'right', 'right': 'left'}[first] } {rest}".strip() if first in ("left", "right") else name
