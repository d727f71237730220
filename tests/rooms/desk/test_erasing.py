"""A client erased on their wish: nothing that names them is left in the studio's file; papers of money stay."""

from dataclasses import replace

import pytest

from tests.doing import do_part, photo_from_file
from yarrow_lane.commission.clients import ERASED, client_key, client_page, clients_in, erasing
from yarrow_lane.deliver.handover import hand_over
from yarrow_lane.desk.erasing import erase_client
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.intake.photos import add_photos, set_use
from yarrow_lane.lane.money import Invoiced, Paid, PriceAgreed, Reminded
from yarrow_lane.measure.trouble import Trouble

NAME, WISH = "Zebedee Quillfeather", "with the blue collar of Aunt Zora"


def number_of(demo, cid: str) -> int:
    """Of their only invoice."""
    (found,) = demo.books.account(cid).invoices
    return found.invoice.number


@pytest.fixture
def theirs(demo, cat_file):
    """One commission of that client, with a price agreed and invoiced."""
    cid = demo.start_commission(new_brief("Zora", "dog", NAME, "acrylic", demo.clock().date(), None))
    do_part(
        demo,
        cid,
        "x",
        "brief",
        lambda b: replace(b, client=NAME, client_mail="zeb@quill.example", wish=WISH, client_address="9 Zed Row"),
    )
    photo = photo_from_file(demo, cat_file, "zebedee.jpg")
    do_part(demo, cid, "Took", "intake", lambda i: set_use(add_photos(i, (photo,)), photo.id, "lead"))
    now = demo.clock()
    demo.books.enter(cid, PriceAgreed(now, 100_00, 100_00, "EUR"))
    demo.books.enter_numbered(cid, "invoice", lambda n: Invoiced(
        now, n, "deposit", (("Deposit", 100_00),), 100_00, 0, 0, 100_00, "EUR", now.date(), now.date(), 0, (NAME,), ("Studio",)))  # fmt: skip
    demo.books.enter(cid, Reminded(now, number_of(demo, cid), 1, f"Dear {NAME}"))
    return demo, cid


def _paid_and_delivered(demo, cid):
    now = demo.clock()
    number = number_of(demo, cid)
    demo.books.enter_numbered(cid, "receipt", lambda n: Paid(now, n, number, 100_00, "EUR", now.date()))
    do_part(demo, cid, "Delivered it", "deliver", lambda d: hand_over(d, now))


def test_not_while_money_or_work_is_open(theirs):
    demo, cid = theirs
    with pytest.raises(Trouble, match="still being painted"):
        erase_client(demo, (cid,))
    do_part(demo, cid, "Delivered it", "deliver", lambda d: hand_over(d, demo.clock()))
    with pytest.raises(Trouble, match="is not settled"):
        erase_client(demo, (cid,))
    assert demo.commission(cid).brief.client == NAME


def test_what_names_them_is_gone_from_the_file_and_the_papers_stay(theirs):
    demo, cid = theirs
    _paid_and_delivered(demo, cid)
    photo = demo.commission(cid).intake.photos[-1].id
    passes = demo.commission(cid).layers
    kept = erase_client(demo, (cid,))
    assert kept[0].startswith("2 invoices and receipts")
    c = demo.commission(cid)
    assert c.brief.client == ERASED and not c.intake.photos and c.brief.wish == "" and c.layers == passes
    assert demo.books.account(cid).settled and demo.books.account(cid).invoices[0].invoice.to == (NAME,)
    assert not demo.store.photos.path(photo).exists(), "it was nobody else's"
    assert demo.undo(cid) is None, "no earlier version is left"
    raw = b"".join(p.read_bytes() for p in demo.store.folder.glob("studio.db*"))
    for words in (WISH, "zeb@quill.example", "zebedee.jpg", "Zed Row", f"Dear {NAME}"):
        assert words.encode() not in raw, words
    assert NAME.encode() in raw, "on the invoice, which must be kept"


def test_what_others_name_is_left_alone(theirs):
    demo, cid = theirs
    others = {i: demo.commission(i) for i in demo.studio.on_shelf if i != cid}
    shared = demo.commission(cid).intake.photos[0]
    other = next(iter(others))
    do_part(demo, other, "Took", "intake", lambda i: replace(i, photos=(*i.photos, shared)))
    _paid_and_delivered(demo, cid)
    erase_client(demo, (cid,))
    assert demo.store.photos.path(shared.id).exists()
    demo.read_again(others)
    for i, before in others.items():
        if i != other:
            assert demo.commission(i) == before and demo.commission(i).log == before.log


def test_one_page_each(theirs):
    demo, cid = theirs
    found = clients_in(demo.books.standings(demo.clock()))
    assert client_key(f"  {NAME.upper()} ") in found
    page, number = client_page((demo.commission(cid),)), number_of(demo, cid)
    assert (page.name, page.mail, page.address) == (NAME, "zeb@quill.example", "9 Zed Row")
    assert [x.words for x in page.letters][-2:] == [f"invoice {number}", f"reminder 1 of invoice {number}"]
    assert [w.id for w in page.works] == [cid] and page.consents
    asked = erasing((demo.commission(cid),), (demo.books.account(cid),))
    assert asked.why_not and any("photographs" in g for g in asked.goes)
