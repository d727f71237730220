"""What the easel shows now, and what each line means."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Protocol

from yarrow_lane.calendar.whatnow import BREAK_MIN
from yarrow_lane.check.record import ToMend
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.standing import passes_in
from yarrow_lane.commission.studio import Studio
from yarrow_lane.easel.clock import TimeEntry, clock_face, doubt_in, doubts, logged_words, minutes_logged, running
from yarrow_lane.easel.reminders import STEP_BACK_MIN, painting_since
from yarrow_lane.easel.session import EASEL, Easel, brought_to, choose_pass, finished_ahead, pass_now, readiness
from yarrow_lane.easel.standing import passes_left
from yarrow_lane.easel.wet import wet_now
from yarrow_lane.lane.happening import Happening, Photographed, of_kind
from yarrow_lane.lane.part import Edit
from yarrow_lane.layers.passes import Pass
from yarrow_lane.layers.regions import Region
from yarrow_lane.measure.days import clock_text, dated
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.words import begun
from yarrow_lane.ui.bench_sheet import Amount, BenchSheet, Fact, Field, Line, Mood, NextAct, Note, Pick, Press, Section
from yarrow_lane.ui.kit.overlays import Outline, Overlay, Ring, Veil
from yarrow_lane.ui.words import area_text, drying_text

_MOST_ASKED_MIN = 960  # as long as a stretch of the clock is believed
_AS_GUESSED = 0.005  # nearer to the first guess nothing was learned
_AIR = 0.18  # of the region's size left round it: our choice
# All our choice, of a place to mend: its ring by its size, what is shown round it, and how small it may be for each, mm.
_RING, _LEAST_RING_MM, _ROUND_PLACE, _LEAST_MM = 0.6, 6.0, 1.0, 20.0


class Hands(Protocol):
    """What the page does for the bench."""

    def start(self) -> None: ...
    def finish(self) -> None: ...
    def ask_minutes(self, minutes: float) -> None: ...
    def set_correction(self, minutes: float) -> None: ...
    def write_why(self, why: str) -> None: ...
    def correct(self) -> None: ...
    def settle(self, stretch: TimeEntry, minutes: float) -> None: ...
    def open_stand(self) -> None: ...
    def choose_photo(self) -> None: ...
    def take_stand_in(self) -> None: ...
    def feel(self, pass_id: str, dry: bool) -> None: ...


@dataclass(frozen=True)
class EaselView:
    """One card: what to paint, where, over what, and the clock in seconds."""

    title: str
    where: str
    dry: str
    dry_mood: Mood
    clock: str
    running: bool
    paint: Pass | None
    region: Region | None
    bench: BenchSheet
    mend: ToMend | None = None

    @property
    def work(self) -> tuple[str, str] | None:
        """Id and title of what the clock would run for."""
        if self.mend is not None:
            return self.mend.about, self.mend.words
        return (self.paint.id, self.paint.title) if self.paint is not None else None

    @property
    def marks(self) -> tuple[Overlay, ...]:
        """A place to mend ringed, or everything but the region dimmed."""
        if self.mend is not None:
            return (Ring(self.mend.at, _RING * max(self.mend.mm, _LEAST_RING_MM)),)
        return (Veil(self.region.outline, 190), Outline(self.region.outline, weight=1.6)) if self.region is not None else ()

    def area(self, canvas: Rect) -> Rect | None:
        """What is shown: the place or the region with some air round it; None for the whole canvas."""
        if self.mend is not None:
            (x, y), side = self.mend.at, max(self.mend.mm, _LEAST_MM)
            return Rect(x - side / 2, y - side / 2, side, side).with_air(_ROUND_PLACE, canvas)
        return self.region.bounds.with_air(_AIR, canvas) if self.region is not None else None


def easel_view(
    c: Commission, studio: Studio, now: datetime, correction: float, why: str, asked: float | None, hands: Hands, act: NextAct, own: float = 0.0,
) -> EaselView:  # fmt: skip
    """Work the card out from what is on record; `act` is the room's own, for while the clock does not run.

    `own` are the minutes the pass to begin likely takes at own pace, 0 where there is none; `asked` are the minutes proposed for a pass that was painted without the clock, while it is asked how long it took.
    """
    passes = passes_in(c, studio.climate)
    paint = pass_now(c.easel, passes, now)
    started = running(c.log)
    if started is not None and paint is not None and started.about != paint.id:
        # The clock runs for the pass it was started on, whatever has become first since.
        paint = next((p for p in passes if p.id == started.about), paint)
    if paint is None:
        drawn = c.layers.sitter_drawn
        words = "Every pass is painted." if drawn else "The background is painted." if passes else "No passes yet."
        hint = "Look at it with fresh eyes at Check." if drawn else "Draw the regions at Layers first."
        bench = BenchSheet(doubt_sections(c, now, hands) + log_sections(c, None, correction, why, hands), act)
        return EaselView(words, hint, "", "plain", "", False, None, None, bench)
    dry, mood = _dry_words(c, passes, paint, now)
    doubt = doubt_in((now - started.at).total_seconds() / 60) if started else ""
    minutes = minutes_at(c.log, paint.id, now)
    region = next((r for r in c.layers.regions if r.id == paint.region_id), None)
    if started is not None:
        act = NextAct(f"Finish {paint.name}", f"then wet for {drying_text(paint.dry_minutes)}", hands.finish)
    if asked is not None:
        act = NextAct(f"Finish {paint.name}: {hours_text(asked)}", "put down as painted without the clock", hands.finish)
    left = tuple((p.id, p.title) for p in passes_left(c.easel, passes))
    sections = (
        Section(
            "Paint",
            (
                Pick("Now", paint.id, left, chosen),
                Press("Stand at it: the whole window (F)", hands.open_stand),
                *([Note(f"The clock runs, but {doubt}", "wrong")] if doubt else []),
            ),
        ),
        *doubt_sections(c, now, hands),
        *([_asked_section(asked, hands)] if asked is not None else []),
        _pass_section(paint, minutes, _at_it(c, now), started is None and asked is None, own, hands),
        *_wet_sections(c, passes, now, hands),
        _photo_section(c, paint, hands),
        *log_sections(c, paint, correction, why, hands),
    )
    name = begun(paint.name)
    return EaselView(
        name, paint.region_name, dry, mood, clock_face(minutes), started is not None, paint, region, BenchSheet(sections, act)
    )  # fmt: skip


def minutes_at(log: Sequence[Happening], about: str, now: datetime) -> float:
    """Minutes painted of it so far, with the stretch that runs now unless that is in doubt."""
    started = running(log)
    runs = (now - started.at).total_seconds() / 60 if started is not None else 0.0
    return minutes_logged(log, about) + (0.0 if doubt_in(runs) else runs)


def chosen(pass_id: str) -> Edit[Easel]:
    """Paint this one next."""
    return Edit(EASEL, "Chose what to paint", lambda e: choose_pass(e, pass_id))


def _dry_words(c: Commission, passes: tuple[Pass, ...], paint: Pass, now: datetime) -> tuple[str, Mood]:
    state = readiness(c.easel, paint, now)
    if state.waits_for:
        names = {p.id: p.title for p in passes}
        return "first: " + "; ".join(names.get(n, n) for n in state.waits_for), "wrong"
    if state.dry_at is not None:
        return f"wet beneath until {clock_text(state.dry_at, now)}", "wrong"
    if state.dry_since is not None:
        return f"dry beneath since {clock_text(state.dry_since, now)}", "good"
    return "on the bare ground: nothing to dry", "good"


def doubt_sections(c: Commission, now: datetime, hands: Hands) -> tuple[Section, ...]:
    """What the machine's clock cannot have meant: kept as it is, asked about, left out until it is settled."""
    sections = []
    for stretch in doubts(c.log):
        span = f"{clock_text(stretch.start, now)} to {clock_text(stretch.end, now)}"
        words = Note(f"{stretch.title}, {span}: {stretch.doubt}", "wrong")
        lines: list[Line] = [words, Press("Leave it out", lambda s=stretch: hands.settle(s, 0.0))]  # type: ignore[misc]
        if stretch.measured > 0:
            count = f"Count {hours_text(stretch.measured)} all the same"
            lines.append(Press(count, lambda s=stretch: hands.settle(s, s.measured)))  # type: ignore[misc]
        sections.append(Section("A stretch in doubt", tuple(lines)))
    early = finished_ahead(c.easel, now)
    if early:
        names = ", ".join(dated(f.at.date()) for f in early)
        words = Note(
            f"On record as finished {names}, which has not come yet: until it is settled its film counts as wet.", "wrong"
        )
        now_then = Edit(EASEL, "Said that it was finished just now", lambda e: brought_to(e, now))
        sections.append(Section("A date in doubt", (words, Press("It was finished just now", lambda: now_then))))
    return tuple(sections)


