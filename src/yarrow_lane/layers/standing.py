"""Where Layers stands: regions drawn, and the passes that follow from them."""

from yarrow_lane.lane.standing import Act, Standing, stale_words
from yarrow_lane.layers.passes import Pass
from yarrow_lane.layers.regions import Layers
from yarrow_lane.measure.lengths import hours_text


def stand(layers: Layers, passes: tuple[Pass, ...], reference: str) -> Standing:
    """Where the room stands; `reference` is the present one's key."""
    if not passes:
        return Standing("", "no regions drawn", Act("Draw the background", "then fur, skin, eyes: each its own outline"))
    fact = f"{len(passes)} passes, {hours_text(sum(p.minutes for p in passes))}"
    return Standing(fact, stale=stale_words(layers.made_from, reference))
