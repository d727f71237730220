"""The axis of the fur at each place, with its doubt: structure tensors at two scales and four windows, put together by what each knows.

Lightness only. Markings are taken out first, else stripes would be read as fur; noise is measured and counted; what a window says is
weighed by the number of independent samples in it, measured, since blur makes neighbours alike.
"""

from dataclasses import dataclass
from typing import TYPE_CHECKING, Any, cast

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.measure.progress import SILENT, Progress

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Field = NDArray[Any]  # float32

GRID_MM = 1.0
_SCALES_MM = (0.3, 0.6)  # of the derivative: coarser ones made it worse in the trials
_WINDOWS_MM = (16.0, 8.0, 4.0, 2.0)
_FIRST_MM = 1.0
_TURN_DEG = 5.0  # how much the lie really changes between windows, expected (trials)
_FLOOR_DEG = 2.0
_SAMPLES = 2.8  # independent gradient samples in a window of one correlation length squared, calibrated on white noise (trials)
_MARKINGS_MM = 2.0
_TEXTURE = 0.5  # L* per px at 2.5 px per mm: less is smooth, and has no lie to read (trials)
_MOST_DOUBT = 52.0  # degrees of an axis that is anyhow: the spread of equal chances
SURE_DEG, UNSURE_DEG = 8.0, 14.0  # shown as sure below, as a guess above (trials)


@dataclass(frozen=True)
class Axis:
    """On a grid of about 1 mm, all (rows, columns).

    `angle` rad, 0 to pi, x to the right and y down; `doubt` the expected error in degrees; `texture` how strong hair is seen, 1 just
    enough; `coherent` 0 to 1, how much of what is seen runs one way. `px_mm` is the grid's step.
    """

    angle: Field
    doubt: Field
    texture: Field
    coherent: Field
    px_mm: float


def noise_of(lightness: Field) -> float:
    """Standard deviation of the noise, L*: a robust form of Immerkaer's difference of Laplacians (CVIU 64, 1996)."""
    kernel = np.array([[1, -2, 1], [-2, 4, -2], [1, -2, 1]], np.float32)
    rest = np.abs(cv2.filter2D(lightness, -1, kernel))[2:-2, 2:-2]
    return float(np.median(rest) / 0.6745 / 6) if rest.size else 0.0


def without_markings(lightness: Field, px_per_mm: float, noise: float) -> Field:
    """Hair without stripes and patches: what a guided filter of 2 mm leaves out (He, Sun, Tang, 2010)."""
    reach = max(1, round(_MARKINGS_MM * px_per_mm))
    size = (2 * reach + 1, 2 * reach + 1)

    def mean(a: Field) -> Field:
        return np.asarray(cv2.blur(a, size, borderType=cv2.BORDER_REFLECT), np.float32)

    middle = mean(lightness)
    spread = mean(lightness * lightness) - middle * middle
    gain = spread / (spread + 20 + 4 * noise * noise)  # grows with noise: a fixed one read noise as hair
    rest = middle - gain * middle
    return np.asarray(lightness - (mean(gain) * lightness + mean(rest)), np.float32)


def axis_of(lightness: Field, px_per_mm: float, mask: NDArray[np.bool_], progress: Progress = SILENT) -> Axis:
    """The axis inside a mask, L* and mask (height, width).

    The mask should stay a mm away from silhouettes, eyes and collars: their edges are stronger than hair.
    """
    noise = noise_of(lightness)
    detail = without_markings(lightness, px_per_mm, noise)
    step = max(1, round(GRID_MM * px_per_mm))
    weight = mask.astype(np.float32)
    tensors = [_tensor(detail, px_per_mm, scale, step, noise, weight) for scale in _SCALES_MM]
    progress.at(0.4)
    cap = 1 / np.deg2rad(2 * _TURN_DEG) ** 2 / 2
    real = imaginary = coherent = None
    for n, window in enumerate(_WINDOWS_MM):
        along, across, known, runs = _window(tensors, window, px_per_mm / step)
        if real is None or imaginary is None:
            real, imaginary = known * along, known * across
        else:
            before = np.hypot(real, imaginary) + 1e-9
            prior = np.minimum(before, cap) / before
            real, imaginary = prior * real + known * along, prior * imaginary + known * across
        if window == 4.0:
            coherent = runs
        progress.at(0.4 + 0.15 * (n + 1))
    assert real is not None and imaginary is not None and coherent is not None
    knows = np.hypot(real, imaginary)
    angle = (0.5 * np.arctan2(imaginary, real) + np.pi / 2) % np.pi
    doubt = np.minimum(np.rad2deg(0.5 / np.sqrt(knows + 1e-6)), _MOST_DOUBT)
    doubt = np.sqrt(doubt**2 + _FLOOR_DEG**2)
    energy = sum(np.maximum(t.energy - t.floor, 0) for t in tensors)
    texture = np.sqrt(energy) * (px_per_mm / 2.5) / _TEXTURE
    planes = [np.asarray(a, np.float32) for a in (angle, doubt, texture, coherent)]
    return Axis(planes[0], planes[1], planes[2], planes[3], step / px_per_mm)


