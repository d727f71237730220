"""A pigment's colour on the screen as it is remembered, before any tube of it was measured."""

from yarrow_lane.measure.kept import kept
from yarrow_lane.paint.paints import TINT_PARTS
from yarrow_lane.paint.pigments.curves import curves
from yarrow_lane.paint.seen import Srgb, lab_of_paint, srgb_of


@kept(128)
def remembered_colour(pigment: str, tint: bool) -> Srgb:
    """A pigment pure or 1 to 10 in white."""
    known = curves()
    k, s = known[pigment]
    if tint:
        k, s = k + TINT_PARTS * known["PW6"][0], s + TINT_PARTS * known["PW6"][1]
    return srgb_of(lab_of_paint(k, s))
