"""How a commission stands: its doors, its one next act, the work left to plan, and what troubles it.

Folded from what each room says of itself. Nothing here depends on the moment it is shown, so that a standing is kept beside its
commission until that, the studio or the minute that matters changes.
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import date, datetime
from functools import cached_property
from types import MappingProxyType

from yarrow_lane.books.account import account_of
from yarrow_lane.calendar.dates import Dates, tenths
from yarrow_lane.calendar.jobs import Work
from yarrow_lane.calendar.pace import Pace, Paced
from yarrow_lane.calendar.sittings import Plan, Sitting
from yarrow_lane.check import standing as check
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.studio import Studio
from yarrow_lane.compose import standing as compose
from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.detail import largest_canvas
from yarrow_lane.compose.formats import formats_of
from yarrow_lane.compose.proposed_size import ProposedSize, proposed_size
from yarrow_lane.compose.rack import favourite_formats
from yarrow_lane.compose.reference import photographs_of, reference_key
from yarrow_lane.deliver import standing as deliver
from yarrow_lane.deliver.handover import days_on_the_way, rest_ends
from yarrow_lane.deliver.parcel import framed
from yarrow_lane.easel import standing as easel
from yarrow_lane.easel.clock import minutes_by_day, minutes_by_pass, running
from yarrow_lane.easel.session import wet_until
from yarrow_lane.intake import standing as intake
from yarrow_lane.intake.brief import Brief
from yarrow_lane.intake.evidence import Evidence
from yarrow_lane.intake.photos import Photo
from yarrow_lane.lane.doors import Door, State, door_now
from yarrow_lane.lane.standing import Act, Standing, Task
from yarrow_lane.layers import standing as layers
from yarrow_lane.layers.passes import Pass
from yarrow_lane.layers.sequence import sequence
from yarrow_lane.layers.usual import usual_layers
from yarrow_lane.measure.days import clock_text, working_days_between
from yarrow_lane.measure.money import currency_of, money_text
from yarrow_lane.paint.drying import Climate, Film
from yarrow_lane.palette import standing as palette
from yarrow_lane.tone import standing as tone
from yarrow_lane.transfer import standing as transfer
from yarrow_lane.transfer.job import job_of


@dataclass(frozen=True)
class CommissionStanding:
    """One commission as shelf, weeks, lane and header show it.

    `rooms` holds the tasks of each room that still has some; `worry` leaves lateness out, which only a plan can tell.
    `painted` are the days at the easel with their minutes, `paced` what its finished passes took against the first guess. `until` is
    when something here changes by itself; `rests_on` are the photographs whose measures it rests on; `clock_since` when the clock that
    runs was started, `clock_on` on what. `reckoned` says what the work left was reckoned from. `rest_hours` are those of a rest unseen
    still to come, `days_on_the_way` how long it will travel. `kind` is
    what it is a portrait of.
    """

    id: str
    title: str
    client: str
    medium: str
    promised: date | None
    warning: str
    compose: Compose
    ground: str
    doors: tuple[Door, ...]
    act: Act | None
    rooms: tuple[tuple[Task, ...], ...]
    worry: str
    wet_until: datetime | None
    rests_until: datetime | None
    delivered: datetime | None
    passes: int
    finished: int
    painted: tuple[tuple[date, float], ...]
    until: datetime | None
    rests_on: tuple[str, ...] = ()
    clock_since: datetime | None = None
    clock_on: str = ""
    reckoned: str = ""
    paced: tuple[Paced, ...] = ()
    rest_hours: float = 0.0
    days_on_the_way: int = 0
    kind: str = ""

    def painted_on(self, day: date) -> float:
        """Minutes at the easel on that day."""
        return next((minutes for d, minutes in self.painted if d == day), 0.0)

    @property
    def door(self) -> str:
        """The door it stands at."""
        return door_now(self.doors).name

    @cached_property
    def work(self) -> Work:
        """What the calendar plans; the same object as long as this standing is kept."""
        return Work(self.id, self.promised, self.rooms)


@dataclass(frozen=True)
class Outlook:
    """A standing among all others: its sittings, its honest dates, the minutes left at the painter's own pace, and its gravest worry.

    `dates` is None where nothing is planned or it lies too far ahead; then `finish`, if all goes as guessed, is all that is known, and
    None where the painter has no hours.
    """

    standing: CommissionStanding
    sittings: tuple[Sitting, ...]
    finish: date | None
    minutes_left: float
    worry: str
    dates: Dates | None = None

    @property
    def safe(self) -> date | None:
        """The day it is with the client in 9 of 10."""
        return self.dates.safe if self.dates is not None else self.finish

    @property
    def kept(self) -> float | None:
        """The chance that the promise is kept; None without a promise or a plan."""
        promised = self.standing.promised
        return None if promised is None or self.dates is None else self.dates.kept(promised)

    @property
    def late(self) -> bool:
        """Whether the promise is not safe."""
        promised, safe = self.standing.promised, self.safe
        return promised is not None and safe is not None and safe > promised

    def days_in_hand(self, weekdays: tuple[int, ...]) -> int | None:
        """Working days between the safe day and the promise; None without either."""
        promised = self.standing.promised
        return working_days_between(self.safe, promised, weekdays) if promised and self.safe else None


def passes_in(c: Commission, climate: Climate) -> tuple[Pass, ...]:
    """The sequence of passes in that climate."""
    return sequence(c.layers, c.brief.medium, climate)


def passes_planned(c: Commission, climate: Climate) -> tuple[tuple[Pass, ...], str]:
    """The passes by which days are reckoned, and what they rest on in words: a usual head's until the sitter is drawn."""
    if c.layers.sitter_drawn:
        return passes_in(c, climate), "reckoned from your regions"
    if not c.compose.sized:
        return (), ""
    usual = usual_layers(c.compose.canvas, c.brief, c.layers.school)
    return sequence(usual, c.brief.medium, climate), "reckoned as a usual head on this canvas, until its regions are drawn"


