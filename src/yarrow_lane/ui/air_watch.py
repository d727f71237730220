"""The air at the easel, read every few minutes from where the studio has it from; trouble is said once until it is over."""

from collections.abc import Callable

from PySide6.QtCore import QObject, QTimer

from yarrow_lane.desk.desk import Desk
from yarrow_lane.easel.air_text import AirTrouble
from yarrow_lane.measure.trouble import Trouble

_EVERY_MS = 300_000  # our choice: a room changes slowly


class AirWatch(QObject):
    """`report` says trouble, `refresh` shows what rests on the air again."""

    def __init__(
        self,
        desk: Desk,
        guarded: Callable[[Callable[[], None]], Callable[[], None]],
        report: Callable[[Trouble], None],
        refresh: Callable[[], None],
    ) -> None:
        super().__init__()
        self._desk, self._report, self._refresh = desk, report, refresh
        self._said = ""
        self._timer = QTimer(self)
        self._timer.setInterval(_EVERY_MS)
        self._timer.timeout.connect(guarded(self.look))

    def follow(self) -> None:
        """Watch as long as the studio has a source, else rest: an idle window does nothing."""
        if self._desk.studio.air_from and not self._timer.isActive():
            self._timer.start()
            self.look()
        elif not self._desk.studio.air_from:
            self._timer.stop()

    def look(self) -> None:
        """One reading."""
        try:
            self._desk.air.look(self._desk.clock())
            self._said = ""
            self._refresh()
        except AirTrouble as trouble:
            if trouble.why != self._said:
                self._said = trouble.why
                self._report(trouble)

    def close(self) -> None:
        self._timer.stop()
