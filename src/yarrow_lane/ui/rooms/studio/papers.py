"""What leaves the studio as a file: promises and sittings, the plan and the hours."""

from datetime import date

from yarrow_lane.calendar.sittings import Sitting
from yarrow_lane.desk.desk import Desk
from yarrow_lane.documents.plan_table import plan_table
from yarrow_lane.documents.time_log import time_log
from yarrow_lane.easel.clock import minutes_by_day, time_entries

_TOLD = "calendar file"


def calendar_ics(desk: Desk) -> bytes:
    """Promises and sittings of all commissions on the shelf; what an earlier file had and the plan has no more is called off."""
    from yarrow_lane.documents.calendar_file import calendar_file, numbers_told  # icalendar is loaded with the first calendar

    now = desk.clock()
    open_ones = [o for o in desk.standings.outlooks(now) if o.standing.delivered is None]
    dated = [(o.standing.id, o.standing.title, o.standing.promised) for o in open_ones]
    promises = [(i, title, day) for i, title, day in dated if day is not None]
    sittings = _sittings(desk)
    titles = {o.standing.id: o.standing.title for o in open_ones}
    warnings = {o.standing.id: o.standing.warning for o in open_ones}
    sits_today = {s.commission_id for s in sittings if s.day == now.date()}
    painted = {i: _days_painted(desk, i, now.date(), i in sits_today) for i in titles}
    recalled = desk.recall(_TOLD)
    told = {str(i): int(n) for i, n in recalled.items() if isinstance(n, int)} if isinstance(recalled, dict) else {}
    desk.remember(_TOLD, numbers_told(sittings, painted, told))
    return calendar_file(promises, sittings, titles, now, warnings, painted, told)


def plan_csv(desk: Desk) -> str:
    """All sittings as CSV."""
    titles = {s.id: s.title for s in desk.standings.all(desk.clock())}
    return plan_table(_sittings(desk), titles)


def _sittings(desk: Desk) -> list[Sitting]:
    now = desk.clock()
    return [s for s in desk.standings.plan(now).sittings if s.minutes]


def _days_painted(desk: Desk, commission_id: str, today: date, sits_today: bool) -> int:
    """Days it was painted on; today counts only when no more of it is planned for today."""
    days = [day for day, _ in minutes_by_day(desk.commission(commission_id).log)]
    return sum(day < today or (day == today and not sits_today) for day in days)


def hours_csv(desk: Desk) -> str:
    """All hours at the easel as CSV."""
    readable = [s.id for s in desk.standings.all(desk.clock())]
    commissions = (desk.commission(i) for i in readable)
    return time_log((c.brief.title, entry) for c in commissions for entry in time_entries(c.log))
