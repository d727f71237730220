"""Edits, undo and redo over the studio and its commissions."""

import json
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any

from yarrow_lane.commission.commission import PARTS, Commission, apply
from yarrow_lane.commission.newcomer import Newcomer, as_asked
from yarrow_lane.commission.studio import STUDIO_PART, Studio, put_on_shelf, take_off_shelf
from yarrow_lane.desk.air_kept import AirKept
from yarrow_lane.desk.books_kept import BooksKept
from yarrow_lane.desk.evidence import EvidenceKept, Marked
from yarrow_lane.desk.standings import Standings
from yarrow_lane.intake.brief import Brief
from yarrow_lane.intake.evidence import Evidence
from yarrow_lane.lane.happening import Happening, LetterSent
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.measure.words import counted
from yarrow_lane.store.codec import happening_to_json, to_json
from yarrow_lane.store.reading import Reader
from yarrow_lane.store.store import Store

STUDIO = "studio"
_SENT = "sent"
_KEPT_A_STEP = 50  # our choice: some milliseconds


@dataclass(frozen=True)
class Change:
    """What was just done: in which document, at which door, in the painter's words.

    `folded` counts earlier changes that an undo took back with it, because their versions had been thinned out.
    """

    document: str
    place: str
    label: str
    kind: str = "do"  # "do", "undo", "redo" or "happened"
    folded: int = 0

    @property
    def words(self) -> str:
        """The label, and how many changes went with it."""
        return self.label + (f" and {counted(self.folded, 'earlier change')}" if self.folded else "")


