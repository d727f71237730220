"""Drawings a hand might have made of the lines: off as a whole, wrong at some places, wobbly, with gaps, dark or light, ruled or not."""

from collections.abc import Sequence

import cv2
import numpy as np

from bench.borders import OnCanvas
from yarrow_lane.canvas_photo.straight import canvas_of, straightened
from yarrow_lane.standins.camera import Taking, photograph
from yarrow_lane.transfer.lines.line import Line

PX = 3.0  # of the drawn canvas, px per mm


def drawing(
    canvas: OnCanvas, lines: Sequence[Line], seed: int, never: float = 0.0, squares_mm: float = 0.0
) -> tuple[np.ndarray, np.ndarray]:
    """The straightened photograph of one (2 px per mm), and where each place of the canvas truly lies on it, mm.

    Planted: a similarity (2.5 mm, 0.8 %, 0.7 degrees) and one to three places pushed 3 to 10 mm. `never` is the share of lines that
    nobody drew.
    """
    rng = np.random.default_rng(seed)
    places = np.array(list(canvas.places.values()))
    middle = places.mean(0)
    turn, grow, shift = np.radians(rng.normal(0, 0.7)), 1 + rng.normal(0, 0.008), rng.normal(0, 2.5, 2)
    pushes = []
    for n in rng.choice(len(places), rng.integers(1, 4), replace=False):
        way = rng.uniform(0, 2 * np.pi)
        pushes.append((places[n], rng.uniform(3, 10) * np.array([np.cos(way), np.sin(way)]), rng.uniform(22, 40)))

    def moved(points: np.ndarray) -> np.ndarray:
        spin = np.array([[np.cos(turn), -np.sin(turn)], [np.sin(turn), np.cos(turn)]])
        found = grow * (points - middle) @ spin.T + middle + shift
        for at, by, reach in pushes:
            found = found + np.exp(-0.5 * ((points - at) ** 2).sum(1, keepdims=True) / reach**2) * by
        return found

    ground, ink = ((135, 105, 80), (240, 240, 235)) if rng.random() < 0.35 else ((195, 170, 140), (50, 50, 55))
    drawn = [moved(np.array(line.points)) for line in lines if rng.random() >= never]
    picture = _drawn(drawn, canvas.size_mm, ground, ink, squares_mm, rng)
    shot = photograph(picture, *canvas.size_mm, 7000 + seed, Taking(longer_px=2000))
    clicks = shot.corners(*canvas.size_mm) + rng.normal(0, 1.5, (4, 2))
    return canvas_of(shot.picture, straightened(shot.picture, clicks, canvas.size_mm), 2.0), moved(places)


def _drawn(
    lines: list[np.ndarray], size: tuple[float, float], ground: tuple, ink: tuple, squares_mm: float, rng: np.random.Generator
) -> np.ndarray:  # fmt: skip
    height, width = round(size[1] * PX), round(size[0] * PX)
    y, x = np.mgrid[:height, :width] / PX
    tone = cv2.GaussianBlur(rng.standard_normal((height, width)).astype(np.float32), (0, 0), 8 * PX) * 8 * PX * 2.5
    canvas = np.array(ground, np.float32) + (tone + 2.5 * np.sin(2 * np.pi * x / 0.8) * np.sin(2 * np.pi * y / 0.8))[..., None]
    stroke = np.zeros((height, width), np.float32)
    for line in lines:
        for begin in range(0, len(line) - 3, 40):
            if rng.random() < 0.15:
                continue
            part = line[begin : begin + 40 + rng.integers(0, 8)]
            wobble = cv2.GaussianBlur(rng.standard_normal((len(part), 2)), (1, 31), 0) * 1.2
            path = part + wobble + rng.normal(0, 0.25, 2)
            thick = max(1, round(rng.uniform(0.5, 1.0) * PX))
            cv2.polylines(
                stroke, [np.rint(path * PX * 16).astype(np.int32)], False, float(rng.uniform(0.45, 0.95)), thick, cv2.LINE_AA, 4
            )
    for at in np.arange(squares_mm, max(size), squares_mm) if squares_mm else ():
        place = round(at * PX)
        cv2.line(stroke, (place, 0), (place, height), 0.7, 2, cv2.LINE_AA)
        cv2.line(stroke, (0, place), (width, place), 0.7, 2, cv2.LINE_AA)
    grain = np.clip(0.75 + 0.5 * rng.standard_normal((height, width)), 0.2, 1).astype(np.float32)
    share = cv2.GaussianBlur(stroke * grain, (0, 0), 0.25 * PX)[..., None]
    return np.clip(canvas * (1 - share) + share * np.array(ink, np.float32), 0, 255).astype(np.uint8)
