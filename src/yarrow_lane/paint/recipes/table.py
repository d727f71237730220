"""Every small recipe of a box of paints with its colour, so that finding one is a look-up."""

from dataclasses import dataclass
from itertools import combinations
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.paint.paints import Paints, Parts
from yarrow_lane.paint.recipes.ladder import COARSE, PARTS, ratios
from yarrow_lane.paint.seen import quick_lab

if TYPE_CHECKING:
    from scipy import spatial
else:
    spatial = late("scipy.spatial")


MOST_IN_FINE_THREES = (
    24  # with more tubes mixes of three are on the coarse ladder, and polishing finds what lies between: our choice
)
MOST_IN_FOURS = 16  # with more tubes mixes of four are 10 million and gain 0.03 of difference: our choice


@dataclass(frozen=True, eq=False)
class Group:
    """All recipes of so many paints: (s, count) columns, (m, count) eighths, and their colours (s * m, 3)."""

    columns: NDArray[np.int16]
    ratios: NDArray[np.int16]
    lab: NDArray[np.float32]
    tree: "spatial.cKDTree"

    def parts(self, found: NDArray[np.intp], paints: int) -> Parts:
        """Those recipes as rows of eighths."""
        which, ratio = np.divmod(found, len(self.ratios))
        rows = np.zeros((found.size, paints))
        np.put_along_axis(rows, self.columns[which].astype(np.intp), self.ratios[ratio].astype(np.float64), axis=1)
        return rows

    def masks(self, found: NDArray[np.intp]) -> NDArray[np.int64]:
        """Which paints each uses, a bit a column."""
        return np.asarray((np.int64(1) << self.columns[found // len(self.ratios)].astype(np.int64)).sum(axis=1))

    @property
    def size(self) -> int:
        """Recipes in it."""
        return len(self.lab)


@dataclass(frozen=True, eq=False)
class RecipeTable:
    """Groups of one, two, three and, up to sixteen paints, four."""

    paints: Paints
    groups: tuple[Group, ...]

    @property
    def bytes(self) -> int:
        """About what it takes in memory: colours twice and the trees."""
        return sum(g.size * (12 + 24 + 8 + 12) for g in self.groups)


def make_table(paints: Paints, most: int = 4, progress: Progress = SILENT) -> RecipeTable:
    """Every recipe of up to `most` paints. One tree for each count, so that simple recipes are never crowded out. Raises `Cancelled`."""
    groups = []
    dark, scattering = paints.absorbing.astype(np.float32), paints.scattering.astype(np.float32)
    counts = [n for n in range(1, min(most, len(paints)) + 1) if n < 4 or len(paints) <= MOST_IN_FOURS]
    for count in counts:
        fine = count <= 2 or (count == 3 and len(paints) <= MOST_IN_FINE_THREES)
        steps = ratios(count, PARTS if fine else COARSE)
        shares = (steps / steps.sum(axis=1, keepdims=True)).astype(np.float32)
        columns = np.array(list(combinations(range(len(paints)), count)), np.int16)
        lab = np.empty((len(columns), len(steps), 3), np.float32)
        for n, which in enumerate(columns):
            lab[n] = quick_lab(shares @ dark[which], shares @ scattering[which])
            if n % 64 == 0:
                progress.at((count - 1 + n / len(columns)) / len(counts))
        flat = lab.reshape(-1, 3)
        groups.append(Group(columns, steps, flat, spatial.cKDTree(flat, balanced_tree=False, compact_nodes=False)))
    return RecipeTable(paints, tuple(groups))
