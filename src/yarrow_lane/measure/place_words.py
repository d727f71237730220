"""Where on a picture something lies, in words."""

from yarrow_lane.measure.plane import Point


def place_words(at: Point, width: float, height: float) -> str:
    """'upper left', 'middle', 'lower right'."""
    across = "left" if at[0] < width / 3 else "right" if at[0] > width * 2 / 3 else "middle"
    down = "upper" if at[1] < height / 3 else "lower" if at[1] > height * 2 / 3 else ""
    return f"{down} {across}".strip()
