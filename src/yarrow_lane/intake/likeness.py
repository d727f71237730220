"""Recognising the same shot in two sizes, by a difference hash."""

import cv2
import numpy as np

from yarrow_lane.measure.raster import Picture

_BITS = 16
# Of 256 bits, so many may differ between copies of one shot: our choice (resized and recompressed copies of the
# test pictures differ in fewer than 12, different shots in more than 60).
SAME_SHOT_BITS = 20


def difference_hash(picture: Picture) -> str:
    """256 bits as 64 hex digits: whether each of 16 x 16 cells is lighter than its right neighbour."""
    grey = cv2.cvtColor(np.ascontiguousarray(picture), cv2.COLOR_RGB2GRAY)
    small = cv2.resize(grey, (_BITS + 1, _BITS), interpolation=cv2.INTER_AREA).astype(np.int16)
    bits = (small[:, 1:] > small[:, :-1]).ravel()
    return np.packbits(bits).tobytes().hex()


def same_shot(one: str, other: str) -> bool:
    """Whether two hashes are of one shot; unknown hashes match nothing."""
    if len(one) != 64 or len(other) != 64:
        return False
    return (int(one, 16) ^ int(other, 16)).bit_count() <= SAME_SHOT_BITS
