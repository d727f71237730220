"""The steps from the last pass to the client's hands, each with its date."""

from collections.abc import Collection
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from typing import Any, Literal

from yarrow_lane.deliver.parcel import PADDING_MM
from yarrow_lane.intake.brief import OIL, Medium
from yarrow_lane.lane.part import Part, as_it_was
from yarrow_lane.measure.days import clock_text, day_text
from yarrow_lane.measure.moments import after, ahead
from yarrow_lane.measure.plane import Point
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.paint.drying import Film

Step = Literal["sign", "rest", "last list", "varnish", "frame", "pack", "deliver"]
STEPS: tuple[Step, ...] = ("sign", "rest", "last list", "varnish", "frame", "pack", "deliver")

Way = Literal["courier", "express", "by hand"]
WAYS: tuple[Way, ...] = ("courier", "express", "by hand")

REST_HOURS = 24.0  # common practice: 24 to 48 h unseen; this is the least
# Days from the last pass until acrylic may be varnished, by its thickest film: from memory.
ACRYLIC_WAIT_DAYS: dict[Film, float] = {"wash": 1.0, "normal": 3.0, "thick": 14.0}
OIL_WAIT_DAYS = 182.0  # from memory: six months
COAT_GAP_HOURS = 3.0  # from memory: two thin coats, 3 h apart
PACK_WAIT_HOURS = 24.0  # from memory: a day after the last coat
COATS = 2


class DeliverTrouble(Trouble):
    """A step that cannot be taken yet."""


@dataclass(frozen=True)
class ListLine:
    """One thing to mend in the last sitting."""

    text: str
    done: bool = False


Sheen = Literal["matt", "satin", "gloss"]
SHEENS: tuple[Sheen, ...] = ("matt", "satin", "gloss")
Hanging = Literal["wire and rings", "one bar hook", "none"]
HANGINGS: tuple[Hanging, ...] = ("wire and rings", "one bar hook", "none")


@dataclass(frozen=True)
class Finish:
    """How it is made ready. `place` is where the signature stands (canvas mm, its middle), `title` the painting's own ("": the commission's).

    `frame` says which frame it is ("oak"; whether it gets one is decided at Compose), `comes` when it is here; `padding_mm` lies round it in the
    parcel. `photo_id` is the photograph of the finished painting. `cover` is what the parcel is insured for, in smallest units (-1: its price).
    """

    title: str = ""
    place: Point | None = None
    sheen: Sheen = "satin"
    spray: bool = False
    hanging: Hanging = "wire and rings"
    frame: str = ""
    comes: date | None = None
    padding_mm: float = PADDING_MM
    cover: int = -1
    courier: str = ""
    sides: datetime | None = None
    hung: datetime | None = None
    framed: datetime | None = None
    photographed: datetime | None = None
    photo_id: str = ""


@dataclass(frozen=True)
class Answer:
    """What the client said of it, and whether prints were agreed to ("" not asked)."""

    words: str = ""
    on: date | None = None
    prints: Literal["", "agreed", "not agreed"] = ""


@dataclass(frozen=True)
class Deliver:
    """The facts of handing over, each when it happened. It is to rest `rest_hours` (0: as the studio does), and goes by `way`."""

    signed: datetime | None = None
    rest_from: datetime | None = None
    looked: datetime | None = None
    last_list: tuple[ListLine, ...] = ()
    coats: tuple[datetime, ...] = ()
    packed: datetime | None = None
    delivered: datetime | None = None
    rest_hours: float = 0.0
    way: Way = "courier"
    finish: Finish = Finish()
    answer: Answer = Answer()


# Version 1 knows how long it rests and how it goes, version 2 its finish and the client's answer.
DELIVER = Part("deliver", Deliver, "Deliver", (as_it_was, as_it_was))


def rest_ends(deliver: Deliver) -> datetime | None:
    """When the painting may be looked at again."""
    return None if deliver.rest_from is None else after(deliver.rest_from, REST_HOURS * 60)


def days_on_the_way(deliver: Deliver, courier: int) -> int:
    """Days from handing it over until it is with the client; `courier` are a usual courier's, an express takes one."""
    return {"courier": courier, "express": min(1, courier), "by hand": 0}[deliver.way]


