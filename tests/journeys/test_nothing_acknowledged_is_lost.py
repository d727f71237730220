"""The process is killed 30 times at random moments; every acknowledged change is there after each restart."""

import random
import signal
import subprocess
import sys
import time
from datetime import date
from pathlib import Path

from yarrow_lane.intake.brief import BRIEF
from yarrow_lane.store.codec import from_json, text_hash
from yarrow_lane.store.store import Store

KILLS = 30


def run_and_kill(folder: Path, seconds: float) -> list[str]:
    """Acknowledged lines of one run that ends by SIGKILL."""
    script = Path(__file__).with_name("edits_until_killed.py")
    with subprocess.Popen([sys.executable, str(script), str(folder)], stdout=subprocess.PIPE, text=True) as process:
        assert process.stdout is not None and process.stdout.readline() == "ready\n"
        time.sleep(seconds)
        process.send_signal(signal.SIGKILL)
        rest = process.stdout.read()
    # The last line may be cut by the kill: it was not acknowledged in full.
    return [line for line in rest.splitlines(keepends=True) if line.endswith("\n")]


def test_thirty_kills(tmp_path):
    dice = random.Random(20260309)
    folder = tmp_path / "studio"
    edits, happened = 0, 0
    for _ in range(KILLS):
        lines = run_and_kill(folder, dice.uniform(0.0, 0.12))
        edits = max([edits, *(int(x.split()[1]) for x in lines if x.startswith("edit"))])
        happened = max([happened, *(int(x.split()[1]) for x in lines if x.startswith("happened"))])
        store = Store(folder, date(2026, 3, 9))
        db = store.database
        assert db.sound()
        head = db.head("c0001")
        brief = from_json(BRIEF, db.stored("c0001", head)["brief"])
        assert int(brief.wish or 0) >= edits
        assert len(db.happenings("c0001")) >= happened
        if brief.client:
            assert text_hash(store.photos.read(brief.client, "picture")) == brief.client
        for number in range(1, head + 1):
            assert db.version("c0001", number).number == number
        store.close()
    assert edits > KILLS, "the kills came before anything was written: the test proved nothing"
