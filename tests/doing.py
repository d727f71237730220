"""Edits as tests write them: a part by its name, a step, and a photograph from a file."""

from collections.abc import Callable
from pathlib import Path
from typing import Any

from yarrow_lane.commission.commission import PARTS
from yarrow_lane.desk.desk import Desk
from yarrow_lane.desk.photographs import Photographs
from yarrow_lane.intake.arriving import arrive
from yarrow_lane.intake.photos import Photo
from yarrow_lane.lane.part import Edit

BY_NAME = {part.name: part for part in PARTS}


def do_part(desk: Desk, commission_id: str, label: str, part: str, step: Callable[[Any], Any], join: str = "") -> bool:
    """Take an edit of one part."""
    return desk.do(commission_id, Edit(BY_NAME[part], label, step, join))


def photo_from_file(desk: Desk, source: Path | bytes, name: str, **how: Any) -> Photo:
    """A photograph taken into the studio, looked at here."""
    return Photographs(desk.store.photos, arrive).photo_from_file(source, name, **how)
