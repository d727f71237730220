"""Clients: one page each, gathered from their commissions."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, datetime

from yarrow_lane.books.account import Account
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.standing import CommissionStanding
from yarrow_lane.intake.rights import PERMISSION_WORDS
from yarrow_lane.lane.happening import LetterSent, ProofAnswered, ProofSent, of_kind
from yarrow_lane.lane.money import Invoiced, PaperGiven, QuoteSent, Reminded

ERASED = "erased client"


def client_key(name: str) -> str:
    """By what commissions count as one client's: the name without case and spaces around."""
    return " ".join(name.split()).casefold()


@dataclass(frozen=True)
class Letter:
    """Something that was sent: when, what in words, and of which commission."""

    at: datetime
    words: str
    title: str


@dataclass(frozen=True)
class Consent:
    """A photograph's right and the consent of those shown."""

    photo: str
    words: str
    title: str


@dataclass(frozen=True)
class Work:
    """One of the client's commissions; `hangs` says where, as the brief has it, once it is delivered."""

    id: str
    title: str
    size_mm: tuple[float, float]
    medium: str
    delivered: date | None
    hangs: str
    answer: str


@dataclass(frozen=True)
class ClientPage:
    """Everything on record about one client."""

    name: str
    mail: str
    address: str
    works: tuple[Work, ...]
    letters: tuple[Letter, ...]
    consents: tuple[Consent, ...]


def clients_in(standings: Iterable[CommissionStanding]) -> dict[str, tuple[CommissionStanding, ...]]:
    """Commissions by client, in the order the clients came; those without a client are left out."""
    found: dict[str, list[CommissionStanding]] = {}
    for s in standings:
        key = client_key(s.client)
        if key:
            found.setdefault(key, []).append(s)
    return {key: tuple(own) for key, own in found.items()}


def client_page(commissions: Sequence[Commission]) -> ClientPage:
    """The page of the client whose commissions these are; the newest knows name and address best."""
    newest = max(commissions, key=lambda c: (c.brief.started, c.id))
    works, letters, consents = [], [], []
    for c in commissions:
        b, d = c.brief, c.deliver
        hangs = ", ".join(
            filter(None, (b.wall_light and f"{b.wall_light} light", b.wall_colour and f"a wall of {b.wall_colour}"))
        )
        works.append(
            Work(c.id, b.title, (c.compose.width_mm, c.compose.height_mm) if c.compose.sized else (0.0, 0.0), b.medium,
                 d.delivered.date() if d.delivered else None, hangs, d.answer.words)
        )  # fmt: skip
        letters += _letters(c)
        consents += [
            Consent(p.name, f"{PERMISSION_WORDS[p.rights.permission]}; consent {p.rights.consent}", b.title)
            for p in c.intake.kept
        ]
    mail = next((c.brief.client_mail for c in (newest, *commissions) if c.brief.client_mail), "")
    address = next((c.brief.client_address for c in (newest, *commissions) if c.brief.client_address), "")
    return ClientPage(
        newest.brief.client, mail, address, tuple(works), tuple(sorted(letters, key=lambda x: x.at)), tuple(consents)
    )


def _letters(c: Commission) -> list[Letter]:
    title = c.brief.title
    found = [Letter(x.at, f"letter {x.number}, asking for photographs", title) for x in of_kind(c.log, LetterSent)]
    found += [Letter(x.at, f"proof {x.number}", title) for x in of_kind(c.log, ProofSent)]
    found += [
        Letter(x.at, f"answer to proof {x.number}: {'approved' if x.approved else 'changes wished'}", title)
        for x in of_kind(c.log, ProofAnswered)
    ]
    found += [Letter(x.at, f"quote {x.number}", title) for x in of_kind(c.log, QuoteSent)]
    found += [Letter(x.at, f"{'credit note' if x.of else 'invoice'} {x.number}", title) for x in of_kind(c.log, Invoiced)]
    found += [Letter(x.at, f"reminder {x.level} of invoice {x.invoice}", title) for x in of_kind(c.log, Reminded)]
    found += [Letter(x.at, f"{x.paper} {x.number or ''}".strip(), title) for x in of_kind(c.log, PaperGiven)]
    return found


@dataclass(frozen=True)
class Erasing:
    """What erasing a client would do: `why_not` when it cannot be done now; what must be kept, what goes."""

    why_not: str
    kept: tuple[str, ...]
    goes: tuple[str, ...]


def erasing(commissions: Sequence[Commission], accounts: Sequence[Account], on_shelf: Sequence[str] = ()) -> Erasing:
    """Invoices and receipts are kept as tax law asks, written consents as proof of the right to paint: common practice, laws differ."""
    open_ = [
        c.brief.title
        for c, a in zip(commissions, accounts, strict=True)
        if a.owed != 0 or (a.agreed and a.to_invoice and not a.cancelled)
    ]
    unfinished = [
        c.brief.title for c, a in zip(commissions, accounts, strict=True)
        if c.deliver.delivered is None and a.agreed is not None and a.cancelled is None
    ]  # fmt: skip
    waiting = [c.brief.title for c in commissions if c.deliver.delivered is None and c.id in on_shelf]
    why = ""
    if unfinished:
        why = f"{unfinished[0]} is still being painted: deliver or cancel it first"
    elif waiting:
        why = f"{waiting[0]} stands on the shelf: put it away first"
    elif open_:
        why = f"the money of {open_[0]} is not settled"
    papers = sum(len(a.invoices) + len(a.credits) + len(a.payments) for a in accounts)
    photos = sum(len(c.intake.photos) for c in commissions)
    consents = sum(
        p.rights.permission == "written" or p.rights.consent.startswith("given") for c in commissions for p in c.intake.kept
    )
    kept = [f"{papers} invoices and receipts, with name and address as they were written"] if papers else []
    kept += [f"{consents} consents: that they were given, and when the photograph came"] if consents else []
    goes = [
        "name, address and mail address outside those papers",
        f"{photos} photographs and everything drawn from them",
        "letters and wishes",
        "all earlier versions",
    ]
    return Erasing(why, tuple(kept), tuple(goes))
