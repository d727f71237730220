"""Run on a small file system by the filling attack: works until the disk is full, frees it, and looks whether anything is lost."""

import os
import random
import shutil
import sys
import traceback
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from pathlib import Path

from bench.attacks.small_pictures import picture
from yarrow_lane.demo.scene import SetClock
from yarrow_lane.desk.desk import Desk
from yarrow_lane.desk.photographs import Photographs
from yarrow_lane.intake.arriving import arrive
from yarrow_lane.intake.brief import BRIEF, new_brief
from yarrow_lane.intake.photos import INTAKE, add_photos
from yarrow_lane.lane.happening import HoursCorrected
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.store.store import Store

NOW = datetime(2026, 3, 9, 12, 0, tzinfo=UTC)
_STEPS = 400


def step(desk: Desk, cid: str, photographs: Photographs, dice: random.Random, number: int) -> None:
    """One thing the painter does."""
    match dice.randrange(6):
        case 0 | 1:
            desk.do(
                cid, Edit(BRIEF, f"edit {number}", lambda b: replace(b, wish=f"{number} " + "word " * dice.randrange(2000)))
            )
        case 2 | 3:
            photo = photographs.photo_from_file(picture(number), f"{number}.jpg")
            desk.do(cid, Edit(INTAKE, "Took it in", lambda i: add_photos(i, (photo,))))
        case 4:
            desk.happen(cid, HoursCorrected(desk.clock(), "1:wash", "wash", 1.0))
        case 5:
            desk.store.database.daily_copy((NOW + timedelta(days=number)).date())
            for _ in desk.tidy():
                pass


def main(disk: Path, count: int, seed: int) -> None:
    """Prints one line a filling: how often it was said, and what should never be."""
    dice, clock = random.Random(seed), SetClock(NOW)
    folder, ballast = disk / "studio", disk / "ballast"
    desk = Desk(Store(folder, NOW.date()), clock)
    cid = desk.start_commission(new_brief("Pip", "cat", "", "acrylic", NOW.date(), None))
    photographs = Photographs(desk.store.photos, arrive)
    number = 0
    for _ in range(count):
        left = dice.randrange(0, 400_000)
        ballast.write_bytes(b"")
        try:
            with ballast.open("wb") as stream:
                stream.write(bytes(max(0, shutil.disk_usage(disk).free - left)))
                os.fsync(stream.fileno())
        except OSError:
            pass
        said, bad = 0, ""
        for _ in range(_STEPS):
            number += 1
            held = desk.commission(cid)
            try:
                step(desk, cid, photographs, dice, number)
            except Trouble:
                said += 1
                if desk.commission(cid) != held:
                    bad = "a step that failed is shown"
                if said > 3:
                    break
            except Exception:
                bad = "traceback: " + traceback.format_exc().replace("\n", " | ")
                break
        ballast.unlink()
        try:
            again = Desk(desk.store, clock).commission(cid)
            if again != desk.commission(cid):
                bad = bad or "lost: what is shown is not on record"
            for photo in again.intake.photos:
                desk.store.photos.read(photo.id, photo.name)
            if not desk.store.database.sound():
                bad = bad or "lost: the file is not sound"
            desk.do(cid, Edit(BRIEF, "room again", lambda b, n=number: replace(b, wish=f"room again {n}")))
        except Trouble as trouble:
            bad = bad or f"lost: {trouble.sentence}"
        print(f"{said}\t{bad}", flush=True)
    desk.store.close()


main(Path(sys.argv[1]), int(sys.argv[2]), int(sys.argv[3]))
