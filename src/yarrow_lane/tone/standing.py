"""Where Tone stands: the ground that is laid."""

from yarrow_lane.lane.standing import Act, Standing, Task
from yarrow_lane.tone.record import Tone

GROUND_MIN = 30.0  # our choice: a thin wash over a head-sized canvas


def stand(tone: Tone) -> Standing:
    """Where the room stands."""
    if tone.ground:
        return Standing(tone.ground)
    act = Act("Lay the ground", "proposed from the picture's own values; take it or choose another", GROUND_MIN)
    return Standing("", "no ground noted", act, (Task("lay the ground", GROUND_MIN),))
