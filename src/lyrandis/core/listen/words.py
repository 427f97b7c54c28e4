"""The trade's words for what is recorded, what is wrong with it, and what a sound points to."""

from typing import Literal

What = Literal["pluck", "shot", "reference"]
WHAT_WORDS: dict[What, str] = {
    "pluck": "pluck",
    "shot": "shot",
    "reference": "reference knock",
}
"""Takes that are compared. A reference knock is one fixed thing dropped from one height."""
Brought = Literal["pluck", "shot", "reference", "butt", "taps"]
BROUGHT_WORDS: dict[Brought, str] = {
    **WHAT_WORDS,  # type: ignore[dict-item]
    "butt": "shot at a butt",
    "taps": "tapped shafts",
}

Trouble = Literal[
    "clipped", "too_quiet", "few_takes", "no_takes", "noisy", "low_rate", "gain_rides", "voice",
    "others",
]  # fmt: skip
TROUBLE_WORDS: dict[Trouble, str] = {
    "clipped": "The recorder was overloaded: move it back or lower its gain.",
    "too_quiet": "Hardly any sound: move nearer.",
    "few_takes": "Fewer than three takes: three at least, five are better.",
    "no_takes": "No pluck or shot found.",
    "noisy": "Too noisy here: go indoors or wait for the wind.",
    "low_rate": "Above 3.6 kHz nothing was recorded: a rattle may be missed.",
    "gain_rides": "The phone seems to adjust its own gain: switch it off.",
    "voice": "Somebody speaks, or music plays, between the takes.",
    "others": "Some takes sound like another bow's: strike out what is not yours.",
}

Fault = Literal["rattle", "slack", "brace", "arrow", "contact"]
FAULT_WORDS: dict[Fault, str] = {
    "rattle": "something loose",
    "slack": "a slack strand",
    "brace": "brace off its quiet place",
    "arrow": "an arrow too light",
    "contact": "the tail striking the bow",
}

TappedState = Literal["bare", "finished"]
TAPPED_STATE_WORDS: dict[TappedState, str] = {"bare": "bare shaft", "finished": "finished arrow"}
