"""The whole order of work as one drawn line of stations, and what each rests on."""

from typing import Literal

from lyrandis.core.computed import Computed
from lyrandis.core.drawn import Drawn
from lyrandis.core.nock.words import BowKit
from lyrandis.core.order.graph import MINUTES, Edge, into
from lyrandis.core.order.numbers import said_value, said_word
from lyrandis.core.order.steps import STEPS
from lyrandis.core.order.words import NODE_WORDS, Habit, Node
from lyrandis.core.phrase import Figure, Phrase, phrase
from lyrandis.core.reading import StageKey


class RestsOn(Drawn):
    """What a station rests on."""

    node: Node
    reason: Phrase
    carries: bool
    doubts: bool
    """True where it is this that puts the station in doubt."""


class Station(Drawn):
    """One setting in order of work."""

    node: Node
    name: str
    figure: Figure | None
    word: str | None
    mark: Literal["unset", "settled", "off", "direct", "rests", "waits"]
    why: Phrase | None
    reason: Phrase | None
    needed: bool
    touched: bool
    check_minutes: int | None
    find_minutes: int | None
    how: str
    stage: StageKey
    control: str
    found_by_flight: bool
    rests_on: tuple[RestsOn, ...]


class WorkOrder(Drawn):
    """The order of work of one rig."""

    kit: BowKit
    habit: Habit
    walks: bool
    stations: tuple[Station, ...]
    next: Node | None
    minutes: int
    """To check all that is in doubt itself."""
    doubted: int
    circle_mm: float
    """In which all shafts count as level to begin with, at `circle_at_m`."""
    circle_at_m: float
    circle_told: bool
    tuning_doubted: Phrase | None
    """What is set otherwise since the flight's tuning was kept."""


USUAL_CIRCLE_AT_M = 30.0
_BY_FLIGHT = frozenset({"bare_rough", "walk_back", "bare_final", "fine", "crawls"})


def work_order(c: Computed) -> WorkOrder:
    """Return the order of work as it is drawn."""
    order = c.order
    edges = into(order.kind.kit, order.kind.walks)
    coming = order.coming
    told = order.facts.circle
    circle_at = told.reading.distance_m if told else USUAL_CIRCLE_AT_M
    return WorkOrder(
        kit=order.kind.kit,
        habit="short" if order.kind.kit == "plain" else order.kind.habit,
        walks=order.kind.walks,
        stations=tuple(
            _station(c, node, edges[node])
            for node in order.kind.nodes
            # a string without silencers has no empty station for them
            if node != "silencers" or order.states[node].mark != "unset"
        ),
        next=coming.node if coming else None,
        minutes=order.minutes,
        doubted=sum(state.mark == "direct" for state in order.states.values()),
        circle_mm=round(2 * order.kind.level_mm_per_m * circle_at, 3),
        circle_at_m=circle_at,
        circle_told=told is not None,
        tuning_doubted=c.flight.differs,
    )


def _word(c: Computed, node: Node) -> str | None:
    """Return a setting's word; of parts, what they are called."""
    if node == "string" and c.order.states[node].value is not None:
        return c.setup.string.name or said_word(c.order.states[node].value)
    return said_word(c.order.states[node].value)


def _station(c: Computed, node: Node, edges: tuple[Edge, ...]) -> Station:
    order, step = c.order, STEPS[node]
    state = order.states[node]
    minutes = MINUTES.get(node)
    doubtful = state.because.above if state.because is not None else state.on
    unclear = state.mark in ("off", "direct", "rests", "waits")
    return Station(
        node=node,
        name=NODE_WORDS[node][0].upper() + NODE_WORDS[node][1:],
        figure=said_value(node, state.value),
        word=_word(c, node),
        mark=state.mark,
        why=order.sentence(node) if unclear else None,
        reason=order.reason(node) if unclear else None,
        needed=node in order.kind.needed,
        touched=state.touched,
        check_minutes=minutes[0] if minutes else None,
        find_minutes=minutes[1] if minutes else None,
        how=step.how,
        stage=step.stage,
        control=step.control,
        found_by_flight=node in _BY_FLIGHT,
        rests_on=tuple(
            RestsOn(
                node=edge.above,
                reason=phrase(edge.reason),
                carries=edge.carries,
                doubts=unclear and edge.above == doubtful,
            )
            for edge in edges
        ),
    )
