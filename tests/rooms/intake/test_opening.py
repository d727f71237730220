"""Opening pictures: upright, in sRGB, or one clear sentence."""

import io
import struct
import zlib

import numpy as np
import pillow_heif
import pytest
from PIL import Image

from tests.conftest import jpeg_of
from yarrow_lane.desk.photographs import in_a_worker
from yarrow_lane.intake import opening
from yarrow_lane.intake.arriving import arrive
from yarrow_lane.intake.opening import PictureTrouble, open_picture
from yarrow_lane.measure.trouble import Trouble

# EXIF 2.32, table 6: which corner of the scene row 0 and column 0 of the stored picture are; here as the
# numpy steps that store an upright picture so that the given orientation sets it up again.
STORED = {
    1: lambda p: p,
    2: lambda p: p[:, ::-1],
    3: lambda p: p[::-1, ::-1],
    4: lambda p: p[::-1],
    5: lambda p: p.transpose(1, 0, 2),
    6: lambda p: np.rot90(p, 1),
    7: lambda p: p.transpose(1, 0, 2)[::-1, ::-1],
    8: lambda p: np.rot90(p, -1),
}


def with_exif(picture: np.ndarray, orientation: int, fmt: str = "PNG") -> bytes:
    exif = Image.Exif()
    exif[0x0112] = orientation
    out = io.BytesIO()
    Image.fromarray(np.ascontiguousarray(picture)).save(out, fmt, exif=exif)
    return out.getvalue()


@pytest.mark.parametrize("orientation", range(1, 9))
@pytest.mark.parametrize("fmt", ["JPEG", "TIFF", "PNG", "WEBP"])
def test_what_is_told_of_a_turned_picture_is_true_of_it_upright(cat, fmt, orientation):
    """Width and height as they are seen, whatever the kind of file says about its orientation and whoever turns it."""
    opened = open_picture(with_exif(STORED[orientation](cat), orientation, fmt), f"cat.{fmt.lower()}")
    assert (opened.facts.width_px, opened.facts.height_px) == (451, 300) and opened.picture.shape == (300, 451, 3)
    assert np.abs(opened.picture.astype(int) - cat).mean() < 8, "one of the other seven would be 40 off"
    small = open_picture(with_exif(STORED[orientation](cat), orientation, fmt), f"cat.{fmt.lower()}", preview_px=150)
    assert (small.facts.width_px, small.facts.height_px) == (451, 300)


@pytest.mark.parametrize("orientation", range(1, 9))
def test_in_heic_the_file_itself_turns_the_picture_not_its_exif(cat, orientation):
    """HEIF turns by a property of its own, which the decoder follows; EXIF beside it tells what was done (ISO/IEC 23008-12)."""
    pillow_heif.register_heif_opener()
    stored = STORED[orientation](cat)
    opened = open_picture(with_exif(stored, orientation, "HEIF"), "cat.heic")
    assert opened.picture.shape == stored.shape == (opened.facts.height_px, opened.facts.width_px, 3)
    assert np.abs(opened.picture.astype(int) - stored).mean() < 8


@pytest.mark.parametrize("orientation", range(1, 9))
def test_all_eight_orientations_come_upright(cat, orientation):
    opened = open_picture(with_exif(STORED[orientation](cat), orientation), "cat.png")
    assert (opened.picture == cat).all()
    assert (opened.facts.width_px, opened.facts.height_px) == (cat.shape[1], cat.shape[0])


@pytest.mark.parametrize(
    ("fmt", "ending"), [("JPEG", "jpg"), ("PNG", "png"), ("TIFF", "tif"), ("WEBP", "webp"), ("HEIF", "heic")]
)
def test_each_kind_of_file_opens(cat, fmt, ending):
    pillow_heif.register_heif_opener()
    out = io.BytesIO()
    Image.fromarray(cat).save(out, fmt, quality=95)
    opened = open_picture(out.getvalue(), f"cat.{ending}")
    assert opened.picture.shape == cat.shape
    assert np.abs(opened.picture.astype(int) - cat).mean() < 4
    assert opened.facts.remark == ""


