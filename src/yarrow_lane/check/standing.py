"""Where Check stands: the finished painting beside its reference."""

from datetime import datetime

from yarrow_lane.check.record import Check
from yarrow_lane.lane.standing import Act, Standing, stale_words
from yarrow_lane.measure.days import day_text


def stand(check: Check, last_painted: datetime | None, finished: bool, reference: str) -> Standing:
    """Where the room stands; `finished` when every pass is painted."""
    act = Act("Photograph the painting", "straight on, then choose the file or drop it on the window")
    if check.at is None:
        return Standing("", "no photograph of the painting", act)
    fact = f"compared {day_text(check.at.date())}"
    if check.to_mend or check.meant_so:
        parts = [f"{len(check.to_mend)} to mend"] * bool(check.to_mend) + [f"{len(check.meant_so)} meant so"] * bool(
            check.meant_so
        )
        fact = f"{fact}, {', '.join(parts)}"
    stale = stale_words(check.made_from, reference)
    if last_painted is None or not finished or check.at < last_painted:
        return Standing(fact, "compare again when the painting is done", act, stale=stale)
    return Standing(fact, stale=stale)
