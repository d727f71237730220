"""A small file system is filled again and again while the studio works on it."""

import subprocess
import sys
from pathlib import Path

from bench.attacks.counts import Counts

# A studio opens on a disk with 20 MB free.
_MOUNTED = 'mount -t tmpfs -o size=26m none "$1" && shift && exec "$@"'


def can_mount(place: Path) -> bool:
    """Whether this machine lets us have a file system of our own (a user namespace, Linux)."""
    place.mkdir(parents=True, exist_ok=True)
    return subprocess.run(_command(place, ["true"]), capture_output=True).returncode == 0


def _command(place: Path, what: list[str]) -> list[str]:
    return ["unshare", "-rm", "sh", "-c", _MOUNTED, "sh", str(place), *what]


def attack(place: Path, count: int, seed: int) -> Counts:
    """Fill it `count` times; `said` counts what was said in words."""
    place.mkdir(parents=True, exist_ok=True)
    counts = Counts()
    script = [sys.executable, "-m", "bench.attacks.work_until_full", str(place), str(count), str(seed)]
    done = subprocess.run(_command(place, script), capture_output=True, text=True)
    for line in done.stdout.splitlines():
        said, _, bad = line.partition("\t")
        counts.tried += 1
        counts.said += int(said)
        counts.held += not bad
        where = f"filling {counts.tried} of seed {seed}: {bad}"
        (counts.tracebacks if bad.startswith("traceback") else counts.lost if bad.startswith("lost") else counts.unseen).append(
            where
        ) if bad else None
    if done.returncode:
        counts.tracebacks.append(done.stderr[-2000:])
    return counts