def wide_profile() -> bytes:
    """A linear-light RGB profile with the Display-P3 primaries (SMPTE EG 432-1), written by hand: ICC.1:2010 version 2."""
    # Colorants adapted to D50 (Display P3's published profile values, rounded to s15Fixed16).
    colorants = {b"rXYZ": (0.5151, 0.2412, -0.0011), b"gXYZ": (0.2920, 0.6922, 0.0419), b"bXYZ": (0.1571, 0.0666, 0.7841)}

    def xyz(values):
        return b"XYZ \0\0\0\0" + b"".join(struct.pack(">i", round(v * 65536)) for v in values)

    curve = b"curv\0\0\0\0" + struct.pack(">I", 1) + struct.pack(">H", round(2.2 * 256)) + b"\0\0"
    text = b"desc\0\0\0\0" + struct.pack(">I", 3) + b"P3\0" + b"\0" * 78
    tags = [(b"desc", text), (b"wtpt", xyz((0.9642, 1.0, 0.8249)))]
    tags += [(k, xyz(v)) for k, v in colorants.items()]
    tags += [(k, curve) for k in (b"rTRC", b"gTRC", b"bTRC")] + [(b"cprt", b"text\0\0\0\0none\0")]
    table, data, at = b"", b"", 128 + 4 + 12 * len(tags)
    for name, body in tags:
        body += b"\0" * (-len(body) % 4)
        table += name + struct.pack(">II", at + len(data), len(body))
        data += body
    size = at + len(data)
    head = (
        struct.pack(">I4sI4s4s4s", size, b"lcms", 0x02400000, b"mntr", b"RGB ", b"XYZ ")
        + b"\x07\xea\0\x01\0\x01\0\0\0\0\0\0acsp"
    )
    head += b"\0" * 28 + struct.pack(">iii", 63190, 65536, 54061)
    return head + b"\0" * (128 - len(head)) + struct.pack(">I", len(tags)) + table + data


def test_a_wide_profile_is_converted_to_srgb():
    patch = np.full((40, 40, 3), (200, 80, 60), np.uint8)
    out = io.BytesIO()
    Image.fromarray(patch).save(out, "PNG", icc_profile=wide_profile())
    found = open_picture(out.getvalue(), "wide.png").picture[20, 20].astype(float)
    # By hand: P3 light to sRGB light by the two sets of primaries (both D65), then the sRGB curve.
    light = (np.array([200, 80, 60]) / 255) ** 2.2
    p3_to_xyz = np.array([[0.4866, 0.2657, 0.1982], [0.2290, 0.6917, 0.0793], [0.0, 0.0451, 1.0439]])
    xyz_to_srgb = np.array([[3.2406, -1.5372, -0.4986], [-0.9689, 1.8758, 0.0415], [0.0557, -0.2040, 1.0570]])
    linear = np.clip(xyz_to_srgb @ p3_to_xyz @ light, 0, 1)
    expected = np.where(linear <= 0.0031308, 12.92 * linear, 1.055 * linear ** (1 / 2.4) - 0.055) * 255
    assert np.abs(found - expected).max() < 4
    assert found[0] > 208  # the unconverted 200 would be too dull


def test_orientation_six_with_a_profile_together(cat):
    exif = Image.Exif()
    exif[0x0112] = 6
    out = io.BytesIO()
    Image.fromarray(np.ascontiguousarray(np.rot90(cat, 1))).save(out, "JPEG", quality=95, exif=exif, icc_profile=wide_profile())
    opened = open_picture(out.getvalue(), "cat.jpg")
    assert opened.picture.shape == cat.shape
    assert opened.facts.orientation == 6
    assert np.corrcoef(opened.picture.ravel(), cat.ravel())[0, 1] > 0.98


def test_the_quick_look_is_smaller_but_tells_the_full_size(cat):
    large = np.kron(cat, np.ones((8, 8, 1), np.uint8))
    opened = open_picture(jpeg_of(large), "cat.jpg", preview_px=500)
    assert max(opened.picture.shape[:2]) < 1000
    assert (opened.facts.width_px, opened.facts.height_px) == (large.shape[1], large.shape[0])


def test_sixteen_bit_transparent_and_indexed_pictures(cat):
    out = io.BytesIO()
    Image.fromarray(cat[..., 0].astype(np.uint16) << 8).save(out, "TIFF")
    deep = open_picture(out.getvalue(), "deep.tif").picture
    assert np.abs(deep[..., 0].astype(int) - cat[..., 0]).max() <= 2
    out = io.BytesIO()
    Image.fromarray(np.dstack([cat, np.zeros(cat.shape[:2], np.uint8)])).save(out, "PNG")
    assert (open_picture(out.getvalue(), "clear.png").picture == 140).all()
    out = io.BytesIO()
    Image.fromarray(cat).quantize(64).save(out, "PNG")
    assert open_picture(out.getvalue(), "few.png").picture.shape == cat.shape


@pytest.mark.parametrize(
    ("name", "data", "cause"),
    [
        ("empty.jpg", b"", "empty"),
        ("letter.jpg", b"Dear painter, here is the picture of Pip.", "no JPEG"),
        ("table.png", b"PK\x03\x04" + b"\0" * 80, "no JPEG"),
    ],
)
def test_what_is_no_picture_is_refused_in_one_sentence(name, data, cause):
    with pytest.raises(PictureTrouble) as error:
        open_picture(data, name)
    assert name in error.value.sentence and cause in error.value.sentence


