"""Where Layers stands: regions drawn, and the passes that follow from them."""

from yarrow_lane.intake.brief import Brief
from yarrow_lane.lane.standing import Act, Standing, stale_words
from yarrow_lane.layers.passes import Pass
from yarrow_lane.layers.regions import Layers
from yarrow_lane.layers.usual import likely_next
from yarrow_lane.measure.lengths import hours_text


def stand(layers: Layers, passes: tuple[Pass, ...], reference: str, brief: Brief) -> Standing:
    """Where the room stands; `reference` is the present one's key. A background alone is no portrait: the door stays open."""
    if passes and not layers.sitter_drawn:
        act = Act(f"Draw the {likely_next(layers, brief)}", "a stroke along its edge; then eyes and the rest")
        return Standing("only the background", "the sitter is not drawn", act, stale=stale_words(layers.made_from, reference))
    if not passes:
        return Standing(
            "", "no regions drawn", Act("Take the regions", "guessed from what is known of the picture; corrected by a stroke")
        )
    fact = f"{len(passes)} passes, {hours_text(sum(p.minutes for p in passes))}"
    return Standing(fact, stale=stale_words(layers.made_from, reference))
