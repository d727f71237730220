"""What holds for one area of Play whatever is laid on it: its pixels, its ways, its hair, its reference without glints."""

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.flow.axis import Field
from yarrow_lane.layers.play.drawing import blurred, lab_of
from yarrow_lane.layers.play.rules import Rule
from yarrow_lane.layers.play.scene import PlayArea, Scene, anchors
from yarrow_lane.layers.play.strokes import Tick
from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import cv2
    import scipy.fft as fft
else:
    cv2 = late("cv2")
    fft = late("scipy.fft")

LONGEST_MM = 45.0
_SOME = 1500


class Site:
    """One area on the canvas raster. Fields are over `box` (x0, y0, x1, y1 px); `px` per mm; lengths mm."""

    def __init__(self, scene: Scene, area: PlayArea, tick: Tick = lambda: None) -> None:
        self.scene, self.area, self.px = scene, area, scene.scale
        mask = scene.labels == area.id
        if area.lines:
            mask = np.zeros(scene.labels.shape, bool)
            at = np.clip((np.concatenate([np.asarray(line) for line in area.lines]) * self.px).astype(int), 0, None)
            mask[np.minimum(at[:, 1], mask.shape[0] - 1), np.minimum(at[:, 0], mask.shape[1] - 1)] = True
        ys, xs = np.nonzero(mask)
        if not len(ys):
            ys = xs = np.array([0])
        pad = int((14 if area.hairy else 4) * self.px)
        height, width = mask.shape
        x0, y0 = max(0, int(xs.min()) - pad), max(0, int(ys.min()) - pad)
        self.box = (x0, y0, min(width, int(xs.max()) + pad + 1), min(height, int(ys.max()) + pad + 1))
        self.window = np.s_[self.box[1] : self.box[3], self.box[0] : self.box[2]]
        self.origin = (x0 / self.px, y0 / self.px)
        self.mask = mask[self.window].astype(np.uint8)
        self.weight = self.mask.astype(np.float32)
        inside = np.flatnonzero(self.mask)
        self.some = inside[:: max(1, len(inside) // _SOME)]  # pixels that stand for all of it
        self.cm2 = float(mask.sum()) / self.px**2 / 100
        depth = cv2.distanceTransform(np.pad(self.mask, 1), cv2.DIST_L2, 3)[1:-1, 1:-1]
        self.inner, self.inner_mm = np.asarray(depth, np.float32) / self.px, max(0.5, float(depth.max()) / self.px)
        self.out = np.asarray(cv2.distanceTransform(1 - self.mask, cv2.DIST_L2, 3), np.float32) / self.px
        tick()
        self.lab = lab_of(scene.reference[self.window])
        tick()
        self.anchors = dict(zip(("lo", "mid", "hi"), anchors(scene), strict=True))
        self.hair = self._hair()
        self.quiet, self.glint = self._without_glint()
        tick()
        self.rim = self._grown()
        tick()
        self.flow = self._ways()
        tick()
        self.height = self._climb() if area.hairy else None
        tick()

    def _hair(self) -> float:
        inside_ = cv2.resize(self.mask, (max(1, self.mask.shape[1] // 2), max(1, self.mask.shape[0] // 2)))
        hair = self.scene.hair[self.window]
        some = cv2.resize(hair, inside_.shape[::-1], interpolation=cv2.INTER_NEAREST)[inside_ > 0]
        return float(np.clip(np.median(some), 3.0, LONGEST_MM)) if some.size else 10.0

    def _without_glint(self) -> tuple[Field, Field | None]:
        """The reference with glints painted out, which are kept for the end, and where they lie."""
        if not self.area.glints:
            return self.lab, None
        dots = np.zeros(self.mask.shape, np.uint8)
        for (x, y), r in self.area.glints:
            at = round((x - self.origin[0]) * self.px), round((y - self.origin[1]) * self.px)
            cv2.circle(dots, at, int(r * self.px * 1.3) + 1, (1,), -1)
        filled = cv2.inpaint(np.ascontiguousarray(self.scene.reference[self.window]), dots, 3, cv2.INPAINT_TELEA)
        return lab_of(np.asarray(filled, np.uint8)), blurred(dots.astype(np.float32), 0.6) * (self.mask > 0)

    def _grown(self) -> NDArray[np.uint8]:
        small = self.area.family in ("eye", "nose", "mouth")
        grow = 0.0 if self.area.family == "eye" else 2.0 if self.area.depth == 0 else 1.0
        mask: Any = self.mask
        if grow:
            mask = cv2.dilate(mask, np.ones((int(2 * grow * self.px) + 1,) * 2, np.uint8))
        return (blurred(mask.astype(np.float32), (0.5 if small else 0.8) * self.px) * 255).astype(np.uint8)

    def _ways(self) -> Field:
        """1 px per mm over the whole canvas: the lie of the fur, round and out of the iris, or along the form, across the change of value."""
        scene, area = self.scene, self.area
        if area.hairy:
            return scene.flow
        rows, columns = scene.flow.shape[:2]
        if area.iris is not None:
            (cx, cy), r = area.iris
            x, y = np.meshgrid(np.arange(columns) + 0.5 - cx, np.arange(rows) + 0.5 - cy)
            away = np.hypot(x, y) + 0.3
            out = np.dstack([x / away, y / away])
            around = np.dstack([-out[..., 1], out[..., 0]])
            return np.where((away < r)[..., None], out, around).astype(np.float32)
        grey = cv2.resize(cv2.cvtColor(scene.reference, cv2.COLOR_RGB2GRAY), (columns, rows), interpolation=cv2.INTER_AREA)
        soft = blurred(grey.astype(np.float32), 2.5)
        gx, gy = cv2.Sobel(soft, cv2.CV_32F, 1, 0), cv2.Sobel(soft, cv2.CV_32F, 0, 1)
        wide = 8 if area.family in ("background", "scene", "skin", "earskin") else 4
        turn = 0.5 * np.arctan2(blurred(2 * gx * gy, wide), blurred(gx * gx - gy * gy, wide)) + np.pi / 2
        ways = np.dstack([np.cos(turn), np.sin(turn)])
        ways[ways[..., 1] < 0] *= -1  # a hand draws downwards
        return ways.astype(np.float32)

    def _climb(self) -> Field:
        """A height that grows along the lie: what is highest lies lowest on the coat and is painted first. One cosine transform."""
        flow = cv2.resize(self.scene.flow, None, fx=0.25, fy=0.25, interpolation=cv2.INTER_AREA)
        rise = np.zeros(flow.shape[:2])
        rise[:, :-1] += flow[:, :-1, 0]
        rise[:, 1:] -= flow[:, :-1, 0]
        rise[:-1] += flow[:-1, :, 1]
        rise[1:] -= flow[:-1, :, 1]
        rows, columns = rise.shape
        bends = 2 * np.cos(np.pi * np.arange(rows) / rows)[:, None] + 2 * np.cos(np.pi * np.arange(columns) / columns) - 4
        bends[0, 0] = 1
        found = fft.dctn(rise, norm="ortho") / bends
        found[0, 0] = 0
        return np.asarray(fft.idctn(found, norm="ortho"), np.float32)

    def near(self, families: Sequence[str]) -> Field:
        """mm from areas of those families."""
        ids = [a.id for a in self.scene.areas if a.family in families]
        other = np.isin(self.scene.labels[self.window], ids).astype(np.uint8)
        return np.asarray(cv2.distanceTransform(1 - other, cv2.DIST_L2, 3), np.float32) / self.px

    def target(self, rule: Rule) -> Field:
        """The reference as this coat may show it: values drawn in towards the anchor, colour held back."""
        if rule.tone >= 1 and rule.chroma >= 1:
            return self.quiet
        tone, chroma = min(rule.tone, 1.0), min(rule.chroma, 1.0)
        drawn_in = [[tone, 0, 0, self.anchors[rule.anchor] * (1 - tone)], [0, chroma, 0, 0], [0, 0, chroma, 0]]
        return np.asarray(cv2.transform(self.quiet, np.array(drawn_in, np.float32)), np.float32)
