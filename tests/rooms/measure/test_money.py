"""Money in whole units: read, written, shared, taxed. Hand-worked, and against Python's own decimal arithmetic."""

from decimal import ROUND_HALF_UP, Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarrow_lane.measure.money import (
    CURRENCIES,
    MOST,
    NUMBER_FORMS,
    MoneyTrouble,
    checked,
    currency_of,
    decimal_of,
    money_text,
    number_text,
    paper_text,
    percent_text,
    read_money,
    rounded_share,
    rounded_up,
    tax_on,
    tax_within,
)

EURO, YEN, DINAR = currency_of("EUR"), currency_of("JPY"), currency_of("KWD")


@pytest.mark.parametrize(
    ("written", "cents"),
    [
        ("240", 24_000), ("€ 1,240", 124_000), ("1.240,50", 124_050), ("1 240,50 €", 124_050), ("12'500.05", 1_250_005),
        ("0,5", 50), ("1,234,567.89", 123_456_789), ("EUR 7", 700), ("3.000", 300_000), ("1’000", 100_000), ("0", 0),
    ],
)  # fmt: skip
def test_amounts_are_read_as_people_write_them(written, cents):
    assert read_money(written, EURO) == cents


def test_a_currency_without_cents_and_one_with_thousandths():
    assert read_money("48000", YEN) == 48_000 and read_money("48,000", YEN) == 48_000
    with pytest.raises(MoneyTrouble, match="more digits behind the mark than JPY has"):
        read_money("480.5", YEN)
    assert read_money("1.250", DINAR) == 1_250 and read_money("1,250.500", DINAR) == 1_250_500
    assert number_text(1_250, DINAR) == "1.250" and number_text(48_000, YEN) == "48,000"


@pytest.mark.parametrize("written", ["", "  ", "abc", "12.345", "1,2,3", "--5", "1e12", "NaN", "١٢"])
def test_what_is_no_amount_is_refused_in_a_sentence(written):
    if written == "12.345":
        assert read_money(written, EURO) == 1_234_500, "three digits are a group"
        return
    with pytest.raises(MoneyTrouble) as said:
        read_money(written, EURO, "The payment")
    assert said.value.sentence.startswith("The payment was not taken")


def test_less_than_nothing_and_too_much_are_refused():
    with pytest.raises(MoneyTrouble, match="less than nothing"):
        read_money("-5", EURO)
    with pytest.raises(MoneyTrouble, match="larger than any painting"):
        read_money("1000000000000", EURO)
    assert checked(MOST) == MOST
    with pytest.raises(MoneyTrouble, match="not among those"):
        currency_of("ABC")


def test_tax_by_hand():
    assert tax_on(10_000, 1900) == 1_900 and tax_within(11_900, 1900) == 1_900
    assert tax_within(24_000, 2000) == 4_000, "240.00 holds 40.00 at 20 %"
    assert tax_within(100, 700) == 7, "1.00 at 7 %: 0.0654 rounds to 0.07"
    assert tax_within(9_999, 0) == 0 and tax_within(9_999, 10_000) == 5_000, "at 100 % half, 49.995 rounds up"
    assert tax_on(50, 100) == 1 and tax_on(-50, 100) == -1, "halves go away from nothing"


@given(st.integers(-MOST, MOST), st.integers(0, 10_000))
def test_shares_round_as_decimal_does(amount, rate):
    exact = (Decimal(amount) * rate / 10_000).quantize(Decimal(1), ROUND_HALF_UP)
    assert rounded_share(amount, rate, 10_000) == int(exact)


@given(st.integers(0, MOST), st.integers(0, 10_000))
def test_net_and_tax_make_the_gross(gross, rate):
    tax = tax_within(gross, rate)
    assert 0 <= tax <= gross and abs(tax_on(gross - tax, rate) - tax) <= 1


def test_a_share_of_nothing_is_refused():
    with pytest.raises(MoneyTrouble):
        rounded_share(1, 1, 0)


@given(st.sampled_from(CURRENCIES), st.sampled_from(NUMBER_FORMS), st.integers(0, MOST))
def test_what_is_written_reads_back(currency, form, amount):
    if currency.digits != 3:  # with three digits a single mark may be either
        assert read_money(number_text(amount, currency, form), currency) == amount
    assert decimal_of(amount, currency).scaleb(currency.digits) == amount


def test_how_money_is_said():
    pound = currency_of("GBP")
    assert money_text(24_000, pound) == "£\u2009240" and money_text(24_050, pound) == "£\u2009240.50"
    assert money_text(-124_000, EURO, "1.234,50") == "−€\u20091.240" and money_text(0, EURO) == "€\u20090"
    assert paper_text(124_000, EURO, "1 234,50") == "1\u202f240,00\u00a0EUR"
    assert percent_text(2000) == "20\u202f%" and percent_text(10_000) == "100\u202f%"
    assert percent_text(1900) == "19\u202f%" and percent_text(770) == "7.7\u202f%" and percent_text(0) == "0\u202f%"
    assert rounded_up(100_01, 10_00) == 110_00 and rounded_up(0, 10_00) == 0
