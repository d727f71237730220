"""Labels moved apart along a line, each as near its own place as the others let it."""

from collections.abc import Sequence


def spread(places: Sequence[float], apart: float, least: float, most: float) -> tuple[float, ...]:
    """Places at least `apart` from each other in the order given, the sum of squared shifts least; within `least` to `most`.

    Where they do not all fit between the two they begin at `least`. Neighbours that meet are moved as one about their middle (pool
    adjacent violators; Barlow and others, Statistical Inference under Order Restrictions, 1972).
    """
    blocks: list[tuple[float, int]] = []  # mean of place less own number times `apart`, count
    for number, place in enumerate(places):
        mean, count = place - number * apart, 1
        while blocks and blocks[-1][0] > mean:
            before, size = blocks.pop()
            mean, count = (mean * count + before * size) / (count + size), count + size
        blocks.append((mean, count))
    most_start = max(least, most - (len(places) - 1) * apart)
    starts = [min(max(mean, least), most_start) for mean, count in blocks for _ in range(count)]
    return tuple(start + number * apart for number, start in enumerate(starts))
