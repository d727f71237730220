"""The last section of every room's bench: what the door still wants, and passing it with a reason."""

from yarrow_lane.commission.doors import Door
from yarrow_lane.ui.bench_sheet import Field, Note, Press, Section

REASON, PASS, UNPASS = "door reason", "pass door", "unpass door"


def door_section(door: Door, reason_on_record: str, draft: str) -> Section | None:
    """Nothing once the facts shut the door."""
    if door.state == "shut":
        return None
    wants = door.wants[:1].upper() + door.wants[1:]
    if door.state == "passed":
        words = f"{wants}. Passed all the same: {reason_on_record}"
        return Section("This door", (Note(words), Press(UNPASS, "Let the facts decide again")))
    return Section(
        "This door", (Note(f"{wants}."), Field(REASON, "Pass it all the same, because", draft), Press(PASS, "Pass this door"))
    )
