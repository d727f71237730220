"""The compose page: seven ways of working on the composition, each with a table of its own."""

from collections.abc import Callable

from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QStackedLayout

from yarrow_lane.commission.recompose import Proposal, recompose
from yarrow_lane.commission.standing import photos_that_count, size_to_take
from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.proposed_size import ProposedSize
from yarrow_lane.ui.bench_sheet import BenchSheet, ChoiceSheet, Switch
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.room_mode import ModedPage
from yarrow_lane.ui.rooms.compose.cut_mode import CutMode
from yarrow_lane.ui.rooms.compose.mode import Mode
from yarrow_lane.ui.rooms.compose.place_mode import PlaceMode
from yarrow_lane.ui.rooms.compose.proof_mode import ProofMode
from yarrow_lane.ui.rooms.compose.sides_mode import SidesMode
from yarrow_lane.ui.rooms.compose.size_mode import SizeMode
from yarrow_lane.ui.rooms.compose.variants_mode import VariantsMode
from yarrow_lane.ui.rooms.compose.wall_mode import WallMode
from yarrow_lane.ui.workroom import Workroom


class ComposePage(ModedPage):
    """Door 2."""

    door = "Compose"

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.pending: Compose | None = None  # what is proposed while later work waits for an answer
        self.sizing, self.placing, self.on_wall = SizeMode(self), PlaceMode(self), WallMode(self)
        order: tuple[Mode, ...] = (
            self.sizing, CutMode(self), self.placing, SidesMode(self), self.on_wall, VariantsMode(self), ProofMode(self),
        )  # fmt: skip
        self.modes = {mode.name: mode for mode in order}
        self.mode = self.sizing
        self._stack = QStackedLayout(self.table)
        for mode in self.modes.values():
            self._stack.addWidget(mode.widget)
        self.picture = self.crop_view
        workroom.judging.judged.connect(self._judged)  # a method: it is let go with the page, a closure would outlive it

    @property
    def crop_view(self) -> PictureView:
        """The photograph with the crop on it."""
        return self.sizing.view

    def _judged(self) -> None:
        self.workroom.guard.attempt(self._measured)

    def _measured(self) -> None:
        if self.commission_id and self.isVisible() and not self.sizing.handles.dragging:
            self.refresh()

    def opened(self) -> None:
        self.pending = None
        for mode in self.modes.values():
            mode.opened()
        # What was begun is gone on with: sitters that are placed are seen at once.
        self.mode = self.placing if self.commission.compose.pieces else self.sizing

    @property
    def shown(self) -> Compose:
        """What is on the table: the composition on record, or the one proposed."""
        return self.pending or self.commission.compose

    @property
    def size_to_take(self) -> ProposedSize | None:
        """The size the yellow field names while none is chosen."""
        c = self.commission
        return size_to_take(c, self.studio, self.desk.evidence.of_all(photos_that_count(c)))

    def show_placed(self, piece_id: int) -> None:
        """Go to where the sitters are placed, that one chosen."""
        self.placing.chosen = piece_id
        self.work_on("place")

    def refresh(self) -> None:
        if self.mode.why_not():  # what it needs was taken back meanwhile
            self.mode.left()
            self.mode = self.sizing
        sheets = self.mode.refresh()
        self._stack.setCurrentWidget(self.mode.widget)
        self.picture = self.mode.picture
        options = tuple((name, name) for name in self.modes)
        switch = Switch("Work on", options, self.work_on, self.mode.name)
        act = sheets.act or self.next_act(self.sizing.lay_or_go)
        self.show_sheets(BenchSheet(sheets.sections, act), ChoiceSheet((switch, *sheets.switches), sheets.remark))

    # --- what a change would be

    def attempt(self, do: Callable[[], object]) -> None:
        """Do what a hand on the picture means; trouble is said."""
        self.workroom.guard.attempt(do)

    @staticmethod
    def proposal(label: str, compose: Compose) -> Proposal:
        """Another composition, with what it does to later work."""
        return Proposal(label, "Compose", lambda c: recompose(c, compose))

    def propose_compose(self, label: str, compose: Compose) -> None:
        """Take another composition; while later work waits for an answer it is shown as proposed."""
        self.pending = compose

        def answered(_: bool) -> None:
            self.pending = None

        self.propose(self.proposal(label, compose), answered)
        if self.pending is not None:
            self.refresh()  # it is shown while it waits

    def key(self, event: QKeyEvent) -> bool:
        return self.mode.key(event)
