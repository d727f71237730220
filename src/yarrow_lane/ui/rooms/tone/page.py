"""The tone page: the crop beside its three values."""

from dataclasses import replace

import numpy as np
from PySide6.QtWidgets import QHBoxLayout

from yarrow_lane.measure.colour.cielab import lightness_from_srgb8
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.raster import Picture
from yarrow_lane.tone.three_values import Tone, set_limits, three_values, value_lightness
from yarrow_lane.ui.kit.levels import Levels, make_levels
from yarrow_lane.ui.kit.photo_view import PhotoView
from yarrow_lane.ui.kit.reference_canvas import ReferenceCanvas
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.tone.view import tone_view
from yarrow_lane.ui.workroom import Workroom

Study = tuple[Levels, tuple[float, float, float]]


def study_picture(crop: Picture, px_per_mm: float, tone: Tone) -> tuple[Picture, tuple[float, float, float]]:
    """The study in three greys, (H, W), and the share of each value."""
    classes, shares = three_values(crop, px_per_mm, tone)
    ladder = lightness_from_srgb8(np.repeat(np.arange(256, dtype=np.uint8)[None, :, None], 3, axis=2))[0]
    greys = np.searchsorted(ladder, value_lightness(tone)).clip(0, 255).astype(np.uint8)
    return greys[classes], shares


class _Reference(ReferenceCanvas):
    def __init__(self, page: "TonePage") -> None:
        super().__init__("The crop")
        self._page = page

    def arrived(self) -> None:
        self._page.refresh()


class TonePage(RoomPage):
    """Door 4."""

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.look = "both"
        self.shares: tuple[float, float, float] | None = None
        self._made_of: object = None
        self.reference = _Reference(self)
        self.study = PhotoView()
        self.study.setAccessibleName("The three-value study")
        row = QHBoxLayout(self.table)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addWidget(self.reference, 1)
        row.addWidget(self.study, 1)

    def opened(self) -> None:
        self.shares, self._made_of = None, None

    def refresh(self) -> None:
        c = self.commission
        self.reference.show_reference(self.workroom.pictures, c)
        self.reference.setVisible(self.look == "both" or not c.compose.framed)
        self.study.setVisible(c.compose.framed)
        if self.reference.shown is None:
            self.shares = None
            self.study.show_levels(None, (1, 1))
        else:
            self._make_study(c.tone)
        view = tone_view(c, self.shares, self.look)
        self.show_sheets(view.bench, view.choices)

    def _make_study(self, tone: Tone) -> None:
        shown = self.reference.shown
        assert shown is not None
        # The ground changes nothing in the study: only limits and squint do.
        wanted = (id(shown.picture), tone.dark_below, tone.light_above, tone.squint_mm)
        if wanted == self._made_of:
            return
        self._made_of = wanted
        size = self.reference.content
        px_per_mm = shown.picture.shape[1] / size[0]

        def work(_: Progress) -> Study:
            picture, shares = study_picture(shown.picture, px_per_mm, tone)
            return make_levels(picture), shares

        def done(study: Study) -> None:
            self.shares = study[1]
            self.study.show_levels(study[0], size)
            self.refresh()

        self.workroom.jobs.run("study", work, done)

    def choose(self, key: str, value: str) -> None:
        self.look = value
        self.refresh()

    def change(self, key: str, value: object) -> None:
        number = float(value) if isinstance(value, (int, float)) else 0.0
        tone = self.commission.tone
        if key in ("dark", "light"):
            limits = (number, tone.light_above) if key == "dark" else (tone.dark_below, number)
            try:
                self._edit("Moved the limits of the values", lambda t: set_limits(t, *limits))
            finally:
                self.refresh()  # a refused number goes back to what is on record
        elif key == "squint":
            self._edit("Changed the squint", lambda t: replace(t, squint_mm=number))
        elif key == "ground":
            self._edit(f"Ground: {value}", lambda t: replace(t, ground=str(value)))
        elif key == "coats":
            self._edit(f"{number:.0f} coats of gesso", lambda t: replace(t, ground_coats=int(number)))

    def _edit(self, label: str, step: object) -> None:
        self.desk.do_part(self.commission_id, label, "tone", step)  # type: ignore[arg-type]

    def act(self) -> None:
        if not self.commission.compose.framed:
            self.workroom.open_door(self.commission_id, "Compose")
        elif self.commission.tone.ground:
            self.workroom.open_door(self.commission_id, "Palette")
