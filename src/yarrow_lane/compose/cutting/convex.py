"""The cut itself: the shape that agrees best with the evidence and whose border runs where the picture changes.

min over 0 <= u <= 1 of sum(weight |grad u|) - sum(evidence u): convex, so that the answer is the best there is and a stroke goes on
from the last one. Primal-dual steps after Chambolle and Pock, J. Math. Imaging Vis. 40 (2011).
"""

from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.measure.progress import Progress

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_STEP = np.float32(1 / np.sqrt(8.0))  # the largest for which the steps are proved to settle
_SETTLED = 2e-5  # mean change of u in one step: our choice
_LOOK_EVERY = 20


def convex_cut(
    evidence: NDArray[Any], weight: NDArray[Any], start: NDArray[Any] | None, steps: int, progress: Progress
) -> NDArray[Any]:  # fmt: skip
    """u, (H, W) 0..1: above a half is inside. `evidence` is positive inside, `weight` the cost of a border there, both (H, W).

    `start` is an earlier answer to go on from. Raises `Cancelled`.
    """
    u = (evidence > 0).astype(np.float32) if start is None else start.astype(np.float32)
    ahead = u.copy()
    across, down = np.zeros_like(u), np.zeros_like(u)
    change, long = np.empty_like(u), np.empty_like(u)
    pull = _STEP * evidence
    for step in range(steps):
        across[:, :-1] += _STEP * (ahead[:, 1:] - ahead[:, :-1])
        down[:-1] += _STEP * (ahead[1:] - ahead[:-1])
        cv2.magnitude(across, down, long)
        np.divide(long, weight, out=long)
        np.maximum(long, 1, out=long)
        np.divide(across, long, out=across)
        np.divide(down, long, out=down)
        np.add(across, down, out=change)
        change[:, 1:] -= across[:, :-1]
        change[1:] -= down[:-1]
        change *= _STEP
        after = u + change + pull
        np.clip(after, 0, 1, out=after)
        np.subtract(2 * after, u, out=ahead)
        settled = step % _LOOK_EVERY == _LOOK_EVERY - 1 and float(np.abs(after - u).mean()) < _SETTLED
        u = after
        if settled:
            break
        if step % 4 == 0:
            progress.at(step / steps)
    return u
