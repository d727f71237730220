"""Recognising the same shot in two sizes, by a difference hash."""

from collections.abc import Sequence
from typing import TYPE_CHECKING

import numpy as np

from yarrow_lane.measure.late import late
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

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


def shot_groups(hashes: Sequence[str]) -> tuple[int, ...]:
    """For each hash the place of the first one of the same shot (its own place when it is the first).

    Unknown hashes stand alone. All pairs are compared at once: three hundred photographs take a few milliseconds.
    """
    known = [n for n, text in enumerate(hashes) if len(text) == _BITS * _BITS // 4]
    first = list(range(len(hashes)))
    if known:
        bits = np.frombuffer(bytes.fromhex("".join(hashes[n] for n in known)), np.uint64).reshape(len(known), -1)
        apart = np.bitwise_count(bits[:, None, :] ^ bits[None, :, :]).sum(axis=2)
        for row, place in enumerate(known):
            first[place] = first[known[int(np.argmax(apart[row] <= SAME_SHOT_BITS))]]
    return tuple(first)


def same_shot(one: str, other: str) -> bool:
    """Whether two hashes are of one shot; unknown hashes match nothing."""
    if len(one) != 64 or len(other) != 64:
        return False
    return (int(one, 16) ^ int(other, 16)).bit_count() <= SAME_SHOT_BITS
