"""Tables kept as CSV, whose first lines say where they come from."""

from collections.abc import Iterator
from pathlib import Path


def rows_of(path: Path) -> Iterator[str]:
    """The lines of a table without its remarks."""
    with path.open(newline="") as file:
        yield from (line for line in file if not line.startswith("#"))
