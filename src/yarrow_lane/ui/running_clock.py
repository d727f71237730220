"""The clock at the easel while it runs: seen everywhere, asked about when no hand has come for long and before the window closes."""

from collections.abc import Callable
from datetime import datetime, timedelta

from PySide6.QtCore import QObject, QTimer

from yarrow_lane.commission.standing import CommissionStanding
from yarrow_lane.easel.clock import stopped
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.ui.messages import Offer
from yarrow_lane.ui.workroom import Workroom

_MINUTE_MS = 60_000
_WITHOUT_A_HAND = timedelta(hours=3)  # our choice: no layer is painted longer without a look at the card


class RunningClock(QObject):
    """`ask(words, offer)` says something with a button beside it, `refresh` shows the frame again."""

    def __init__(self, workroom: Workroom, ask: Callable[[str, Offer], None], refresh: Callable[[], None]) -> None:
        super().__init__()
        self._desk, self._guarded, self._ask, self._refresh = workroom.desk, workroom.guard.guarded, ask, refresh
        self._last_hand: datetime = self._desk.clock()
        self._asked_about: datetime | None = None
        self._asked_on_closing = False
        self._minute = QTimer(self)
        self._minute.setInterval(_MINUTE_MS)
        self._minute.timeout.connect(self._guarded(self.minute_over))

    @property
    def ticking(self) -> bool:
        """Whether it moves on by itself."""
        return self._minute.isActive()

    def hand(self) -> None:
        """A key, or a change: the painter is here."""
        self._last_hand, self._asked_on_closing = self._desk.clock(), False

    def words(self) -> str:
        """For the header; empty when none runs."""
        running = self._desk.standings.clocks()
        if running and not self.ticking:
            self._minute.start()
        elif not running:
            self._minute.stop()
        return " · ".join(f"clock {self._ran(s)} · {s.title}" for s in running)

    def _ran(self, s: CommissionStanding) -> str:
        assert s.clock_since is not None
        return hours_text((self._desk.clock() - s.clock_since).total_seconds() / 60)

    def minute_over(self) -> None:
        """It has moved on; one that has run long without a hand is asked about, once."""
        self._refresh()
        for s in self._desk.standings.clocks():
            since = max(filter(None, (s.clock_since, self._last_hand)))
            if self._desk.clock() - since > _WITHOUT_A_HAND and self._asked_about != s.clock_since:
                self._asked_about = s.clock_since
                words = f"The clock has run {self._ran(s)} on {s.title}, {s.clock_on}. Are you still painting?"
                self._ask(words, Offer("Stop it", self._guarded(lambda i=s.id: self.stop(i))))

    def stop(self, commission_id: str) -> None:
        """The painter stopped. Raises `StoreTrouble`."""
        stop = stopped(self._desk.commission(commission_id).log, self._desk.clock())
        if stop is not None:
            self._desk.happen(commission_id, stop)
        self._refresh()

    def may_close(self, end: Callable[[], None]) -> bool:
        """Whether none runs, or the painter was asked and closes again without a hand between; `end` closes the window."""
        running = self._desk.standings.clocks()
        if not running or self._asked_on_closing:
            return True
        self._asked_on_closing = True

        def stop_all() -> None:
            for s in running:
                self.stop(s.id)
            end()

        names = " and ".join(f"{s.title}, {s.clock_on}, since {s.clock_since:%H:%M}" for s in running)
        words = f"Not closed yet. The clock runs on {names}. Close again to let it run on."
        self._ask(words, Offer("Stop it and close", self._guarded(stop_all)))
        return False

    def close(self) -> None:
        self._minute.stop()
