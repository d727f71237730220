"""The similarity of the plane that brings one set of places onto another: shift, turn and scale."""

import numpy as np
from numpy.typing import NDArray

Points = NDArray[np.float64]


def similarity(source: Points, target: Points, weight: Points | None = None) -> tuple[float, Points, Points]:
    """Scale, turn (2, 2) and shift of the least-squares similarity (Umeyama, 1991): target = scale turn source + shift."""
    share = np.full(len(source), 1 / len(source)) if weight is None else weight / weight.sum()
    middle, aim = share @ source, share @ target
    one, other = source - middle, target - aim
    left, sizes, right = np.linalg.svd((other * share[:, None]).T @ one)
    flip = np.array([1.0, np.sign(np.linalg.det(left @ right))])
    turn = left @ np.diag(flip) @ right
    spread = float(share @ (one**2).sum(1))
    scale = float((sizes * flip).sum() / spread) if spread > 0 else 1.0
    return scale, turn, aim - scale * turn @ middle