@dataclass(frozen=True)
class _Tensor:
    """Sums over a mm on the grid: `a`, `b` the doubled angle, `e` its size, `w` the weights; `floor` what noise alone gives."""

    a: Field
    b: Field
    e: Field
    w: Field
    energy: Field
    curl: Field
    floor: float
    width_mm: float
    px_mm: float


def _blurred(a: Field, sigma: float) -> Field:
    if sigma <= 0.3:
        return a
    return np.asarray(cv2.GaussianBlur(a, (0, 0), sigma, borderType=cv2.BORDER_REFLECT), np.float32)


def _reduced(a: Field, sigma: float, step: int) -> Field:
    """Blurred by sigma px and taken every `step` px."""
    height, width = a.shape[:2]
    size = ((width + step - 1) // step, (height + step - 1) // step)
    return _blurred(np.asarray(cv2.resize(a, size, interpolation=cv2.INTER_AREA), np.float32), sigma / step)


def _tensor(detail: Field, px_per_mm: float, scale_mm: float, step: int, noise: float, mask: Field) -> _Tensor:
    sigma = max(scale_mm * px_per_mm, 0.7)
    soft = _blurred(detail, sigma)
    gx = cv2.Scharr(soft, cv2.CV_32F, 1, 0, scale=1 / 32)
    gy = cv2.Scharr(soft, cv2.CV_32F, 0, 1, scale=1 / 32)
    energy = gx * gx + gy * gy
    floor = 2 * noise**2 / (8 * np.pi * sigma**4)  # gradient energy of white noise after that blur
    wide = 3 * _FIRST_MM * px_per_mm
    usual: Field = _reduced(energy * mask, wide, step) / np.maximum(_reduced(mask, wide, step), 0.02)
    usual = cv2.resize(usual, (detail.shape[1], detail.shape[0]), interpolation=cv2.INTER_LINEAR)
    weight = mask / (energy + 0.5 * usual + floor + 1e-4)  # so that one strong edge does not outvote many hairs
    first = _FIRST_MM * px_per_mm
    sums = _reduced(cv2.merge([(gx * gx - gy * gy) * weight, 2 * gx * gy * weight, energy * weight, weight]), first, step)
    curl = cv2.Laplacian(soft, cv2.CV_32F, ksize=1)
    return _Tensor(
        sums[..., 0], sums[..., 1], sums[..., 2], sums[..., 3], _reduced(energy, first, step), _reduced(curl * curl, first, step),
        float(floor), sigma / px_per_mm, 1 / px_per_mm,
    )  # fmt: skip


def _widened(planes: Field, sigma: float, reduce: int) -> Field:
    """Blurred; wide windows on a reduced grid, which is four times quicker and no worse."""
    if reduce == 1:
        return _blurred(planes, sigma)
    height, width = planes.shape[:2]
    size = ((width + reduce - 1) // reduce, (height + reduce - 1) // reduce)
    small = np.asarray(cv2.resize(planes, size, interpolation=cv2.INTER_AREA), np.float32)
    return np.asarray(cv2.resize(_blurred(small, sigma / reduce), (width, height), interpolation=cv2.INTER_LINEAR), np.float32)


def _window(tensors: list[_Tensor], window_mm: float, cells_per_mm: float) -> tuple[Field, Field, Field, Field]:
    """What a window knows: cosine and sine of the doubled angle, information about it, and how much runs one way."""
    sigma = float(np.sqrt(max(window_mm**2 - _FIRST_MM**2, 0.01))) * cells_per_mm
    reduce = max(1, int(window_mm * cells_per_mm / 4))
    x = y = known = runs = cast(Field, np.float32(0.0))
    for t in tensors:
        a, b, e, w = (_widened(p, sigma, reduce) for p in (t.a, t.b, t.e, t.w))
        energy, curl = _widened(t.energy, sigma, reduce), _widened(t.curl, sigma, reduce)
        alike = np.maximum(t.width_mm, np.sqrt(2 * energy / (curl + 1e-6)) * t.px_mm)  # correlation length, mm
        total = e + t.floor * w + 1e-6
        a, b = a / total, b / total
        whole = np.hypot(a, b)
        count = np.maximum(_SAMPLES * window_mm**2 / alike**2, 1.5)
        fair = np.clip((whole**2 - 1 / count) / (1 - 1 / count), 0, 0.98)  # few samples agree by chance
        information = 0.5 * count * fair / (1 - fair)
        x = x + information * a / (whole + 1e-6)
        y = y + information * b / (whole + 1e-6)
        runs = runs + information * np.sqrt(fair)
        known = known + information
    size = np.hypot(x, y) + 1e-9
    agree = size / (known + 1e-9)
    return (
        np.asarray(x / size, np.float32), np.asarray(y / size, np.float32), np.asarray(size * agree, np.float32),
        np.asarray(runs / (known + 1e-9) * agree, np.float32),
    )  # fmt: skip
