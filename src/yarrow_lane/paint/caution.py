"""The usual cautions of paints that can hurt; safety data sheets, local rules and qualified people count more."""

CAUTIONS = {
    "oil": "Solvents: air the room, no open flame, rags in a closed metal bin; follow the safety data sheets.",
    "pastel": "Dry pastel dust: do not blow it off; wipe damp, and follow the safety data sheet of each pigment.",
}
SPRAY = "Spray outdoors or well aired, with a mask; follow its safety data sheet."
