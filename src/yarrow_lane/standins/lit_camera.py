"""The camera stand-in with the faults that measuring colour meets: light from one side or a lamp close by, mixed colours of light, shine on
wet-looking paint, flare, a white balance and an exposure of its own, a tone curve, contrast that it lifts place by place, noise.

What is true of the photograph is known. All strengths are our choice, from rooms and telephones as they are.
"""

from dataclasses import dataclass, replace
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.check.greys import BAND_MM, BAND_SRGB, STEPS, STRIP_MM, groups_round, luminance_of_steps
from yarrow_lane.measure.colour.srgb import linear_from_srgb8, srgb8_from_linear
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.raster import Picture
from yarrow_lane.standins.camera import Pose, Shot, Taking, posed, seen_through

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Light = NDArray[Any]  # float32
_MARGIN_MM = STRIP_MM + 4
_PAPER = 0.86
_HIDDEN = 40.0  # a group with something dark before it
_GAP_MM, _ALONG_MM = 0.3, 1.5
_FEWER = 8  # what is smooth is worked out on so many px


@dataclass(frozen=True)
class Faults:
    """`stops` of light across, towards `way` (radians); `warm` and `tint` of the light, ln, `mixed` across towards `mixed_way`; `vignette`
    share at the frame's corner; `shine` added, of white, about `shine_at` (shares) over `shine_mm`; `lamp` how near a bare lamp is, canvas
    lengths, 0 for none; `flare` share; `balance` how much of the cast the camera takes out; `ev` exposure; `tone` strength of an S-curve;
    `local` contrast lifted place by place; `noise` of the sensor.
    """

    stops: float = 0.8
    way: float = 0.0
    warm: float = 0.05
    tint: float = 0.0
    mixed: float = 0.0
    mixed_way: float = 0.0
    vignette: float = 0.2
    shine: float = 0.0
    shine_at: tuple[float, float] = (0.5, 0.3)
    shine_mm: float = 18.0
    lamp: float = 0.0
    flare: float = 0.005
    balance: float = 0.6
    ev: float = 0.0
    tone: float = 0.15
    local: float = 0.0
    noise: float = 1.0


def drawn_faults(seed: int, **over: Any) -> Faults:
    """As they come together by chance."""
    rng = np.random.default_rng(seed)
    u = rng.uniform
    found = Faults(
        stops=u(0.3, 1.5), way=u(0, 2 * np.pi), warm=u(-0.18, 0.22), tint=u(-0.04, 0.04), mixed=u(-0.12, 0.12), mixed_way=u(0, 2 * np.pi),
        vignette=u(0.1, 0.35), shine=u(0.05, 0.2) if rng.random() < 0.5 else 0.0, shine_at=(u(0.15, 0.85), u(0.1, 0.6)),
        shine_mm=u(12, 25), flare=u(0.002, 0.012), balance=u(0.3, 0.9), ev=rng.normal(0, 0.2), tone=float(rng.choice([0.0, 0.15, 0.3])),
        noise=u(0.5, 2),
    )  # fmt: skip
    return replace(found, **over)


def _edge_px(px_per_mm: float) -> int:
    """The frame's width in whole px: the canvas begins where it truly does."""
    return round(_MARGIN_MM * px_per_mm)


def framed(canvas: Picture, size_mm: tuple[float, float], px_per_mm: float, covered: int = 0, seed: int = 0) -> Picture:
    """The canvas with the paper frame laid round it by hand, (H, W, 3); of its groups so many are `covered`."""
    rng = np.random.default_rng(seed)
    edge = _edge_px(px_per_mm)
    margin_mm = edge / px_per_mm
    height, width = canvas.shape[:2]
    wall = np.full((height + 2 * edge, width + 2 * edge, 3), rng.uniform(40, 90), np.float32)
    groups = groups_round(size_mm)
    hidden = set(rng.permutation(len(groups))[:covered].tolist())
    codes = srgb8_from_linear(np.append(luminance_of_steps(), _PAPER)).astype(float)
    w, h = size_mm
    # Each strip is pinned to its side by hand: hardly a gap, but some mm along it.
    for side, (dx, dy) in {"left": (-1, 0), "right": (1, 0), "top": (0, -1), "bottom": (0, 1)}.items():
        gap, along = rng.uniform(0, _GAP_MM), rng.uniform(-_ALONG_MM, _ALONG_MM)
        shift = dx * gap + abs(dy) * along, dy * gap + abs(dx) * along

        parts: list[tuple[Rect, float | tuple[int, int, int]]] = []
        for rim, value in ((STRIP_MM, float(codes[-1])), (BAND_MM, BAND_SRGB)):
            strip = Rect(-rim if dx < 0 else w, 0, rim, h) if dx else Rect(0, -rim if dy < 0 else h, w, rim)
            parts.append((strip, value))
        for number, group in enumerate(groups):
            if group.side == side:
                greys = [_HIDDEN if number in hidden else float(codes[n % len(STEPS)]) for n in range(len(group.squares))]
                parts += zip(group.squares, greys, strict=True)
        for rect, value in parts:
            left, top = rect.x + margin_mm + shift[0], rect.y + margin_mm + shift[1]
            rows = slice(round(top * px_per_mm), round((top + rect.height) * px_per_mm))
            columns = slice(round(left * px_per_mm), round((left + rect.width) * px_per_mm))
            wall[rows, columns] = value
    wall[edge : edge + height, edge : edge + width] = canvas
    return np.clip(wall, 0, 255).astype(np.uint8)


