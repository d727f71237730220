"""What is asked of a worker for Palette."""

from collections.abc import Sequence
from pathlib import Path

import numpy as np

from yarrow_lane.canvas_photo.straight import StraightTrouble, canvas_of, straightened
from yarrow_lane.canvas_photo.suggest import suggested_corners
from yarrow_lane.intake.opening import open_whole
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.palette.card import HEIGHT_MM, PX_PER_MM, USUAL_STEPS, WIDTH_MM, CardRead, CardTrouble, read_card


def read_card_photo(
    path: Path, name: str, tubes: int, steps: Sequence[float] = USUAL_STEPS, progress: Progress = SILENT
) -> CardRead:  # fmt: skip
    """A photograph of the swatch card, its corners looked for. Raises `Trouble`, `Cancelled`."""
    return read_card_picture(open_whole(path, name, progress), tubes, steps, progress)


def read_card_picture(
    picture: np.ndarray, tubes: int, steps: Sequence[float] = USUAL_STEPS, progress: Progress = SILENT
) -> CardRead:  # fmt: skip
    """The same from sRGB (H, W, 3)."""
    words, help = "The photograph of the card was not read", "photograph the whole card from above, on a table of another value"
    corners = suggested_corners(picture, WIDTH_MM / HEIGHT_MM)
    if corners is None:
        raise CardTrouble(words, "the card's edges are not seen in it", help)
    size = (WIDTH_MM, HEIGHT_MM)
    try:
        straight = straightened(picture, np.asarray(corners, np.float64), size, progress, reach_px=24.0, doubt_px=12.0)
    except StraightTrouble:
        raise CardTrouble(words, "the card's edges are not straight or not whole in it", help) from None
    return read_card(canvas_of(picture, straight, PX_PER_MM), PX_PER_MM, tubes, steps)
