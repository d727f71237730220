"""What the calendar shows now: the painter's hands day by day, what dries beside, honest dates, and what saves a promise."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta

from yarrow_lane.calendar.dates import DABS, Dates, tenths
from yarrow_lane.calendar.own_time import spans_on
from yarrow_lane.calendar.promising import Offers
from yarrow_lane.calendar.remedies import Remedy, Trouble
from yarrow_lane.calendar.sittings import Plan, Sitting
from yarrow_lane.commission.newcomer import Offered
from yarrow_lane.commission.standing import Outlook, chance_words
from yarrow_lane.commission.studio import Studio
from yarrow_lane.compose.composition import Compose
from yarrow_lane.deliver.standing import LOOK
from yarrow_lane.desk.kept_days import KeptDay
from yarrow_lane.lane.standing import BEFORE
from yarrow_lane.measure.days import clock_text, day_text, moved_text
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.measure.words import begun, counted
from yarrow_lane.ui.bench_sheet import Mood

MOST_DAYS = 120  # our choice: what lies beyond is drawn at the edge
_LEAST_DAYS = 21
_MOST_DRYING = 6
_LONG_DRYING = 240.0  # minutes a film dries before it is worth a line: our choice
_AHEAD_DAYS = 7
ASK = -1  # the number of the card that asks the client for days


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
    """One way to save a promise, as it is offered; `kept` is the chance in tenths, `number` its place among the remedies."""

    title: str
    lines: tuple[str, ...]
    kept: int
    button: str
    number: int

    @property
    def kept_words(self) -> str:
        """The chance beside its dabs."""
        return f"{self.kept} in {DABS}"


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


def calendar_view(
    found: Sequence[Outlook], plan: Plan, studio: Studio, now: datetime, yesterday: KeptDay | None, trouble: Trouble | None,
    offered: Offered | None,
) -> CalendarView:  # fmt: skip
    """Work the table out; `trouble` is the chosen commission's, if its promise is not safe, `offered` a piece that is asked about."""
    open_ = [o for o in found if o.standing.delivered is None]
    by_id = {o.standing.id: o for o in open_}
    rows = [_row(o, yesterday, studio) for o in sorted(open_, key=_by_finish)]
    if offered is not None and offered.offers is not None:
        rows.append(_newcomer_row(offered, offered.offers, by_id, studio))
    last = max((d for r in rows for d in _row_days(r)), default=now.date())
    days = max(_LEAST_DAYS, min(MOST_DAYS, (last - now.date()).days + 5))
    spans = [s for day in studio.time.hours for s in day]
    hours = (min((s.begin for s in spans), default=600), max((s.end for s in spans), default=1080))
    heading, cards = _cards(trouble, by_id, studio)
    empty = "" if spans else "You have no hours: write them under “own time” above, and the days can be planned."
    if spans and not open_:
        empty = "Nothing is to be painted yet: start a commission, and its sittings stand here."
    return CalendarView(
        now,
        days,
        _closed(studio, now.date(), days),
        hours,
        _strips(plan, by_id, now),
        _drying(open_, now),
        tuple(rows),
        heading,
        cards,
        empty,
    )


def _closed(studio: Studio, first: date, days: int) -> frozenset[date]:
    """Days without hours."""
    ahead = (first + timedelta(days=n) for n in range(days))
    return frozenset(d for d in ahead if not spans_on(studio.time, d))


def _row_days(row: FinishRow) -> list[date]:
    found = [d for d in (row.promised, row.finish, row.was_safe) if d is not None]
    return found + (list(row.dates.dabs) if row.dates is not None else [])


def _by_finish(o: Outlook) -> tuple[date, str]:
    return o.standing.promised or o.safe or date.max, o.standing.title


# --- the line


def _strips(plan: Plan, by_id: Mapping[str, Outlook], now: datetime) -> tuple[HandsSitting, ...]:
    minutes: dict[str, int] = {}
    for s in plan.sittings:
        minutes[s.commission_id] = minutes.get(s.commission_id, 0) + s.minutes
    before: dict[str, int] = {}
    found, number = [], 0
    for s in plan.sittings:
        o = by_id.get(s.commission_id)
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
    """The first wait of hours or days between two sittings of the next week."""
    for room in o.standing.rooms:
        for task, place, lag in ((t, place, lag) for t in room for place, lag in t.after):
            if place == BEFORE or lag < _LONG_DRYING:
                continue
            before = room[place]
            end = next((s.end for s in reversed(o.sittings) if any(a.key == before.name for a in s.acts)), None)
            if end is not None and (end.date() - now.date()).days <= _AHEAD_DAYS:
                begin = end.replace(tzinfo=now.tzinfo)
                until = begin + timedelta(minutes=lag)
                what = "rests unseen" if task.words == LOOK else f"{before.words}: dry"
                return [Drying(f"{o.standing.title}, {what} until {clock_text(until, now)}", begin, until)]
    return []


