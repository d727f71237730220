"""The papers that go with a portrait: what each says, its pages, and giving it out with its number."""

import io
from collections.abc import Callable
from dataclasses import replace
from typing import TYPE_CHECKING, Literal

from PIL import Image

from yarrow_lane.books.account import Account
from yarrow_lane.books.entering import Parties, parties
from yarrow_lane.deliver.handover import needs_varnish
from yarrow_lane.deliver.parcel import ParcelTrouble, framed, padding_list, parcel_of
from yarrow_lane.deliver.signature import corner_words
from yarrow_lane.easel.standing import last_painted
from yarrow_lane.lane.happening import of_kind
from yarrow_lane.lane.money import PaperGiven, PaperKind
from yarrow_lane.measure.late import late
from yarrow_lane.measure.lengths import size_text
from yarrow_lane.measure.money import currency_of, money_text
from yarrow_lane.measure.raster import Picture
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.measure.words import counted
from yarrow_lane.store.codec import from_plain_json, to_plain_json
from yarrow_lane.ui.rooms.deliver.papers_strip import PaperKey, PaperShown

if TYPE_CHECKING:
    from yarrow_lane.documents import care_sheet, certificate, delivery_note, invoice, page_style, parcel_label
    from yarrow_lane.ui.rooms.deliver.page import DeliverPage
else:  # what writes PDF is loaded with the first paper
    care_sheet = late("yarrow_lane.documents.care_sheet")
    certificate = late("yarrow_lane.documents.certificate")
    delivery_note = late("yarrow_lane.documents.delivery_note")
    invoice = late("yarrow_lane.documents.invoice")
    page_style = late("yarrow_lane.documents.page_style")
    parcel_label = late("yarrow_lane.documents.parcel_label")

NAMES: dict[PaperKey, str] = {
    "invoice": "Bill", "care sheet": "Care of it", "certificate": "Who made it", "delivery note": "Inside list", "parcel label": "Label",
}  # fmt: skip
_GIVEN: tuple[Literal["care sheet", "certificate", "delivery note"], ...] = ("care sheet", "certificate", "delivery note")
_PICTURE_PX = 900


