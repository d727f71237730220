"""Letters in the outbox are mail any program can open: read back with Python's own mail parser (RFC 5322)."""

from email import message_from_bytes
from email.policy import default, strict

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import NOON
from yarrow_lane.standins.outbox import MailTrouble, free_name, letter_bytes, recipient


def parsed(**change: str):
    words = {
        "painter": "R. Thorne",
        "client": "M. Okonjo",
        "mail": "m.okonjo@example.org",
        "subject": "Photographs",
        "text": "Dear",
    }
    words.update(change)
    data = letter_bytes(*(words[k] for k in ("painter", "client", "mail", "subject", "text")), NOON, words.get("warning", ""))
    return message_from_bytes(data, policy=default + strict)


def test_a_letter_reads_back_as_it_was_written():
    text = "Dear Łukasz,\n\none from eye height, by a window – eyes sharp.\n"
    letter = parsed(text=text, client="Łukasz Ždanović", subject="Photographs for Pip, the cat")
    assert letter.get_content() == text
    assert letter["To"].addresses[0].display_name == "Łukasz Ždanović"
    assert letter["To"].addresses[0].addr_spec == "m.okonjo@example.org"
    assert letter["Subject"] == "Photographs for Pip, the cat"
    assert letter["Date"].datetime == NOON
    assert letter["X-Unsent"] == "1", "mail programs open it as a draft"
    assert len(letter["From"].addresses) == 1 and not letter.defects


@pytest.mark.parametrize("mail", ["", "   ", "no address", "@", "a@b c@", "jane@", "<>"])
def test_without_an_address_the_painter_fills_it_in(mail):
    assert parsed(mail=mail)["To"] is None


def test_the_warning_of_a_surprise_stands_in_the_head_never_in_the_text():
    letter = parsed(warning="A surprise: do not contact\nthe grandfather")
    assert letter["X-Yarrow-Warning"] == "A surprise: do not contact the grandfather"
    assert "surprise" not in letter.get_content()


def test_line_breaks_cannot_smuggle_headers_in():
    letter = parsed(subject="Hello\nBcc: someone@example.org", painter="R\r\nBcc: x@example.org", client="M\nCc: y@example.org")
    assert letter["Bcc"] is None and letter["Cc"] is None


@pytest.mark.parametrize("smuggled", ["=?utf-8?q?=0d=0aBcc=3a_x=40example=2eorg?=", "=?utf-8?b?DQpCY2M6IHhAeC5vcmc=?="])
@pytest.mark.parametrize("where", ["client", "painter", "subject", "warning"])
def test_encoded_words_are_words(where, smuggled):
    """A mail program would decode them into a line of its own (RFC 2047)."""
    letter = parsed(**{where: f"Jane {smuggled}"})
    assert letter["Bcc"] is None and set(letter.keys()) <= {
        "From", "To", "Subject", "Date", "X-Unsent", "X-Yarrow-Warning", "Content-Type", "Content-Transfer-Encoding", "MIME-Version",
    }  # fmt: skip
    shown = letter["X-Yarrow-Warning" if where == "warning" else {"client": "To", "painter": "From"}.get(where, "Subject")]
    assert "utf-8?" in str(shown), "it is shown as it was written"


@pytest.mark.parametrize(
    ("mail", "address", "said"),
    [
        ("jane@x.org", "jane@x.org", ""),
        ("  Jane <jane@x.org> ", "jane@x.org", ""),
        ("<jane.o'neil+pets@x-y.co.uk>", "jane.o'neil+pets@x-y.co.uk", ""),
        ("a@b", "a@b", ""),
        ("two@x.org, three@x.org", "two@x.org", "only the first"),
        ("Jane jane@x.org", "", "no mail address"),
        ("jane@x..org", "", "no mail address"),
        ("jane at x dot org", "", "no mail address"),
        ("(jane@x.org", "", "no mail address"),
        ("", "", ""),
    ],
)
def test_addresses_as_they_are_written(mail, address, said):
    found = recipient(mail)
    assert found.address == address and said in found.unused and bool(found.unused) is bool(said)


@given(st.text(), st.text(), st.text(), st.text(), st.text(), st.text())
def test_whatever_the_words_are_the_head_says_what_was_meant(painter, client, mail, subject, text, warning):
    """Read again with Python's parser: the same people, no header more; else it is refused in words."""
    try:
        data = letter_bytes(painter, client, mail, subject, text, NOON, warning)
    except MailTrouble as trouble:
        assert "look at the names" in trouble.sentence
        return
    letter = message_from_bytes(data, policy=default)
    assert letter["Bcc"] is None and [a.addr_spec for a in letter["From"].addresses] == ["painter@yarrow-lane.invalid"]
    assert [a.addr_spec for a in letter["To"].addresses] == [recipient(mail).address] if "To" in letter else True


def test_nothing_sent_is_overwritten(tmp_path):
    names = []
    for _ in range(3):
        names.append(free_name(tmp_path, "2026-03-09 c0001"))
        names[-1].write_bytes(b"x")
    assert [n.name for n in names] == ["2026-03-09 c0001.eml", "2026-03-09 c0001 2.eml", "2026-03-09 c0001 3.eml"]
