"""What a proof says of the composition, and the letter that goes with it."""

from collections.abc import Sequence

from yarrow_lane.compose.changes import changes
from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.proofs import Proof, Proofs
from yarrow_lane.compose.scale import Scales, share_words
from yarrow_lane.compose.sides import frame_words, outer
from yarrow_lane.intake.brief import Brief
from yarrow_lane.measure.lengths import Unit, size_text
from yarrow_lane.measure.words import begun


def proof_facts(
    compose: Compose, proofs: Proofs, brief: Brief, scales: Scales, unit: Unit, before: Proof | None
) -> tuple[tuple[str, str], ...]:  # fmt: skip
    """Label and words of each line: size, who, scale, edges, what is included, the price, what changed."""
    facts = [("Size", f"{size_text(compose.width_mm, compose.height_mm, unit)}, {brief.medium}")]
    who = [p.name for p in compose.pieces] or [s.name for s in brief.sitters]
    facts.append(("Shows", ", ".join(who)))
    shares = [(p.name, s) for p in compose.pieces if (s := scales.share(p.id, p.mm_per_px)) is not None]
    if shares:
        facts.append(("Scale", "; ".join(f"{name} {share_words(*share)}" for name, share in shares)))
    facts.append(("Edges", edge_words(compose, unit)))
    if proofs.included:
        facts.append(("Included", proofs.included))
    if proofs.price:
        facts.append(("Price", proofs.price))
    if before is not None:
        seen = [c.words for c in changes(before.composed, compose) if c.seen]
        facts.append(("Changed", (begun("; ".join(seen)) + ".") if seen else "nothing that is seen"))
    return tuple(facts)


def edge_words(compose: Compose, unit: Unit) -> str:
    """Edges and frame in a line."""
    sides = compose.sides
    finish = {
        "undecided": "not decided yet",
        "wrapped": "the picture goes round them",
        "dark": "painted dark",
        "colour": "painted in one colour",
    }[sides.finish]
    words = f"{finish}, {sides.depth_mm:g} mm deep, {frame_words(sides)}"
    if frame_words(sides) != "no frame":
        size = outer(sides, compose.width_mm, compose.height_mm)
        words += f", {size_text(size.width_mm, size.height_mm, unit)} over all"
    return words


def proof_letter(brief: Brief, number: int, painter: str, changed: Sequence[str]) -> str:
    """The letter with the proof. The client's words stand for their approval: later wishes are new scope."""
    lines = [f"Dear {brief.client},", ""]
    if number == 1:
        lines.append(f"here is how I should like to paint {brief.title}: see the page that comes with this letter.")
    else:
        lines.append(f"here is proof {number} of {brief.title}.")
        if changed:
            lines.append("What changed since the last one: " + "; ".join(changed) + ".")
    lines += [
        "",
        "Please look at it at leisure: who is where, how large, the background and the edges.",
        "Write me that it is right, or what you would like otherwise. I begin to paint once you have approved it;",
        "what is changed after that is new work and will be priced as such.",
        "",
        "With kind regards,",
        painter,
    ]
    return "\n".join(lines)
