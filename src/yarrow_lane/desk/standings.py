"""Every commission's standing, kept until the commission, the studio or the minute that matters changes; and the plan over all."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime
from itertools import islice

from yarrow_lane.calendar.dates import Dates
from yarrow_lane.calendar.jobs import Work
from yarrow_lane.calendar.pace import Pace, Paced
from yarrow_lane.calendar.painted_days import PaintedDays
from yarrow_lane.calendar.promising import Offers, offers
from yarrow_lane.calendar.remedies import Trouble as PromiseTrouble
from yarrow_lane.calendar.sittings import Plan
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.standing import CommissionStanding, Outlook, outlook_of, photos_that_count, stand
from yarrow_lane.commission.studio import STUDIO_PART, Studio
from yarrow_lane.desk.evidence import EvidenceKept
from yarrow_lane.desk.planned import Made, Planned
from yarrow_lane.easel.air import Air, aired
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.store.codec import from_plain_json, to_plain_json
from yarrow_lane.store.database import Database

VERSION = 9  # raise it when a standing is worked out differently: kept ones are then made anew


@dataclass(frozen=True)
class Unreadable:
    """A commission that stands on the shelf but cannot be read, and why."""

    id: str
    title: str
    trouble: Trouble


@dataclass(frozen=True)
class Logged:
    """Finished passes by commission, and minutes at the easel by day."""

    passes: Mapping[str, tuple[Paced, ...]]
    painted: Mapping[date, float]


class Standings:
    """Asked by shelf, weeks, lane and header alike, so that they say the same."""

    def __init__(
        self, database: Database, commission: Callable[[str], Commission], studio: Callable[[], Studio], evidence: EvidenceKept,
        air: Callable[[], Air] = Air,
    ) -> None:  # fmt: skip
        self._database, self._commission, self._studio, self._evidence = database, commission, studio, evidence
        self._air = air
        self._kept: dict[str, tuple[str, CommissionStanding]] = {}
        self._texts = database.standings()
        self._versions = database.versions.stamps()
        self._happenings = database.newest_happenings()
        self._unsaved: set[str] = set()
        self._unreadable: dict[str, Unreadable] = {}
        self.planned = Planned(database)
        self._studio_seen: tuple[Studio | None, str] = (None, "")
        self._changes = 0
        self._logged: tuple[tuple[int, str], Logged] | None = None

    # --- one

    def of(self, commission_id: str, now: datetime) -> CommissionStanding:
        """How it stands; raises `Trouble` when the commission cannot be read."""
        key = self._key(commission_id)
        kept = self._kept.get(commission_id) or self._stored(commission_id, key)
        if kept is not None and kept[0] == key and (kept[1].until is None or kept[1].until > now):
            self._kept[commission_id] = kept
            return kept[1]
        commission = self._commission(commission_id)
        easel = aired(commission.easel, self._air())
        commission = commission if easel is commission.easel else replace(commission, easel=easel)
        found = stand(commission, self._studio(), now, self._evidence.of_all(photos_that_count(commission)))
        if kept is not None and kept[1].rooms == found.rooms:
            found = replace(found, rooms=kept[1].rooms)  # the same object: the plan sees at a glance that nothing changed
        self._kept[commission_id] = (key, found)
        self._unsaved.add(commission_id)
        return found

    def _key(self, commission_id: str) -> str:
        return f"{self._studio_words()} {self._versions.get(commission_id)} {self._happenings.get(commission_id)}"

    def _studio_words(self) -> str:
        """What of the studio changes how a commission stands: air, unit and a few of the painter's times."""
        studio = self._studio()
        if studio is not self._studio_seen[0]:
            time = studio.time
            words = f"{VERSION} {studio.climate} {studio.unit} {time.daylight} {time.rest} {time.courier} {time.answer} {studio.terms.form}"
            self._studio_seen = (studio, words)
        return self._studio_seen[1]

    def _stored(self, commission_id: str, key: str) -> tuple[str, CommissionStanding] | None:
        stored_key, text = self._texts.pop(commission_id, ("", ""))
        if stored_key != key:
            return None
        try:
            return key, from_plain_json(CommissionStanding, text)
        except Trouble:
            return None  # written by another program: it is worked out anew

    def changed(self, commission_id: str, version: str) -> None:
        """That commission has another version at its head."""
        self._changes += 1
        self._versions[commission_id] = version
        self._unreadable.pop(commission_id, None)

    def happened(self, commission_id: str, number: int) -> None:
        """Something happened on that commission; `number` is the entry's own."""
        self._changes += 1
        self._happenings[commission_id] = number

    def measured(self, photo_id: str) -> None:
        """More is known of a photograph: the commissions it counts for are looked at again."""
        self._kept = {i: kept for i, kept in self._kept.items() if photo_id not in kept[1].rests_on}
        self._texts = {i: stored for i, stored in self._texts.items() if photo_id not in stored[1]}
        self._unsaved.intersection_update(self._kept)

    # --- all

    def all(self, now: datetime) -> tuple[CommissionStanding, ...]:
        """Those on the shelf that can be read, in order."""
        return self._readable(self._studio().on_shelf, now)

    def away(self, now: datetime) -> tuple[tuple[CommissionStanding, ...], tuple[Unreadable, ...]]:
        """Those put away, the newest first: what can be read, and what cannot."""
        on_shelf = set(self._studio().on_shelf)
        ids = sorted((i for i in self._versions if i not in on_shelf and i != STUDIO_PART.name), reverse=True)
        found = self._readable(ids, now)
        return found, tuple(self._unreadable[i] for i in ids if i in self._unreadable)

    def _readable(self, ids: Sequence[str], now: datetime) -> tuple[CommissionStanding, ...]:
        found = []
        for commission_id in ids:
            try:
                found.append(self.of(commission_id, now))
            except Trouble as trouble:
                self._unreadable[commission_id] = Unreadable(commission_id, self.title(commission_id), trouble)
        return tuple(found)

    def unreadable(self) -> tuple[Unreadable, ...]:
        """Those on the shelf that could not be read when all were asked for last."""
        return tuple(self._unreadable[i] for i in self._studio().on_shelf if i in self._unreadable)

    def title(self, commission_id: str) -> str:
        """Its name, or the one it was started under when it cannot be read."""
        if commission_id in self._kept:
            return self._kept[commission_id][1].title
        first = self._database.versions.versions(commission_id)
        return first[0].label.removeprefix("Started ") if first else commission_id

    def works(self, now: datetime) -> tuple[Work, ...]:
        """What is to be planned, with passes as first guessed."""
        return tuple(s.work for s in self.all(now) if s.rooms)

    def logged(self, now: datetime) -> Logged:
        """What the easel's record teaches, from all commissions, those put away too; kept until one of them changes."""
        key = (self._changes, self._studio_words())
        if self._logged is None or self._logged[0] != key:
            every = (*self.all(now), *self.away(now)[0])
            painted: dict[date, float] = {}
            for day, minutes in (spent for s in every for spent in s.painted):
                painted[day] = painted.get(day, 0.0) + minutes
            self._logged = (key, Logged({s.id: s.paced for s in every if s.paced}, painted))
        return self._logged[1]

    def pace(self, now: datetime) -> Pace:
        """The painter's own pace."""
        return self.planned.pace(self.logged(now).passes)

    def _made(self, now: datetime) -> Made:
        shares = self.planned.days.shares(self.logged(now).painted, now.date())
        return self.planned.made(self.works(now), now, self._studio(), self.pace(now), shares)

    def plan(self, now: datetime) -> Plan:
        """The plan over all of them, worked out again when any task, the hours or the day has changed."""
        return self._made(now).plan

    def painted_days(self, now: datetime) -> PaintedDays:
        """What part of the planned minutes is painted, as the kept days say."""
        return self._made(now).days

    def dates(self, now: datetime) -> Mapping[str, Dates]:
        """Likely and safe days of what is planned stint by stint, by commission."""
        return self._made(now).dates

    def safe_by_first_guess(self, commission_id: str, now: datetime) -> date | None:
        """The safe day as it would be had nothing been learned."""
        return self.planned.safe_by_first_guess(self._made(now), commission_id, now, self._studio())

    def trouble(self, commission_id: str, now: datetime) -> PromiseTrouble | None:
        """What saves its promise; None where it is safe or there is none."""
        s = self.of(commission_id, now)
        return self.planned.trouble(
            self._made(now), commission_id, self._promised(now), self._studio(), s.rest_hours, s.days_on_the_way
        )

    def offers(self, new: Work, now: datetime) -> Offers:
        """The days a new piece could be promised for."""
        return offers(new, self._made(now).outcomes, self._promised(now), now, self._studio().time)

    def _promised(self, now: datetime) -> dict[str, date | None]:
        return {s.id: s.promised for s in self.all(now)}

    def outlooks(self, now: datetime) -> tuple[Outlook, ...]:
        """All of them in the plan."""
        made = self._made(now)
        return tuple(outlook_of(s, made.plan, made.dates, made.pace) for s in self.all(now))

    def outlook(self, commission_id: str, now: datetime) -> Outlook:
        """One of them in the plan; raises `Trouble` when it cannot be read."""
        made = self._made(now)
        return outlook_of(self.of(commission_id, now), made.plan, made.dates, made.pace)

    def clocks(self) -> tuple[CommissionStanding, ...]:
        """Those on the shelf whose clock runs, as all stood when they were asked for last."""
        kept = (self._kept[i][1] for i in self._studio().on_shelf if i in self._kept)
        return tuple(s for s in kept if s.clock_since is not None)

    def save(self, most: int | None = None) -> bool:
        """Keep what was worked out, at most so many, beside its commissions; whether there were any. Raises `StoreTrouble`."""
        some = list(islice(self._unsaved, most))
        if some:
            self._database.keep_standings((i, self._kept[i][0], to_plain_json(self._kept[i][1])) for i in some)
            self._unsaved.difference_update(some)
        return self.planned.days.save() or bool(some)
