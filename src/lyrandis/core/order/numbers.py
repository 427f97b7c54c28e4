"""The order of work of one rig: how every setting stands, what is next, and what to say of it."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from operator import itemgetter
from typing import TYPE_CHECKING

from lyrandis.core import judgement as j
from lyrandis.core.archer.numbers import ArcherNumbers
from lyrandis.core.arrow.shooting import outward_is_left
from lyrandis.core.constants import MARKED_DRAW_MM, TRADE_OFFSET_MM
from lyrandis.core.effective import At
from lyrandis.core.errors import DomainError
from lyrandis.core.lazy import lazy
from lyrandis.core.nock.numbers import NockNumbers
from lyrandis.core.order.doubt import (
    SCATTERED,
    Event,
    NextNode,
    NodeKind,
    NodeState,
    RiserLoad,
    Setting,
    minutes_to_clear,
    next_of,
    states_of,
)
from lyrandis.core.order.facts import OrderFacts
from lyrandis.core.order.graph import MINUTES, into
from lyrandis.core.order.history import history, level_per_m
from lyrandis.core.order.steps import STEPS
from lyrandis.core.order.words import NODE_NOUNS, NODE_WORDS, PLURAL, SHORT_WORDS, Node
from lyrandis.core.phrase import (
    Figure,
    Phrase,
    count,
    gap,
    gr,
    lbf,
    listed,
    mm,
    percent,
    phrase,
    plain,
)
from lyrandis.core.reading import AsideStep, StageKey
from lyrandis.core.string.numbers import StringNumbers

if TYPE_CHECKING:
    from lyrandis.core.bow.numbers import BowNumbers
    from lyrandis.core.setup import Setup

_CHANGED: dict[Node, str] = {
    "string": "new string since",
    "hold": "held otherwise since",
    "anchor": "anchored otherwise since",
}
_FIRST: dict[StageKey, Node] = {"string": "brace", "nock": "nock"}
"""The setting whose value stands in the rail: its doubt is said before others of its stage."""
MOST_NAMES = 3
"""Names in one sentence."""


@dataclass(frozen=True)
class OrderNumbers:
    """Reckoned when it is asked for."""

    facts: OrderFacts
    setup: "Setup"
    archer: ArcherNumbers
    bow: "BowNumbers"
    string: StringNumbers
    nock: NockNumbers

    @lazy
    def kind(self) -> NodeKind:
        habit = self.facts.habit
        return NodeKind(
            self.nock.kit,
            walks=self.setup.nock.crawl_mm > 0 or bool(self.setup.crawls.marks),
            habit=habit.reading.habit if habit else "workbench",
            level_mm_per_m=level_per_m(self.facts),
        )

    @lazy
    def dated(self) -> list[tuple[At, Event]]:
        """All that was done to the settings, in order, and where it stands in the order."""
        return history(
            self.setup, draw=self.archer.draw, bow=self.bow, string=self.string, nock=self.nock
        )

    @lazy
    def events(self) -> list[Event]:
        """All that was done to the settings, in order."""
        return [event for _, event in self.dated]

    @lazy
    def waiting(self) -> frozenset[Node]:
        """Settings that only time settles: a string that is known not to have."""
        return frozenset({"settled"}) if self.string.settled is False else frozenset()

    @lazy
    def states(self) -> dict[Node, NodeState]:
        return states_of(self.events, self.kind, self.waiting)

    @lazy
    def coming(self) -> NextNode | None:
        """The setting to see to next; None when all that is asked for stands."""
        aside = self.facts.aside
        return next_of(
            self.states, self.kind, frozenset(n for n, step in _ASIDE.items() if step in aside)
        )

    @property
    def doubted(self) -> bool:
        """True when something that stood is in doubt itself."""
        return any(state.mark == "direct" for state in self.states.values())

    @property
    def minutes(self) -> int:
        """Minutes to check all that is in doubt itself."""
        return minutes_to_clear(self.states)

    @lazy
    def step(self) -> j.NextStep | None:
        """The next step by the order of work."""
        coming = self.coming
        if coming is None:
            return None
        step, state = STEPS[coming.node], self.states[coming.node]
        why = self.sentence(coming.node)
        if coming.instead_of is not None:
            why = phrase(f"{self._waits().text()} Meanwhile: {step.how}")
        elif state.mark == "unset":
            why = phrase(step.how)
        title = phrase(step.check if coming.check else step.find)
        if coming.node == "weight_rough":
            title = phrase("Weigh the bow at {at}", at=mm(self.archer.drawn_to.value))
        if coming.node == "brace" and self.setup.nock.height is None:
            # a quiet brace is sought by shooting, and nothing is shot without a nock
            title, why = phrase(step.check), phrase("It is read before a nock is tied on.")
        label = "Enter the reading" if step.unit != "word" else "Go there"
        return j.NextStep(
            title=title,
            why=why,
            tells=self._tells(coming.node),
            minutes=coming.minutes,
            action=j.Action(label=label, stage=step.stage, control=step.control),
            aside=_ASIDE.get(coming.node) if state.mark == "unset" else None,
        )

    def resting_on(self, node: Node) -> tuple[str, ...]:
        """Return the names of the settings that rest on one."""
        below = into(self.kind.kit, self.kind.walks)
        result = [
            item for item, edges in below.items() if any(edge.above == node for edge in edges)
        ]
        return tuple(NODE_WORDS[item] for item in result)

    def require_known(self, node: Node) -> None:
        """Raise `DomainError` where looking is not enough: the setting was moved, not measured."""
        state = self.states.get(node)
        if state is not None and state.touched:
            name = NODE_NOUNS[node]
            raise DomainError(
                "measure_it",
                f"The {name} {_were(node)} moved and not measured since: looking does not tell.",
                f"Measure the {name} and enter the reading.",
                "setting",
            )

    def _tells(self, node: Node) -> Phrase:
        """Say what rests on a setting: at most three names."""
        resting = [
            NODE_WORDS[other]
            for other, state in self.states.items()
            if state.mark == "rests" and (state.on == node or self._stands_on(other, node))
        ]
        if resting:
            return phrase(f"It also settles {_named(resting)}.")
        return phrase("")

    def _stands_on(self, node: Node, above: Node) -> bool:
        state = self.states[node]
        while state.on is not None:
            if state.on == above:
                return True
            state = self.states[state.on]
        return False

    def doubt_in(self, stage: StageKey) -> Node | None:
        """Return the setting of a stage that is most in doubt, or waits; None where all stands."""
        own = [node for node in self.kind.nodes if STEPS[node].stage == stage]
        own.sort(key=lambda node: node != _FIRST.get(stage))
        for marks in (("direct",), ("waits",), ("rests",)):
            for node in own:
                if self.states[node].mark in marks and (node in MINUTES):
                    return node
        return None

    def _waits(self) -> Phrase:
        settling = self.string.settling
        at = settling.settled_at if settling else None
        if settling is None or at is None:
            return phrase("The string is still settling.")
        more = max(at - settling.hours, 0.5)
        return phrase(f"The string needs about {more:.0f} h more strung.")

    def reason(self, node: Node) -> Phrase | None:
        """Return why a setting is in doubt in at most 26 characters, for the rail."""
        state = self.states[node]
        if state.mark == "waits":
            settling = self.string.settling
            at = settling.settled_at if settling else None
            more = "" if settling is None or at is None else f", {at - settling.hours:.0f} h more"
            return phrase(f"string settles{more}")
        return _reason_of(state)

    def crawls_since(
        self, marks: Sequence[At], *, other_arrows: bool, other_holding: bool
    ) -> Phrase | None:
        """Return what moved since crawls of some instants were shot, None where nothing did.

        Arrows, or anchor and hold, that are other ones than now do not count as moved.
        """
        if not marks:
            return None
        beside: set[Node] = {"crawls"}
        beside |= {"arrows"} if other_arrows else set()
        beside |= {"anchor", "hold"} if other_holding else set()
        told = [
            event
            for event in self.dated
            if event[1].node != "crawls" and event[1].node not in beside
        ]
        shot = [(at, Event("crawls", "set", None, at[0])) for at in marks]
        events = [event for _, event in sorted([*told, *shot], key=itemgetter(0))]
        state = states_of(events, replace(self.kind, walks=True), self.waiting)["crawls"]
        return _reason_of(state) if state.mark == "direct" else None

    def sentence(self, node: Node) -> Phrase:
        """Return the whole reason a setting is in doubt, or how it is found."""
        state = self.states[node]
        name, were = NODE_NOUNS[node], _were(node)
        if state.mark == "waits":
            return self._waits()
        if state.touched:
            return phrase(f"The {name} {were} moved and not measured since.")
        if state.mark == "rests" and state.on is not None:
            rest, on = "rest" if node in PLURAL else "rests", NODE_NOUNS[state.on]
            return phrase(f"The {name} {rest} on the {on}, which {_are(state.on)} in doubt.")
        if state.mark == "off":
            return self._off(state)
        if state.because is None:
            return phrase(STEPS[node].how)
        edge = state.because
        above = NODE_NOUNS[edge.above]
        reason = edge.reason[0].upper() + edge.reason[1:]
        since = f"since the {name} {were} found. {reason}."
        if state.now is None:
            return phrase(f"The {above} {_were(edge.above)} moved {since}")
        was, now = (said_value(edge.above, value) for value in (state.before, state.now))
        if was is None or now is None or edge.threshold is None or _by_stiffness(state):
            return phrase(f"The {above} changed {since}")
        return phrase(f"The {above} went from {{was}} to {{now}} {since}", was=was, now=now)

    def _off(self, state: NodeState) -> Phrase:
        """Say what was found and is not good, and which way it is put right."""
        value = state.value
        if isinstance(value, float):
            left = outward_is_left(self.setup.archer) == (value > 0)
            way, to = ("left", "right") if left else ("right", "left")
            # the point swings round the nock: aside = drift/10 m x (nock groove to plate)
            reach = self.archer.draw.length.value if self.archer.draw else MARKED_DRAW_MM
            aside = abs(value) / 10_000 * (reach - TRADE_OFFSET_MM)
            return phrase(
                f"The column drifts {{drift}} to the {way} in 10 m: found, and not good. Bring the "
                f"point {{half}} to {{whole}} to the {to}, half first, and walk back again.",
                drift=gap(abs(value)),
                half=gap(aside / 2),
                whole=gap(aside),
            )
        if state.node == "walk_back":
            return phrase(f"The column: {plain(str(value))}. Found, and not good. Correct it.")
        if value == SCATTERED:
            return phrase(
                "Not all shafts struck inside your circle, on no one side. Shoot them again, or "
                "name a wider circle."
            )
        return phrase(f"The bare shafts struck {value}: found, and not good. Correct it.")


_ASIDE: dict[Node, AsideStep] = {"weight_rough": "scale", "brace": "brace", "nock": "nock"}


def _reason_of(state: NodeState) -> Phrase | None:
    """Return why a setting is in doubt in a few words; None where it stands."""
    if state.touched:
        return phrase("moved, not measured")
    if state.mark == "off":
        return phrase("drifts" if state.node == "walk_back" else "bare shafts not level")
    if state.mark == "rests" and state.on is not None:
        return phrase(f"rests on {SHORT_WORDS[state.on]}")
    if state.because is None:
        return None
    above = state.because.above
    if above in _CHANGED:
        return phrase(_CHANGED[above])
    name = SHORT_WORDS[above]
    if state.now is None:
        return phrase(f"{name} moved since")
    moved = _moved(above, state.before, state.now)
    if moved is None:
        return phrase(f"{name} changed since")
    figure, word = moved
    return phrase(f"{name} {{by}} {word} since", by=figure)


def _by_stiffness(state: NodeState) -> bool:
    """Return whether arrows changed in stiffness more than in the mass that would be said."""
    if not isinstance(state.before, tuple) or not isinstance(state.now, tuple):
        return False
    heavier, stiffer = (b - a for a, b in zip(state.before, state.now, strict=True))
    return abs(stiffer) > abs(heavier)


def _were(node: Node) -> str:
    return "were" if node in PLURAL else "was"


def _are(node: Node) -> str:
    return "are" if node in PLURAL else "is"


def _named(names: list[str]) -> str:
    """Return at most three names in a row.

    >>> _named(["brace", "nock height", "crawls", "arrows"])
    'brace, nock height, crawls and 1 more'
    """
    shown, more = names[:MOST_NAMES], len(names) - MOST_NAMES
    if more > 0:
        return f"{', '.join(shown)} and {more} more"
    return listed(shown)


def said_value(node: Node, value: Setting | None) -> Figure | None:
    """Return a setting's value as a figure; None for words and for what has none."""
    if value is None or isinstance(value, str):
        return None
    if isinstance(value, tuple):
        return gr(math.exp(value[0]))
    if isinstance(value, RiserLoad):
        return count(round(value.mass_g))
    unit = STEPS[node].unit
    if unit == "lbf":
        return lbf(value)
    if unit == "gr":
        return gr(value)
    if unit == "grams":
        return count(round(value))
    return gap(value) if unit in ("gap", "drift") else mm(value)


