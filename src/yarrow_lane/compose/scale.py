"""One scale for all sitters, from lengths of life known in their photographs, by weighted least squares.

What is unknown of each sitter is the logarithm of mm of life on a photograph px; every known length is a row, weighted by its doubt
and that of the two clicks.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.compose.known import CLICK_PX, Known
from yarrow_lane.measure.trouble import Trouble

_ACCUSED = 2.6  # studentised residual: our choice, a false alarm in one of twenty groups of four
_SAME = 0.02  # of a distance's logarithm: our choice, nobody tells them apart


class ScaleTrouble(Trouble):
    """A length that says nothing of scale."""


@dataclass(frozen=True)
class Tie:
    """Of one sitter a px is `ratio` times as many mm of life as of the other; 1 when they stand side by side in one photograph."""

    one: int
    other: int
    ratio: float = 1.0
    doubt: float = 0.05  # of its logarithm: our choice


@dataclass(frozen=True)
class Scales:
    """`log_mm_per_px` and its standard deviation by piece; `accused` are the lengths that contradict the others, in words."""

    log_mm_per_px: dict[int, float]
    sigma: dict[int, float]
    accused: tuple[str, ...] = ()

    def share(self, piece_id: int, canvas_mm_per_px: float) -> tuple[float, float] | None:
        """Share of life on the canvas and its standard deviation; None while nothing is known of that piece."""
        if piece_id not in self.log_mm_per_px:
            return None
        share = canvas_mm_per_px / math.exp(self.log_mm_per_px[piece_id])
        return share, share * self.sigma[piece_id]

    def at_share(self, piece_id: int, share: float) -> float:
        """The canvas mm per px at which that piece has this share of life; raises KeyError for an unknown one."""
        return share * math.exp(self.log_mm_per_px[piece_id])


def length_px(known: Known) -> float:
    """How long it is in the photograph; raises `ScaleTrouble` for two ends in one place or no length."""
    px = math.dist(known.a, known.b)
    if px < 1 or known.mm <= 0 or known.seen <= 0:
        raise ScaleTrouble(f"“{known.what}” was not taken", "it has no length", "mark its two ends apart and write its mm")
    return px


def solve(known: Sequence[Known], names: dict[int, str], ties: Sequence[Tie] = ()) -> Scales:
    """The scale of every piece of which something is known; `names` by piece id are for the words.

    Pieces tied to none with a known length are left out. Raises `ScaleTrouble` for a length of nothing.
    """
    told = _reached({k.piece_id for k in known}, ties)
    place = {piece: n for n, piece in enumerate(sorted(told))}
    if not place:
        return Scales({}, {})
    rows: list[tuple[NDArray[np.float64], float, float]] = []
    for k in known:
        px = length_px(k)
        row = np.zeros(len(place))
        row[place[k.piece_id]] = 1
        rows.append((row, math.log(k.mm * k.seen / px), math.hypot(k.doubt_mm / k.mm, math.sqrt(2) * CLICK_PX / px)))
    for tie in ties:
        if tie.one in place and tie.other in place:
            row = np.zeros(len(place))
            row[place[tie.one]], row[place[tie.other]] = 1, -1
            rows.append((row, math.log(tie.ratio), tie.doubt))
    matrix, wanted, sd = np.array([r for r, _, _ in rows]), np.array([w for _, w, _ in rows]), np.array([s for _, _, s in rows])
    sd = np.maximum(sd, 1e-6)
    weighted = matrix / sd[:, None]
    covariance = np.linalg.inv(weighted.T @ weighted)
    found = covariance @ (weighted.T @ (wanted / sd))
    left = wanted - matrix @ found
    leverage = np.sum((weighted @ covariance) * weighted, axis=1)
    free = np.maximum(1 - leverage, 1e-9)
    studentised = np.where(1 - leverage < 1e-6, 0.0, left / sd / np.sqrt(free))
    accused = _accused(known, names, studentised, left / free)
    logs = {piece: float(found[n]) for piece, n in place.items()}
    sigmas = {piece: float(math.sqrt(covariance[n, n])) for piece, n in place.items()}
    return Scales(logs, sigmas, accused)


def _reached(known: set[int], ties: Sequence[Tie]) -> set[int]:
    """Those with a known length, and those tied to them."""
    found = set(known)
    while True:
        more = {p for t in ties for p in (t.one, t.other) if t.one in found or t.other in found} - found
        if not more:
            return found
        found |= more


def _accused(
    known: Sequence[Known], names: dict[int, str], studentised: NDArray[np.float64], against: NDArray[np.float64]
) -> tuple[str, ...]:  # fmt: skip
    """The length that contradicts the others most. Of two that contradict each other none can be named: both are."""
    worst = float(np.max(np.abs(studentised), initial=0.0))
    if worst <= _ACCUSED:
        return ()
    said: list[str] = []
    told: set[int] = set()
    for n, k in enumerate(known):
        if abs(studentised[n]) < 0.999 * worst:
            continue
        others = [o for m, o in enumerate(known) if m != n and o.piece_id == k.piece_id]
        if not others or (len(others) == 1 and k.piece_id in told):
            continue
        told.add(k.piece_id)
        times = math.exp(abs(float(against[n])))
        size = "larger" if against[n] > 0 else "smaller"
        by = " and ".join(o.what for o in others)
        name = names.get(k.piece_id, "a sitter")
        said.append(
            f"{name}: by its {k.what} it would be {times:.2f} times {size} than by its {by}. Measure one of them again."
        )
    return tuple(said)


def one_scale(scales: Scales, now: dict[int, float], far: dict[int, float]) -> tuple[float, dict[int, float]]:
    """One share of life for all: that share, and canvas mm per px by piece.

    `now` is canvas mm per px by piece; the area covered together stays as near as can be. A piece `far` times farther than the
    group is drawn so much smaller. Pieces of unknown scale stay out. Raises `ScaleTrouble` when none is known.
    """
    logs = [math.log(mm) - scales.log_mm_per_px[i] + math.log(far.get(i, 1.0)) for i, mm in now.items() if i in scales.sigma]
    if not logs:
        raise ScaleTrouble("Nothing was brought to one scale", "no length of any sitter is known", "mark a known length first")
    share = math.exp(sum(logs) / len(logs))
    return share, {i: scales.at_share(i, share / far.get(i, 1.0)) for i in now if i in scales.sigma}


def share_words(share: float, sigma: float) -> str:
    """The share of life with its doubt: "0.82 of life, ± 5 %"."""
    return f"{share:.2f} of life, ±\u202f{max(1, round(100 * sigma / share))}\u202f%"


def receded(far: float) -> tuple[float, float]:
    """How distance shows on a sitter that stands farther than the others: what warm is to change by, and contrast to be times.

    Far is cooler and flatter (common practice); so much for each doubling of the distance is our choice.
    """
    doublings = math.log2(max(far, 1e-3))
    return -8.0 * doublings, 0.8**doublings


def far_words(far: float) -> str:
    """An on-purpose distance in words."""
    if abs(math.log(far)) < _SAME:
        return "at the same distance"
    if far > 1:
        return f"stands {far:.2f} times farther: drawn {1 / far:.2f} of its size beside the others"
    return f"stands nearer, at {far:.2f} of the distance: drawn {1 / far:.2f} times its size beside the others"
