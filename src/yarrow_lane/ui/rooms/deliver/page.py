"""The deliver page: the way out, step by step."""

from collections.abc import Callable
from dataclasses import replace

from PySide6.QtWidgets import QHBoxLayout

from yarrow_lane.deliver.handover import (
    DELIVER,
    Deliver,
    add_line,
    begin_rest,
    hand_over,
    look_again,
    pack,
    pack_from,
    sign,
    step_now,
    varnish,
)
from yarrow_lane.documents.delivery_sheet import delivery_sheet
from yarrow_lane.lane.part import Edit
from yarrow_lane.ui.bench_sheet import ChoiceSheet, Meaning
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import show_reference
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.deliver.sheet import sheet_of
from yarrow_lane.ui.rooms.deliver.steps import StepsView
from yarrow_lane.ui.rooms.deliver.view import TO_MEND, deliver_view, earliest_varnish
from yarrow_lane.ui.workroom import Workroom


class DeliverPage(RoomPage):
    """Door 9."""

    door = "Deliver"

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.draft = ""
        self.portrait = PictureView("The portrait")
        self.picture = self.portrait
        self.steps = StepsView()
        row = QHBoxLayout(self.table)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addWidget(self.portrait, 4)
        row.addWidget(self.steps, 5)

    def opened(self) -> None:
        self.draft = ""

    def refresh(self) -> None:
        c = self.commission
        act = self.next_act(self._take_step)
        if act.do == self._take_step and step_now(c.deliver, c.brief.medium) != "last list":
            act = replace(act, detail=f"{act.detail} · Enter once it is done")
        view = deliver_view(c, self.studio, self.draft, self.workroom.now, self, act)
        show_reference(self.portrait, self.workroom.references, c.compose, self)
        self.steps.show_steps(view.steps)
        self.show_sheets(view.bench, ChoiceSheet())

    def write_draft(self, text: str) -> None:
        self.draft = text

    def add_to_list(self) -> Meaning:
        self.bench.store_pending()
        text = self.draft
        if self.hand(lambda: Edit(DELIVER, "Put a line on the last list", lambda d: add_line(d, text))) is None:
            self.write_draft("")
            self.refresh()
        return None

    def save_sheet(self) -> None:
        """Write the sheet that goes on file with the portrait."""
        c = self.commission
        data = delivery_sheet(sheet_of(c, self.studio), c.transfer.paper)
        self.save_file("Save the delivery sheet", f"{c.brief.title} delivery", ".pdf", data)

    def _take_step(self) -> Meaning:
        """What the yellow field says: the next step of the way out, now."""
        c, now = self.commission, self.workroom.now
        earliest_coat, earliest_pack = earliest_varnish(c, self.studio), pack_from(c.deliver, c.brief.medium)
        resting = c.deliver.rest_from is not None
        steps: dict[str, tuple[str, Callable[[Deliver], Deliver]]] = {
            "sign": ("Signed it", lambda d: sign(d, now)),
            "rest": ("Looked with fresh eyes", lambda d: look_again(d, now))
            if resting
            else ("Turned it to the wall", lambda d: begin_rest(d, now)),
            "varnish": ("Varnished, a thin coat", lambda d: varnish(d, now, earliest_coat)),
            "pack": ("Packed it", lambda d: pack(d, now, earliest_pack)),
            "deliver": ("Delivered it", lambda d: hand_over(d, now)),
        }
        step = step_now(c.deliver, c.brief.medium)
        if step not in steps:
            left = next((line.text for line in c.deliver.last_list if not line.done), None)
            self.bench.point_at(left or TO_MEND)
            return None
        label, change = steps[step]
        return Edit(DELIVER, label, change)
