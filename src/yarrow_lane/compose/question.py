"""What is asked of a worker for Compose: it opens the photographs itself and keeps what it read last."""

from collections import OrderedDict
from pathlib import Path

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.cutting.cut import Cut, Found, Stroke
from yarrow_lane.compose.cutting.cut_out import Care, CutOut
from yarrow_lane.compose.cutting.evidence import Drawn
from yarrow_lane.compose.cutting.outline import outlined
from yarrow_lane.compose.cutting.soft import cut_out
from yarrow_lane.compose.drawing.render import render
from yarrow_lane.compose.drawing.sprite import Sprite
from yarrow_lane.compose.pieces import Piece, Ring
from yarrow_lane.compose.reference import cut_key
from yarrow_lane.intake.opening import open_whole
from yarrow_lane.measure.plane import Polygon, Rect
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture, cut, resized

_MOST_SPRITES_BYTES = 400_000_000  # our choice: three cut-outs of 12 MP with their levels
_last: tuple[str, Picture] | None = None
_sprites: OrderedDict[tuple[object, ...], Sprite] = OrderedDict()
_cutting: tuple[tuple[object, ...], Cut] | None = None


def _photograph(path: Path, name: str, progress: Progress) -> Picture:
    """The whole picture; asked for again at once it is not decoded again. Files are named by their content."""
    global _last
    if _last is None or _last[0] != str(path):
        _last = None  # never two large pictures at once
        _last = (str(path), open_whole(path, name, progress))
    return _last[1]


class _Files:
    """Photographs from their files; cut-outs as they were handed over, kept with their levels."""

    def __init__(self, files: dict[str, tuple[Path, str]], cuts: dict[tuple[object, ...], CutOut], progress: Progress) -> None:
        self._files, self._cuts, self._progress = files, cuts, progress

    def photo(self, photo_id: str) -> Picture:
        return _photograph(*self._files[photo_id], self._progress)

    def sprite(self, piece: Piece, scale: float) -> Sprite:
        key = cut_key(piece, scale)
        whole = (*key, piece.move)
        if whole not in _sprites:
            _sprites[whole] = Sprite(self._cuts[key], piece.move)
        _sprites.move_to_end(whole)
        while len(_sprites) > 1 and sum(s.bytes for s in _sprites.values()) > _MOST_SPRITES_BYTES:
            _sprites.popitem(last=False)
        return _sprites[whole]


def render_files(
    compose: Compose, files: dict[str, tuple[Path, str]], cuts: dict[tuple[object, ...], CutOut], area_mm: Rect,
    px_per_mm: float, progress: Progress = SILENT,
) -> Picture:  # fmt: skip
    """The reference from stored photographs, (path, name) by id, and cut-outs. Raises `Trouble` and `Cancelled`."""
    return render(compose, _Files(files, cuts, progress), area_mm, px_per_mm, progress)


def part_of_photo(path: Path, name: str, area: Rect, longer_px: int, progress: Progress = SILENT) -> Picture:
    """A part of a photograph (its px) with its longer side at most `longer_px`. Raises `Trouble` and `Cancelled`."""
    return resized(cut(_photograph(path, name, progress), area), longer_px)


def cut_out_file(
    path: Path, name: str, outline: tuple[Ring, ...], scale: float, care: Care, progress: Progress = SILENT
) -> CutOut:  # fmt: skip
    """A sitter cut out of a stored photograph. Raises `Trouble` and `Cancelled`."""
    return cut_out(_photograph(path, name, progress), outline, scale, care, progress)


def find_sitter(
    path: Path, name: str, outline: Polygon, drawn: Drawn, strokes: tuple[Stroke, ...], progress: Progress = SILENT
) -> tuple[Found, tuple[Polygon, ...]]:  # fmt: skip
    """The sitter within a rough outline, as a mask and as smooth lines; strokes are taken one after the other.

    Asked again with one stroke more it goes on from where it was. Raises `Trouble` and `Cancelled`.
    """
    global _cutting
    key = (str(path), outline, drawn)
    if _cutting is not None and _cutting[0] == key and strokes[: len(_cutting[1].strokes)] == _cutting[1].strokes:
        cutting = _cutting[1]
    else:
        cutting = Cut(_photograph(path, name, progress), outline, drawn, progress)
    _cutting = None  # given up in the middle it is begun anew
    for stroke in strokes[len(cutting.strokes) :]:
        cutting.stroke(stroke, progress)
    _cutting = (key, cutting)
    return cutting.found, outlined(cutting.found)
