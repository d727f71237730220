"""What carries a traced line onto this ground, and what takes it away again. Common practice."""

import numpy as np

from yarrow_lane.measure.colour.srgb import linear_from_srgb8

_DARK, _LIGHT = 0.10, 0.45  # relative luminance of the ground: our choice; about values 3.5 and 7


def brightness(ground: tuple[int, int, int]) -> float:
    """Relative luminance of that sRGB colour, 0 to 1."""
    red, green, blue = linear_from_srgb8(np.array(ground, np.uint8)).tolist()
    return float(0.2126 * red + 0.7152 * green + 0.0722 * blue)


def takes_light_lines(ground: tuple[int, int, int]) -> bool:
    """Whether what is drawn on it is white: charcoal, chalk, thinned white."""
    return brightness(ground) < _LIGHT


def carried_with(ground: tuple[int, int, int]) -> tuple[str, ...]:
    """Sentences for a ground of that sRGB colour, the advised way first."""
    bright = brightness(ground)
    if bright < _DARK:
        found = ["White charcoal rubbed on the back, or white transfer paper: graphite is lost on a ground so dark."]
    elif takes_light_lines(ground):
        found = ["White charcoal rubbed on the back: it is seen on this ground, and a dry cloth takes it off."]
    else:
        found = ["Graphite paper, or soft graphite rubbed on the back, lightly: it is seen on this ground."]
    found.append(
        "White charcoal and chalk wipe off dry; graphite wants a soft eraser before paint; waxy carbon stays and shows through."
    )
    found.append("Draw over lost lines in white charcoal or thinned paint; thin paint lets graphite show.")
    return tuple(found)
