"""What the calendar shows now: the painter's hands day by day, what dries beside, honest dates, and what saves a promise."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta

from yarrow_lane.calendar.dates import Dates
from yarrow_lane.calendar.plan import Plan, Sitting
from yarrow_lane.calendar.promising import Offers
from yarrow_lane.calendar.remedies import Remedy, Trouble
from yarrow_lane.commission.standing import Outlook, chance_words
from yarrow_lane.commission.studio import Studio
from yarrow_lane.compose.composition import Compose
from yarrow_lane.desk.planned import KeptDay
from yarrow_lane.measure.days import clock_text, day_text
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.measure.words import begun
from yarrow_lane.ui.bench_sheet import Mood

MOST_DAYS = 120  # our choice: what lies beyond is drawn at the edge
_LEAST_DAYS = 21
_MOST_DRYING = 6
_LONG_DRYING = 240.0  # minutes a film dries before it is worth a line: our choice


@dataclass(frozen=True)
class HandsSitting:
    """One sitting on the line: `number` counts today's from 1, 0 on other days; `share` is where in its canvas its strip is cut."""

    sitting: Sitting
    title: str
    number: int
    share: tuple[float, float]
    compose: Compose


@dataclass(frozen=True)
class Drying:
    """Something that dries or rests beside: from when to when, in words."""

    words: str
    begin: datetime
    end: datetime


@dataclass(frozen=True)
class FinishRow:
    """One commission's finish: ten dabs, likely and safe day, promise, and the safe day as the day before said."""

    commission_id: str
    title: str
    small: str
    words: str
    under: str
    mood: Mood
    dates: Dates | None
    finish: date | None
    promised: date | None
    was_safe: date | None
    compose: Compose | None


@dataclass(frozen=True)
class RemedyCard:
    """One way to save a promise, as it is offered; `number` is its place among the remedies, -1 for asking for days."""

    title: str
    lines: tuple[str, ...]
    dates: Dates
    promised: date
    kept: str
    button: str
    number: int


@dataclass(frozen=True)
class CalendarView:
    """The whole table."""

    now: datetime
    days: int
    closed: frozenset[date]
    hours: tuple[int, int]
    sittings: tuple[HandsSitting, ...]
    drying: tuple[Drying, ...]
    rows: tuple[FinishRow, ...]
    heading: str
    cards: tuple[RemedyCard, ...]
    empty: str = ""

    @property
    def today(self) -> date:
        """The first day of the line."""
        return self.now.date()


@dataclass(frozen=True)
class Newcomer:
    """A new piece that could be promised."""

    words: str
    minutes: float
    offers: Offers


def calendar_view(
    found: Sequence[Outlook], plan: Plan, studio: Studio, now: datetime, yesterday: KeptDay | None, trouble: Trouble | None,
    newcomer: Newcomer | None, closed: frozenset[date],
) -> CalendarView:  # fmt: skip
    """Work the table out; `trouble` is the chosen commission's, if its promise is not safe."""
    open_ = [o for o in found if o.standing.delivered is None]
    titles = {o.standing.id: o for o in open_}
    rows = [_row(o, yesterday, studio) for o in sorted(open_, key=_by_finish)]
    if newcomer is not None:
        rows.append(_newcomer_row(newcomer, titles))
    last = max((d for r in rows for d in _row_days(r)), default=now.date())
    days = max(_LEAST_DAYS, min(MOST_DAYS, (last - now.date()).days + 5))
    spans = [s for day in studio.time.hours for s in day]
    hours = (min((s.begin for s in spans), default=600), max((s.end for s in spans), default=1080))
    heading, cards = _cards(trouble, titles, studio)
    empty = "" if spans else "You have no hours: write them under “own time” above, and the days can be planned."
    if spans and not open_:
        empty = "Nothing is to be painted yet: start a commission, and its sittings stand here."
    return CalendarView(
        now, days, closed, hours, _strips(plan, titles, now), _drying(open_, now), tuple(rows), heading, cards, empty
    )


def _row_days(row: FinishRow) -> list[date]:
    found = [d for d in (row.promised, row.finish, row.was_safe) if d is not None]
    return found + (list(row.dates.dabs) if row.dates is not None else [])


def _by_finish(o: Outlook) -> tuple[date, str]:
    return o.standing.promised or o.safe or date.max, o.standing.title


# --- the line


