"""The painting made ready, in parts: what is on it and what is still to come, each with its wait. No Qt."""

from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.studio import Studio
from yarrow_lane.deliver.handover import COATS, needs_varnish, pack_from, step_now
from yarrow_lane.deliver.parcel import ParcelTrouble, framed, parcel_of
from yarrow_lane.deliver.signature import corner_words
from yarrow_lane.deliver.standing import frame_from
from yarrow_lane.measure.days import clock_text, day_text
from yarrow_lane.measure.lengths import length_text

PartKey = Literal["parcel", "frame", "hanging", "sides", "signature", "varnish 1", "varnish 2", "glassine"]
State = Literal["on", "next", "ahead"]


@dataclass(frozen=True)
class PartShown:
    """One part: how far in front of the painting it hangs while it is to come (below nothing: behind), its name and two short lines."""

    key: PartKey
    name: str
    words: tuple[str, str]
    state: State
    depth: float
    wait: str = ""


def parts_shown(c: Commission, studio: Studio, earliest: datetime | None, now: datetime) -> tuple[PartShown, ...]:
    """All parts, from the back to the front; `earliest` is when the next coat may follow."""
    d, f, medium = c.deliver, c.deliver.finish, c.brief.medium
    in_frame = framed(c.compose.sides)
    step = step_now(d, medium, in_frame)
    found = [_parcel(c, step, now)]
    if in_frame:
        comes = f"comes {day_text(f.comes)}" if f.comes and f.framed is None else "floating"
        ready = frame_from(d, medium, now.tzinfo)
        wait = f"from {clock_text(ready, now)}" if ready is not None and ready > now else ""
        words = (f.frame or "floating frame", clock_text(f.framed, now) if f.framed else comes)
        found.append(PartShown("frame", "Frame", words, _state(f.framed is not None, step == "frame"), -2.1, wait))
    if f.hanging != "none":
        low = length_text(c.compose.height_mm / 3, studio.unit) if c.compose.sized else "a third"
        words = (f"{low} down", clock_text(f.hung, now) if f.hung else f.hanging)
        found.append(PartShown("hanging", "To hang by", words, _state(f.hung is not None, False), -1.0))
    sides = {"undecided": "bare", "dark": "painted dark", "colour": "painted", "wrapped": "wrapped"}.get(
        c.compose.sides.finish, c.compose.sides.finish
    )
    found.append(
        PartShown(
            "sides",
            "Sides",
            (sides, clock_text(f.sides, now) if f.sides else "not done yet"),
            _state(f.sides is not None, False),
            0.0,
        )
    )
    where = "" if d.signed else "see “face” for where"
    if f.place and c.compose.sized:
        where = corner_words(f.place, c.compose.width_mm)
    found.append(
        PartShown(
            "signature",
            "Signed" if d.signed else "Signature",
            (clock_text(d.signed, now) if d.signed else "not yet", where),
            _state(d.signed is not None, step == "sign"),
            0.35,
        )
    )
    if needs_varnish(medium):
        found += [_coat(c, n, step == "varnish", earliest, now) for n in range(COATS)]
    ready = pack_from(d, medium)
    wait = f"from {clock_text(ready, now)}" if ready is not None and ready > now else ""
    packed = d.packed is not None
    words = (clock_text(d.packed, now) if d.packed else wait or "on the paint", "corners of board")
    found.append(PartShown("glassine", "Glassine", words, _state(packed, step == "pack"), 2.0, wait))
    return tuple(found)


def _state(on: bool, is_next: bool) -> State:
    return "on" if on else "next" if is_next else "ahead"


def _coat(c: Commission, n: int, now_due: bool, earliest: datetime | None, now: datetime) -> PartShown:
    d = c.deliver
    done = n < len(d.coats)
    is_next = now_due and n == len(d.coats)
    wait = f"from {clock_text(earliest, now)}" if is_next and earliest is not None and earliest > now else ""
    how = "sprayed" if d.finish.spray else "brushed"
    words = (
        f"{d.finish.sheen}, {how}",
        f"on since {clock_text(d.coats[n], now)}" if done else wait or ("dry beneath" if is_next else "after the first"),
    )
    return PartShown(
        "varnish 1" if n == 0 else "varnish 2", f"Varnish, coat {n + 1}", words, _state(done, is_next), 0.55 + 0.55 * n, wait
    )


def _parcel(c: Commission, step: str | None, now: datetime) -> PartShown:
    d = c.deliver
    try:
        p = parcel_of(c.compose.width_mm, c.compose.height_mm, c.compose.sides, d.finish.padding_mm)
        words = (
            f"{p.length_cm} × {p.width_cm} × {p.height_cm}\u202fcm",
            f"{p.weight_kg:.1f}\u202fkg, charged {p.charged_kg:g}",
        )
    except ParcelTrouble:
        words = ("no size yet", "")
    gone = d.delivered is not None
    if gone:
        words = (words[0], f"handed over {clock_text(d.delivered, now)}" if d.delivered else "")
    return PartShown("parcel", "Parcel", words, _state(gone, step == "deliver"), -3.1)
