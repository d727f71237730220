"""A room's part of a commission, and an edit of it."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any, Generic, TypeVar

T = TypeVar("T")
Plain = dict[str, Any]
# From the part as an older program wrote it, and all parts of that commission as they were written, to the next version.
Upgrade = Callable[[Plain, Mapping[str, Plain]], Plain]


def as_it_was(plain: Plain, *_: Mapping[str, Plain]) -> Plain:
    """The upgrade to a version that only knows more: what was on record before stays as it is."""
    return plain


@dataclass(frozen=True)
class Part(Generic[T]):
    """One typed constant a room: the part's name on record, its type, its door, and how older records become it."""

    name: str
    type: type[T]
    door: str
    upgrades: tuple[Upgrade, ...] = ()

    @property
    def version(self) -> int:
        """The version written now; each upgrade leads to the next one."""
        return len(self.upgrades)


@dataclass(frozen=True)
class Edit(Generic[T]):
    """A change of one part: its words, and the pure step.

    Edits with the same `join` word that follow each other within a second are one version (a drag, a run of nudges).
    `keep` says why the version it makes is never thinned out ("waived", "sent"); empty for the usual ones.
    `door` is where it shows, when that is not the part's own.
    """

    part: Part[T]
    label: str
    step: Callable[[T], T]
    join: str = ""
    keep: str = ""
    door: str = ""

    @property
    def place(self) -> str:
        """The door at which the change is seen."""
        return self.door or self.part.door
