"""A short hash over a row, so that a row that is no longer what was stored is seen: SQLite's own check does not look into values."""

import hashlib
import json

_LETTERS = 16  # our choice: 64 bits, so that damage passes unseen once in 10^19


def seal_of(*values: object) -> str:
    """The seal of these values in their order."""
    return hashlib.sha256(json.dumps(values, ensure_ascii=True, default=repr).encode()).hexdigest()[:_LETTERS]
