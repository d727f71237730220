"""The hours at the easel as CSV (RFC 4180)."""

import csv
import io
from collections.abc import Iterable

from yarrow_lane.easel.clock import TimeEntry

_FORMULA = ("=", "+", "-", "@", "\t", "\r")  # common practice against cells that act when the sheet is opened


def time_log(entries: Iterable[tuple[str, TimeEntry]]) -> str:
    """One line per stretch or correction: (commission title, entry) in, text out."""
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    writer.writerow(("commission", "pass", "start", "end", "minutes", "why"))
    for title, e in entries:
        writer.writerow(
            (cell(title), cell(e.title), _moment(e.start), _moment(e.end), f"{e.minutes:.1f}", cell(e.why or e.doubt))
        )
    return out.getvalue()


def cell(words: str) -> str:
    """Words that a sheet would take for a formula begin with an apostrophe, the sheets' own sign for words."""
    return f"'{words}" if words[:1] in _FORMULA else words


def _moment(moment: object) -> str:
    return f"{moment:%Y-%m-%d %H:%M}"
