"""A client is erased on their wish: what names them goes from every commission, with all earlier versions; papers of money stay."""

from dataclasses import replace
from typing import TYPE_CHECKING

from yarrow_lane.commission.clients import ERASED, erasing
from yarrow_lane.commission.commission import PARTS, Commission
from yarrow_lane.intake.brief import Brief
from yarrow_lane.intake.photos import Intake
from yarrow_lane.lane.happening import Happening, LetterSent, Photographed, Printed, ProofAnswered, ProofSent
from yarrow_lane.lane.money import ClientErased, PaperGiven, QuoteSent, Reminded
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.store.codec import happening_to_json, to_json
from yarrow_lane.store.references import names_in
from yarrow_lane.store.trouble import disk_trouble

if TYPE_CHECKING:
    from yarrow_lane.desk.desk import Desk


def erase_client(desk: "Desk", ids: tuple[str, ...]) -> tuple[str, ...]:
    """Erase the client of these commissions; returns what was kept, in words. It cannot be taken back.

    Raises `Trouble` while money or work is open. Copies of the studio made before hold it until they go: the caller says so.
    """
    commissions = tuple(desk.commission(i) for i in ids)
    found = erasing(commissions, tuple(desk.books.account(i) for i in ids), desk.studio.on_shelf)
    if found.why_not:
        raise Trouble("The client was not erased", found.why_not)
    now, named = desk.clock(), set[str]()
    for c in commissions:
        stripped = _stripped(c)
        log: tuple[Happening, ...] = (*(_without_words(h) for h in c.log), ClientErased(now, found.kept))
        texts = {part.name: to_json(part, getattr(stripped, part.name)) for part in PARTS}
        named |= desk.store.database.erase(c.id, texts, tuple(map(happening_to_json, log)), "Erased the client", now)
    _remove_things(desk, named)
    _remove_letters(desk, ids)
    desk.read_again(ids)
    return found.kept


def _remove_things(desk: "Desk", named: set[str]) -> None:
    """Photographs that no other commission names go at once, and everything worked out from any."""
    database = desk.store.database
    still = set[str]().union(*(names_in(text) for text in database.parts.texts()))
    for document in database.versions.heads():
        still |= names_in("".join(database.happenings(document)))
    for photo in named - still:
        desk.store.photos.remove(photo)
    for _ in desk.store.cache.trim(0):
        pass


def _remove_letters(desk: "Desk", ids: tuple[str, ...]) -> None:
    """Drafts in the outbox bear the commission in their name."""
    outbox = desk.store.folder / "outbox"
    for path in [p for i in ids for p in outbox.glob(f"* {i} *")]:
        try:
            path.unlink(missing_ok=True)
        except OSError as error:
            raise disk_trouble(error, outbox) from error


def _stripped(c: Commission) -> Commission:
    """The record of the work without the person: size, medium, days, hours and passes stay, for they are the painter's."""
    b = c.brief
    sitters = tuple(replace(s, name=f"sitter {n + 1}") for n, s in enumerate(b.sitters))
    brief = Brief(f"Commission {c.id}", sitters, ERASED, b.medium, b.started, b.promised, next_sitter=b.next_sitter)
    blank = {part.name: part.type() for part in PARTS if part.name in ("proofs", "check", "palette", "transfer", "tone")}
    compose = replace(type(c.compose)(), width_mm=c.compose.width_mm, height_mm=c.compose.height_mm)
    deliver = replace(
        c.deliver,
        answer=replace(c.deliver.answer, words=""),
        last_list=(),
        finish=replace(c.deliver.finish, title="", photo_id=""),
    )
    return replace(c, brief=brief, intake=Intake(), compose=compose, deliver=deliver, **blank)


def _without_words(h: Happening) -> Happening:
    """That it happened and when stays; what it said and showed goes. Money entries stay as they are: they must be kept."""
    if isinstance(h, LetterSent):
        return replace(h, text="", asked_for=())
    if isinstance(h, (ProofSent, QuoteSent, Reminded)):
        return replace(h, text="")
    if isinstance(h, ProofAnswered):
        return replace(h, words="")
    if isinstance(h, Photographed):
        return replace(h, photo_id="", name="")
    if isinstance(h, PaperGiven):
        return replace(h, content="")
    return replace(h, made_from="") if isinstance(h, Printed) else h
