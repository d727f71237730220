"""One thing asked of a worker: what it found or what went wrong, for as long as the same is wanted."""

from collections.abc import Callable
from typing import TYPE_CHECKING, Any, Generic, TypeVar

from yarrow_lane.desk.derived import Key, Making
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.trouble import Trouble

if TYPE_CHECKING:
    from yarrow_lane.ui.room_page import RoomPage

T = TypeVar("T")


class Asked(Generic[T]):
    """`found` and `trouble` belong to what was wanted last; the page is refreshed when either comes. `came` hears of what is found
    before that.
    """

    def __init__(
        self, page: "RoomPage", question: str, size: Callable[[T], int], came: Callable[[T], None] = lambda _: None
    ) -> None:
        self._page, self._question, self._size, self._came = page, question, size, came
        self._wanted: object = None
        self.found: T | None = None
        self.trouble = ""

    def forget(self) -> None:
        """Nothing is wanted now."""
        self._wanted, self.found, self.trouble = None, None, ""

    def want(self, photo_id: str, wanted: tuple[object, ...], arguments: Callable[[], tuple[Any, ...]]) -> None:
        """Ask, unless just this was asked; `wanted` is all the answer depends on, `arguments` are fetched off the interface's thread."""
        if self._wanted == wanted:
            return
        self._wanted, self.found, self.trouble = wanted, None, ""
        workroom = self._page.workroom

        def make(progress: Progress) -> T:
            found: T = workroom.workers.ask(self._question, *arguments(), progress=progress)
            return found

        def ready(found: T) -> None:
            if self._wanted == wanted:
                self.found = found
                self._came(found)
                self._page.refresh()

        def failed(trouble: Trouble) -> None:
            if self._wanted == wanted:
                self.trouble = str(trouble)
                workroom.report(trouble)
                self._page.refresh()

        key = Key(self._question, (photo_id,), wanted)
        workroom.derived.want(key, self._page, Making(make, self._size), ready, failed)
