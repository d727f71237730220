"""The rendered sitters with their true masks, and how they are drawn round, for the tests of cutting out."""

from functools import cache

import cv2
import numpy as np

from yarrow_lane.demo.sitter_files import sitter_file


@cache
def sitter(name: str, longer: int = 1000) -> tuple[np.ndarray, np.ndarray]:
    """The picture (H, W, 3) and its true mask (H, W) 0 or 1, the longer side at most `longer` px."""
    found = sitter_file(name)
    picture = cv2.imdecode(np.frombuffer(found.jpeg, np.uint8), cv2.IMREAD_COLOR)[..., ::-1]
    mask = (found.regions > 0).astype(np.uint8)
    scale = min(1.0, longer / max(mask.shape))
    size = round(mask.shape[1] * scale), round(mask.shape[0] * scale)
    small = cv2.resize(np.ascontiguousarray(picture), size, interpolation=cv2.INTER_AREA)
    return small, cv2.resize(mask, size, interpolation=cv2.INTER_NEAREST)
