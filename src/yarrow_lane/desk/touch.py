"""A film that was touched: noted, and the room's factor with it."""

from dataclasses import replace
from datetime import datetime

from yarrow_lane.desk.desk import Desk
from yarrow_lane.easel.session import EASEL, felt_dry
from yarrow_lane.easel.touches import touched
from yarrow_lane.lane.part import Edit


def touch(desk: Desk, commission_id: str, pass_id: str, now: datetime, dry: bool) -> str:
    """A touch overrules what was reckoned, and teaches how films dry here; returns what is said of it."""
    factor = desk.studio.climate.factor
    new, words = touched(desk.commission(commission_id).easel, pass_id, now, factor, dry)
    if new != factor:
        desk.do_studio("A touch taught how films dry here", lambda s: replace(s, climate=replace(s.climate, factor=new)))
    if dry:
        desk.do(commission_id, Edit(EASEL, "Dry by touch", lambda e: felt_dry(e, pass_id, now)))
    return words
