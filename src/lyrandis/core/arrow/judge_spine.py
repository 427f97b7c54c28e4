"""Judging the spine: the shafts against what the rig wants, and whether the tail clears the bow."""

import math
from functools import partial

from lyrandis.core import judgement as j
from lyrandis.core.arrow.judge_mass import lightest_gpp
from lyrandis.core.arrow.match import (
    FAR_INDEX,
    MARGINAL_NS,
    SLAP_NS,
    STIFFEST,
    STRONG_LBF,
    WEAKEST,
    WEAKEST_AT_ALL,
    SpineMatch,
    Stiffness,
    clearance_at,
    clearance_of,
    spine_index,
)
from lyrandis.core.arrow.shooting import ArrowSide, Shooting, outward_is_left
from lyrandis.core.arrow.spine_board import rule_of
from lyrandis.core.arrow.thumb_rule import (
    FROM_LENGTH_IN,
    FROM_POINT_GR,
    LOW_STRETCH,
    PAST_CENTRE,
    PER_25_GR,
    PER_INCH,
)
from lyrandis.core.arrow.ways import no_match
from lyrandis.core.computed import Computed
from lyrandis.core.phrase import Phrase, gap, gpp, hertz, millis, mps, percent, phrase, ratio, spine

STIFFNESS_WORDS: dict[Stiffness, str] = {
    "very_weak": "far too weak",
    "weak": "too weak",
    "little_weak": "a little weak",
    "matched": "matched",
    "little_stiff": "a little stiff",
    "stiff": "too stiff",
    "far": "far too stiff",
}
CLEARANCE_WORDS = {"clear": "clear", "marginal": "marginal", "slap": "slaps"}
_SEVERITY: dict[Stiffness, j.Severity] = {
    "very_weak": "mend",
    "weak": "mend",
    "little_weak": "watch",
    "matched": "good",
    "little_stiff": "watch",
    "stiff": "mend",
    "far": "mend",
}

LIGHT_BOW_LBF = 26.0
"""Assumption: below this on the fingers hardly a shaft on sale is weak enough."""
WEAK_BEYOND_DOUBT = -2.5
"""Index from which a shaft is weak whatever the releases say. Convention."""

