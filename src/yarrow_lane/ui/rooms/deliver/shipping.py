"""Sending it: couriers' offers, booking one, following the parcel, and what to do when it is late, hurt or lost."""

from datetime import timedelta
from functools import partial
from typing import TYPE_CHECKING, Any

from yarrow_lane.books import entering
from yarrow_lane.deliver.handover import DELIVER, send_by, with_finish
from yarrow_lane.deliver.parcel import Parcel
from yarrow_lane.lane.happening import of_kind
from yarrow_lane.lane.money import ParcelBooked, ParcelSeen
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.days import clock_text, day_text
from yarrow_lane.measure.money import money_text, read_money
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.standins.courier import SERVICES, Fault, Offer, followed, offers, tracking_number
from yarrow_lane.ui.bench_sheet import Amount, Fact, Field, Line, Note, Pick, Press, Row, Section

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.deliver.page import DeliverPage

_FAULTS: tuple[tuple[Fault, str], ...] = (
    ("", "all goes well"),
    ("delayed", "delayed"),
    ("damaged", "damaged"),
    ("lost", "lost"),
)
_WHAT_NOW = {
    "delayed": "Tell the client. Nothing else can be done yet.",
    "damaged": "Have it written down by the carrier, photograph box and painting before unpacking further, and claim within the days of their terms.",
    "lost": "Claim the cover. Agree with the client: paint it again at a new day, or give the money back with a credit note in the books.",
    "delivered": "Write it down as delivered, and ask how they like it.",
}


class Shipping:
    """What the page knows of the parcel; `fault` is what the stand-in courier does with it."""

    def __init__(self, page: "DeliverPage") -> None:
        self.page = page
        self.fault: Fault = ""

    @property
    def booked(self) -> ParcelBooked | None:
        """The last one a courier took on."""
        found = of_kind(self.page.commission.log, ParcelBooked)
        return found[-1] if found else None

    @property
    def seen(self) -> tuple[ParcelSeen, ...]:
        """What the courier said of the last one."""
        booked = self.booked
        return tuple(s for s in of_kind(self.page.commission.log, ParcelSeen) if booked and s.tracking == booked.tracking)

    def cover(self) -> int:
        """What it is insured for: as written, else its price."""
        cover = self.page.commission.deliver.finish.cover
        return cover if cover >= 0 else self.page.account.price

    def offers(self, parcel: Parcel) -> tuple[Offer, ...]:
        """Of all couriers."""
        return offers(parcel, self.cover(), self.page.studio.terms.money)

    # --- on the bench

    def sections(self, parcel: Parcel | None, open_: bool) -> tuple[Section, ...]:
        """The parcel's choices, folded unless `open_`, and where it is once it left."""
        page, terms = self.page, self.page.studio.terms
        f = page.commission.deliver.finish
        lines: list[Line] = [
            Amount("Padding on each side", f.padding_mm / 10, 0, 50, lambda v: Edit(DELIVER, "Chose the padding", lambda d: with_finish(d, padding_mm=v * 10)), 1, 0, "cm"),
            Field("Cover on the way", money_text(self.cover(), terms.money, terms.form), self._write_cover),
        ]  # fmt: skip
        said = f"{f.padding_mm / 10:g} cm round it, cover {money_text(self.cover(), terms.money, terms.form)}"
        found = [Section("The parcel", tuple(lines), "" if open_ else said)]
        last = self.seen[-1].state if self.seen else ""
        if parcel is not None and (self.booked is None or last == "lost"):
            rows: list[Line] = []
            for o in self.offers(parcel):
                detail = o.why_not or f"{o.service.days} day{'s' * (o.service.days != 1)} on the way; press to book"
                rows.append(
                    Row(
                        "",
                        o.service.name,
                        detail,
                        money_text(o.price, terms.money, terms.form),
                        aside=bool(o.why_not),
                        do=partial(self.book, o),
                    )
                )
            rows.append(Note("Couriers here are stand-ins of our own; compare their terms and what their cover leaves out."))
            found.append(Section("Who takes it", tuple(rows)))
        if self.booked is not None:
            found.append(self._way_section())
        return tuple(found)

    def _write_cover(self, text: str) -> Edit[Any]:
        amount = read_money(text, self.page.studio.terms.money, "The cover")
        return Edit(DELIVER, "Wrote the cover", lambda d: with_finish(d, cover=amount))

    def _way_section(self) -> Section:
        booked, now = self.booked, self.page.workroom.now
        assert booked is not None
        lines: list[Line] = [Fact(booked.courier, booked.tracking), Fact("Expected", day_text(booked.expected))]
        lines += [
            Note(f"{clock_text(s.at, now)}: {s.words}", "wrong" if s.state in ("delayed", "lost", "damaged") else "plain")
            for s in self.seen
        ]
        if self.seen and self.seen[-1].state in _WHAT_NOW:
            lines.append(Note(_WHAT_NOW[self.seen[-1].state]))
        lines.append(Press("Ask where it is", self.follow))
        lines.append(Pick("The stand-in's parcel is", self.fault, _FAULTS, self._set_fault))
        return Section("On its way", tuple(lines))

    def _set_fault(self, fault: Fault) -> None:
        self.fault = fault
        self.page.refresh()

    # --- acts

    def book(self, offer: Offer) -> None:
        """A courier takes it on; its price is a cost. Raises `Trouble` while it is not packed."""
        page, now = self.page, self.page.workroom.now
        if offer.why_not:
            raise Trouble(f"{offer.service.name} was not booked", f"it {offer.why_not}", "take another one, or less cover")
        if page.commission.deliver.packed is None:
            raise Trouble(f"{offer.service.name} was not booked", "it is not packed yet", "pack it first")
        code, cover = page.studio.terms.currency, self.cover()

        def entry(number: int) -> ParcelBooked:
            tracking = tracking_number(number, offer.service.name)
            expected = (now + timedelta(days=offer.service.days)).date()
            return ParcelBooked(now, number, offer.service.name, tracking, offer.price, cover, code, expected)

        page.desk.happen_numbered(page.commission_id, "parcel", entry, "Deliver")
        terms = page.studio.terms
        page.desk.books.enter_numbered(
            page.commission_id,
            "cost",
            lambda n: entering.cost(f"parcel by {offer.service.name}", "parcel", offer.price, terms, now.date(), None, now, n),
        )
        if page.commission.deliver.way == "by hand":
            page.hand(lambda: Edit(DELIVER, "It goes by courier", lambda d: send_by(d, "courier")))

    def follow(self) -> None:
        """Ask the courier; what is new is put on record."""
        page, booked = self.page, self.booked
        if booked is None:
            return
        days = next((s.days for s in SERVICES if s.name == booked.courier), 3)
        known = {(s.state, s.at) for s in self.seen}
        news = [
            s for s in followed(booked.tracking, days, booked.at, page.workroom.now, self.fault) if (s.state, s.at) not in known
        ]
        for seen in news:
            page.desk.happen(page.commission_id, seen, "Deliver")
        if not news:
            page.workroom.say("Nothing new from the courier.", False)
