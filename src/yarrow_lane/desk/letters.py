"""Letters to the client: put into the outbox under names not taken, and what the painter should know before."""

from pathlib import Path

from yarrow_lane.commission.commission import Commission
from yarrow_lane.desk.desk import Desk
from yarrow_lane.intake.brief import Brief
from yarrow_lane.standins.outbox import free_name, letter_bytes, recipient
from yarrow_lane.store.things import write_synced
from yarrow_lane.store.trouble import disk_trouble


def put_in_outbox(desk: Desk, c: Commission, about: str, subject: str, text: str, page: bytes = b"") -> Path:
    """Write the letter, and beside it under the same name the PDF that goes with it; returns the letter's file.

    Raises `StoreTrouble`, `MailTrouble`.
    """
    now, outbox, brief = desk.clock(), desk.store.folder / "outbox", c.brief
    path = free_name(outbox, f"{now:%Y-%m-%d} {c.id} {about}")
    letter = letter_bytes(
        desk.studio.painter, brief.client, brief.client_mail, subject, text, now, brief.contact_warning
    )  # fmt: skip
    try:
        if page:
            write_synced(path.with_suffix(".pdf"), page)
        write_synced(path, letter)
    except OSError as error:
        raise disk_trouble(error, outbox) from error
    return path


def letter_remarks(brief: Brief) -> tuple[str, ...]:
    """What the painter should know when a letter is written: a surprise, an address that is none."""
    return tuple(filter(None, (brief.contact_warning, recipient(brief.client_mail).unused)))
