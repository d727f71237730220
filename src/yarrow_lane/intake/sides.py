"""Left and right in words: always the sitter's own. Marks on record name the side the viewer sees."""

import re

_OTHER = {"left": "right", "right": "left"}
SIDES_NOTE = "Left and right are the sitter's own: a left eye is at your right."


def sitters_own(name: str) -> str:
    """'left ear tip' as the viewer sees it is the sitter's 'right ear tip', and the other way round."""
    return re.sub(r"\b(left|right)\b", lambda found: _OTHER[found[0]], name)
