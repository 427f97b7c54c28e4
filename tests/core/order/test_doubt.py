"""The order of work: what is in doubt when something moves, by table and over random histories."""

import math
import random
from collections.abc import Sequence
from typing import get_args

import pytest

from lyrandis.core.nock.words import BowKit
from lyrandis.core.order.doubt import (
    Event,
    NodeKind,
    NodeState,
    Setting,
    minutes_to_clear,
    moved_by,
    next_of,
    states_of,
)
from lyrandis.core.order.graph import EDGES, KITS, MINUTES, RANKS, into, needed_of, nodes_of
from lyrandis.core.order.words import NODES, Node

WORDS: dict[Node, str] = {
    "hold": "three_under", "anchor": "corner", "string": "cord", "bare_rough": "level",
    "bare_final": "level", "fine": "good", "crawls": "table",
}  # fmt: skip
PLAIN, REST, FULL = (NodeKind(kit, walks=True) for kit in get_args(BowKit))


def start(node: Node) -> Setting:
    if node in WORDS:
        return WORDS[node]
    if node == "walk_back":
        return 0.0  # a column that drifts is found, and not good
    return (math.log(400), math.log(60)) if node == "arrows" else 100.0


def all_settled(kind: NodeKind) -> list[Event]:
    return [Event(node, "set", start(node)) for node in kind.nodes]


def marks(events: Sequence[Event], kind: NodeKind, *, waiting: frozenset[Node] = frozenset()
          ) -> dict[str, set[Node]]:  # fmt: skip
    states = states_of(events, kind, waiting)
    return {
        mark: {node for node, state in states.items() if state.mark == mark}
        for mark in ("direct", "rests", "unset", "waits")
    }


# the graph


def test_the_graph_runs_down_the_order_and_every_setting_has_its_minutes() -> None:
    assert all(RANKS[edge.above] < RANKS[edge.below] for edge in EDGES)
    assert {node for node in NODES if RANKS[node] > 0} == set(MINUTES)
    assert set(RANKS) == set(KITS) == set(NODES)
    for check, find in MINUTES.values():
        assert 0 < check <= find
    assert len({(edge.above, edge.below) for edge in EDGES}) == len(EDGES)


def test_each_kind_of_bow_has_its_own_order() -> None:
    assert nodes_of("plain", False)[5:] == ("string", "settled", "brace", "nock", "arrows")
    assert len(nodes_of("full", True)) == len(NODES)
    assert needed_of("plain", True, "workbench") == needed_of("full", True, "short")
    assert "walk_back" in needed_of("rest", False, "workbench")
    assert "tiller" not in nodes_of("rest", True)
    for kit in get_args(BowKit):
        there = set(nodes_of(kit, True))
        for node, edges in into(kit, True).items():
            assert node in there
            assert {edge.above for edge in edges} <= there


# what a change puts in doubt

CHANGES: list[tuple[NodeKind, Event, set[str], set[str]]] = [
    (FULL, Event("limb_alignment", "touched"), {"limb_alignment", "centre_shot", "tiller"},
     {"riser_weights", "bare_rough", "brace", "nock", "arrows", "walk_back", "bare_final", "fine",
      "crawls"}),
    *((kind, Event("brace", "set", 101.6), set(), set()) for kind in (PLAIN, REST, FULL)),
    (PLAIN, Event("brace", "set", 103.2), {"nock"}, set()),
    (REST, Event("brace", "set", 103.2), {"nock"}, {"bare_final"}),
    (FULL, Event("brace", "set", 103.2), {"nock"}, {"bare_final", "fine"}),
    (PLAIN, Event("brace", "set", 106.4), {"nock", "crawls"}, set()),
    (REST, Event("brace", "set", 106.4), {"nock", "walk_back", "bare_final", "crawls"}, set()),
    (FULL, Event("brace", "set", 106.4), {"nock", "walk_back", "bare_final", "crawls"}, {"fine"}),
    (PLAIN, Event("nock", "set", 101.0), set(), set()),
    (REST, Event("nock", "set", 101.0), {"bare_final"}, set()),
    (FULL, Event("nock", "set", 101.0), {"bare_final"}, {"fine"}),
    (PLAIN, Event("string", "set", "cord-2"), {"settled", "brace", "nock"}, set()),
    (FULL, Event("riser_weights", "set", 160.0), {"tiller", "nock"},
     {"bare_rough", "brace", "bare_final", "fine"}),
    (PLAIN, Event("arrows", "set", (math.log(400) + 0.02, math.log(60))), {"crawls"}, set()),
    (PLAIN, Event("hold", "set", "split"), {"nock", "crawls"}, set()),
    (PLAIN, Event("brace", "touched"), {"brace", "nock", "arrows", "crawls"}, set()),
]  # fmt: skip


