"""Judging the spine: the shafts against what the rig wants, and whether the tail clears the bow."""

import math
from functools import partial

from lyrandis.core import judgement as j
from lyrandis.core.arrow.judge_mass import lightest_gpp, mass_is_known
from lyrandis.core.arrow.match import (
    FAR_INDEX,
    MARGINAL_NS,
    SLAP_NS,
    STIFFEST,
    WEAKEST_AT_ALL,
    Stiffness,
    clearance_at,
    clearance_of,
    spine_index,
)
from lyrandis.core.arrow.matched import (
    HEAVY_SHAFT_GR_PER_IN,
    LEAST_BAND,
    MECHANICS_SD,
    MOST_BAND,
    SCHOOLS_APART_SDS,
    SpineMatch,
    asked,
    is_heavy,
)
from lyrandis.core.arrow.practice import (
    ANCHOR_LBF,
    ANCHOR_LENGTH_IN,
    ANCHOR_TIP_GR,
    ANCHOR_WEIGHT_LBF,
    BY_THUMB,
    LOW_STRETCH,
    PER_25_GR,
    PER_BRACE_IN,
    PER_INCH,
    PRACTICE_SD,
    THUMB_SD,
)
from lyrandis.core.arrow.shooting import ArrowSide, Shooting, outward_is_left
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
LIGHT_BOW_LBF = 26.0
"""Assumption: below this on the fingers hardly a shaft on sale is weak enough."""
MEND_INDEX, MEND_SDS = FAR_INDEX, 5.0
STOP_INDEX, STOP_SDS = 5.0, 10.0
"""From `MEND_INDEX` and so many times the match's sd (in tenths) on, shafts are put right; from
`STOP_INDEX` on weak ones are refused. Convention."""
STURDY = ("wood", "carbon")
"""Shafts that break where they are far too weak."""
WEAK_BEYOND_DOUBT = -2.5
WEAK_UNDER_TOLD = -1.5
"""Index from which a shaft is weak whatever the releases say; the second under a told least.
Convention."""

