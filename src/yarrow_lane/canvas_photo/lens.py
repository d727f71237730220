"""The bulge of a lens: straight lines bow outwards or inwards, most towards the frame's corners (one term of Brown, 1971)."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Points = NDArray[np.float64]  # (..., 2)


@dataclass(frozen=True)
class Lens:
    """`bulge` is the share by which the frame's corner moves, negative for a barrel; the frame in px."""

    bulge: float
    width: int
    height: int

    @property
    def centre(self) -> Points:
        return np.array([self.width / 2, self.height / 2])

    @property
    def reach(self) -> float:
        """From the middle to the corner, px."""
        return float(np.hypot(self.width, self.height) / 2)

    def bowed(self, points: Points) -> Points:
        """Where straight-lined places come out in the photograph."""
        away = points - self.centre
        return self.centre + away * (1 + self.bulge * (away**2).sum(-1, keepdims=True) / self.reach**2)

    def straight(self, points: Points) -> Points:
        """Places of the photograph as a lens without bulge has them."""
        away = points - self.centre
        seen = np.sqrt((away**2).sum(-1, keepdims=True)) / self.reach
        true = seen.copy()
        for _ in range(8):  # Newton; two are enough below a twentieth
            true = true - (true + self.bulge * true**3 - seen) / (1 + 3 * self.bulge * true**2)
        return self.centre + away * np.where(seen > 1e-9, true / np.maximum(seen, 1e-9), 1.0)