def shorten_rest(deliver: Deliver) -> Deliver:
    """It is looked at again after the least rest."""
    return replace(deliver, rest_hours=REST_HOURS)


def send_by(deliver: Deliver, way: Way) -> Deliver:
    """How it goes to the client."""
    return replace(deliver, way=way)


def _moments(deliver: Deliver) -> tuple[datetime | None, ...]:
    f = deliver.finish
    made = (f.sides, f.hung, f.framed, f.photographed)
    return (deliver.signed, deliver.rest_from, deliver.looked, *deliver.coats, *made, deliver.packed, deliver.delivered)


def lies_ahead(deliver: Deliver, now: datetime) -> datetime | None:
    """The last moment on record that has not come yet: the machine's clock was wrong. None when all have come."""
    return max((m for m in _moments(deliver) if m is not None and ahead(m, now)), default=None)


def brought_to(deliver: Deliver, now: datetime) -> Deliver:
    """What lies ahead was done now."""
    d = deliver
    signed, rest_from, looked, packed, delivered = (
        now if ahead(m, now) else m for m in (d.signed, d.rest_from, d.looked, d.packed, d.delivered)
    )
    coats = tuple(now if ahead(m, now) else m for m in d.coats)
    f = d.finish
    sides, hung, framed, photographed = (now if ahead(m, now) else m for m in (f.sides, f.hung, f.framed, f.photographed))
    finish = replace(f, sides=sides, hung=hung, framed=framed, photographed=photographed)
    return replace(
        d, signed=signed, rest_from=rest_from, looked=looked, coats=coats, packed=packed, delivered=delivered, finish=finish
    )


def needs_varnish(medium: Medium) -> bool:
    """Watercolour and pastel go behind glass instead (common practice)."""
    return medium in ("acrylic", *OIL)


def varnish_from(medium: Medium, last_pass: datetime | None, thickest: Film) -> datetime | None:
    """The earliest moment for the first coat; None when nothing is painted or no varnish is used."""
    if last_pass is None or not needs_varnish(medium):
        return None
    days = OIL_WAIT_DAYS if medium in OIL else ACRYLIC_WAIT_DAYS[thickest]
    return after(last_pass, days * 1440)


def next_coat_from(deliver: Deliver) -> datetime | None:
    """When the next coat may follow the last one."""
    return after(deliver.coats[-1], COAT_GAP_HOURS * 60) if deliver.coats else None


def pack_from(deliver: Deliver, medium: Medium) -> datetime | None:
    """When it may be packed; None while varnish is still to come."""
    if not needs_varnish(medium):
        return deliver.looked
    if len(deliver.coats) < COATS:
        return None
    return after(deliver.coats[-1], PACK_WAIT_HOURS * 60)


def step_now(deliver: Deliver, medium: Medium, framed: bool = False) -> Step | None:
    """The next step; None once delivered. A `framed` one goes into its frame before it is packed."""
    if deliver.delivered is not None:
        return None
    if deliver.signed is None:
        return "sign"
    if deliver.rest_from is None or deliver.looked is None:
        return "rest"
    if any(not line.done for line in deliver.last_list):
        return "last list"
    if needs_varnish(medium) and len(deliver.coats) < COATS:
        return "varnish"
    if framed and deliver.finish.framed is None and deliver.packed is None:
        return "frame"
    return "pack" if deliver.packed is None else "deliver"


def _early(what: str, now: datetime, earliest: datetime | None, why: str) -> None:
    if earliest is not None and now < earliest:
        raise DeliverTrouble(what, why, f"wait until {clock_text(earliest, now)}")


def sign(deliver: Deliver, now: datetime) -> Deliver:
    """The signature is on."""
    return replace(deliver, signed=now)


def begin_rest(deliver: Deliver, now: datetime) -> Deliver:
    """Turn it to the wall, unseen."""
    return replace(deliver, rest_from=now, looked=None)


def look_again(deliver: Deliver, now: datetime) -> Deliver:
    """Fresh eyes after the rest; raises `DeliverTrouble` before 24 h are over."""
    _early("The rest is not over", now, rest_ends(deliver), "24 to 48 h unseen make the eye fresh")
    return replace(deliver, looked=now)


