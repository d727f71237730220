"""The canvas cut out of a photograph of it, upright and flat: asked for by every room that shows the painting."""

from collections.abc import Callable
from typing import TYPE_CHECKING

from yarrow_lane.canvas_photo.taken import Taken
from yarrow_lane.check.record import PaintingPhoto
from yarrow_lane.desk.derived import Key, Making
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.raster import Picture
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.ui.kit.levels import make_levels
from yarrow_lane.ui.pictures import Shown

if TYPE_CHECKING:
    from yarrow_lane.check import question
    from yarrow_lane.ui.workroom import Workroom
else:
    question = late("yarrow_lane.check.question")


def file_of(workroom: "Workroom", photo: Taken) -> "question.PhotoFile":
    """As a worker is asked about it; looks its content through and blocks. Raises `StoreTrouble`."""
    sheet = None
    if isinstance(photo, PaintingPhoto) and photo.sheet_id:
        sheet = workroom.pictures.file(photo.sheet_id, photo.sheet_name), photo.sheet_name
    path = workroom.pictures.file(photo.photo_id, photo.name)
    return question.PhotoFile(path, photo.name, photo.size_px, photo.corners, sheet)


def want_canvas(
    workroom: "Workroom", photo: Taken, size_mm: Point, asker: object, ready: Callable[[Shown], None],
    failed: Callable[[Trouble], None] | None = None,
) -> None:  # fmt: skip
    """Call `ready` with the canvas of that photograph, in colours and greys."""

    def make(progress: Progress) -> Shown:
        picture: Picture = workroom.workers.ask(
            "check.question:canvas_picture", file_of(workroom, photo), size_mm, progress=progress
        )
        return Shown(picture, make_levels(picture, with_greys=True))

    key = Key("canvas of a photograph", (photo.photo_id,), (photo.corners, size_mm))
    workroom.derived.want(key, asker, Making(make, lambda shown: shown.levels.bytes), ready, failed)