RULES: tuple[j.Rule, ...] = (
    j.Rule(
        id="spine-match",
        stage="arrow",
        also=("flight",),
        title="The spine this rig wants",
        statement="Two schools make one number. The shot is computed, release to clear of the bow, "
        f"for spines from {STIFFEST:.0f} lb down to {WEAKEST_AT_ALL:.0f} lb, nine releases that "
        "differ in push, way and string: the straighter a spine leaves, the likelier it is. "
        "Practice says where to look, and a kick that is flat or odd leaves it to practice. The "
        f"band is what both leave open, {math.expm1(LEAST_BAND):.0%} at least and "
        f"{math.expm1(MOST_BAND):.0%} at most, widened by a draw weight or a window nobody "
        f"measured. Shafts over {HEAVY_SHAFT_GR_PER_IN:g} gr in 1 in go by practice alone. The "
        "index is 10 ln(own/match). Inside the band is Good; beyond an index of "
        f"{MEND_INDEX:g} and half the match's own error in tenths it is Mend, between the two "
        f"Watch. Carbon or wood weaker than {STOP_INDEX:g} and the whole error, by both schools, "
        f"is Stop. Where the schools lie {SCHOOLS_APART_SDS:g} of their common error apart: "
        f"Watch, and one bare shaft. Under {LIGHT_BOW_LBF:.0f} lb on the fingers stiff shafts are "
        "Watch at most: first arrows usually are, and it costs accuracy, not the bow. Nobody has "
        "measured thumb releases: before a bare shaft was shot nothing is put right there.",
        school="Mechanics of the flexing arrow and practice, together",
        source="Beam theory and a calibrated string, good to about "
        f"{math.expm1(MECHANICS_SD):.0%}, weighed against practice; your own bare shafts outrank "
        "both. The steps of the index are Lyrandis's own convention.",
    ),
    j.Rule(
        id="spine-everyday",
        stage="arrow",
        also=("flight",),
        title="Spine by practice",
        statement=f"{ANCHOR_LBF:g} lb of spine at {ANCHOR_WEIGHT_LBF:g} lb on the fingers, growing "
        f"with weight to the two thirds; {PER_INCH:.0%} for 1 in of shaft over "
        f"{ANCHOR_LENGTH_IN:g} in; {PER_25_GR:.0%} per 25 gr of point over "
        f"{ANCHOR_TIP_GR:g} gr; "
        f"{LOW_STRETCH:.0%} for a low-stretch string; {PER_BRACE_IN:.0%} for 1 in of brace over "
        "the usual; less for a window short of centre, more for one past it; "
        f"{BY_THUMB:.0%} less by thumb. Good to {PRACTICE_SD:.0%}, by thumb {THUMB_SD:.0%}.",
        school="Practice",
        source="Fitted on sixteen everyday set-ups and forty-five sound rigs of our own (rms 8 %); "
        "the figures are our choice.",
    ),
    j.Rule(
        id="spine-clearance",
        stage="arrow",
        title="The tail must clear the bow",
        statement="How hard the tail half of the shaft strikes the side plate: to "
        f"{MARGINAL_NS * 1000:.1f} mN s is clear, to {SLAP_NS * 1000:.0f} marginal (Watch), beyond "
        "it slaps (Mend). Where the matched shaft touches too it is the bow, not the shaft, and "
        "only said; where the window is only assumed, "
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
        statement="Under the bowyer's or maker's word a weak shaft is Mend, and from an index of "
        f"{WEAK_UNDER_TOLD:g} on Stop. Where nobody told a least: within a grain per pound of what "
        "is refused anyway, weak shafts are Mend, and weak beyond doubt (index and the match's "
        f"error {WEAK_BEYOND_DOUBT:g} or less) Stop. Only for arrows that were weighed.",
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
    if own is None:
        return []
    index = match.index(own)
    severity, text = _verdict(c, shooting, match, own)
    by_flight = match is not c.arrow.model
    if by_flight:
        text = text.replace("this rig wants", "your own flight says this rig wants")
    figures = {
        "own": spine(own),
        "low": spine(asked(match.low)),
        "high": spine(asked(match.high)),
        "off": percent(abs(math.expm1(index / 10))),
        "mechanics": spine(asked(match.shot.matched or match.matched)),
        "practice": spine(asked(match.practice.wants)),
    }
    matched = match.word(own) == "matched"
    return [
        _finding(
            "spine-match",
            severity,
            phrase(text, **{k: v for k, v in figures.items() if f"{{{k}}}" in text}),
            (*from_flight(c), *spine_sum(shooting, c.arrow.model or match)),
            None if matched else SHOOT_BARE if schools_apart(c) is not None else SEE_WAYS,
        )
    ]


def schools_apart(c: Computed) -> float | None:
    """Return how far apart [ln] the schools are over these shafts, where they disagree, else None.

    Source: ln of the mechanics' match over practice's.

    >>> from lyrandis.core.example import rig
    >>> schools_apart(rig()) is None
    True
    """
    shooting, model = c.arrow.shooting, c.arrow.model
    if shooting is None or model is None or shooting.own_lbf is None or c.arrow.sheet.pointless:
        return None
    if c.match is not model or model.word(shooting.own_lbf) == "matched":
        return None
    return None if model.apart is None else abs(model.apart)


def spine_severity(
    match: SpineMatch, own_lbf: float, *, sturdy: bool, weight_lbf: float
) -> j.Severity:
    """Return how shafts stand to the match: Good in the band, else by index and the match's error.

    Source: `MEND_INDEX`, `STOP_INDEX`, conventions; a ± that reaches over a border steps down.

    >>> from lyrandis.core.example import rig
    >>> match = rig().match
    >>> told = {"sturdy": True, "weight_lbf": 45.0}
    >>> [spine_severity(match, match.matched * x, **told) for x in (1.0, 1.2, 1.8, 0.4)]
    ['good', 'watch', 'mend', 'stop']
    """
    if match.word(own_lbf) == "matched":
        return "good"
    index = match.index(own_lbf)
    if abs(index) <= MEND_INDEX + MEND_SDS * match.sd:
        return "watch"
    if index > 0:
        return "watch" if weight_lbf < LIGHT_BOW_LBF else "mend"
    by_both = spine_index(own_lbf, match.weaker_school) < -STOP_INDEX
    refused = sturdy and by_both and -index > STOP_INDEX + STOP_SDS * match.sd
    return "stop" if refused else "mend"


def _supposed(c: Computed, shooting: Shooting) -> str | None:
    """Return what was only supposed of what decides the spine: then nothing is put right yet."""
    if c.setup.bow.family is None:
        return "the kind of bow"
    if not shooting.side.told:
        return "the window"
    return None


def _verdict(
    c: Computed, shooting: Shooting, match: SpineMatch, own: float
) -> tuple[j.Severity, str]:
    """Return how the shafts are judged, and what is said of them."""
    word = match.word(own)
    sturdy = c.arrow.sheet.material in (*STURDY, None)
    severity = spine_severity(match, own, sturdy=sturdy, weight_lbf=shooting.weight_lbf)
    text = _MATCH_TEXTS[word]
    thumb = c.setup.archer.hold is not None and c.setup.archer.hold.reading.hold == "thumb"
    supposed = _supposed(c, shooting)
    if severity == "stop":
        text += " Such shafts can break on the string: do not shoot them."
    if schools_apart(c) is not None:
        severity = "watch"
        text = (
            "The schools disagree over your shafts, {own}: the mechanics want {mechanics}, "
            "practice {practice}. Shoot one bare shaft beside fletched ones at 18 m, and go by it."
        )
    elif word in ("stiff", "far") and shooting.weight_lbf < LIGHT_BOW_LBF and not thumb:
        side = "left" if outward_is_left(c.setup.archer) else "right"
        text = (
            "Your shafts, {own}, are stiffer than a bow this light wants, {low} to {high}, as "
            f"first arrows mostly are. It costs accuracy only: they strike {side}."
        )
    elif severity in ("mend", "stop") and supposed is not None:
        severity = "watch"
        text = f"{_MATCH_TEXTS[word]} Not yet for sure: {supposed} is not known."
    if thumb:
        if severity in ("watch", "mend") and not c.flight.facts.seen:
            severity = "good"
            text = (
                "Your shafts, {own}, lie outside what the matched school wants, {low} to {high}; "
                "the school of least stiffness takes any that holds. A bare shaft shows yours."
            )
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
    return (
        phrase(
            "Your flight: {own}, {low} to {high}; the schools alone said {model}, {less} to "
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
    root = match.shot.matched
    practice = match.practice
    lines = [
        phrase(
            "Matched {matched}; {low} to {high} with what is not known closely.",
            matched=spine(match.matched),
            low=spine(match.low),
            high=spine(match.high),
        ),
        phrase(
            "Practice wants {wants}.", wants=spine(practice.wants, practice.sd * practice.wants)
        ),
        phrase("By the mechanics alone no shaft leaves straight.")
        if root is None
        else phrase("The mechanics want {wants}.", wants=spine(root, MECHANICS_SD * root)),
        phrase(
            "The arrow leaves at {speed} after {time} on the string.",
            speed=mps(shooting.speed_mps),
            time=millis(match.shot.time_on_string),
        ),
        phrase(
            "It rings at {ring}: {bends} of a bend while on the string, near 0.87 to 1.06 when "
            "matched.",
            ring=hertz(match.frequency),
            bends=ratio(match.bends_on_string),
        ),
    ]
    if is_heavy(shooting.shot.beam):
        lines.append(
            phrase("A shaft this heavy was never tried on the mechanics: practice alone decides.")
        )
    if shooting.own_lbf is not None:
        index = match.index(shooting.own_lbf)
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
    """Judge the tail against the matched shaft's: what even that does is the bow's own."""
    clearance, impulse = match.shot.clearance, match.shot.rear_impulse
    if clearance is None or impulse is None:
        return []
    severity: j.Severity = {"clear": "good", "marginal": "watch", "slap": "mend"}[clearance]  # type: ignore[assignment]
    text = {
        "clear": "The tail clears the side plate.",
        "marginal": "The tail brushes the side plate: look for wear there.",
        "slap": "The tail slaps the side plate: what the flight shows can be false.",
    }[clearance]
    even = "clear"
    if clearance != "clear":
        even = clearance_at(shooting.shot, round(match.matched, 1))
    if clearance != "clear" and even == clearance:
        severity = "good"
        text = (
            "On this bow the tail touches the side plate with the matched shaft too: a thinner or "
            "softer plate helps, or the side the string runs to."
        )
    elif severity == "mend" and (
        even != "clear" or not shooting.side.told or shooting.weight_lbf < LIGHT_BOW_LBF
    ):
        severity = "watch"
    return [
        _finding(
            "spine-clearance",
            severity,
            phrase(text),
            (
                phrase(
                    f"Impulse on the tail half {impulse * 1000:.1f} mN s; clear to "
                    f"{MARGINAL_NS * 1000:.1f}, slap from {SLAP_NS * 1000:.0f}."
                ),
                _side_line(shooting.side),
                phrase("Shaft only: the fletching stands out further."),
            ),
            None if clearance == "clear" else _SEE_BEND,
        )
    ]


_SEE_BEND = j.Action(label="See it bend", stage="arrow", control="bend")


def _judge_both(c: Computed, shooting: Shooting, match: SpineMatch) -> list[j.Finding]:
    """Refuse an arrow that is too light and too weak at once; a little of both is put right."""
    finished, weight, floor = c.arrow.finished, c.bow.own_weight, c.arrow.floor
    if finished is None or weight is None or shooting.own_lbf is None:
        return []
    light, own = lightest_gpp(finished, weight), shooting.own_lbf
    index, word = match.index(own), match.word(own)
    if word == "matched" or index > 0 or not mass_is_known(c):
        return []
    if round(light.value, 1) >= round(floor.both_below, 1):
        return []
    if floor.told:
        stop = index <= WEAK_UNDER_TOLD
    else:
        if word not in ("weak", "very_weak"):
            return []
        stop = index + 10 * match.sd <= WEAK_BEYOND_DOUBT
    text = (
        "{light} is {under}, and the shafts are too weak as well. Do not shoot them."
        if stop
        else "{light} is {under}: tolerated only with a stiff enough shaft, and these are weak."
    )
    under = "under {floor}, what is told" if floor.told else "close to {floor}, where it is refused"
    text = text.replace("{under}", under)
    limit = floor.grains_per_pound if floor.told else floor.danger
    return [
        _finding(
            "spine-and-mass",
            "stop" if stop else "mend",
            phrase(text, light=gpp(light.value), floor=gpp(limit)),
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
        "not {window}; the match counts from there.",
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
    word = clearance_of(match.shot.rear_impulse or 0.0)
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
