"""What an attack came to."""

from dataclasses import dataclass, field


@dataclass
class Counts:
    """How often it was tried, what was held or said in words, and what should never be: each with its sentence."""

    tried: int = 0
    held: int = 0
    said: int = 0
    lost: list[str] = field(default_factory=list)
    unseen: list[str] = field(default_factory=list)
    tracebacks: list[str] = field(default_factory=list)
    too_much_memory: list[str] = field(default_factory=list)
    too_slow: list[str] = field(default_factory=list)

    @property
    def bad(self) -> list[str]:
        """Everything that should never be."""
        return [*self.lost, *self.unseen, *self.tracebacks, *self.too_much_memory, *self.too_slow]
