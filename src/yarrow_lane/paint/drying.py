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
SURELY = 1.5  # times the likely time: spread of a film by hand, of 0.5 °C and of 4 % humidity (our choice)
# What a medium's uppermost layers are made of.
PAINT_OF: dict[Medium, str] = {
    "acrylic": "acrylic", "watercolour": "water", "oil over acrylic": "oil", "oil": "oil", "soft pastel": "pastel"
}  # fmt: skip
DAMPEST = 98.0  # our choice: above this nothing dries and the formula runs away


Air = Literal["still", "fan", "dryer"]
AIR: dict[Air, float] = {
    "still": 1.0,
    "fan": 0.6,
    "dryer": 0.2,
}  # a dryer held at 30 cm: our choice (handbook table of numbers)


@dataclass(frozen=True)
class Climate:
    """At the easel: °C and % relative humidity, how the air is moved, and parts of retarder in ten of paint.

    `factor` is what touches have taught: films here take so many times as long as the formula says.
    """

    celsius: float = 20.0
    humidity: float = 50.0
    air: Air = "still"
    retarder: float = 0.0
    factor: float = 1.0


def saturation_hpa(celsius: float) -> float:
    """Saturation vapour pressure over water, hPa (Magnus form, WMO No. 8)."""
    return 6.112 * math.exp(17.62 * celsius / (243.12 + celsius))


def deficit_hpa(climate: Climate) -> float:
    """Vapour pressure deficit, hPa."""
    return saturation_hpa(climate.celsius) * (1 - min(climate.humidity, DAMPEST) / 100)


def film_minutes(film: Film, paint: str, climate: Climate) -> float:
    """Minutes until one may paint over a film of "acrylic", "water", "oil" or "pastel".

    Pastel does not dry; water colour is a wash whatever the pass; oil takes its days whatever the air. Each part of
    retarder in ten doubles the time of acrylics.
    """
    if paint == "pastel":
        return 0.0
    if paint == "oil":
        return OIL_DAYS[film] * 24 * 60
    film_um = FILM_UM["wash"] if paint == "water" else FILM_UM[film]
    reference = deficit_hpa(Climate(T0_CELSIUS, T0_HUMIDITY))
    still = T0_MIN * (film_um / T0_FILM_UM) * (reference / deficit_hpa(climate))
    return still * climate.factor * AIR[climate.air] * (RETARDED**climate.retarder if paint == "acrylic" else 1.0)


def drying_minutes(film: Film, medium: Medium, climate: Climate) -> float:
    """Minutes until one may paint over the uppermost paint of a medium, in the air and with the retarder of the climate."""
    return film_minutes(film, PAINT_OF[medium], climate)
