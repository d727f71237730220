"""The place where a photograph was made leaves the file, and nothing else does."""

import io
import struct

import numpy as np
import pillow_heif
import pytest
from PIL import Image

from tests.doing import photo_from_file
from yarrow_lane.intake.location import without_location
from yarrow_lane.intake.opening import glance, open_picture

pillow_heif.register_heif_opener()
LATITUDE, LONGITUDE = (50.0, 9.0, 3.25), (5.0, 4.0, 12.5)


def placed(cat: np.ndarray, kind: str) -> bytes:
    exif = Image.Exif()
    exif[0x0110] = "Telephone"
    exif.get_ifd(0x8769)[0x9003] = "2026:03:01 10:00:00"
    exif.get_ifd(0x8825).update({1: "N", 2: LATITUDE, 3: "W", 4: LONGITUDE})
    out = io.BytesIO()
    Image.fromarray(cat).save(out, kind, exif=exif)
    return out.getvalue()


@pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP", "HEIF"])
def test_the_place_goes_the_picture_and_the_date_stay(cat, kind):
    data = placed(cat, kind)
    clean = without_location(data)
    assert glance(data, "a").facts.has_location and not glance(clean, "a").facts.has_location
    assert len(clean) == len(data)
    assert glance(clean, "a").facts.taken == glance(data, "a").facts.taken is not None
    assert np.array_equal(open_picture(clean, "a").picture, open_picture(data, "a").picture)
    # Not even the bare numbers are left in the file: 325/100 are the seconds of the latitude.
    for order in "<>":
        for numbers in ((325, 100), (13, 4)):
            assert struct.pack(order + "II", *numbers) not in clean


def test_the_checksum_of_a_png_is_right_again(cat):
    with Image.open(io.BytesIO(without_location(placed(cat, "PNG")))) as image:
        image.verify()


def test_copies_of_the_place_in_xmp_go_too(cat):
    words = b'<x exif:GPSLatitude="50,9.05N" exif:GPSLongitude="5,4.2W"/>'
    data = placed(cat, "JPEG") + words
    assert b"50,9.05N" not in without_location(data) and b"exif:GPSLatitude" in without_location(data)


def test_what_has_no_place_comes_back_as_it_is(cat_file):
    data = cat_file.read_bytes()
    assert without_location(data) == data
    assert without_location(b"") == b""
    assert without_location(b"Exif\0\0II*\0\xff\xff\xff\xff") == b"Exif\0\0II*\0\xff\xff\xff\xff"


def test_the_studio_keeps_the_place_only_on_purpose(desk, cat):
    data = placed(cat, "JPEG")
    stripped, kept = photo_from_file(desk, data, "a.jpg"), photo_from_file(desk, data, "a.jpg", keep_location=True)
    assert not glance(desk.store.photos.path(stripped.id), "a").facts.has_location
    assert glance(desk.store.photos.path(kept.id), "a").facts.has_location
    assert stripped.taken == kept.taken and stripped.shot == kept.shot
