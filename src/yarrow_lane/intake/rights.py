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

Consent = Literal["not asked", "asked", "given", "given by guardian", "not needed"]
CONSENTS: tuple[Consent, ...] = ("not asked", "asked", "given", "given by guardian", "not needed")


@dataclass(frozen=True)
class Rights:
    """Who took it and how permission came; unknown means ask before painting (common practice).

    `consent` is that of the people shown; "not needed" is the painter's own word, for a hand or a jumper.
    """

    permission: Permission = "unknown"
    taken_by: str = ""
    licence: str = ""
    consent: Consent = "not asked"

    @property
    def known(self) -> bool:
        """Whether it may be painted from; a licence counts only with its text."""
        return self.permission in ("client", "written") or (self.permission == "licence" and bool(self.licence.strip()))
