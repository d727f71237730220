"""The place where a photograph was made leaves the file, and nothing else does."""

import io
import struct

import numpy as np
import pillow_heif
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image, PngImagePlugin

from tests.doing import photo_from_file
from yarrow_lane.desk.photographs import Photographs
from yarrow_lane.intake.arriving import arrive
from yarrow_lane.intake.location import place_told, without_location
from yarrow_lane.intake.opening import PictureTrouble, open_picture

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
    assert arrive(data, "a").facts.has_location and not arrive(clean, "a").facts.has_location
    assert len(clean) == len(data)
    assert arrive(clean, "a").facts.taken == arrive(data, "a").facts.taken is not None
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
    assert b"50,9.05N" not in without_location(data) and np.array_equal(
        open_picture(without_location(data), "a").picture, open_picture(data, "a").picture
    )


def test_what_has_no_place_comes_back_as_it_is(cat_file):
    data = cat_file.read_bytes()
    assert without_location(data) == data
    assert without_location(b"") == b""
    assert without_location(b"Exif\0\0II*\0\xff\xff\xff\xff") == b"Exif\0\0II*\0\xff\xff\xff\xff"


def test_the_studio_keeps_the_place_only_on_purpose(desk, cat):
    data = placed(cat, "JPEG")
    stripped, kept = photo_from_file(desk, data, "a.jpg"), photo_from_file(desk, data, "a.jpg", keep_location=True)
    assert not arrive(desk.store.photos.path(stripped.id), "a").facts.has_location
    assert arrive(desk.store.photos.path(kept.id), "a").facts.has_location
    assert stripped.taken == kept.taken and stripped.shot == kept.shot


# --- where else a place hides

XMP = '<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:Description {}/></x:xmpmeta>'
TOLD_XMP = {
    "double quotes": XMP.format('exif:GPSLatitude="50,9.05N" exif:GPSLongitude="5,4.2W"'),
    "single quotes": XMP.format("exif:GPSLatitude='50,9.05N'"),
    "an element": "<x:xmpmeta><exif:GPSLatitude>50,9.05N</exif:GPSLatitude></x:xmpmeta>",
    "a street": XMP.format('Iptc4xmpCore:Location="12 Harbour Street"'),
    "a town": XMP.format('photoshop:City="Saltgate"'),
    "shown": "<x:xmpmeta><Iptc4xmpExt:LocationShown><rdf:li>Saltgate</rdf:li></Iptc4xmpExt:LocationShown></x:xmpmeta>",
}


def saved(cat, kind: str, **how) -> bytes:
    out = io.BytesIO()
    Image.fromarray(cat).save(out, kind, **how)
    return out.getvalue()


def taken_out(data: bytes, *words: bytes) -> bytes:
    """What `arrive` keeps of a file that tells its place: none of these words, and the same picture."""
    arrived = arrive(data, "a")
    assert arrived.facts.has_location and arrived.data is not None
    for word in words:
        assert word in data and word not in arrived.data
    assert np.array_equal(open_picture(arrived.data, "a").picture, open_picture(data, "a").picture)
    again = arrive(arrived.data, "a")
    assert again.data is None and not again.facts.has_location and again.shot == arrived.shot
    return arrived.data


@pytest.mark.parametrize("words", TOLD_XMP.values(), ids=TOLD_XMP)
@pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP", "TIFF", "HEIF"])
def test_a_place_in_xmp_alone(cat, kind, words):
    if kind == "PNG":
        info = PngImagePlugin.PngInfo()
        info.add_itxt("XML:com.adobe.xmp", words)
        data = saved(cat, kind, pnginfo=info)
    elif kind == "TIFF":
        data = saved(cat, kind, tiffinfo={700: words.encode()})
    else:
        data = saved(cat, kind, xmp=words.encode())
    told = b"50,9.05N" if "50,9" in words else b"Harbour" if "Harbour" in words else b"Saltgate"
    taken_out(data, told)


def tiff_with_place(data: bytes) -> bytes:
    """A TIFF with one directory more: its first directory is written again at the end, with a GPS directory behind it."""
    big = data[2:3] == b"+"
    count_form, size, offset_form, pointer_at = ("<Q", 20, "<Q", 8) if big else ("<H", 12, "<I", 4)
    (first,) = struct.unpack_from(offset_form, data, pointer_at)
    (count,) = struct.unpack_from(count_form, data, first)
    start = first + struct.calcsize(count_form)
    entries = [data[start + n * size : start + (n + 1) * size] for n in range(count)]
    here = len(data) + len(data) % 2
    gps_at = here + struct.calcsize(count_form) + (count + 1) * size + struct.calcsize(offset_form)
    values_at = gps_at + struct.calcsize(count_form) + 2 * size + struct.calcsize(offset_form)
    many = "<HHQ" if big else "<HHI"

    def entry(tag: int, kind: int, number: int, value: bytes) -> bytes:
        return struct.pack(many, tag, kind, number) + value.ljust(8 if big else 4, b"\0")

    entries = sorted([*entries, entry(0x8825, 4, 1, struct.pack("<I", gps_at))], key=lambda e: struct.unpack_from("<H", e)[0])
    gps = [entry(1, 2, 2, b"N\0"), entry(2, 5, 3, struct.pack(offset_form, values_at))]
    out = bytearray(data.ljust(here, b"\0"))
    for directory in (entries, gps):
        out += struct.pack(count_form, len(directory)) + b"".join(directory) + struct.pack(offset_form, 0)
    out += struct.pack("<6I", 50, 1, 9, 1, 325, 100)
    struct.pack_into(offset_form, out, pointer_at, here)
    return bytes(out)


