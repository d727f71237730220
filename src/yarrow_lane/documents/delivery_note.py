"""The list that lies in the parcel, to be ticked and signed at the door."""

from datetime import date, datetime

from yarrow_lane.documents.page_style import Facts, Heading, Listed, Paper, Signed, Words
from yarrow_lane.measure.days import dated


def delivery_note_paper(
    number: int, title: str, what: tuple[tuple[str, str], ...], to: tuple[str, ...], sender: tuple[str, ...], on: date, way: str, at: datetime,
) -> Paper:  # fmt: skip
    """`what` lies in the parcel: (thing, words) each; `way` is how it goes."""
    blocks = (
        Facts((("Goes", way), ("Painting", title))),
        Heading("In the parcel"),
        Listed(what),
        Words("Please look at it while the carrier waits. If box or painting is hurt, photograph both before you unpack further, have it written down, and write to the studio on the same day."),
        Words("Opening it: a knife only along the tape, shallow, away from the painting and from your hand.", small=True),
        Signed("received, day and name"),
    )  # fmt: skip
    right = (("No.", str(number)), ("of", dated(on)))
    return Paper(
        "Delivery note", blocks, sender, to, right, title, sender[0] if sender else "", at, sender[0] if sender else ""
    )