def _asked_section(asked: float, hands: Hands) -> Section:
    """How long a pass took whose clock did not run; your own pace is proposed."""
    lines = (
        Amount("It took", asked, 0, _MOST_ASKED_MIN, hands.ask_minutes, 5, 0, "min"),
        Note("Enter finishes it, Esc leaves it unpainted."),
    )
    return Section("Painted without the clock", lines)


def _wet_sections(c: Commission, passes: tuple[Pass, ...], now: datetime, hands: Hands) -> tuple[Section, ...]:
    """What is wet, likely and surely until when; a touch overrules it."""
    wet = wet_now(c.easel, passes, now)
    if not wet:
        return ()
    lines: list[Line] = [
        Fact(w.title, f"dry about {clock_text(w.likely, now)}, surely {clock_text(w.surely, now)}", "wrong") for w in wet[:3]
    ]
    first = wet[0].pass_id
    lines += [
        Press("It is dry by touch", lambda: hands.feel(first, True)),
        Press("It is still wet", lambda: hands.feel(first, False)),
    ]
    return (Section("Wet now", tuple(lines)),)


def _photo_section(c: Commission, paint: Pass, hands: Hands) -> Section:
    """Photographs of the canvas are filed to the pass they were taken at."""
    mine = [h for h in of_kind(c.log, Photographed) if h.about == paint.id]
    every = [h for h in of_kind(c.log, Photographed) if h.purpose == "painting"]
    lines: list[Line] = [Fact("Of this pass", str(len(mine)) if mine else "none yet"), Fact("Of the painting", str(len(every)))]
    lines += [Press("File a photograph…", hands.choose_photo), Press("Take one with the camera stand-in", hands.take_stand_in)]
    return Section("Photographs", tuple(lines), f"{len(every)} of the painting" if every else "none yet: drop one here")