RULES: tuple[j.Rule, ...] = (
    j.Rule(
        id="spine-match",
        stage="arrow",
        title="The spine this rig wants",
        statement="The shot is computed, release to clear of the bow, for spines from "
        f"{STIFFEST:.0f} lb down to {WEAKEST:.0f} lb, on a light bow to {WEAKEST_AT_ALL:.0f} lb, "
        "nine releases that differ in push, way and string. Each has its match, the first spine "
        "whose tail leaves without leaning; the mean of the middle five is the rig's. The band "
        "is their spread, at least a tenth either way and all spines round it that lean unseen, "
        "widened by what is not known of plate, point and string, and a tenth downward on bows "
        f"from {STRONG_LBF[1]:.0f} lb up, where the mechanics lean stiff. The index is 10 "
        f"ln(own/matched). Inside the band is Good, to {FAR_INDEX:g} a little off (Watch). "
        "Beyond it is Mend where the rule of thumb puts the shafts on the same side, else the "
        f"schools disagree (Watch). Under {LIGHT_BOW_LBF:.0f} lb on the fingers stiff shafts are "
        "Watch at most: first arrows usually are, and it costs accuracy, not the bow. Nobody "
        "has measured thumb releases: with an assumed window they are Watch at most.",
        school="Mechanics of the flexing arrow",
        source="Beam theory and a calibrated string, good to about a tenth; your own bare-shaft "
        "results outrank it. The steps of the index are Lyrandis's own convention.",
    ),
    j.Rule(
        id="spine-thumb-rule",
        stage="arrow",
        title="Spine by rule of thumb",
        statement=f"Draw weight, plus {PER_INCH:g} lb per inch of shaft over {FROM_LENGTH_IN:g} "
        f"in, {PER_25_GR:g} lb per 25 gr of point over {FROM_POINT_GR:g} gr, {LOW_STRETCH:g} lb "
        "for a low-stretch string; 5 to 10 lb less for a window short of centre, "
        f"{PAST_CENTRE:g} lb more for one cut past it.",
        school="Rule of thumb",
        source="A saying of the trade in several versions; these figures are our choice. It is "
        "steeper in point mass than the mechanics.",
    ),
    j.Rule(
        id="spine-clearance",
        stage="arrow",
        title="The tail must clear the bow",
        statement="How hard the tail half of the shaft strikes the side plate: to "
        f"{MARGINAL_NS * 1000:.1f} mN s is clear, to {SLAP_NS * 1000:.0f} marginal (Watch), beyond "
        "it slaps (Mend). Where the matched shaft touches too, where the window is only assumed, "
        f"and under {LIGHT_BOW_LBF:.0f} lb on the fingers it is Watch. A slapping shaft reads "
        "falsely: a stiff one can look weak. The fletching itself is not in it.",
        school="Mechanics of the flexing arrow",
        source="Computed impulse on the plate; ordinary shots give 0.2 to 1.5 mN s, plain slaps 14 "
        "and more. The limits between are Lyrandis's own.",
    ),
    j.Rule(
        id="spine-and-mass",
        stage="arrow",
        title="Light and whippy together is refused",
        statement="An arrow a little under the floor is tolerated only with a stiff enough "
        f"shaft. Under it and weak: Mend. Weak beyond doubt (index {WEAK_BEYOND_DOUBT:g} and "
        "less) and under the bowyer's word, or under another floor by more than its own error: "
        "Stop.",
        school="Practice of the trade",
        source="A whippy arrow takes up less of the bow's energy; what it leaves goes into the "
        "limbs.",
    ),
    j.Rule(
        id="spine-practice",
        stage="arrow",
        title="Stiff shafts off the string's own side, and shafts without points",
        statement="Where the string runs to the arrow's side, the plate's offset is the window "
        "less that track, and far stiffer shafts fly clean. A shaft without a point slides along "
        "the plate: many spines leave straight. Both are practices, not errors; flight of a "
        "pointless bare shaft is not computed, it tumbles.",
        school="Practice of the trade",
        source="The on-string part is computed like any other shot.",
    ),
)

TRACK_TO_SAY_MM = 1.0
SEE_WAYS = j.Action(label="Close the gap in spine", stage="arrow", control="ways")
SHOOT_BARE = j.Action(label="What a bare shaft would show", stage="arrow", control="ways")
MEASURE_WINDOW = j.Action(label="Enter the window", stage="arrow", control="window")
_finding = partial(j.found, "arrow")


def judge(c: Computed) -> list[j.Finding]:
    """Return the findings on spine and clearance."""
    if c.match is None or c.arrow.shooting is None:
        return []
    shooting, match = c.arrow.shooting, c.match
    if c.arrow.sheet.pointless:
        return [*_judge_pointless(shooting, match), *_judge_track(shooting.side)]
    return [
        *_judge_match(c, shooting, match),
        *_judge_clearance(shooting, match),
        *_judge_both(c, shooting, match),
        *_judge_track(shooting.side),
    ]


def _judge_match(c: Computed, shooting: Shooting, match: SpineMatch) -> list[j.Finding]:
    own = shooting.own_lbf
    if match.matched is None:
        return [_out_of_range(match)]
    word = match.word(own) if own is not None else None
    if own is None or word is None:
        return []
    index = spine_index(own, match.matched)
    rule = rule_of(c, shooting).wants
    figures = {
        "own": spine(own),
        "low": spine(match.low),
        "high": spine(match.high),
        "off": percent(abs(math.expm1(index / 10))),
        "rule": spine(max(rule, 1.0)),
    }
    severity, text = _verdict(c, shooting, word, _same_side(index, own / max(rule, 1.0)))
    if match is not c.arrow.model:
        text = text.replace("this rig wants", "your own flight says this rig wants")
    apart = schools_apart(c) is not None
    return [
        _finding(
            "spine-match",
            severity,
            phrase(text, **{k: v for k, v in figures.items() if f"{{{k}}}" in text}),
            (
                *from_flight(c),
                *spine_sum(shooting, c.arrow.model or match),
                phrase("The rule of thumb wants {rule}.", rule=figures["rule"]),
            ),
            None if word == "matched" else SHOOT_BARE if apart else SEE_WAYS,
        )
    ]