@pytest.mark.parametrize("big", [False, True])
def test_a_place_in_a_tiff(cat, big):
    data = tiff_with_place(saved(cat, "TIFF", big_tiff=big))
    with Image.open(io.BytesIO(data)) as image:
        assert image.getexif().get_ifd(0x8825)[2][2] == 3.25, "the file is as it should be"
    taken_out(data, struct.pack("<II", 325, 100))


@pytest.mark.parametrize("packed", [True, False])
@pytest.mark.parametrize("how", ["text", "itxt"])
def test_a_place_in_the_text_of_a_png(cat, how, packed):
    info = PngImagePlugin.PngInfo()
    add = info.add_text if how == "text" else info.add_itxt
    add("Comment", "taken at 50.15090, -5.07013", zip=packed)
    data = saved(cat, "PNG", pnginfo=info)
    clean = taken_out(data, *(() if packed else (b"50.15090",)))
    with Image.open(io.BytesIO(clean)) as image:
        image.verify()
    with Image.open(io.BytesIO(clean)) as image:
        image.load()
        assert not image.text


def test_a_place_in_a_raw_profile_of_a_png(cat):
    block = placed(cat, "JPEG")
    exif = block[block.index(b"Exif\0\0") : block.index(b"\xff\xdb")]
    info = PngImagePlugin.PngInfo()
    info.add_text("Raw profile type exif", f"\nexif\n{len(exif):8d}\n{exif.hex()}\n", zip=True)
    clean = taken_out(saved(cat, "PNG", pnginfo=info))
    with Image.open(io.BytesIO(clean)) as image:
        assert "exif" not in image.info and not image.getexif().get_ifd(0x8825)


def app(data: bytes, marker: int, payload: bytes) -> bytes:
    return data[:2] + bytes((0xFF, marker)) + struct.pack(">H", len(payload) + 2) + payload + data[2:]


def test_a_town_in_iptc_and_in_a_comment(cat):
    data = saved(cat, "JPEG")
    iim = b"\x1c\x02\x5a" + struct.pack(">H", 8) + b"Saltgate"
    resource = b"Photoshop 3.0\x008BIM\x04\x04\0\0" + struct.pack(">I", len(iim)) + iim + b"\0" * (len(iim) % 2)
    taken_out(app(data, 0xED, resource), b"Saltgate")
    taken_out(app(data, 0xFE, b"GPS 50.15090 -5.07013"), b"50.15090")


def test_the_second_picture_and_the_film_behind_the_first(cat):
    first, second = saved(cat, "JPEG"), placed(cat, "JPEG")
    taken_out(first + second, next(n for n in (struct.pack(o + "II", 13, 4) for o in "<>") if n in second))
    film = b"\0\0\0\x18ftypmp42" + bytes(200) + b"\xa9xyz\0\x12\x15\xc7+50.1509-005.0701/" + bytes(100)
    taken_out(first + film, b"+50.1509")


def test_words_about_the_picture_go_with_its_place_and_stay_without(cat):
    exif = Image.Exif()
    exif[0x010E] = "Pip on the quay"
    assert arrive(saved(cat, "JPEG", exif=exif), "a").data is None
    exif[0x010E] = "Pip, 12 Harbour Street"
    taken_out(saved(cat, "JPEG", exif=exif), b"Harbour")
    exif[0x010E] = "Pip on the quay"
    exif.get_ifd(0x8825).update({1: "N", 2: LATITUDE})
    taken_out(saved(cat, "JPEG", exif=exif), b"on the quay")


def test_a_crafted_block_reaches_nothing_outside_itself(cat):
    """Its GPS directory is said to lie among the picture's own bytes: blanked there, the picture would be another one."""
    data = bytearray(placed(cat, "JPEG"))
    start = data.index(b"Exif\0\0") + 6
    pointer = data.index(struct.pack(">HHI", 0x8825, 4, 1), start) + 8
    for aim in (len(data) - start - 3000, 2**31, 0, 8):
        crafted = bytearray(data)
        struct.pack_into(">I", crafted, pointer, aim)
        clean = without_location(bytes(crafted))
        scan = crafted.index(b"\xff\xda")
        assert clean[scan:] == crafted[scan:] and len(clean) == len(crafted)


def test_what_cannot_be_taken_out_is_not_kept(monkeypatch, cat):
    monkeypatch.setattr("yarrow_lane.intake.arriving.without_location", lambda data: data)
    with pytest.raises(PictureTrouble, match=r"“a” was not taken in.*cannot take out.*Keep the place"):
        arrive(placed(cat, "JPEG"), "a")
    monkeypatch.setattr("yarrow_lane.intake.arriving.without_location", lambda data: saved(cat[::-1], "JPEG"))
    with pytest.raises(PictureTrouble, match="without touching the picture"):
        arrive(placed(cat, "JPEG"), "a")
    assert arrive(placed(cat, "JPEG"), "a", keep_place=True).data is None


def test_the_paintings_own_photograph_does_not_tell_the_painters_home(desk, cat):
    kept, facts = Photographs(desk.store.photos, arrive).keep_picture(placed(cat, "JPEG"), "easel.jpg")
    assert facts.has_location and not arrive(desk.store.photos.path(kept), "a").facts.has_location


@given(
    st.binary(max_size=400),
    st.sampled_from([b"\xff\xd8", b"\x89PNG\r\n\x1a\n", b"II*\0", b"II+\0", b"RIFF0000WEBP", b"0000ftyp", b"MM\0*"]),
)
def test_noise_is_looked_through_without_harm(noise, head):
    data = head + noise
    assert len(without_location(data)) == len(data)
    place_told(data)
