"""The whole studio in one file: a zip whose layout is told in it, which reads back to equal values (`take_in`)."""

import json
import zipfile
from contextlib import closing
from pathlib import Path

from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.store.parts import Parts
from yarrow_lane.store.restore import FILE
from yarrow_lane.store.sql import connect_unchanging
from yarrow_lane.store.things import Brought, Things
from yarrow_lane.store.trouble import StoreTrouble, disk_trouble
from yarrow_lane.store.versions import Versions

README = """A Yarrow Lane studio in one file.

studio.db        everything on record, with all earlier versions (SQLite 3)
photos/          the photographs as they came, each named by the SHA-256 of its content
readable/        each commission as it stood, in JSON, for other programs and other years:
                   "parts"       what is decided in each room, lengths in mm, times with their zone
                   "happenings"  what happened, in order
                 Photographs are named in it by the same SHA-256.

Yarrow Lane reads studio.db and photos/; readable/ is written for people and is not read back.
"""


def write_bundle(copy: Path, photos: Things, target: Path, progress: Progress = SILENT) -> Brought:
    """Write the zip from a copy of the studio's file that nobody changes; tells what is in it.

    Written beside and renamed, then read again whole. Raises `StoreTrouble`, `Cancelled`.
    """
    beside = target.with_name(target.name + ".part")
    try:
        names = sorted(photos.names())
        damaged = 0
        with zipfile.ZipFile(beside, "w", zipfile.ZIP_STORED) as bundle:  # photographs do not get smaller
            bundle.writestr("README.txt", README)
            bundle.write(copy, FILE, zipfile.ZIP_DEFLATED)
            for document, text in _readable(copy).items():
                bundle.writestr(f"readable/{document}.json", text, zipfile.ZIP_DEFLATED)
            for number, name in enumerate(names):
                progress.at(0.7 * number / len(names))
                try:
                    bundle.writestr(f"photos/{name[:2]}/{name}", photos.read(name, name))
                except StoreTrouble:
                    damaged += 1  # the rest is wanted all the more
        with zipfile.ZipFile(beside) as bundle:
            for number, entry in enumerate(bundle.infolist()):
                progress.at(0.7 + 0.3 * number / len(bundle.infolist()))
                with bundle.open(entry) as stream:  # to its end: its checksum is compared there
                    while stream.read(1 << 20):
                        pass
        beside.replace(target)
    except (OSError, zipfile.BadZipFile) as error:
        beside.unlink(missing_ok=True)
        raise disk_trouble(error, target.parent) from error
    except BaseException:
        beside.unlink(missing_ok=True)
        raise
    return Brought(len(names) - damaged, damaged)


def _readable(copy: Path) -> dict[str, str]:
    with closing(connect_unchanging(copy)) as sql:
        parts = Parts(sql)
        versions = Versions(sql, parts)
        found = {}
        for document, head in versions.heads().items():
            told = {name: json.loads(parts.text(part)) for name, part in versions.parts(document, head).items()}
            rows = sql.execute("SELECT json FROM happening WHERE document = ? ORDER BY id", (document,)).fetchall()
            whole = {"id": document, "parts": told, "happenings": [json.loads(row[0]) for row in rows]}
            found[document] = json.dumps(whole, ensure_ascii=False, indent=1)
        return found
