"""What leaves the intake room on paper or by mail: the letter and the contact sheet."""

from pathlib import Path

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.studio import Studio
from yarrow_lane.desk.desk import Desk
from yarrow_lane.desk.letters import put_in_outbox
from yarrow_lane.documents.contact_sheet import SheetPhoto, contact_sheet
from yarrow_lane.intake.evidence import Evidence
from yarrow_lane.intake.photos import Photo
from yarrow_lane.intake.request import compose_letter, next_letter, what_is_missing
from yarrow_lane.intake.rights import PERMISSION_WORDS
from yarrow_lane.lane.happening import LetterSent
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.words import cleaned
from yarrow_lane.ui.pictures import Pictures
from yarrow_lane.workers.pool import Workers

_SHEET_PX = 700  # our choice: sharp enough at 6 cm on paper


def draft_letter(c: Commission, studio: Studio, evidence: dict[str, Evidence]) -> str:
    """The letter as it would be written from what is missing now."""
    return compose_letter(c.brief, what_is_missing(c.intake, c.brief, evidence), studio.painter)


def send_letter(desk: Desk, c: Commission, text: str, evidence: dict[str, Evidence]) -> Path:
    """Put the letter into the outbox and on record; returns its file. Raises `StoreTrouble`, `MailTrouble`."""
    text = cleaned(text)
    path = put_in_outbox(desk, c, "photographs", f"Photographs for {c.brief.title}", text)
    asked = tuple(f"{s.name}: {why}" for s, why in what_is_missing(c.intake, c.brief, evidence))
    desk.happen(c.id, LetterSent(desk.clock(), next_letter(c.log), text, asked), "Intake")
    return path


def contact_sheet_of(c: Commission, pictures: Pictures, workers: Workers, progress: Progress) -> bytes:
    """The kept photographs on paper, with their use and rights; blocks. Raises `Trouble` when a file is gone."""
    photos = []
    for number, p in enumerate(c.intake.kept):
        progress.at(number / len(c.intake.kept))
        small = workers.ask("intake.opening:open_sized", pictures.file(p.id, p.name), p.name, _SHEET_PX, progress=progress)
        photos.append(SheetPhoto(small, p.name, _sheet_lines(p)))
    return contact_sheet(c.brief.title, tuple(photos), c.transfer.paper)


def _sheet_lines(p: Photo) -> tuple[str, ...]:
    use = p.use + (f" for the {p.helps_with}" if p.helps_with else "")
    by = f" · by {p.rights.taken_by}" if p.rights.taken_by else ""
    consent = f"consent: {p.rights.consent}" if p.rights.consent not in ("not asked", "not needed") else ""
    return tuple(line for line in (use, PERMISSION_WORDS[p.rights.permission] + by, consent) if line)
