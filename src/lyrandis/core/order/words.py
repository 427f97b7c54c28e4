"""The settings of a bow by name."""

from typing import Literal, get_args

Node = Literal[
    "draw", "hold", "anchor", "grip", "silencers", "string", "settled", "weight_rough",
    "tiller_rough", "limb_alignment", "centre_shot", "riser_weights", "tiller", "bare_rough",
    "brace", "nock", "arrows", "walk_back", "bare_final", "fine", "crawls",
]  # fmt: skip
NODES: tuple[Node, ...] = get_args(Node)

NODE_WORDS: dict[Node, str] = {
    "draw": "draw length",
    "hold": "hold",
    "anchor": "anchor",
    "grip": "grip mark",
    "silencers": "silencers",
    "string": "string",
    "settled": "string settled",
    "weight_rough": "weight, first",
    "tiller_rough": "tiller, first",
    "limb_alignment": "limbs in line",
    "centre_shot": "centre shot",
    "riser_weights": "riser weights",
    "tiller": "tiller",
    "bare_rough": "bare shaft, first",
    "brace": "brace",
    "nock": "nock height",
    "arrows": "arrows",
    "walk_back": "walk-back",
    "bare_final": "bare shaft, last",
    "fine": "fine tuning",
    "crawls": "crawls",
}

NODE_NOUNS: dict[Node, str] = {
    **NODE_WORDS,
    "settled": "string's settling",
    "weight_rough": "first weight",
    "tiller_rough": "first tiller",
    "limb_alignment": "limbs' line",
    "bare_rough": "first bare shaft",
    "bare_final": "last bare shaft",
}
"""As they stand in a sentence."""
PLURAL: frozenset[Node] = frozenset({"silencers", "arrows", "riser_weights", "crawls"})

SHORT_WORDS: dict[Node, str] = {
    **NODE_WORDS,
    "settled": "string",
    "weight_rough": "weight",
    "tiller_rough": "tiller",
    "limb_alignment": "limb",
    "riser_weights": "weight",
    "bare_rough": "bare shaft",
    "bare_final": "bare shaft",
    "nock": "nock",
    "draw": "draw",
    "grip": "grip",
}
"""For the rail, where there is room for 26 characters."""

ByFlight = Literal["bare_rough", "walk_back", "bare_final", "fine", "crawls"]
"""Settings that are found by shooting: said in words until their own pages are there."""

Habit = Literal["workbench", "short"]
HABIT_WORDS: dict[Habit, str] = {
    "workbench": "the whole workbench order",
    "short": "the short order: string, brace, nock, arrows",
}
