"""Where the way out stands: sign, rest, last list, varnish, pack, hand over, each not before its time."""

from dataclasses import replace
from datetime import date, datetime, time, tzinfo

from yarrow_lane.deliver.handover import (
    ACRYLIC_WAIT_DAYS,
    COAT_GAP_HOURS,
    COATS,
    OIL_WAIT_DAYS,
    PACK_WAIT_HOURS,
    REST_HOURS,
    Deliver,
    days_on_the_way,
    lies_ahead,
    needs_varnish,
    next_coat_from,
    pack_from,
    rest_ends,
    step_now,
    varnish_from,
)
from yarrow_lane.intake.brief import OIL, Medium
from yarrow_lane.lane.standing import BEFORE, SMALL_MIN, Act, Standing, Task
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.moments import after
from yarrow_lane.measure.words import begun
from yarrow_lane.paint.drying import Film

_LOOK_MIN, _PACK_MIN = 60.0, 30.0  # our choice
LOOK = "look with fresh eyes"
_BY_DAYLIGHT = (LOOK, "last sitting")
_DAY_MIN, _HOUR_MIN = 1440.0, 60.0
_MORNING = time(9)  # our choice: what comes on a day is here by then


def _zone(d: Deliver) -> tzinfo | None:
    return d.looked.tzinfo if d.looked is not None else None


def earliest_coat(deliver: Deliver, medium: Medium, last_painted: datetime | None, thickest: Film) -> datetime | None:
    """The earliest moment for the next coat of varnish."""
    return next_coat_from(deliver) or varnish_from(medium, last_painted, thickest)


def stand(
    deliver: Deliver, medium: Medium, promised: date | None, last_painted: datetime | None, painting_left: bool,
    thickest: Film, now: datetime, rest_hours: float = REST_HOURS, courier: int = 0, unpaid: str = "",
    framed: bool = False,
) -> Standing:  # fmt: skip
    """Where the room stands; the studio lets a piece rest `rest_hours`, and its courier needs so many days; `unpaid` is what is still to pay;
    a `framed` one goes into its frame."""
    if deliver.delivered is not None:
        return Standing(f"delivered {day_text(deliver.delivered.date())}")
    act = _act(deliver, medium, last_painted, thickest, framed)
    if unpaid and step_now(deliver, medium, framed) == "deliver":
        act = replace(act, detail=f"{unpaid} still to pay before it leaves")
    fact = f"promised {day_text(promised)}" if promised else ""
    until = act.not_before if act.not_before is not None and act.not_before > now else None
    tasks = tasks_left(
        deliver, medium, last_painted, painting_left, thickest, deliver.rest_hours or rest_hours, courier, framed
    )
    return Standing(
        fact,
        f"next: {step_now(deliver, medium, framed)}",
        act,
        tasks,
        until=until,
        worry="a date lies in the future" if lies_ahead(deliver, now) else "",
    )


def _act(d: Deliver, medium: Medium, last_painted: datetime | None, thickest: Film, framed: bool) -> Act:
    match step_now(d, medium, framed):
        case "sign":
            return Act("Sign it", "when that corner is finished")
        case "rest" if d.rest_from is None:
            return Act("Turn it to the wall", "24 to 48 h unseen")
        case "rest":
            return Act(begun(LOOK), "the rest is over", _LOOK_MIN, rest_ends(d), "rests until")
        case "last list":
            left = sum(not line.done for line in d.last_list)
            return Act("Last sitting", f"{left} to mend: mark each line once it is done", _LOOK_MIN)
        case "varnish":
            coat = f"coat {len(d.coats) + 1} of {COATS}"
            earliest = earliest_coat(d, medium, last_painted, thickest)
            return Act("Varnish, a thin coat", coat, SMALL_MIN, earliest, f"{coat}, from")
        case "frame":
            return Act(
                "Into the frame",
                d.finish.frame or "the gap alike all round",
                _PACK_MIN,
                frame_from(d, medium, _zone(d)),
                "from",
            )
        case "pack":
            return Act("Pack it", "glassine on the paint, corners, board", _PACK_MIN, pack_from(d, medium), "from")
    return Act("Hand it over", "balance paid, care sheet with it")


def frame_from(d: Deliver, medium: Medium, zone: tzinfo | None) -> datetime | None:
    """From when it may go into the frame: the varnish is hard and the frame is here; None while varnish is still to come."""
    dry = pack_from(d, medium)
    if dry is None or d.finish.comes is None:
        return dry
    return max(dry, datetime.combine(d.finish.comes, _MORNING, zone))


def tasks_left(
    d: Deliver, medium: Medium, last_painted: datetime | None, painting_left: bool, thickest: Film, rest_hours: float = REST_HOURS,
    courier: int = 0, framed: bool = False,
) -> tuple[Task, ...]:  # fmt: skip
    """The steps still to come, with the waits that cannot be painted away."""
    tasks: list[Task] = []

    def add(words: str, minutes: float, wait_min: float, earliest: datetime | None = None, also: float | None = None) -> None:
        needs = ((len(tasks) - 1, wait_min),) if tasks else ((BEFORE, 0.0),)
        light = words in _BY_DAYLIGHT
        waits = ((BEFORE, also),) if also is not None else ()
        tasks.append(Task(words, minutes, needs + waits, earliest, whole=True, daylight=light))

    if d.signed is None:
        add("sign", SMALL_MIN, 0.0)
    if d.looked is None:
        waits = rest_hours * _HOUR_MIN if d.rest_from is None else 0.0
        if not tasks and waits:
            add("turn it to the wall", 0.0, 0.0)
        add(LOOK, _LOOK_MIN, waits, after(d.rest_from, rest_hours * _HOUR_MIN) if d.rest_from else None)
    elif any(not line.done for line in d.last_list):
        add("last sitting", _LOOK_MIN, 0.0)
    if d.packed is None:
        packable = pack_from(d, medium)
        if needs_varnish(medium):
            days = OIL_WAIT_DAYS if medium in OIL else ACRYLIC_WAIT_DAYS[thickest]
            for coat in range(len(d.coats), COATS):
                first = coat == 0
                earliest = next_coat_from(d) if d.coats else None
                if first and not painting_left:
                    earliest = varnish_from(medium, last_painted, thickest)
                gap = 0.0 if coat == len(d.coats) else COAT_GAP_HOURS * _HOUR_MIN
                add("varnish", SMALL_MIN, gap, earliest, days * _DAY_MIN if first and painting_left else None)
        if framed and d.finish.framed is None:
            soft = PACK_WAIT_HOURS * _HOUR_MIN if needs_varnish(medium) and len(d.coats) < COATS else 0.0
            add("into the frame", _PACK_MIN, soft, frame_from(d, medium, _zone(d)))
        coats_left = not framed and needs_varnish(medium) and len(d.coats) < COATS
        add("pack", _PACK_MIN, PACK_WAIT_HOURS * _HOUR_MIN if coats_left else 0.0, packable)
    add("hand over", SMALL_MIN, 0.0)
    days = days_on_the_way(d, courier)
    if days:
        add("on its way to the client", 0.0, days * _DAY_MIN)
    return tuple(tasks)
