"""What was kept elsewhere comes in: a file that “Save everything…” wrote, or a copy on a stick, each with its photographs.

It becomes one more copy of the studio, which is then restored like any other. Photographs are named by their content, so that those
of two studios never stand in each other's way.
"""

import re
import shutil
import zipfile
from collections.abc import Iterator
from datetime import datetime
from pathlib import Path

from yarrow_lane.store.codec import text_hash
from yarrow_lane.store.copies import PLACE, look_at
from yarrow_lane.store.restore import FILE
from yarrow_lane.store.things import Things
from yarrow_lane.store.trouble import StoreTrouble, disk_trouble

_PHOTO = re.compile(r"photos/[0-9a-f]{2}/([0-9a-f]{64})")
_MOST_PHOTO_BYTES = 300_000_000  # what arrivals take, see `intake.opening`
_MOST_FILE_BYTES = 4_000_000_000  # our choice: a studio's file is some MB


def take_in(source: Path, folder: Path, now: datetime) -> Iterator[float]:
    """Bring a saved studio or a copy in beside the copies of `folder`, in small steps that tell their share.

    Its copy is named by `taken_in_as`. Raises `StoreTrouble`, leaving no copy behind, when anything in it is not what was stored.
    """
    target = taken_in_as(source, folder, now)
    beside = target.with_name(target.name + ".part")
    what = f"“{source.name}” was not taken in"
    try:
        target.parent.mkdir(parents=True, exist_ok=True)
        if source.suffix == ".db":
            shutil.copyfile(source, beside)
            _refuse_unsound(beside, what)
            yield from _photographs_beside(source, Things(folder, "photos"))
        else:
            with zipfile.ZipFile(source) as bundle:
                _unpack_file(bundle, beside, what)
                _refuse_unsound(beside, what)
                yield from _unpacked_photographs(bundle, Things(folder, "photos"), what)
        beside.replace(target)
    # The zip library raises all of these for files that are none.
    except (zipfile.BadZipFile, RuntimeError, EOFError, ValueError) as error:
        raise StoreTrouble(what, "it is no saved studio, or damaged", "take another one") from error
    except FileNotFoundError as error:
        raise StoreTrouble(what, "it is not there any more", "look where it went") from error
    except OSError as error:
        raise disk_trouble(error, folder) from error
    finally:
        beside.unlink(missing_ok=True)


def taken_in_as(source: Path, folder: Path, now: datetime) -> Path:
    """The copy which that file becomes."""
    name = re.sub(r"[^\w .-]", "", source.stem)[:60]
    return folder / PLACE / f"from {name} {now:%Y-%m-%d %H.%M.%S}.db"


def _refuse_unsound(copy: Path, what: str) -> None:
    found = look_at(copy, whole=True)
    if not found.sound:
        raise StoreTrouble(what, f"the studio in it is damaged ({found.why})", "take another one")


def _photographs_beside(copy: Path, photos: Things) -> Iterator[float]:
    """Those of the folder a copy lies in; damaged ones stay away."""
    there = Things(copy.parent.parent, "photos")
    names = [name for name in there.names() if not photos.path(name).exists()]
    for number, name in enumerate(names):
        yield number / len(names)
        data = there.path(name).read_bytes()
        if text_hash(data) == name:
            photos.keep(data)


def _unpack_file(bundle: zipfile.ZipFile, target: Path, what: str) -> None:
    if FILE not in bundle.namelist():
        raise StoreTrouble(what, f"there is no {FILE} in it", "choose a file that “Save everything…” wrote")
    entry = bundle.getinfo(FILE)
    if entry.file_size > _MOST_FILE_BYTES:
        raise StoreTrouble(what, f"its {FILE} is larger than any studio", "take another one")
    with bundle.open(entry) as stream, target.open("wb") as out:
        shutil.copyfileobj(stream, out)


def _unpacked_photographs(bundle: zipfile.ZipFile, photos: Things, what: str) -> Iterator[float]:
    """Only what belongs to a studio is written, under names of our own: a name in the zip is never a path."""
    entries = [(found[1], e) for e in bundle.infolist() if (found := _PHOTO.fullmatch(e.filename))]
    for number, (name, entry) in enumerate(entries):
        yield number / len(entries)
        if entry.file_size > _MOST_PHOTO_BYTES:
            raise StoreTrouble(what, "a photograph in it is larger than any we take", "take another one")
        data = bundle.read(entry)
        if text_hash(data) != name:
            raise StoreTrouble(what, "a photograph in it is not what was stored", "take another one")
        photos.keep(data)
