"""The proof: the page as the client will see it, sent with a letter, answered, and what changed since."""

from dataclasses import replace
from typing import TYPE_CHECKING

from PySide6.QtGui import QKeyEvent

from yarrow_lane.compose.changes import changes
from yarrow_lane.compose.composition import ComposeTrouble
from yarrow_lane.compose.placing import scales_of
from yarrow_lane.compose.proof_words import proof_facts, proof_letter
from yarrow_lane.compose.proofs import PROOFS, Proof, Proofs, answer_to
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.compose.standing import CHANGED, UNANSWERED, asked_of_client
from yarrow_lane.desk.derived import Key, Making
from yarrow_lane.documents.proof_page import PICTURE_PX_MM, Layout, ProofPage, as_pdf, as_picture, as_png, lay_out
from yarrow_lane.lane.happening import ProofAnswered, ProofSent, of_kind
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.raster import Picture
from yarrow_lane.measure.words import cleaned
from yarrow_lane.standins.outbox import free_name, letter_bytes
from yarrow_lane.store.things import write_synced
from yarrow_lane.store.trouble import disk_trouble
from yarrow_lane.ui.bench_sheet import Fact, Field, Line, Meaning, NextAct, Note, Press, Section, Tick
from yarrow_lane.ui.kit.levels import Levels, qimage
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.rooms.compose.mode import Mode, Sheets
from yarrow_lane.ui.rooms.compose.wall_mode import WallMode

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.compose.page import ComposePage

_PAGE_PX_MM = 5.0  # our choice: sharp on a screen


