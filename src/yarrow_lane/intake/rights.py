"""The right to paint from a photograph."""

from dataclasses import dataclass
from typing import Literal

Permission = Literal["unknown", "client", "written", "licence"]
PERMISSION_WORDS: dict[Permission, str] = {
    "unknown": "unknown: ask",
    "client": "client took it",
    "written": "agreed in writing",
    "licence": "licensed",
}


@dataclass(frozen=True)
class Rights:
    """Who took it and how permission came; unknown means ask before painting (common practice)."""

    permission: Permission = "unknown"
    taken_by: str = ""
    licence: str = ""

    @property
    def known(self) -> bool:
        """A licence counts only with its text."""
        return self.permission in ("client", "written") or (self.permission == "licence" and bool(self.licence.strip()))
