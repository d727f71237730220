"""Where Palette stands: colours taken, mixes found, heaps mixed."""

from yarrow_lane.lane.standing import Act, Standing, Task, stale_words
from yarrow_lane.measure.words import counted
from yarrow_lane.palette.wells import Palette

MINUTES_A_WELL = 5.0  # our choice
_USUAL_WELLS = 8  # before any is taken: our choice


def stand(palette: Palette, reference: str) -> Standing:
    """Where the room stands; `reference` is the present one's key."""
    wells = palette.wells
    if not wells:
        act = Act("Take a string of colours", "proposed from the sitter's own values, with its mixes")
        return Standing("", "no colour taken", act, (Task("mix the colours", _USUAL_WELLS * MINUTES_A_WELL),))
    stale = stale_words(palette.made_from, reference)
    open_ones = palette.unanswered()
    fact = f"{_wells(len(wells))}, {len(wells) - len(open_ones)} with a mix"
    if open_ones:
        act = Act(
            f"Find the mixes of {_wells(len(open_ones))}", "on few tubes of the paintbox", len(open_ones) * MINUTES_A_WELL
        )
        task = Task("mix the colours", len(open_ones) * MINUTES_A_WELL)
        return Standing(fact, f"{len(open_ones)} to mix", act, (task,), stale=stale)
    waiting = palette.to_mix()
    if waiting:
        minutes = len(waiting) * MINUTES_A_WELL
        act = Act(f"Mix {_wells(len(waiting))}", "paint a patch of each on scrap and let it dry", minutes)
        return Standing(fact, f"{len(waiting)} to mix", act, (Task("mix the colours", minutes),), stale=stale)
    return Standing(fact, stale=stale)


def _wells(count: int) -> str:
    return counted(count, "well")