# --- the finishes


def _row(o: Outlook, yesterday: KeptDay | None, studio: Studio) -> FinishRow:
    s = o.standing
    words, mood = _words(o, studio)
    was = yesterday.safe.get(s.id) if yesterday is not None else None
    return FinishRow(
        s.id, s.title, f"{hours_text(o.minutes_left)} to do" if o.minutes_left else "nothing left to do", words, _under(o, was), mood,
        o.dates, o.finish, s.promised, was, s.compose,
    )  # fmt: skip


def _words(o: Outlook, studio: Studio) -> tuple[str, Mood]:
    s, safe = o.standing, o.safe
    if safe is None:
        return "no hours to plan it in", "wrong"
    if s.promised is None:
        return f"nothing promised; {day_text(safe)} would hold", "plain"
    if o.late:
        return o.worry, "wrong"
    days = o.days_in_hand(studio.time.weekdays) or 0
    return f"safe, {counted(days, 'day')} in hand", "good"


def _under(o: Outlook, was: date | None) -> str:
    safe = o.safe
    if o.dates is None and safe is not None:
        return "far ahead: told by its hours alone"
    if o.late and o.standing.promised is not None and safe is not None:
        days = (safe - o.standing.promised).days
        return f"ask for {counted(days, 'day')}, or save it below"
    if was is None or safe is None:
        return "from first guesses" if o.dates is not None and o.dates.guessed else ""
    days = (safe - was).days
    return f"{moved_text(days)} than the day before said" if days else "as the day before said"


def _newcomer_row(offered: Offered, offers: Offers, by_id: Mapping[str, Outlook], studio: Studio) -> FinishRow:
    offer = offers.earliest or offers.last
    mood: Mood = "good" if offers.earliest is not None else "wrong"
    words = f"{day_text(offer.dates.safe)} is the earliest you can promise"
    under = f"slipped in after {by_id[offer.after].standing.title}" if offer.after in by_id else "before all the others"
    under += "; nobody's promise falls"
    if offers.earliest is None:
        words, under = f"{day_text(offer.dates.safe)}, after all the others; every day breaks a promise", ""
    return FinishRow(
        "", offered.piece.words(studio.unit), hours_text(offered.minutes), words, under, mood, offer.dates,
        finish=None, promised=None, was_safe=None, compose=None,
    )  # fmt: skip


# --- what saves a promise


def _cards(trouble: Trouble | None, by_id: Mapping[str, Outlook], studio: Studio) -> tuple[str, tuple[RemedyCard, ...]]:
    if trouble is None:
        return "", ()
    s = by_id[trouble.commission_id].standing
    assert s.promised is not None
    heading = f"Save {s.title}: promised {day_text(s.promised)}, {chance_words(trouble.kept)} now"
    cards = [_card(n, r, by_id, studio) for n, r in enumerate(trouble.remedies)]
    until = s.promised + timedelta(days=trouble.ask_days)
    asked = RemedyCard(
        f"Or ask for {counted(trouble.ask_days, 'day')}", (f"{day_text(until)} is safe", "a letter is drafted"),
        tenths(trouble.dates.kept(until)), "Write the letter", ASK,
    )  # fmt: skip
    return heading, (*cards, asked)


def _card(number: int, r: Remedy, by_id: Mapping[str, Outlook], studio: Studio) -> RemedyCard:
    lines = [remedy_detail(r, studio)]
    if r.ask_client:
        lines.append("the client must say yes")
    elif r.slips:
        (name, days), more = r.slips[0], len(r.slips) - 1
        title = by_id[name].standing.title if name in by_id else "another"
        lines.append(f"{title} {moved_text(days)}" + f", and {more} more" * bool(more) + "; breaks a promise" * bool(r.breaks))
    else:
        lines.append("nobody else moves")
    if not r.enough:
        lines[-1] = f"{lines[-1]}; not enough alone"
    return RemedyCard(remedy_title(r, by_id), tuple(filter(None, lines)), tenths(r.kept), "Take this", number)


def remedy_title(r: Remedy, by_id: Mapping[str, Outlook]) -> str:
    """A remedy in its size, in words."""
    match r.kind:
        case "free days":
            days = [day_text(d) for d in r.days]
            return f"Paint on {' and '.join(days)}" if len(days) < 3 else f"Paint on {r.size} free days"
        case "longer days":
            return f"An hour longer for {counted(r.size, 'week')}"
        case "earlier":
            names = [by_id[i].standing.title for i in r.jumped if i in by_id]
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
            return begun(f"{counted(r.size, 'day')} earlier with the client")