BOTH_APART = 1.1
"""The rule of thumb speaks on a side when it is this factor away."""


def schools_apart(c: Computed) -> float | None:
    """Return how far apart [ln] the schools are over these shafts, where they disagree, else None.

    Source: ln of the mechanics' match over the rule of thumb's.

    >>> from lyrandis.core.example import rig
    >>> schools_apart(rig()) is None
    True
    """
    shooting, match = c.arrow.shooting, c.match
    if shooting is None or match is None or match.matched is None or shooting.own_lbf is None:
        return None
    own, rule = shooting.own_lbf, max(rule_of(c, shooting).wants, 1.0)
    word, index = match.word(own), spine_index(own, match.matched)
    if c.arrow.sheet.pointless or word is None or _SEVERITY[word] != "mend":
        return None
    stiff_first_arrows = index > 0 and shooting.weight_lbf < LIGHT_BOW_LBF
    if stiff_first_arrows or _same_side(index, own / rule):
        return None
    return abs(math.log(match.matched / rule))


def _same_side(index: float, over_rule: float) -> bool:
    """Return whether the rule of thumb puts the shafts on the side the mechanics do."""
    return over_rule > BOTH_APART if index > 0 else over_rule < 1 / BOTH_APART


def _verdict(
    c: Computed, shooting: Shooting, word: Stiffness, both: bool
) -> tuple[j.Severity, str]:
    """Return how the shafts are judged: Mend only where both schools put them on the same side."""
    severity, stiff = _SEVERITY[word], word in ("little_stiff", "stiff", "far")
    text = _MATCH_TEXTS[word]
    thumb = c.setup.archer.hold is not None and c.setup.archer.hold.reading.hold == "thumb"
    if severity == "mend" and stiff and shooting.weight_lbf < LIGHT_BOW_LBF:
        severity = "watch"
        side = "left" if outward_is_left(c.setup.archer) else "right"
        text = (
            "Your shafts, {own}, are stiffer than a bow this light wants, {low} to {high}, as "
            f"first arrows mostly are. It costs accuracy only: they strike {side}."
        )
    elif severity == "mend" and not both:
        severity = "watch"
        text = (
            "Your shafts, {own}, are "
            f"{'stiff' if stiff else 'weak'} by the mechanics, {{low}} to {{high}}, and not by the "
            "rule of thumb, {rule}. The schools disagree: shoot one bare shaft beside fletched "
            "ones at 18 m, and go by that."
        )
    elif severity == "mend" and thumb and not shooting.side.told:
        severity = "watch"
    if thumb:
        text += " Nobody has measured thumb releases."
    return severity, text


_WEAK = "Your shafts, {own}, are {off} too weak: this rig wants {low} to {high}."
_STIFF = "Your shafts, {own}, are {off} too stiff: this rig wants {low} to {high}."
_MATCH_TEXTS: dict[Stiffness, str] = {
    "very_weak": "Your shafts, {own}, are far too weak: this rig wants {low} to {high}.",
    "weak": _WEAK,
    "little_weak": _WEAK,
    "matched": "Your shafts, {own}, match what this rig wants, {low} to {high}.",
    "little_stiff": _STIFF,
    "stiff": _STIFF,
    "far": "Your shafts, {own}, are far too stiff: this rig wants {low} to {high}.",
}


