"""How long work tells how far it is, and how it is stopped."""

from collections.abc import Callable


class Cancelled(Exception):
    """The painter stopped the work, or no longer needs it."""


class Progress:
    """Told by core functions at least every 50 ms; raises `Cancelled` when asked to stop.

    `share` runs from 0 to 1. `told` is called on the worker's thread.
    """

    def __init__(
        self,
        told: Callable[[float], None] = lambda share: None,
        stopped: Callable[[], bool] = lambda: False,
    ) -> None:
        self._told = told
        self._stopped = stopped

    def at(self, share: float) -> None:
        """Say how far the work is; raises `Cancelled` if it was stopped."""
        if self._stopped():
            raise Cancelled
        self._told(share)


SILENT = Progress()
