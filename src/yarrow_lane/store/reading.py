"""Values out of the file: only what differs is read again, and what cannot be read says which copy has it."""

from collections import OrderedDict
from contextlib import closing
from pathlib import Path
from typing import Any

from yarrow_lane.commission.commission import PARTS, Commission
from yarrow_lane.commission.studio import STUDIO_PART, Studio
from yarrow_lane.store.codec import from_json, happening_from_json, is_current
from yarrow_lane.store.copies import copies_in
from yarrow_lane.store.database import Database
from yarrow_lane.store.parts import Parts
from yarrow_lane.store.schema import NEWEST, schema_number
from yarrow_lane.store.sql import connect_unchanging
from yarrow_lane.store.trouble import Damaged, StoreTrouble, file_damage
from yarrow_lane.store.versions import Versions

_KEPT = 400  # our choice: the parts of some thirty commissions


class Reader:
    """Reads documents; parts read lately keep their value, so that undo gives back the very same objects."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._kept: OrderedDict[tuple[str, int], Any] = OrderedDict()

    def studio(self, document: str, number: int | None = None) -> Studio:
        """The studio's settings at a version, else at its head. Raises `StoreTrouble`."""
        number = number if number is not None else self._database.head(document)
        assert number is not None
        texts = self._database.stored(document, number)
        if STUDIO_PART.name not in texts:
            raise file_damage(self._database.folder, "the studio's settings are gone")
        return from_json(STUDIO_PART, texts[STUDIO_PART.name])

    def commission(self, commission_id: str, number: int) -> Commission:
        """A commission at a version; raises `StoreTrouble` that says which daily copy still has it."""
        try:
            return self._read(commission_id, number)
        except StoreTrouble as trouble:
            copy = self._copy_with(commission_id)
            remedy = f"the copy {copy} still has it" if copy else "no copy has it"
            raise Damaged(f"The commission {commission_id} cannot be read: {trouble.what}", trouble.why, remedy) from trouble

    def _read(self, commission_id: str, number: int) -> Commission:
        parts = self._database.versions.parts(commission_id, number)
        unknown = set(parts) - {p.name for p in PARTS}
        if unknown:
            raise StoreTrouble(
                f"The part “{min(unknown)}” is not known",
                "a newer Yarrow Lane wrote it",
                "open the studio with that newer program",
            )
        texts: dict[str, str] = {}
        values: dict[str, Any] = {}
        for part in PARTS:
            if part.name not in parts:
                continue  # it did not exist when this version was made: it has its first state
            kept = self._kept.get((part.name, parts[part.name]))
            if kept is not None:
                values[part.name] = kept
            else:
                texts[part.name] = self._database.parts.text(parts[part.name])
        if any(not is_current(part, texts[part.name]) for part in PARTS if part.name in texts):
            texts = self._database.stored(commission_id, number)  # an upgrade may look into the parts beside it
        for part in PARTS:
            if part.name in texts and part.name not in values:
                values[part.name] = from_json(part, texts[part.name], texts)
                if is_current(part, texts[part.name]):
                    self._keep(part.name, parts[part.name], values[part.name])
        log = tuple(happening_from_json(t) for t in self._database.happenings(commission_id))
        return Commission(id=commission_id, log=log, **values)

    def stored(self, commission: Commission, number: int) -> None:
        """That commission was just stored as that version: whoever goes back to it gets these objects."""
        for name, part in self._database.versions.parts(commission.id, number).items():
            self._keep(name, part, getattr(commission, name))

    def _keep(self, name: str, part: int, value: Any) -> None:
        self._kept[name, part] = value
        self._kept.move_to_end((name, part))
        while len(self._kept) > _KEPT:
            self._kept.popitem(last=False)

    def _copy_with(self, commission_id: str) -> str:
        """The newest copy in which that commission can be read."""
        return next((p.name for p in copies_in(self._database.folder) if _readable_in(p, commission_id)), "")


def _readable_in(path: Path, commission_id: str) -> bool:
    try:
        with closing(connect_unchanging(path)) as copy:
            if schema_number(copy) != NEWEST:
                return False
            parts = Parts(copy)
            versions = Versions(copy, parts)
            head = versions.head(commission_id)
            if head is None:
                return False
            texts = {name: parts.text(found) for name, found in versions.parts(commission_id, head).items()}
            for part in PARTS:
                if part.name in texts:
                    from_json(part, texts[part.name], texts)
            return True
    except StoreTrouble:
        return False
