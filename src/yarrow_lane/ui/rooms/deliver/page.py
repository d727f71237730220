"""The deliver page: the painting made ready part by part, its papers, its parcel."""

from collections.abc import Callable
from dataclasses import replace

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QStackedWidget, QVBoxLayout

from yarrow_lane.books.account import Account
from yarrow_lane.commission.standing import passes_in
from yarrow_lane.deliver.handover import (
    DELIVER,
    Deliver,
    add_line,
    begin_rest,
    hand_over,
    into_frame,
    look_again,
    pack,
    pack_from,
    sign,
    step_now,
    varnish,
    with_finish,
)
from yarrow_lane.deliver.parcel import Parcel, ParcelTrouble, framed, padding_list, parcel_of
from yarrow_lane.deliver.signature import SignaturePlace, corner_words, signature_length, signature_place
from yarrow_lane.documents.delivery_sheet import delivery_sheet
from yarrow_lane.easel.standing import passes_left
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.colour.screen import hex_of
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.ui.bench_sheet import BenchSheet, ChoiceSheet, Meaning, NextAct, Note, Press, Section, Switch
from yarrow_lane.ui.kit.overlays import Box, Words
from yarrow_lane.ui.kit.paper_view import PaperView
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import show_reference
from yarrow_lane.ui.kit.tools import Hint, Still
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.deliver.exploded import ExplodedView
from yarrow_lane.ui.rooms.deliver.finish_bench import finish, finish_sections
from yarrow_lane.ui.rooms.deliver.keeping import Keeping
from yarrow_lane.ui.rooms.deliver.papers import NAMES, Papers
from yarrow_lane.ui.rooms.deliver.papers_strip import PaperKey, PapersStrip
from yarrow_lane.ui.rooms.deliver.parcel_view import ParcelShown, ParcelView
from yarrow_lane.ui.rooms.deliver.parts_view import parts_shown
from yarrow_lane.ui.rooms.deliver.sheet import sheet_of
from yarrow_lane.ui.rooms.deliver.shipping import Shipping
from yarrow_lane.ui.rooms.deliver.view import TO_MEND, earliest_varnish, way_out_sections
from yarrow_lane.ui.workroom import Workroom

_MODES = (("all", "all of it"), ("face", "face"), ("parcel", "parcel"))


