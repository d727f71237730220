"""Sitters cut out of their photographs, with soft edges: worked out in workers, kept in memory and beside the commissions."""

import io
import threading
from collections import OrderedDict
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import numpy as np

from yarrow_lane.compose.cutting.cut_out import Care, CutOut
from yarrow_lane.compose.pieces import Piece
from yarrow_lane.compose.reference import cut_key, cut_scale, outline_key
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.progress import Progress
from yarrow_lane.store.cache import Cache
from yarrow_lane.workers.pool import WORKERS, Workers

VERSION = 1  # raise it when the same outline gives another edge
_BYTES = 250_000_000  # our choice: ten cut-outs of 1,600 px and some for print

Cuts = dict[tuple[object, ...], CutOut]


class CutOuts:
    """Every method blocks and is safe on any thread."""

    def __init__(self, file: Callable[[str, str], Path], cache: Cache, workers: Workers) -> None:
        """`file` tells where a photograph lies, by its id and name, its content looked through."""
        self._file, self._cache, self._workers = file, cache, workers
        self._kept: OrderedDict[tuple[object, ...], CutOut] = OrderedDict()
        self._lock = threading.Lock()

    def of_all(self, pieces: tuple[Piece, ...], px_per_mm: float, progress: Progress, care: Care = "careful") -> Cuts:
        """The cut-outs a picture of that scale needs. Raises `Trouble` and `Cancelled`."""
        wanted = [(p, cut_scale(p, px_per_mm)) for p in pieces]
        with ThreadPoolExecutor(WORKERS) as pool:  # its threads only wait for workers
            found = list(pool.map(lambda w: self.of(w[0], w[1], progress, care), wanted))
        return {cut_key(p, s): cut for (p, s), cut in zip(wanted, found, strict=True)}

    def of(self, piece: Piece, scale: float, progress: Progress, care: Care = "careful") -> CutOut:
        """One of them; a quick one only where no careful one is at hand. Raises `Trouble` and `Cancelled`."""
        key = (*cut_key(piece, scale), care)
        kept = self._have((*cut_key(piece, scale), "careful")) or self._have(key)
        if kept is not None:
            return kept
        slot, name = _place(piece, scale)
        data = self._cache.get(slot, name)
        found = _read(data) if data is not None else None
        if found is None:
            path = self._file(piece.photo_id, piece.name)
            found = self._workers.ask(
                "compose.question:cut_out_file", path, piece.name, piece.outline, scale, care, progress=progress
            )
            assert isinstance(found, CutOut)
            if care == "careful":
                self._cache.put(slot, name, _written(found))
        self._keep(key, found)
        return found

    def is_careful(self, piece: Piece, px_per_mm: float) -> bool:
        """Whether the careful one is there already, in memory or beside the commissions."""
        scale = cut_scale(piece, px_per_mm)
        if self._have((*cut_key(piece, scale), "careful")) is not None:
            return True
        return self._cache.has(*_place(piece, scale))

    def at_hand(self, piece: Piece, scale: float) -> CutOut | None:
        """The best that is in memory, without waiting."""
        whole = cut_key(piece, scale)
        return self._have((*whole, "careful")) or self._have((*whole, "quick"))

    def _have(self, key: tuple[object, ...]) -> CutOut | None:
        with self._lock:
            if key not in self._kept:
                return None
            self._kept.move_to_end(key)
            return self._kept[key]

    def _keep(self, key: tuple[object, ...], found: CutOut) -> None:
        with self._lock:
            self._kept[key] = found
            while len(self._kept) > 1 and sum(c.rgba.nbytes for c in self._kept.values()) > _BYTES:
                self._kept.popitem(last=False)


def _place(piece: Piece, scale: float) -> tuple[str, str]:
    """Slot and name on disk."""
    slot = repr(("cut-out", piece.photo_id, piece.id, scale))
    return slot, repr((VERSION, piece.photo_id, outline_key(piece.outline), scale))


def _written(cut: CutOut) -> bytes:
    data = io.BytesIO()
    box = np.array([cut.box.x, cut.box.y, cut.box.width, cut.box.height, cut.scale])
    np.savez_compressed(data, rgba=cut.rgba, box=box)
    return data.getvalue()


def _read(data: bytes) -> CutOut | None:
    """None for what is damaged: it is then made anew."""
    try:
        with np.load(io.BytesIO(data), allow_pickle=False) as found:
            x, y, width, height, scale = (float(v) for v in found["box"])
            return CutOut(found["rgba"], Rect(x, y, width, height), scale)
    except Exception:  # a damaged archive raises whatever it likes
        return None
