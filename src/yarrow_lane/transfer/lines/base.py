"""All lines there could be, each with the level at which it drops out: worked out once, picked from as often as wished."""

import io
import zipfile
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

STEP_MM = 0.5  # between the points of a line
_VERSION = 1


@dataclass(frozen=True)
class Base:
    """Arcs from junction to junction, canvas mm: `points` (N, 2), `starts` (A + 1), `nodes` (A, 2) junction numbers.

    `level` (A) colour-difference units, `rough` (A) the unrest of both sides, `dark` (A) thin dark lines (a mouth's slit, a lash line),
    `strength` (N) at each point.
    """

    points: NDArray[np.float32]
    starts: NDArray[np.int64]
    nodes: NDArray[np.int64]
    level: NDArray[np.float32]
    rough: NDArray[np.float32]
    dark: NDArray[np.bool_]
    strength: NDArray[np.float32]

    @property
    def count(self) -> int:
        return len(self.level)


def as_bytes(base: Base) -> bytes:
    """As a file of its own."""
    out = io.BytesIO()
    np.savez_compressed(out, version=_VERSION, **{name: getattr(base, name) for name in Base.__dataclass_fields__})
    return out.getvalue()


def from_bytes(data: bytes) -> Base:
    """Read again; raises ValueError when it is none of ours."""
    try:
        with np.load(io.BytesIO(data), allow_pickle=False) as found:
            if int(found["version"]) != _VERSION:
                raise ValueError("lines of another version")
            return Base(**{name: found[name] for name in Base.__dataclass_fields__})
    except (KeyError, OSError, ValueError, EOFError, zipfile.BadZipFile) as error:
        raise ValueError("these are no lines") from error
