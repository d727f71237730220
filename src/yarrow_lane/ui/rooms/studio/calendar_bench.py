"""The bench beside the calendar: today by the clock, what changed since the day before, own pace, and a piece not promised yet."""

from collections.abc import Mapping, Sequence
from datetime import datetime, timedelta
from typing import Protocol

from yarrow_lane.calendar.pace import ENOUGH, Pace, factor_words
from yarrow_lane.calendar.painted_days import PaintedDays
from yarrow_lane.calendar.sittings import Plan, Sitting
from yarrow_lane.commission.standing import Outlook
from yarrow_lane.commission.studio import Studio
from yarrow_lane.commission.today import TimedAct, todays_acts
from yarrow_lane.desk.kept_days import KeptDay
from yarrow_lane.lane.standing import act_detail
from yarrow_lane.layers.kinds import family_facts
from yarrow_lane.measure.days import day_text, moved_text
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.measure.words import counted, within
from yarrow_lane.ui.bench_sheet import BenchSheet, Deed, Fact, Line, NextAct, Note, Press, Section
from yarrow_lane.ui.rooms.studio.looked import Looked
from yarrow_lane.ui.rooms.studio.newcomer_bench import Hands as NewcomerHands
from yarrow_lane.ui.rooms.studio.newcomer_bench import newcomer_section

_DEEDS = 5  # our choice: what fits above the rest of the bench
_CHANGES = 4
_SOON = timedelta(minutes=10)  # an act that begins so soon begins now: our choice
_FAMILIES = 4


class Hands(NewcomerHands, Protocol):
    """What the page does for the calendar's bench."""

    def pin_or_free(self, sitting: Sitting) -> None: ...
    def unpress(self, commission_id: str) -> None: ...
    def begin_act(self, act: TimedAct) -> None: ...
    def go_in_studio(self, where: str) -> None: ...


def calendar_bench(
    studio: Studio, found: tuple[Outlook, ...], now: datetime, looked: Looked, hands: Hands
) -> BenchSheet:  # fmt: skip
    """Everything beside the table; the yellow field begins the first act."""
    acts = todays_acts(found, studio.time, now, looked.here)
    titles = {o.standing.id: o.standing.title for o in found}
    every = (
        today_section(acts),
        sitting_section(looked.sitting, titles, hands) if looked.sitting is not None else None,
        pressed_section(studio, looked.chosen, titles, hands),
        moved_section(looked.moved),
        since_section(found, looked.plan, looked.yesterday),
        pace_section(looked.pace, looked.days),
        newcomer_section(looked.offered, studio, titles, hands) if looked.offered is not None else None,
    )
    sections = tuple(s for s in every if s is not None)
    if not acts:
        return BenchSheet(
            sections, NextAct("Back to the shelf", "nothing can be begun today", lambda: hands.go_in_studio("shelf"))
        )
    first = acts[0]
    why = f"{first.title} · {hours_text(first.minutes)}" + (f" · {first.reasons[0]}" if first.reasons else "")
    if first.at > now + _SOON:
        why = f"{first.title}, at {first.at:%H:%M}"
    return BenchSheet(sections, NextAct(first.act.title, why, lambda: hands.begin_act(first)))


def today_section(acts: Sequence[TimedAct], most: int = _DEEDS) -> Section:
    """The day as it could go, each act with its two strongest reasons."""
    deeds: tuple[Line, ...] = tuple(
        Deed(
            f"{a.at:%H:%M}", a.title, within(a.act.title),
            " · ".join((hours_text(a.minutes), *(a.reasons or tuple(filter(None, (act_detail(a.act, a.at),)))))),
        )
        for a in acts[:most]
    )  # fmt: skip
    return Section(
        "Today, by the clock", deeds or (Note("Nothing can be begun today: all of it dries, rests, or your hours are over."),)
    )


