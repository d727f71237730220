"""The studio's own settings on the bench, and what each means."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import date
from typing import Protocol

from yarrow_lane.commission.studio import Studio, set_climate
from yarrow_lane.measure.days import WEEKDAYS, day_text
from yarrow_lane.ui.bench_sheet import Amount, Fact, Field, Line, Note, Pick, Press, Section, Tick

_DAY_WORDS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")


class Hands(Protocol):
    """What the page does for the settings."""

    def set_studio(self, label: str, step: Callable[[Studio], Studio]) -> None: ...
    def keep_elsewhere(self) -> None: ...
    def keep_nothing_elsewhere(self) -> None: ...
    def save_everything(self) -> None: ...
    def show_copies(self) -> None: ...


@dataclass(frozen=True)
class Kept:
    """What is kept of the studio: copies beside it, the newest day, and the place elsewhere with its own newest day."""

    copies: int = 0
    newest: date | None = None
    elsewhere: str = ""
    newest_elsewhere: date | None = None


def kept_section(kept: Kept, hands: Hands) -> Section:
    """The copies, and what can be done with them."""
    lines: list[Line] = [
        Fact("Copies here", f"{kept.copies}, the last of {day_text(kept.newest)}" if kept.newest else str(kept.copies)),
        Fact("Elsewhere", kept.elsewhere or "none", "plain" if kept.elsewhere else "wrong"),
    ]
    if kept.elsewhere:
        lines.append(Fact("Last kept there", day_text(kept.newest_elsewhere) if kept.newest_elsewhere else "not reachable now"))
    else:
        lines.append(Note("When this disk goes, the studio goes with it: keep a copy on a stick or in a synced folder."))
    lines.append(Press("Keep a copy at…", hands.keep_elsewhere))
    if kept.elsewhere:
        lines.append(Press("Keep none elsewhere", hands.keep_nothing_elsewhere))
    lines += [Press("Save everything…", hands.save_everything), Press("Restore…", hands.show_copies)]
    return Section("Kept safe", tuple(lines))


def settings_sections(studio: Studio, kept: Kept, hands: Hands) -> tuple[Section, ...]:
    """Name, air, hours and days, the screen, and the copies."""
    climate, week, do = studio.climate, studio.week, hands.set_studio

    def day(number: int) -> Tick:
        def paints(value: bool) -> None:
            days = {d for d in week.weekdays if d != number} | ({number} if value else set())
            do("Chose the painting days", lambda s: replace(s, week=replace(week, weekdays=tuple(sorted(days)))))

        return Tick(_DAY_WORDS[number], number in week.weekdays, paints)

    def hours(value: float) -> None:
        do("Changed the hours a day", lambda s: replace(s, week=replace(week, minutes_a_day=60 * value)))

    def begin(value: float) -> None:
        do("Changed when the day begins", lambda s: replace(s, week=replace(week, starts_at_hour=round(value))))

    def celsius(value: float) -> None:
        do("Read the temperature", lambda s: set_climate(s, replace(climate, celsius=value)))

    def humidity(value: float) -> None:
        do("Read the humidity", lambda s: set_climate(s, replace(climate, humidity=value)))

    return (
        Section(
            "The studio",
            (
                Field("Name of the studio", studio.name, lambda v: do("Named the studio", lambda s: replace(s, name=v.strip() or "Studio"))),
                Field(
                    "Your name, under letters", studio.painter,
                    lambda v: do("Wrote the painter's name", lambda s: replace(s, painter=v.strip())),
                ),
            ),
        ),
        Section(
            "At the easel",
            (
                Amount("Temperature", climate.celsius, 5, 40, celsius, 1, 0, "°C"),
                Amount("Humidity", climate.humidity, 5, 95, humidity, 5, 0, "%"),
                Amount("Painting a day", week.minutes_a_day / 60, 0.5, 14, hours, 0.5, 1, "h"),
                Amount("From", week.starts_at_hour, 0, 20, begin, 1, 0, "o’clock"),
            ),
        ),
        Section("Painting days", tuple(day(n) for n in range(7)), " ".join(WEEKDAYS[d] for d in week.weekdays) or "none"),
        Section(
            "On the screen",
            (
                Pick(
                    "Lengths in", studio.unit, (("cm", "centimetres"), ("in", "inches")),
                    lambda v: do("Changed the unit of length", lambda s: replace(s, unit=v)),
                ),
                Tick("Dim, for the evening", studio.evening, lambda v: do("Changed the light of the screen", lambda s: replace(s, evening=v))),
                Pick(
                    "Size of the text", studio.text_percent, tuple((n, f"{n}\u202f%") for n in (100, 125, 150)),
                    lambda v: do("Changed the size of the text", lambda s: replace(s, text_percent=v)),
                ),
            ),
        ),
        kept_section(kept, hands),
    )  # fmt: skip
