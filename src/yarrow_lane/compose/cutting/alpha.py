"""How much of each pixel of the band is sitter: from the colours on both sides, quickly (projection) or better (closed form).

Projection: where between the colour inside and the colour outside a pixel lies, smoothed by a guided filter (He, Sun and Tang, IEEE
PAMI 35, 2013). Closed form: Levin, Lischinski and Weiss, IEEE PAMI 30 (2008), begun from the projection and gently tied to it.
"""

from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.compose.cutting.band import INSIDE, OUTSIDE, UNKNOWN, Trimap
from yarrow_lane.compose.cutting.evidence import blurred
from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import cv2
    from scipy import sparse
    from scipy.sparse import linalg
else:
    cv2, sparse, linalg = late("cv2"), late("scipy.sparse"), late("scipy.sparse.linalg")

Alpha = NDArray[Any]  # float32 (H, W)
Colours = NDArray[Any]  # float32 (H, W, 3)
# All our choice, tuned on made fringes with exact alpha.
_ALIKE = 0.008  # squared difference of the two sides below which colour says little
_GUIDE_PX, _GUIDE_EPS = 3, 1e-4
_OF_GUIDE = 0.65
_TIED, _TIED_ALIKE = 0.02, 0.02
_EPS = 1e-5
_STEPS = 120


def spread(colours: Colours, weights: Alpha, sigma: float) -> Colours:
    """The colours where `weights` (H, W) 0..1 are carried into all other pixels: normalised blurs, coarser where nothing is near."""
    near = blurred(weights, sigma)
    found = blurred(colours * weights[..., None], sigma) / np.maximum(near, 1e-6)[..., None]
    if min(weights.shape) > 16 and bool((near < 0.1).any()):
        half = weights.shape[1] // 2, weights.shape[0] // 2
        small = np.asarray(cv2.resize(weights, half, interpolation=cv2.INTER_AREA), np.float32)
        shrunk = cv2.resize(colours * weights[..., None], half, interpolation=cv2.INTER_AREA)
        far = spread(shrunk / np.maximum(small, 1e-6)[..., None], small, sigma)
        trust = np.minimum(near * 8, 1)[..., None]
        found = trust * found + (1 - trust) * cv2.resize(far, (weights.shape[1], weights.shape[0]))
    return np.asarray(found, np.float32)


def _spread_half(colours: Colours, weights: Alpha, sigma: float) -> Colours:
    """The same at half the size where the blur is wide enough that nobody sees it: a quarter of the work."""
    height, width = weights.shape
    if sigma < 2 or min(height, width) < 32:
        return spread(colours, weights, sigma)
    half = width // 2, height // 2
    small = np.asarray(cv2.resize(weights, half, interpolation=cv2.INTER_AREA), np.float32)
    shrunk = cv2.resize(colours * weights[..., None], half, interpolation=cv2.INTER_AREA)
    found = spread(shrunk / np.maximum(small, 1e-6)[..., None], small, sigma / 2)
    return np.asarray(cv2.resize(found, (width, height), interpolation=cv2.INTER_LINEAR), np.float32)


def projected(light: Colours, band: Trimap, sigma: float) -> tuple[Alpha, Alpha]:
    """Alpha (H, W) 0..1 and the squared difference of the two sides; `light` is linear, 0..1: hair and background mix in light."""
    inside, outside, unknown = band == INSIDE, band == OUTSIDE, band == UNKNOWN
    front, back = (_spread_half(light, side.astype(np.float32), sigma) for side in (inside, outside))
    between = front - back
    apart = np.sum(between * between, axis=-1)
    alpha = np.clip(np.sum((light - back) * between, axis=-1) / np.maximum(apart, 1e-5), 0, 1)
    # Where the sides look alike colour says nothing: there a smooth ramp runs across the band.
    to_out = cv2.distanceTransform((~outside).astype(np.uint8), cv2.DIST_L2, 3)
    to_in = cv2.distanceTransform((~inside).astype(np.uint8), cv2.DIST_L2, 3)
    trust = apart / (apart + _ALIKE)
    alpha = trust * alpha + (1 - trust) * to_out / np.maximum(to_out + to_in, 1e-6)
    alpha[inside], alpha[outside] = 1, 0
    smooth = _guided(light, alpha.astype(np.float32))
    alpha = np.where(unknown, (1 - _OF_GUIDE) * alpha + _OF_GUIDE * smooth, alpha)
    alpha = np.clip((alpha - 0.04) / 0.92, 0, 1)
    alpha[inside], alpha[outside] = 1, 0
    return np.asarray(alpha, np.float32), np.asarray(apart, np.float32)


