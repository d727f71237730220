"""How long a film stays wet.

Water leaves in proportion to the vapour pressure deficit; es by the Magnus form
(WMO Guide to Instruments and Methods of Observation, No. 8).
"""

import math
from dataclasses import dataclass
from typing import Literal

from yarrow_lane.intake.brief import Medium

Film = Literal["wash", "normal", "thick"]
FILM_UM: dict[Film, float] = {"wash": 30.0, "normal": 80.0, "thick": 200.0}  # our choice
T0_MIN = 15.0  # from memory: an 80 µm acrylic film at 20 °C and 50 %
T0_FILM_UM = 80.0
T0_CELSIUS, T0_HUMIDITY = 20.0, 50.0
# Oil, days to touch dry: the middle of the handbook's 2 to 7 days thin, 1 to 3 weeks thick (common practice).
OIL_DAYS: dict[Film, float] = {"wash": 2.0, "normal": 4.5, "thick": 14.0}
RETARDED = 2.0  # a retarder of 1 in 10 doubles the time: our choice
DAMPEST = 98.0  # our choice: above this nothing dries and the formula runs away


@dataclass(frozen=True)
class Climate:
    """At the easel: °C and % relative humidity."""

    celsius: float = 20.0
    humidity: float = 50.0


def saturation_hpa(celsius: float) -> float:
    """Saturation vapour pressure over water, hPa (Magnus form, WMO No. 8)."""
    return 6.112 * math.exp(17.62 * celsius / (243.12 + celsius))


def deficit_hpa(climate: Climate) -> float:
    """Vapour pressure deficit, hPa."""
    return saturation_hpa(climate.celsius) * (1 - min(climate.humidity, DAMPEST) / 100)


def drying_minutes(film: Film, medium: Medium, climate: Climate) -> float:
    """Minutes until one may paint over the film, in still air without retarder.

    Pastel does not dry; watercolour is a wash whatever the pass.
    """
    if medium == "soft pastel":
        return 0.0
    if medium == "oil over acrylic":
        return OIL_DAYS[film] * 24 * 60
    film_um = FILM_UM["wash"] if medium == "watercolour" else FILM_UM[film]
    reference = deficit_hpa(Climate(T0_CELSIUS, T0_HUMIDITY))
    return T0_MIN * (film_um / T0_FILM_UM) * (reference / deficit_hpa(climate))
