"""What is done in the calendar: sittings moved and fixed, remedies taken, days asked for, engagements read."""

from dataclasses import replace
from datetime import date, datetime, timedelta
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtWidgets import QFileDialog

from yarrow_lane.calendar.own_time import add_days, lengthen, spans_on, with_engagements
from yarrow_lane.calendar.remedies import Remedy
from yarrow_lane.calendar.sittings import Pin, Plan, Sitting
from yarrow_lane.calendar.sun import zone_of
from yarrow_lane.commission.more_days import more_days_letter
from yarrow_lane.commission.newcomer import Newcomer, Offered, newcomer_work
from yarrow_lane.commission.studio import Studio, press_before, with_pin, without_pin
from yarrow_lane.commission.today import TimedAct
from yarrow_lane.deliver.handover import DELIVER, send_by, shorten_rest
from yarrow_lane.desk.letters import letter_remarks, put_in_outbox
from yarrow_lane.easel.session import EASEL, choose_pass
from yarrow_lane.intake.brief import BRIEF
from yarrow_lane.lane.part import Edit
from yarrow_lane.layers.regions import LAYERS, Layers, as_kind, choose_school
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.measure.words import counted
from yarrow_lane.ui.rooms.studio.ask_bench import Ask
from yarrow_lane.ui.rooms.studio.calendar_view import ASK

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.studio.page import StudioPage


