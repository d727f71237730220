"""How wide edges are, and what frequencies the mean of the narrowest still carries."""

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.intake.resolution.edges import STEP_PX

Array = NDArray[np.floating]
_FREQUENCIES = np.arange(2, 129) / 256.0  # cycles per px
_HALF = 22  # steps of a line spread to each side
_STEPS = np.arange(-_HALF, _HALF + 1) * STEP_PX
_WAVES = np.exp(-2j * np.pi * _FREQUENCIES[:, None] * _STEPS[None]) / np.sinc(_FREQUENCIES * STEP_PX)[:, None]
_FLAT_SHARE = 0.08  # our choice: an edge ends where its slope has dropped under this share of its top
_TO_WIDTH = 1.86  # a Gaussian edge's contrast over its steepest slope, in units of its quarter to three-quarter crossing


class Profiles:
    """Profiles (n, m) across edges, with their contrast, ends, and how quiet both their sides are."""

    def __init__(self, profiles: Array) -> None:
        self.values = profiles
        slope = np.diff(profiles, axis=1) / STEP_PX
        count, length = slope.shape
        middle = length // 2
        window = slope[:, middle - 4 : middle + 5]
        self.top = window.argmax(1) + middle - 4
        steepest = window.max(1)
        place = np.arange(length)[None]
        flat = slope < _FLAT_SHARE * steepest[:, None]
        self.right = np.where(flat & (place > self.top[:, None]), place, length).min(1)
        self.left = np.where(flat & (place < self.top[:, None]), place, -1).max(1) + 1
        every = np.arange(count)
        self.low = profiles[every, self.left]
        self.contrast = profiles[every, np.minimum(self.right, length)] - self.low
        self._width = self.contrast / np.maximum(steepest, 1e-6)

    def chosen(self, which: NDArray[np.bool_] | NDArray[np.int64]) -> "Profiles":
        """Some of them."""
        found = object.__new__(Profiles)
        for name, value in vars(self).items():
            setattr(found, name, value[which])
        return found

    def __len__(self) -> int:
        return len(self.values)

    def unrest(self) -> Array:
        """(n,): the larger standard deviation of the two sides over one and a half widths beyond the edge, as a share of the contrast.

        Hair, stripes and texture are never quiet on both sides: only free edges count, so that they cannot pass for sharp or soft.
        """
        place = np.arange(self.values.shape[1])[None]
        beyond = np.maximum(1.5 * self._width / STEP_PX, 3)[:, None]
        left, right = self.left[:, None], self.right[:, None]
        worst = np.zeros(len(self))
        for start, end in ((left - beyond, left), (right, right + beyond)):
            side = (place >= start) & (place <= end)
            number = np.maximum(side.sum(1), 1)
            mean = (self.values * side).sum(1) / number
            variance = ((self.values - mean[:, None]) ** 2 * side).sum(1) / number
            worst = np.maximum(worst, np.sqrt(variance) / np.maximum(self.contrast, 1e-6) + (side.sum(1) < 3))
        return worst

    def crossings(self, share: float) -> Array:
        """(n,): where each profile passes that share of its contrast, in steps with fractions."""
        count, length = self.values.shape
        every, place = np.arange(count), np.arange(length)[None]
        level = self.low + share * self.contrast
        below = (self.values < level[:, None]) & (place <= self.top[:, None] + 8) & (place >= self.left[:, None])
        last = np.clip(np.where(below, place, 0).max(1), 0, length - 2)
        here, following = self.values[every, last], self.values[every, last + 1]
        rise = np.where(np.abs(following - here) < 1e-6, 1e-6, following - here)
        return np.asarray(last + np.clip((level - here) / rise, 0, 1))

    def widths(self) -> Array:
        """(n,) px: from a quarter to three quarters, as the width of a Gaussian edge; sound where halos spoil the slope."""
        return np.maximum((self.crossings(0.75) - self.crossings(0.25)) * STEP_PX * _TO_WIDTH, 0.3)

    def mean_spread(self) -> Array:
        """(2 * 22 + 1,): their line spreads laid on one another where they pass the half, as shares of the contrast.

        Never at the steepest point: noise would pile up into a spike there.
        """
        slopes = np.diff(self.values, axis=1) / np.maximum(self.contrast, 1e-6)[:, None]
        slopes = np.pad(slopes, ((0, 0), (_HALF + 2, _HALF + 2)))
        at = self.crossings(0.5) - 0.5 + _HALF + 2
        whole = np.floor(at).astype(int)
        part = (at - whole)[:, None]
        base = whole[:, None] + np.arange(-_HALF, _HALF + 1)[None]
        last = slopes.shape[1] - 1
        one = np.take_along_axis(slopes, np.clip(base, 0, last), 1)
        other = np.take_along_axis(slopes, np.clip(base + 1, 0, last), 1)
        return np.asarray((one * (1 - part) + other * part).mean(0))


def width_of(spread: Array) -> float:
    """Contrast over steepest slope of a mean line spread, px."""
    return float(1 / max(float(spread[_HALF - 3 : _HALF + 4].max()) / STEP_PX, 1e-6))


def halo_of(spread: Array) -> float:
    """How deep a mean line spread goes below zero beside its peak, as a share of the peak: the mark of sharpening."""
    reach = 2 * max(2, int(1.6 * width_of(spread) / STEP_PX))
    near = spread[max(0, _HALF - reach) : _HALF + reach + 1]
    return -float(min(near.min(), 0)) / max(float(spread.max()), 1e-6)


def carried_to(spread: Array, level: float) -> float:
    """The frequency (cycles per px) at which the transfer of a mean line spread falls to `level` of its top; 0.5 when it does not."""
    half = min(_HALF * STEP_PX, max(2.5, 3.0 * width_of(spread)))
    window = np.where(np.abs(_STEPS) < half, 0.5 + 0.5 * np.cos(np.pi * _STEPS / half), 0)
    transfer = np.abs(_WAVES @ (spread * np.sqrt(np.clip(window, 0, 1))))
    top = int(transfer.argmax())
    below = np.nonzero(transfer[top:] < level * transfer[top])[0]
    if len(below) == 0:
        return 0.5
    at = top + int(below[0])
    return float(np.interp(level * transfer[top], transfer[[at, at - 1]], _FREQUENCIES[[at, at - 1]]))