def test_a_truncated_picture_is_refused(cat):
    data = jpeg_of(cat)
    with pytest.raises(PictureTrouble, match=r"half\.jpg.*cut short"):
        open_picture(data[: len(data) // 2], "half.jpg")


def test_a_mislabelled_picture_is_taken_in_and_said(cat):
    facts = arrive(jpeg_of(cat), "cat.png").facts
    assert facts.format == "JPEG"
    assert "cat.png" in facts.remark and "JPEG" in facts.remark


def test_over_400_megapixels_is_refused_before_decoding(cat, monkeypatch):
    # A PNG head that claims 25000 x 20000: nothing behind it is ever decoded.
    chunk = b"IHDR" + struct.pack(">IIBBBBB", 25000, 20000, 8, 2, 0, 0, 0)
    import zlib

    bomb = b"\x89PNG\r\n\x1a\n" + struct.pack(">I", 13) + chunk + struct.pack(">I", zlib.crc32(chunk))
    bomb += struct.pack(">I", 10) + b"IDAT" + b"\0" * 10 + b"\0" * 4
    with pytest.raises(PictureTrouble, match=r"bomb\.png.*500 megapixels.*400"):
        open_picture(bomb, "bomb.png")


def test_absurd_exif_costs_nothing(cat):
    exif = Image.Exif()
    exif[0x0112] = 77
    exif[0x9003] = "yesterday, I think"
    out = io.BytesIO()
    Image.fromarray(cat).save(out, "JPEG", exif=exif)
    facts = open_picture(out.getvalue(), "odd.jpg").facts
    assert facts.orientation == 1 and facts.taken is None


def test_a_missing_file_is_said(tmp_path):
    with pytest.raises(PictureTrouble, match=r"gone\.jpg"):
        open_picture(tmp_path / "gone.jpg", "gone.jpg")


def test_the_limit_is_ours_not_the_librarys():
    assert Image.MAX_IMAGE_PIXELS is None and opening.MOST_DECODED_BYTES == 3 * 400_000_000


def bomb(width: int, height: int, colour: int, depth: int, channels: int, rows_there: int) -> bytes:
    """A PNG of nothing but zeros: small, and large once it is decoded (PNG 1.2); its last rows may be missing."""

    def chunk(kind: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    packer = zlib.compressobj(1)
    rows = b"".join(packer.compress(bytes(1 + width * channels * depth // 8)) for _ in range(rows_there)) + packer.flush()
    head = chunk(b"IHDR", struct.pack(">IIBBBBB", width, height, depth, colour, 0, 0, 0))
    return b"\x89PNG\r\n\x1a\n" + head + chunk(b"IDAT", rows) + chunk(b"IEND", b"")


@pytest.mark.parametrize(
    ("width", "colour", "depth", "channels", "taken"),
    [(8000, 2, 8, 3, True), (8000, 0, 16, 1, True), (18000, 6, 8, 4, False), (20100, 0, 8, 1, False)],
)
def test_small_files_of_large_pictures_stay_within_two_gigabytes(workers, width, colour, depth, channels, taken):
    """Looked at in a worker that may take no more; what needs more is said, and the worker lives on."""
    data = bomb(width, width, colour, depth, channels, width if taken else 3)
    look = in_a_worker(workers)
    if taken:
        assert look(data, "large.png").facts.width_px == width
    else:
        with pytest.raises(Trouble, match=r"large\.png.*(limit|memory)"):
            look(data, "large.png")


def test_a_file_is_looked_at_by_its_size_first(tmp_path):
    path = tmp_path / "padded.jpg"
    with path.open("wb") as stream:
        stream.truncate(opening.MOST_FILE_BYTES + 1)
    with pytest.raises(PictureTrouble, match=r"padded\.jpg.*300 MB|limit is 300"):
        open_picture(path, "padded.jpg")


def test_no_other_parser_sees_what_comes_from_outside(monkeypatch, cat):
    from PIL import GifImagePlugin, PpmImagePlugin

    for plugin in (GifImagePlugin.GifImageFile, PpmImagePlugin.PpmImageFile):
        monkeypatch.setattr(plugin, "_open", lambda *_: pytest.fail("a parser of another kind was asked"))
    for data in (b"GIF89a" + bytes(60), b"P6 4 4 255 " + bytes(60)):
        with pytest.raises(PictureTrouble):
            open_picture(data, "other.jpg")


@pytest.mark.parametrize("kind", ["PNG", "TIFF", "WEBP"])
def test_a_quick_look_at_a_large_picture_shows_it_as_it_is(kind):
    """Made smaller by a whole number first: upright, with its colours, and told in its full size."""
    picture = np.zeros((900, 1300, 3), np.uint8)
    picture[:, 650:] = (200, 60, 20)
    exif = Image.Exif()
    exif[0x0112] = 6
    out = io.BytesIO()
    Image.fromarray(picture).save(out, kind, exif=exif)
    seen = open_picture(out.getvalue(), "a", 200)
    assert (seen.facts.width_px, seen.facts.height_px) == (900, 1300) and seen.picture.shape[0] > seen.picture.shape[1]
    assert max(seen.picture.shape) < 400 and abs(seen.picture[-4, 40].astype(int) - (200, 60, 20)).max() < 12