class Desk:
    """Holds the studio and its commissions as immutable values; every change is on disk before it shows.

    `clock` gives the present moment with its zone. A step that raises has changed nothing.
    """

    def __init__(self, store: Store, clock: Callable[[], datetime]) -> None:
        self.store = store
        self.clock = clock
        self._listeners: list[Callable[[Change], None]] = []
        self._reader = Reader(store.database)
        database = store.database
        if database.head(STUDIO) is None:
            database.append(STUDIO, {STUDIO: to_json(STUDIO_PART, Studio())}, "The studio opened", "", clock())
        self.studio: Studio = self._reader.studio(STUDIO)
        self._commissions: dict[str, Commission] = {}
        self.evidence = EvidenceKept(database)
        self.air = AirKept(database, lambda: self.studio, self.do_studio)
        self.books = BooksKept(self)
        self.standings = Standings(database, self.commission, lambda: self.studio, self.evidence, lambda: self.air.air)

    # --- reading

    def commission(self, commission_id: str) -> Commission:
        """The commission as it is now; raises `Trouble` when there is none of that id or it cannot be read."""
        if commission_id not in self._commissions:
            head = self.store.database.head(commission_id)
            if head is None:
                raise Trouble(f"There is no commission “{commission_id}”", "it was never started here")
            self._commissions[commission_id] = self._reader.commission(commission_id, head)
        return self._commissions[commission_id]

    def listen(self, listener: Callable[[Change], None]) -> None:
        """Call `listener` after every change."""
        self._listeners.append(listener)

    def _tell(self, change: Change) -> None:
        for listener in self._listeners:
            listener(change)

    # --- changing

    def do(self, commission_id: str, edit: Edit[Any]) -> bool:
        """Take an edit of one part and store it; returns whether anything changed."""
        return self._store(commission_id, edit.label, edit.place, lambda c: apply(c, edit), edit.join, edit.keep)

    def change(self, commission_id: str, label: str, place: str, step: Callable[[Commission], Commission]) -> bool:
        """Take a step on several parts at once, as recomposing does."""
        return self._store(commission_id, label, place, step)

    def _store(
        self, commission_id: str, label: str, place: str, step: Callable[[Commission], Commission], join: str = "", keep: str = ""
    ) -> bool:  # fmt: skip
        before = self.commission(commission_id)
        after = step(before)
        changed = {}
        for part in PARTS:
            old, new = getattr(before, part.name), getattr(after, part.name)
            if new is not old and new != old:
                changed[part.name] = to_json(part, new)
        if not changed:
            return False
        at = self.clock()
        number = self.store.database.append(commission_id, changed, label, place, at, join, keep)
        self._commissions[commission_id] = after
        self._reader.stored(after, number)
        self.standings.changed(commission_id, f"{number}@{at.isoformat()}")
        self._tell(Change(commission_id, place, label))
        return True

    def do_studio(self, label: str, step: Callable[[Studio], Studio]) -> bool:
        """Apply a step to the studio's own settings."""
        after = step(self.studio)
        if after == self.studio:
            return False
        self.store.database.append(STUDIO, {STUDIO: to_json(STUDIO_PART, after)}, label, "", self.clock())
        self.studio = after
        self._tell(Change(STUDIO, "", label))
        return True

    def start_commission(self, brief: Brief, asked: Newcomer | None = None) -> str:
        """A new commission comes to the shelf, as it was `asked` about before promising; returns its id."""
        number = sum(d != STUDIO for d in self.store.database.versions.heads()) + 1
        commission = Commission(f"c{number:04d}", brief)
        if asked is not None:
            commission = as_asked(commission, asked)
        studio = put_on_shelf(self.studio, commission.id)
        label, at = f"Started {brief.title}", self.clock()
        texts = {part.name: to_json(part, getattr(commission, part.name)) for part in PARTS}
        self.store.database.append_several(
            [(commission.id, texts, label, "Intake"), (STUDIO, {STUDIO: to_json(STUDIO_PART, studio)}, label, "")], at
        )
        self._commissions[commission.id] = commission
        self._reader.stored(commission, 1)
        self.studio = studio
        self.standings.changed(commission.id, f"1@{at.isoformat()}")
        self._tell(Change(STUDIO, "", label))
        return commission.id

    def put_away(self, commission_id: str) -> None:
        """Take a commission off the shelf; it stays on record and undo brings it back."""
        title = self.standings.title(commission_id)
        self.do_studio(f"Put {title} away", lambda s: take_off_shelf(s, commission_id))

    def bring_back(self, commission_id: str) -> None:
        """Put a commission that was put away on the shelf again."""
        title = self.standings.title(commission_id)
        self.do_studio(f"Brought {title} back", lambda s: put_on_shelf(s, commission_id))

    def happen(self, about: str, happening: Happening, place: str = "Easel") -> None:
        """Append what happened outside, to a commission or the studio itself; it is never undone."""
        keep = _SENT if isinstance(happening, LetterSent) else ""
        before = self._before(about)
        number = self.store.database.happen(about, happening_to_json(happening), keep)
        self._happened(before, about, happening, number, place)

    def happen_numbered(self, about: str, series: str, entry_of: Callable[[int], Happening], place: str = "Books") -> Happening:
        """Append what bears the next number of a series; what `entry_of` raises uses no number up."""
        before = self._before(about)
        made: list[Happening] = []

        def text_of(number: int) -> str:
            made.append(entry_of(number))
            return happening_to_json(made[-1])

        row = self.store.database.happen_numbered(about, series, text_of)
        self._happened(before, about, made[-1], row, place)
        return made[-1]

    def _before(self, about: str) -> Commission | None:
        return None if about == STUDIO else self.commission(about)

    def _happened(self, before: Commission | None, about: str, happening: Happening, number: int, place: str) -> None:
        if before is not None:
            self._commissions[about] = replace(before, log=(*before.log, happening))
            self.standings.happened(about, number)
        self.books.happened(about, happening)
        self._tell(Change(about, place, happening.kind, "happened"))

    def measured(self, marked: Marked, evidence: Evidence) -> None:
        """A photograph was measured: not a change, but where its commissions stand may be another place."""
        self.evidence.keep(marked, evidence)
        self.standings.measured(marked[0])

    def save_what_was_worked_out(self, most: int | None = None) -> bool:
        """Keep standings and measures beside the commissions, at most so many; whether there were any. Raises `StoreTrouble`."""
        standings, measures = self.standings.save(most), self.evidence.save(most)
        return standings or measures

    def read_again(self, ids: Iterable[str]) -> None:
        """What is known of these commissions is forgotten and read from the disk when it is next asked for."""
        newest, stamps = self.store.database.newest_happenings(), self.store.database.versions.stamps()
        for commission_id in ids:
            self._commissions.pop(commission_id, None)
            self.standings.changed(commission_id, stamps[commission_id])
            self.standings.happened(commission_id, newest.get(commission_id, 0))
        self.books.read_again()
        self._tell(Change(STUDIO, "", "Erased a client"))

    # --- history

    def undo(self, document: str) -> Change | None:
        """Show the version before; None when this is the first."""
        database = self.store.database
        head = database.head(document)
        if head is None:
            return None
        version = database.version(document, head)
        if version.parent is None:
            return None
        change = Change(document, version.place, version.label, "undo", version.folded)
        return self._show(document, version.parent, change)

    def redo(self, document: str) -> Change | None:
        """Show the version after, if there is one."""
        database = self.store.database
        head = database.head(document)
        child = None if head is None else database.versions.child(document, head)
        if child is None:
            return None
        version = database.version(document, child)
        return self._show(document, child, Change(document, version.place, version.label, "redo", version.folded))

    def _show(self, document: str, number: int, change: Change) -> Change:
        database = self.store.database
        if document == STUDIO:
            studio = self._reader.studio(STUDIO, number)
            database.move_head(document, number)
            self.studio = studio
        else:
            commission = self._reader.commission(document, number)
            database.move_head(document, number)
            self._commissions[document] = commission
            self.standings.changed(document, f"{number}@{database.version(document, number).at.isoformat()}")
        self._tell(change)
        return change

    # --- idle

    def tidy(self) -> Iterator[None]:
        """Idle work, a small step at a time: what was worked out is kept, old versions and things nobody names go."""
        while self.save_what_was_worked_out(_KEPT_A_STEP):
            yield
        yield from self.store.tidy(self.clock())

    # --- where the painter was

    def remember(self, key: str, value: object) -> None:
        """Keep where the painter is; not a change, not undone."""
        self.store.database.remember(key, json.dumps(value))

    def recall(self, key: str) -> Any:
        """What was remembered, or None; a memory that is damaged is none."""
        text = self.store.database.recall(key)
        try:
            return None if text is None else json.loads(text)
        except ValueError:
            return None