def _at_it(c: Commission, now: datetime) -> float:
    """Minutes since the last break."""
    since = painting_since(c.log, now)
    return (now - since).total_seconds() / 60 if since is not None else 0.0


def _pass_section(paint: Pass, minutes: float, at_it: float, may_skip_clock: bool, own: float, hands: Hands) -> Section:
    paced = (Fact("At your pace about", hours_text(own)),) if own and abs(own / paint.minutes - 1) > _AS_GUESSED else ()
    lines: list[Line] = [
        Fact("Area on the canvas", area_text(paint.area_cm2)),
        Fact("By first guess", hours_text(paint.minutes)),
        *paced,
        Fact("Painted so far", hours_text(minutes)),
        Fact("Then wet for", drying_text(paint.dry_minutes)),
    ]
    if may_skip_clock:
        lines.append(Press("It is painted: finish it without the clock", hands.finish))
    if at_it >= BREAK_MIN:
        lines.append(Note("Take a break: stretch, look far away.", "wrong"))
    else:
        lines.append(Note(f"Step back every {STEP_BACK_MIN:.0f} minutes. A hair dryer stays 30 cm away and clear of water."))
    return Section("This pass", tuple(lines))


def log_sections(c: Commission, paint: Pass | None, correction: float, why: str, hands: Hands) -> tuple[Section, ...]:
    total = Fact("Logged in all", logged_words(c.log))
    if paint is None and not c.log:
        return (Section("Hours", (total,)),)
    lines: tuple[Line, ...] = (
        total,
        Amount("Correct this pass by", correction, -600, 600, hands.set_correction, 5, 0, "min"),
        Field("because", why, hands.write_why, "forgot to stop the clock"),
        Press("Write the correction", hands.correct, correction != 0),
    )
    return (Section("Hours", lines),)
