"""Photographs made worse in known steps: smaller, softer, darker, turned; and how much of the eyes then resolves."""

import math
from dataclasses import dataclass

import cv2
import numpy as np
import skimage.data
from bench.degraded import gaussian, resolved

from yarrow_lane.demo.sitter_files import sitter_file
from yarrow_lane.intake.opening import open_whole
from yarrow_lane.intake.photos import Eye
from yarrow_lane.measure.raster import Picture, resample

# Irises marked by hand on a picture that scikit-image ships (S. van der Walt, CC0).
CAT_EYES = (Eye("left", 171, 116, 32), Eye("right", 318, 137, 24.5))
_PERSON_SHRUNK = 0.5  # so that nearly all of its pixels resolve


@dataclass(frozen=True)
class Source:
    """A picture with its marked eyes; `own` is the share of its pixels that resolves at the eyes, read off it with the measure."""

    picture: Picture
    eyes: tuple[Eye, ...]
    own: float


def sources() -> tuple[Source, ...]:
    """A real cat and a rendered person."""
    person = sitter_file("person1")
    whole = open_whole(person.jpeg, "person1")
    size = round(whole.shape[1] * _PERSON_SHRUNK), round(whole.shape[0] * _PERSON_SHRUNK)
    eyes = tuple(Eye(e.side, e.x * _PERSON_SHRUNK, e.y * _PERSON_SHRUNK, e.radius_px * _PERSON_SHRUNK) for e in person.eyes)
    return Source(skimage.data.cat(), CAT_EYES, 0.57), Source(resample(whole, *size), eyes, 0.8)


@dataclass(frozen=True)
class Harm:
    """`scale` and `gain` below 1 are worse, `blur` (in iris radii) above 0 is; `turns` of 90° harm nothing."""

    scale: float = 1.0
    blur: float = 0.0
    gain: float = 1.0
    turns: int = 0

    def detail(self, source: Source) -> float:
        """Pixels of the source's own that resolve, as a share: what its blur, its own softness and the smaller size leave."""
        sigma = self.blur * max(e.radius_px for e in source.eyes)
        soft = resolved(gaussian(sigma)) if sigma else 1.0
        return min(self.scale, 1 / math.sqrt(1 / soft**2 + 1 / source.own**2 - 1))

    def plainly_better_than(self, other: "Harm", source: Source) -> bool:
        """No worse in anything, and better in something: then there is no doubt about the order."""
        mine, theirs = self.detail(source), other.detail(source)
        more, same = mine > 1.15 * theirs, abs(mine / theirs - 1) < 0.02 and self.scale == other.scale
        return (more and self.gain >= other.gain) or (same and self.gain > other.gain)


def harmed(source: Source, harm: Harm) -> tuple[Picture, tuple[Eye, ...]]:
    """The picture after the harm, with its eyes where they now are."""
    picture, eyes = source.picture, source.eyes
    sigma = harm.blur * max(e.radius_px for e in eyes)
    soft = cv2.GaussianBlur(picture, (0, 0), sigma) if sigma else picture
    dark = np.clip(soft.astype(np.float32) * harm.gain + 0.5, 0, 255).astype(np.uint8)
    height, width = dark.shape[:2]
    small = resample(dark, round(width * harm.scale), round(height * harm.scale)) if harm.scale < 1 else dark
    found = [(e.side, e.x * harm.scale, e.y * harm.scale, e.radius_px * harm.scale) for e in eyes]
    for _ in range(harm.turns):
        tall = small.shape[0]
        small = np.rot90(small, -1)
        found = [(side, tall - y, x, r) for side, x, y, r in found]
    return np.ascontiguousarray(small), tuple(Eye(*f) for f in found)
