"""A letter that asks the client for more days."""

from datetime import date

from yarrow_lane.intake.brief import Brief
from yarrow_lane.measure.days import MONTHS, WEEKDAYS


def _day(day: date) -> str:
    return f"{WEEKDAYS[day.weekday()]} {day.day} {MONTHS[day.month - 1]} {day.year}"


def more_days_letter(brief: Brief, until: date, painter: str) -> tuple[str, str]:
    """Subject and text; the painter edits it freely before it goes."""
    promised = f" for {_day(brief.promised)}" if brief.promised is not None else ""
    lines = (
        f"Dear {brief.client},\n" if brief.client else "Dear client,\n",
        f"I promised you the portrait of {brief.title}{promised}. The layers need longer to be painted and to dry than I thought, and I would",
        "rather give them that time than hurry the part you will look at every day.",
        f"\nMay it be with you by {_day(until)} instead? If the earlier day matters, tell me what for: then we look together for what could",
        "be simpler, such as a softer background.",
        "\nWith kind regards,",
        painter or "",
    )
    return f"{brief.title}: a few days more?", "\n".join(lines).rstrip() + "\n"
