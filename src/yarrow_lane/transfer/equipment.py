"""What the painter carries drawings over with: one projector, one room, one printer for all commissions."""

from dataclasses import dataclass

from yarrow_lane.transfer.projector import Projector
from yarrow_lane.transfer.sheets import Printer


@dataclass(frozen=True)
class Equipment:
    """The projector, the light of the room it stands in (lux; a dim one until something is said), the printer and its own error."""

    projector: Projector = Projector()
    room_lux: float = 20.0
    printer: Printer = Printer()