@pytest.mark.parametrize(
    ("kind", "event", "direct", "rests"), CHANGES,
    ids=[f"{kind.kit}-{event.node}-{event.value}" for kind, event, *_ in CHANGES],
)  # fmt: skip
def test_a_change_puts_in_doubt_what_rests_on_it(
    kind: NodeKind, event: Event, direct: set[str], rests: set[str]
) -> None:
    found = marks([*all_settled(kind), event], kind)
    assert found["direct"] == direct
    assert found["rests"] == rests


@pytest.mark.parametrize("edge", EDGES, ids=lambda edge: f"{edge.above}-{edge.below}")
def test_every_threshold_holds_on_both_sides(edge) -> None:  # type: ignore[no-untyped-def]
    if edge.threshold is None:
        return
    for share, expected in ((0.99, False), (1.0, True)):
        moved = edge.threshold * share
        before = start(edge.above)
        value: Setting = 100.0 + moved
        if isinstance(before, tuple):
            value = (before[0] + moved, before[1])
        elif isinstance(before, float):
            value = before + moved
        states = states_of([*all_settled(FULL), Event(edge.above, "set", value)], FULL)
        state = states[edge.below]
        reached = state.mark == "direct" and state.because == edge
        assert reached is expected or (not expected and state.because != edge)


def test_spine_of_the_arrows_counts_from_five_per_cent() -> None:
    for change, doubted in ((0.049, False), (0.05, True)):
        event = Event("arrows", "set", (math.log(400), math.log(60) + change))
        assert ("crawls" in marks([*all_settled(PLAIN), event], PLAIN)["direct"]) is doubted


def test_next_after_a_change() -> None:
    def after(kind: NodeKind, *events: Event) -> Node | None:
        found = next_of(states_of([*all_settled(kind), *events], kind), kind)
        return found.node if found else None

    assert after(FULL, Event("limb_alignment", "touched")) == "limb_alignment"
    assert after(PLAIN, Event("string", "set", "cord-2")) == "settled"
    assert after(PLAIN) is None
    assert after(FULL, Event("tiller", "touched"), Event("brace", "touched")) == "tiller"


def test_what_only_waits_lets_something_else_be_done() -> None:
    events = [e for e in all_settled(PLAIN) if e.node != "arrows"]
    states = states_of(events, PLAIN, frozenset({"settled"}))
    found = next_of(states, PLAIN)
    assert states["settled"].mark == "waits"
    assert states["brace"].mark == states["nock"].mark == "rests"
    assert found is not None
    assert (found.node, found.instead_of) == ("arrows", "settled")


def test_a_check_is_offered_before_finding_it_anew() -> None:
    higher = [*all_settled(PLAIN), Event("brace", "set", 104.0)]
    found = next_of(states_of(higher, PLAIN), PLAIN)
    assert found is not None
    assert (found.node, found.check, found.minutes) == ("nock", True, 1)
    moved = next_of(states_of([*higher, Event("nock", "touched")], PLAIN), PLAIN)
    assert moved is not None
    assert (moved.node, moved.check, moved.minutes) == ("nock", False, 20)


def test_a_short_order_never_asks_for_the_rest() -> None:
    kind = NodeKind("full", walks=False, habit="short")
    events: list[Event] = []
    asked = []
    while (found := next_of(states_of(events, kind), kind)) is not None:
        asked.append(found.node)
        events.append(Event(found.node, "set", start(found.node)))
    assert asked == ["string", "settled", "brace", "nock", "arrows"]


def test_a_touched_setting_is_not_cleared_by_looking() -> None:
    events = [*all_settled(PLAIN), Event("nock", "touched"), Event("nock", "checked")]
    assert states_of(events, PLAIN)["nock"].mark == "direct"
    assert states_of([*events, Event("nock", "set", 100.0)], PLAIN)["nock"].mark == "settled"


def test_what_was_found_while_something_was_unknown_is_doubted_when_that_moves_again() -> None:
    events = [*all_settled(PLAIN), Event("brace", "touched"), Event("nock", "set", 99.0)]
    assert states_of(events, PLAIN)["nock"].mark == "rests"
    again = [*events, Event("brace", "touched")]
    assert states_of(again, PLAIN)["nock"].mark == "direct"


def test_a_reverified_upstream_frees_what_rested_on_it() -> None:
    events = [*all_settled(REST), Event("brace", "set", 103.2)]
    assert states_of(events, REST)["bare_final"].mark == "rests"
    states = states_of([*events, Event("nock", "checked")], REST)
    assert {state.mark for state in states.values()} == {"settled"}