def thickest_film(passes: tuple[Pass, ...]) -> Film:
    """The thickest film over a large area: glints are too small to hold the varnish back."""
    films: set[str] = {p.film for p in passes if "glint" not in p.name}
    return "thick" if "thick" in films else "normal" if "normal" in films else "wash"


def photos_that_count(c: Commission) -> tuple[Photo, ...]:
    """Those by whose detail the commission stands: the leads and what the composition is made of."""
    used = photographs_of(c.compose) if c.compose.framed else ()
    return tuple(p for p in c.intake.photos if p.use == "lead" or p.id in used)


def room_standings(
    c: Commission, studio: Studio, now: datetime, evidence: Mapping[str, Evidence] = MappingProxyType({})
) -> dict[str, Standing]:  # fmt: skip
    """What each room says of itself, by door; `evidence` by photograph id, as far as it is known."""
    passes = passes_in(c, studio.climate)
    reference = reference_key(c.compose)
    planned, _ = passes_planned(c, studio.climate)
    last = easel.last_painted(c.easel)
    left = bool(easel.passes_left(c.easel, planned)) or not passes
    return {
        "Intake": intake.stand(c.intake, c.brief, evidence),
        "Compose": compose.stand(
            c.compose, c.intake, studio.unit, evidence, c.proofs, c.log, studio.time.answer, size_to_take(c, studio, evidence)
        ),
        "Transfer": transfer.stand(
            c.transfer, c.compose, job_of(c.compose, c.intake.photos, c.transfer, studio.equipment), studio.stints, studio.unit
        ),
        "Tone": tone.stand(c.tone),
        "Palette": palette.stand(c.palette, reference),
        "Layers": layers.stand(c.layers, passes, reference, c.brief),
        "Easel": easel.stand(c.easel, passes, planned, c.log, c.compose, now, studio.time.daylight),
        "Check": check.stand(c.check, last, not left, reference),
        "Deliver": deliver.stand(
            c.deliver,
            c.brief.medium,
            c.brief.promised,
            last,
            left,
            thickest_film(planned),
            now,
            studio.time.rest,
            studio.time.courier,
            unpaid_words(c, studio),
            framed(c.compose.sides),
        ),
    }


def size_to_take(c: Commission, studio: Studio, evidence: Mapping[str, Evidence] = MappingProxyType({})) -> ProposedSize | None:
    """The size proposed while none is chosen: of the painter's own sizes, else of those in the studio's unit; None without a photograph."""
    photo = compose.to_frame(c.compose, c.intake)
    if c.compose.sized or photo is None:
        return None
    wall = replace(c.compose.wall, free_width_mm=c.compose.wall.free_width_mm or c.brief.wall_width_mm)
    formats = favourite_formats(studio.rack) or formats_of("inch" if studio.unit == "in" else "metric")
    carries = largest_canvas(c.compose, photo, evidence.get(photo.id))
    return proposed_size(photo.width_px / photo.height_px, carries, wall, formats)


def unpaid_words(c: Commission, studio: Studio) -> str:
    """What of the agreed price has not come in; "" where nothing is missing or no price is agreed."""
    account = account_of(c.log)
    if account.agreed is None or account.still_to_pay <= 0:
        return ""
    return money_text(account.still_to_pay, currency_of(account.agreed.currency), studio.terms.form)