def _guided(guide: Colours, plane: Alpha) -> Alpha:
    def mean(values: NDArray) -> NDArray:
        return np.asarray(cv2.blur(values, (2 * _GUIDE_PX + 1,) * 2))

    means, mean_of_plane = mean(guide), mean(plane)
    with_plane = mean(guide * plane[..., None]) - means * mean_of_plane[..., None]
    squares = [
        mean(guide[..., i] * guide[..., j]) - means[..., i] * means[..., j] + (_GUIDE_EPS if i == j else 0.0)
        for i, j in ((0, 0), (0, 1), (0, 2), (1, 1), (1, 2), (2, 2))
    ]
    slope = solve_symmetric(squares, with_plane)
    level = mean_of_plane - np.sum(slope * means, axis=-1)
    return np.asarray(np.sum(mean(slope) * guide, axis=-1) + mean(level), np.float32)


def solve_symmetric(matrix: list[NDArray[Any]], wanted: NDArray[Any]) -> NDArray[Any]:
    """x of A x = wanted (..., 3) for symmetric 3 x 3 matrices by their six planes (xx, xy, xz, yy, yz, zz): by cofactors."""
    a, b, c, d, e, f = matrix
    aa, bb, cc = d * f - e * e, c * e - b * f, b * e - c * d
    dd, ee, ff = a * f - c * c, b * c - a * e, a * d - b * b
    determinant = a * aa + b * bb + c * cc
    x, y, z = wanted[..., 0], wanted[..., 1], wanted[..., 2]
    found = np.stack([aa * x + bb * y + cc * z, bb * x + dd * y + ee * z, cc * x + ee * y + ff * z], axis=-1)
    return np.asarray(found / np.maximum(determinant, 1e-15)[..., None])


def closed_form(light: Colours, band: Trimap, sigma: float) -> Alpha:
    """Alpha (H, W) 0..1, better than the projection and six to eleven times dearer."""
    alpha, apart = projected(light, band, sigma)
    unknown = band == UNKNOWN
    if not unknown.any():
        return alpha
    laplacian, used = _laplacian(light.astype(np.float64), unknown)
    begun = alpha.ravel().astype(np.float64)[used]
    free = unknown.ravel()[used]
    tied = _TIED * (apart / (apart + _TIED_ALIKE)).ravel()[used] + 1e-4
    which, fixed = np.nonzero(free)[0], np.nonzero(~free)[0]
    rows = laplacian[which]
    matrix = rows[:, which] + sparse.diags(tied[which])
    wanted = tied[which] * begun[which] - rows[:, fixed] @ begun[fixed]
    found, _ = linalg.cg(
        matrix, wanted, x0=begun[which], rtol=1e-4, maxiter=_STEPS, M=sparse.diags(1 / matrix.diagonal())
    )  # fmt: skip
    flat = alpha.ravel().copy()
    flat[used[which]] = np.clip((found - 0.02) / 0.96, 0, 1)
    return flat.reshape(alpha.shape)


def _laplacian(picture: NDArray[np.float64], unknown: NDArray[np.bool_]) -> tuple["sparse.csr_matrix", NDArray[np.int64]]:
    """Over the pixels of all 3 x 3 windows that touch the band: the matrix, and which pixels its rows are."""
    height, width = unknown.shape
    windows = cv2.dilate(unknown.astype(np.uint8), np.ones((3, 3), np.uint8))
    windows[[0, -1]] = 0
    windows[:, [0, -1]] = 0
    ys, xs = np.nonzero(windows)
    count = len(ys)
    place = np.arange(height * width).reshape(height, width)
    pixels = np.stack([place[ys + a, xs + b] for a in (-1, 0, 1) for b in (-1, 0, 1)], axis=1)
    colours = picture.reshape(-1, 3)[pixels]
    away = colours - colours.mean(axis=1, keepdims=True)
    spread_of = np.einsum("nki,nkj->nij", away, away) / 9 + _EPS / 9 * np.eye(3)
    weights = (1 + np.einsum("nki,nij,nlj->nkl", away, np.linalg.inv(spread_of), away, optimize=True)) / 9
    used, flat = np.unique(pixels, return_inverse=True)
    flat = flat.reshape(count, 9)
    rows, columns = np.repeat(flat, 9, axis=1).ravel(), np.tile(flat, (1, 9)).ravel()
    off = sparse.coo_matrix((-weights.ravel(), (rows, columns)), (len(used), len(used))).tocsr()
    return off + sparse.diags(np.bincount(flat.ravel(), minlength=len(used)).astype(float)), used
