"""What is done with a measured place: put on the last list, refused, struck off once it is mended."""

from collections.abc import Callable
from typing import TYPE_CHECKING

from yarrow_lane.check.record import CHECK, ToMend, no_longer_meant
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.last_list import listed, meant, struck, to_mend_now, unlisted
from yarrow_lane.commission.recompose import Proposal, Recomposed
from yarrow_lane.lane.part import Edit
from yarrow_lane.ui.bench_sheet import Meaning
from yarrow_lane.ui.rooms.check.measuring_view import Told

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.check.measuring_mode import MeasuringMode


class MendingHands:
    """Of the place that measuring looks at."""

    def __init__(self, mode: "MeasuringMode") -> None:
        self._mode = mode

    def _take(self, label: str, step: Callable[[Commission], Commission]) -> None:
        """Both lists change in one step, and are taken back in one."""
        self._mode.page.hand(lambda: Proposal(label, "Check", lambda c: Recomposed(step(c))))

    def _line(self, told: Told) -> ToMend:
        fault, photo = told.faults[told.chosen], self._mode.page.commission.check.photo_id
        return ToMend(fault.line, fault.at, fault.kinds, told.mends[told.chosen].minutes, photo, fault.mm)

    def to_easel(self) -> Meaning:
        """The place looked at goes on the list, and the painter to the easel."""
        told = self._mode.told()
        if told is not None and told.at is not None:
            line, before = self._line(told), told.at.listed
            # One that was marked done and is found again is to be mended once more.
            if before is None or before not in to_mend_now(self._mode.page.commission):
                self._take("Put a place on the last list", lambda c: listed(unlisted(c, before) if before else c, line))
            self._mode.page.go_to("Easel")
        return None

    def list_it(self) -> None:
        """The place looked at goes on the list, or off it."""
        told = self._mode.told()
        if told is None or told.at is None or told.at.meant is not None:
            return
        on_list = told.at.listed
        if on_list is not None:
            self._take("Took a place off the last list", lambda c: unlisted(c, on_list))
        else:
            line = self._line(told)
            self._take("Put a place on the last list", lambda c: listed(c, line))

    def mean_it(self) -> None:
        """It is meant so, or counts again."""
        told = self._mode.told()
        if told is None or told.at is None:
            return
        fault, said = told.at, told.at.meant
        if said is not None:
            self._mode.page.hand(lambda: Edit(CHECK, "It counts again", lambda x: no_longer_meant(x, said)))
        else:
            self._take("It is meant so", lambda c: meant(c, fault.as_meant))

    def strike(self, mended: tuple[ToMend, ...]) -> Meaning:
        """What is no longer found is done."""
        return Proposal("Struck off what is mended", "Check", lambda c: Recomposed(struck(c, mended)))
