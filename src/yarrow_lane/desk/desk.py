"""Edits, undo and redo over the studio and its commissions."""

import json
from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import datetime
from pathlib import Path
from typing import Any

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.studio import Studio, put_on_shelf, take_off_shelf
from yarrow_lane.easel.clock import Happening
from yarrow_lane.intake.brief import Brief
from yarrow_lane.intake.likeness import difference_hash
from yarrow_lane.intake.location import without_location
from yarrow_lane.intake.opening import PictureFacts, open_picture, read_facts
from yarrow_lane.intake.photos import Photo, photo_from
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.store.codec import (
    STUDIO_PART,
    commission_from,
    commission_parts,
    from_json,
    to_json,
)
from yarrow_lane.store.store import Store

STUDIO = "studio"
_GLANCE_PX = 400  # our choice: a quick decode, enough to see damage and to tell shots apart


@dataclass(frozen=True)
class Change:
    """What was just done: in which document, at which door, in the painter's words."""

    document: str
    place: str
    label: str
    kind: str = "do"  # "do", "undo", "redo" or "happened"


class Desk:
    """Holds the studio and its commissions as immutable values; every change is on disk before it shows.

    `clock` gives the present moment with its zone. A step that raises has changed nothing.
    """

    def __init__(self, store: Store, clock: Callable[[], datetime]) -> None:
        self.store = store
        self.clock = clock
        self._listeners: list[Callable[[Change], None]] = []
        database = store.database
        if database.head(STUDIO) is None:
            database.append(STUDIO, {STUDIO_PART: to_json(STUDIO_PART, Studio())}, "The studio opened", "", clock())
        self.studio: Studio = self._load_studio()
        self._commissions: dict[str, Commission] = {}

    # --- reading

    def commission(self, commission_id: str) -> Commission:
        """The commission as it is now; raises `Trouble` when there is none of that id."""
        if commission_id not in self._commissions:
            head = self.store.database.head(commission_id)
            if head is None:
                raise Trouble(f"There is no commission “{commission_id}”", "it was never started here")
            self._commissions[commission_id] = self._load(commission_id, head)
        return self._commissions[commission_id]

    @property
    def commissions(self) -> tuple[Commission, ...]:
        """Those on the shelf, in order."""
        return tuple(self.commission(i) for i in self.studio.on_shelf)

    def listen(self, listener: Callable[[Change], None]) -> None:
        """Call `listener` after every change."""
        self._listeners.append(listener)

    def _load_studio(self) -> Studio:
        database = self.store.database
        head = database.head(STUDIO)
        assert head is not None
        return from_json(STUDIO_PART, database.parts(STUDIO, head)[STUDIO_PART])

    def _load(self, commission_id: str, number: int) -> Commission:
        parts = {n: from_json(n, t) for n, t in self.store.database.parts(commission_id, number).items()}
        log = tuple(from_json("happening", t) for t in self.store.database.happenings(commission_id))
        return commission_from(commission_id, parts, log)

    def _tell(self, change: Change) -> None:
        for listener in self._listeners:
            listener(change)

    # --- changing

    def do(self, commission_id: str, label: str, place: str, step: Callable[[Commission], Commission]) -> bool:
        """Apply a step to a commission and store it; returns whether anything changed."""
        before = self.commission(commission_id)
        after = step(before)
        if after == before:
            return False
        self.store.database.append(commission_id, _texts(after), label, place, self.clock())
        self._commissions[commission_id] = after
        self._tell(Change(commission_id, place, label))
        return True

    def do_part(self, commission_id: str, label: str, part: str, step: Callable[[Any], Any], place: str = "") -> bool:
        """Apply a room's own step to its part of the commission."""
        return self.do(commission_id, label, place or part.capitalize(), lambda c: replace(c, **{part: step(getattr(c, part))}))

    def do_studio(self, label: str, step: Callable[[Studio], Studio]) -> bool:
        """Apply a step to the studio's own settings."""
        after = step(self.studio)
        if after == self.studio:
            return False
        self.store.database.append(STUDIO, {STUDIO_PART: to_json(STUDIO_PART, after)}, label, "", self.clock())
        self.studio = after
        self._tell(Change(STUDIO, "", label))
        return True

    def start_commission(self, brief: Brief) -> str:
        """A new commission comes to the shelf; returns its id."""
        number = sum(d != STUDIO for d in self.store.database.documents()) + 1
        commission = Commission(f"c{number:04d}", brief)
        studio = put_on_shelf(self.studio, commission.id)
        label = f"Started {brief.title}"
        self.store.database.append_several(
            [
                (commission.id, _texts(commission), label, "Intake"),
                (STUDIO, {STUDIO_PART: to_json(STUDIO_PART, studio)}, label, ""),
            ],
            self.clock(),
        )
        self._commissions[commission.id] = commission
        self.studio = studio
        self._tell(Change(STUDIO, "", label))
        return commission.id

    def put_away(self, commission_id: str) -> None:
        """Take a commission off the shelf; it stays on record and undo brings it back."""
        title = self.commission(commission_id).brief.title
        self.do_studio(f"Put {title} away", lambda s: take_off_shelf(s, commission_id))

    def happen(self, commission_id: str, happening: Happening) -> None:
        """Append what happened outside; it is never undone."""
        self.store.database.happen(commission_id, to_json("happening", happening))
        before = self.commission(commission_id)
        self._commissions[commission_id] = replace(before, log=(*before.log, happening))
        self._tell(Change(commission_id, "Easel", happening.kind, "happened"))

    # --- pictures

    def keep_picture(self, source: Path | bytes, name: str) -> tuple[str, PictureFacts]:
        """Look at a picture and store it by its content; safe on any thread.

        Raises `Trouble` and stores nothing when it is no picture.
        """
        facts = read_facts(source, name)
        data = source if isinstance(source, bytes) else source.read_bytes()
        picture_hash = self.store.pictures.keep(data)
        return picture_hash, facts

    def photo_from_file(self, source: Path | bytes, name: str, answers: int = 0, keep_location: bool = False) -> Photo:
        """A photograph ready to be taken in, its file stored; safe on any thread.

        It is decoded once, small, so that damage shows now and copies of one shot are recognised. The place where
        it was made is taken out of the stored file unless it is kept on purpose. Raises `Trouble`.
        """
        opened = open_picture(source, name, _GLANCE_PX)
        data = source if isinstance(source, bytes) else source.read_bytes()
        if opened.facts.has_location and not keep_location:
            data = without_location(data)
        return photo_from(self.store.pictures.keep(data), name, opened.facts, difference_hash(opened.picture), answers)

    # --- history

    def undo_label(self, document: str) -> str:
        """What undo would take back, in words; empty when there is nothing."""
        database = self.store.database
        head = database.head(document)
        if head is None:
            return ""
        version = database.version(document, head)
        return version.label if version.parent is not None else ""

    def redo_label(self, document: str) -> str:
        """What redo would do again; empty when there is nothing."""
        head = self.store.database.head(document)
        child = None if head is None else self.store.database.child(document, head)
        return "" if child is None else self.store.database.version(document, child).label

    def undo(self, document: str) -> Change | None:
        """Show the version before; None when this is the first."""
        database = self.store.database
        head = database.head(document)
        if head is None:
            return None
        version = database.version(document, head)
        if version.parent is None:
            return None
        return self._show(document, version.parent, Change(document, version.place, version.label, "undo"))

    def redo(self, document: str) -> Change | None:
        """Show the version after, if there is one."""
        database = self.store.database
        head = database.head(document)
        child = None if head is None else database.child(document, head)
        if child is None:
            return None
        version = database.version(document, child)
        return self._show(document, child, Change(document, version.place, version.label, "redo"))

    def _show(self, document: str, number: int, change: Change) -> Change:
        self.store.database.move_head(document, number)
        if document == STUDIO:
            self.studio = self._load_studio()
        else:
            self._commissions[document] = self._load(document, number)
        self._tell(change)
        return change

    # --- where the painter was

    def remember(self, key: str, value: object) -> None:
        """Keep where the painter is; not a change, not undone."""
        self.store.database.remember(key, json.dumps(value))

    def recall(self, key: str) -> Any:
        """What was remembered, or None."""
        text = self.store.database.recall(key)
        return None if text is None else json.loads(text)


def _texts(commission: Commission) -> dict[str, str]:
    return {name: to_json(name, value) for name, value in commission_parts(commission).items()}
