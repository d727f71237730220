"""The studio page: shelf, weeks ahead and today's acts."""

from dataclasses import replace
from pathlib import Path

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QVBoxLayout

from yarrow_lane.commission.standing import standings
from yarrow_lane.commission.studio import Studio, set_climate
from yarrow_lane.documents.calendar_file import calendar_file
from yarrow_lane.documents.time_log import time_log
from yarrow_lane.easel.clock import time_entries
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.layers.drying import Climate
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.studio.shelf import Shelf
from yarrow_lane.ui.rooms.studio.view import StartForm, StudioView, studio_view
from yarrow_lane.ui.rooms.studio.weeks import Weeks
from yarrow_lane.ui.workroom import Workroom


class StudioPage(RoomPage):
    """All commissions at once."""

    demo_wanted = Signal()

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.selected = ""
        self.form: StartForm | None = None
        self.settings = False
        self.shelf = Shelf(workroom.pictures)
        self.weeks = Weeks()
        box = QVBoxLayout(self.table)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addWidget(self.shelf, 1)
        box.addWidget(self.weeks)
        self.shelf.selected.connect(self.select)
        self.shelf.opened.connect(self.go)
        self.view: StudioView | None = None

    def refresh(self) -> None:
        commissions = self.desk.commissions
        if self.selected not in self.studio.on_shelf:
            self.selected = self.studio.on_shelf[0] if self.studio.on_shelf else ""
        view = studio_view(self.studio, commissions, self.workroom.now, self.selected, self.form, self.settings)
        self.view = view
        self.shelf.show_canvases(view.shelf, self.selected)
        self.weeks.show_view(view)
        self.show_sheets(view.bench, view.choices)

    def select(self, commission_id: str) -> None:
        self.selected = commission_id
        self.form, self.settings = None, False
        self.refresh()

    def go(self, commission_id: str) -> None:
        """Open a commission where it stands."""
        self.workroom.open_door(commission_id, "")

    def start_form(self, form: StartForm | None) -> None:
        self.form, self.settings = form, False
        self.refresh()
        if form is not None:
            self.bench.line("sitter").setFocus(Qt.FocusReason.OtherFocusReason)

    def choose(self, key: str, value: str) -> None:
        if key == "save":
            self.save_calendar() if value == "calendar" else self.save_hours()
            return
        self.settings = value == "settings"
        self.start_form(StartForm() if value == "start" else None) if not self.settings else self._show_settings()

    def _show_settings(self) -> None:
        self.form = None
        self.refresh()

    def change(self, key: str, value: object) -> None:
        if self.form is not None:
            self.form = replace(self.form, **{key: value})
            return
        self._change_studio(key, value)

    def _change_studio(self, key: str, value: object) -> None:
        studio: Studio = self.studio
        week, climate = studio.week, studio.climate
        if key.startswith("weekday"):
            day = int(key.split()[1])
            days = {d for d in week.weekdays if d != day} | ({day} if value else set())
            self.desk.do_studio(
                "Chose the painting days", lambda s: replace(s, week=replace(week, weekdays=tuple(sorted(days))))
            )
            return
        label, step = {
            "name": ("Named the studio", lambda s: replace(s, name=str(value).strip() or "Studio")),
            "painter": ("Wrote the painter's name", lambda s: replace(s, painter=str(value).strip())),
            "celsius": ("Read the temperature", lambda s: set_climate(s, Climate(_number(value), climate.humidity))),
            "humidity": ("Read the humidity", lambda s: set_climate(s, Climate(climate.celsius, _number(value)))),
            "hours": ("Changed the hours a day", lambda s: replace(s, week=replace(week, minutes_a_day=60 * _number(value)))),
            "begin": (
                "Changed when the day begins",
                lambda s: replace(s, week=replace(week, starts_at_hour=int(_number(value)))),
            ),
            "unit": ("Changed the unit of length", lambda s: replace(s, unit=value)),
            "evening": ("Changed the light of the screen", lambda s: replace(s, evening=bool(value))),
            "text": ("Changed the size of the text", lambda s: replace(s, text_percent=int(str(value)))),
        }[key]
        self.desk.do_studio(label, step)

    def press(self, key: str) -> None:
        if key == "demo":
            self.demo_wanted.emit()
        elif key == "put away":
            self.desk.put_away(self.selected)

    def act(self) -> None:
        if self.form is not None:
            self.bench.store_pending()
            form = self.form
            brief = new_brief(
                form.sitter, form.kind, form.client, form.medium, self.workroom.now.date(), form.promised, form.wish  # type: ignore[arg-type]
            )  # fmt: skip
            commission_id = self.desk.start_commission(brief)
            self.form, self.selected = None, commission_id
            self.workroom.open_door(commission_id, "Intake")
        elif self.settings:
            self.settings = False
            self.refresh()
        elif self.selected:
            self.go(self.selected)
        else:
            self.start_form(StartForm())

    def key(self, event: QKeyEvent) -> bool:
        if event.text() == "n" and self.form is None:
            self.start_form(StartForm())
            return True
        if event.key() == Qt.Key.Key_Escape and (self.form is not None or self.settings):
            self.settings = False
            self.start_form(None)
            return True
        return False

    # --- documents

    def calendar_bytes(self) -> bytes:
        """Promises and sittings of all commissions on the shelf."""
        now, commissions = self.workroom.now, self.desk.commissions
        found = standings(commissions, self.studio, now)
        open_ones = [s for s in found if s.commission.deliver.delivered is None]
        promises = [(s.commission.id, s.commission.brief.title, s.commission.brief.promised) for s in open_ones]
        titles = {c.id: c.brief.title for c in commissions}
        sittings = sorted((x for s in open_ones for x in s.sittings), key=lambda x: x.day)
        dated = [(i, t, d) for i, t, d in promises if d is not None]
        warnings = {c.id: c.brief.contact_warning for c in commissions}
        return calendar_file(dated, sittings, titles, self.studio.week, now, warnings)

    def hours_text(self) -> str:
        """All hours at the easel as CSV."""
        return time_log((c.brief.title, entry) for c in self.desk.commissions for entry in time_entries(c.log))

    def save_calendar(self) -> None:
        self.save_file("Save promises and sittings", "yarrow-lane.ics", ".ics", self.calendar_bytes())

    def save_hours(self) -> None:
        self.save_file("Save the hours", "hours.csv", ".csv", self.hours_text().encode("utf-8"))

    def take_files(self, paths: list[Path]) -> None:
        self.workroom.say("Open a commission first, then drop the photographs on it.", False)


def _number(value: object) -> float:
    return float(value)  # type: ignore[arg-type]
