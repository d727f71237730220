"""A thermometer and hygrometer that is none: a daily curve with noise, and now and then a fault."""

import math
import random
from datetime import datetime

# A heated room in winter, all our choice: warmest in the afternoon, driest then.
_MEAN_C, _SWING_C, _WARMEST_H = 19.5, 2.2, 16.0
_MEAN_RH, _SWING_RH = 52.0, 6.0
_NOISE_C, _NOISE_RH = 0.15, 0.8
_FAULTS = 0.02  # readings in a hundred that are wrong


def stand_in_air(now: datetime, faults: bool = True) -> tuple[float, float]:
    """°C and % at a moment, the same for the same minute; with `faults` one in fifty is nonsense, as from a loose wire."""
    rng = random.Random(int(now.timestamp() // 60))
    hour = now.hour + now.minute / 60
    turn = math.cos((hour - _WARMEST_H) / 24 * 2 * math.pi)
    celsius = _MEAN_C + _SWING_C * turn + rng.gauss(0, _NOISE_C)
    humidity = _MEAN_RH - _SWING_RH * turn + rng.gauss(0, _NOISE_RH)
    if faults and rng.random() < _FAULTS:
        return rng.choice(((-40.0, humidity), (celsius, 0.0), (celsius, 100.0), (85.0, humidity)))
    return round(celsius, 1), round(humidity, 1)
