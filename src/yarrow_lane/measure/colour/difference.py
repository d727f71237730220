"""How different two colours look: CIEDE2000, after Sharma, Wu and Dalal 2005."""

import numpy as np
from numpy.typing import ArrayLike, NDArray


def difference(one: ArrayLike, other: ArrayLike) -> NDArray[np.float64]:
    """CIEDE2000 of Lab colours, (..., 3) each, broadcast to (...). About 1 is just seen side by side."""
    first, second = np.asarray(one, np.float64), np.asarray(other, np.float64)
    (l1, a1, b1), (l2, a2, b2) = np.moveaxis(first, -1, 0), np.moveaxis(second, -1, 0)
    c7 = ((np.hypot(a1, b1) + np.hypot(a2, b2)) / 2) ** 7
    g = 0.5 * (1 - np.sqrt(c7 / (c7 + 25.0**7)))
    a1, a2 = (1 + g) * a1, (1 + g) * a2
    chroma1, chroma2 = np.hypot(a1, b1), np.hypot(a2, b2)
    hue1, hue2 = np.degrees(np.arctan2(b1, a1)) % 360, np.degrees(np.arctan2(b2, a2)) % 360
    grey = chroma1 * chroma2 == 0
    turn = hue2 - hue1
    turn = np.where(turn > 180, turn - 360, np.where(turn < -180, turn + 360, turn))
    hue_step = 2 * np.sqrt(chroma1 * chroma2) * np.sin(np.radians(np.where(grey, 0.0, turn)) / 2)
    both = hue1 + hue2
    mean_hue = np.where(np.abs(hue1 - hue2) <= 180, both / 2, np.where(both < 360, (both + 360) / 2, (both - 360) / 2))
    mean_hue = np.where(grey, both, mean_hue)
    lightness, chroma = (l1 + l2) / 2, (chroma1 + chroma2) / 2

    def wave(factor: float, shift: float) -> NDArray[np.float64]:
        return np.asarray(np.cos(np.radians(factor * mean_hue + shift)))

    t = 1 - 0.17 * wave(1, -30) + 0.24 * wave(2, 0) + 0.32 * wave(3, 6) - 0.2 * wave(4, -63)
    from_middle = (lightness - 50) ** 2
    scale_l = 1 + 0.015 * from_middle / np.sqrt(20 + from_middle)
    scale_c, scale_h = 1 + 0.045 * chroma, 1 + 0.015 * chroma * t
    c7 = chroma**7
    turned = -np.sin(np.radians(60 * np.exp(-(((mean_hue - 275) / 25) ** 2)))) * 2 * np.sqrt(c7 / (c7 + 25.0**7))
    x, y, z = (l2 - l1) / scale_l, (chroma2 - chroma1) / scale_c, hue_step / scale_h
    return np.asarray(np.sqrt(np.maximum(x * x + y * y + z * z + turned * y * z, 0)))
