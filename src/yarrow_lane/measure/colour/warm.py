"""Warm and cool: one axis of CIELAB for every room, hue 55 degrees, from blue to orange. Our choice."""

import math

WARM_DEG = 55.0
# a* and b* of a step of one towards warm, and of one across it, towards pink.
WARM = (math.cos(math.radians(WARM_DEG)), math.sin(math.radians(WARM_DEG)))
PINK = (WARM[1], -WARM[0])


def warm_and_pink(a: float, b: float) -> tuple[float, float]:
    """How far a colour's a* and b* lie along warm and across it, pink."""
    return a * WARM[0] + b * WARM[1], a * PINK[0] + b * PINK[1]
