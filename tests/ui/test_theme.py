"""Contrast, figures and the table of keys."""

import pytest
from PySide6.QtGui import QFontInfo, QFontMetricsF

from yarrow_lane.lane.doors import DOORS
from yarrow_lane.ui.actions import ACTIONS, ROOM_KEYS, keys_for
from yarrow_lane.ui.theme.colours import DAY, EVENING, SURROUND, contrast
from yarrow_lane.ui.theme.lettering import SANS, SERIF, lettering
from yarrow_lane.ui.theme.sheet import wear
from yarrow_lane.ui.window import Window


@pytest.mark.parametrize("theme", [DAY, EVENING], ids=["day", "evening"])
def test_text_has_the_contrast_of_wcag(theme):
    """WCAG 2.2, 1.4.3: 4.5 to 1 for text."""
    for ground in (theme.panel, theme.lane, theme.paper, theme.field):
        for ink in (theme.text, theme.soft, theme.wrong, theme.holds):
            assert contrast(ink, ground) >= 4.5, (ink, ground)
    assert contrast(theme.on_here, theme.here) >= 4.5
    assert contrast(theme.on_chosen, theme.chosen) >= 4.5


@pytest.mark.parametrize("theme", [DAY, EVENING], ids=["day", "evening"])
def test_greys_are_neutral(theme):
    for name in ("panel", "lane", "paper", "text", "soft", "rule", "field", "chosen", "weekend"):
        code = getattr(theme, name)
        assert code[1:3] == code[3:5] == code[5:7], name
    assert SURROUND == "#8c8c8c"


@pytest.mark.parametrize("family", [SANS, SERIF])
@pytest.mark.parametrize("weight", ["medium", "bold"])
def test_figures_stand_in_columns(fonts, family, weight):
    font = lettering(15, weight, family)
    assert QFontInfo(font).family() == family
    metrics = QFontMetricsF(font)
    assert len({round(metrics.horizontalAdvance(d), 3) for d in "0123456789"}) == 1
    # Lining: a three does not hang below the line as an old-style one does.
    assert metrics.tightBoundingRect("3").bottom() <= metrics.tightBoundingRect("1").bottom() + 1


def test_keys_are_told_for_every_view_and_done_by_the_window():
    assert {k.where for k in ROOM_KEYS} <= {"", "Studio", "Books", *DOORS}
    assert all(hasattr(Window, a.id) for a in ACTIONS)
    for where in ("Studio", "Books", *DOORS):
        assert len(keys_for(where)) >= len(ACTIONS)


def test_the_same_theme_is_not_put_on_twice(qtbot, qapp, fonts, monkeypatch):
    wear(qapp, False, 100)
    sheets = []
    monkeypatch.setattr(type(qapp), "setStyleSheet", lambda _, sheet: sheets.append(sheet))
    wear(qapp, False, 100)
    assert not sheets, "every widget there is would be polished again"
    wear(qapp, True, 100)
    assert len(sheets) == 1
    monkeypatch.undo()
    wear(qapp, False, 100)
