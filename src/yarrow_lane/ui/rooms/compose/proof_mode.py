"""The proof: the page as the client will see it, sent with a letter, answered, and what changed since."""

from collections.abc import Callable
from dataclasses import replace
from typing import TYPE_CHECKING

from PySide6.QtGui import QKeyEvent
from shiboken6 import isValid

from yarrow_lane.compose.changes import changes
from yarrow_lane.compose.composition import ComposeTrouble
from yarrow_lane.compose.placing import scales_of
from yarrow_lane.compose.proof_words import proof_facts, proof_letter
from yarrow_lane.compose.proofs import PROOFS, Proof, Proofs, answer_to
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.compose.standing import CHANGED, UNANSWERED, asked_of_client
from yarrow_lane.desk.derived import Key, Making
from yarrow_lane.desk.letters import letter_remarks, put_in_outbox
from yarrow_lane.lane.happening import ProofAnswered, ProofSent, of_kind
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.late import late
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.words import begun, cleaned
from yarrow_lane.ui.bench_sheet import Fact, Field, Line, Meaning, NextAct, Note, Press, Section, Tick
from yarrow_lane.ui.kit.levels import Levels, qimage
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.rooms.compose.mode import Mode, Sheets
from yarrow_lane.ui.rooms.compose.proof_making import Form, make_proof

if TYPE_CHECKING:
    from yarrow_lane.documents import proof_page
    from yarrow_lane.ui.rooms.compose.page import ComposePage
else:
    proof_page = late("yarrow_lane.documents.proof_page")  # what writes PDF is loaded with the first document

_PAGE_PX_MM = 5.0  # our choice: sharp on a screen


