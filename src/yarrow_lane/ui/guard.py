"""One place that sees to whatever a step raises: trouble is said in words, a fault of ours is said with its log file named."""

import logging
from collections.abc import Callable
from logging.handlers import RotatingFileHandler
from pathlib import Path

from yarrow_lane.measure.trouble import Trouble

_LOG_BYTES = 500_000  # our choice: two files, a megabyte in all
_FORMAT = "%(asctime)s %(levelname)s %(message)s"


class OwnFault(Trouble):
    """Something went wrong in the program itself."""


class Guard:
    """Every key, press, timer and answer goes through `attempt`."""

    def __init__(self, folder: Path, say: Callable[[str, bool], None]) -> None:
        self._say = say
        self.log_file = folder / "yarrow-lane.log"
        self._log = logging.Logger("yarrow_lane")  # of this studio alone, so not one that all share
        self._handler = RotatingFileHandler(self.log_file, maxBytes=_LOG_BYTES, backupCount=1, encoding="utf-8", delay=True)
        self._handler.setFormatter(logging.Formatter(_FORMAT))
        self._log.addHandler(self._handler)

    def fault(self, error: BaseException) -> OwnFault:
        """Write a fault down and put it into words."""
        self._log.error("%s", type(error).__name__, exc_info=error)
        what = f"Something went wrong in Yarrow Lane itself ({type(error).__name__})"
        return OwnFault(what, "", f"what was stored is kept; the details are in {self.log_file}")

    def attempt(self, step: Callable[[], object]) -> Trouble | None:
        """Do a step; returns the trouble it ran into, which has been said already."""
        try:
            step()
        except Trouble as trouble:
            self._say(trouble.sentence, True)
            return trouble
        except Exception as error:  # ours: said, written down, and the window goes on
            fault = self.fault(error)
            self._say(fault.sentence, True)
            return fault
        return None

    def guarded(self, step: Callable[..., object]) -> Callable[..., None]:
        """The same step, seen to; for timers and signals."""

        def seen_to(*arguments: object) -> None:
            self.attempt(lambda: step(*arguments))

        return seen_to

    def close(self) -> None:
        self._log.removeHandler(self._handler)
        self._handler.close()
