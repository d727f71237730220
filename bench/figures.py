"""One line a figure: what, value, goal, whether it holds."""

import os
from pathlib import Path


def figure(what: str, value: float, goal: float, unit: str, more: bool = False) -> str:
    """Smaller is better, or `more`; a figure holds when it is not beyond its goal."""
    word = "holds" if (value >= goal if more else value <= goal) else "short"
    return f"{what} | {value:.3g} {unit} | goal {goal:g} | {word}"


def as_installed(compiled: Path) -> dict[str, str]:
    """The surroundings of a process as an installed application has them: its sources compiled once, into this folder.

    A machine for tests often forbids keeping compiled sources, and then every start compiles all of them again.
    """
    left = {name: value for name, value in os.environ.items() if name != "PYTHONDONTWRITEBYTECODE"}
    return {**left, "PYTHONPYCACHEPREFIX": str(compiled)}
