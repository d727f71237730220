"""Workers that remember, on disk for all test processes, what their slow questions were answered: many tests ask the same of the same cat.

The functions behind these questions are pure; what they are asked about is known by its content, so that other code or other pictures in
another run ask anew. A test of the asking itself uses plain `Workers`.
"""

import hashlib
import os
import pickle
from pathlib import Path
from typing import Any

from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.workers.pool import Limits, Workers

_ROOMS = ("intake.", "layers.", "transfer.", "compose.", "check.", "palette.", "calendar.")
_MOST_BYTES = 60_000_000
_USUAL = Limits()


def _by_content(value: Any) -> Any:
    """Files by what is in them: each test has its studio elsewhere."""
    if isinstance(value, Path):
        return hashlib.sha256(value.read_bytes()).hexdigest() if value.is_file() else str(value)
    if isinstance(value, (tuple, list)):
        return tuple(_by_content(v) for v in value)
    if isinstance(value, dict):
        return tuple((k, _by_content(v)) for k, v in value.items())
    return value


class RememberingWorkers(Workers):
    """`folder` is shared by all processes of one run and gone with it."""

    def __init__(self, folder: Path) -> None:
        super().__init__()
        self._folder = folder
        folder.mkdir(exist_ok=True)

    def ask(self, question: str, *arguments: Any, progress: Progress = SILENT, limits: Limits = _USUAL) -> Any:
        """As `Workers.ask`; asked once of equal arguments."""
        if not question.startswith(_ROOMS):
            return super().ask(question, *arguments, progress=progress, limits=limits)
        name = hashlib.sha256(pickle.dumps((question, _by_content(arguments)), protocol=5)).hexdigest()
        kept = self._folder / name
        if kept.exists():
            progress.at(1.0)
            return pickle.loads(kept.read_bytes())
        found = super().ask(question, *arguments, progress=progress, limits=limits)
        data = pickle.dumps(found, protocol=5)
        if len(data) < _MOST_BYTES:
            part = self._folder / f"{name}.{os.getpid()}.{id(data)}"
            part.write_bytes(data)
            part.replace(kept)
        return found
