"""One area's own stack of coats: its state after each pass. What other areas do never changes it, so it can be kept whatever the order."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.flow.axis import Field
from yarrow_lane.layers.play.drawing import (
    Image,
    averaged_inside,
    blurred,
    draw,
    image_of,
    inside,
    lab_of,
    light_of,
    outside,
)
from yarrow_lane.layers.play.rules import Rule, rule_of
from yarrow_lane.layers.play.scene import PlayArea, Scene, drawn_lines
from yarrow_lane.layers.play.site import LONGEST_MM, Site
from yarrow_lane.layers.play.strokes import (
    Strokes,
    Tick,
    lab_to_srgb,
    nearest,
    sample,
    seeds,
    trace,
    unit,
    wells_of,
    with_halves,
)
from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_SHORTER = 0.85  # of the coat before: each lighter pass is shorter, so that only tips catch light (common practice)
_BANDS = 14
# A film's depth (red, green, blue) told as 30 times its mean and its red and blue beside green, and back.
_TOLD = 30 * np.array([[1 / 3, 1 / 3, 1 / 3], [1, -1, 0], [0, -1, 1]], np.float32)
_PLAIN = np.linalg.inv(_TOLD).astype(np.float32)
_WHISKER = (236, 232, 225)
_EDGE_MM, _HAIRLINE_MM = 0.4, 9.0  # outer hairs: times the hair's length from the background; hairline: mm from the hair


@dataclass(frozen=True)
class PlayCoat:
    """A pass as Play lays it: its step's role, nature and key, and the order of values ("dark", "middle", "light")."""

    key: str
    role: str
    nature: str
    word: str


@dataclass(frozen=True)
class Laid:
    """What a coat came to: strokes in mm (None of films and masks), share of the area covered, colours used (n, 3) sRGB, brush mm."""

    strokes: Strokes | None
    covered: float
    wells: NDArray[np.uint8]
    width: float


@dataclass(frozen=True)
class State:
    """An area after a coat: `image` sRGB and `alpha` (0 to 255) over `box` (x0, y0, x1, y1 px of the canvas raster)."""

    box: tuple[int, int, int, int]
    image: Image
    alpha: NDArray[np.uint8]
    laid: Laid


_NO_WELLS = np.zeros((0, 3), np.uint8)


