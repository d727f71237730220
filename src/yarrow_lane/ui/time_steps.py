"""Undo and redo as they are seen: the place where it happened opens, and it is said what was taken back or done again."""

from typing import TYPE_CHECKING

from yarrow_lane.commission.clocks import stop_of_a_waiting_pass
from yarrow_lane.desk.desk import Change
from yarrow_lane.lane.doors import DOORS

if TYPE_CHECKING:
    from yarrow_lane.ui.window import Window


def show_step(window: "Window", change: Change | None, words: str, nothing: str) -> None:
    """Say a step in time that was taken; `nothing` where there was none."""
    if change is None:
        window.say(nothing, False)
        return
    # Show the place where it happened, so that what was taken back is seen.
    if window.commission_id and change.place in DOORS and change.place != window.door:
        window.open_door(window.commission_id, change.place)
    window.say(f"{words}: {change.words}{_stop_what_waits(window)}", False)


def _stop_what_waits(window: "Window") -> str:
    """A clock on a pass that has to wait again is stopped, and it is said; its minutes stay on record."""
    if not window.commission_id:
        return ""
    desk, now = window.desk, window.workroom.now
    stop = stop_of_a_waiting_pass(desk.commission(window.commission_id), desk.studio.climate, now)
    if stop is None:
        return ""
    desk.happen(window.commission_id, stop)
    return f". The clock on {stop.title} was stopped: it waits again for what lies beneath."