class DeliverPage(RoomPage):
    """Door 9."""

    door = "Deliver"

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.draft = ""
        self.mode = "all"
        self.paper_key: PaperKey | None = None
        self.papers, self.shipping, self.keeping = Papers(self), Shipping(self), Keeping(self)
        self.proposed: SignaturePlace | None = None
        self._proposed_for: object = None
        self.exploded, self.strip, self.paper, self.parcel_view = ExplodedView(), PapersStrip(), PaperView(), ParcelView()
        self.portrait = PictureView("The portrait, where to sign")
        self.portrait.tool = SignHere(self._sign_at)
        self._stack = QStackedWidget()
        for widget in (self.exploded, self.portrait, self.parcel_view, self.paper):
            self._stack.addWidget(widget)
        box = QVBoxLayout(self.table)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addWidget(self._stack, 1)
        box.addWidget(self.strip)
        guarded = workroom.guard.guarded
        self.exploded.touched.connect(guarded(self.touch))
        self.strip.wanted.connect(guarded(self.show_paper))
        workroom.pictures.arrived.connect(guarded(self._arrived))

    def opened(self) -> None:
        self.draft, self.mode, self.paper_key = "", "all", None
        self.papers.picture = None
        self.keeping.forget()
        self.proposed, self._proposed_for = None, None

    @property
    def account(self) -> Account:
        """The commission's money."""
        return self.desk.books.account(self.commission_id)

    @property
    def in_frame(self) -> bool:
        """Whether it goes into a frame, as Compose has it."""
        return framed(self.commission.compose.sides)

    # --- showing

    def refresh(self) -> None:
        c, now = self.commission, self.workroom.now
        self.keeping.want_canvas()
        parts = parts_shown(c, self.studio, earliest_varnish(c, self.studio), now)
        image = self.workroom.references.thumbnail(c.compose) if c.compose.framed else None
        size = (c.compose.width_mm, c.compose.height_mm) if c.compose.sized else (240.0, 300.0)
        sides = c.compose.sides
        self.exploded.show_parts(parts, image, size, hex_of(sides.colour) if sides.finish in ("dark", "colour") else "#d8d4ca")
        self.strip.show_papers(self.papers.shown(self.account, self.paper_key or ""))
        self.parcel_view.show_parcel(self._parcel_shown())
        self._show_face()
        order = {"all": 0, "face": 1, "parcel": 2}
        self.picture = self.portrait if self.mode == "face" else None
        if self.paper_key is not None:
            self.paper.show_paper((self.papers.pdf(self.paper_key),), NAMES[self.paper_key])
        self._stack.setCurrentIndex(3 if self.paper_key is not None else order[self.mode])
        chosen = "" if self.paper_key is not None else self.mode
        remark = "" if self.paper_key is not None or self.mode != "all" else "close: on it · apart: still to come"
        choices = ChoiceSheet((Switch("Make ready", _MODES, self.show_mode, chosen),), remark)
        if self.paper_key is not None:
            self.bench.show_sheet(self._bench())  # nothing of the door beside a paper
            self.choices.show_sheet(choices)
            return
        self.show_sheets(self._bench(), choices)

    def _bench(self) -> BenchSheet:
        c, now = self.commission, self.workroom.now
        if self.paper_key is not None:
            return self._paper_bench(self.paper_key)
        act = self.next_act(self._take_step)
        step = step_now(c.deliver, c.brief.medium, self.in_frame)
        if act.do == self._take_step and step != "last list":
            act = replace(act, detail=f"{act.detail} · Enter once it is done")
        sections = list(way_out_sections(c, self.studio, self.account, self.standing().tasks, self.draft, now, self))
        extra = self.shipping.sections(self._parcel(), self.mode == "parcel")
        if self.mode == "parcel":
            sections = [*extra, *sections]
        elif self.shipping.booked is not None:
            sections = [sections[0], extra[-1], *sections[1:]]
        care = sections.pop()
        return BenchSheet((*sections, *finish_sections(c, self.studio, now.date(), self.keeping), care), act)

    def _paper_bench(self, key: PaperKey) -> BenchSheet:
        written = {p.key: p.written for p in self.papers.shown(self.account, key)}[key]
        lines = [
            Press("Save it (PDF)…", lambda: self.save_paper(key)),
            Press("Back to the painting", lambda: self.show_mode("all")),
        ]
        missing = self.papers.missing()
        notes = (
            (Note(f"The papers' letters lack {missing}: write these names in Latin, Greek or Cyrillic letters too.", "wrong"),)
            if missing
            else ()
        )
        if key == "certificate" and self.papers.picture is None:
            notes = (*notes, Note("Its picture comes from a photograph of the finished painting, taken in at Check."))
        about = Section(NAMES[key], (*notes, *lines))
        if written or key in ("invoice", "parcel label"):
            return BenchSheet((about,), NextAct("Save it (PDF)…", "as it was given", lambda: self.save_paper(key)))
        number = self.desk.store.database.last_of(key) + 1
        return BenchSheet(
            (about,), NextAct("Give it out", f"number {number}; it stays as it is now", lambda: self.give_paper(key))
        )

    def _parcel(self) -> Parcel | None:
        c = self.commission
        try:
            return parcel_of(c.compose.width_mm, c.compose.height_mm, c.compose.sides, c.deliver.finish.padding_mm)
        except ParcelTrouble:
            return None

    def _parcel_shown(self) -> ParcelShown:
        parcel = self._parcel()
        if parcel is None:
            return ParcelShown(None, (), "The canvas has no size yet: choose it at Compose.")
        glass = self.commission.brief.medium in ("watercolour", "soft pastel")
        return ParcelShown(parcel, padding_list(parcel, self.commission.deliver.finish.padding_mm, self.in_frame, glass))

    # --- pictures

    def _arrived(self) -> None:
        if self.isVisible() and self.commission_id and self.mode == "all" and self.paper_key is None:
            self.refresh()

    def _show_face(self) -> None:
        c = self.commission
        if self.mode != "face" or not c.compose.framed:
            return
        show_reference(self.portrait, self.workroom.references, c.compose, self, self._propose_place)
        place = c.deliver.finish.place
        shown = self.proposed if c.deliver.signed is None else None
        at = place or (shown.at if shown is not None else None)
        if at is None:
            self.portrait.show_overlays()
            return
        wide = signature_length(c.compose.width_mm)
        box = Box(Rect(at[0] - wide / 2, at[1] - wide * 0.15, wide, wide * 0.3), "here", 2.0, "solid" if place else "dashes")
        paint = "" if shown is None or place else f", {'light' if shown.light else 'dark'} paint"
        words = f"{'here' if place else 'proposed'}: {corner_words(at, c.compose.width_mm)}{paint}"
        self.portrait.show_overlays(box, Words((at[0] - wide / 2, at[1] - wide * 0.22), words, "right"))

    def _propose_place(self, shown: Shown) -> None:
        c = self.commission
        if self._proposed_for != c.compose:
            left = {p.region_id for p in passes_left(c.easel, passes_in(c, self.studio.climate))}
            open_areas = [ring for r in c.layers.regions if r.id in left for ring in r.outers]
            self.proposed = signature_place(shown.picture, c.compose.width_mm, c.compose.height_mm, open_areas)
            self._proposed_for = c.compose
            self.refresh()

    # --- going

    def show_mode(self, mode: str) -> None:
        """Another look at the painting."""
        self.mode, self.paper_key = mode, None
        self.refresh()

    def show_paper(self, key: str) -> None:
        """A paper as a page on the table."""
        paper: PaperKey = key  # type: ignore[assignment]
        self.papers.pdf(paper)  # what is missing is said before anything changes
        self.paper_key = paper
        self.refresh()
        self.setFocus(Qt.FocusReason.OtherFocusReason)

    def key(self, event: QKeyEvent) -> bool:
        if event.key() == Qt.Key.Key_Escape and (self.paper_key is not None or self.mode != "all"):
            self.show_mode("all")
            return True
        if self.paper_key is not None and event.key() in (Qt.Key.Key_PageDown, Qt.Key.Key_PageUp):
            return self.paper.turn(1 if event.key() == Qt.Key.Key_PageDown else -1)
        return False

    # --- parts

    def touch(self, key: str) -> None:
        """A part was clicked: it is done when its turn has come, else it is said why not."""
        now, c = self.workroom.now, self.commission
        step = step_now(c.deliver, c.brief.medium, self.in_frame)
        due = {
            "signature": "sign",
            "varnish 1": "varnish",
            "varnish 2": "varnish",
            "frame": "frame",
            "glassine": "pack",
            "parcel": "deliver",
        }
        f = c.deliver.finish
        if key == "sides":
            self.hand(
                lambda: finish("The sides are bare again" if f.sides else "The sides are done", sides=None if f.sides else now)
            )
        elif key == "hanging":
            self.hand(lambda: finish("Taken off again" if f.hung else "Put on what it hangs by", hung=None if f.hung else now))
        elif due.get(key) == step:
            self.hand(self._take_step)
        elif key == "parcel":
            self.show_mode("parcel")
        elif key == "signature":
            self.show_mode("face")
        else:
            act = self.standing().act
            raise Trouble(
                "Not yet",
                f"first: {act.title}" if act is not None else "nothing is left to do",
                "the yellow field says what is next",
            )

    def _sign_at(self, at: Point) -> None:
        size = (self.commission.compose.width_mm, self.commission.compose.height_mm)
        inside = (min(max(0.0, at[0]), size[0]), min(max(0.0, at[1]), size[1]))
        self.hand(lambda: finish("Chose where to sign", place=inside))

    def _take_step(self) -> Meaning:
        """What the yellow field says: the next step of the way out, now."""
        c, now = self.commission, self.workroom.now
        earliest_coat, earliest_pack = earliest_varnish(c, self.studio), pack_from(c.deliver, c.brief.medium)
        resting = c.deliver.rest_from is not None
        place = self.proposed.at if self.proposed is not None and c.deliver.finish.place is None else c.deliver.finish.place
        steps: dict[str, tuple[str, Callable[[Deliver], Deliver]]] = {
            "sign": ("Signed it", lambda d: sign(with_finish(d, place=place), now)),
            "rest": ("Looked with fresh eyes", lambda d: look_again(d, now))
            if resting
            else ("Turned it to the wall", lambda d: begin_rest(d, now)),
            "varnish": ("Varnished, a thin coat", lambda d: varnish(d, now, earliest_coat)),
            "frame": ("Into the frame", lambda d: into_frame(d, now, earliest_pack)),
            "pack": ("Packed it", lambda d: pack(d, now, earliest_pack)),
            "deliver": ("Delivered it", lambda d: hand_over(d, now)),
        }
        step = step_now(c.deliver, c.brief.medium, self.in_frame)
        if step not in steps:
            left = next((line.text for line in c.deliver.last_list if not line.done), None)
            self.bench.point_at(left or TO_MEND)
            return None
        label, change = steps[step]
        return Edit(DELIVER, label, change)

    # --- the last list

    def write_draft(self, text: str) -> None:
        self.draft = text

    def add_to_list(self) -> Meaning:
        self.bench.store_pending()
        text = self.draft
        if self.hand(lambda: Edit(DELIVER, "Put a line on the last list", lambda d: add_line(d, text))) is None:
            self.write_draft("")
            self.refresh()
        return None

    # --- papers, pictures, the archive

    def save_sheet(self) -> None:
        """Write the sheet that goes on file with the portrait."""
        c = self.commission
        data = delivery_sheet(sheet_of(c, self.studio), c.transfer.paper)
        self.save_file("Save the delivery sheet", f"{c.brief.title} delivery", ".pdf", data)

    def give_paper(self, key: PaperKey) -> None:
        """It gets its number and stays as it is."""
        self.papers.give(key)
        self.refresh()

    def save_paper(self, key: PaperKey) -> None:
        """As a file."""
        self.save_file("Save the paper", f"{self.commission.brief.title} {key}", ".pdf", self.papers.pdf(key))


class SignHere(Still):
    """A press says where the name goes."""

    def __init__(self, done: Callable[[Point], None]) -> None:
        self._done = done

    def hint(self, point: Point, reach: float) -> Hint:
        return "cross"

    def press(self, point: Point, reach: float) -> None:
        self._done(point)
