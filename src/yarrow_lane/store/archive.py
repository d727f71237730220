"""One commission as an open bundle: a zip with JSON after a published schema, the pictures as they came, and the papers as PDF.

The form is told in `docs/formats.md`; the bundle carries its own schema. Pictures are copied piece by piece, so that the largest
archive needs little memory, and the whole is read again before it takes its name.
"""

import hashlib
import json
import zipfile
from collections.abc import Iterable
from dataclasses import dataclass, field
from importlib import resources
from pathlib import Path
from typing import Any

from yarrow_lane.commission.commission import PARTS, Commission
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.store.codec import from_json, happening_from_json, happening_to_json, to_json
from yarrow_lane.store.references import names_in
from yarrow_lane.store.things import Things
from yarrow_lane.store.trouble import StoreTrouble, disk_trouble

FORM = "yarrow-lane commission"
FORM_VERSION = 1
_PIECE = 1 << 20
_README = """One commission of a Yarrow Lane studio.

commission.json   everything on record: "parts" as decided in each room (lengths in mm, moments with their zone, money in whole smallest
                  units), "happenings" in order, "pictures" with their names; after schema.json (JSON Schema 2020-12)
pictures/         photographs as they came, each named by the SHA-256 of its content
papers/           what was written for the client, as PDF
"""


@dataclass(frozen=True)
class Archived:
    """What an archive holds: the commission, its pictures (SHA-256: bytes), the names of its papers, and what was missing."""

    commission: Commission
    pictures: dict[str, int]
    papers: tuple[str, ...]
    missing: tuple[str, ...] = field(default=())


def schema() -> dict[str, Any]:
    """The published schema of `commission.json`."""
    text = resources.files("yarrow_lane").joinpath("store", "commission-archive.schema.json").read_text()
    found: dict[str, Any] = json.loads(text)
    return found


def told(c: Commission, pictures: dict[str, int], missing: Iterable[str] = ()) -> dict[str, Any]:
    """The commission as `commission.json` has it."""
    return {
        "form": FORM,
        "version": FORM_VERSION,
        "id": c.id,
        "parts": {part.name: json.loads(to_json(part, getattr(c, part.name))) for part in PARTS},
        "happenings": [json.loads(happening_to_json(h)) for h in c.log],
        "pictures": [{"sha256": name, "bytes": size} for name, size in sorted(pictures.items())],
        "missing": sorted(missing),
    }


def pictures_of(c: Commission, photos: Things) -> tuple[dict[str, int], tuple[str, ...]]:
    """Pictures the commission names with their sizes, and those that are not there."""
    names = set().union(
        *(names_in(to_json(p, getattr(c, p.name))) for p in PARTS), *(names_in(happening_to_json(h)) for h in c.log)
    )
    found: dict[str, int] = {}
    missing = []
    for name in sorted(names):
        path = photos.path(name)
        if path.exists():
            found[name] = path.stat().st_size
        elif any(name == p.id for p in c.intake.photos):
            missing.append(name)  # other words of 64 digits are keys of things worked out
    return found, tuple(missing)


def write_archive(
    c: Commission, photos: Things, papers: dict[str, bytes], target: Path, progress: Progress = SILENT
) -> Archived:
    """Write the bundle beside, read it again whole, compare, and give it its name. Raises `StoreTrouble`, `Cancelled`."""
    beside = target.with_name(target.name + ".part")
    try:
        pictures, missing = pictures_of(c, photos)
        whole, done = sum(pictures.values()) or 1, 0
        with zipfile.ZipFile(beside, "w", zipfile.ZIP_STORED) as bundle:
            bundle.writestr("README.txt", _README)
            bundle.writestr("schema.json", json.dumps(schema(), indent=1), zipfile.ZIP_DEFLATED)
            text = json.dumps(told(c, pictures, missing), ensure_ascii=False, indent=1)
            bundle.writestr("commission.json", text, zipfile.ZIP_DEFLATED)
            for name, data in papers.items():
                bundle.writestr(f"papers/{name}", data, zipfile.ZIP_DEFLATED)
            for name, size in pictures.items():
                with (
                    photos.path(name).open("rb") as source,
                    bundle.open(f"pictures/{name}", "w", force_zip64=size > 2**31) as into,
                ):
                    while piece := source.read(_PIECE):
                        into.write(piece)
                        done += len(piece)
                        progress.at(0.5 * done / whole)
        read = read_archive(beside, progress)
        if read.commission != c or read.commission.log != c.log or read.pictures != pictures:
            raise StoreTrouble(
                f"“{target.name}” was not written", "it does not read back as it was meant", "try another folder"
            )
        beside.replace(target)
        return read
    except OSError as error:
        raise disk_trouble(error, target.parent) from error
    finally:
        beside.unlink(missing_ok=True)


def read_archive(source: Path, progress: Progress = SILENT) -> Archived:
    """The commission again; every picture is compared with its name. Raises `StoreTrouble` that says what is wrong with the file."""
    what = f"The archive “{source.name}” cannot be read"
    try:
        with zipfile.ZipFile(source) as bundle:
            plain = json.loads(bundle.read("commission.json"))
            if plain.get("form") != FORM:
                raise StoreTrouble(what, "it is no archive of a commission", "choose another file")
            if plain.get("version", 0) > FORM_VERSION:
                raise StoreTrouble(what, "a newer Yarrow Lane wrote it", "open it with that newer program")
            pictures = {p["sha256"]: int(p["bytes"]) for p in plain["pictures"]}
            _compare(bundle, pictures, what, progress)
            texts = {name: json.dumps(part) for name, part in plain["parts"].items()}
            values = {part.name: from_json(part, texts[part.name], texts) for part in PARTS if part.name in texts}
            log = tuple(happening_from_json(json.dumps(h)) for h in plain["happenings"])
            papers = tuple(n.removeprefix("papers/") for n in bundle.namelist() if n.startswith("papers/"))
            return Archived(Commission(id=plain["id"], log=log, **values), pictures, papers, tuple(plain["missing"]))
    except (zipfile.BadZipFile, KeyError, TypeError, ValueError, AttributeError, EOFError) as error:
        raise StoreTrouble(what, f"it is damaged or no archive ({type(error).__name__})", "choose another file") from error
    except OSError as error:
        raise disk_trouble(error, source.parent) from error


def _compare(bundle: zipfile.ZipFile, pictures: dict[str, int], what: str, progress: Progress) -> None:
    whole, done = sum(pictures.values()) or 1, 0
    for name, size in pictures.items():
        digest, read = hashlib.sha256(), 0
        with bundle.open(f"pictures/{name}") as stream:
            while piece := stream.read(_PIECE):
                digest.update(piece)
                read += len(piece)
                progress.at(0.5 + 0.5 * (done + read) / whole)
        if digest.hexdigest() != name or read != size:
            raise StoreTrouble(what, f"its picture {name[:8]} is not what was put in", "use another copy of the archive")
        done += size
