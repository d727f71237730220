"""One commission as an open bundle: after its schema, read back to equal values, damage found."""

import json
import random
import resource
import zipfile
from dataclasses import replace

import jsonschema
import pytest

from tests.doing import do_part, photo_from_file
from yarrow_lane.intake.photos import add_photos
from yarrow_lane.lane.money import Invoiced, PriceAgreed, Scope
from yarrow_lane.store.archive import read_archive, schema, told, write_archive
from yarrow_lane.store.archive_schema import made_schema
from yarrow_lane.store.trouble import StoreTrouble


@pytest.fixture
def filled(demo):
    """The demo's second commission with money and a name that is not Latin."""
    cid = demo.studio.on_shelf[1]
    do_part(
        demo,
        cid,
        "Wrote the client",
        "brief",
        lambda b: replace(b, client="Тамара Ωμέγα 山田", client_address="3 Quay\nSaltgate"),
    )
    now = demo.clock()
    demo.books.enter(cid, PriceAgreed(now, 480_00, 192_00, "EUR", Scope(240.0, 300.0, 1, "cat", "acrylic")))
    demo.books.enter_numbered(cid, "invoice", lambda n: Invoiced(
        now, n, "deposit", (("Deposit", 192_00),), 192_00, 0, 0, 192_00, "EUR", now.date(), now.date(), 0, ("Тамара",), ("Studio",)))  # fmt: skip
    return demo, cid


def test_it_reads_back_to_equal_values(filled, tmp_path):
    demo, cid = filled
    c, target = demo.commission(cid), tmp_path / "fennel.zip"
    write_archive(c, demo.store.photos, {"invoice 1.pdf": b"%PDF-1.4 x"}, target)
    read = read_archive(target)
    assert read.commission == c and read.commission.log == c.log and read.papers == ("invoice 1.pdf",)
    assert set(read.pictures) >= {p.id for p in c.intake.photos} and not read.missing
    with zipfile.ZipFile(target) as bundle:
        for photo in c.intake.photos:
            assert bundle.read(f"pictures/{photo.id}") == demo.store.photos.read(photo.id, photo.name)
        jsonschema.Draft202012Validator(json.loads(bundle.read("schema.json"))).validate(
            json.loads(bundle.read("commission.json"))
        )


def test_the_published_schema_is_that_of_the_types_and_refuses_what_is_other(filled):
    demo, cid = filled
    assert schema() == made_schema(), "run scripts/schema.py"
    validator = jsonschema.Draft202012Validator(schema())
    jsonschema.Draft202012Validator.check_schema(schema())
    for i in demo.studio.on_shelf:
        validator.validate(told(demo.commission(i), {}))
    plain = told(demo.commission(cid), {})
    for change in (
        lambda p: p.pop("parts"),
        lambda p: p["parts"]["brief"].pop("client"),
        lambda p: p["parts"]["brief"].update(client=5),
        lambda p: p["parts"].update(gossip={}),
        lambda p: p["happenings"][-1].update(gross=1.5),
        lambda p: p["happenings"][-1].update(kind="gossip"),
        lambda p: p["pictures"].append({"sha256": "no hash", "bytes": 1}),
    ):
        wrong = json.loads(json.dumps(plain))
        change(wrong)
        with pytest.raises(jsonschema.ValidationError):
            validator.validate(wrong)


@pytest.mark.parametrize("what", ["picture", "json", "form", "newer", "cut", "none"])
def test_damage_is_found_and_said(filled, tmp_path, what):
    demo, cid = filled
    target, wrong = tmp_path / "a.zip", tmp_path / "b.zip"
    write_archive(demo.commission(cid), demo.store.photos, {}, target)
    with zipfile.ZipFile(target) as bundle, zipfile.ZipFile(wrong, "w") as into:
        for name in bundle.namelist():
            data = bundle.read(name)
            if what == "picture" and name.startswith("pictures/"):
                data = data[:-1] + bytes([data[-1] ^ 1])
            if name == "commission.json":
                plain = json.loads(data)
                plain["form"] = "recipe" if what == "form" else plain["form"]
                plain["version"] = 99 if what == "newer" else plain["version"]
                data = b"{" if what == "json" else json.dumps(plain).encode()
            into.writestr(name, data)
    if what == "cut":
        wrong.write_bytes(target.read_bytes()[:-200])
    if what == "none":
        wrong.unlink()
    with pytest.raises(StoreTrouble) as said:
        read_archive(wrong)
    assert said.value.sentence


def test_a_picture_that_is_gone_is_named_and_the_rest_is_written(filled, tmp_path):
    demo, cid = filled
    c = demo.commission(cid)
    demo.store.photos.remove(c.intake.photos[0].id)
    found = write_archive(c, demo.store.photos, {}, tmp_path / "a.zip")
    assert found.missing == (c.intake.photos[0].id,) and found.commission == c


def test_large_pictures_need_little_memory(desk, cat_file, tmp_path):
    from tests.conftest import NOON
    from yarrow_lane.intake.brief import new_brief

    cid = desk.start_commission(new_brief("Quill", "cat", "T. Haldane", "acrylic", NOON.date(), None))
    photo = photo_from_file(desk, cat_file, "cat.jpg")
    large = random.Random(1).randbytes(1 << 20) * 60
    thing = desk.store.photos.keep(large)
    do_part(desk, cid, "Took", "intake", lambda i: add_photos(i, (replace(photo, id=thing),)))
    del large
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    write_archive(desk.commission(cid), desk.store.photos, {}, tmp_path / "a.zip")
    assert resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before < 40_000, "KiB: a piece at a time"


def test_a_disk_that_fails_leaves_nothing_behind(filled, tmp_path):
    demo, cid = filled
    with pytest.raises(StoreTrouble):
        write_archive(demo.commission(cid), demo.store.photos, {}, tmp_path / "nowhere" / "a.zip")
    assert not list(tmp_path.glob("**/*.part"))
