"""What the studio shows now, and what each line means."""

from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from typing import Any, Literal, Protocol

from yarrow_lane.commission.standing import CommissionStanding, Outlook, state_words
from yarrow_lane.commission.studio import Studio
from yarrow_lane.commission.today import meanwhile, todays_acts
from yarrow_lane.compose.composition import Compose
from yarrow_lane.desk.standings import Unreadable
from yarrow_lane.intake.brief import MEDIA, SITTER_KINDS, Medium, SitterKind
from yarrow_lane.lane.standing import act_detail, can_be_done
from yarrow_lane.measure.days import day_text, monday_of
from yarrow_lane.measure.lengths import hours_text, size_text
from yarrow_lane.measure.words import begun, counted, within
from yarrow_lane.ui.bench_sheet import (
    BenchSheet,
    ChoiceSheet,
    Day,
    Fact,
    Field,
    Line,
    Mood,
    NextAct,
    Note,
    Pick,
    Press,
    Section,
    Switch,
    plain_options,
)
from yarrow_lane.ui.rooms.studio.ask_bench import Hands as AskHands
from yarrow_lane.ui.rooms.studio.ask_bench import ask_bench
from yarrow_lane.ui.rooms.studio.away import away_bench
from yarrow_lane.ui.rooms.studio.calendar_bench import Hands as CalendarHands
from yarrow_lane.ui.rooms.studio.calendar_bench import calendar_bench, today_section
from yarrow_lane.ui.rooms.studio.looked import Looked
from yarrow_lane.ui.rooms.studio.newcomer_bench import newcomer_section
from yarrow_lane.ui.rooms.studio.own_time_bench import Hands as TimeHands
from yarrow_lane.ui.rooms.studio.own_time_bench import own_time_sections
from yarrow_lane.ui.rooms.studio.settings import Hands as SettingsHands
from yarrow_lane.ui.rooms.studio.settings import Kept, settings_sections

WEEKS = 5
OnBench = Literal["today", "start", "settings", "away", "time", "ask"]
OnTable = Literal["shelf", "calendar"]
Away = tuple[tuple[CommissionStanding, ...], tuple[Unreadable, ...]]  # what is put away and can be read, and what cannot
FIND = "Find"
_FIND_FROM = 12  # our choice: fewer are seen at a glance
_DEEDS = 6  # our choice: what fits above the rest of the bench


@dataclass(frozen=True)
class StartForm:
    """A commission being started."""

    sitter: str = ""
    kind: SitterKind = "dog"
    client: str = ""
    medium: Medium = "acrylic"
    promised: date | None = None
    wish: str = ""
    files: tuple[str, ...] = ()


class Hands(SettingsHands, TimeHands, CalendarHands, AskHands, Protocol):
    """What the page does for the bench."""

    def put_on_bench(self, what: OnBench) -> None: ...
    def save_plan(self) -> None: ...
    def fill_form(self, form: StartForm) -> None: ...
    def clear_form(self) -> None: ...
    def find_name(self, words: str) -> None: ...
    def bring_back(self, commission_id: str) -> None: ...
    def start(self) -> None: ...
    def open_selected(self) -> None: ...
    def put_away(self) -> None: ...
    def want_demo(self) -> None: ...
    def save_calendar(self) -> None: ...
    def save_hours(self) -> None: ...


@dataclass(frozen=True)
class ShelfCanvas:
    """One canvas on the shelf, mm; sizeless ones stand as an outline, `compose` is what it shows."""

    commission_id: str
    title: str
    size: str
    words: str
    worry: str
    width_mm: float
    height_mm: float
    sized: bool
    compose: Compose
    ground: str
    share_painted: float


@dataclass(frozen=True)
class WeekRow:
    """One commission over the weeks ahead: (day, share of a day's hours), flag and safe day."""

    commission_id: str
    title: str
    sittings: tuple[tuple[date, float], ...]
    promised: date | None
    finish: date | None
    late: bool


@dataclass(frozen=True)
class StudioView:
    """The whole studio page."""

    heading: str
    under: str
    worried: bool
    count: str
    shelf: tuple[ShelfCanvas, ...]
    first_day: date
    today: date
    rows: tuple[WeekRow, ...]
    weekdays: tuple[int, ...]
    bench: BenchSheet
    choices: ChoiceSheet


