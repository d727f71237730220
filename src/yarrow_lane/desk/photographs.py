"""Taking picture files into the studio: looked at in a worker, stored by content, the place taken out."""

from pathlib import Path
from typing import Protocol

from yarrow_lane.intake.arriving import Arrived
from yarrow_lane.intake.opening import PictureFacts, read_file
from yarrow_lane.intake.photos import Photo, photo_from
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.measure.words import one_line
from yarrow_lane.store.things import Things
from yarrow_lane.workers.pool import Limits, Workers, WorkerTrouble

# Our choice: no photograph of a client's takes longer to look at, or more memory.
ARRIVAL_LIMITS = Limits(2_000_000_000, 20.0)


class Look(Protocol):
    """How a file is looked at; `intake.arriving.arrive` looks here, `in_a_worker` within limits and in a process of its own."""

    def __call__(self, source: Path | bytes, name: str, keep_place: bool = False, progress: Progress = SILENT) -> Arrived: ...


def in_a_worker(workers: Workers) -> Look:
    """What comes from outside is never decoded in the window's own process."""

    def look(source: Path | bytes, name: str, keep_place: bool = False, progress: Progress = SILENT) -> Arrived:
        try:
            found: Arrived = workers.ask(
                "intake.arriving:arrive", source, name, keep_place, progress=progress, limits=ARRIVAL_LIMITS
            )
        except WorkerTrouble as trouble:
            raise Trouble(f"“{name}” was not taken in", trouble.why, "ask for a smaller or another copy") from trouble
        return found

    return look


class Photographs:
    """Every method blocks and is safe on any thread."""

    def __init__(self, photos: Things, look: Look) -> None:
        self._photos, self._look = photos, look

    def keep_picture(self, source: Path | bytes, name: str, progress: Progress = SILENT) -> tuple[str, PictureFacts]:
        """Store a picture of the painter's own, without the place where it was made: the painter's home.

        Raises `Trouble` and stores nothing when it is no picture.
        """
        seen = self._look(source, name, False, progress)
        return self._kept(seen, source, name), seen.facts

    def photo_from_file(
        self, source: Path | bytes, name: str, answers: int = 0, keep_location: bool = False, progress: Progress = SILENT
    ) -> Photo:  # fmt: skip
        """A photograph ready to be taken in, its file stored.

        It is decoded once, small, so that damage shows now and copies of one shot are recognised. The place where it was made is
        taken out of the stored file unless it is kept on purpose. Raises `Trouble`.
        """
        name = one_line(name)
        seen = self._look(source, name, keep_location, progress)
        return photo_from(self._kept(seen, source, name), name, seen.facts, seen.shot, answers)

    def _kept(self, seen: Arrived, source: Path | bytes, name: str) -> str:
        return self._photos.keep(seen.data if seen.data is not None else read_file(source, name))
