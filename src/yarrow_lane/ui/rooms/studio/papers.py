"""What leaves the studio as a file: promises and sittings, and the hours."""

from datetime import date

from yarrow_lane.desk.desk import Desk
from yarrow_lane.documents.time_log import time_log
from yarrow_lane.easel.clock import time_entries


def calendar_bytes(desk: Desk) -> bytes:
    """Promises and sittings of all commissions on the shelf."""
    from yarrow_lane.documents.calendar_file import calendar_file  # icalendar is loaded with the first calendar

    now = desk.clock()
    open_ones = [o for o in desk.standings.outlooks(now) if o.standing.delivered is None]
    dated = [(o.standing.id, o.standing.title, o.standing.promised) for o in open_ones]
    promises = [(i, title, day) for i, title, day in dated if day is not None]
    sittings = sorted((s for o in open_ones for s in o.sittings), key=lambda s: s.day)
    titles = {o.standing.id: o.standing.title for o in open_ones}
    warnings = {o.standing.id: o.standing.warning for o in open_ones}
    sits_today = {s.commission_id for s in sittings if s.day == now.date()}
    painted = {i: _days_painted(desk, i, now.date(), i in sits_today) for i in titles}
    return calendar_file(promises, sittings, titles, desk.studio.week, now, warnings, painted)


def _days_painted(desk: Desk, commission_id: str, today: date, sits_today: bool) -> int:
    """Days it was painted on; today counts only when no more of it is planned for today."""
    days = {e.start.date() for e in time_entries(desk.commission(commission_id).log)}
    return sum(day < today or (day == today and not sits_today) for day in days)


def hours_text(desk: Desk) -> str:
    """All hours at the easel as CSV."""
    readable = [s.id for s in desk.standings.all(desk.clock())]
    commissions = (desk.commission(i) for i in readable)
    return time_log((c.brief.title, entry) for c in commissions for entry in time_entries(c.log))