class Papers:
    """Made for the page; keeps the finished painting's picture for the certificate."""

    def __init__(self, page: "DeliverPage") -> None:
        self.page = page
        self.picture: Picture | None = None

    # --- what is written

    def given(self, kind: PaperKind) -> PaperGiven | None:
        """The last one given out of that kind."""
        found = [p for p in of_kind(self.page.commission.log, PaperGiven) if p.paper == kind]
        return found[-1] if found else None

    def shown(self, account: Account, chosen: str) -> tuple[PaperShown, ...]:
        """All of them with their state."""
        terms = self.page.studio.terms
        left = account.still_to_pay if account.agreed is not None else 0
        money = money_text(max(0, left), currency_of(account.agreed.currency) if account.agreed else terms.money, terms.form)
        bill = (
            ("paid", "")
            if account.agreed is not None and left <= 0
            else (f"{money} to pay", "from the books")
            if account.agreed
            else ("no price agreed", "in the books")
        )
        words: dict[PaperKey, tuple[str, str]] = {
            "invoice": bill,
            "care sheet": ("light, dust,", "cleaning"),
            "certificate": ("size, materials,", "its own picture"),
            "delivery note": ("what lies in the", "parcel, to sign"),
            "parcel label": (self.page.shipping.booked.courier, self.page.shipping.booked.tracking)
            if self.page.shipping.booked
            else ("once a courier", "takes it"),
        }
        written: dict[PaperKey, bool] = {
            "invoice": bool(account.invoices),
            "parcel label": self.page.shipping.booked is not None,
        }
        for kind in _GIVEN:
            written[kind] = self.given(kind) is not None
        return tuple(PaperShown(key, NAMES[key], words[key], written[key], key == chosen) for key in NAMES)

    # --- their pages

    def pdf(self, key: PaperKey) -> bytes:
        """The paper as it was given, else as it would be written now. Raises `Trouble` that says what is missing."""
        makers: dict[PaperKey, Callable[[], bytes]] = {
            "invoice": self._bill,
            "care sheet": self._care,
            "certificate": lambda: self._certificate_pdf(),
            "delivery note": self._note,
            "parcel label": self._label,
        }
        return makers[key]()

    @property
    def _between(self) -> Parties:
        b, studio = self.page.commission.brief, self.page.studio
        return parties(b.client, b.client_address, studio.painter, studio.name, studio.terms)

    @property
    def _size(self) -> str:
        return self.page.commission.transfer.paper

    @property
    def title(self) -> str:
        """The painting's own title, else the commission's."""
        c = self.page.commission
        return c.deliver.finish.title or c.brief.title

    def _bill(self) -> bytes:
        account, terms = self.page.account, self.page.studio.terms
        if not account.invoices:
            raise Trouble("There is no bill yet", "nothing was invoiced", "ask for the money in the books")
        paper = invoice.invoice_paper(account.invoices[-1].invoice, self.page.commission.brief.title, terms.bank, terms.form)
        return page_style.paper_pdf(paper, self._size)

    def _care(self) -> bytes:
        c, between = self.page.commission, self._between
        varnished = bool(c.deliver.coats)
        at = self.page.workroom.now
        name = self.page.studio.painter or self.page.studio.name
        return page_style.paper_pdf(
            care_sheet.care_paper(self.title, c.brief.medium, varnished, between.sender, name, at), self._size
        )

    def certificate(self, number: int) -> "certificate.Certificate":
        """What it says today."""
        c, studio = self.page.commission, self.page.studio
        if not c.compose.sized:
            raise Trouble("There is no certificate yet", "the canvas has no size", "choose it at Compose")
        d, f = c.deliver, c.deliver.finish
        last = last_painted(c.easel)
        finished = (d.signed or last or self.page.workroom.now).date()
        varnish = f"{f.sheen}, {counted(len(d.coats), 'thin coat')}" if d.coats else ""
        signed = corner_words(f.place, c.compose.width_mm) if d.signed and f.place else ""
        depth = f", {c.compose.sides.depth_mm:g} mm deep" if c.compose.sides.depth_mm else ""
        return certificate.Certificate(
            number, self.title, studio.painter or studio.name, size_text(c.compose.width_mm, c.compose.height_mm, studio.unit) + depth,
            f"{c.brief.medium} on {'paper' if not needs_varnish(c.brief.medium) else 'canvas'}", finished, self._materials(), varnish, signed,
            "The painting is the client's; the picture right stays with the painter unless both agreed otherwise in writing.",
            width_mm=c.compose.width_mm, height_mm=c.compose.height_mm,
        )  # fmt: skip

    def _materials(self) -> tuple[str, ...]:
        c, box = self.page.commission, self.page.studio.paintbox
        used = sorted({s.tube for w in c.palette.wells for s in w.recipe} & {t.id for t in box.tubes})
        return tuple(box.names[t] for t in used)

    def _certificate_pdf(self) -> bytes:
        given = self.given("certificate")
        said = (
            from_plain_json(certificate.Certificate, given.content)
            if given is not None and given.content
            else self.certificate(0)
        )
        at = given.at if given is not None else self.page.workroom.now
        return page_style.paper_pdf(
            certificate.certificate_paper(replace(said, jpeg=self._jpeg()), self._between.sender, at), self._size
        )

    def _jpeg(self) -> bytes:
        if self.picture is None:
            return b""
        out = io.BytesIO()
        image = Image.fromarray(self.picture)
        image.thumbnail((_PICTURE_PX, _PICTURE_PX), Image.Resampling.LANCZOS)
        image.save(out, "JPEG", quality=92)
        return out.getvalue()

    def _note(self) -> bytes:
        c, given, between, now = self.page.commission, self.given("delivery note"), self._between, self.page.workroom.now
        p = parcel_of(c.compose.width_mm, c.compose.height_mm, c.compose.sides, c.deliver.finish.padding_mm)
        in_frame = framed(c.compose.sides)
        what = [("the painting", f"{self.title}, {p.of_paint_kg:.1f} kg" + (", framed" if in_frame else ""))]
        if c.deliver.finish.hanging != "none":
            what.append((c.deliver.finish.hanging, "on the back"))
        what += [("certificate", "signed"), ("care sheet", "1 page")]
        what += [(name, "round it") for name, _ in padding_list(p, c.deliver.finish.padding_mm, in_frame, False)[:2]]
        way = {"courier": "by courier", "express": "by express courier", "by hand": "by hand"}[c.deliver.way]
        number = given.number if given is not None else 0
        day = given.at if given is not None else now
        paper = delivery_note.delivery_note_paper(
            number, self.title, tuple(what), between.to, between.sender, day.date(), way, day
        )
        return page_style.paper_pdf(paper, self._size)

    def _label(self) -> bytes:
        c, booked = self.page.commission, self.page.shipping.booked
        if booked is None:
            raise Trouble("There is no label yet", "no courier has taken the parcel on", "choose one beside the parcel")
        if not c.brief.client_address.strip():
            raise Trouble(
                "The label was not written",
                "the client's address is not on record",
                "write it at Intake, beside the mail address",
            )
        p = parcel_of(c.compose.width_mm, c.compose.height_mm, c.compose.sides, c.deliver.finish.padding_mm)
        measures = f"{p.length_cm} × {p.width_cm} × {p.height_cm} cm"
        between = self._between
        return parcel_label.parcel_label(
            parcel_label.Label(booked.courier, booked.tracking, between.to, between.sender, measures, f"{p.weight_kg:.1f} kg")
        )

    # --- giving

    def give(self, key: PaperKey) -> None:
        """The paper is written: it gets its number and is kept as it is now. Raises `Trouble`."""
        page, now = self.page, self.page.workroom.now
        if key in ("invoice", "parcel label"):
            self.pdf(key)  # says what is missing
            return
        kind = next(k for k in _GIVEN if k == key)
        self.pdf(key)
        if kind == "certificate":
            page.desk.happen_numbered(
                page.commission_id, "certificate",
                lambda n: PaperGiven(now, n, "certificate", to_plain_json(self.certificate(n))), "Deliver",
            )  # fmt: skip
            return
        page.desk.happen_numbered(page.commission_id, kind, lambda n: PaperGiven(now, n, kind), "Deliver")

    def missing(self) -> str:
        """Letters in names that the shipped faces cannot print; "" when there are none."""
        b = self.page.commission.brief
        return str(page_style.missing_letters(f"{b.client} {b.client_address} {self.title} {self.page.studio.painter}"))

    def all_pdfs(self) -> dict[str, bytes]:
        """Those that can be written, by file name: for the archive."""
        found = {}
        for key in NAMES:
            try:
                found[f"{key}.pdf"] = self.pdf(key)
            except (Trouble, ParcelTrouble):
                continue  # what is not written yet is not in the archive
        return found
