"""Prices: parts by hand, tax, rounding, pulls, and what a change of scope adds."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarrow_lane.books.draft import QuoteDraft, as_reckoned, with_part, with_price
from yarrow_lane.books.quote import HOURS, PARTS, Pulled, changed_price, part_of_family, pull_part, quote
from yarrow_lane.books.terms import Terms, with_amount, with_currency, with_rate
from yarrow_lane.deliver.parcel import ParcelTrouble
from yarrow_lane.lane.money import Scope
from yarrow_lane.layers.kinds import KINDS, facts_of
from yarrow_lane.measure.money import MoneyTrouble

SCOPE = Scope(300.0, 400.0, 1, "dog", "acrylic")
MINUTES = {"background": 60.0, "coat and skin": 300.0, "face, eyes": 120.0, "drawing to varnish": 120.0}


def test_the_parts_by_hand():
    q = quote(SCOPE, MINUTES, Terms())
    assert q.part("background").amount == 26_00 and q.part("coat and skin").amount == 130_00
    assert q.part("materials").amount == 24_00, "0.12 m² at 200 a square metre"
    # 40 x 50 x 12 cm: 4.8 kg by volume, charged as 5: 12.00 + 5 x 2.50
    assert q.part("parcel").amount == 24_50
    net = 26_00 + 130_00 + 52_00 + 52_00 + 24_00 + 24_50
    assert q.price == 340_00 and q.part("profit").amount == 340_00 - net, "10 % is 30.85: up to the next ten"
    assert q.an_hour == (340_00 - 24_00 - 24_50) / 10 and not q.under(Terms())


def test_a_frame_and_tax_come_on_top():
    q = quote(Scope(300.0, 400.0, 1, "dog", "acrylic", False, True), MINUTES, Terms(tax_bp=2000))
    assert q.part("frame").amount == 64_85, "2 x (336 + 436) mm at 42 a metre"
    assert q.part("tax").amount * 6 == pytest.approx(q.price, abs=5), "a sixth of it"
    assert sum(p.amount for p in q.parts) == q.price and q.price % 10_00 == 0


@given(
    st.floats(50, 2500), st.floats(50, 2500), st.booleans(), st.integers(0, 10_000), st.integers(0, 10_000),
    st.dictionaries(st.sampled_from(HOURS), st.floats(0, 6000)),
)  # fmt: skip
def test_the_parts_always_add_up(width, height, framed, tax, profit, hours):
    terms = Terms(tax_bp=tax, profit_bp=profit)
    q = quote(Scope(width, height, 2, "person", "oil", True, framed), hours, terms)
    assert sum(p.amount for p in q.parts) == q.price and q.price % terms.round_to == 0
    assert [p.name for p in q.parts] == [n for n in PARTS if n in {p.name for p in q.parts}]


def test_a_larger_piece_never_costs_less():
    prices = [
        quote(Scope(w, w * 1.25), {n: m * w * w / 120_000 for n, m in MINUTES.items()}, Terms()).price
        for w in range(150, 900, 50)
    ]
    assert prices == sorted(prices)


def test_what_is_pulled_stays_and_the_profit_takes_the_rest():
    draft = with_price(with_part(QuoteDraft(), "materials", 50_00), 400_00)
    q = quote(Scope(300.0, 400.0, framed=True), MINUTES, Terms(), draft.pulled)
    assert q.price == 400_00 and q.part("materials").amount == 50_00 and q.part("materials").pulled
    assert sum(p.amount for p in q.parts) == 400_00
    low = quote(SCOPE, MINUTES, Terms(), Pulled((), 200_00))
    assert low.under(Terms()) and low.part("profit").amount < 0, "given away: it is said, not hidden"
    assert as_reckoned(draft) == QuoteDraft()
    with pytest.raises(MoneyTrouble, match="follows from its rate"):
        pull_part(Pulled(), "tax", 1)
    with pytest.raises(MoneyTrouble, match="less than nothing"):
        with_part(draft, "frame", -1)
    with pytest.raises(MoneyTrouble, match="larger than any"):
        with_price(draft, 10**13)


def test_no_size_no_price():
    for width in (0.0, -5.0, 1e12):
        with pytest.raises(ParcelTrouble):
            quote(Scope(width, 300.0), MINUTES, Terms())


def test_a_change_of_scope_costs_what_it_adds():
    before = quote(SCOPE, MINUTES, Terms())
    after = quote(Scope(300.0, 400.0, 2, "dog", "acrylic"), {**MINUTES, "face, eyes": 240.0}, Terms())
    assert changed_price(500_00, before, after, Terms()) == 560_00, "two hours at 26 and their profit, up to the next ten"
    assert changed_price(20_00, after, before, Terms()) == 0


def test_every_kind_of_area_belongs_to_a_part():
    assert {part_of_family(facts_of(kind).family) for kind in KINDS} == {"background", "coat and skin", "face, eyes"}
    assert part_of_family("") == "drawing to varnish"


def test_the_studios_terms():
    yen = with_currency(Terms(), "JPY")
    assert (yen.rate, yen.round_to, yen.currency) == (26, 10, "JPY") and with_currency(yen, "EUR").rate == 26_00
    assert with_rate(Terms(), "tax_bp", 10_000).tax_bp == 10_000
    for bad in (-1, 10_001):
        with pytest.raises(MoneyTrouble, match="outside 0 to 100"):
            with_rate(Terms(), "deposit_bp", bad)
    assert with_amount(Terms(), "rate", 31_00).rate == 31_00
    with pytest.raises(MoneyTrouble, match="smallest coin"):
        with_amount(Terms(), "round_to", 0)
