"""A camera over a swatch card, simulated: paints that differ from the table, a tone curve, a white balance, light from one side, noise."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.colour.cielab import linear_from_lab
from yarrow_lane.measure.colour.srgb import srgb8_from_linear
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.raster import Picture
from yarrow_lane.paint.calibration.swatches import swatch
from yarrow_lane.paint.kubelka_munk import Spectra
from yarrow_lane.paint.pigments.building import K_BUMPS, S_BUMPS, bent
from yarrow_lane.paint.seen import lab_of
from yarrow_lane.palette.card import FRAME_MM, HEIGHT_MM, USUAL_STEPS, WIDTH_MM, step_rects, swatch_rect

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_SCALE = 6.0  # px per mm of the card as it is drawn before it is photographed
Curves = tuple[Spectra, Spectra]


@dataclass(frozen=True)
class Shot:
    """How it is photographed: exposure, white balance of red and blue, light fall-off across, contrast of the tone curve, noise (codes)."""

    exposure: float = 0.85
    balance: tuple[float, float] = (1.08, 0.92)
    falls_off: float = 0.12
    curve: float = 0.25
    noise: float = 1.2
    tilt: float = 0.03


def true_paint(remembered: Curves, rng: np.random.Generator, off: float = 0.3) -> Curves:
    """A tube as it might really be: strength and shape off the remembered ones."""
    by = np.concatenate([off * rng.normal() + 0.6 * off * rng.normal(size=K_BUMPS), 0.6 * off * rng.normal(size=S_BUMPS)])
    return bent(*remembered, by)


def card_picture(tubes: Sequence[Curves], white: Curves, steps: Sequence[float] = USUAL_STEPS) -> NDArray[np.float64]:
    """The painted card in linear light, (H, W, 3)."""
    card = np.full((round(HEIGHT_MM * _SCALE), round(WIDTH_MM * _SCALE), 3), 0.86)
    edge = round(FRAME_MM * _SCALE)
    for part in (card[:edge], card[-edge:], card[:, :edge], card[:, -edge:]):
        part[:] = 0.02

    def fill(rect: Rect, colour: NDArray[np.float64]) -> None:
        x, y, w, h = (round(v * _SCALE) for v in (rect.x, rect.y, rect.width, rect.height))
        card[y : y + h, x : x + w] = colour

    for rect, lightness in zip(step_rects(len(steps)), steps, strict=True):
        fill(rect, linear_from_lab(np.array([lightness, 0.0, 0.0])))
    for n, curves in enumerate(tubes):
        for tint in (False, True):
            for over in ("white", "black"):
                seen = lab_of(swatch(curves, white, tint, over))
                fill(swatch_rect(n, tint, over), np.maximum(linear_from_lab(seen), 0.0))
    return card


def photographed(card: NDArray[np.float64], shot: Shot, rng: np.random.Generator) -> Picture:
    """The card on a dark table as a camera hands it over, sRGB."""
    height, width = card.shape[:2]
    across = np.linspace(1 + shot.falls_off / 2, 1 - shot.falls_off / 2, width)[None, :, None]
    light = card * across * shot.exposure * np.array([shot.balance[0], 1.0, shot.balance[1]])
    margin = round(0.12 * width)
    size = (width + 2 * margin, height + 2 * margin)
    corners = np.array([[0, 0], [width, 0], [width, height], [0, height]], np.float32)
    moved = corners + margin + (rng.uniform(-shot.tilt, shot.tilt, (4, 2)) * width).astype(np.float32)
    there = cv2.getPerspectiveTransform(corners, moved.astype(np.float32))
    # The table is a middle brown: the card's dark frame stands out from it.
    table = np.broadcast_to(np.array([0.20, 0.16, 0.12]) * shot.exposure, (size[1], size[0], 3)).copy()
    scene = cv2.warpPerspective(light, there, size, flags=cv2.INTER_AREA)
    inside = cv2.warpPerspective(np.ones((height, width)), there, size)[..., None]
    seen = np.clip(scene * inside + table * (1 - inside), 0, 1)
    codes = srgb8_from_linear(seen).astype(np.float64) / 255
    bent_codes = codes + shot.curve * codes * (1 - codes) * (codes - 0.5) * 2
    return np.asarray(np.clip(255 * bent_codes + rng.normal(0, shot.noise, bent_codes.shape), 0, 255), np.uint8)
