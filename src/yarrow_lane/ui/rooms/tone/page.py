"""The tone page: the crop beside its three values."""

from PySide6.QtWidgets import QHBoxLayout

from yarrow_lane.compose.reference import reference_key
from yarrow_lane.desk.derived import Key, Making
from yarrow_lane.measure.colour.grey import grey_code
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.raster import Picture
from yarrow_lane.tone.three_values import Tone, three_values, value_lightness
from yarrow_lane.ui.bench_sheet import Meaning
from yarrow_lane.ui.kit.frame import Frame
from yarrow_lane.ui.kit.levels import Levels, make_levels
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import beside_or_above, show_reference
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.tone.view import tone_view
from yarrow_lane.ui.workroom import Workroom

Shares = tuple[float, float, float]
Study = tuple[Levels, Shares]


def study_picture(crop: Picture, px_per_mm: float, tone: Tone) -> tuple[Picture, Shares]:
    """The study in three greys, (H, W), and the share of each value."""
    classes, shares = three_values(crop, px_per_mm, tone)
    return grey_code(value_lightness(tone))[classes], shares


class TonePage(RoomPage):
    """Door 4."""

    door = "Tone"

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.look = "both"
        self.shares: Shares | None = None
        self.frame = Frame()
        self.reference = PictureView("The crop", self.frame)
        self.study = PictureView("The three-value study", self.frame)
        self.picture = self.reference
        self._pair = row = QHBoxLayout(self.table)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addWidget(self.reference, 1)
        row.addWidget(self.study, 1)

    def opened(self) -> None:
        self.shares = None
        self.study.show_levels(None, (1, 1))

    def refresh(self) -> None:
        c = self.commission
        show_reference(self.reference, self.workroom.references, c.compose, self)
        self._pair.setDirection(beside_or_above(c.compose))
        self.reference.setVisible(self.look == "both" or not c.compose.framed)
        self.study.setVisible(c.compose.framed)
        self.study.waiting = self.reference.waiting
        self.workroom.references.want(c.compose, self, self._make_study)
        self._show_bench()

    def _show_bench(self) -> None:
        view = tone_view(self.commission, self.shares, self.look, self, self.next_act(self._choose_ground))
        self.show_sheets(view.bench, view.choices)

    def _choose_ground(self) -> Meaning:
        self.bench.point_at("Laid with")
        return None

    def _make_study(self, shown: Shown) -> None:
        c, tone = self.commission, self.commission.tone
        px_per_mm = shown.picture.shape[1] / c.compose.width_mm
        # The ground changes nothing in the study: only limits and squint do.
        key = Key("study", (reference_key(c.compose),), (tone.dark_below, tone.light_above, tone.squint_mm))

        def make(_: Progress) -> Study:
            picture, shares = study_picture(shown.picture, px_per_mm, tone)
            return make_levels(picture), shares

        def ready(study: Study) -> None:
            if self.commission_id == c.id and self.commission.tone == tone:
                self.study.show_levels(study[0], (c.compose.width_mm, c.compose.height_mm))
                if study[1] != self.shares:
                    self.shares = study[1]
                    self._show_bench()

        self.workroom.derived.want(key, self, Making(make, lambda s: s[0].bytes), ready)

    def show_look(self, look: str) -> None:
        """Both side by side, or the study alone."""
        self.look = look
        self.refresh()
