"""What rests on what, as data: the settings in order, and how far each may move unnoticed.

An edge that carries passes a doubt on: what usually comes out of verifying the upstream anew is at
least its threshold, or the order of the bench wants it.
"""

from functools import cache
from typing import NamedTuple

from lyrandis.core.nock.words import BowKit
from lyrandis.core.order.words import NODES, Habit, Node

RANKS: dict[Node, int] = {
    "draw": 0, "hold": 0, "anchor": 0, "grip": 0, "silencers": 0, "string": 1, "settled": 2,
    "weight_rough": 3, "tiller_rough": 4, "limb_alignment": 5, "centre_shot": 6, "riser_weights": 7,
    "tiller": 8, "bare_rough": 9, "brace": 10, "nock": 11, "arrows": 12, "walk_back": 13,
    "bare_final": 14, "fine": 15, "crawls": 16,
}  # fmt: skip
"""Order of the bench; what is only told stands before it."""

MINUTES: dict[Node, tuple[int, int]] = {
    "string": (1, 10), "settled": (2, 2), "weight_rough": (5, 10), "tiller_rough": (2, 5),
    "limb_alignment": (3, 10), "centre_shot": (3, 10), "riser_weights": (1, 10), "tiller": (2, 5),
    "bare_rough": (10, 15), "brace": (1, 25), "nock": (1, 20), "arrows": (10, 30),
    "walk_back": (15, 30), "bare_final": (10, 20), "fine": (20, 40), "crawls": (10, 30),
}  # fmt: skip
"""Assumption: minutes to check a setting, and to find it anew."""

_ALL: frozenset[BowKit] = frozenset({"plain", "rest", "full"})
_SET: frozenset[BowKit] = frozenset({"rest", "full"})
_FULL: frozenset[BowKit] = frozenset({"full"})
KITS: dict[Node, frozenset[BowKit]] = {
    **dict.fromkeys(NODES, _ALL),
    **dict.fromkeys(("centre_shot", "walk_back", "bare_final"), _SET),
    **dict.fromkeys(
        ("weight_rough", "tiller_rough", "limb_alignment", "riser_weights", "tiller", "bare_rough",
         "fine"), _FULL,
    ),
}  # fmt: skip
"""Kinds of bow that have the setting at all."""

SHORT: frozenset[Node] = frozenset({"string", "settled", "brace", "nock", "arrows", "crawls"})


class Edge(NamedTuple):
    """One setting rests on another."""

    above: Node
    below: Node
    threshold: float | None
    """How far `above` may move before `below` is in doubt; None: any change."""
    carries: bool
    reason: str


def _edges() -> tuple[Edge, ...]:
    rows: tuple[tuple[Node, tuple[tuple[Node, float | None], ...], bool, str], ...] = (
        ("string", (("settled", None), ("brace", None), ("nock", None)), True,
         "a new string has its own length, stretch and nocking point"),
        ("settled", (("brace", 1.5875),), True, "the string will still let the brace down"),
        ("silencers", (("nock", 10.0), ("arrows", 10.0), ("bare_rough", 10.0),
                       ("bare_final", 10.0), ("crawls", 10.0)), False,
         "mass on the string slows it: the arrow reads stiffer and flies slower"),
        ("draw", (("weight_rough", 6.35), ("arrows", 6.35), ("crawls", 6.35)), True,
         "{1/4 in} of draw is {0.6 lb}, half a per cent of speed and more"),
        ("hold", (("tiller", None), ("nock", None), ("crawls", None)), True,
         "the hook stands elsewhere on the string"),
        ("anchor", (("crawls", None),), True, "the height of the eye is the table's zero"),
        ("grip", (("nock", 1.0),), True, "a hand 1 mm up is 1 mm of nock height"),
        ("weight_rough", (("tiller_rough", 1.0),), True, "the bolts move both"),
        ("weight_rough", (("brace", 2.0), ("arrows", 1.5), ("crawls", 1.5)), False,
         "{1.5 lb} is about 2 lb of spine and 1.3 % of speed"),
        ("tiller_rough", (("limb_alignment", 3.0),), True, "the pocket's angle seats the limb"),
        ("limb_alignment", (("centre_shot", 0.5), ("tiller", 1.0)), True,
         "the string lies elsewhere across the riser"),
        ("centre_shot", (("riser_weights", 2.0),), True, "the order of the bench"),
        ("centre_shot", (("bare_rough", 0.5), ("walk_back", 0.5), ("arrows", 2.0)), True,
         "1 mm is about 1 lb of spine, and a drift"),
        ("riser_weights", (("tiller", 50.0), ("nock", 50.0)), True, "one end is slower"),
        ("tiller", (("bare_rough", 1.5875), ("nock", 1.5875)), True, "the nock's path tips"),
        ("bare_rough", (("brace", None),), True, "the order of the bench"),
        ("brace", (("nock", 3.175),), True, "{1/8 in} of brace moves the nock"),
        ("brace", (("walk_back", 6.35), ("bare_final", 6.35), ("crawls", 6.35), ("arrows", 9.5)),
         False,
         "{1/4 in} is up to 0.8 % of speed and 0.9 lb of spine"),
        ("nock", (("bare_final", 1.0),), True, "the bare shaft is read by it"),
        ("nock", (("crawls", 1.5), ("arrows", 3.0)), False, "the eye's height shifts by as much"),
        ("arrows", (("bare_final", 0.03), ("crawls", 0.02)), True,
         "2 % of mass is 0.8 % of speed, 1 mm of crawl at 40 m"),
        ("arrows", (("walk_back", 0.05),), False, "half the band of the match"),
        ("walk_back", (("bare_final", 0.5),), True, "the same setting read twice"),
        ("bare_final", (("fine", None),), True, "the order of the bench"),
    )  # fmt: skip
    return tuple(
        Edge(above, below, threshold, carries, reason)
        for above, belows, carries, reason in rows
        for below, threshold in belows
    )


EDGES: tuple[Edge, ...] = _edges()
"""Assumption: thresholds of at least two reading errors of the upstream (docs/MECHANICS.md)."""


@cache
def nodes_of(kit: BowKit, walks: bool) -> tuple[Node, ...]:
    """Return the settings a kind of bow has, in order of work; crawls only for who walks.

    Source: the table above.

    >>> nodes_of("plain", False)[4:]
    ('silencers', 'string', 'settled', 'brace', 'nock', 'arrows')
    """
    return tuple(
        node
        for node in sorted(NODES, key=lambda node: RANKS[node])
        if kit in KITS[node] and (walks or node != "crawls")
    )


@cache
def needed_of(kit: BowKit, walks: bool, habit: Habit) -> frozenset[Node]:
    """Return the settings that are asked for: all of the bench, or the short order's.

    A plain bow's order is always short. Source: two habits of the trade.

    >>> sorted(needed_of("full", False, "short"))
    ['arrows', 'brace', 'nock', 'settled', 'string']
    """
    of_bench = frozenset(node for node in nodes_of(kit, walks) if node in MINUTES)
    return of_bench & SHORT if habit == "short" or kit == "plain" else of_bench


@cache
def into(kit: BowKit, walks: bool) -> dict[Node, tuple[Edge, ...]]:
    """Return the edges into each setting of a kind of bow.

    Source: the table above; an edge whose ends are not both there is absent.

    >>> [edge.above for edge in into("plain", False)["nock"]]
    ['string', 'silencers', 'hold', 'grip', 'brace']
    """
    there = nodes_of(kit, walks)
    return {
        node: tuple(edge for edge in EDGES if edge.below == node and edge.above in there)
        for node in there
    }