class CalendarActs:
    """The page's hands in the calendar."""

    def __init__(self, page: "StudioPage") -> None:
        self.page = page
        self._offered: tuple[tuple[Newcomer, Studio, Plan], Offered] | None = None

    # --- sittings

    def move_sitting(self, sitting: Sitting, day: date) -> None:
        """A sitting is fixed on another day, at the same hour where that day has it; raises `Trouble` for a day without hours."""
        own, now = self.page.studio.time, self.page.workroom.now
        spans = spans_on(own, day)
        if day < now.date() or not spans:
            why = "that day is over" if day < now.date() else f"you have no hours on {day_text(day)}"
            raise Trouble("The sitting was not moved", why, "choose a day of yours, or write hours for it under own time")
        minutes = _length(sitting)
        wished = sitting.start.hour * 60 + sitting.start.minute
        begin = next((wished for s in spans if s.begin <= wished and wished + minutes <= s.end), spans[0].begin)
        if day == now.date():
            begin = max(begin, now.hour * 60 + -(-now.minute // 5) * 5)
        start = datetime(day.year, day.month, day.day) + timedelta(minutes=begin)
        self._fix(sitting, start, f" on {day_text(day)}")

    def pin_or_free(self, sitting: Sitting) -> None:
        """A sitting is fixed where it stands, or moves freely again."""
        if not sitting.pinned:
            self._fix(sitting, sitting.start, "")
            return
        keys, title = tuple(a.key for a in sitting.acts), self.page.desk.standings.title(sitting.commission_id)
        self.page.set_studio(f"Freed a sitting of {title}", lambda s: without_pin(s, sitting.commission_id, keys))

    def _fix(self, sitting: Sitting, start: datetime, where: str) -> None:
        pin = Pin(sitting.commission_id, tuple(a.key for a in sitting.acts), start, _length(sitting))
        title = self.page.desk.standings.title(sitting.commission_id)
        self.page.set_studio(f"Fixed a sitting of {title}{where}", lambda s: with_pin(s, pin))

    def begin(self, act: TimedAct) -> None:
        """Where the act is done; a pass is chosen at the easel first."""
        if act.key:
            c = self.page.desk.commission(act.commission_id)
            if c.easel.done(act.key) is None and c.layers.sitter_drawn:
                self.page.desk.do(act.commission_id, Edit(EASEL, "Chose what to paint", lambda e: choose_pass(e, act.key)))
        self.page.workroom.open_door(act.commission_id, act.act.door)

    # --- promises

    def show_worst(self) -> None:
        """The calendar opens on the promise that is most in trouble."""
        found = [
            o for o in self.page.desk.standings.outlooks(self.page.workroom.now) if o.late and o.standing.delivered is None
        ]
        if found and not any(o.standing.id == self.page.selected for o in found):
            self.page.selected = min(found, key=lambda o: o.kept if o.kept is not None else 0.0).standing.id

    def offered(self, now: datetime) -> Offered:
        """The piece asked about, and the days it could be promised for."""
        form, studio = self.page.form, self.page.studio
        piece = replace(self.page.piece or Newcomer(), kind=form.kind, medium=form.medium)
        key = (piece, studio, self.page.desk.standings.plan(now))
        if self._offered is not None and self._offered[0][:2] == key[:2] and self._offered[0][2] is key[2]:
            return self._offered[1]
        work = newcomer_work(piece, studio, now)
        found = self.page.desk.standings.offers(work, now) if studio.time.minutes_a_week else None
        self._offered = (key, Offered(piece, work.minutes, found))
        return self._offered[1]

    def take_remedy(self, number: int) -> None:
        """Take one of the remedies shown, or ask for days."""
        now = self.page.workroom.now
        found = self.page.desk.standings.trouble(self.page.selected, now)
        if found is None:
            return
        c = self.page.desk.commission(found.commission_id)
        promised = c.brief.promised
        if number == ASK and promised is not None:
            until = promised + timedelta(days=found.ask_days)
            subject, text = more_days_letter(c.brief, until, self.page.studio.painter)
            self.page.ask = Ask(c.id, c.brief.client or "the client", until, subject, text, letter_remarks(c.brief))
            self.page.put_on_bench("ask")
        elif number < len(found.remedies):
            self._take(c.id, found.remedies[number])

    def _take(self, commission_id: str, remedy: Remedy) -> None:
        page, desk = self.page, self.page.desk
        title = desk.standings.title(commission_id)
        match remedy.kind:
            case "free days":
                page.set_studio("Added painting days", lambda s: replace(s, time=add_days(s.time, remedy.days)))
            case "longer days":
                page.set_studio("Made painting days longer", lambda s: replace(s, time=lengthen(s.time, remedy.days)))
            case "earlier":
                promises = {s.id: s.promised for s in desk.standings.all(page.workroom.now)}
                own, others = promises[commission_id], [promises.get(i) for i in remedy.jumped]
                if own is not None:
                    page.set_studio(f"Paint {title} earlier", lambda s: press_before(s, commission_id, own, others))
            case "softer background":
                desk.do(commission_id, Edit(LAYERS, "A softer background", _softer))
            case "painterly":
                desk.do(
                    commission_id,
                    Edit(LAYERS, "A painterly finish", lambda x: choose_school(x, replace(x.school, finish="painterly"))),
                )
            case "short rest":
                desk.do(commission_id, Edit(DELIVER, "Rest 24 h", shorten_rest))
            case "express":
                desk.do(commission_id, Edit(DELIVER, "Send it by express", lambda d: send_by(d, "express")))

    def send_ask(self) -> None:
        """The letter goes to the outbox."""
        self.page.bench.store_pending()
        ask = self.page.ask
        if ask is None:
            return
        c = self.page.desk.commission(ask.commission_id)
        path = put_in_outbox(self.page.desk, c, "more days", ask.subject, ask.text)
        self.page.workroom.say(f"The letter lies in the outbox as “{path.name}”.", False)
        self.page.put_on_bench("today")

    def move_promise(self) -> None:
        """The client has said yes: the promise is the later day."""
        ask = self.page.ask
        if ask is None:
            return
        edit = Edit(BRIEF, f"Promised {day_text(ask.until)}", lambda b: replace(b, promised=ask.until))
        self.page.ask = None
        self.page.desk.do(ask.commission_id, edit)
        self.page.put_on_bench("today")

    # --- engagements

    def read_engagements(self) -> None:
        """Choose a calendar file; what could not be read in it is said."""
        chosen, _ = QFileDialog.getOpenFileName(
            self.page, "Read a calendar file", str(Path.home()), "Calendars (*.ics *.ical *.ifb)"
        )
        if chosen:
            self.take_calendar(Path(chosen))

    def take_calendar(self, path: Path) -> None:
        """Engagements of a file block time from now on. Raises `CalendarTrouble`."""
        from yarrow_lane.documents.calendar_in import read_calendar  # the library is loaded with the first file

        now = self.page.workroom.now
        found = read_calendar(path, now, zone_of(now))
        count = len(found.engagements)
        self.page.set_studio(
            "Read other engagements", lambda s: replace(s, time=with_engagements(s.time, path.name, found.engagements))
        )
        words = f"{counted(count, 'engagement')} read from “{path.name}”."
        if found.unread:
            words += f" Not read: {'; '.join(found.unread)}."
        self.page.workroom.say(words, bool(found.unread))


def _softer(layers: Layers) -> Layers:
    """Every painted scene becomes a soft background."""
    return replace(layers, regions=tuple(as_kind(layers, r, "background") if r.kind == "scene" else r for r in layers.regions))


def _length(sitting: Sitting) -> int:
    """Minutes from beginning to end, changes of wells included."""
    return round((sitting.end - sitting.start).total_seconds() / 60)