def _strips(plan: Plan, titles: Mapping[str, Outlook], now: datetime) -> tuple[HandsSitting, ...]:
    minutes: dict[str, int] = {}
    for s in plan.sittings:
        minutes[s.commission_id] = minutes.get(s.commission_id, 0) + s.minutes
    before: dict[str, int] = {}
    found, number = [], 0
    for s in plan.sittings:
        o = titles.get(s.commission_id)
        if o is None or not s.minutes:
            continue
        begin = before.get(s.commission_id, 0)
        before[s.commission_id] = begin + s.minutes
        whole = max(1, minutes[s.commission_id])
        number = number + 1 if s.day == now.date() else 0
        found.append(
            HandsSitting(s, o.standing.title, number, (begin / whole, (begin + s.minutes) / whole), o.standing.compose)
        )
    return tuple(found)


def _drying(found: Sequence[Outlook], now: datetime) -> tuple[Drying, ...]:
    """What is wet or rests now, and the longest waits that today's sittings begin."""
    lines = []
    for o in found:
        s = o.standing
        if s.wet_until is not None and s.wet_until > now:
            lines.append(Drying(f"{s.title}: dry {clock_text(s.wet_until, now)}", now, s.wet_until))
        if s.rests_until is not None and s.rests_until > now:
            lines.append(Drying(f"{s.title} rests unseen until {clock_text(s.rests_until, now)}", now, s.rests_until))
        lines += _waits_begun(o, now)
    lines.sort(key=lambda d: (d.begin, -(d.end - d.begin).total_seconds()))
    return tuple(lines[:_MOST_DRYING])


def _waits_begun(o: Outlook, now: datetime) -> list[Drying]:
    """Waits of hours and days between two sittings of the next week."""
    tasks = {t.key or t.words: t for room in o.standing.rooms for t in room}
    places = {(n, k): t for n, room in enumerate(o.standing.rooms) for k, t in enumerate(room)}
    found = []
    for n, room in enumerate(o.standing.rooms):
        for task in room:
            for place, lag in task.after:
                before = places.get((n, place))
                if before is None or lag < _LONG_DRYING:
                    continue
                end = next(
                    (s.end for s in reversed(o.sittings) if any(a.key == (before.key or before.words) for a in s.acts)), None
                )
                if end is None or (end.date() - now.date()).days > 7:
                    continue
                begin = end.replace(tzinfo=now.tzinfo)
                what = "rests unseen" if "fresh eyes" in task.words else f"{before.words}: dry"
                until = begin + timedelta(minutes=lag)
                found.append(Drying(f"{o.standing.title}, {what} until {clock_text(until, now)}", begin, until))
    return found[:1] if tasks else []


# --- the finishes


def _row(o: Outlook, yesterday: KeptDay | None, studio: Studio) -> FinishRow:
    s = o.standing
    words, mood = _words(o, studio)
    was = yesterday.safe.get(s.id) if yesterday is not None else None
    return FinishRow(
        s.id, s.title, f"{hours_text(s.minutes_left)} to do" if s.minutes_left else "nothing left to do", words, _under(o, was), mood,
        o.dates, o.finish, s.promised, was, s.compose,
    )  # fmt: skip


def _words(o: Outlook, studio: Studio) -> tuple[str, Mood]:
    s, safe = o.standing, o.safe
    if safe is None:
        return "no hours to plan it in", "wrong"
    if s.promised is None:
        return f"nothing promised; {day_text(safe)} would hold", "plain"
    if o.late:
        kept = o.kept
        return "the promise is not safe" if kept is None else chance_words(kept), "wrong"
    days = o.days_in_hand(studio.time.weekdays) or 0
    return f"safe, {days} day{'s' * (days != 1)} in hand", "good"


def _under(o: Outlook, was: date | None) -> str:
    safe = o.safe
    if o.dates is None and safe is not None:
        return "far ahead: told by its hours alone"
    if o.late and o.standing.promised is not None and safe is not None:
        days = (safe - o.standing.promised).days
        return f"ask for {days} day{'s' * (days != 1)}, or save it below"
    if was is None or safe is None:
        return "from first guesses" if o.dates is not None and o.dates.guessed else ""
    days = (safe - was).days
    if not days:
        return "as the day before said"
    return f"{abs(days)} day{'s' * (abs(days) != 1)} {'later' if days > 0 else 'earlier'} than the day before said"


