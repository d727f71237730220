"""A reading of the air out of a file that another program writes: a line of CSV, or words with numbers."""

import re
from pathlib import Path

from yarrow_lane.easel.air import plausible
from yarrow_lane.measure.trouble import Trouble

_LAST_BYTES = 4096  # only the end of a growing file is read
_NUMBER = r"[-+]?\d+(?:[.,]\d+)?"
_TEMPERATURE = re.compile(rf"(?:temp\w*|°?c\b|t)[\"']?\s*[=:]?\s*({_NUMBER})|({_NUMBER})\s*(?:°\s*c|c\b|deg)", re.I)
_HUMIDITY = re.compile(rf"(?:hum\w*|rh|h)[\"']?\s*[=:]?\s*({_NUMBER})|({_NUMBER})\s*%", re.I)


class AirTrouble(Trouble):
    """A reading that cannot be taken."""


def read_air(path: Path) -> tuple[float, float]:
    """°C and % of the newest line of the file. Raises `AirTrouble` naming the file."""
    what = f"The air was not read from “{path.name}”"
    try:
        with path.open("rb") as file:
            file.seek(0, 2)
            file.seek(max(0, file.tell() - _LAST_BYTES))
            text = file.read().decode("utf-8", "replace")
    except OSError as error:
        raise AirTrouble(
            what, error.strerror or "it cannot be opened", "choose the file again, or read the air by hand"
        ) from error
    lines = [line.strip() for line in text.splitlines() if line.strip()]
    if not lines:
        raise AirTrouble(what, "it is empty", "the last line should say temperature and humidity, such as 21.5, 48")
    found = air_in(lines[-1])
    if found is None:
        raise AirTrouble(what, f"its last line, “{lines[-1][:40]}”, says no temperature and humidity", "such as 21.5, 48")
    if not plausible(*found):
        raise AirTrouble(what, f"{found[0]:g} °C and {found[1]:g} % are no air to paint in", "look at the sensor")
    return found


def air_in(line: str) -> tuple[float, float] | None:
    """°C and % in a line: named, with their units, or the last two numbers of a line of CSV; None where there are none."""
    warm, damp = _TEMPERATURE.search(line), _HUMIDITY.search(line)
    if warm and damp:
        return _value(warm), _value(damp)
    cells = [
        c.strip().strip('"') for c in re.split(r"[;\t]|,(?=\s|\D)|(?<=\d),(?=\d{2}(?:\.|\b))" if ";" not in line else ";", line)
    ]
    numbers = [float(c.replace(",", ".")) for c in cells if re.fullmatch(_NUMBER, c)]
    return (numbers[-2], numbers[-1]) if len(numbers) >= 2 else None


def _value(match: "re.Match[str]") -> float:
    return float(next(g for g in match.groups() if g).replace(",", "."))
