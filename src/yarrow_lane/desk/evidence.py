"""What was measured of each photograph, kept beside the commissions, so that shelf, rooms and letter say the same."""

from collections.abc import Iterable
from dataclasses import asdict
from hashlib import sha256

from yarrow_lane.intake.evidence import VERSION, Evidence
from yarrow_lane.intake.photos import Eye, Photo
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.store.codec import from_plain_json, to_plain_json
from yarrow_lane.store.database import Database


class EvidenceKept:
    """Measures by photograph, for its marks as they are now and this program's way of measuring; others count as none."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._known: dict[tuple[str, str], Evidence | None] = {}

    def of(self, photo: Photo) -> Evidence | None:
        """What is known of a photograph; None when it is still to be measured. Raises `StoreTrouble`."""
        key = (photo.id, key_of(photo.eyes))
        if key not in self._known:
            self._known[key] = self._read(*key)
        return self._known[key]

    def of_all(self, photos: Iterable[Photo]) -> dict[str, Evidence]:
        """By photograph id, those that are known."""
        found = ((p.id, self.of(p)) for p in photos)
        return {photo_id: evidence for photo_id, evidence in found if evidence is not None}

    def keep(self, photo_id: str, eyes: tuple[Eye, ...], evidence: Evidence) -> None:
        """It was measured with these marks. Raises `StoreTrouble`."""
        key = key_of(eyes)
        self._database.keep_measure(photo_id, key, to_plain_json(evidence))
        self._known[photo_id, key] = evidence

    def _read(self, photo_id: str, key: str) -> Evidence | None:
        stored = self._database.measure(photo_id)
        if stored is None or stored[0] != key:
            return None
        try:
            return from_plain_json(Evidence, stored[1])
        except Trouble:
            return None  # damaged, or of another program: it is measured anew


def key_of(eyes: tuple[Eye, ...]) -> str:
    """Names marks and the way of measuring."""
    marks = repr([sorted(asdict(eye).items()) for eye in eyes])
    return f"{VERSION} {sha256(marks.encode()).hexdigest()[:16]}"
