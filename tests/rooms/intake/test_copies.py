"""The same shot in another size is recognised; different shots are not taken for each other."""

import io
import itertools

import cv2
import numpy as np
import pytest
import skimage.data
from PIL import Image

from yarrow_lane.intake.copies import difference_hash, same_shot, shot_groups
from yarrow_lane.intake.photos import Intake, Photo, add_photos, grouped, same_shots

PICTURES = [getattr(skimage.data, name)() for name in ("cat", "astronaut", "coffee", "rocket")]


@pytest.mark.parametrize("scale", [0.2, 0.5, 2.0])
def test_resized_and_recompressed_copies_are_the_same_shot(scale):
    for picture in PICTURES:
        out = io.BytesIO()
        Image.fromarray(cv2.resize(picture, None, fx=scale, fy=scale, interpolation=cv2.INTER_AREA)).save(
            out, "JPEG", quality=60
        )
        copy = np.asarray(Image.open(io.BytesIO(out.getvalue())))
        assert same_shot(difference_hash(picture), difference_hash(copy))


def test_different_shots_differ():
    for one, other in itertools.combinations(PICTURES, 2):
        assert not same_shot(difference_hash(one), difference_hash(other))


def apart_by(bits: int) -> tuple[str, str]:
    one = (1 << 256) - 1
    return f"{one:064x}", f"{one ^ ((1 << bits) - 1):064x}"


def test_twenty_bits_are_a_copy_and_a_few_more_are_not():
    """Copies differ in fewer than 12 bits, other shots in more than 60; frames of a burst lie between."""
    assert same_shot(*apart_by(20)) and not same_shot(*apart_by(24))
    assert shot_groups(apart_by(20)) == (0, 0) and shot_groups(apart_by(24)) == (0, 1)


def test_groups_by_hand():
    hashes = [difference_hash(p) for p in PICTURES]
    half = difference_hash(cv2.resize(PICTURES[1], None, fx=0.5, fy=0.5, interpolation=cv2.INTER_AREA))
    assert shot_groups([hashes[0], hashes[1], half, "", hashes[0], ""]) == (0, 1, 1, 3, 0, 5)
    assert shot_groups([]) == () and not same_shot("", "")


def test_copies_stand_with_the_first_that_came_and_the_largest_is_told():
    shot = difference_hash(PICTURES[0])
    small, large = Photo("s", "small.jpg", 400, 300, shot=shot), Photo("l", "large.jpg", 4000, 3000, shot=shot)
    other = Photo("o", "other.jpg", 900, 900, shot=difference_hash(PICTURES[2]))
    intake = add_photos(Intake(), (small, other, large, small))
    assert [p.id for p in intake.photos] == ["s", "o", "l"]
    assert grouped(intake) == {"s": "s", "o": "o", "l": "s"}
    assert same_shots(intake, small) == (large,) and same_shots(intake, other) == ()
