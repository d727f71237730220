"""The air at the easel: readings of the last days, kept, and where they come from."""

import json
from collections.abc import Callable
from dataclasses import replace
from datetime import datetime
from pathlib import Path

from yarrow_lane.commission.studio import Studio, set_climate
from yarrow_lane.easel.air import Air, Reading, jumps, plausible
from yarrow_lane.easel.air_text import AirTrouble, read_air
from yarrow_lane.paint.drying import deficit_hpa
from yarrow_lane.standins.air_standin import stand_in_air
from yarrow_lane.store.database import Database

STAND_IN = "stand-in"
AIR_CHANGED = "The air at the easel has changed"
_MEMORY = "air"
_WORTH = 0.1  # the studio's climate follows when films dry by a tenth quicker or slower: our choice


class AirKept:
    """`do_studio` changes the studio's own climate when the room has changed enough."""

    def __init__(
        self, database: Database, studio: Callable[[], Studio], do_studio: Callable[[str, Callable[[Studio], Studio]], bool]
    ) -> None:
        self._database, self._studio, self._do_studio = database, studio, do_studio
        self._air: Air | None = None

    @property
    def air(self) -> Air:
        """The readings."""
        if self._air is None:
            self._air = Air(tuple(_read(self._database.recall(_MEMORY))))
        return self._air

    def look(self, now: datetime) -> None:
        """Take a reading from where the studio has them from; nothing by hand. Raises `AirTrouble`."""
        source = self._studio().air_from
        if source:
            celsius, humidity = stand_in_air(now) if source == STAND_IN else read_air(Path(source))
            self.take(Reading(now, celsius, humidity))

    def take(self, reading: Reading) -> None:
        """One more reading; raises `AirTrouble` for one that no room has, or that jumps."""
        if not plausible(reading.celsius, reading.humidity):
            what = f"{reading.celsius:g} °C and {reading.humidity:g} % are no air to paint in"
            raise AirTrouble("A reading of the air was not taken", what, "look at the sensor; the last good reading holds")
        if jumps(self.air, reading):
            raise AirTrouble(
                "A reading of the air was not taken",
                "it jumped within minutes",
                "look at the sensor; the last good reading holds",
            )
        self._air = self.air.with_reading(reading)
        self._database.remember(_MEMORY, json.dumps([(r.at.isoformat(), r.celsius, r.humidity) for r in self._air.readings]))
        climate = self._studio().climate
        if abs(reading.deficit / deficit_hpa(climate) - 1) > _WORTH:
            self._do_studio(
                AIR_CHANGED,
                lambda s: set_climate(s, replace(s.climate, celsius=reading.celsius, humidity=reading.humidity)),
            )


def _read(text: str | None) -> list[Reading]:
    """A memory that is damaged is none."""
    try:
        return [Reading(datetime.fromisoformat(at), float(c), float(h)) for at, c, h in json.loads(text or "[]")]
    except (ValueError, TypeError):
        return []
