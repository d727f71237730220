"""The outbox: letters as .eml files (RFC 5322) in a folder; any mail program can open and send them."""

from datetime import datetime
from email.message import EmailMessage
from email.utils import format_datetime
from pathlib import Path


def letter_bytes(to: str, subject: str, text: str, when: datetime, warning: str = "") -> bytes:
    """A plain-text letter; a `warning` goes into a header of its own, never into the text the client reads."""
    message = EmailMessage()
    message["To"] = to.replace("\n", " ").strip() or "client"
    message["Subject"] = subject.replace("\n", " ")
    message["Date"] = format_datetime(when)
    message["X-Unsent"] = "1"
    if warning:
        message["X-Yarrow-Warning"] = warning.replace("\n", " ")
    message.set_content(text)
    return message.as_bytes()


def free_name(folder: Path, stem: str) -> Path:
    """A file of that name that is not there yet: nothing sent is ever overwritten."""
    number = 1
    while (path := folder / (f"{stem}.eml" if number == 1 else f"{stem} {number}.eml")).exists():
        number += 1
    return path
