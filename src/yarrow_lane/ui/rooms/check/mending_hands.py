"""What is done with a measured place: put on the last list, refused, struck off once it is mended."""

from dataclasses import replace
from typing import TYPE_CHECKING

from yarrow_lane.check.record import CHECK, ToMend, mend, no_longer_meant, not_mend, refuse
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.recompose import Proposal, Recomposed
from yarrow_lane.deliver.handover import with_notes
from yarrow_lane.lane.part import Edit
from yarrow_lane.ui.bench_sheet import Meaning
from yarrow_lane.ui.rooms.check.measuring_view import Told

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.check.measuring_mode import MeasuringMode


class MendingHands:
    """Of the place that measuring looks at."""

    def __init__(self, mode: "MeasuringMode") -> None:
        self._mode = mode

    def _line(self, told: Told) -> ToMend | None:
        photo = self._mode.page.commission.check.newest
        if told.at is None or told.chosen is None or photo is None:
            return None
        return ToMend(told.at.line, told.at.at, told.at.kinds, told.mends[told.chosen].minutes, photo.photo_id)

    def _put_on_list(self, line: ToMend) -> None:
        """On Check's list and on the last list at Deliver: one list, wherever it is looked at."""

        def listed(c: Commission) -> Recomposed:
            return Recomposed(replace(c, check=mend(c.check, line), deliver=with_notes(c.deliver, (line.words,))))

        self._mode.page.hand(lambda: Proposal("Put a place on the last list", "Check", listed))

    def to_easel(self) -> Meaning:
        """The place looked at goes on the list, and the painter to the easel."""
        told = self._mode.told()
        line = self._line(told) if told is not None else None
        if line is not None:
            self._put_on_list(line)
            self._mode.page.go_to("Easel")
        return None

    def list_it(self) -> None:
        """The place looked at goes on the list, or off it."""
        told = self._mode.told()
        line = self._line(told) if told is not None else None
        if line is None:
            return
        if any(t.words == line.words for t in self._mode.page.commission.check.to_mend):
            self._mode.page.hand(lambda: Edit(CHECK, "Took a place off the list", lambda x: not_mend(x, line.words)))
        else:
            self._put_on_list(line)

    def mean_it(self) -> None:
        """It is meant so, or counts again."""
        told = self._mode.told()
        fault = told.at if told is not None else None
        if fault is None:
            return
        meant = fault.meant
        if meant is not None:
            self._mode.page.hand(lambda: Edit(CHECK, "It counts again", lambda x: no_longer_meant(x, meant)))
        else:
            self._mode.page.hand(lambda: Edit(CHECK, "It is meant so", lambda x: refuse(x, fault.as_meant)))

    def strike(self, mended: tuple[ToMend, ...]) -> Meaning:
        """What is no longer found is done."""
        words = {t.words for t in mended}

        def struck(c: Commission) -> Recomposed:
            lines = tuple(replace(x, done=True) if x.text in words else x for x in c.deliver.last_list)
            left = tuple(t for t in c.check.to_mend if t.words not in words)
            return Recomposed(replace(c, check=replace(c.check, to_mend=left), deliver=replace(c.deliver, last_list=lines)))

        return Proposal("Struck off what is mended", "Check", struck)
