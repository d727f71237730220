"""The outbox: letters as .eml files (RFC 5322) in a folder; any mail program can open and send them."""

from datetime import datetime
from email.headerregistry import Address
from email.message import EmailMessage
from email.utils import format_datetime
from pathlib import Path

# The painter's own address is put in by the mail program that sends the draft; .invalid reaches nobody (RFC 2606).
_SENDER = "painter@yarrow-lane.invalid"


def letter_bytes(painter: str, client: str, mail: str, subject: str, text: str, when: datetime, warning: str = "") -> bytes:
    """A plain-text draft; a `warning` goes into a header of its own, never into the text the client reads.

    Without a mail address there is no To line: the painter fills it in when sending. An address that is none is left out.
    """
    message = EmailMessage()
    message["From"] = Address(_one_line(painter), addr_spec=_SENDER)
    try:
        if mail.strip():
            message["To"] = Address(_one_line(client), addr_spec=mail.strip())
    except ValueError:
        pass  # the painter sees the empty line and fills it in
    message["Subject"] = _one_line(subject)
    message["Date"] = format_datetime(when)
    message["X-Unsent"] = "1"
    if warning:
        message["X-Yarrow-Warning"] = _one_line(warning)
    message.set_content(text)
    return message.as_bytes()


def _one_line(text: str) -> str:
    return " ".join(text.split())


def free_name(folder: Path, stem: str) -> Path:
    """A file of that name that is not there yet: nothing sent is ever overwritten."""
    number = 1
    while (path := folder / (f"{stem}.eml" if number == 1 else f"{stem} {number}.eml")).exists():
        number += 1
    return path