class ProofMode(Mode):
    """The page large; beside it what was sent and what was answered."""

    name = "proof"

    def __init__(self, page: "ComposePage") -> None:
        super().__init__(page)
        self.view = PictureView("The proof, as the client will see it")
        self.widget = self.picture = self.view
        self._answers: dict[str, str] = {}
        self._shown = ""

    def why_not(self) -> str:
        return "" if self.page.commission.compose.framed else "there is nothing to show yet: lay a crop or place a sitter first"

    def opened(self) -> None:
        self._shown = ""

    @property
    def _sent(self) -> tuple[ProofSent, ...]:
        return of_kind(self.page.commission.log, ProofSent)

    @property
    def number(self) -> int:
        """Of the proof on the table."""
        return len(self._sent) + 1

    def _last(self) -> Proof | None:
        return next(iter(reversed(self.page.commission.proofs.sent)), None)

    def layout(self) -> Layout:
        """The page of the composition as it is now."""
        page = self.page
        c, compose = page.commission, page.commission.compose
        scales = scales_of(compose)
        day = day_text(page.workroom.now.date())
        below = f"Proof {self.number} of {day}, for {c.brief.client}, by {page.studio.painter}"
        facts = proof_facts(compose, c.proofs, c.brief, scales, page.studio.unit, self._last())
        mark = "PROOF" if c.proofs.watermark else ""
        return lay_out(ProofPage(c.brief.title, below, facts, (compose.width_mm, compose.height_mm), mark), c.transfer.paper)

    def refresh(self) -> Sheets:
        self._show_page()
        c = self.page.commission
        asked = asked_of_client(c.compose, c.proofs, c.log)
        sections = [*self._state(asked), *self._page_section()]
        return Sheets(tuple(sections), (), self._act(asked))

    def _act(self, asked: str) -> NextAct:
        if asked == UNANSWERED:
            return NextAct("It is approved", f"what the client said to proof {self.number - 1}", lambda: self._answer(True))
        if self._sent and not asked:
            return self.page.next_act(lambda: None)
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
            Press("Save it as PDF…", self._save_pdf),
            Press("Save it as a picture…", self._save_png),
        )
        return [Section("The page", lines)]

    # --- the page

    def _picture_key(self, layout: Layout) -> Key:
        return Key("proof picture", (reference_key(self.page.commission.compose),), (round(layout.scale, 6),))

    def _making(self, layout: Layout) -> Making[Picture]:
        compose, references = self.page.commission.compose, self.page.workroom.references

        def make(progress: Progress) -> Picture:
            return references.for_print(compose, compose.canvas, PICTURE_PX_MM * layout.scale, progress)

        return Making(make, lambda picture: picture.nbytes)

    def _show_page(self) -> None:
        layout = self.layout()
        shown = repr(layout) + reference_key(self.page.commission.compose)
        if shown == self._shown:
            return
        if self.view.levels is None or self.view.content != layout.page_mm:
            self.view.waiting = "Laying the page out…"
            self.view.show_levels(None, layout.page_mm)

        def ready(picture: Picture) -> None:
            self._shown = shown
            self.view.show_levels(Levels((qimage(as_picture(layout, picture, _PAGE_PX_MM)),)), layout.page_mm)

        self.page.workroom.derived.want(self._picture_key(layout), self.page, self._making(layout), ready)

    def _save_pdf(self) -> None:
        name = f"{self.page.commission.brief.title} proof {self.number}"
        self._made(lambda layout, p: self.page.save_file("Save the proof", name, ".pdf", self._pdf(layout, p)))

    def _pdf(self, layout: Layout, picture: Picture) -> bytes:
        pages = [(layout, picture)]
        c = self.page.commission
        wall = self.page.modes["on the wall"]
        assert isinstance(wall, WallMode)
        drawn = wall.as_picture() if c.proofs.with_wall else None
        if drawn is not None:
            below = f"Seen at true scale, from {c.compose.wall.distance_mm / 1000:.2f}\u202fm"
            size = (float(drawn.shape[1]), float(drawn.shape[0]))
            pages.append((lay_out(ProofPage(f"{c.brief.title} on your wall", below, (), size), c.transfer.paper), drawn))
        return as_pdf(pages, f"{c.brief.title}: proof {self.number}")

    def _save_png(self) -> None:
        title = self.page.commission.brief.title
        self._made(
            lambda layout, p: self.page.save_file("Save the proof", f"{title} proof {self.number}", ".png", as_png(layout, p))
        )

    def _made(self, then: object) -> None:
        assert callable(then)
        layout = self.layout()
        self.page.workroom.derived.want(
            self._picture_key(layout), self.page, self._making(layout), lambda picture: self.page.attempt(lambda: then(layout, picture))
        )  # fmt: skip

    # --- sending and being answered

    def _send(self) -> Meaning:
        self._made(self._put_in_outbox)
        return None

    def _put_in_outbox(self, layout: Layout, picture: Picture) -> None:
        page = self.page
        c, desk, number = page.commission, page.desk, self.number
        last = self._last()
        changed = [x.words for x in changes(last.composed, c.compose) if x.seen] if last is not None else []
        now, outbox = desk.clock(), desk.store.folder / "outbox"
        text = cleaned(proof_letter(c.brief, number, page.studio.painter, changed))
        pdf = self._pdf(layout, picture)
        subject = f"Proof {number} of {c.brief.title}"
        letter = letter_bytes(
            page.studio.painter, c.brief.client, c.brief.client_mail, subject, text, now, c.brief.contact_warning
        )  # fmt: skip
        path = free_name(outbox, f"{now:%Y-%m-%d} {c.id} proof {number}")
        try:
            write_synced(path.with_suffix(".pdf"), pdf)
            write_synced(path, letter)
        except OSError as error:
            raise disk_trouble(error, outbox) from error
        proof = Proof(number, now, c.compose)
        kept = Edit(PROOFS, f"Sent proof {number}", lambda p: replace(p, sent=(*p.sent, proof)), keep="sent")
        desk.do(page.commission_id, kept)
        desk.happen(page.commission_id, ProofSent(now, number, reference_key(c.compose), text), "Compose")
        page.workroom.say(f"Letter and page lie in the outbox: {path.name}, and the PDF of the same name to go with it.", False)
        page.refresh()

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