class AreaStack:
    """Lays the coats of one area over the ground, one after the other."""

    def __init__(
        self, scene: Scene, area: PlayArea, ground: Image, overhang: bool = True, tick: Tick = lambda: None
    ) -> None:  # fmt: skip
        """`overhang`: whether tips may run over the outline, as they do where the background is there already."""
        self._at, self._overhang = Site(scene, area, tick), overhang
        self.image = ground[self._at.window].copy()
        self.alpha = np.zeros_like(self._at.rim)
        self._lengths: list[float] = []

    def lay(self, coat: PlayCoat, salt: int, tick: Tick) -> State:
        """One coat further; raises `PlayTrouble` when nothing is known of it."""
        if self._at.area.lines:
            laid = self._lines(coat)
        elif coat.nature in ("mask", "fix") or coat.role == "reserve":
            laid = Laid(None, 0.0, _NO_WELLS, 1.0)
        elif coat.role == "glint":
            laid = self._glints()
        else:
            role = "soften" if coat.role == "soften" else coat.role
            rule = rule_of(self._at.area.family, coat.word, role, coat.nature, self._at.inner_mm)
            laid = self._film(rule, tick) if rule.film else self._strokes(coat, rule, salt, tick)
        return State(self._at.box, self.image.copy(), self.alpha.copy(), laid)

    def _length(self, rule: Rule) -> float:
        if not self._at.area.hairy:
            return rule.length * rule.width
        length = min(max(rule.length * self._at.hair, 1.7 * rule.width), LONGEST_MM)
        return min(length, _SHORTER * self._lengths[-1]) if self._lengths else length

    def _strokes(self, coat: PlayCoat, rule: Rule, salt: int, tick: Tick) -> Laid:
        hairy, width, px, origin = self._at.area.hairy, rule.width, self._at.px, self._at.origin
        length = self._length(rule)
        chosen_only = rule.sign != "both"
        one = width * length * 0.75
        cell = float(np.sqrt(one / rule.cover)) * (0.6 if chosen_only else 0.72 if rule.cover <= 1.2 else 1)
        x0, y0, x1, y1 = (v / px for v in self._at.box)
        at, i, j = seeds((x0 - length, y0 - length, x1 + length, y1 + length), cell, salt)
        keep = sample(self._at.weight, at, px, origin) > 0.5
        if coat.role == "edge":
            keep &= sample(self._at.near(("background", "scene")), at, px, origin) < max(3, _EDGE_MM * self._at.hair)
        elif coat.role == "hairline":
            keep &= sample(self._at.near(("hair", "beard")), at, px, origin) < _HAIRLINE_MM
        at, i, j = at[keep], i[keep], j[keep]
        hair: Field = sample(self._at.scene.hair, at, px) / max(self._at.hair, 1) if hairy else np.ones(len(at), np.float32)
        lengths = np.asarray(length * np.clip(hair, 0.5, 1.8) * (0.7 + 0.5 * unit(i, j, salt + 2)), np.float32)
        wander = np.radians(18 if hairy else 70 if self._at.area.depth == 0 else 30)
        tick()
        points = trace(at, self._at.flow, lengths, np.asarray((unit(i, j, salt + 3) - 0.5) * wander, np.float32), tick)
        tick()
        target = self._at.target(rule)
        tick()
        wanted, reduce = averaged_inside(target, self._at.mask, width * px * (0.22 if chosen_only else 0.33), tick)
        tick()
        now = lab_of(
            np.asarray(cv2.resize(self.image, (wanted.shape[1], wanted.shape[0]), interpolation=cv2.INTER_AREA), np.uint8)
        )
        now = cv2.GaussianBlur(now, (0, 0), max(0.4, width * px * 0.4 / reduce))
        tick()
        middle = points[:, 1:4]
        weight = (sample(self._at.weight, middle, px, origin) > 0.5).astype(np.float32)[..., None] + 1e-3
        want = (sample(wanted, middle, px / reduce, origin) * weight).sum(1) / weight.sum(1)
        tick()
        have = (sample(now, middle, px / reduce, origin) * weight).sum(1) / weight.sum(1)
        goal = want
        if coat.role not in ("mass", "wash"):  # correct what is there, a third of the fault beyond
            goal = want + np.clip(want - have, -14, 14) * (0.25 if chosen_only else 0.35)
        tick()
        keep = self._worth(coat, rule, want, have, wanted, reduce, middle, unit(i, j, salt + 4), one)
        points, goal, i, j, lengths = points[keep], goal[keep], i[keep], j[keep], lengths[keep]
        tick()
        wells, board = self._board(target, goal, rule, chosen_only)
        tick()
        colour = nearest(goal.astype(np.float32), board)
        strokes = Strokes(
            points,
            width,
            colour,
            lab_to_srgb(board),
            self._turns(points, i, j, salt),
            lengths,
            hairy or self._at.area.family == "eye",
        )
        tick()
        image = self.image.copy()
        if coat.role == "mass":  # scrubbed thin first, so that no bare ground glitters between the strokes
            thin: Any = lab_to_srgb(wells)[nearest(wanted.reshape(-1, 3).astype(np.float32), wells)].reshape(
                *wanted.shape[:2], 3
            )
            thin = cv2.resize(thin, (image.shape[1], image.shape[0]), interpolation=cv2.INTER_LINEAR)
            image = self.image = np.asarray(cv2.addWeighted(thin, 0.7, image, 0.3, 0), np.uint8)
            image = image.copy()
            tick()
        soft = rule.mop >= 0.3
        bristles = 0.0 if soft or self._at.area.family == "eye" else 0.4 if self._at.area.family in ("skin", "earskin") else 1.0
        draw(image, strokes, px, origin, tick, bristles, not soft)
        tick()
        if rule.mop:
            image = self._mopped(image, rule.mop * width * px, tick)
        tick()
        self.image = (
            image
            if rule.opacity >= 1
            else np.asarray(cv2.addWeighted(image, rule.opacity, self.image, 1 - rule.opacity, 0), np.uint8)
        )
        if coat.role != "mass" and not hairy and self._at.area.depth > 0:
            self._reach_outline()
        self._show(strokes, coat.role)
        if hairy and len(lengths):
            self._lengths.append(float(lengths.mean()))
        laid = float(
            len(points) * width * (float(lengths.mean()) if len(lengths) else 0.0) * 0.85 / max(1e-6, self._at.cm2 * 100)
        )
        return Laid(strokes, float(1 - np.exp(-laid)), lab_to_srgb(wells), width)

    def _worth(
        self, coat: PlayCoat, rule: Rule, want: Field, have: Field, wanted: Field, reduce: int, middle: Field, chance: Field,
        one_mm2: float,
    ) -> NDArray[np.bool_]:  # fmt: skip
        """Which strokes are laid: all of a covering coat, else where the coat is most needed, until its cover is used up."""
        most = int(rule.cover * self._at.cm2 * 100 / one_mm2)
        lighter = want[:, 0] - have[:, 0]
        if rule.sign != "both":
            score = lighter if rule.sign == "lighter" else -lighter
            if coat.role == "tips" and rule.sign == "lighter":  # only what is light among its neighbours catches the light
                around = np.asarray(
                    cv2.GaussianBlur(np.ascontiguousarray(wanted[..., 0]), (0, 0), 4 * self._at.px / reduce), np.float32
                )
                beside = sample(around, middle[:, 1], self._at.px / reduce, self._at.origin)
                score = np.where((want[:, 0] > beside - 0.5) | (lighter > 5), score, -9)
            return _strongest(score, 1.2, most)
        if rule.cover <= 1.2:  # gaps stay where the layer beneath is right
            return _strongest(np.linalg.norm(want - have, axis=1) + 2.5 * chance, 2.2, most)
        return np.ones(len(want), bool)

    def _board(
        self, target: Field, goal: Field, rule: Rule, chosen_only: bool
    ) -> tuple[NDArray[np.float32], NDArray[np.float32]]:  # fmt: skip
        """The coat's few wells, and what is mixed of them on the board."""
        own = target.reshape(-1, 3)[self._at.some]
        wells = wells_of(np.asarray(goal if chosen_only and len(goal) else own, np.float32), rule.colours)
        board = with_halves(wells) if rule.colours > 3 else wells
        if rule.colours > 5 and rule.mop < 0.3 and len(own):
            low, high = float(own[:, 0].min()), float(own[:, 0].max())
            shades = [board * np.array([f, 1, 1], np.float32) for f in (1.0, 0.93, 1.06)]
            board = np.concatenate(shades)
            board[:, 0] = np.clip(board[:, 0], low, high)
        return wells, np.asarray(board, np.float32)

    def _turns(self, points: Field, i: NDArray[np.int64], j: NDArray[np.int64], salt: int) -> NDArray[np.int32]:
        """In which turn each stroke is painted: fur in bands that climb against the lie."""
        if self._at.height is None or not len(points):
            return (unit(i, j, salt + 5) * 4).astype(np.int32)
        height = sample(self._at.height, points[:, 2], 0.25)
        rank = np.argsort(np.argsort(-height, kind="stable"), kind="stable")
        return (rank * _BANDS // max(1, len(height))).astype(np.int32)

    def _mopped(self, image: Image, sigma: float, tick: Tick) -> Image:
        """Softened while wet, inside the area only."""
        soft, _ = averaged_inside(image, self._at.mask, sigma, tick)
        tick()
        height, width = self._at.mask.shape
        soft = cv2.resize(np.clip(soft, 0, 255).astype(np.uint8), (width, height), interpolation=cv2.INTER_LINEAR)
        return np.asarray(cv2.copyTo(soft, self._at.mask, image.copy()), np.uint8)

    def _reach_outline(self) -> None:
        """Paint reaches to the outline: no line of the drawing stays round an area."""
        rim = (self._at.mask == 0) & (self._at.rim > 0)
        whole = blurred(self.image.astype(np.float32) * self._at.weight[..., None], 1.2 * self._at.px)
        near = whole / np.maximum(blurred(self._at.weight, 1.2 * self._at.px), 0.02)[..., None]
        self.image[rim] = np.clip(near[rim], 0, 255)

    def _show(self, strokes: Strokes | None = None, role: str = "") -> None:
        self.alpha = np.maximum(self.alpha, self._at.rim)
        fine = strokes is not None and strokes.width < 4 and role in ("middle", "tips", "edge")
        if strokes is None or not fine or not self._at.area.hairy or not (self._overhang or role == "edge"):
            return
        tips, roots = strokes.points[:, -1], strokes.points[:, 0]
        over = (
            (sample(self._at.weight, tips, self._at.px, self._at.origin) < 0.5)
            & (sample(self._at.out, tips, self._at.px, self._at.origin) < min(5.0, 0.35 * self._at.hair))
            & (sample(self._at.inner, roots, self._at.px, self._at.origin) > 0.4)
        )
        if over.any():
            line = np.round((strokes.points[over] - np.array(self._at.origin, np.float32)) * (self._at.px * 16) - 8).astype(
                np.int32
            )
            cv2.polylines(self.alpha, list(line), False, (255,), 1, cv2.LINE_AA, 4)
            if strokes.width > 1:
                thick = max(1, round(strokes.width * self._at.px * 0.6))
                cv2.polylines(self.alpha, list(np.ascontiguousarray(line[:, :-1])), False, (255,), thick, cv2.LINE_AA, 4)

    def _film(self, rule: Rule, tick: Tick) -> Laid:
        """Glaze or wash: flat shapes of a few depths, darker only, over what is there."""
        sigma = max(0.5, rule.width * self._at.px * 0.5)
        whole = self._at.target(rule)
        tick()
        target, reduce = averaged_inside(whole, self._at.mask, sigma, tick)
        tick()
        lit = light_of(self.image)
        tick()
        state, _ = averaged_inside(lit, self._at.mask, sigma, tick)
        tick()
        rgb = np.clip(cv2.cvtColor(np.ascontiguousarray(target, np.float32), cv2.COLOR_LAB2RGB), 0, 1)
        wanted = inside(np.maximum(light_of((rgb * 255).astype(np.uint8)), 0.02))
        tick()
        depth = np.clip(np.log(wanted + 1e-3) - np.log(inside(np.maximum(state, 0.02)) + 1e-3), -rule.opacity, 0)
        depth = depth.astype(np.float32)
        tick()
        told: Any = cv2.transform(depth, _TOLD)
        mask = cv2.resize(self._at.mask, (depth.shape[1], depth.shape[0]), interpolation=cv2.INTER_NEAREST) > 0
        own = told[mask]
        own = own[:: max(1, len(own) // 3000)]
        if not len(own):
            return Laid(None, 0.0, _NO_WELLS, rule.width)
        # Depths are mixed as wells, told as value and two hues, each laid in up to three strengths.
        wells = wells_of(own, rule.colours)
        fine = with_halves(wells) if rule.colours > 4 else wells
        tick()
        which = nearest(told.reshape(-1, 3), fine)
        tick()
        plain: Any = cv2.transform(fine[None], _PLAIN)  # the wells as depths again, before they are spread over the area
        laid: Any = np.minimum(plain[0], 0)[which].reshape(depth.shape)
        tick()
        laid = cv2.GaussianBlur(laid, (0, 0), max(0.35, rule.mop * self._at.px / reduce))
        height, width = self._at.mask.shape
        if reduce > 1:
            laid = cv2.resize(laid, (width, height), interpolation=cv2.INTER_LINEAR)
        tick()
        through = inside(lit)
        tick()
        through = through * np.exp(laid)
        tick()
        through = outside(through)
        tick()
        self.image = image_of(through)
        self._show()
        return Laid(None, float((own[:, 0] < -0.03 * 30).mean()), _NO_WELLS, rule.width)

    def _glints(self) -> Laid:
        if self._at.glint is None:
            return Laid(None, 0.0, _NO_WELLS, 1.0)
        weight = self._at.glint[..., None]
        self.image = (self.image * (1 - weight) + self._at.scene.reference[self._at.window] * weight + 0.5).astype(np.uint8)
        self._show()
        return Laid(
            None,
            float((self._at.glint > 0.5).sum() / max(1, int(self._at.mask.sum()))),
            np.array([[255, 255, 250]], np.uint8),
            1.0,
        )

    def _lines(self, coat: PlayCoat) -> Laid:
        """Whiskers: single strokes over all that is there."""
        if coat.nature == "mask":
            return Laid(None, 0.0, _NO_WELLS, 1.0)
        lines = drawn_lines(self._at.area.lines)
        self.alpha[:] = 0
        self.image[:] = _WHISKER
        at = np.round((lines - np.array(self._at.origin, np.float32)) * (self._at.px * 16) - 8).astype(np.int32)
        cv2.polylines(self.alpha, list(at), False, (170,), 1, cv2.LINE_AA, 4)
        cv2.polylines(self.alpha, list(np.ascontiguousarray(at[:, :4])), False, (230,), 1, cv2.LINE_AA, 4)
        length = np.linalg.norm(np.diff(lines, axis=1), axis=2).sum(1).astype(np.float32)
        none = np.zeros(len(lines), np.int32)
        strokes = Strokes(lines, 0.5, none, np.array([_WHISKER], np.uint8), none, length, True)
        return Laid(strokes, 0.02, np.array([_WHISKER], np.uint8), 0.5)


def _strongest(score: Field, least: float, most: int) -> NDArray[np.bool_]:
    keep = score > least
    if keep.sum() > most > 0:
        keep &= score > np.partition(score, len(score) - most - 1)[len(score) - most - 1]
    return np.asarray(keep)


def stack(
    scene: Scene, area: PlayArea, ground: Image, coats: Sequence[PlayCoat], overhang: bool = True, tick: Tick = lambda: None
) -> tuple[State, ...]:  # fmt: skip
    """The area's states after each of its coats, in their order. Repeatable to the byte. Raises `PlayTrouble`."""
    laying = AreaStack(scene, area, ground, overhang, tick)
    states = []
    for n, coat in enumerate(coats):
        states.append(laying.lay(coat, 101 * area.id + 13 * n, tick))
        tick()
    return tuple(states)
