"""The outbox: letters as .eml files (RFC 5322) in a folder; any mail program can open and send them."""

import re
from dataclasses import dataclass
from datetime import datetime
from email import message_from_bytes
from email.errors import MessageError
from email.headerregistry import Address
from email.message import EmailMessage
from email.policy import default
from email.utils import format_datetime, getaddresses
from pathlib import Path

from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.measure.words import cleaned, one_line

# The painter's own address is put in by the mail program that sends the draft; .invalid reaches nobody (RFC 2606).
_SENDER = "painter@yarrow-lane.invalid"
# RFC 5322, 3.4.1, without quoted and literal forms, which nobody's client has.
_ADDRESS = re.compile(r"[A-Za-z0-9.!#$%&'*+/=?^_`{|}~-]+@[A-Za-z0-9-]+(\.[A-Za-z0-9-]+)*")


class MailTrouble(Trouble):
    """A letter that would not say what was meant."""


@dataclass(frozen=True)
class Recipient:
    """Whom a letter goes to: an address or none, and in words what was not used of what is on record."""

    address: str = ""
    unused: str = ""


def recipient(mail: str) -> Recipient:
    """Understand what the painter wrote as the client's address: `jane@x.org`, `Jane <jane@x.org>`, `<jane@x.org>`.

    Of two the first is taken; what is none is said to be unused.
    """
    written = one_line(mail)
    if not written:
        return Recipient()
    try:
        found = [address for _, address in getaddresses([written]) if _ADDRESS.fullmatch(address)]
    except (MessageError, ValueError, IndexError, AttributeError):  # its parser raises all of these on broken words
        found = []
    if not found:
        return Recipient(unused=f"“{written}” is no mail address: the letter has none, fill it in when you send it")
    if len(found) > 1:
        return Recipient(found[0], f"of the addresses “{written}” only the first is used")
    return Recipient(found[0])


def letter_bytes(painter: str, client: str, mail: str, subject: str, text: str, when: datetime, warning: str = "") -> bytes:
    """A plain-text draft; a `warning` goes into a header of its own, never into the text the client reads.

    Without a mail address there is no To line: the painter fills it in when sending. What is written is read again and compared
    with what was meant; raises `MailTrouble` when it differs.
    """
    to = recipient(mail).address
    meant = {"Subject": _header(subject), "X-Unsent": "1"} | ({"X-Yarrow-Warning": _header(warning)} if warning else {})
    try:
        message = EmailMessage(policy=default)
        message["From"] = Address(_header(painter), addr_spec=_SENDER)
        if to:
            message["To"] = Address(_header(client), addr_spec=to)
        for name, value in meant.items():
            message[name] = value
        message["Date"] = format_datetime(when)
        message.set_content(cleaned(text))
        data = message.as_bytes()
    except (MessageError, ValueError, IndexError, AttributeError, LookupError) as error:
        raise _not_written("its head cannot be written as mail") from error
    _compare(data, cleaned(text), meant, (_header(painter), _SENDER), (_header(client), to) if to else None)
    return data


def _header(text: str) -> str:
    """Words for a header: one line, and nothing in it that a mail program would decode into something else (RFC 2047)."""
    return one_line(text).replace("=?", "= ?").replace("?=", "? =")


def _compare(data: bytes, text: str, meant: dict[str, str], sender: tuple[str, str], to: tuple[str, str] | None) -> None:
    """Read the letter as a mail program does. Raises `MailTrouble` when its head says anything else than was meant."""
    try:
        read = message_from_bytes(data, policy=default)
        names = {name.lower() for name in read}
        people = {n: [(a.display_name, a.addr_spec) for a in read[n].addresses] for n in ("From", "To") if n in read}
        values = {name: str(read[name]) for name in meant}
        body = read.get_content()
    except (MessageError, ValueError, IndexError, AttributeError, LookupError) as error:
        raise _not_written("it cannot be read again") from error
    expected = {n.lower() for n in meant} | {"from", "date", "content-type", "content-transfer-encoding", "mime-version"}
    wanted = {"From": [sender]} | ({"To": [to]} if to else {})
    if body.rstrip("\n") != text.rstrip("\n"):
        raise _not_written("its text would not come out as it was written")
    if names != expected | ({"to"} if to else set()) or people != wanted or values != meant:
        raise _not_written("its head would say something else than was meant")


def _not_written(why: str) -> MailTrouble:
    return MailTrouble("The letter was not written", why, "look at the names of the client, the commission and the painter")


def free_name(folder: Path, stem: str) -> Path:
    """A file of that name that is not there yet: nothing sent is ever overwritten."""
    number = 1
    while (path := folder / (f"{stem}.eml" if number == 1 else f"{stem} {number}.eml")).exists():
        number += 1
    return path
