"""Close-up swelling: a near nose is magnified D/(D - d) (pinhole camera)."""

import math

from yarrow_lane.measure.trouble import Trouble

# Diagonal of the 36 x 24 mm frame that "35 mm equivalent" focal lengths refer to (CIPA DCG-001).
FRAME_DIAGONAL_MM = math.hypot(36.0, 24.0)
NOTICEABLE = 1.10  # our choice: a tenth is seen
STRONG = 1.25  # our choice


class SwellingTrouble(Trouble):
    """The camera would stand inside the head."""


def camera_distance_mm(focal_35_mm: float, size_px: tuple[int, int], head_px: float, head_mm: float) -> float:
    """How far the camera stood from the eyes.

    `head_px` is the head's length on the upright photograph, `head_mm` the real one; the pinhole focal length in px
    follows from the 35 mm equivalent and the picture's diagonal.
    """
    focal_px = focal_35_mm / FRAME_DIAGONAL_MM * math.hypot(*size_px)
    return focal_px * head_mm / head_px


def swelling(distance_mm: float, nearer_mm: float) -> float:
    """How many times too large something is that stands `nearer_mm` in front of the eyes.

    Raises `SwellingTrouble` when it would reach the camera.
    """
    if nearer_mm >= distance_mm:
        raise SwellingTrouble("The swelling was not worked out", "the muzzle would touch the camera", "check the head's length")
    return distance_mm / (distance_mm - nearer_mm)


def swelling_words(times: float, part: str = "nose") -> str:
    """What it means for the drawing; `part` is what stands in front of the eyes."""
    if times < NOTICEABLE:
        return f"× {times:.2f}, true enough"
    return f"the {part} is {times:.2f} times too large" if times < STRONG else f"the {part} is {times:.1f} times too large"
