"""What Check asks to be worked out: the painting measured with all that is known of its state, and the paintbox made ready."""

from collections.abc import Callable
from typing import TYPE_CHECKING, Any

from yarrow_lane.check.grid import px_per_mm_for
from yarrow_lane.check.measured import AreaAsked, Measured
from yarrow_lane.check.record import PaintingPhoto
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.standing import passes_in
from yarrow_lane.commission.studio import Studio
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.layers.kinds import is_ground
from yarrow_lane.measure.plane import Point
from yarrow_lane.measure.progress import SILENT
from yarrow_lane.palette.mixer import Mixer
from yarrow_lane.palette.paintbox import Paintbox
from yarrow_lane.tone.grounds import ground_srgb
from yarrow_lane.transfer.landmarks import places_on
from yarrow_lane.ui.asked import Asked
from yarrow_lane.ui.rooms.palette.answering import MIXED_IN, Answering, box_or_suggested
from yarrow_lane.ui.straight_canvas import file_of

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.check.page import CheckPage


def areas_of(c: Commission, studio: Studio) -> tuple[AreaAsked, ...]:
    """The regions, and whether paint lies on them as the passes say; with no pass logged at all everything is taken as painted."""
    done = {f.pass_id for f in c.easel.finished}
    painted = {p.region_id for p in passes_in(c, studio.climate) if p.id in done}
    return tuple(
        AreaAsked(r.id, r.name, r.rings, not done or r.id in painted, is_ground(r.kind)) for r in c.layers.regions if r.rings
    )


def places_of(c: Commission) -> tuple[tuple[str, Point], ...]:
    """Eyes and landmarks on the canvas."""
    return tuple((p.full_name, p.at) for p in places_on(c.compose, c.intake.photos))


class Asking:
    """Asked by the page; what was found is kept while the same is wanted."""

    def __init__(self, page: "CheckPage", came: Callable[[Measured], None]) -> None:
        self._page = page
        self.measured: Asked[Measured] = Asked(page, "check.question:measure_painting", lambda m: m.bytes, came)
        self.mixer: Mixer | None = None
        self.box = Paintbox()  # what the mixer mixes from: the painter's own, or a usual one
        self._answering = Answering(page.workroom, page)
        self._mixing: object = None

    def forget(self) -> None:
        """Another commission, or another photograph."""
        self.measured.forget()

    def found_for(self, photo: PaintingPhoto) -> Measured | None:
        """What was measured of that photograph, asked for where its corners are agreed to."""
        if not photo.accepted or not self._page.commission.compose.framed:
            return None
        self.want()
        return self.measured.found

    def want(self) -> None:
        """Ask for what is not known yet."""
        page = self._page
        c, studio = page.commission, page.studio
        photos: tuple[PaintingPhoto, ...] = c.check.together
        size = (c.compose.width_mm, c.compose.height_mm)
        areas, places, ground = areas_of(c, studio), places_of(c), ground_srgb(c.tone.ground)
        wanted = (
            tuple((p.photo_id, p.corners, p.sheet_id) for p in photos),
            reference_key(c.compose),
            size,
            areas,
            places,
            ground,
        )

        def arguments() -> tuple[Any, ...]:
            files = tuple(file_of(page.workroom, p) for p in photos)
            reference = page.workroom.references.for_print(c.compose, c.compose.canvas, px_per_mm_for(size), SILENT)
            return files, reference, size, areas, places, ground

        self.measured.want(photos[-1].photo_id, wanted, arguments)
        self._want_mixer()

    def _want_mixer(self) -> None:
        """For glazes; without one they are not named."""
        page = self._page
        medium = MIXED_IN[page.commission.brief.medium]
        self.box, _ = box_or_suggested(page.studio.paintbox, medium)
        box = self.box
        key = Answering.mixer_key(box, medium)
        if key == self._mixing:
            return
        self._mixing, self.mixer = key, None

        def ready(mixer: Mixer) -> None:
            if self._mixing == key:
                self.mixer = mixer
                page.refresh()

        self._answering.mixer(box, medium, ready, lambda _: None)