def _out_of_range(match: SpineMatch) -> j.Finding:
    return _finding(
        "spine-match",
        "watch",
        no_match(match),
        (
            phrase(
                "Spines from {most} down to {least} were shot, nine releases each.",
                most=spine(STIFFEST),
                least=spine(WEAKEST_AT_ALL),
            ),
        ),
        SEE_WAYS,
    )


def from_flight(c: Computed) -> tuple[Phrase, ...]:
    """Return what the match rests on where the rig's own flight has moved it.

    Source: `FlightNumbers.match`.

    >>> from lyrandis.core.example import rig
    >>> from_flight(rig())
    ()
    """
    match, model = c.match, c.arrow.model
    if match is None or model is None or match is model:
        return ()
    if match.matched is None or model.matched is None:
        return ()
    return (
        phrase(
            "Your flight: {own}, {low} to {high}; the mechanics alone said {model}, {less} to "
            "{more}.",
            own=spine(match.matched),
            low=spine(match.low),
            high=spine(match.high),
            model=spine(model.matched),
            less=spine(model.low),
            more=spine(model.high),
        ),
    )


def spine_sum(shooting: Shooting, match: SpineMatch) -> tuple[Phrase, ...]:
    """Return how the match came about, with what was assumed."""
    rough = " Rough: they spread far." if match.rough else ""
    lines = [
        phrase(
            "Matched {matched}, the middle of nine releases; {low} to {high} with what is not "
            f"known closely.{rough}",
            matched=spine(match.matched or 0.0),
            low=spine(match.low),
            high=spine(match.high),
        ),
        phrase(
            "The arrow leaves at {speed} after {time} on the string.",
            speed=mps(shooting.speed_mps),
            time=millis(match.time_on_string),
        ),
    ]
    if shooting.weight_lbf > STRONG_LBF[0]:
        lines.append(
            phrase("On strong bows the mechanics lean stiff: the band reaches up to a tenth lower.")
        )
    if match.frequency is not None and match.bends_on_string is not None:
        lines.append(
            phrase(
                "It rings at {ring}: {bends} of a bend while on the string, near 0.87 to 1.06 when "
                "matched.",
                ring=hertz(match.frequency),
                bends=ratio(match.bends_on_string),
            )
        )
    if shooting.own_lbf is not None and match.matched is not None:
        index = match.index(shooting.own_lbf) or 0.0
        lines.append(
            phrase(
                f"Index 10 ln({{own}} ÷ {{matched}}) = {index:+.1f}; + is stiff.",
                own=spine(shooting.own_lbf),
                matched=spine(match.matched),
            )
        )
    lines.append(_side_line(shooting.side))
    if shooting.assumed:
        lines.append(phrase("Assumed: " + ", ".join(shooting.assumed) + "."))
    return tuple(lines)


def _side_line(side: ArrowSide) -> Phrase:
    track = "" if not side.track_mm else ", less the string's track {track}"
    return phrase(
        f"Centreline at the plate {{offset}} from the string: window {{window}}{track}, and half "
        "the shaft.",
        offset=gap(side.offset_mm),
        window=gap(side.window.value, 2 * side.window.sd),
        track=gap(side.track_mm),
    )


def _judge_clearance(shooting: Shooting, match: SpineMatch) -> list[j.Finding]:
    if match.clearance is None or match.rear_impulse is None:
        return []
    severity: j.Severity = {"clear": "good", "marginal": "watch", "slap": "mend"}[match.clearance]  # type: ignore[assignment]
    texts = {
        "clear": "The tail clears the side plate.",
        "marginal": "The tail brushes the side plate: look for wear there.",
        "slap": "The tail slaps the side plate: what the flight shows can be false.",
    }
    text = texts[match.clearance]
    even_matched = _even_when_matched(shooting, match)
    if even_matched:
        text += (
            " On this bow even the matched shaft touches: a thinner or softer plate helps, or the "
            "side the string runs to."
        )
    if severity == "mend" and (
        even_matched or not shooting.side.told or shooting.weight_lbf < LIGHT_BOW_LBF
    ):
        severity = "watch"
    impulse = match.rear_impulse * 1000
    return [
        _finding(
            "spine-clearance",
            severity,
            phrase(text),
            (
                phrase(
                    f"Impulse on the tail half {impulse:.1f} mN s; clear to "
                    f"{MARGINAL_NS * 1000:.1f}, slap from {SLAP_NS * 1000:.0f}."
                ),
                _side_line(shooting.side),
                phrase("Shaft only: the fletching stands out further."),
            ),
            None if match.clearance == "clear" else _SEE_BEND,
        )
    ]


