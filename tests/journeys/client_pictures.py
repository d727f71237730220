"""Photographs that no code here was tuned on, out of other people's open packages, worsened as clients do.

`scripts/pictures.sh` brings them; they are read here alone. Where they came from, and by whom, is told beside each.
"""

import io
from pathlib import Path

import cv2
import numpy as np
import pytest
from PIL import Image

_FOLDER = Path(__file__).parents[2] / ".cache" / "pictures"
_SIZES = {  # width and height as they were when these journeys were written: another picture would be another journey
    "cat": (512, 512),  # face pictures of a desktop's settings, Debian's budgie-control-center-data
    "dog": (768, 576),  # data of Debian's darknet, public domain
    "walker": (640, 424),  # the same
    "shore": (1352, 900),  # the same
    "man": (300, 377),  # demonstrations of mahotas, a library for image processing, MIT
    "officer": (512, 600),  # sample data of matplotlib, public domain
}


def picture(name: str) -> np.ndarray:
    """(H, W, 3) sRGB; skips the test where the packages could not be fetched."""
    path = _FOLDER / f"{name}.jpg"
    if not path.exists():
        pytest.skip(f"{path.name} was not fetched: scripts/pictures.sh had no network or no apt-get")
    found = Image.open(path).convert("RGB")
    assert found.size == _SIZES[name], f"{name} is another picture than these journeys were written for"
    return np.asarray(found)


def enlarged(whole: np.ndarray, times: float) -> np.ndarray:
    """Blown up, as a client does who is asked for more pixels."""
    return cv2.resize(whole, None, fx=times, fy=times, interpolation=cv2.INTER_CUBIC)


def sent_again(whole: np.ndarray, longer_px: int, quality: int, times: int = 2) -> np.ndarray:
    """As messengers hand it on: made smaller where it is large, and written as JPEG each time."""
    for _ in range(times):
        scale = longer_px / max(whole.shape[:2])
        if scale < 1:
            whole = cv2.resize(whole, None, fx=scale, fy=scale, interpolation=cv2.INTER_AREA)
        out = io.BytesIO()
        Image.fromarray(whole).save(out, "JPEG", quality=quality)
        whole = np.asarray(Image.open(out))
    return whole


def at_dusk(whole: np.ndarray) -> np.ndarray:
    """Dark, and bluer the darker it is."""
    dim = (whole / 255.0) ** 1.5 * np.array([0.62, 0.6, 0.66])
    return (255 * np.clip(dim, 0, 1)).astype(np.uint8)


def saved(whole: np.ndarray, path: Path) -> Path:
    """As a file of that name."""
    Image.fromarray(np.ascontiguousarray(whole)).save(path, quality=92)
    return path
