"""What was measured of each photograph, kept beside the commissions, so that shelf, rooms and letter say the same."""

from collections.abc import Iterable
from hashlib import sha256
from itertools import islice

from yarrow_lane.intake.evidence import VERSION, Evidence
from yarrow_lane.intake.photos import Eye, Photo
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.store.codec import from_plain_json, to_plain_json
from yarrow_lane.store.database import Database

Marked = tuple[str, tuple[Eye, ...]]  # a photograph and its marks


class EvidenceKept:
    """Measures by photograph, for its marks as they are now and this program's way of measuring; others count as none."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._known: dict[Marked, Evidence | None] = {}
        self._unsaved: set[Marked] = set()

    def of(self, photo: Photo) -> Evidence | None:
        """What is known of a photograph; None when it is still to be measured. Raises `StoreTrouble`."""
        marked = (photo.id, photo.eyes)
        if marked not in self._known:
            self._known[marked] = self._read(*marked)
        return self._known[marked]

    def of_all(self, photos: Iterable[Photo]) -> dict[str, Evidence]:
        """By photograph id, those that are known."""
        found = ((p.id, self.of(p)) for p in photos)
        return {photo_id: evidence for photo_id, evidence in found if evidence is not None}

    def keep(self, marked: Marked, evidence: Evidence) -> None:
        """It was measured with these marks; it is on the disk with the next `save`, since it can be measured again any time."""
        self._known[marked] = evidence
        self._unsaved.add(marked)

    def save(self, most: int | None = None) -> bool:
        """Keep what was measured, at most so many, beside the commissions; whether there were any. Raises `StoreTrouble`."""
        some = list(islice(self._unsaved, most))
        if some:
            known = ((marked, self._known[marked]) for marked in some)
            self._database.keep_measures((m[0], _key_of(m[1]), to_plain_json(e)) for m, e in known)
            self._unsaved.difference_update(some)
        return bool(some)

    def _read(self, photo_id: str, eyes: tuple[Eye, ...]) -> Evidence | None:
        stored = self._database.measure(photo_id)
        if stored is None or stored[0] != _key_of(eyes):
            return None
        try:
            return from_plain_json(Evidence, stored[1])
        except Trouble:
            return None  # damaged, or of another program: it is measured anew


def _key_of(eyes: tuple[Eye, ...]) -> str:
    """Names marks and the way of measuring."""
    marks = repr([(e.side, e.x, e.y, e.radius_px) for e in eyes])
    return f"{VERSION} {sha256(marks.encode()).hexdigest()[:16]}"
