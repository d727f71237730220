"""How long heaps stay open on the palette."""

from yarrow_lane.paint.drying import RETARDED, Climate, deficit_hpa

# A heap on a usual palette works for half an hour at 20 degrees and 50 % (from memory); a stay-wet tray or a mist is not reckoned.
_HEAP_MIN = 30.0
_USUAL = Climate()


def open_minutes(climate: Climate, retarder: bool) -> float:
    """Minutes until a heap of acrylic grows a skin."""
    return _HEAP_MIN * deficit_hpa(_USUAL) / deficit_hpa(climate) * (RETARDED if retarder else 1.0)