def add_line(deliver: Deliver, text: str) -> Deliver:
    """One more thing for the last sitting; raises `DeliverTrouble` when nothing is written."""
    if not text.strip():
        raise DeliverTrouble("Nothing was added to the last list", "no words are written", "write what is to be mended")
    return replace(deliver, last_list=(*deliver.last_list, ListLine(text.strip())))


def with_notes(deliver: Deliver, notes: tuple[str, ...]) -> Deliver:
    """The last list with those notes, each once; one that was done and is noted again is to be done again."""
    known = {line.text for line in deliver.last_list}
    kept = tuple(replace(line, done=line.done and line.text not in notes) for line in deliver.last_list)
    new = tuple(ListLine(text) for text in dict.fromkeys(notes) if text not in known)
    return replace(deliver, last_list=(*kept, *new))


def without_notes(deliver: Deliver, notes: Collection[str]) -> Deliver:
    """The last list without those notes, unless they are done."""
    return replace(deliver, last_list=tuple(line for line in deliver.last_list if line.done or line.text not in notes))


def done_notes(deliver: Deliver, notes: Collection[str]) -> Deliver:
    """Those notes of the last list are done."""
    lines = tuple(replace(line, done=line.done or line.text in notes) for line in deliver.last_list)
    return replace(deliver, last_list=lines)


def rested_since(deliver: Deliver, day: date | None, now: datetime) -> Deliver:
    """It was turned to the wall on that day: today counts from now, an earlier day from its noon [our choice]; None takes it back.

    Raises `DeliverTrouble` for a day that has not come.
    """
    if day is None:
        return replace(deliver, rest_from=None, looked=None)
    if day > now.date():
        raise DeliverTrouble(
            "The rest was not written down", "that day has not come yet", "write the day it was turned to the wall"
        )
    noon = now.replace(hour=12, minute=0, second=0, microsecond=0) + timedelta(days=(day - now.date()).days)
    return begin_rest(deliver, noon if day < now.date() else now)


def mark_line(deliver: Deliver, number: int, done: bool) -> Deliver:
    """A line of the last list is mended, or not after all."""
    lines = tuple(replace(line, done=done) if n == number else line for n, line in enumerate(deliver.last_list))
    return replace(deliver, last_list=lines)


def varnish(deliver: Deliver, now: datetime, earliest: datetime | None) -> Deliver:
    """One thin coat; raises `DeliverTrouble` before the paint, or the coat beneath, is dry."""
    _early("The second coat must wait", now, next_coat_from(deliver), "the first is still soft")
    _early("The varnish must wait", now, earliest, "the paint is not dry through")
    return replace(deliver, coats=(*deliver.coats, now))


def into_frame(deliver: Deliver, now: datetime, earliest: datetime | None) -> Deliver:
    """It is in its frame; raises `DeliverTrouble` while the varnish is soft or the frame is not here."""
    _early("It must not go into the frame yet", now, earliest, "the varnish would take marks")
    comes = deliver.finish.comes
    if comes is not None and now.date() < comes:
        raise DeliverTrouble(
            "It cannot go into the frame yet", "the frame has not come", f"wait until {day_text(comes)}, or set the day anew"
        )
    return with_finish(deliver, framed=now)


def with_finish(deliver: Deliver, **facts: Any) -> Deliver:
    """Other facts of how it is made ready."""
    return replace(deliver, finish=replace(deliver.finish, **facts))


def answered(deliver: Deliver, words: str, on: date | None) -> Deliver:
    """What the client said of it; without words it is taken back."""
    said = words.strip()
    return replace(deliver, answer=replace(deliver.answer, words=said, on=on if said else None))


def pack(deliver: Deliver, now: datetime, earliest: datetime | None) -> Deliver:
    """Wrap it; raises `DeliverTrouble` while the varnish is soft."""
    _early("It must not be packed yet", now, earliest, "the varnish would stick to the wrapping")
    return replace(deliver, packed=now)


def hand_over(deliver: Deliver, now: datetime) -> Deliver:
    """In the client's hands."""
    return replace(deliver, delivered=now)