def studio_view(
    studio: Studio, found: tuple[Outlook, ...], unreadable: tuple[Unreadable, ...], now: datetime, selected: str, on_bench: OnBench,
    form: StartForm, kept: Kept, away: Away, hands: Hands, on_table: OnTable, looked: Looked,
) -> StudioView:  # fmt: skip
    """Work the page out from how every commission stands; `looked` is what the calendar knows besides."""
    worries = sum(bool(o.worry) for o in found) + len(unreadable)
    many = len(found) + len(unreadable)
    count = f"{counted(many, 'commission')} on the lane" if many else "no commissions yet"
    climate = studio.climate
    return StudioView(
        heading=studio.name,
        under=f"{worries} need{'s' * (worries == 1)} a look" if worries else _promises(found),
        worried=bool(worries),
        count=f"{count} · {climate.celsius:.0f}\u202f°C, {climate.humidity:.0f}\u202f% at the easel",
        shelf=(*(_canvas(o, studio, now) for o in found), *(_unreadable(u) for u in unreadable)),
        first_day=monday_of(now.date()),
        today=now.date(),
        rows=tuple(_row(o, studio) for o in found if o.standing.delivered is None),
        weekdays=studio.time.weekdays,
        bench=_bench(studio, found, unreadable, now, selected, on_bench, form, kept, away, hands, on_table, looked),
        choices=_choices(on_bench, on_table, hands),
    )


def _promises(found: tuple[Outlook, ...]) -> str:
    """All promises hold, when there are any."""
    open_ = [o for o in found if o.standing.delivered is None]
    if any(o.standing.promised for o in open_):
        return "all promises hold"
    return "nothing is promised" if open_ else ""


def _choices(on_bench: OnBench, on_table: OnTable, hands: Hands) -> ChoiceSheet:
    places = (
        ("shelf", "the shelf"), ("calendar", "calendar"), ("books", "books"), ("start", "a new commission"), ("away", "put away"), ("time", "own time"),
        ("settings", "the studio"),
    )  # fmt: skip
    here = on_table if on_bench in ("today", "ask") else on_bench
    saves: tuple[Switch, ...] = (
        Switch("Save", (("calendar", "calendar…"),), lambda _: hands.save_calendar()),
        Switch("", (("plan", "plan…"),), lambda _: hands.save_plan()),
        Switch("", (("hours", "hours…"),), lambda _: hands.save_hours()),
    )
    return ChoiceSheet((Switch("In the studio", places, hands.go_in_studio, here), *saves))


def _canvas(o: Outlook, studio: Studio, now: datetime) -> ShelfCanvas:
    s = o.standing
    compose, sized = s.compose, s.compose.sized
    return ShelfCanvas(
        s.id, s.title, size_text(compose.width_mm, compose.height_mm, studio.unit) if sized else "no size yet",
        state_words(s, now), o.worry, compose.width_mm if sized else 300.0, compose.height_mm if sized else 400.0, sized,
        compose, s.ground, s.finished / s.passes if s.passes else 0.0,
    )  # fmt: skip


def _unreadable(u: Unreadable) -> ShelfCanvas:
    return ShelfCanvas(
        u.id, u.title, "cannot be read", "", u.trouble.remedy or u.trouble.what, 300.0, 400.0, False, Compose(), "", 0.0
    )


def _row(o: Outlook, studio: Studio) -> WeekRow:
    s = o.standing
    day = max(1.0, studio.time.minutes_a_day)
    known = s.compose.sized and bool(s.rooms)
    shares: dict[date, float] = {}
    for x in o.sittings:
        shares[x.day] = shares.get(x.day, 0.0) + x.minutes / day
    return WeekRow(s.id, s.title, tuple(shares.items()), s.promised, o.safe if known else None, known and o.late)


def _bench(
    studio: Studio, found: tuple[Outlook, ...], unreadable: tuple[Unreadable, ...], now: datetime, selected: str, on_bench: OnBench,
    form: StartForm, kept: Kept, away: Away, hands: Hands, on_table: OnTable, looked: Looked,
) -> BenchSheet:  # fmt: skip
    back = NextAct("Back to today", "", lambda: hands.put_on_bench("today"))
    if on_bench == "away":
        return away_bench(*away, lambda i: hands.bring_back(i), lambda: hands.put_on_bench("today"))
    if on_bench == "start":
        return _start_bench(form, studio, now.date(), looked, {o.standing.id: o.standing.title for o in found}, hands)
    if on_bench == "settings":
        return BenchSheet(settings_sections(studio, kept, hands), back)
    if on_bench == "time":
        return BenchSheet(own_time_sections(studio, now, looked.off, hands), back)
    if on_bench == "ask" and looked.ask is not None:
        return ask_bench(looked.ask, hands)
    if not found and not unreadable:
        welcome = "Drop the client's photographs on the window: they start a commission. Or start one by hand: who is to be painted, for whom, in what, by when. F1 opens the guide."
        section = Section("An empty studio", (Note(welcome), Press("Show the demo studio instead", hands.want_demo)))
        act = NextAct("Start a commission", "sitter, client, medium, promise date", lambda: hands.put_on_bench("start"))
        return BenchSheet((section,), act)
    if on_table == "calendar":
        return calendar_bench(studio, found, now, looked, hands)
    return _today_bench(studio, found, unreadable, now, selected, looked, hands)


