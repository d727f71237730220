"""Values that papers are made of."""

from datetime import date, datetime, timedelta

from yarrow_lane.calendar.sittings import Act, Sitting


def sitting(commission_id: str, day: date, hour: float, minutes: int, words: str = "block-in") -> Sitting:
    """So many minutes on one canvas."""
    start = datetime(day.year, day.month, day.day) + timedelta(hours=hour)
    return Sitting(commission_id, start, start + timedelta(minutes=minutes), (Act("1:a", words, minutes),))
