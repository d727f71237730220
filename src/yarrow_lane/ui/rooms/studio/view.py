"""What the studio shows now."""

from dataclasses import dataclass
from datetime import date, datetime, timedelta

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.doors import passes_of
from yarrow_lane.commission.standing import Standing, standings
from yarrow_lane.commission.studio import Studio
from yarrow_lane.commission.today import todays_acts
from yarrow_lane.intake.brief import MEDIA, SITTER_KINDS
from yarrow_lane.measure.days import day_text, monday_of
from yarrow_lane.measure.lengths import hours_text, size_text
from yarrow_lane.measure.plane import Rect
from yarrow_lane.ui.bench_sheet import (
    Amount,
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
    Tick,
    plain_options,
)

WEEKS = 5


@dataclass(frozen=True)
class StartForm:
    """A commission being started."""

    sitter: str = ""
    kind: str = "dog"
    client: str = ""
    medium: str = "acrylic"
    promised: date | None = None
    wish: str = ""


@dataclass(frozen=True)
class ShelfCanvas:
    """One canvas on the shelf, mm; sizeless ones stand as an outline."""

    commission_id: str
    title: str
    size: str
    words: str
    worry: str
    width_mm: float
    height_mm: float
    sized: bool
    photo_id: str
    photo_name: str
    crop: Rect | None
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
    studio: Studio, commissions: tuple[Commission, ...], now: datetime, selected: str, form: StartForm | None, settings: bool
) -> StudioView:
    """Work the page out from what is on record."""
    found = standings(commissions, studio, now)
    worries = sum(bool(s.worry) for s in found)
    many = len(found)
    count = f"{many} commission{'s' * (many != 1)} on the lane" if many else "no commissions yet"
    under = "all promises hold" if not worries else f"{worries} need{'s' * (worries == 1)} a look"
    climate = studio.climate
    if form is not None:
        bench = _start_bench(form)
    elif settings:
        bench = _settings_bench(studio)
    else:
        bench = _today_bench(studio, found, now, selected)
    chosen = "start" if form is not None else "settings" if settings else "today"
    return StudioView(
        heading=studio.name,
        under=under if many else "",
        worried=bool(worries),
        count=f"{count} · {climate.celsius:.0f}\u202f°C, {climate.humidity:.0f}\u202f% at the easel",
        shelf=tuple(_canvas(s, studio) for s in found),
        first_day=monday_of(now.date()),
        today=now.date(),
        rows=tuple(_row(s, studio) for s in found if s.commission.deliver.delivered is None),
        weekdays=studio.week.weekdays,
        bench=bench,
        choices=ChoiceSheet(
            (
                Switch("bench", "On the bench", (("today", "today"), ("start", "a new commission"), ("settings", "the studio")), chosen),
                Switch("save", "Save", (("calendar", "calendar…"), ("hours", "hours…"))),
            ),
        ),
    )  # fmt: skip


def _canvas(s: Standing, studio: Studio) -> ShelfCanvas:
    c = s.commission
    sized = c.compose.sized
    passes = passes_of(c, studio)
    return ShelfCanvas(
        c.id, c.brief.title, size_text(c.compose.width_mm, c.compose.height_mm, studio.unit) if sized else "no size yet",
        s.words, s.worry, c.compose.width_mm if sized else 300.0, c.compose.height_mm if sized else 400.0, sized,
        c.photo.id if c.photo and c.compose.framed else "", c.photo.name if c.photo else "",
        c.compose.crop, c.tone.ground, len(c.easel.finished) / len(passes) if passes else 0.0,
    )  # fmt: skip


def _row(s: Standing, studio: Studio) -> WeekRow:
    c = s.commission
    day = max(1.0, studio.week.minutes_a_day)
    known = bool(s.sittings) or (s.work.wait_days > 0 and c.compose.sized)
    return WeekRow(
        c.id, c.brief.title, tuple((x.day, x.minutes / day) for x in s.sittings), c.brief.promised,
        s.finish if known else None, bool(c.brief.promised and known and s.finish > c.brief.promised),
    )  # fmt: skip


