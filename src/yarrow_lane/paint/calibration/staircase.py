"""A dab read by eye: the patch on the screen is moved until it looks like the paint, in steps that halve with each turn.

Lightness first, then warm and cool, then red and green. Good to about two (our choice), on a screen that shows sRGB in daylight.
"""

from dataclasses import dataclass, replace
from typing import Literal

from yarrow_lane.paint.seen import Lab

Answer = Literal["more", "less", "same"]
BY_EYE_DOUBT = 2.0  # Lab: our choice
_FIRST, _LAST = 8.0, 1.0  # Lab steps: our choices
# For each step: the axis of Lab, and how paint that has more and less of it is called.
AXES: tuple[tuple[int, str, str], ...] = (
    (0, "lighter", "darker"),
    (2, "yellower", "bluer"),
    (1, "redder", "greener"),
    (0, "lighter", "darker"),
)


@dataclass(frozen=True)
class Staircase:
    """Where it stands: what the screen shows, the axis asked about, the step, and the answer before."""

    shown: Lab
    stage: int = 0
    step: float = _FIRST
    before: Answer | None = None

    @property
    def done(self) -> bool:
        """Whether nothing is left to ask."""
        return self.stage >= len(AXES)

    @property
    def asks(self) -> tuple[str, str]:
        """The two words to choose from: what the paint is against the screen."""
        _, more, less = AXES[self.stage]
        return more, less


def answered(stairs: Staircase, answer: Answer) -> Staircase:
    """After the painter said the paint has more or less of it, or looks the same."""
    if stairs.done:
        return stairs
    if answer == "same":
        return _next(stairs)
    turned = stairs.before is not None and stairs.before != answer
    step = stairs.step / 2 if turned else stairs.step
    if step < _LAST:
        return _next(stairs)
    axis = AXES[stairs.stage][0]
    moved = list(stairs.shown)
    moved[axis] += step if answer == "more" else -step
    moved[0] = min(max(moved[0], 0.0), 100.0)
    return replace(stairs, shown=(moved[0], moved[1], moved[2]), step=step, before=answer)


def _next(stairs: Staircase) -> Staircase:
    # The second look at lightness starts finer: the first one has been near.
    last = stairs.stage + 1 == len(AXES) - 1
    return replace(stairs, stage=stairs.stage + 1, step=_FIRST / 4 if last else _FIRST, before=None)
