"""Values worked out from others: asked for by many, worked out once, kept in memory and on disk within a budget."""

from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Generic, Protocol, TypeVar

from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.store.cache import Cache

T = TypeVar("T")
KEPT_BYTES = 320_000_000  # our choice: two 24-megapixel photographs with their levels


@dataclass(frozen=True)
class Key:
    """What a value is: its kind, the hashes of what it is made from, the parameters, and the version of its making.

    On disk one value is kept for each kind and inputs: other parameters take its place.
    """

    kind: str
    inputs: tuple[str, ...]
    parameters: tuple[object, ...] = ()
    version: int = 1

    @property
    def slot(self) -> str:
        return repr((self.kind, self.inputs))


@dataclass(frozen=True)
class Making(Generic[T]):
    """How a value is worked out, off the interface thread; `size` in bytes.

    With `dump` and `load` it is kept on disk too; a value there that cannot be loaded is made anew.
    """

    make: Callable[[Progress], T]
    size: Callable[[T], int]
    dump: Callable[[T], bytes] | None = None
    load: Callable[[bytes], T] | None = None
    priority: int = 0


class Ticket(Protocol):
    """A piece of work under way."""

    def drop(self) -> None:
        """Its answer is no longer wanted."""


class Threads(Protocol):
    """What runs work beside the interface and brings its answer back to the caller's thread."""

    def run(
        self, work: Callable[[Progress], Any], done: Callable[[Any], None], failed: Callable[[Trouble], None], priority: int = 0
    ) -> Ticket: ...  # fmt: skip


@dataclass
class _Wait:
    asker: object
    ready: Callable[[Any], None]
    failed: Callable[[Trouble], None] | None


class _UnderWay:
    def __init__(self) -> None:
        self.waits: list[_Wait] = []
        self.ticket: Ticket | None = None


class Derived:
    """Hands out derived values; all calls on one thread, answers on the same."""

    def __init__(self, threads: Threads, cache: Cache, failed: Callable[[Trouble], None], budget: int = KEPT_BYTES) -> None:
        self._threads, self._cache, self._failed, self._budget = threads, cache, failed, budget
        self._kept: OrderedDict[Key, tuple[Any, int]] = OrderedDict()
        self._bytes = 0
        self._under_way: dict[Key, _UnderWay] = {}

    def have(self, key: Key) -> Any | None:
        """The value if it is in memory."""
        if key not in self._kept:
            return None
        self._kept.move_to_end(key)
        return self._kept[key][0]

    def want(
        self, key: Key, asker: object, making: Making[T], ready: Callable[[T], None],
        failed: Callable[[Trouble], None] | None = None,
    ) -> None:  # fmt: skip
        """Call `ready` with the value: at once when it is in memory, else when it is read or made, for every asker.

        Trouble goes to `failed`, or to the person.
        """
        if key in self._kept:
            self._kept.move_to_end(key)
            ready(self._kept[key][0])
            return
        job = self._under_way.get(key)
        if job is None:
            job = self._under_way[key] = _UnderWay()
            job.waits.append(_Wait(asker, ready, failed))
            job.ticket = self._threads.run(
                lambda progress: self._made(key, making, progress),
                lambda value: self._arrived(key, job, value, making.size(value)),
                lambda trouble: self._went_wrong(key, job, trouble),
                making.priority,
            )
        else:
            job.waits.append(_Wait(asker, ready, failed))

    def _made(self, key: Key, making: Making[T], progress: Progress) -> T:
        if making.load is not None and (data := self._cache.get(key.slot, repr(key))) is not None:
            try:
                return making.load(data)
            except Exception:  # a damaged entry may raise anything; the value is then made as if it were not there
                pass
        value = making.make(progress)
        if making.dump is not None:
            self._cache.put(key.slot, repr(key), making.dump(value))
        return value

    def _over(self, key: Key, job: _UnderWay) -> list[_Wait]:
        if self._under_way.get(key) is job:
            del self._under_way[key]
        waits, job.waits = job.waits, []
        return waits

    def _arrived(self, key: Key, job: _UnderWay, value: Any, size: int) -> None:
        waits = self._over(key, job)
        self._keep(key, value, size)
        for wait in waits:
            wait.ready(value)

    def _went_wrong(self, key: Key, job: _UnderWay, trouble: Trouble) -> None:
        said = False
        for wait in self._over(key, job):
            if wait.failed is not None:
                wait.failed(trouble)
            elif not said:
                said = True
                self._failed(trouble)

    def _keep(self, key: Key, value: Any, size: int) -> None:
        if key in self._kept:
            self._bytes -= self._kept.pop(key)[1]
        self._kept[key] = (value, size)
        self._bytes += size
        while len(self._kept) > 1 and self._bytes > self._budget:
            _, (_, gone) = self._kept.popitem(last=False)
            self._bytes -= gone

    def under_way(self, key: Key) -> bool:
        """Whether somebody waits for that value."""
        return key in self._under_way

    def leave(self, asker: object, keep: Callable[[Key], bool] = lambda key: False) -> None:
        """That asker no longer waits, but for what `keep` says; what nobody waits for is dropped."""
        for key, job in list(self._under_way.items()):
            if not keep(key):
                job.waits = [w for w in job.waits if w.asker is not asker]
                if not job.waits:
                    del self._under_way[key]
                    if job.ticket is not None:
                        job.ticket.drop()