# properties over random histories


def _history(world: random.Random, kind: NodeKind) -> list[Event]:
    events = all_settled(kind) if world.random() < 0.7 else []
    for _ in range(world.randrange(1, 14)):
        node = world.choice(kind.nodes)
        done = world.choices(("set", "checked", "touched"), (6, 3, 1))[0]
        value: Setting | None = None
        if done == "set":
            before = start(node)
            if isinstance(before, str):
                value = world.choice((before, f"{before}-2"))
            elif isinstance(before, tuple):
                value = (before[0] + world.gauss(0, 0.03), before[1] + world.gauss(0, 0.05))
            else:
                value = before + world.gauss(0, 4)
        events.append(Event(node, done, value))  # type: ignore[arg-type]
    return events


def _doubted(states: dict[Node, NodeState]) -> set[Node]:
    return {node for node, state in states.items() if state.in_doubt}


def _larger(events: list[Event], kind: NodeKind, world: random.Random) -> None:
    """A larger change of a setting doubts a superset."""
    states = states_of(events, kind)
    numbers = [n for n in kind.nodes if isinstance(states[n].value, float)]
    if not numbers:
        return
    node = world.choice(numbers)
    value, step = states[node].value, world.uniform(0.1, 8)
    assert isinstance(value, float)
    sets = [
        _doubted(states_of([*events, Event(node, "set", value + step * size)], kind)) - {node}
        for size in (1, 2, 5)
    ]
    if not _doubted(states) - {node}:
        assert sets[0] <= sets[1] <= sets[2]


def test_three_thousand_histories_keep_what_is_promised() -> None:
    world = random.Random(20261125)
    for number in range(3000):
        kind = (PLAIN, REST, FULL)[number % 3]
        events = _history(world, kind)
        states = states_of(events, kind)
        # along edges that carry, what is below a doubt is in doubt, where it is set at all
        for node, edges in into(kind.kit, kind.walks).items():
            if states[node].mark == "settled":
                assert not any(edge.carries and states[edge.above].in_doubt for edge in edges)
        # checking only ever shrinks, and clears no other direct mark
        node = world.choice(kind.nodes)
        checked = states_of([*events, Event(node, "checked")], kind)
        if states[node].mark != "unset":
            assert _doubted(checked) <= _doubted(states)
            for other in kind.nodes:
                if other != node and states[other].mark == "direct":
                    assert checked[other].mark == "direct"
        # undo is exact: what is taken back leaves no trace, and putting a setting back neither
        assert states_of([*events, Event(node, "touched")][:-1], kind) == states
        value = states[node].value
        settled = {n for n in kind.nodes if states[n].mark == "settled"}
        if value is not None and node in settled and isinstance(value, float):
            away = [Event(node, "set", value + 7.0), Event(node, "set", value)]
            back = states_of([*events, *away], kind)
            assert {n: s.mark for n, s in back.items()} == {n: s.mark for n, s in states.items()}
        _larger(events, kind, world)


def test_creep_is_caught() -> None:
    events = all_settled(PLAIN)
    for step in range(1, 5):
        events.append(Event("brace", "set", 100.0 + step))
    assert states_of(events[:-1], PLAIN)["nock"].mark == "settled"
    assert states_of(events, PLAIN)["nock"].mark == "direct"


@pytest.mark.parametrize("kind", [PLAIN, REST, FULL], ids=lambda kind: kind.kit)
def test_small_changes_everywhere_flood_nothing(kind: NodeKind) -> None:
    least = {
        node: min((e.threshold for e in EDGES if e.above == node and e.threshold), default=0.0)
        for node in kind.nodes
    }
    events = all_settled(kind)
    for node in kind.nodes:
        value = start(node)
        if isinstance(value, float):
            events.append(Event(node, "set", value + 0.49 * least[node]))
        elif isinstance(value, tuple):
            events.append(Event(node, "set", (value[0] + 0.009, value[1] + 0.02)))
    assert not marks(events, kind)["direct"]


def test_minutes_to_clear_are_those_of_what_is_in_doubt_itself() -> None:
    events = [*all_settled(REST), Event("brace", "set", 106.4)]
    assert minutes_to_clear(states_of(events, REST)) == 1 + 15 + 10 + 10


def test_a_setting_that_changed_its_kind_of_value_moved() -> None:
    assert moved_by(1.0, (1.0, 2.0), 1.0) == math.inf
    assert moved_by((1.0, 2.0), (1.0, 2.0), 1.0) == 0.0
