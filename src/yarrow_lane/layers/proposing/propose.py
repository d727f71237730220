"""The proposal: a raster of labels with what each is, for every sitter in front of the ground."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.kinds import Kind
from yarrow_lane.layers.proposing.features import eye_mask, mouth_mask, nose_mask
from yarrow_lane.layers.proposing.heads import ears_of, guessed_round_eyes, guessed_sitter, hull_of, split_head
from yarrow_lane.layers.proposing.marks import Head, Mask, SitterMarks, head_of
from yarrow_lane.layers.proposing.naming import own_side
from yarrow_lane.layers.proposing.people import person_parts
from yarrow_lane.layers.raster import Labels, without_specks
from yarrow_lane.measure.late import late
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_LEAST_PX = 8  # fewer px of a part are nothing
_SPECK_MM2 = 12.0  # our choice: separate pieces smaller than this go to what surrounds them
# What covers a sitter where it is not fur; fur is short until the painter says otherwise.
_COVER: dict[str, Kind] = {"bird": "feathers", "person": "skin"}


@dataclass(frozen=True)
class Proposed:
    """What a label is: `part` within its sitter, "" for all of it."""

    label: int
    kind: Kind
    name: str
    part: str = ""
    sitter_id: int = 0


@dataclass(frozen=True)
class Proposal:
    """Labels (height, width) at `px_per_mm`, 1 the background; all of it guessed."""

    labels: Labels
    parts: tuple[Proposed, ...]
    px_per_mm: float


def propose(
    picture: Picture, sitters: Sequence[SitterMarks], px_per_mm: float, progress: Progress = SILENT
) -> Proposal:  # fmt: skip
    """Regions for the reference at `px_per_mm`, sRGB uint8 (height, width, 3); sitters back to front, marks in its px."""
    lab = cv2.cvtColor(np.ascontiguousarray(picture), cv2.COLOR_RGB2LAB).astype(np.float32)
    board = _Board(np.ones(picture.shape[:2], np.int32), len(sitters) > 1)
    for n, marks in enumerate(sitters):
        progress.at(n / max(1, len(sitters)))
        _propose_one(board, picture, lab, marks, px_per_mm)
    small = [p.label for p in board.parts if p.kind in ("eye", "nose", "mouth")]
    labels = without_specks(board.labels, _SPECK_MM2 * px_per_mm**2, small)
    there = set(np.unique(labels).tolist())
    return Proposal(labels, tuple(p for p in board.parts if p.label in there), px_per_mm)


class _Board:
    """Labels being laid, the later over the earlier."""

    def __init__(self, labels: Labels, several: bool) -> None:
        self.labels, self._several = labels, several
        self.parts: list[Proposed] = [Proposed(1, "background", "background")]

    def put(self, kind: Kind, said: str, mask: Mask, marks: SitterMarks, part: str = "") -> None:
        """Lay a part; names tell whose it is where there are several sitters, and always of parts of a named one."""
        if int(mask.sum()) < _LEAST_PX:
            return
        name = f"{marks.name}'s {said}" if marks.name and (self._several or part.endswith(("eye", "ear"))) else said
        label = len(self.parts) + 1
        self.parts.append(Proposed(label, kind, name, part or said, marks.sitter_id))
        self.labels[mask] = label


def _propose_one(board: _Board, picture: Picture, lab: NDArray[np.float32], marks: SitterMarks, scale: float) -> None:
    head = head_of(marks)
    sitter = marks.mask
    if sitter is None and head is not None:
        sitter = guessed_sitter(np.ascontiguousarray(picture[..., ::-1]), marks, head)
    if sitter is None and marks.eyes:
        sitter = guessed_round_eyes(np.ascontiguousarray(picture[..., ::-1]), marks)
    if sitter is None:
        return
    cover = _COVER.get(marks.kind, "fur")
    chin = marks.point("chin")
    if marks.kind == "person" and not marks.eyes and chin is not None:
        # From behind: what is below the chin is dressed, and above it are hair or a hat.
        above = np.arange(sitter.shape[0])[:, None] < chin[1]
        board.put("cloth", "cloth", sitter & ~above, marks, "body")
        board.put("hair", "head", sitter & above, marks, "head")
        return
    if head is None:
        board.put(cover, "figure" if marks.kind == "person" else str(cover), sitter, marks, "body")
        _eyes(board, lab, marks, head, sitter)
        return
    face = hull_of(head.face, (sitter.shape[0], sitter.shape[1]))
    sitter = sitter | face
    if marks.kind == "person":
        _person(board, lab, marks, head, sitter)
    else:
        ears = ears_of(marks, head, sitter, face)
        of_head, body = split_head(marks, head, sitter, ears)
        board.put(cover, "body", body, marks, "body")
        board.put(cover, "head", of_head, marks, "head")
        for viewer, ear in ears.items():
            own = own_side(marks, head, "ear", viewer)
            board.put(cover, f"{own} ear".strip(), ear, marks, f"{own} ear".strip())
    nose = nose_mask(lab, marks, head)
    mouth = mouth_mask(lab, marks, head, scale)
    if mouth is not None:
        board.put("mouth", "mouth", mouth & sitter, marks)
    if nose is not None:
        board.put("nose", "beak" if marks.kind == "bird" else "nose", nose & sitter, marks)
    _eyes(board, lab, marks, head, sitter)


def _person(board: _Board, lab: NDArray[np.float32], marks: SitterMarks, head: Head, sitter: Mask) -> None:
    parts = person_parts(lab, marks, head, sitter)
    board.put("cloth", "cloth", parts["cloth"], marks)
    board.put("skin", "skin", parts["skin"], marks)
    board.put("hair", "hair", parts["hair"], marks)


def _eyes(board: _Board, lab: NDArray[np.float32], marks: SitterMarks, head: Head | None, sitter: Mask) -> None:
    for viewer, eye in marks.eyes.items():
        own = own_side(marks, head, "eye", viewer)
        tilt = head.tilt if head is not None else 0.0
        board.put("eye", f"{own} eye".strip(), eye_mask(lab, eye, marks.kind, tilt) & sitter, marks, f"{own} eye".strip())
