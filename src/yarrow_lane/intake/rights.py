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


Consent = Literal["not needed", "asked", "given", "given by guardian"]
CONSENTS: tuple[Consent, ...] = ("not needed", "asked", "given", "given by guardian")


@dataclass(frozen=True)
class Rights:
    """Who took it and how permission came; unknown means ask before painting (common practice)."""

    permission: Permission = "unknown"
    taken_by: str = ""
    licence: str = ""
    consent: Consent = "not needed"

    @property
    def known(self) -> bool:
        """A licence counts only with its text; a person who was asked has not yet said yes."""
        if self.consent == "asked":
            return False
        return self.permission in ("client", "written") or (self.permission == "licence" and bool(self.licence.strip()))
