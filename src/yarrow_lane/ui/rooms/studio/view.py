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
from yarrow_lane.measure.words import begun, within
from yarrow_lane.ui.bench_sheet import (
    BenchSheet,
    ChoiceSheet,
    Day,
    Deed,
    Fact,
    Field,
    Line,
    NextAct,
    Note,
    Pick,
    Press,
    Section,
    Switch,
    plain_options,
)
from yarrow_lane.ui.rooms.studio.away import away_bench
from yarrow_lane.ui.rooms.studio.settings import Hands as SettingsHands
from yarrow_lane.ui.rooms.studio.settings import Kept, settings_sections

WEEKS = 5
OnBench = Literal["today", "start", "settings", "away"]
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


class Hands(SettingsHands, Protocol):
    """What the page does for the bench."""

    def put_on_bench(self, what: OnBench) -> None: ...
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
    """One commission over the weeks ahead: (day, share of a day's hours), flag and likely finish."""

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
    studio: Studio, found: tuple[Outlook, ...], unreadable: tuple[Unreadable, ...], painted_today: float, now: datetime,
    selected: str, on_bench: OnBench, form: StartForm, kept: Kept, away: Away, hands: Hands,
) -> StudioView:  # fmt: skip
    """Work the page out from how every commission stands."""
    worries = sum(bool(o.worry) for o in found) + len(unreadable)
    many = len(found) + len(unreadable)
    count = f"{many} commission{'s' * (many != 1)} on the lane" if many else "no commissions yet"
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
        weekdays=studio.week.weekdays,
        bench=_bench(studio, found, unreadable, painted_today, now, selected, on_bench, form, kept, away, hands),
        choices=_choices(on_bench, hands),
    )


def _promises(found: tuple[Outlook, ...]) -> str:
    """All promises hold, when there are any."""
    open_ = [o for o in found if o.standing.delivered is None]
    if any(o.standing.promised for o in open_):
        return "all promises hold"
    return "nothing is promised" if open_ else ""


def _choices(on_bench: OnBench, hands: Hands) -> ChoiceSheet:
    benches = (("today", "today"), ("start", "a new commission"), ("away", "put away"), ("settings", "the studio"))
    return ChoiceSheet(
        (
            Switch("On the bench", benches, hands.put_on_bench, on_bench),
            Switch("Save", (("calendar", "calendar…"),), lambda _: hands.save_calendar()),
            Switch("", (("hours", "hours…"),), lambda _: hands.save_hours()),
        )
    )


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
    day = max(1.0, studio.week.minutes_a_day)
    known = s.compose.sized and bool(s.rooms)
    late = bool(s.promised and o.finish > s.promised)
    return WeekRow(
        s.id, s.title, tuple((x.day, x.minutes / day) for x in o.sittings), s.promised, o.finish if known else None, known and late
    )  # fmt: skip


def _bench(
    studio: Studio, found: tuple[Outlook, ...], unreadable: tuple[Unreadable, ...], painted_today: float, now: datetime,
    selected: str, on_bench: OnBench, form: StartForm, kept: Kept, away: Away, hands: Hands,
) -> BenchSheet:  # fmt: skip
    if on_bench == "away":
        return away_bench(*away, lambda i: hands.bring_back(i), lambda: hands.put_on_bench("today"))
    if on_bench == "start":
        return _start_bench(form, now.date(), hands)
    if on_bench == "settings":
        return BenchSheet(
            settings_sections(studio, kept, hands), NextAct("Back to today", "", lambda: hands.put_on_bench("today"))
        )
    if not found and not unreadable:
        welcome = "Drop the client's photographs on the window: they start a commission. Or start one by hand: who is to be painted, for whom, in what, by when."
        section = Section("An empty studio", (Note(welcome), Press("Show the demo studio instead", hands.want_demo)))
        act = NextAct("Start a commission", "sitter, client, medium, promise date", lambda: hands.put_on_bench("start"))
        return BenchSheet((section,), act)
    return _today_bench(studio, found, unreadable, painted_today, now, selected, hands)


def _today_bench(
    studio: Studio, found: tuple[Outlook, ...], unreadable: tuple[Unreadable, ...], painted_today: float, now: datetime,
    selected: str, hands: Hands,
) -> BenchSheet:  # fmt: skip
    acts = todays_acts([o.standing for o in found], studio.week, now, painted_today)
    deeds: tuple[Line, ...] = tuple(
        Deed(
            f"{a.at:%H:%M}", a.title, within(a.act.title),
            f"{hours_text(a.minutes)} · {act_detail(a.act, a.at)}",
        )
        for a in acts[:_DEEDS]
    )  # fmt: skip
    sections: list[Section] = []
    if len(found) >= _FIND_FROM:
        sections.append(
            Section("", (Field(FIND, "", lambda words: hands.find_name(words), "a sitter or client; / comes here"),))
        )
    sections.append(Section("Today, by the clock", deeds or (Note("Nothing can be begun today: all of it dries or rests."),)))
    worries = tuple(Fact(o.standing.title, o.worry, "wrong") for o in found if o.worry)
    worries += tuple(Fact(u.title, "cannot be read", "wrong") for u in unreadable)
    if worries:
        more = (Note(f"and {len(worries) - 12} more"),) if len(worries) > 12 else ()
        sections.append(Section("Needs a look", (*worries[:12], *more)))
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
        Fact("Still to do", hours_text(s.minutes_left)),
    ]
    if s.delivered is None and s.compose.sized:
        late = s.promised is not None and o.finish > s.promised
        mood = "plain" if s.promised is None else "wrong" if late else "good"
        lines.append(Fact("Likely ready", day_text(o.finish), mood))  # type: ignore[arg-type]
        if s.reckoned:
            lines.append(Note(f"{begun(s.reckoned)}."))
    waits = s.act is not None and not can_be_done(s.act, now)
    other = meanwhile([x.standing for x in found], s.id, now) if waits else None
    if s.act is not None and waits:
        lines.append(Note(f"{s.act.title}: {act_detail(s.act, now)}."))
    if other is not None and other.act is not None:
        lines.append(Note(f"Meanwhile {other.title}: {within(other.act.title)}."))
    lines.append(Press(f"Put {s.title} away", hands.put_away))
    lines.append(Note("Put away it leaves the shelf and the plan; nothing is lost, and “put away” above brings it back."))
    return tuple(lines)


def _start_bench(form: StartForm, today: date, hands: Hands) -> BenchSheet:
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
    count = len(form.files)
    then = f"with {count} photograph{'s' * (count != 1)}" if count else "then drop the client's photographs on the window"
    act = NextAct("Start the commission", then, hands.start)
    if form == StartForm():
        return BenchSheet((section,), act)
    note = Note("What is written here stays until it is started or cleared.")
    return BenchSheet((section, Section("", (note, Press("Clear the form", hands.clear_form)))), act)


def days_shown(view: StudioView) -> tuple[date, ...]:
    """Every day of the weeks shown."""
    return tuple(view.first_day + timedelta(days=n) for n in range(7 * WEEKS))
