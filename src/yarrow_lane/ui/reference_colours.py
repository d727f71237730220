"""The reference's colours for the rooms that ask about them, worked out once."""

from collections.abc import Callable

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.desk.derived import Derived, Key, Making
from yarrow_lane.tone.colours import Colours, colours_of
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.references import References


def want_colours(
    references: References, derived: Derived, compose: Compose, asker: object, ready: Callable[[Colours], None]
) -> None:  # fmt: skip
    """Call `ready` with them; nothing happens while there is no reference."""

    def arrived(shown: Shown) -> None:
        scale = shown.picture.shape[1] / compose.width_mm
        making = Making(lambda _: colours_of(shown.picture, scale), lambda value: value.bytes)
        derived.want(Key("reference colours", (reference_key(compose),)), asker, making, ready)

    references.want(compose, asker, arrived)