class ProofMode(Mode):
    """The page large; beside it what was sent and what was answered."""

    name = "proof"

    def __init__(self, page: "ComposePage") -> None:
        super().__init__(page)
        self.view = PictureView("The proof, as the client will see it")
        self.widget = self.picture = self.view
        self._answers: dict[str, str] = {}
        self._shown: Key | None = None
        page.workroom.works.changed.connect(self._works_changed)
        self._was_sending = False

    def _works_changed(self) -> None:
        """The yellow field waits while a proof is laid into the outbox."""
        page = self.page
        if not isValid(page):  # works outlive pages
            return
        if page.mode is self and page.commission_id and page.isVisible() and self.is_sending != self._was_sending:
            page.attempt(page.refresh)

    def why_not(self) -> str:
        return "" if self.page.commission.compose.framed else "there is nothing to show yet: lay a crop or place a sitter first"

    def opened(self) -> None:
        self._shown = None

    @property
    def _sent(self) -> tuple[ProofSent, ...]:
        return of_kind(self.page.commission.log, ProofSent)

    @property
    def number(self) -> int:
        """Of the proof on the table."""
        return len(self._sent) + 1

    def _last(self) -> Proof | None:
        return next(iter(reversed(self.page.commission.proofs.sent)), None)

    def layouts(self) -> "tuple[proof_page.Layout, ...]":
        """The pages of the composition as it is now."""
        page = self.page
        c, compose = page.commission, page.commission.compose
        day = day_text(page.workroom.now.date())
        below = f"Proof {self.number} of {day}, for {c.brief.client}, by {page.studio.painter}"
        facts = proof_facts(compose, c.proofs, c.brief, scales_of(compose), page.studio.unit, self._last())
        mark = "PROOF" if c.proofs.watermark else ""
        said = proof_page.ProofPage(c.brief.title, below, facts, (compose.width_mm, compose.height_mm), mark)
        return proof_page.lay_out(said, c.transfer.paper)

    def refresh(self) -> Sheets:
        self._show_page()
        self._was_sending = self.is_sending
        c = self.page.commission
        asked = asked_of_client(c.compose, c.proofs, c.log)
        sections = [*self._state(asked), *self._page_section()]
        remarks = letter_remarks(c.brief)
        if remarks and asked != UNANSWERED:
            sections.insert(0, Section("Before it goes", tuple(Note(f"{begun(r)}.", "wrong") for r in remarks)))
        return Sheets(tuple(sections), (), self._act(asked))

    def _act(self, asked: str) -> NextAct:
        if asked == UNANSWERED:
            return NextAct("It is approved", f"what the client said to proof {self.number - 1}", lambda: self._answer(True))
        if self._sent and not asked:
            return self.page.next_act(lambda: None)
        if self._was_sending:
            return NextAct("Laying it into the outbox…", "a moment", None, False)
        return NextAct(f"Put proof {self.number} in the outbox", "PDF and letter, for any mail program", self._send)

    def _state(self, asked: str) -> list[Section]:
        c = self.page.commission
        sections: list[Section] = []
        lines: list[Line] = []
        for sent in self._sent[-4:]:
            answer = answer_to(c.log, sent.number)
            said = "no answer yet" if answer is None else "approved" if answer.approved else "wants changes"
            lines.append(
                Fact(
                    f"Proof {sent.number}, {day_text(sent.at.date())}", said, "good" if answer and answer.approved else "plain"
                )
            )
            if answer is not None and answer.words:
                lines.append(Note(f"“{answer.words}”"))
        sections.append(Section("Sent", tuple(lines) or (Note("No proof was sent yet."),)))
        if asked == UNANSWERED:
            sections.append(
                Section(
                    "The client's answer",
                    (
                        Field(
                            "In their words", self._answers.get(self.page.commission_id, ""), self._write, "It is perfect", True
                        ),
                        Press("They want changes", lambda: self._answer(False)),
                    ),
                )
            )
        if asked == CHANGED or (self._last() is not None and asked != UNANSWERED):
            found = changes(self._last().composed, c.compose) if self._last() is not None else ()  # type: ignore[union-attr]
            words = [
                Note(
                    f"{f.words}{'' if f.seen or 'too little' in f.words else ', too little to see'}.",
                    "wrong" if f.seen else "plain",
                )
                for f in found
            ]
            head = "Changed since, new scope" if asked == CHANGED else "Changed since"
            sections.append(Section(head, tuple(words[:8]) or (Note("Nothing: it is what the client saw."),)))
        return sections

    def _write(self, text: str) -> Meaning:
        self._answers[self.page.commission_id] = text
        return None

    def _page_section(self) -> list[Section]:
        proofs = self.page.commission.proofs

        def edit(label: str, **values: object) -> Edit[Proofs]:
            return Edit(PROOFS, label, lambda p: replace(p, **values))  # type: ignore[arg-type]

        lines: tuple[Line, ...] = (
            Field(
                "Included", proofs.included, lambda v: edit("Wrote what is included", included=v), "canvas, varnish, hanging"
            ),
            Field("Price, if it is to be said", proofs.price, lambda v: edit("Wrote the price", price=v)),
            Tick("A page of the wall", proofs.with_wall, lambda v: edit("Set the page of the wall", with_wall=v)),
            Tick("A mark over the picture", proofs.watermark, lambda v: edit("Set the mark", watermark=v)),
            Press("Save it as PDF…", lambda: self._save("pdf")),
            Press("Save it as a picture…", lambda: self._save("png")),
        )
        return [Section("The page", lines)]

    # --- the page

    def _show_page(self) -> None:
        layouts, compose = self.layouts(), self.page.commission.compose
        references, first = self.page.workroom.references, layouts[0]
        size = (first.page_mm[0], first.page_mm[1] * len(layouts))
        key = Key("proof page", (reference_key(compose),), (layouts,))
        if key == self._shown:
            return
        if self.view.levels is None or self.view.content != size:
            self.view.waiting = "Laying the page out…"
            self.view.show_levels(None, size)

        def make(progress: Progress) -> Levels:
            picture = references.for_print(compose, compose.canvas, proof_page.PICTURE_PX_MM * first.scale, progress)
            return Levels((qimage(proof_page.as_picture(proof_page.sheets(layouts, picture), _PAGE_PX_MM)),))

        def ready(levels: Levels) -> None:
            self._shown = key
            self.view.show_levels(levels, size)

        self.page.workroom.derived.want(key, self.page, Making(make, lambda levels: levels.bytes), ready)

    def _make(self, title: str, form: Form, done: Callable[[bytes], None]) -> None:
        make_proof(self.page, self.layouts(), title, form, done)

    def _save(self, form: Form) -> None:
        name = f"{self.page.commission.brief.title} proof {self.number}"
        path = self.page.choose_file("Save the proof", name, f".{form}")
        if path is None:
            return
        workroom = self.page.workroom

        def done(data: bytes) -> None:
            workroom.write_file(path, data)
            workroom.say(f"Written to {path}.", False)

        self._make(f"Writing {name}", form, done)

    # --- sending and being answered

    @property
    def _sending(self) -> str:
        """The title of the work that lays this commission's proof into the outbox."""
        return f"Laying proof {self.number} of {self.page.commission.brief.title} into the outbox"

    @property
    def is_sending(self) -> bool:
        """Whether it is under way: a proof is sent once."""
        return any(work.title == self._sending for work in self.page.workroom.works.now)

    def _send(self) -> Meaning:
        if self.is_sending:
            return None
        self.page.bench.store_pending()
        desk, workroom, page, number, last = self.page.desk, self.page.workroom, self.page, self.number, self._last()
        c = page.commission  # as it is on the page: what is changed meanwhile is not in it
        changed = [x.words for x in changes(last.composed, c.compose) if x.seen] if last is not None else []
        text = cleaned(proof_letter(c.brief, number, page.studio.painter, changed))

        def done(pdf: bytes) -> None:
            path = put_in_outbox(desk, c, f"proof {number}", f"Proof {number} of {c.brief.title}", text, pdf)
            proof = Proof(number, desk.clock(), c.compose)
            desk.do(c.id, Edit(PROOFS, f"Sent proof {number}", lambda p: replace(p, sent=(*p.sent, proof)), keep="sent"))
            desk.happen(c.id, ProofSent(proof.at, number, reference_key(c.compose), text), "Compose")
            workroom.say(f"Letter and page lie in the outbox: {path.name}, and the PDF of the same name to go with it.", False)

        self._make(self._sending, "pdf", done)
        page.refresh()
        return None

    def _answer(self, approved: bool) -> Meaning:
        sent = self._sent
        if not sent:
            raise ComposeTrouble("No answer was noted", "no proof was sent yet", "send one first")
        self.page.bench.store_pending()
        words = cleaned(self._answers.pop(self.page.commission_id, "")).strip()
        now = self.page.desk.clock()
        self.page.desk.happen(self.page.commission_id, ProofAnswered(now, sent[-1].number, approved, words), "Compose")
        self.page.refresh()
        return None

    def key(self, event: QKeyEvent) -> bool:
        return False
