"""The reference as a question to a worker: it opens the photographs itself and keeps the last one it read."""

from pathlib import Path

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.reference import render
from yarrow_lane.intake.opening import open_whole
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture, cut, resized

_last: tuple[str, Picture] | None = None


def _photograph(path: Path, name: str, progress: Progress) -> Picture:
    """The whole picture; asked for again at once it is not decoded again. Files are named by their content."""
    global _last
    if _last is None or _last[0] != str(path):
        _last = None  # never two large pictures at once
        _last = (str(path), open_whole(path, name, progress))
    return _last[1]


def render_files(
    compose: Compose, files: dict[str, tuple[Path, str]], area_mm: Rect, px_per_mm: float, progress: Progress = SILENT
) -> Picture:  # fmt: skip
    """The reference from stored photographs, (path, name) by id. Raises `Trouble` and `Cancelled`."""
    return render(compose, lambda photo_id: _photograph(*files[photo_id], progress), area_mm, px_per_mm, progress)


def part_of_photo(path: Path, name: str, area: Rect, longer_px: int, progress: Progress = SILENT) -> Picture:
    """A part of a photograph (its px) with its longer side at most `longer_px`. Raises `Trouble` and `Cancelled`."""
    return resized(cut(_photograph(path, name, progress), area), longer_px)
