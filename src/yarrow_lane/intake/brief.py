"""The brief: who is in it, for whom, in what, by when."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import date
from typing import Literal

from yarrow_lane.lane.part import Part, Plain, as_it_was
from yarrow_lane.measure.trouble import Trouble

SitterKind = Literal["person", "dog", "cat", "horse", "rabbit", "bird", "other"]
SITTER_KINDS: tuple[SitterKind, ...] = ("person", "dog", "cat", "horse", "rabbit", "bird", "other")
Medium = Literal["acrylic", "watercolour", "oil over acrylic", "oil", "soft pastel"]
MEDIA: tuple[Medium, ...] = ("acrylic", "watercolour", "oil over acrylic", "oil", "soft pastel")
OIL: tuple[Medium, ...] = ("oil over acrylic", "oil")  # what lies uppermost is oil


# Crown to chin, mm, of a usual grown one: from memory, and breeds differ much. Asked of the client, it is better than this.
USUAL_HEAD_MM: dict[SitterKind, float] = {
    "person": 230.0,
    "dog": 160.0,
    "cat": 95.0,
    "horse": 550.0,
    "rabbit": 90.0,
    "bird": 45.0,
}


def front_word(kind: SitterKind) -> str:
    """What stands in front of the eyes: a nose, a muzzle or a beak."""
    return {"person": "nose", "bird": "beak"}.get(kind, "muzzle")


class BriefTrouble(Trouble):
    """The brief lacks what a commission cannot start without."""


@dataclass(frozen=True)
class Sitter:
    """One person or animal; `head_mm` crown to chin and `muzzle_mm` nose in front of the eyes, 0 while unknown.

    `child` counts for people: a guardian then speaks for them.
    """

    id: int
    name: str
    kind: SitterKind = "other"
    living: bool = True
    head_mm: float = 0.0
    muzzle_mm: float = 0.0
    child: bool = False


@dataclass(frozen=True)
class Brief:
    """What the client asked for; `next_sitter` is the next sitter's id and only grows, so that no id comes back."""

    title: str
    sitters: tuple[Sitter, ...]
    client: str
    medium: Medium = "acrylic"
    started: date = date(2000, 1, 1)
    promised: date | None = None
    wish: str = ""
    surprise: bool = False
    not_to_contact: str = ""
    wall_colour: str = ""
    wall_width_mm: float = 0.0
    wall_light: str = ""
    background_wish: str = ""
    must_haves: str = ""
    style: str = ""
    budget: str = ""
    client_mail: str = ""
    client_address: str = ""
    next_sitter: int = 2

    def sitter(self, sitter_id: int) -> Sitter | None:
        return next((s for s in self.sitters if s.id == sitter_id), None)

    @property
    def contact_warning(self) -> str:
        """What every outgoing text of a surprise must be checked for; empty when it is none."""
        if not self.surprise:
            return ""
        return f"A surprise: do not contact {self.not_to_contact or 'anyone but the client'}"


def new_brief(
    sitter: str, kind: SitterKind, client: str, medium: Medium, started: date, promised: date | None, wish: str = ""
) -> Brief:
    """A brief with its first sitter; raises `BriefTrouble` without a sitter's name."""
    name = sitter.strip()
    if not name:
        raise BriefTrouble("The commission was not started", "no sitter is named", "write who is to be painted")
    return Brief(name, (Sitter(1, name, kind),), client.strip(), medium, started, promised, wish.strip())


def with_title(brief: Brief, title: str) -> Brief:
    """The commission under another name; an empty one falls back on the sitters' names."""
    return replace(brief, title=title.strip() or " and ".join(s.name for s in brief.sitters))


def add_sitter(brief: Brief, name: str, kind: SitterKind) -> Brief:
    """One more in the picture; raises `BriefTrouble` without a name."""
    if not name.strip():
        raise BriefTrouble("Nobody was added", "no name is written", "write who is to be painted")
    added = Sitter(brief.next_sitter, name.strip(), kind)
    return replace(brief, sitters=(*brief.sitters, added), next_sitter=brief.next_sitter + 1)


def _count_sitters(plain: Plain, _: Mapping[str, Plain]) -> Plain:
    return {**plain, "next_sitter": 1 + max((s["id"] for s in plain["sitters"]), default=0)}


BRIEF = Part("brief", Brief, "Intake", (_count_sitters, as_it_was))  # version 2 knows the client's address


def change_sitter(brief: Brief, sitter: Sitter) -> Brief:
    """The sitter of that id written anew."""
    return replace(brief, sitters=tuple(sitter if s.id == sitter.id else s for s in brief.sitters))
