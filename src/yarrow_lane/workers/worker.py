"""The process that answers: one question after the other, until the window goes."""

import importlib
import resource
import select
import socket
import sys
import time
from pathlib import Path
from typing import Any

from yarrow_lane.measure.faults import places_of
from yarrow_lane.measure.progress import Cancelled, Progress
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.workers.wire import Wire

_TOLD_EVERY_S = 0.1  # our choice: more would only keep the window busy
_HOME = "yarrow_lane."


def function_of(question: str) -> Any:
    """ "layers.flow:flow" names a function of this program, nothing else."""
    module, _, name = question.partition(":")
    return getattr(importlib.import_module(_HOME + module), name)


def _limit_memory(more_bytes: int) -> None:
    """From here on the process may take so much more than it has."""
    now = int(Path("/proc/self/statm").read_bytes().split()[0]) * resource.getpagesize()
    _, hard = resource.getrlimit(resource.RLIMIT_AS)
    resource.setrlimit(resource.RLIMIT_AS, (now + more_bytes, hard))


def _progress(wire: Wire) -> Progress:
    told = time.monotonic()

    def tell(share: float) -> None:
        nonlocal told
        if time.monotonic() - told > _TOLD_EVERY_S:
            told = time.monotonic()
            wire.send(("share", share))

    # Whatever comes while a question is being answered means that the answer is no longer wanted.
    return Progress(tell, lambda: bool(select.select([wire], [], [], 0)[0]))


def answer(question: str, arguments: tuple[Any, ...], progress: Progress) -> tuple[str, Any]:
    """What the question comes to: an answer, trouble in words, that it was stopped, or a fault of ours."""
    try:
        return "answer", function_of(question)(*arguments, progress=progress)
    except Cancelled:
        return "stopped", None
    except Trouble as trouble:
        return "trouble", (trouble.what, trouble.why, trouble.remedy)
    except MemoryError:
        return "memory", None
    except Exception as error:  # whatever went wrong must reach the person, not vanish in a process
        # OpenCV says that memory ran out with an error of its own.
        said = "memory" if "Insufficient memory" in str(error) else "fault"
        return said, places_of(error)


def main(file: int) -> None:
    """Serve until the other end goes."""
    wire = Wire(socket.socket(fileno=file))
    while True:
        try:
            select.select([wire], [], [])  # idle for as long as the window lives: when it goes, this ends too
            message = wire.receive()
            if message[0] == "stop":
                continue  # it came after the answer had gone
            _, question, arguments, memory_bytes, number = message
            _limit_memory(memory_bytes)
            found = answer(question, arguments, _progress(wire))
            resource.setrlimit(resource.RLIMIT_AS, (resource.getrlimit(resource.RLIMIT_AS)[1],) * 2)
            wire.send((*found, number))
        except (EOFError, OSError):
            return


if __name__ == "__main__":
    main(int(sys.argv[1]))
