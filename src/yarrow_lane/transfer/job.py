"""What there is to carry over of a commission, reckoned from what is on record."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from yarrow_lane.compose.composition import Compose
from yarrow_lane.intake.photos import Photo
from yarrow_lane.measure.kept import kept
from yarrow_lane.measure.plane import ring_area
from yarrow_lane.transfer.crossings import under
from yarrow_lane.transfer.equipment import Equipment
from yarrow_lane.transfer.landmarks import circles_on, places_on
from yarrow_lane.transfer.projector import Projected, ProjectorTrouble, project
from yarrow_lane.transfer.record import Transfer, minutes_each
from yarrow_lane.transfer.sheets import SheetsTrouble, lay_on_sheets
from yarrow_lane.transfer.squares import USUAL_COUNT, Squares

_SUBJECT_SHARE = 0.6  # of the canvas, while no sitter is cut out: our choice


@dataclass(frozen=True)
class Job:
    """What there is to carry over. Canvas mm; cm2 of sitter and of eyes, nose and mouth; squares in all and under the details, and
    minutes each; sheets of paper at true size (None: too many); what the painter's projector does, None while none is known.
    """

    width_mm: float
    height_mm: float
    subject_cm2: float
    details_cm2: float
    squares: int
    detail_squares: int
    square_minutes: float
    sheets: int | None
    projected: Projected | None


@kept(4)  # asked for at every refresh of the studio's shelf
def job_of(compose: Compose, photos: Sequence[Photo], transfer: Transfer, equipment: Equipment | None) -> Job:
    """What is to be carried over; `equipment` is None while the painter's is not known."""
    if not compose.sized:
        return Job(0, 0, 0, 0, 0, 0, 0, None, None)
    width, height = compose.width_mm, compose.height_mm
    squares = Squares(width, height, transfer.count or USUAL_COUNT)
    canvas = width * height / 100
    # Holes are small, and crossings too, against what a first guess of hours can tell.
    subject = sum(ring_area(ring) for piece in compose.pieces for ring in piece.outline_mm) / 100
    circles = circles_on(places_on(compose, photos)) if compose.framed else ()
    details = sum(math.pi * radius**2 for _, radius in circles) / 100
    subject = min(canvas, subject) if compose.pieces else _SUBJECT_SHARE * canvas
    equipped = equipment or transfer.equipment
    try:
        sheets = len(lay_on_sheets(width, height, transfer.paper).sheets)
    except SheetsTrouble:
        sheets = None
    return Job(
        width, height, subject, min(subject, details), len(squares.all), len(under(circles, squares)), minutes_each(transfer), sheets,
        _projected(compose, equipped),
    )  # fmt: skip


def _projected(compose: Compose, equipment: Equipment | None) -> Projected | None:
    if equipment is None:
        return None
    try:
        return project(equipment.projector, compose.width_mm, compose.height_mm, equipment.room_lux)
    except ProjectorTrouble:
        return None
