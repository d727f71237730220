"""The plan as CSV (RFC 4180): a line for each part of each sitting."""

import csv
import io
from collections.abc import Mapping, Sequence

from yarrow_lane.calendar.sittings import Sitting
from yarrow_lane.documents.time_log import cell


def plan_table(sittings: Sequence[Sitting], titles: Mapping[str, str]) -> str:
    """Day, from, to, commission, what, minutes, and whether the painter fixed it."""
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    writer.writerow(("day", "from", "to", "commission", "what", "minutes", "fixed"))
    for s in sittings:
        for act in s.acts:
            fixed = "fixed" if s.pinned else ""
            writer.writerow(
                (
                    s.day.isoformat(),
                    f"{s.start:%H:%M}",
                    f"{s.end:%H:%M}",
                    cell(titles[s.commission_id]),
                    cell(act.words),
                    act.minutes,
                    fixed,
                )
            )
    return out.getvalue()
