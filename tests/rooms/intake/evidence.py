"""Evidence of a photograph as a test needs it."""

from yarrow_lane.intake.evidence import Evidence
from yarrow_lane.intake.exposure import Cast
from yarrow_lane.intake.light import Light
from yarrow_lane.intake.resolution.usable import Usable


def resolving(share: float) -> Usable:
    return Usable(share, 0.14)


# All of it resolves and nothing is wrong with it.
PLAIN = Evidence(
    0.5, resolving(1.0), resolving(1.0), False, 0.0, 0.0, Cast((0, 0), (0, 0)), 70.0, (), Light(None, "unknown", "no readable glint")
)  # fmt: skip
