"""The studio's own settings on the bench, and what each means."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import date
from typing import Protocol

from yarrow_lane.commission.studio import Studio, set_climate
from yarrow_lane.desk.air_kept import STAND_IN
from yarrow_lane.easel.keys import WORDS
from yarrow_lane.easel.touches import room_words
from yarrow_lane.measure.days import day_text
from yarrow_lane.ui.bench_sheet import Amount, Fact, Field, Line, Note, Pick, Press, Section, Tick


class Hands(Protocol):
    """What the page does for the settings."""

    def set_studio(self, label: str, step: Callable[[Studio], Studio]) -> None: ...
    def keep_elsewhere(self) -> None: ...
    def keep_nothing_elsewhere(self) -> None: ...
    def save_everything(self) -> None: ...
    def show_copies(self) -> None: ...
    def read_air_by(self, source: str) -> None: ...
    def set_easel_key(self, act: str, key: str) -> None: ...


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


_SOURCES = (("", "by hand"), (STAND_IN, "from the stand-in"), ("file", "from a file…"))


def _key_field(studio: Studio, act: str, hands: Hands) -> Field:
    return Field(WORDS[act], getattr(studio.easel_keys, act), lambda v: hands.set_easel_key(act, v))


def _source(studio: Studio) -> str:
    return studio.air_from if studio.air_from in ("", STAND_IN) else "file"


def settings_sections(studio: Studio, kept: Kept, hands: Hands) -> tuple[Section, ...]:
    """Name, air, the screen, and the copies."""
    climate, do = studio.climate, hands.set_studio

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
                Pick("The air is read", _source(studio), _SOURCES, hands.read_air_by),
                *((Note(f"The last line of {studio.air_from}."),) if _source(studio) == "file" else ()),
                *((Fact("Films here, by touch", room_words(climate.factor)),) if climate.factor != 1 else ()),
                Tick("Ring softly at the easel", studio.sound, lambda v: do("Changed the sound at the easel", lambda s: replace(s, sound=v))),
            ),
        ),
        Section(
            "Keys at the stand",
            (
                *(_key_field(studio, act, hands) for act in WORDS),
                Note("Page Down and Page Up of a pedal or presenter go on and back whatever is set here."),
            ),
            "a pedal works unset",
        ),
        Section(
            "On the screen",
            (
                Pick(
                    "Lengths in", studio.unit, (("cm", "centimetres"), ("in", "inches")),
                    lambda v: do("Changed the unit of length", lambda s: replace(s, unit=v)),
                ),
                Tick("Dim, for the evening", studio.evening, lambda v: do("Changed the light of the screen", lambda s: replace(s, evening=v))),
                Pick(
                    "Size of the text", studio.text_percent, tuple((n, f"{n}\u202f%") for n in (100, 125, 150, 200)),
                    lambda v: do("Changed the size of the text", lambda s: replace(s, text_percent=v)),
                ),
            ),
        ),
        kept_section(kept, hands),
    )  # fmt: skip
