"""What eyes make of a light they have grown used to: Bradford adaptation (Lam 1985; matrix as in ICC.1:2022, annex E)."""

import numpy as np
from numpy.typing import NDArray

BRADFORD = np.array([[0.8951, 0.2664, -0.1614], [-0.7502, 1.7135, 0.0367], [0.0389, -0.0685, 1.0296]])


def adapted(xyz: NDArray[np.float64], seen_under: NDArray[np.float64], to: NDArray[np.float64]) -> NDArray[np.float64]:
    """XYZ (..., 3) as it would look by the white `to`, for eyes used to the white `seen_under`."""
    gains = (BRADFORD @ to) / (BRADFORD @ seen_under)
    return np.asarray(xyz @ (np.linalg.inv(BRADFORD) @ np.diag(gains) @ BRADFORD).T)