def doors_of(c: Commission, rooms: dict[str, Standing]) -> tuple[Door, ...]:
    """All nine doors with their states."""

    def state(door: str, wants: str) -> State:
        return "shut" if not wants else "waived" if c.doors.reason(door) else "ahead"

    return tuple(Door(name, state(name, r.wants), r.fact, r.wants, r.stale) for name, r in rooms.items())


def stand(
    c: Commission, studio: Studio, now: datetime, evidence: Mapping[str, Evidence] = MappingProxyType({})
) -> CommissionStanding:  # fmt: skip
    """Fold what the rooms say; the work of a waived door is not planned."""
    rooms = room_standings(c, studio, now, evidence)
    doors = doors_of(c, rooms)
    here = door_now(doors).name
    act = rooms[here].act
    delivered = c.deliver.delivered
    waived = {w.door for w in c.doors.waived}
    open_rooms = {n: r.tasks for n, r in rooms.items() if r.tasks and n not in waived} if delivered is None else {}
    tasks = tuple(tuple(replace(t, door=name) for t in of) for name, of in open_rooms.items())
    worry = next((r.worry for name, r in rooms.items() if r.worry and name not in waived), "") if delivered is None else ""
    moments = [r.until for r in rooms.values() if r.until is not None]
    started = running(c.log)
    planned, reckoned = passes_planned(c, studio.climate)
    rests = rest_ends(c.deliver) if c.deliver.looked is None else None
    return CommissionStanding(
        id=c.id,
        title=c.brief.title,
        client=c.brief.client,
        medium=c.brief.medium,
        promised=c.brief.promised,
        warning=c.brief.contact_warning,
        compose=c.compose,
        ground=c.tone.ground,
        doors=doors,
        act=replace(act, door=here) if act is not None and delivered is None else None,
        rooms=tasks,
        worry=worry,
        wet_until=wet_until(c.easel, now) if delivered is None else None,
        rests_until=rests,
        delivered=delivered,
        passes=len(passes_in(c, studio.climate)),
        finished=len(c.easel.finished),
        painted=minutes_by_day(c.log),
        until=min(moments, default=None),
        rests_on=tuple(p.id for p in photos_that_count(c)),
        clock_since=started.at if started is not None else None,
        clock_on=started.title if started is not None else "",
        reckoned=reckoned,
        paced=passes_paced(c, planned),
        rest_hours=(c.deliver.rest_hours or studio.time.rest) if c.deliver.rest_from is None else 0.0,
        days_on_the_way=days_on_the_way(c.deliver, studio.time.courier) if delivered is None else 0,
        kind=kind_of(c.brief),
    )


def kind_of(brief: Brief) -> str:
    """By what the year is told: a single sitter's kind, else how many there are."""
    if len(brief.sitters) > 1:
        return "two sitters" if len(brief.sitters) == 2 else "three sitters and more"
    return brief.sitters[0].kind if brief.sitters else "other"


def passes_paced(c: Commission, passes: tuple[Pass, ...]) -> tuple[Paced, ...]:
    """What the finished passes took against the first guess; those whose hours were not logged teach nothing."""
    spent, by_id = minutes_by_pass(c.log), {p.id: p for p in passes}
    done = (by_id[f.pass_id] for f in c.easel.finished if f.pass_id in by_id)
    return tuple(Paced(p.family, p.minutes, spent[p.id], p.area_cm2) for p in done if spent.get(p.id, 0.0) > 0)


def outlook_of(standing: CommissionStanding, plan: Plan, dates: Mapping[str, Dates], pace: Pace) -> Outlook:
    """A standing in the plan over all commissions; a promise that is not safe is its worry, with its chance in ten."""
    found = Outlook(
        standing, plan.of(standing.id), plan.finish.get(standing.id), standing.work.at_pace(pace).minutes, standing.worry,
        dates.get(standing.id),
    )  # fmt: skip
    if standing.delivered is not None or not found.late:
        return found
    chance = found.kept
    return replace(found, worry="the promise is not safe" if chance is None else chance_words(chance))


def chance_words(kept: float) -> str:
    """The chance that a promise is kept."""
    return f"kept in {tenths(kept) or 'none'} of 10"


def state_words(s: CommissionStanding, now: datetime) -> str:
    """Where it stands, in words for the shelf."""
    if s.delivered is not None:
        return "delivered"
    if s.wet_until is not None and s.wet_until > now:
        return f"wet until {clock_text(s.wet_until, now)}"
    if s.rests_until is not None:
        return f"rests unseen until {clock_text(s.rests_until, now)}"
    if s.door == "Easel":
        return f"painting, {s.finished} passes done"
    return {"Intake": "waiting for photographs", "Deliver": "finishing"}.get(s.door, f"at {s.door}")
