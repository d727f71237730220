"""Words for the dialogs that ask for files."""

from yarrow_lane.intake.opening import ENDINGS as KINDS

_PATTERNS = " ".join(f"*{ending}" for ending in dict.fromkeys(e for endings in KINDS.values() for e in endings))
ENDINGS = f"Photographs ({_PATTERNS});;All files (*)"
