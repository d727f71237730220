"""Guessing where the eyes are, with the cascades that OpenCV's wheel ships; it says so when it cannot.

No detector is better than a wrong one: an eye counts only inside a face, and only a plausible pair is offered.
"""

from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.intake.brief import SitterKind
from yarrow_lane.intake.opening import open_whole
from yarrow_lane.intake.photos import Eye
from yarrow_lane.measure.late import late
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture, resample

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_WORK_PX = 900
_FACES: dict[SitterKind, str] = {
    "person": "haarcascade_frontalface_alt2.xml",
    "cat": "haarcascade_frontalcatface_extended.xml",
}
# Where the irises lie in the found face, as shares of its side, and how large they are: read off the test pictures.
_IRIS_SHARE: dict[SitterKind, float] = {"person": 0.045, "cat": 0.075}


def can_suggest(kind: SitterKind) -> bool:
    """Whether there is a detector for this kind of sitter at all."""
    return kind in _FACES


def suggest_eyes(picture: Picture, kind: SitterKind) -> tuple[Eye, ...]:
    """A pair of eyes, or nothing. Both eyes or none: half a guess misleads."""
    if kind not in _FACES:
        return ()
    scale = min(1.0, _WORK_PX / max(picture.shape[:2]))
    small = resample(picture, round(picture.shape[1] * scale), round(picture.shape[0] * scale))
    grey = np.asarray(cv2.equalizeHist(cv2.cvtColor(np.ascontiguousarray(small), cv2.COLOR_RGB2GRAY)), np.uint8)
    faces = _cascade(_FACES[kind]).detectMultiScale(grey, 1.08, 4, minSize=(60, 60))
    if len(faces) == 0:
        return ()
    x, y, w, h = max(faces, key=lambda f: int(f[2]) * int(f[3]))
    pair = _eyes_in(grey[y : y + h, x : x + w], kind)
    if pair is None:
        return ()
    radius = float(_IRIS_SHARE[kind] * w / scale)
    (lx, ly), (rx, ry) = pair
    return (
        Eye("left", float((x + lx) / scale), float((y + ly) / scale), radius),
        Eye("right", float((x + rx) / scale), float((y + ry) / scale), radius),
    )


def suggest_in_file(path: Path, name: str, kind: SitterKind, progress: Progress = SILENT) -> tuple[Eye, ...]:
    """The same on a stored photograph; raises `Trouble` when it cannot be opened, `Cancelled` when it is no longer wanted."""
    return suggest_eyes(open_whole(path, name, progress), kind)


def _cascade(name: str) -> cv2.CascadeClassifier:
    return cv2.CascadeClassifier(str(Path(cv2.__file__).parent / "data" / name))


def _eyes_in(face: NDArray[np.uint8], kind: SitterKind) -> tuple[tuple[float, float], tuple[float, float]] | None:
    """Centres of a level pair in the upper half of the face, or None."""
    side = face.shape[1]
    found = _cascade("haarcascade_eye.xml").detectMultiScale(face[: int(side * 0.68)], 1.05, 3, minSize=(side // 8, side // 8))
    centres = [(x + w / 2, y + h / 2, w) for x, y, w, h in found]
    best, misfit = None, 0.12 * side  # our choice: a pair may be tilted by about so much
    for left in centres:
        for right in centres:
            gap = right[0] - left[0]
            if not 0.25 * side < gap < 0.65 * side:
                continue
            off = abs(right[1] - left[1]) + abs((left[0] + right[0]) / 2 - side / 2) * 0.5 + abs(left[2] - right[2]) * 0.3
            if off < misfit:
                best, misfit = ((left[0], left[1]), (right[0], right[1])), off
    return best
