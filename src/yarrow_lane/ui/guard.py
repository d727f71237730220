"""One place that sees to whatever a step raises: trouble is said in words, a fault of ours is said with its log file named."""

import logging
from collections.abc import Callable
from logging.handlers import RotatingFileHandler
from pathlib import Path

from yarrow_lane.measure.faults import places_of
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.store.trouble import Damaged

_LOG_BYTES = 500_000  # our choice: two files, a megabyte in all
_FORMAT = "%(asctime)s %(levelname)s %(message)s"


class OwnFault(Trouble):
    """Something went wrong in the program itself."""


class _LogFile(RotatingFileHandler):
    """A log that cannot be written says so to whoever asks, not on the terminal."""

    written = True

    def handleError(self, record: logging.LogRecord) -> None:
        self.written = False


class Guard:
    """Every key, press, timer and answer goes through `attempt`; `report` says trouble to the person."""

    def __init__(self, folder: Path, report: Callable[[Trouble], None]) -> None:
        self._report = report
        self.log_file = folder / "yarrow-lane.log"
        self._log = logging.Logger("yarrow_lane")  # of this studio alone, so not one that all share
        self._handler = _LogFile(self.log_file, maxBytes=_LOG_BYTES, backupCount=1, encoding="utf-8", delay=True)
        self._handler.setFormatter(logging.Formatter(_FORMAT))
        self._log.addHandler(self._handler)

    def note(self, error: BaseException) -> bool:
        """Write down where something went wrong; whether it could be written."""
        self._handler.written = True
        self._log.error("%s", places_of(error))
        return self._handler.written

    def fault(self, error: BaseException) -> OwnFault:
        """Write a fault down and put it into words."""
        where = (
            f"the details are in {self.log_file}"
            if self.note(error)
            else f"its details could not be written to {self.log_file}"
        )
        return OwnFault(
            f"Something went wrong in Yarrow Lane itself ({type(error).__name__})", "", f"what was stored is kept; {where}"
        )

    def attempt(self, step: Callable[[], object]) -> Trouble | None:
        """Do a step; returns the trouble it ran into, which has been said already."""
        try:
            step()
        except Exception as error:
            return self.say(error)
        return None

    def say(self, error: Exception) -> Trouble:
        """Put into words what was raised: trouble as it is, anything else as a fault of ours, and the window goes on."""
        if isinstance(error, Damaged):
            self.note(error)
        trouble = error if isinstance(error, Trouble) else self.fault(error)
        self._report(trouble)
        return trouble

    def guarded(self, step: Callable[..., object]) -> Callable[..., None]:
        """The same step, seen to; for timers and signals."""

        def seen_to(*arguments: object) -> None:
            self.attempt(lambda: step(*arguments))

        return seen_to

    def close(self) -> None:
        self._log.removeHandler(self._handler)
        self._handler.close()
