"""The guide and the words: what they name is there. Keys, doors, buttons, files, numbers of doors; the sheet itself by mouse and keys."""

import re
from pathlib import Path

import pytest
from PySide6.QtCore import QPoint, Qt

import yarrow_lane
from tests.journeys.hands import keys
from yarrow_lane.lane.doors import DOORS
from yarrow_lane.ui.actions import ACTIONS, ROOM_KEYS
from yarrow_lane.ui.guide_sheet import CHAPTERS, GuideSheet, chapter

SOURCE = Path(yarrow_lane.__file__).parent
DOCS = SOURCE.parent.parent / "docs"
EVERYTHING = "\n".join(p.read_text() for p in SOURCE.rglob("*.py"))
KEYS = {k for a in ACTIONS for k in a.keys} | {"Enter", "Esc", "Space", "F1"}


@pytest.mark.parametrize("name", [n for n, _ in CHAPTERS])
def test_what_a_chapter_names_is_there(name):
    text = chapter(name)
    assert text.startswith("# ") and len(text) > 500
    for bold in re.findall(r"\*\*([^*]+)\*\*", text):
        if re.fullmatch(r"(Ctrl\+(Shift\+)?)?[A-Z]|F\d+|Enter|Esc|Space", bold):
            assert bold in KEYS or any(bold in k.keys for k in ROOM_KEYS), bold
        elif bold.endswith("…"):
            assert bold in EVERYTHING, f"a button called {bold}"
    for picture in re.findall(r"!\[[^]]+\]\(([^)]+)\)", text):
        assert (SOURCE / "guide" / picture).is_file(), picture
    for file in re.findall(r"`([^`]+)`", text):
        assert file in EVERYTHING, file


def test_every_door_is_in_the_guide_and_in_order():
    text = chapter("doors")
    places = [text.index(f"| {door} |") for door in DOORS]
    assert places == sorted(places)
    first = chapter("first-portrait")
    assert all(door in first for door in DOORS)


def test_what_can_hurt_defers_to_those_who_know():
    assert "safety data sheet" in chapter("trouble") and "qualified person" in chapter("trouble")


def test_the_guide_opens_walks_and_closes(qtbot, window):
    keys(qtbot, window, Qt.Key.Key_F1)
    (sheet,) = window.findChildren(GuideSheet)
    assert sheet.isVisible() and "ten minutes" in sheet.page.toPlainText()
    for n in range(1, len(CHAPTERS)):
        keys(qtbot, sheet.names, Qt.Key.Key_Down)
        assert sheet.names.currentRow() == n and sheet.page.toPlainText().strip()
    window.grab()
    keys(qtbot, sheet, Qt.Key.Key_Escape)
    assert not sheet.isVisible() and window.room == "Studio"
    window.guide()
    assert window.findChildren(GuideSheet) == [sheet] and sheet.names.currentRow() == len(CHAPTERS) - 1, "where it was left"
    qtbot.mouseClick(sheet, Qt.MouseButton.LeftButton, pos=QPoint(5, 5))
    assert not sheet.isVisible()


def test_the_words_of_the_product_are_in_use_and_told_once():
    rows = [line.split("|")[1].strip() for line in (DOCS / "words.md").read_text().splitlines() if line.startswith("| ")][1:]
    words = [w for w in rows if w and not set(w) <= {"-"}]
    assert len(words) == len(set(words)) > 40
    text = (EVERYTHING + "".join(chapter(n) for n, _ in CHAPTERS)).casefold()
    assert [w for w in words if w not in text] == []


def test_no_key_of_a_room_means_two_things():
    for where in {k.where for k in ROOM_KEYS}:
        own = [k for k in ROOM_KEYS if k.where == where]
        told = [(part, k.words.split(":")[0] if ":" in k.words else "") for k in own for part in k.keys.split()]
        letters = [t for t in told if re.fullmatch(r"[A-Z]|Space", t[0])]
        assert len(letters) == len(set(letters)), f"{where}: {letters}"


def test_every_dependency_has_its_reason_and_its_licence():
    names = re.findall(r'^    "([A-Za-z0-9-]+)[><=]', (SOURCE.parent.parent / "pyproject.toml").read_text(), re.M)
    reasons, licences = ((DOCS / f).read_text().casefold() for f in ("dependencies.md", "licences.md"))
    for name in {n.casefold().removesuffix("-essentials") for n in names}:
        assert name in reasons and name in licences, name
    for font in (SOURCE / "fonts").glob("*.ttf"):
        assert font.stem.split("-")[0].replace("Yarrow", "Yarrow ") in (DOCS / "licences.md").read_text()
