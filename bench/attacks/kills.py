"""The process is killed in the middle of edits and arrivals; what it had acknowledged is there after each restart."""

import random
import signal
import subprocess
import sys
import time
from datetime import date
from pathlib import Path

from bench.attacks.counts import Counts
from yarrow_lane.intake.brief import BRIEF
from yarrow_lane.intake.photos import INTAKE
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.store.codec import from_json
from yarrow_lane.store.copies import copies_in, look_at
from yarrow_lane.store.store import Store

_LOOKED_AT, _COPIES_LOOKED_AT = 40, 3  # after each kill; the older ones were looked at after earlier kills


def attack(folder: Path, count: int, seed: int) -> Counts:
    """Kill `count` processes that work on the same studio one after the other. `held` counts the acknowledged steps."""
    dice, counts = random.Random(seed), Counts()
    edits, happened = 0, 0
    photos: set[str] = set()
    for number in range(count):
        counts.tried += 1
        lines = [line.split() for line in _run_and_kill(folder, dice.randint(0, 16), dice.uniform(0.0, 0.02))]
        counts.held += len(lines)
        edits = max([edits, *(int(n) for what, n in lines if what == "edit")])
        happened = max([happened, *(int(n) for what, n in lines if what == "happened")])
        photos |= {n for what, n in lines if what == "photo"}
        try:
            counts.lost += [f"kill {number}: {words}" for words in _missing(folder, edits, happened, photos)]
        except Trouble as trouble:
            counts.lost.append(f"kill {number}: {trouble.sentence}")
    return counts


def _run_and_kill(folder: Path, steps: int, seconds: float) -> list[str]:
    """Acknowledged lines of one run that ends by SIGKILL, some moments after so many of them: on a busy machine too."""
    command = [sys.executable, "-m", "bench.attacks.work_until_killed", str(folder)]
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as process:
        assert process.stdout is not None and process.stdout.readline() == "ready\n"
        first = [process.stdout.readline() for _ in range(steps)]
        time.sleep(seconds)
        process.send_signal(signal.SIGKILL)
        rest = process.stdout.read()
    # The last line may be cut by the kill: it was not acknowledged in full.
    return [line for line in (*first, *rest.splitlines(keepends=True)) if line.endswith("\n")]


def _missing(folder: Path, edits: int, happened: int, photos: set[str]) -> list[str]:
    """What was acknowledged and is not there, in words."""
    store = Store(folder, date(2026, 3, 9))
    try:
        database = store.database
        head = database.head("c0001") or 0
        stored = database.stored("c0001", head)
        wish = int(from_json(BRIEF, stored["brief"]).wish or 0)
        there = {p.id for p in from_json(INTAKE, stored["intake"], stored).photos}
        found = ["the file is not sound"] if not database.sound() else []
        found += [f"edit {edits} is gone, {wish} is there"] if wish < edits else []
        log = len(database.happenings("c0001"))
        found += [f"happening {happened} is gone, {log} are there"] if log < happened else []
        found += [f"photograph {p} is not on record" for p in photos - there]
        for photo in sorted(photos & there)[:_LOOKED_AT]:
            store.photos.read(photo, photo)
        for version in database.versions.versions("c0001")[-_LOOKED_AT:]:
            database.stored("c0001", version.number)
        found += [
            f"the copy {p.name} is not sound" for p in copies_in(folder)[:_COPIES_LOOKED_AT] if not look_at(p, whole=True).sound
        ]
        return found
    finally:
        store.close()
