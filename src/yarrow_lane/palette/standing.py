"""Where Palette stands: colours taken, and mixes written."""

from yarrow_lane.lane.standing import Act, Standing, Task, stale_words
from yarrow_lane.palette.mixes import counts_as_mix
from yarrow_lane.palette.wells import Palette

MIXING_MIN = 40.0  # our choice: eight wells of five minutes


def stand(palette: Palette, reference: str) -> Standing:
    """Where the room stands; `reference` is the present one's key."""
    wells = palette.wells
    if not wells:
        act = Act("Take the first colours", "a dark, a middle and a light are proposed; click on the crop for others")
        return Standing("", "no colour taken", act, (Task("mix the colours", MIXING_MIN),))
    unmixed = [w for w in palette.by_lightness if not counts_as_mix(w.mix)]
    fact = f"{len(wells)} well{'s' * (len(wells) != 1)}, {len(wells) - len(unmixed)} mixed"
    stale = stale_words(palette.made_from, reference)
    if not unmixed:
        return Standing(fact, stale=stale)
    without = f"{len(unmixed)} well{'s' * (len(unmixed) != 1)} without a mix"
    act = Act(f"Write the mix of {palette.name_of(unmixed[0])}", without, MIXING_MIN)
    return Standing(fact, f"{len(unmixed)} to mix", act, (Task("mix the colours", MIXING_MIN),), stale=stale)
