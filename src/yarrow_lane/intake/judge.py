"""A process of its own that measures photographs.

Decoding and measuring hold Python's interpreter lock for tens of milliseconds at a time; in a thread they would stop
the interface as long. The process reads one request a line and writes one answer a line, both JSON, and ends with its
standard input.
"""

import json
import os
import select
import subprocess
import sys
from pathlib import Path
from typing import IO, Any

from pydantic import TypeAdapter

from yarrow_lane.intake.evidence import Evidence, measure_photo
from yarrow_lane.intake.opening import open_picture
from yarrow_lane.intake.photos import Eye
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.trouble import Trouble

EVIDENCE: TypeAdapter[Evidence] = TypeAdapter(Evidence)
_EYES: TypeAdapter[tuple[Eye, ...]] = TypeAdapter(tuple[Eye, ...])
_NICENESS = 10  # our choice: about a tenth of the interface's share while both want a core
_LOOK_S = 0.05  # our choice: how often it is asked whether the answer is still wanted


def measure_file(path: Path, name: str, eyes: tuple[Eye, ...], progress: Progress = SILENT) -> Evidence:
    """Open and measure one photograph here; raises `Trouble` when it cannot be opened."""
    return measure_photo(open_picture(path, name).picture, eyes, progress)


class Judge:
    """The handle of that process: started with the first photograph, started again if it ended."""

    def __init__(self) -> None:
        self._process: subprocess.Popen[bytes] | None = None
        self._number = 0
        self._rest = b""

    def measure(self, path: Path, name: str, eyes: tuple[Eye, ...], progress: Progress = SILENT) -> Evidence:
        """Measure one photograph; one caller at a time.

        Raises `Trouble` when it cannot be opened and `Cancelled` when it is no longer wanted. Where no process can be
        started or it ends in the middle, the photograph is measured here instead.
        """
        self._number += 1
        request = {"number": self._number, "path": str(path), "name": name, "eyes": _EYES.dump_python(eyes, mode="json")}
        try:
            self._send(json.dumps(request).encode() + b"\n")
            answer = self._answer(progress)
        except (OSError, EOFError, ValueError):
            self.close()
            return measure_file(path, name, eyes, progress)
        if "trouble" in answer:
            raise Trouble(*answer["trouble"])
        return EVIDENCE.validate_python(answer["evidence"])

    def _send(self, line: bytes) -> None:
        if self._process is None or self._process.poll() is not None:
            self.close()
            self._process = subprocess.Popen(
                [sys.executable, "-m", "yarrow_lane.intake.judge"], stdin=subprocess.PIPE, stdout=subprocess.PIPE
            )
        assert self._process.stdin is not None
        self._process.stdin.write(line)
        self._process.stdin.flush()

    def _answer(self, progress: Progress) -> dict[str, Any]:
        """Wait for the answer to the newest request; answers to those that were given up are passed over."""
        assert self._process is not None and self._process.stdout is not None
        handle = self._process.stdout.fileno()
        while True:
            progress.at(0.5)
            while b"\n" in self._rest:
                line, self._rest = self._rest.split(b"\n", 1)
                answer: dict[str, Any] = json.loads(line)
                if answer["number"] == self._number:
                    return answer
            ready, _, _ = select.select([handle], [], [], _LOOK_S)
            if ready:
                piece = os.read(handle, 65536)
                if not piece:
                    raise EOFError
                self._rest += piece

    def close(self) -> None:
        """End the process; the next photograph starts another."""
        process, self._process, self._rest = self._process, None, b""
        if process is not None:
            for stream in (process.stdin, process.stdout):
                if stream is not None:
                    try:
                        stream.close()
                    except BrokenPipeError:
                        continue  # it had ended by itself
            process.kill()
            process.wait()


def answer_all(requests: IO[str], answers: IO[str]) -> None:
    """Answer each request line until there are no more."""
    for line in requests:
        request = json.loads(line)
        answer: dict[str, object] = {"number": request["number"]}
        try:
            found = measure_file(Path(request["path"]), request["name"], _EYES.validate_python(request["eyes"]))
            answer["evidence"] = EVIDENCE.dump_python(found, mode="json")
        except Trouble as trouble:
            answer["trouble"] = [trouble.what, trouble.why, trouble.remedy]
        answers.write(json.dumps(answer) + "\n")
        answers.flush()


if __name__ == "__main__":
    if sys.platform.startswith("linux"):
        os.nice(_NICENESS)
    answer_all(sys.stdin, sys.stdout)
