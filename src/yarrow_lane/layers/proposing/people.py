"""Skin, hair and cloth of a person: colour models from where each must be, then again from what they took."""

from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.proposing.features import ellipse_mask
from yarrow_lane.layers.proposing.heads import hull_of
from yarrow_lane.layers.proposing.marks import Head, Mask, SitterMarks
from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_STEP = 3  # px: colours are sorted on every third
_ROUNDS = 3
_MOST_OF_A_MODEL = 2000  # colours that stand for all of a part: more only take time


def person_parts(lab: NDArray[np.float32], marks: SitterMarks, head: Head, sitter: Mask) -> dict[str, Mask]:
    """ "skin", "hair" and "cloth" of the sitter, together all of it."""
    height, width = sitter.shape
    face = hull_of(head.face, (height, width))
    eyes = np.zeros((height, width), bool)
    for x, y, r in marks.eyes.values():
        eyes |= ellipse_mask((height, width), np.array([x, y]), 2.2 * r, 1.2 * r, 0)
    eye_y = float(np.mean([e[1] for e in marks.eyes.values()])) if marks.eyes else float(head.skull[1])
    chin_y, crown_y = float(head.chin[1]), float(head.crown[1])
    soft = np.asarray(cv2.GaussianBlur(lab, (0, 0), 2.0), np.float32)[::_STEP, ::_STEP]
    colours, inside = soft.reshape(-1, 3), sitter[::_STEP, ::_STEP].ravel()
    ys = np.repeat(np.arange(0, height, _STEP, dtype=np.float64), soft.shape[1])
    bare = (face & ~eyes)[::_STEP, ::_STEP].ravel()
    skin = bare & (ys > eye_y) & (ys < chin_y - 0.1 * head.length)
    if skin.sum() < 8 or not inside.any():
        return {
            "skin": sitter & face,
            "hair": sitter & ~face & _above(height, width, chin_y),
            "cloth": sitter & ~face & ~_above(height, width, chin_y),
        }
    aside = (colours - np.median(colours[skin], axis=0)) * np.array([0.5, 1.5, 1.5], np.float32)
    unlike = np.sqrt(np.einsum("ij,ij->i", aside, aside))
    other = unlike > np.quantile(unlike[skin], 0.97)
    hair = inside & (ys < eye_y) & ~bare & other & (ys > crown_y - 0.1 * head.length)
    cloth = inside & (ys > ys[inside].max() - 0.1 * head.length) & other
    low = 1 / (1 + np.exp(-(ys - chin_y - 0.25 * head.length) / (0.12 * head.length)))
    prior = np.stack(
        [np.where(ys < eye_y - 0.45 * (eye_y - crown_y), -2.0, 0.0), np.log(1.02 - 0.6 * low), np.log(low + 1e-3)], 1
    )
    seeds, labels = [skin, hair, cloth], np.zeros(len(colours), np.int64)
    for _ in range(_ROUNDS):
        likely = np.stack([_likely(colours, seed) for seed in seeds], 1) + 1.5 * prior
        fields = [cv2.GaussianBlur(likely[:, k].reshape(soft.shape[:2]).astype(np.float32), (0, 0), 2.2) for k in range(3)]
        labels = np.argmax(fields, axis=0).ravel()
        seeds = [inside & (labels == k) & ((k != 0) | (ys > crown_y)) for k in range(3)]
        seeds[0] |= skin
    parts = cv2.resize(_majority(labels.reshape(soft.shape[:2])), (width, height), interpolation=cv2.INTER_NEAREST)
    parts = _joined_skin(np.where(sitter, parts, 255))
    return {name: np.asarray(parts == k) for k, name in enumerate(("skin", "hair", "cloth"))}


def _above(height: int, width: int, y: float) -> Mask:
    return np.broadcast_to(np.arange(height)[:, None] < y, (height, width))


def _likely(colours: NDArray[np.float32], seed: NDArray[np.bool_]) -> NDArray[np.float64]:
    """How well each colour fits the nearest of four clusters of the seed's."""
    own = colours[seed][:: max(1, int(seed.sum()) // _MOST_OF_A_MODEL)]
    if len(own) < 40:
        return np.full(len(colours), -1e3)
    cv2.setRNGSeed(3)
    criteria = (cv2.TERM_CRITERIA_EPS | cv2.TERM_CRITERIA_MAX_ITER, 20, 0.5)
    none: Any = None
    _, _, centres = cv2.kmeans(np.ascontiguousarray(own, np.float32), 4, none, criteria, 2, cv2.KMEANS_PP_CENTERS)
    weight = np.array([0.6, 1.6, 1.6], np.float32)
    at, of = colours * weight, np.asarray(centres, np.float32) * weight
    # |a - b|² told as |a|² - 2ab + |b|²: one product for all colours
    near = np.einsum("ij,ij->i", at, at) + ((of * of).sum(1)[:, None] - 2 * of @ at.T).min(0)
    return np.asarray(np.maximum(-near / 81, -12), np.float64)


def _majority(labels: NDArray[np.int64]) -> NDArray[np.uint8]:
    fields = [cv2.GaussianBlur((labels == k).astype(np.float32), (0, 0), 2.0) for k in range(3)]
    return np.argmax(fields, axis=0).astype(np.uint8)


def _joined_skin(parts: NDArray[np.uint8]) -> NDArray[np.uint8]:
    """Specks of skin away from face and neck are hair."""
    count, pieces, stats, _ = cv2.connectedComponentsWithStats((parts == 0).astype(np.uint8))
    if count > 2:
        largest = stats[1:, 4].max()
        for n in range(1, count):
            if stats[n, 4] < 0.01 * largest:
                parts[pieces == n] = 1
    return parts