def _newcomer_row(new: Newcomer, titles: Mapping[str, Outlook]) -> FinishRow:
    offer = new.offers.earliest or new.offers.last
    day = day_text(offer.dates.safe)
    where = f"slipped in after {titles[offer.after].standing.title}" if offer.after in titles else "before all the others"
    if new.offers.earliest is None:
        return FinishRow(
            "",
            new.words,
            hours_text(new.minutes),
            f"{day}, after all the others; every day breaks a promise",
            "",
            "wrong",
            offer.dates,
            None,
            None,
            None,
            None,
        )
    return FinishRow(
        "",
        new.words,
        hours_text(new.minutes),
        f"{day} is the earliest you can promise",
        f"{where}; nobody's promise falls",
        "good",
        offer.dates,
        None,
        None,
        None,
        None,
    )


# --- what saves a promise


def _cards(trouble: Trouble | None, titles: Mapping[str, Outlook], studio: Studio) -> tuple[str, tuple[RemedyCard, ...]]:
    if trouble is None:
        return "", ()
    s = titles[trouble.commission_id].standing
    assert s.promised is not None
    heading = f"Save {s.title}: promised {day_text(s.promised)}, kept in {int(trouble.kept * 10 + 1e-9)} of 10 now"
    cards = [_card(n, r, s.promised, titles, studio) for n, r in enumerate(trouble.remedies)]
    asked = s.promised + timedelta(days=trouble.ask_days)
    many = f"{trouble.ask_days} day{'s' * (trouble.ask_days != 1)}"
    cards.append(
        RemedyCard(
            f"Or ask for {many}",
            (f"{day_text(asked)} is safe", "a letter is drafted"),
            trouble.dates,
            asked,
            "9 in 10",
            "Write the letter",
            -1,
        )
    )
    return heading, tuple(cards)


def _card(number: int, r: Remedy, promised: date, titles: Mapping[str, Outlook], studio: Studio) -> RemedyCard:
    lines = [remedy_detail(r, studio)]
    if r.ask_client:
        lines.append("the client must say yes")
    elif r.slips:
        name = titles[r.slips[0][0]].standing.title if r.slips[0][0] in titles else "another"
        more = f", and {len(r.slips) - 1} more" if len(r.slips) > 1 else ""
        lines.append(
            f"{name} {r.slips[0][1]} day{'s' * (r.slips[0][1] != 1)} later{more}" + ("; breaks a promise" if r.breaks else "")
        )
    else:
        lines.append("nobody else moves")
    tenths = int(r.kept * 10 + 1e-9)
    if not r.enough:
        lines[-1] = f"{lines[-1]}; not enough alone"
    return RemedyCard(
        remedy_title(r, titles), tuple(x for x in lines if x), r.dates, promised, f"{tenths} in 10", "Take this", number
    )


def remedy_title(r: Remedy, titles: Mapping[str, Outlook]) -> str:
    """A remedy in its size, in words."""
    match r.kind:
        case "free days":
            days = [day_text(d) for d in r.days]
            return f"Paint on {' and '.join(days)}" if len(days) < 3 else f"Paint on {r.size} free days"
        case "longer days":
            return f"An hour longer for {r.size} week{'s' * (r.size != 1)}"
        case "earlier":
            names = [titles[i].standing.title for i in r.jumped if i in titles]
            return f"Paint it before {' and '.join(names)}" if len(names) < 3 else f"Paint it {len(names)} places earlier"
        case "softer background":
            return "A softer background"
        case "painterly":
            return "Painterly, but for face and eyes"
        case "short rest":
            return "Rest 24 h, not longer"
        case "express":
            return "Send it by express"


def remedy_detail(r: Remedy, studio: Studio) -> str:
    """What it asks for."""
    match r.kind:
        case "free days":
            each = hours_text(studio.time.minutes_a_day)
            return f"{each} each" + (f", {day_text(r.days[0])} to {day_text(r.days[-1])}" if len(r.days) > 2 else "")
        case "longer days":
            return f"{r.hours:.0f}\u202fh more in all"
        case "softer background" | "painterly":
            return f"{hours_text(r.size)} less to paint"
        case "earlier":
            return "painted before them"
        case "short rest" | "express":
            return begun(f"{r.size} day{'s' * (r.size != 1)} earlier with the client")
