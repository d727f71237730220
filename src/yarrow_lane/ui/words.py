"""Words that several rooms have for the same measure."""

from yarrow_lane.measure.lengths import hours_text


def area_text(area_cm2: float) -> str:
    """An area on the canvas; small ones to a tenth."""
    return f"{area_cm2:.0f}\u202fcm²" if area_cm2 >= 10 else f"{area_cm2:.1f}\u202fcm²"


def drying_text(minutes: float) -> str:
    """How long a film stays wet, from minutes to days."""
    return f"{minutes / 1440:.1f}\u202fdays" if minutes >= 2880 else hours_text(minutes)