def said_word(value: Setting | None) -> str | None:
    """Return a setting's word, where it has one."""
    return plain(value) if isinstance(value, str) else None


def _moved(node: Node, before: Setting | None, now: Setting) -> tuple[Figure, str] | None:
    """Return by how much a setting moved, and the word for which way."""
    if isinstance(before, tuple) and isinstance(now, tuple):
        heavier, stiffer = (b - a for a, b in zip(before, now, strict=True))
        if abs(stiffer) > abs(heavier):
            return percent(abs(math.expm1(stiffer))), "stiffer" if stiffer > 0 else "weaker"
        return percent(abs(math.expm1(heavier))), "heavier" if heavier > 0 else "lighter"
    if isinstance(before, RiserLoad) and isinstance(now, RiserLoad):
        return _loaded(before, now)
    if isinstance(before, float) and isinstance(now, float):
        figure = said_value(node, abs(now - before))
        if figure is None:
            return None
        words = ("heavier", "lighter") if node in ("weight_rough", "silencers") else (
            ("longer", "shorter") if node == "draw" else ("higher", "lower")
        )  # fmt: skip
        return figure, words[0] if now > before else words[1]
    return None


LEAST_MASS_G = 5.0


def _loaded(before: RiserLoad, now: RiserLoad) -> tuple[Figure, str]:
    """Return what came on or off a riser; the same mass elsewhere moved the balance."""
    more = now.mass_g - before.mass_g
    if abs(more) >= LEAST_MASS_G:
        return count(round(abs(more))), "g on" if more > 0 else "g off"
    up = now.moment_g - before.moment_g
    return count(round(abs(up))), "g further up" if up > 0 else "g further down"


def numbers(
    facts: OrderFacts,
    *,
    setup: "Setup",
    archer: ArcherNumbers,
    bow: "BowNumbers",
    string: StringNumbers,
    nock: NockNumbers,
) -> OrderNumbers:
    """Return the order of work of a rig."""
    return OrderNumbers(facts, setup, archer, bow, string, nock)
