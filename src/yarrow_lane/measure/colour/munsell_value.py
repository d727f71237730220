"""Value in steps 0 (black) to 10 (white), as painters count it: Munsell value by ASTM D1535."""

import numpy as np

# Luminance in per cent of the perfect diffuser as a polynomial of value: ASTM D1535, coefficients of value to the power 1 to 5.
_POWERS = np.array([1.1914, -0.22533, 0.23352, -0.020484, 0.00081939])
_VALUES = np.linspace(0.0, 10.0, 1001)
_LUMINANCES = sum(c * _VALUES ** (n + 1) for n, c in enumerate(_POWERS))
_KNEE = 8.0  # CIE 15:2018: L* is linear in luminance below it


def _luminance(lightness: float) -> float:
    """Luminance 0..100 of L* 0..100 (CIE 15:2018)."""
    return 100 * ((lightness + 16) / 116) ** 3 if lightness > _KNEE else 100 * lightness * (3 / 29) ** 3


def value_of(lightness: float) -> float:
    """Value 0..10 of L* 0..100."""
    return float(np.interp(_luminance(lightness), _LUMINANCES, _VALUES))


def lightness_of(value: float) -> float:
    """L* 0..100 of a value 0..10."""
    luminance = float(np.interp(value, _VALUES, _LUMINANCES)) / 100
    return 116 * luminance ** (1 / 3) - 16 if luminance > (6 / 29) ** 3 else luminance * (29 / 3) ** 3


def value_text(lightness: float) -> str:
    """A value as it is read off a scale: 'value 3.4'."""
    return f"value {value_of(lightness):.1f}"
