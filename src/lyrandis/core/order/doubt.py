"""Doubt, defined: what is settled, what moved since it was found, and what to do next.

A setting's snapshot holds the values its upstream had when it was last set or checked. It is in
doubt itself once one of them has moved from there by its threshold, and rests on a doubt where
something it stands on is in doubt and carries. A pure function of what stands: undo is exact.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import datetime
from typing import Literal, NamedTuple

from lyrandis.core.nock.words import BowKit
from lyrandis.core.order.graph import MINUTES, RANKS, Edge, into, needed_of, nodes_of
from lyrandis.core.order.words import Habit, Node


@dataclass(frozen=True)
class RiserLoad:
    """What hangs on a riser: two numbers, for adding low is never lighter."""

    mass_g: float
    moment_g: float
    """Sum of mass times height over the grip, as grams at 100 mm up."""

    def moved(self, before: "RiserLoad") -> float:
        """Return the larger of what came on and what the balance moved by [g].

        Source: definition.

        >>> RiserLoad(120.0, -180.0).moved(RiserLoad(0.0, 0.0))
        180.0
        """
        return max(abs(self.mass_g - before.mass_g), abs(self.moment_g - before.moment_g))


Setting = float | str | tuple[float, float] | RiserLoad
"""Value of a setting: a number, a word, or two numbers (of arrows: ln mass and ln spine)."""
SPINE_COUNTS = 0.05
"""Of arrows, a change of ln spine counts from here on."""


Did = Literal["set", "checked", "touched"]


class Event(NamedTuple):
    """Something that was done to a setting."""

    node: Node
    done: Did
    value: Setting | None = None
    at: datetime | None = None
    """When, for the reader; the order of events is what counts."""


NodeMark = Literal["unset", "settled", "off", "direct", "rests", "waits"]
"""`off`: found, and not good: bare shafts that strike elsewhere, a column that drifts."""
LEVEL = "level"
_SHOT_LEVEL: frozenset[Node] = frozenset({"bare_rough", "walk_back", "bare_final"})
LEVEL_MM_PER_M = 160.0 / 2 / 30.0
"""Assumption: shafts in a circle of 16 cm at 30 m count as level to begin with."""
SCATTERED = "scattered"


@dataclass(frozen=True)
class NodeKind:
    """What the settings of a rig are."""

    kit: BowKit = "plain"
    walks: bool = False
    habit: Habit = "workbench"
    level_mm_per_m: float = LEVEL_MM_PER_M
    """Half the circle of the archer per metre: a column within it does not drift."""

    @property
    def nodes(self) -> tuple[Node, ...]:
        return nodes_of(self.kit, self.walks)

    @property
    def needed(self) -> frozenset[Node]:
        return needed_of(self.kit, self.walks, self.habit)


@dataclass(frozen=True)
class NodeState:
    """How one setting stands."""

    node: Node
    mark: NodeMark
    value: Setting | None = None
    touched: bool = False
    at: datetime | None = None
    """When it was last set or checked."""
    because: Edge | None = None
    """The edge of the largest doubt, where it is in doubt itself."""
    before: Setting | None = None
    """What that upstream was when this was found."""
    now: Setting | None = None
    """What it is now; None when nobody knows."""
    on: Node | None = None
    """What it rests on, where that is in doubt."""

    @property
    def in_doubt(self) -> bool:
        return self.mark in ("direct", "rests")


@dataclass
class _Known:
    values: dict[Node, Setting] = field(default_factory=dict)
    moved: dict[Node, int] = field(default_factory=dict)
    """How often each was touched: what it then is, nobody knows."""
    unknown: set[Node] = field(default_factory=set)
    snaps: dict[Node, dict[Node, Setting]] = field(default_factory=dict)
    blind: dict[Node, dict[Node, int]] = field(default_factory=dict)
    """Upstreams that were unknown when a setting was found, by how often they had been touched."""
    at: dict[Node, datetime | None] = field(default_factory=dict)


def moved_by(before: Setting, now: Setting, threshold: float | None) -> float:
    """Return how far a setting moved, in thresholds; a different word is infinitely far.

    Source: definition; of arrows, mass counts by the edge's own threshold and spine by 5 %.

    >>> moved_by(190.0, 193.2, 3.2), moved_by("cord-1", "cord-2", None), moved_by(5.0, 5.0, None)
    (1.0, inf, 0.0)
    """
    if before == now:
        return 0.0
    if threshold is None or isinstance(before, str) or isinstance(now, str):
        return math.inf
    if isinstance(before, RiserLoad) and isinstance(now, RiserLoad):
        return round(now.moved(before) / threshold, 9)
    if isinstance(before, RiserLoad) or isinstance(now, RiserLoad):
        return math.inf
    if isinstance(before, tuple) and isinstance(now, tuple):
        mass, spine = (abs(b - a) for a, b in zip(before, now, strict=True))
        return round(max(mass / threshold, spine / SPINE_COUNTS), 9)
    if isinstance(before, tuple) or isinstance(now, tuple):
        return math.inf
    return round(abs(now - before) / threshold, 9)


def _finds(events: Sequence[Event]) -> dict[Node, int]:
    """Return where in the list each setting was last found: set, or checked while known."""
    result: dict[Node, int] = {}
    unknown: set[Node] = set()
    for at, (node, done, _, _) in enumerate(events):
        if done == "set":
            unknown.discard(node)
            result[node] = at
        elif done == "touched":
            unknown.add(node)
        elif node not in unknown:
            result[node] = at
    return result


def _known(events: Sequence[Event], kind: NodeKind) -> _Known:
    """Go through the events once; a snapshot is taken only where a setting was last found."""
    edges, known, finds = into(kind.kit, kind.walks), _Known(), _finds(events)
    values, unknown = known.values, known.unknown
    for at, (node, done, value, when) in enumerate(events):
        if done == "set":
            unknown.discard(node)
            if value is not None:
                values[node] = value
        elif done == "touched":
            unknown.add(node)
            known.moved[node] = known.moved.get(node, 0) + 1
            continue
        if finds.get(node) != at or node not in edges:
            continue
        above = [edge.above for edge in edges[node]]
        known.snaps[node] = {up: values[up] for up in above if up in values and up not in unknown}
        known.blind[node] = {up: known.moved[up] for up in above if up in unknown}
        known.at[node] = when
    return known


def _largest(node: Node, edges: tuple[Edge, ...], known: _Known) -> tuple[float, Edge | None]:
    """Return the largest doubt of a setting, in thresholds, and the edge it comes over."""
    worst: tuple[float, Edge | None] = (0.0, None)
    snap, blind = known.snaps[node], known.blind[node]
    for edge in edges:
        up = edge.above
        if up in snap:
            level = (
                math.inf
                if up in known.unknown
                else moved_by(snap[up], known.values[up], edge.threshold)
            )
        elif up in blind and up in known.unknown and known.moved[up] > blind[up]:
            level = math.inf
        else:
            continue
        if level > worst[0]:
            worst = level, edge
    return worst


def states_of(
    events: Sequence[Event], kind: NodeKind, waiting: frozenset[Node] = frozenset()
) -> dict[Node, NodeState]:
    """Return how every setting of a rig stands, in order of work.

    `events` come in order; `waiting` are settings that only time settles.
    Source: definition (docs/MECHANICS.md, the order of work).

    >>> steps = (("brace", 190.0), ("nock", 3.0), ("brace", 194.0))
    >>> states_of([Event(node, "set", to) for node, to in steps], NodeKind())["nock"].mark
    'direct'
    """
    edges, known = into(kind.kit, kind.walks), _known(events, kind)
    result: dict[Node, NodeState] = {}
    for node in kind.nodes:
        level = 10 * kind.level_mm_per_m
        result[node] = _state(node, edges[node], known, result, level, node in waiting)
    return result


def _state(
    node: Node,
    edges: tuple[Edge, ...],
    known: _Known,
    found: dict[Node, NodeState],
    level_drift: float,
    waits: bool,
) -> NodeState:
    value = None if node in known.unknown else known.values.get(node)
    if node in known.unknown:
        return NodeState(node, "direct", None, True, known.at.get(node))
    if node not in known.at:
        return NodeState(node, "unset")
    at = known.at[node]
    level, edge = _largest(node, edges, known)
    if level >= 1 and edge is not None:
        up = edge.above
        now = None if up in known.unknown else known.values.get(up)
        return NodeState(node, "direct", value, False, at, edge, known.snaps[node].get(up), now)
    if waits:
        return NodeState(node, "waits", value, False, at)
    for edge in edges:
        if edge.carries and found[edge.above].mark in ("direct", "rests", "waits"):
            return NodeState(node, "rests", value, False, at, on=edge.above)
    good = node not in _SHOT_LEVEL or not _strays(value, level_drift)
    return NodeState(node, "settled" if good else "off", value, False, at)


def _strays(value: Setting | None, level_drift: float) -> bool:
    """Return whether shafts strike elsewhere by their word, or a column drifts [mm in 10 m]."""
    if isinstance(value, str):
        return not {"left", "right", "high", "low", SCATTERED}.isdisjoint(value.split())
    return isinstance(value, float) and abs(value) > level_drift


class NextNode(NamedTuple):
    """The setting to see to next."""

    node: Node
    check: bool
    """True when it is enough to check that it still stands."""
    minutes: int
    instead_of: Node | None = None
    """The setting that only waits, where this one is done meanwhile."""


def next_of(
    states: dict[Node, NodeState], kind: NodeKind, aside: frozenset[Node] = frozenset()
) -> NextNode | None:
    """Return the setting to see to next, None when all that is asked for stands.

    Of those unset or in doubt themselves, with all that carries into them settled: the least in
    order of work, then in minutes. While the string settles, what does not descend from it. What is
    unset and was put `aside` is passed over.
    Source: definition (docs/MECHANICS.md, the order of work).

    >>> next_of(states_of([], NodeKind()), NodeKind()).node
    'string'
    """
    edges, needed = into(kind.kit, kind.walks), kind.needed
    waiting = next((node for node, state in states.items() if state.mark == "waits"), None)

    def clear(node: Node) -> bool:
        for edge in edges[node]:
            above = states[edge.above]
            if not edge.carries:
                continue
            open_ = above.mark != "settled" and not (
                above.mark == "unset" and (edge.above not in needed or edge.above in aside)
            )
            if open_ or not clear(edge.above):
                return False
        return True

    due = [
        node
        for node in kind.nodes
        if node in needed
        and states[node].mark in ("unset", "off", "direct")
        and not (states[node].mark == "unset" and node in aside)
        and clear(node)
    ]
    if not due:
        return None
    node = min(due, key=lambda item: (RANKS[item], _minutes(states[item])))
    state = states[node]
    return NextNode(node, _checks(state), _minutes(state), waiting)


def _checks(state: NodeState) -> bool:
    """Return whether looking is enough: it has a value that is good, and nobody moved it."""
    return state.value is not None and not state.touched and state.mark != "off"


def _minutes(state: NodeState) -> int:
    check, do = MINUTES[state.node]
    return check if _checks(state) else do


def minutes_to_clear(states: dict[Node, NodeState]) -> int:
    """Return the minutes it takes to check all that is in doubt itself.

    Source: sum of the minutes to check.

    >>> steps = (("brace", 190.0), ("nock", 3.0), ("brace", 194.0))
    >>> minutes_to_clear(states_of([Event(node, "set", to) for node, to in steps], NodeKind()))
    1
    """
    return sum(
        MINUTES[node][0]
        for node, state in states.items()
        if state.mark == "direct" and node in MINUTES
    )
