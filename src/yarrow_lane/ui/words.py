"""Words that several rooms have for the same measure."""

from yarrow_lane.compose.detail import DETAIL_POOR_PX_MM, DETAIL_WORKABLE_PX_MM
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.ui.bench_sheet import Mood


def area_text(area_cm2: float) -> str:
    """An area on the canvas; small ones to a tenth."""
    return f"{area_cm2:.0f}\u202fcm²" if area_cm2 >= 10 else f"{area_cm2:.1f}\u202fcm²"


def detail_mood(px_per_mm: float) -> Mood:
    """How so many resolved pixels per mm of canvas are shown, wherever they are."""
    return "good" if px_per_mm >= DETAIL_WORKABLE_PX_MM else "wrong" if px_per_mm < DETAIL_POOR_PX_MM else "plain"


def drying_text(minutes: float) -> str:
    """How long a film stays wet, from minutes to days."""
    return f"{minutes / 1440:.1f}\u202fdays" if minutes >= 2880 else hours_text(minutes)