def since_section(found: Sequence[Outlook], plan: Plan, yesterday: KeptDay | None) -> Section | None:
    """What the day before said otherwise, and sittings that were missed; None when there is nothing to say."""
    if yesterday is None:
        return None
    lines: list[Line] = []
    for o in found:
        s = o.standing
        if s.delivered is not None:
            continue
        was = yesterday.safe.get(s.id)
        if was is not None and o.safe is not None and o.dates is not None and was != o.safe:
            days = (o.safe - was).days
            lines.append(Fact(s.title, f"safe {moved_text(days)}", "wrong" if o.late and days > 0 else "plain"))
        wanted, spent = yesterday.minutes.get(s.id, 0.0), s.painted_on(yesterday.day)
        if wanted and not spent:
            lines.append(Fact(s.title, f"missed {hours_text(wanted)} on {day_text(yesterday.day)}", "wrong"))
        elif wanted:
            lines.append(Fact(s.title, f"{hours_text(spent)} of {hours_text(wanted)} painted"))
    for pin in plan.broken:
        title = next((o.standing.title for o in found if o.standing.id == pin.commission_id), pin.commission_id)
        lines.append(Fact(title, f"{day_text(pin.start.date())} cannot hold: it is wet then", "wrong"))
    if not lines:
        return None
    lines.sort(key=lambda line: not (isinstance(line, Fact) and line.value.startswith("missed")))
    more = (Note(f"and {len(lines) - _CHANGES} more"),) if len(lines) > _CHANGES else ()
    return Section(f"Since {day_text(yesterday.day)}", (*lines[:_CHANGES], *more))


def sitting_section(s: Sitting, titles: Mapping[str, str], hands: Hands) -> Section:
    """The sitting that mouse or keys stand on: when, and which passes."""
    lines: list[Line] = [Fact(day_text(s.day), f"{s.start:%H:%M} to {s.end:%H:%M}")]
    lines += [Fact(a.words, hours_text(a.minutes)) for a in s.acts[:_CHANGES]]
    if len(s.acts) > _CHANGES:
        lines.append(Note(f"and {len(s.acts) - _CHANGES} more"))
    lines.append(Press("Let it move freely" if s.pinned else "Fix it here", lambda: hands.pin_or_free(s)))
    return Section(f"{titles.get(s.commission_id, '')}, this sitting", tuple(lines))


def pressed_section(studio: Studio, chosen: str, titles: Mapping[str, str], hands: Hands) -> Section | None:
    """That the chosen one is painted before others, and back again; None where it is not."""
    days = dict(studio.pressed).get(chosen, 0)
    if not days:
        return None
    words = Note(f"Planned as if it were promised {counted(days, 'day')} earlier.")
    return Section(
        f"{titles.get(chosen, chosen)} goes first", (words, Press("Plan it by its own promise", lambda: hands.unpress(chosen)))
    )


def moved_section(words: Sequence[str]) -> Section | None:
    """What the last change moved in the days ahead."""
    if not words:
        return None
    return Section(
        "What moved", tuple(Note(w) for w in words[:3]) + ((Note(f"and {len(words) - 3} more"),) if len(words) > 3 else ())
    )


def moved_words(before: Plan | None, now: Plan, titles: dict[str, str]) -> tuple[str, ...]:
    """Sittings of the next week that stand on another day than before, in words."""
    if before is None:
        return ()
    said = []
    for commission_id, title in titles.items():
        days = [sorted({s.day for s in p.of(commission_id) if 0 <= (s.day - now.first).days < 7}) for p in (before, now)]
        gone = [d for d in days[0] if d not in days[1] and d >= now.first]
        new = [d for d in days[1] if d not in days[0]]
        for a, b in zip(gone, new, strict=False):
            said.append(f"{title}: from {day_text(a)} to {day_text(b)}.")
        said += [f"{title}: no more on {day_text(d)}." for d in gone[len(new) :]]
        said += [f"{title}: also on {day_text(d)}." for d in new[len(gone) :]]
    return tuple(said)


def pace_section(pace: Pace, days: PaintedDays) -> Section:
    """Own pace against the first guess."""
    if not pace.passes:
        words = "Nothing is logged yet: the days rest on first guesses. Each finished pass teaches them."
        return Section("Your pace", (Note(words),), "first guesses")
    many = len(pace.commissions)
    lines: list[Line] = []
    for family in pace.families[:_FAMILIES]:
        lines.append(Fact(family_facts(family).said, factor_words(pace.factor(family))))
    if days.days:
        lines.append(Fact("Of planned minutes painted", f"{days.share:.0%}"))
        lines.append(Fact("Planned days lost", f"{days.lost_share:.0%}"))
    if pace.first_guesses:
        left = ENOUGH - many
        lines.append(Note(f"From first guesses still: {counted(left, 'more portrait')} with logged hours make the days yours."))
    return Section(f"Your pace, {counted(pace.passes, 'pass')} logged", tuple(lines))
