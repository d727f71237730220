"""The certificate: what the painting is, by whom, of what it is made, with its own picture."""

from dataclasses import dataclass
from datetime import date, datetime

from yarrow_lane.documents.page_style import Block, Facts, Heading, Paper, Pictured, Signed, Words
from yarrow_lane.measure.days import dated


@dataclass(frozen=True)
class Certificate:
    """What it says; `jpeg` is the finished painting, b"" where it was not photographed. `materials` are words, one each."""

    number: int
    title: str
    painter: str
    size: str
    medium: str
    finished: date
    materials: tuple[str, ...] = ()
    varnish: str = ""
    signed: str = ""
    rights: str = ""
    jpeg: bytes = b""
    width_mm: float = 100.0
    height_mm: float = 100.0


_PICTURE_MM = 96.0  # our choice: half of the sheet


def certificate_paper(c: Certificate, sender: tuple[str, ...], at: datetime) -> Paper:
    """The paper itself."""
    blocks: list[Block] = []
    if c.jpeg:
        scale = _PICTURE_MM / max(c.width_mm, c.height_mm)
        blocks.append(Pictured(c.jpeg, c.width_mm * scale, c.height_mm * scale))
    facts = [
        ("Title", c.title),
        ("Painted by", c.painter),
        ("Medium", c.medium),
        ("Size", c.size),
        ("Finished", dated(c.finished)),
    ]
    facts += [(name, words) for name, words in (("Varnish", c.varnish), ("Signed", c.signed)) if words]
    blocks.append(Facts(tuple(facts)))
    if c.materials:
        blocks += [Heading("Made with"), Words(", ".join(c.materials))]
    said = f"This is to say that the painting named and shown here is an original, painted by hand by {c.painter}, and the only one."
    blocks += [Heading("Of its making"), Words(said)]
    if c.rights:
        blocks.append(Words(c.rights))
    blocks.append(Signed(c.painter, dated(c.finished)))
    return Paper(
        "Certificate", tuple(blocks), sender, (), (("No.", str(c.number)),) if c.number else (), c.title, c.painter, at,
        sender[0] if sender else "",
    )  # fmt: skip
