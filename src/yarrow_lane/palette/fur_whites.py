"""White fur is painted from tinted greys to pure: the steps between its shadow and titanium white."""

from yarrow_lane.paint.seen import Lab

_STEPS = (0.0, 0.35, 0.65, 0.9)  # of the way from shadow to light: our choice; the last step is pure white, last of all


def fur_whites(shadow: Lab, light: Lab) -> tuple[Lab, ...]:
    """Four greys that keep the hue of the shadow while they pale towards the light."""
    return tuple(
        (shadow[0] + (light[0] - shadow[0]) * t, shadow[1] + (light[1] - shadow[1]) * t, shadow[2] + (light[2] - shadow[2]) * t)
        for t in _STEPS
    )