def _today_bench(
    studio: Studio, found: tuple[Outlook, ...], unreadable: tuple[Unreadable, ...], now: datetime, selected: str, looked: Looked,
    hands: Hands,
) -> BenchSheet:  # fmt: skip
    acts = todays_acts(found, studio.time, now, looked.here)
    sections: list[Section] = []
    if len(found) >= _FIND_FROM:
        sections.append(
            Section("", (Field(FIND, "", lambda words: hands.find_name(words), "a sitter or client; / comes here"),))
        )
    sections.append(today_section(acts, _DEEDS))
    worries = tuple(Fact(o.standing.title, o.worry, "wrong") for o in found if o.worry)
    worries += tuple(Fact(u.title, "cannot be read", "wrong") for u in unreadable)
    if worries:
        more = (Note(f"and {len(worries) - 12} more"),) if len(worries) > 12 else ()
        late = any(o.late for o in found if o.standing.delivered is None)
        ways = (Press("See what saves it, in the calendar", lambda: hands.go_in_studio("calendar")),) if late else ()
        sections.append(Section("Needs a look", (*worries[:12], *more, *ways)))
    broken = next((u for u in unreadable if u.id == selected), None)
    if broken is not None:
        away = Press(f"Put {broken.title} away", hands.put_away)
        sections.append(Section(broken.title, (Note(broken.trouble.sentence, "wrong"), away)))
        return BenchSheet(tuple(sections), NextAct("Look at the copies", f"{broken.title} cannot be read", hands.show_copies))
    if not found:
        return BenchSheet(tuple(sections))
    chosen = next((o for o in found if o.standing.id == selected), found[0])
    s = chosen.standing
    sections.append(Section(s.title, _chosen_lines(chosen, found, now, hands)))
    return BenchSheet(tuple(sections), NextAct(f"Open {s.title}", s.act.title if s.act else "delivered", hands.open_selected))


def _chosen_lines(o: Outlook, found: tuple[Outlook, ...], now: datetime, hands: Hands) -> tuple[Line, ...]:
    s: CommissionStanding = o.standing
    lines: list[Line] = [
        Fact("For", s.client or "not written"),
        Fact("Promised", day_text(s.promised) if s.promised else "not promised"),
        Fact("Stands at", s.door if s.delivered is None else "delivered"),
        Fact("Still to do", hours_text(o.minutes_left)),
    ]
    if s.delivered is None and s.compose.sized:
        mood: Mood = "plain" if s.promised is None else "wrong" if o.late else "good"
        if o.dates is not None:
            lines.append(Fact("With the client, likely", day_text(o.dates.likely)))
            lines.append(Fact("Safe, 9 in 10", day_text(o.dates.safe), mood))
        elif o.finish is not None:
            lines.append(Fact("With the client, about", day_text(o.finish), mood))
        if s.reckoned:
            pace = "your own pace" if o.dates is not None and not o.dates.guessed else "first guesses of pace"
            lines.append(Note(f"{begun(s.reckoned)}; at {pace}."))
    waits = s.act is not None and not can_be_done(s.act, now)
    other = meanwhile([x.standing for x in found], s.id, now) if waits else None
    if s.act is not None and waits:
        lines.append(Note(f"{s.act.title}: {act_detail(s.act, now)}."))
    if other is not None and other.act is not None:
        lines.append(Note(f"Meanwhile {other.title}: {within(other.act.title)}."))
    lines.append(Press(f"Put {s.title} away", hands.put_away))
    lines.append(Note("Put away it leaves the shelf and the plan; nothing is lost, and “put away” above brings it back."))
    return tuple(lines)


def _start_bench(
    form: StartForm, studio: Studio, today: date, looked: Looked, titles: dict[str, str], hands: Hands
) -> BenchSheet:  # fmt: skip
    def fills(**changed: Any) -> None:
        hands.fill_form(replace(form, **changed))

    section = Section(
        "A new commission",
        (
            Field("Sitter", form.sitter, lambda v: fills(sitter=v), "who is to be painted"),
            Pick("Is a", form.kind, plain_options(SITTER_KINDS), lambda v: fills(kind=v)),
            Field("Client", form.client, lambda v: fills(client=v), "who asked for it"),
            Pick("Medium", form.medium, plain_options(MEDIA), lambda v: fills(medium=v)),
            Day("Promised for", form.promised, today, lambda v: fills(promised=v)),
            Field(
                "Brief, in a sentence or two", form.wish, lambda v: fills(wish=v), "close likeness, leave the collar on…", True
            ),
        ),
    )
    before = (newcomer_section(looked.offered, studio, titles, hands),) if looked.offered is not None else ()
    count = len(form.files)
    then = f"with {counted(count, 'photograph')}" if count else "then drop the client's photographs on the window"
    act = NextAct("Start the commission", then, hands.start)
    if form == StartForm():
        return BenchSheet((section, *before), act)
    note = Note("What is written here stays until it is started or cleared.")
    return BenchSheet((section, *before, Section("", (note, Press("Clear the form", hands.clear_form)))), act)


def days_shown(view: StudioView) -> tuple[date, ...]:
    """Every day of the weeks shown."""
    return tuple(view.first_day + timedelta(days=n) for n in range(7 * WEEKS))