def photograph_lit(
    canvas: Picture, size_mm: tuple[float, float], seed: int, faults: Faults, taking: Taking | None = None, *, greys: bool = True,
    covered: int = 0,
) -> Shot:  # fmt: skip
    """Photograph the canvas (H, W, 3) sRGB, with the grey frame round it or without."""
    how, rng = taking or Taking(aside=9.0, bulge=0.03), np.random.default_rng(seed)
    px_per_mm = canvas.shape[1] / size_mm[0]
    pose = posed(size_mm, how, rng)
    edge = _edge_px(px_per_mm) / px_per_mm if greys else 0.0
    picture = framed(canvas, size_mm, px_per_mm, covered, seed) if greys else canvas
    codes = seen_through(
        picture, pose, (size_mm[0] + 2 * edge, size_mm[1] + 2 * edge), edge, rng, 0.0 if greys else how.depth_mm
    )
    light = linear_from_srgb8(np.clip(codes, 0, 255).astype(np.uint8))
    return pose.shot(_exposed(light, pose, size_mm, faults, rng))


def _exposed(light: Light, pose: Pose, size_mm: tuple[float, float], f: Faults, rng: np.random.Generator) -> Picture:
    height, width = light.shape[:2]
    y, x = np.mgrid[0:height:_FEWER, 0:width:_FEWER].astype(np.float64)
    mm = _canvas_mm(np.stack([x.ravel() + 0.5, y.ravel() + 0.5], 1), pose).reshape(*x.shape, 2)
    u, v = mm[..., 0] / size_mm[0] - 0.5, mm[..., 1] / size_mm[1] - 0.5
    across = (np.cos(f.way) * u + np.sin(f.way) * v) / (abs(np.cos(f.way)) + abs(np.sin(f.way)))
    if f.lamp:
        # A bare lamp, aside and before the canvas: light falls with the square of the distance and with the slant.
        aside = np.array([np.cos(f.way), np.sin(f.way)]) * 0.6
        away2 = (u - aside[0]) ** 2 + (v - aside[1]) ** 2 + f.lamp**2
        fall = f.lamp / away2**1.5
        lit = fall / fall.mean()
    else:
        lit = 2 ** (f.stops * across)
    mixed = f.mixed * (np.cos(f.mixed_way) * u + np.sin(f.mixed_way) * v)
    cast = np.stack([np.exp(f.warm + mixed), np.full_like(mixed, np.exp(f.tint)), np.exp(-f.warm - mixed)], -1)
    far = ((x - width / 2) ** 2 + (y - height / 2) ** 2) / ((width**2 + height**2) / 4)
    falls = 1 - f.vignette * far
    at = np.array(f.shine_at) * size_mm
    shine = f.shine * np.exp(-0.5 * ((mm - at) ** 2).sum(-1) / f.shine_mm**2) * falls
    on_canvas = ((np.abs(u) < 0.5) & (np.abs(v) < 0.5)).astype(np.float64)

    def wide(field: NDArray[np.float64]) -> Light:
        return np.asarray(cv2.resize(field.astype(np.float32), (width, height), interpolation=cv2.INTER_LINEAR))

    seen: Light = light * wide(lit[..., None] * cast * falls[..., None]) + wide(shine * on_canvas)[..., None]
    seen = seen + np.float32(f.flare) * seen.mean((0, 1))
    seen = cv2.GaussianBlur(seen, (0, 0), 0.8)
    mean = seen.mean((0, 1))
    seen = seen * ((mean.mean() / mean) ** f.balance).astype(np.float32)
    level = min(0.2 / float(seen.mean()) * 2**f.ev, 0.98 / float(np.percentile(seen[::8, ::8].max(-1), 98.5)))
    seen = seen * np.float32(level)
    grain = np.asarray(rng.standard_normal(seen.shape, dtype=np.float32))
    seen = seen + grain * np.sqrt(np.maximum(seen, 0) * np.float32(4e-4) + np.float32(3e-6)) * np.float32(f.noise)
    codes = srgb8_from_linear(np.clip(seen, 0, 1)).astype(np.float32) / 255
    codes = codes + np.float32(f.tone) * (codes * codes * (3 - 2 * codes) - codes)
    if f.local:
        # Telephones lift dark places and press bright ones, each by what lies round it.
        round_it = cv2.GaussianBlur(codes.mean(-1), (0, 0), width / 14)
        codes = codes * (1 + np.float32(f.local) * (0.45 - round_it))[..., None]
    return np.clip(codes * 255 + 0.5, 0, 255).astype(np.uint8)


def _canvas_mm(px: NDArray[np.float64], pose: Pose) -> NDArray[np.float64]:
    found = np.concatenate([pose.lens.straight(px), np.ones((len(px), 1))], 1) @ np.linalg.inv(pose.matrix).T
    return np.asarray(found[:, :2] / found[:, 2:])
