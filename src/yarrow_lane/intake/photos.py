"""The photographs of a commission: marks, use and rights."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import datetime
from functools import lru_cache
from typing import Literal

from yarrow_lane.intake.copies import same_shot, shot_groups
from yarrow_lane.intake.landmarks import Landmark
from yarrow_lane.intake.opening import PictureFacts
from yarrow_lane.intake.rights import Rights
from yarrow_lane.lane.part import Part, Plain, as_it_was
from yarrow_lane.measure.trouble import Trouble

Use = Literal["undecided", "lead", "helper", "set aside"]
USES: tuple[Use, ...] = ("undecided", "lead", "helper", "set aside")
Side = Literal["left", "right"]


class PhotoTrouble(Trouble):
    """A photograph or mark that is not there."""


@dataclass(frozen=True)
class Eye:
    """An iris as a circle on the photograph (upright px); `side` as the viewer sees it."""

    side: Side
    x: float
    y: float
    radius_px: float

    @property
    def across_px(self) -> float:
        return 2 * self.radius_px


@dataclass(frozen=True)
class Photo:
    """One photograph; `id` is the hash of its content, sizes are upright px, `remark` what was odd about the file.

    `shot` is a hash by which copies of one shot are recognised, `sitter_id` 0 for all sitters,
    `answers` the number of the photo request that brought it, 0 for none. `no_eyes`: the painter says that none is seen on it, as from
    behind or asleep.
    """

    id: str
    name: str
    width_px: int
    height_px: int
    taken: datetime | None = None
    focal_mm: float | None = None
    focal_35_mm: float | None = None
    eyes: tuple[Eye, ...] = ()
    use: Use = "undecided"
    rights: Rights = Rights()
    remark: str = ""
    sitter_id: int = 0
    helps_with: str = ""
    shot: str = ""
    landmarks: tuple[Landmark, ...] = ()
    answers: int = 0
    no_eyes: bool = False

    def eye(self, side: Side) -> Eye | None:
        return next((e for e in self.eyes if e.side == side), None)

    @property
    def wants_eyes(self) -> bool:
        """Whether eyes are still to be marked."""
        return not self.eyes and not self.no_eyes

    @property
    def iris_px(self) -> float | None:
        """Pixels across the larger marked iris: the nearer eye carries the painting."""
        return max((e.across_px for e in self.eyes), default=None)


@dataclass(frozen=True)
class Intake:
    """All photographs, in the order they came."""

    photos: tuple[Photo, ...] = ()

    def photo(self, photo_id: str) -> Photo:
        """Raises `PhotoTrouble` when it is not among them."""
        for photo in self.photos:
            if photo.id == photo_id:
                return photo
        raise PhotoTrouble("That photograph is not on this commission", "it was taken away", "choose another")

    @property
    def leads(self) -> tuple[Photo, ...]:
        return tuple(p for p in self.photos if p.use == "lead")

    @property
    def kept(self) -> tuple[Photo, ...]:
        """Those the painting is made from: leads and helpers."""
        return tuple(p for p in self.photos if p.use in ("lead", "helper"))


def _letters_left(plain: Plain, _: Mapping[str, Plain]) -> Plain:
    """Letters were sent, which cannot be undone: the store moves them to what happened (`store/schema.py`)."""
    return {name: value for name, value in plain.items() if name != "requests"}


# Version 2 knows photographs on which no eye is seen.
INTAKE = Part("intake", Intake, "Intake", (_letters_left, as_it_was))


def photo_from(photo_id: str, name: str, facts: PictureFacts, shot: str = "", answers: int = 0) -> Photo:
    """A photograph as it arrives, nothing judged yet."""
    return Photo(
        photo_id,
        name,
        facts.width_px,
        facts.height_px,
        facts.taken,
        facts.focal_mm,
        facts.focal_35_mm,
        remark=facts.remark,
        shot=shot,
        answers=answers,
    )


def add_photos(intake: Intake, photos: tuple[Photo, ...]) -> Intake:
    """Take several in at once; those that are there already are passed over."""
    taken: dict[str, Photo] = {}
    for photo in (*intake.photos, *photos):
        taken.setdefault(photo.id, photo)
    return replace(intake, photos=tuple(taken.values()))


def add_photo(intake: Intake, photo: Photo) -> Intake:
    """Take a photograph in; raises `PhotoTrouble` when the same one is there already."""
    for there in intake.photos:
        if there.id == photo.id:
            raise PhotoTrouble(f"“{photo.name}” was not taken in again", f"it is the same picture as “{there.name}”")
    return replace(intake, photos=(*intake.photos, photo))


def change_photo(intake: Intake, photo: Photo) -> Intake:
    """That photograph written anew, by its id; raises `PhotoTrouble` when it is not there."""
    intake.photo(photo.id)
    return replace(intake, photos=tuple(photo if p.id == photo.id else p for p in intake.photos))


def take_away(intake: Intake, photo_id: str) -> Intake:
    """The photograph leaves the commission (its file stays in the studio, so this can be undone)."""
    intake.photo(photo_id)
    return replace(intake, photos=tuple(p for p in intake.photos if p.id != photo_id))


def mark_eye(intake: Intake, photo_id: str, eye: Eye) -> Intake:
    """Put the iris circle of one side; raises `PhotoTrouble` for a circle off the picture or of no size."""
    photo = intake.photo(photo_id)
    if not (0 <= eye.x <= photo.width_px and 0 <= eye.y <= photo.height_px):
        raise PhotoTrouble("The eye was not marked", "the circle lies beside the photograph", "drag across the iris itself")
    if eye.radius_px < 1:
        raise PhotoTrouble("The eye was not marked", "the circle has no size", "drag from one rim of the iris to the other")
    others = tuple(e for e in photo.eyes if e.side != eye.side)
    return change_photo(intake, replace(photo, eyes=tuple(sorted((*others, eye), key=lambda e: e.side)), no_eyes=False))


def nudge_eye(intake: Intake, photo_id: str, side: Side, dx: float, dy: float, grow: float = 0.0) -> Intake:
    """Move an iris circle by px, or make it larger; raises `PhotoTrouble` when it is not marked or leaves the picture."""
    eye = intake.photo(photo_id).eye(side)
    if eye is None:
        raise PhotoTrouble("The eye was not moved", f"the {side} eye is not marked", "drag across its iris first")
    return mark_eye(intake, photo_id, Eye(side, eye.x + dx, eye.y + dy, eye.radius_px + grow))


def mark_landmark(intake: Intake, photo_id: str, mark: Landmark) -> Intake:
    """Put a named point; raises `PhotoTrouble` beside the photograph."""
    photo = intake.photo(photo_id)
    if not (0 <= mark.x <= photo.width_px and 0 <= mark.y <= photo.height_px):
        raise PhotoTrouble(f"The {mark.name} was not marked", "the point lies beside the photograph")
    others = tuple(m for m in photo.landmarks if m.name != mark.name)
    return change_photo(intake, replace(photo, landmarks=(*others, mark)))


def nudge_landmark(intake: Intake, photo_id: str, name: str, dx: float, dy: float) -> Intake:
    """Move a named point by px; raises `PhotoTrouble` when it is not marked or leaves the picture."""
    mark = next((m for m in intake.photo(photo_id).landmarks if m.name == name), None)
    if mark is None:
        raise PhotoTrouble(f"The {name} was not moved", "it is not marked", "click it first")
    return mark_landmark(intake, photo_id, Landmark(name, mark.x + dx, mark.y + dy))


@lru_cache(maxsize=8)
def _groups(shots: tuple[str, ...]) -> tuple[int, ...]:
    return shot_groups(shots)


def grouped(intake: Intake) -> dict[str, str]:
    """For each photograph the id of the first that came of its shot, copies in other sizes being one shot."""
    groups = _groups(tuple(p.shot for p in intake.photos))
    return {photo.id: intake.photos[group].id for group, photo in zip(groups, intake.photos, strict=True)}


def same_shots(intake: Intake, photo: Photo) -> tuple[Photo, ...]:
    """Other copies of the same shot, the largest first."""
    copies = (p for p in intake.photos if p.id != photo.id and same_shot(p.shot, photo.shot))
    return tuple(sorted(copies, key=lambda p: -p.width_px * p.height_px))


def clear_marks(intake: Intake, photo_id: str) -> Intake:
    """Take eyes and landmarks off."""
    return change_photo(intake, replace(intake.photo(photo_id), eyes=(), landmarks=()))


def set_use(intake: Intake, photo_id: str, use: Use) -> Intake:
    """Lead, helper or set aside: the painter's own choice."""
    return change_photo(intake, replace(intake.photo(photo_id), use=use))


def set_rights(intake: Intake, photo_id: str, rights: Rights) -> Intake:
    """Write down how permission came."""
    return change_photo(intake, replace(intake.photo(photo_id), rights=rights))
