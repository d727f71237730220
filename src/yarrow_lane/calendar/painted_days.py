"""What part of the planned minutes is painted, learned from the days: some are lost, and lost days come in spells."""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
# All our choice: before any day is logged, 85 of 100 planned minutes are painted, and one day in thirteen is lost.
_SHARE, _SHARE_SD, _WITNESSES, _DAY_SD = 0.85, 0.10, 6.0, 0.20
_LOST, _KEPT = 1.2, 14.0
_NOTHING, _MOST = 0.05, 1.15  # a share below the one is a lost day; none counts for more than the other
_SPELL = 1.6  # days in a row are not independent witnesses
_LONGEST_SPELL = 6


class PaintedDays:
    """`shares` are painted by planned minutes of the days that had any planned."""

    def __init__(self, shares: Sequence[float] = ()) -> None:
        found = np.asarray(shares, float)
        kept = np.clip(found[found >= _NOTHING], _NOTHING, _MOST)
        lost = len(found) - len(kept)
        self.days = len(found)
        self._lost, self._kept = _LOST + lost / _SPELL, _KEPT + len(kept) / _SPELL
        witnesses = _WITNESSES + len(kept)
        self.share = float((_WITNESSES * _SHARE + kept.sum()) / witnesses)
        self._var = float((_WITNESSES * _DAY_SD**2 + ((kept - self.share) ** 2).sum()) / witnesses)
        self._mean_sd = float(np.sqrt(self._var / witnesses + _SHARE_SD**2 * _WITNESSES / witnesses))

    @property
    def lost_share(self) -> float:
        """Of the planned days, how many are lost."""
        return self._lost / (self._lost + self._kept)

    def painted(self, draws: int, planned: Floats, seed: int = 2) -> Floats:
        """Minutes painted, (draws, days), where `planned` minutes stand for each calendar day (0 on days off)."""
        rng = np.random.default_rng(seed)
        days = len(planned)
        often = rng.beta(self._lost, self._kept, draws)[:, None]
        share = np.clip(self.share + self._mean_sd * rng.standard_normal(draws), 0.3, 1.1)[:, None]
        begins = rng.random((draws, days)) < often / 2
        lengths = rng.geometric(0.5, (draws, days))
        lost = begins.copy()
        for k in range(1, _LONGEST_SPELL):
            lost[:, k:] |= begins[:, :-k] & (lengths[:, :-k] > k)
        of_day = np.clip(share + np.sqrt(self._var) * rng.standard_normal((draws, days)), _NOTHING, _MOST)
        return np.asarray(planned[None] * of_day * ~lost)
