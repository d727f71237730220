"""A letter to the client as a page in the studio's look."""

from datetime import date, datetime

from yarrow_lane.documents.page_style import Paper, Words
from yarrow_lane.measure.days import dated


def letter_paper(subject: str, text: str, to: tuple[str, ...], sender: tuple[str, ...], on: date, at: datetime) -> Paper:
    """Paragraphs are set apart by empty lines."""
    paragraphs = tuple(Words(p.strip()) for p in text.split("\n\n") if p.strip())
    name = sender[0] if sender else ""
    return Paper(subject, paragraphs, sender, to, (("", dated(on)),), subject, name, at, name)