def _today_bench(studio: Studio, found: tuple[Standing, ...], now: datetime, selected: str) -> BenchSheet:
    if not found:
        welcome = Section(
            "An empty studio",
            (
                Note("Start a commission: who is to be painted, for whom, in what, by when. Then drop the client's photographs on the window."),
                Press("demo", "Show the demo studio instead"),
            ),
        )  # fmt: skip
        return BenchSheet((welcome,), NextAct("Start a commission", "sitter, client, medium, promise date"))
    acts = todays_acts(found, studio.week, now)
    deeds: tuple[Line, ...] = tuple(
        Deed(f"{a.at:%H:%M}", a.title, a.act.title[:1].lower() + a.act.title[1:], f"{hours_text(a.minutes)} · {a.act.detail}")
        for a in acts[:6]
    )
    sections = [Section("Today, by the clock", deeds or (Note("Nothing can be begun today: all of it dries or rests."),))]
    worries = tuple(Fact(s.commission.brief.title, s.worry, "wrong") for s in found if s.worry)
    if worries:
        sections.append(Section("Needs a look", worries))
    chosen = next((s for s in found if s.commission.id == selected), found[0])
    c = chosen.commission
    promise = day_text(c.brief.promised) if c.brief.promised else "not promised"
    lines: list[Line] = [
        Fact("For", c.brief.client or "not written"),
        Fact("Promised", promise),
        Fact("Stands at", chosen.door if c.deliver.delivered is None else "delivered"),
        Fact("Still to paint", hours_text(chosen.work.minutes_left)),
    ]
    if c.deliver.delivered is None and c.compose.sized:
        tone = "plain" if chosen.days_in_hand is None else "good" if chosen.days_in_hand >= 0 else "wrong"
        lines.append(Fact("Likely ready", day_text(chosen.finish), tone))
    lines.append(Press("put away", f"Put {c.brief.title} away"))
    sections.append(Section(c.brief.title, tuple(lines)))
    act = NextAct(f"Open {c.brief.title}", chosen.act.title if chosen.act else "delivered")
    return BenchSheet(tuple(sections), act)


def _start_bench(form: StartForm) -> BenchSheet:
    section = Section(
        "A new commission",
        (
            Field("sitter", "Sitter", form.sitter, "who is to be painted"),
            Pick("kind", "Is a", form.kind, plain_options(SITTER_KINDS)),
            Field("client", "Client", form.client, "who asked for it"),
            Pick("medium", "Medium", form.medium, plain_options(MEDIA)),
            Day("promised", "Promised for", form.promised),
            Field("wish", "Brief, in a sentence or two", form.wish, "close likeness, leave the collar on…", long=True),
        ),
    )
    return BenchSheet((section,), NextAct("Start the commission", "then drop the client's photographs on the window"))


def _settings_bench(studio: Studio) -> BenchSheet:
    days = studio.week.weekdays
    ticks = tuple(Tick(f"weekday {n}", word, n in days) for n, word in enumerate(_DAY_WORDS))
    sections = (
        Section(
            "The studio",
            (
                Field("name", "Name of the studio", studio.name),
                Field("painter", "Your name, under letters", studio.painter),
            ),
        ),
        Section(
            "At the easel",
            (
                Amount("celsius", "Temperature", studio.climate.celsius, 5, 40, 1, 0, "°C"),
                Amount("humidity", "Humidity", studio.climate.humidity, 5, 95, 5, 0, "%"),
                Amount("hours", "Painting a day", studio.week.minutes_a_day / 60, 0.5, 14, 0.5, 1, "h"),
                Amount("begin", "From", studio.week.starts_at_hour, 0, 20, 1, 0, "o’clock"),
            ),
        ),
        Section("Painting days", ticks),
        Section(
            "On the screen",
            (
                Pick("unit", "Lengths in", studio.unit, (("cm", "centimetres"), ("in", "inches"))),
                Tick("evening", "Dim, for the evening", studio.evening),
                Pick("text", "Size of the text", str(studio.text_percent), tuple((str(n), f"{n}\u202f%") for n in (100, 125, 150))),
            ),
        ),
    )  # fmt: skip
    return BenchSheet(sections, NextAct("Back to today"))


_DAY_WORDS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")


def days_shown(view: StudioView) -> tuple[date, ...]:
    """Every day of the weeks shown."""
    return tuple(view.first_day + timedelta(days=n) for n in range(7 * WEEKS))
