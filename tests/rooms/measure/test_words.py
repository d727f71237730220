"""Words from outside are fit to keep: for JSON, for paper, for a file system."""

from pathlib import Path

from hypothesis import given
from hypothesis import strategies as st

from yarrow_lane.measure.words import cleaned, file_name, one_line

LETTERS = st.text(st.characters(codec=None))  # lone surrogates too


@given(LETTERS)
def test_what_is_kept_can_be_written_and_is_kept_as_it_is(text):
    once = cleaned(text)
    once.encode("utf-8")
    assert cleaned(once) == once and "\r" not in once and "\x00" not in once and "\u202e" not in once


def test_the_painters_own_words_stay():
    for text in ("Łukasz Ždanović – “soft” édges", "two\nlines\tand a tab", "🐕 👩🏽‍🎨", "日本語", "e\u0301"):
        assert cleaned(text) == text


def test_signs_that_show_one_name_as_another_go():
    assert one_line("invoice\u202egpj.exe") == "invoicegpj.exe"
    assert one_line("a\r\nb\x07\x1b[31m\x00c") == "a b [31m c"
    assert one_line("photo \udcff.jpg") == "photo \ufffd.jpg"


@given(LETTERS, st.sampled_from([".pdf", ".zip", ""]))
def test_a_proposed_name_is_a_name(tmp_path_factory, text, ending):
    name = file_name(text, ending)
    assert name.endswith(ending) and len(name.encode()) <= 120 and not name.startswith(".")
    assert Path(name).name == name and name not in ("", ending) and "\0" not in name
    name.encode("utf-8")


def test_names_of_commissions_as_files():
    assert file_name("../../etc/passwd", ".pdf") == "etc passwd.pdf"
    assert file_name("Pip & Moss: a “pair”", " squares.pdf") == "Pip & Moss a “pair” squares.pdf"
    assert file_name("...", ".pdf") == "untitled.pdf" and file_name("ł" * 200, ".pdf") == "ł" * 58 + ".pdf"
