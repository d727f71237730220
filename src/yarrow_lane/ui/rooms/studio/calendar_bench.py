"""The bench beside the calendar: today by the clock, what changed since the day before, own pace, and a piece not promised yet."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from datetime import date
from typing import Any, Protocol

from yarrow_lane.calendar.pace import ENOUGH, Pace
from yarrow_lane.calendar.painted_days import PaintedDays
from yarrow_lane.calendar.plan import Plan, Sitting
from yarrow_lane.calendar.promising import Offer, Offers
from yarrow_lane.commission.newcomer import Newcomer
from yarrow_lane.commission.standing import Outlook
from yarrow_lane.commission.studio import Studio
from yarrow_lane.commission.today import TimedAct
from yarrow_lane.desk.planned import KeptDay
from yarrow_lane.lane.standing import act_detail
from yarrow_lane.layers.kinds import family_facts
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.measure.words import within
from yarrow_lane.ui.bench_sheet import Amount, Deed, Fact, Length, Line, Note, Pick, Press, Section

_DEEDS = 5  # our choice: what fits above the rest of the bench
_CHANGES = 4
_FAMILIES = 4


class Hands(Protocol):
    """What the page does for the calendar's bench."""

    def fill_newcomer(self, piece: Newcomer) -> None: ...
    def promise(self, day: date) -> None: ...
    def pin_or_free(self, sitting: Sitting) -> None: ...


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


def since_section(
    found: Sequence[Outlook], plan: Plan, yesterday: KeptDay | None, painted: Callable[[str, date], float]
) -> Section | None:
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
            many = f"{abs(days)} day{'s' * (abs(days) != 1)}"
            lines.append(
                Fact(
                    s.title,
                    f"safe {many} later" if days > 0 else f"safe {many} earlier",
                    "wrong" if o.late and days > 0 else "plain",
                )
            )
        wanted = yesterday.minutes.get(s.id, 0.0)
        if wanted and not painted(s.id, yesterday.day):
            lines.append(Fact(s.title, f"missed {hours_text(wanted)} on {day_text(yesterday.day)}", "wrong"))
        elif wanted:
            lines.append(Fact(s.title, f"{hours_text(painted(s.id, yesterday.day))} of {hours_text(wanted)} painted"))
    for pin in plan.broken:
        title = next((o.standing.title for o in found if o.standing.id == pin.commission_id), pin.commission_id)
        lines.append(Fact(title, f"{day_text(pin.start.date())} cannot hold: it is wet then", "wrong"))
    if not lines:
        return None
    lines.sort(key=lambda line: not (isinstance(line, Fact) and line.value.startswith("missed")))
    more = (Note(f"and {len(lines) - _CHANGES} more"),) if len(lines) > _CHANGES else ()
    return Section(f"Since {day_text(yesterday.day)}", (*lines[:_CHANGES], *more))


def sitting_section(s: Sitting, title: str, hands: Hands) -> Section:
    """The sitting that mouse or keys stand on: when, and which passes."""
    lines: list[Line] = [Fact(day_text(s.day), f"{s.start:%H:%M} to {s.end:%H:%M}")]
    lines += [Fact(a.words, hours_text(a.minutes)) for a in s.acts[:_CHANGES]]
    if len(s.acts) > _CHANGES:
        lines.append(Note(f"and {len(s.acts) - _CHANGES} more"))
    lines.append(Press("Let it move freely" if s.pinned else "Fix it here", lambda: hands.pin_or_free(s)))
    return Section(f"{title}, this sitting", tuple(lines))


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
        percent = round(100 * (pace.factor(family) - 1))
        words = "as guessed" if not percent else f"{abs(percent)}\u202f% {'longer' if percent > 0 else 'less'}"
        lines.append(Fact(family_facts(family).said, words))
    if days.days:
        lines.append(Fact("Of planned minutes painted", f"{days.share:.0%}"))
        lines.append(Fact("Planned days lost", f"{days.lost_share:.0%}"))
    if pace.first_guesses:
        left = ENOUGH - many
        lines.append(
            Note(f"From first guesses still: {left} more portrait{'s' * (left != 1)} with logged hours make the days yours.")
        )
    return Section(f"Your pace, {pace.passes} pass{'es' * (pace.passes != 1)} logged", tuple(lines))


@dataclass(frozen=True)
class Offered:
    """A piece not promised yet and the days it could be promised for."""

    piece: Newcomer
    minutes: float
    offers: Offers | None


def newcomer_section(offered: Offered, studio: Studio, titles: dict[str, str], hands: Hands) -> Section:
    """What it would be, the earliest day that breaks no promise, and what slips for whom if it is taken."""
    piece = offered.piece

    def fills(**changed: Any) -> None:
        hands.fill_newcomer(replace(piece, **changed))

    lines: list[Line] = [
        Length("Width", piece.width_mm, studio.unit, lambda v: fills(width_mm=v)),
        Length("Height", piece.height_mm, studio.unit, lambda v: fills(height_mm=v)),
        Amount("Sitters", piece.sitters, 1, 8, lambda v: fills(sitters=int(v))),
        Pick("Likeness", piece.painterly, ((False, "close"), (True, "painterly")), lambda v: fills(painterly=v)),
    ]
    if offered.offers is None:
        lines.append(Note("There are no hours to plan it in."))
        return Section("Before promising", tuple(lines))
    lines.append(Fact("Work in all, by first guess", hours_text(offered.minutes)))
    early, last = offered.offers.earliest, offered.offers.last
    if early is not None:
        lines.append(Fact("Earliest that holds, 9 in 10", day_text(early.dates.safe), "good"))
        lines.append(Note(_slip_words(early, titles)))
        lines.append(Press(f"Promise {day_text(early.dates.safe)}", lambda: hands.promise(early.dates.safe)))
    else:
        lines.append(Note("Wherever it is slipped in, a promise breaks.", "wrong"))
    if early is None or early.dates.safe != last.dates.safe:
        lines.append(Fact("After all the others", day_text(last.dates.safe)))
    front = offered.offers.front
    if front.breaks:
        names = ", ".join(titles.get(i, i) for i in front.breaks[:3])
        lines.append(Note(f"Painted first it could be there on {day_text(front.dates.safe)}, but {names} would not be safe."))
    return Section("Before promising", tuple(lines))


def _slip_words(offer: Offer, titles: dict[str, str]) -> str:
    where = f"Slipped in after {titles.get(offer.after, offer.after)}" if offer.after else "Before all the others"
    if not offer.slips:
        return f"{where}: nobody's day moves."
    slips = ", ".join(
        f"{titles.get(s.commission_id, s.commission_id)} {s.days} day{'s' * (s.days != 1)} later" for s in offer.slips[:3]
    )
    return f"{where}: {slips}; every promise still holds."


def closed_days(own_spans: Callable[[date], tuple[object, ...]], first: date, days: int) -> frozenset[date]:
    """Days without hours."""
    ahead = (date.fromordinal(first.toordinal() + n) for n in range(days))
    return frozenset(d for d in ahead if not own_spans(d))
