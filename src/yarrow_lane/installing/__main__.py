"""python -m yarrow_lane.installing put-in PROGRAM | take-out: what scripts/install calls."""

import argparse
import os
import sys
from pathlib import Path

from yarrow_lane.installing.entries import Places, put_in, take_out
from yarrow_lane.measure.trouble import Trouble


def data_home() -> Path:
    """Where a user's data lives (XDG Base Directory Specification: a relative path counts as none)."""
    told = Path(os.environ.get("XDG_DATA_HOME", ""))
    return told if told.is_absolute() else Path.home() / ".local" / "share"


def main(arguments: list[str] | None = None) -> int:
    """Returns the exit code."""
    parser = argparse.ArgumentParser(prog="yarrow_lane.installing")
    parser.add_argument("what", choices=("put-in", "take-out"))
    parser.add_argument("program", nargs="?", type=Path)
    told = parser.parse_args(arguments)
    if told.what == "put-in" and told.program is None:
        parser.error("which program is to be started?")
    try:
        done = put_in(Places(data_home(), told.program)) if told.what == "put-in" else take_out(data_home())
    except Trouble as trouble:
        print(trouble.sentence, file=sys.stderr)
        return 1
    for path in done:
        print(path)
    return 0


if __name__ == "__main__":
    sys.exit(main())
