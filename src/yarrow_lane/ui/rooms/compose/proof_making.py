"""The proof's file made beside the window's own work, from the composition as it was when it was asked for."""

from collections.abc import Callable
from typing import TYPE_CHECKING, Literal

from yarrow_lane.compose.room import hung_in
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.raster import Picture
from yarrow_lane.ui.kit.levels import qimage

if TYPE_CHECKING:
    from yarrow_lane.documents import proof_page
    from yarrow_lane.ui.rooms.compose.page import ComposePage
else:
    proof_page = late("yarrow_lane.documents.proof_page")  # what writes PDF is loaded with the first document

Form = Literal["pdf", "png"]
_ROOM_PX = 1600  # our choice: the longer side of the client's photograph on paper


def make_proof(
    page: "ComposePage", layouts: "tuple[proof_page.Layout, ...]", title: str, form: Form, done: Callable[[bytes], None]
) -> None:
    """Make the file and hand it to `done` on the interface thread; trouble is said, and the painter may stop it.

    A PDF has the page of the wall too where the proof is to have one: in the client's photograph, if it hangs there.
    """
    c, references, workroom = page.commission, page.workroom.references, page.workroom
    compose, with_wall = c.compose, form == "pdf" and c.proofs.with_wall
    room = compose.wall.room if with_wall else None
    photo = next((p for p in c.intake.photos if room is not None and p.id == room.photo_id), None)

    def pictures(progress: Progress) -> tuple[Picture, Picture | None]:
        px_per_mm = proof_page.PICTURE_PX_MM * layouts[0].scale
        picture = references.for_print(compose, compose.canvas, px_per_mm, progress)
        if room is None or photo is None:
            return picture, None
        whole = Rect(0, 0, photo.width_px, photo.height_px)
        wall = workroom.pictures.part_now(photo.id, photo.name, whole, _ROOM_PX, progress)
        size = compose.width_mm, compose.height_mm
        return picture, hung_in(wall, wall.shape[1] / photo.width_px, room, picture, size)

    def write(found: tuple[Picture, Picture | None]) -> None:
        picture, wall = found
        if with_wall and wall is None:
            wall = page.on_wall.for_proof(compose, qimage(picture))  # letters are drawn on the interface thread

        def written(progress: Progress) -> bytes:
            sheets = proof_page.sheets(layouts, picture)
            if form == "png":
                return proof_page.as_png(sheets)
            if wall is not None:
                told = "In your room" if photo is not None else "On your wall, at true scale"
                below = f"{told}; you look from {compose.wall.distance_mm / 1000:.2f}\u202fm"
                size = (float(wall.shape[1]), float(wall.shape[0]))
                wall_page = proof_page.ProofPage(f"{c.brief.title} on your wall", below, (), size)
                sheets += proof_page.sheets(proof_page.lay_out(wall_page, c.transfer.paper), wall)
            return proof_page.as_pdf(sheets, title)

        workroom.works.run(title, written, done)

    workroom.works.run(title, pictures, write)
