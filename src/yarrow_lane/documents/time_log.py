"""The hours at the easel as CSV (RFC 4180)."""

import csv
import io
from collections.abc import Iterable

from yarrow_lane.easel.clock import TimeEntry


def time_log(entries: Iterable[tuple[str, TimeEntry]]) -> str:
    """One line per stretch or correction: (commission title, entry) in, text out."""
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    writer.writerow(("commission", "pass", "start", "end", "minutes", "why"))
    for title, e in entries:
        writer.writerow((title, e.title, _moment(e.start), _moment(e.end), f"{e.minutes:.1f}", e.why))
    return out.getvalue()


def _moment(moment: object) -> str:
    return f"{moment:%Y-%m-%d %H:%M}"
