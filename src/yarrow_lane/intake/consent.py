"""Consent of the people shown, and of guardians for children (common practice; local law decides, ask where unsure)."""

from yarrow_lane.intake.brief import Brief, Sitter
from yarrow_lane.intake.photos import Photo


def sitters_shown(photo: Photo, brief: Brief) -> tuple[Sitter, ...]:
    """The sitter the photograph was marked with, else all of them."""
    marked = brief.sitter(photo.sitter_id)
    return (marked,) if marked is not None else brief.sitters


def consent_wants(photo: Photo, brief: Brief) -> str:
    """Whose consent is still missing for painting from this photograph, in words; empty when none is."""
    people = [s for s in sitters_shown(photo, brief) if s.kind == "person" and s.living]
    consent = photo.rights.consent
    if not people or consent in ("not needed", "given by guardian"):
        return ""
    children = [s for s in people if s.child]
    if children:
        names = " and ".join(s.name for s in children)
        return f"wait for the guardian of {names}" if consent == "asked" else f"ask a guardian for consent to paint {names}"
    if consent == "given":
        return ""
    names = " and ".join(s.name for s in people)
    return f"wait for consent from {names}" if consent == "asked" else f"ask {names} for consent to be painted"
