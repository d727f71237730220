"""The light over a photographed canvas, apart from its paint.

ln(painting / reference) on cells = light + paint. The light is a smooth low-order field for each channel with a prior; paint is taken
robustly (Tukey's biweight, Beaton and Tukey 1974), one weight for the three channels, cells of one clump counted once. Greys hold the light
at their places; with them each region of the picture has an offset of its own, so that a fault of a whole region is not taken for light.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.check.greys import Greys
from yarrow_lane.check.grid import CELL_MM
from yarrow_lane.measure.colour.cielab import LUMINANCE

Floats = NDArray[np.float64]
_ORDER = 3
# Standard deviations of the field's terms by order, ln over half a canvas: our choice, from rooms with one window or one lamp.
_PRIOR = {0: 100.0, 1: 0.5, 2: 0.25, 3: 0.08}
# What the camera's curve may do where no greys tell it, ln for a luminance e times the middle grey's, and its bend: our choice.
_TONE, _TONE_BEND = 0.15, 0.05
_REGION = 0.25  # ln: what a whole region may be off, where greys are there to tell
_FLARE = 0.004  # of white, in both: a lens scatters so much, and darks would shout (our choice)
_CLUMP_MM = 15.0  # cells nearer than this say one thing (our choice)
_ROUNDS, _TUKEY = 12, 2.2
_LEAST_SD, _MOST_SD = 0.04, 0.25
_GREY_SD, _DARK_GREY_SD = 0.03, 0.08  # ln, of a grey square read: printers and shine
_WEIGHTS = np.array([0.25, 0.5, 0.25])


@dataclass(frozen=True, eq=False)
class Field:
    """`light` (h, w, 3) as it lies over the canvas, `seen` with what the camera's curve made of it: what to divide cells by; `sd` (h, w) its
    doubt, ln.
    """

    light: Floats
    seen: Floats
    sd: Floats
    _weights: Floats
    _terms: Floats
    _known: Floats
    _of_light: int

    def hidden(self, region: NDArray[np.bool_]) -> float:
        """Share of an even fault over `region` (h, w) that this light would take for its own: 0 shows all of it, 1 nothing."""
        if not region.any():
            return 0.0
        inside = region.ravel().astype(float)
        pulled = self._terms.T @ (self._weights * inside)
        found = self._terms[:, : self._of_light] @ np.linalg.solve(self._known, pulled)[: self._of_light]
        return float(found[region.ravel()].mean())


def field_of(
    painting: Floats, reference: Floats, size_mm: tuple[float, float], witness: Floats, labels: NDArray[np.int64],
    greys: Greys | None = None, shape: Floats | None = None,
) -> Field:  # fmt: skip
    """From linear light on cells, (h, w, 3) each. `witness` (h, w) is how far a cell may speak, 0 to 1, `labels` its region.

    `greys` are read with the camera's curve undone, as the painting is. `shape` (h, w, 3) is the light a white sheet showed in the same
    place: then only its level is sought.
    """
    rows, columns = painting.shape[:2]
    down, across = np.mgrid[0:rows, 0:columns]
    x, y = ((across + 0.5) / columns * 2 - 1).ravel(), ((down + 0.5) / rows * 2 - 1).ravel()
    seen = painting if shape is None else painting / shape
    ratio = np.log((seen.reshape(-1, 3) + _FLARE) / (reference.reshape(-1, 3) + _FLARE))
    order = _ORDER if shape is None else 0
    terms, sds = _terms(x, y, order)
    smooth = of_light = terms.shape[1]
    if greys is None:
        tone = np.log((reference @ LUMINANCE).ravel() + 0.02) - np.log(0.2)
        terms, sds = np.concatenate([terms, np.stack([tone, tone**2], 1)], 1), np.append(sds, (_TONE, _TONE_BEND))
        of_light += 2
    else:
        own = [(labels.ravel() == n).astype(float) for n in np.unique(labels)]
        terms, sds = np.concatenate([terms, np.stack(own, 1)], 1), np.append(sds, [_REGION] * len(own))
    known = np.diag(sds**-2.0)
    pulled = np.zeros((terms.shape[1], 3))
    if greys is not None:
        held, wanted, weight = _held(greys, size_mm, order, shape, terms.shape[1])
        known = known + held.T @ (weight[:, None] * held)
        pulled = held.T @ (weight[:, None] * wanted)
    base = _believed(painting, reference) * witness.ravel()
    weights, sd, whole = base * (CELL_MM / _CLUMP_MM) ** 2 / _MOST_SD**2, _MOST_SD, known
    found: NDArray[np.floating] = np.zeros((terms.shape[1], 3))
    for turn in range(_ROUNDS):
        whole = known + terms.T @ (weights[:, None] * terms)
        found = np.linalg.solve(whole, terms.T @ (weights[:, None] * ratio) + pulled)
        rest = np.sqrt((ratio - terms @ found) ** 2 @ _WEIGHTS)
        near = rest[base > 0.5 * base.max()] if base.max() > 0 else rest
        sd = float(np.clip(1.2 * np.median(near), _LEAST_SD, _MOST_SD))
        far = rest / (_TUKEY * sd * (2.0 if turn < 3 else 1.0))  # wide first: a bad beginning throws out what is right
        weights = base * np.clip(1 - far**2, 0, 1) ** 2 * (CELL_MM / _CLUMP_MM) ** 2 / sd**2
    whole = known + terms.T @ (weights[:, None] * terms)
    mine = terms[:, :of_light]
    doubt = np.sqrt(np.einsum("ij,jk,ik->i", mine, np.linalg.inv(whole)[:of_light, :of_light], mine))
    every = 1.0 if shape is None else shape
    light, through = (np.exp(terms[:, :n] @ found[:n]).reshape(rows, columns, 3) * every for n in (smooth, of_light))
    return Field(light, through, doubt.reshape(rows, columns), weights, terms, whole, of_light)


def _terms(x: Floats, y: Floats, order: int) -> tuple[Floats, Floats]:
    """Powers of x and y (-1 to 1) up to the order, (n, terms), and the prior of each."""
    powers = [(o - k, k) for o in range(order + 1) for k in range(o + 1)]
    return np.stack([x**i * y**k for i, k in powers], 1), np.array([_PRIOR[i + k] for i, k in powers])


def _held(
    greys: Greys, size_mm: tuple[float, float], order: int, shape: Floats | None, columns: int
) -> tuple[Floats, Floats, Floats]:  # fmt: skip
    """The greys as rows of the fit: terms at their places, ln light over their luminance, and how sure each is."""
    x, y = (greys.at / size_mm * 2 - 1).T
    terms, _ = _terms(x, y, order)
    light = greys.light
    if shape is not None:
        rows, across = shape.shape[:2]
        at = np.clip(np.floor(greys.at / size_mm * (across, rows)).astype(int), 0, (across - 1, rows - 1))
        light = light / shape[at[:, 1], at[:, 0]]
    wanted = np.log((light + _FLARE) / (greys.true[:, None] + _FLARE))
    sd = np.where(greys.true < 0.1, _DARK_GREY_SD, _GREY_SD)
    return np.concatenate([terms, np.zeros((len(terms), columns - terms.shape[1]))], 1), wanted, sd**-2.0


def _believed(painting: Floats, reference: Floats) -> Floats:
    """How far each cell is believed for its own value: darks carry flare and the black of paint, whites may be burnt out."""
    dark = np.clip((reference @ LUMINANCE - 0.008) / 0.05, 0.02, 1)
    burnt = np.clip((0.97 - painting.max(-1)) / 0.05, 0.02, 1)
    return np.asarray((dark * burnt).ravel())