def _even_when_matched(shooting: Shooting, match: SpineMatch) -> bool:
    """Return whether the tail touches and would touch with the matched shaft too."""
    if match.clearance == "clear" or match.matched is None:
        return False
    return clearance_at(shooting.shot, round(match.matched, 1)) != "clear"


_SEE_BEND = j.Action(label="See it bend", stage="arrow", control="bend")


def _judge_both(c: Computed, shooting: Shooting, match: SpineMatch) -> list[j.Finding]:
    """Refuse an arrow that is too light and too weak at once; a little of both is put right."""
    finished, weight, floor = c.arrow.finished, c.bow.own_weight, c.arrow.floor
    if finished is None or weight is None or shooting.own_lbf is None:
        return []
    light = lightest_gpp(finished, weight)
    index = match.index(shooting.own_lbf)
    if index is None or match.word(shooting.own_lbf) == "matched" or index > 0:
        return []
    if light.value >= floor.grains_per_pound:
        return []
    stop = index <= WEAK_BEYOND_DOUBT and light.value < floor.grains_per_pound - floor.plus_minus
    text = (
        "{light} is under the floor, {floor}, and the shafts are too weak as well. "
        "Do not shoot them."
        if stop
        else "{light} is under the floor, {floor}: tolerated only with a stiff enough shaft, and "
        "these are weak."
    )
    return [
        _finding(
            "spine-and-mass",
            "stop" if stop else "mend",
            phrase(text, light=gpp(light.value), floor=gpp(floor.grains_per_pound)),
            spine_sum(shooting, match),
            j.Action(label="Weigh a heavier arrow", stage="arrow", control="arrow"),
            title="Too light and too weak",
        )
    ]


def _judge_track(side: ArrowSide) -> list[j.Finding]:
    """Say what a string that runs to one side does to the plate's offset."""
    if abs(side.track_mm) < TRACK_TO_SAY_MM:
        return []
    toward = side.track_mm > 0
    texts = {
        True: "The string runs {track} to the arrow's side: it passes the plate {offset} off it, "
        "not {window}, and stiffer shafts fly clean.",
        False: "The string runs {track} away from the arrow: it passes the plate {offset} off it, "
        "not {window}. Shoot off the other side, or turn the bow over if it is symmetrical.",
    }
    figures = {
        "track": gap(abs(side.track_mm)),
        "offset": gap(side.window.value - side.track_mm),
        "window": gap(side.window.value),
    }
    return [
        _finding(
            "spine-track",
            "good" if toward else "watch",
            phrase(texts[toward], **figures),
            (_side_line(side),),
            None if toward else MEASURE_WINDOW,
            rule="spine-practice",
        )
    ]


def _judge_pointless(shooting: Shooting, match: SpineMatch) -> list[j.Finding]:
    word = clearance_of(match.rear_impulse or 0.0)
    return [
        _finding(
            "spine-practice",
            "watch",
            phrase(
                "Shafts without points are a practice of their own: they slide along the plate, "
                "and many spines leave straight. Close range and a clear backstop only."
            ),
            (
                phrase(f"Tail against the plate: {CLEARANCE_WORDS[word]}, as it should here."),
                _side_line(shooting.side),
                phrase("Their flight is not computed: a bare shaft without a point tumbles."),
            ),
        )
    ]
