"""Run by the kill attack: edits, arrivals, happenings, steps back and copies without end; each is printed once it is acknowledged."""

import random
import sys
from dataclasses import replace
from datetime import UTC, datetime
from pathlib import Path

from bench.attacks.small_pictures import picture
from yarrow_lane.desk.desk import Desk
from yarrow_lane.desk.photographs import Photographs
from yarrow_lane.intake.arriving import arrive
from yarrow_lane.intake.brief import BRIEF, new_brief
from yarrow_lane.intake.photos import INTAKE, add_photos
from yarrow_lane.lane.happening import HoursCorrected
from yarrow_lane.lane.part import Edit
from yarrow_lane.store.store import Store


def main(folder: Path) -> None:
    clock = lambda: datetime.now(UTC)  # noqa: E731
    desk = Desk(Store(folder, clock().date()), clock)
    if not desk.studio.on_shelf:
        desk.start_commission(new_brief("Pip", "cat", "", "acrylic", clock().date(), None))
    cid = desk.studio.on_shelf[0]
    photographs = Photographs(desk.store.photos, arrive)
    dice = random.Random()
    number = int(desk.commission(cid).brief.wish or 0)
    print("ready", flush=True)
    while True:
        number += 1
        desk.do(cid, Edit(BRIEF, f"edit {number}", lambda b, n=number: replace(b, wish=str(n))))
        print(f"edit {number}", flush=True)
        match dice.randrange(8):
            case 0 | 1 | 2:
                photo = photographs.photo_from_file(picture(number), f"{number}.jpg")
                desk.do(cid, Edit(INTAKE, "Took it in", lambda i, p=photo: add_photos(i, (p,))))
                print(f"photo {photo.id}", flush=True)
            case 3:
                happened = len(desk.commission(cid).log) + 1
                desk.happen(cid, HoursCorrected(clock(), "1:wash", "wash", 1.0))
                print(f"happened {happened}", flush=True)
            case 4:
                desk.store.database.backup(f"2026-03-{dice.randint(1, 28):02}")
            case 5:
                for _, _step in zip(range(dice.randint(1, 20)), desk.tidy(), strict=False):
                    pass
            case 6:
                desk.do(cid, Edit(BRIEF, "Budget", lambda b, n=number: replace(b, budget=str(n))))
                desk.undo(cid)


main(Path(sys.argv[1]))
