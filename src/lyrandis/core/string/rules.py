"""Judging the string: its length, turns, strands, settling and the quiet brace."""

from functools import partial

from lyrandis.core import judgement as j
from lyrandis.core.bow.words import FAMILY_WORDS, Family
from lyrandis.core.computed import Computed
from lyrandis.core.constants import MM_PER_IN, NEWTONS_PER_LBF
from lyrandis.core.phrase import Phrase, count, lbf, mm, per_length, percent, phrase, ratio
from lyrandis.core.string.advice import (
    advice_of,
    next_order,
    out_of_reach,
    quiet_said,
    strength_of,
    turns_to,
)
from lyrandis.core.string.length import FAR_OFF_MM, RULE_IN, USUAL_RULE_IN
from lyrandis.core.string.settling import (
    APART_H,
    ENOUGH_MM,
    LEAST_HOURS,
    LEAST_READINGS,
    SURE,
)
from lyrandis.core.string.strands import FACTOR_OF_SAFETY
from lyrandis.core.string.sweep import LEAST_HEIGHTS, MOST_HEIGHTS, SURE_ENOUGH
from lyrandis.core.string.turns import (
    FEWEST_PER_IN,
    MOST_PER_IN,
    SPONGY_PER_IN,
    TurnsWord,
    per_inch,
    turns_word,
)
from lyrandis.core.string.words import STRING_MATERIAL_WORDS
from lyrandis.core.tried import share_of, times_of

WEAK_STRING, DANGEROUS_STRING = 3.0, 2.0
"""Factor of safety under which a string is replaced, and under which it is not shot. Convention."""
NOT_BUILT: frozenset[Family] = frozenset(
    {"selfbow", "straight_longbow", "short_rigid_tip", "long_rigid_tip", "large_rigid_tip"}
)
"""Kinds whose tips are built for low-stretch fibre only where the bowyer says so."""

SETTLING_TRIED = (
    f"Of {times_of('settling')} made-up strings of each of its own law, two times, logarithm and "
    f"power, on damp days, read to 1/16 in or by evenings, {share_of('settling', 'early')} were "
    "called settled too soon; no measured string was compared."
)
SWEEP_TRIED = (
    f"On {times_of('sweep')} made-up bows of each of one valley, a slope and a spot outside the "
    "range, what was said and what came true lie apart by "
    f"{share_of('sweep', 'off', but=('flat', 'two'))} recorded or rated; a flat floor comes true "
    f"more often than is said, by {share_of('sweep', 'off', among='flat')}, two dips less often, "
    f"by {share_of('sweep', 'off', among='two')}."
)

RULES: tuple[j.Rule, ...] = (
    j.Rule(
        id="string-length",
        stage="string",
        title="How long the string is",
        statement=f"Bow less {USUAL_RULE_IN:g} in, recurves less {RULE_IN['hunting_recurve']:g} "
        "in; beside it the length that braces the computed bow. Told more than 3/4 in off both, "
        "it was measured otherwise (Watch). Measured under tension wins.",
        school="Habit of the trade, and statics",
        source="The rule is a starting point; the computed length is that of a typical bow.",
    ),
    j.Rule(
        id="string-turns",
        stage="string",
        title="Turns in the string",
        statement=f"Twisted bundles hold by their turns: none is Stop, under {FEWEST_PER_IN:g} to "
        f"the inch few hold it (Watch). Over {MOST_PER_IN:g} to the inch it is spongy and wears "
        f"(Watch), over {SPONGY_PER_IN:g} to the inch order a shorter one (Mend). "
        "Where the wished brace wants turns outside that, the string is the wrong length (Mend). A "
        "loop without end can be shortened only.",
        school="Practice of the trade",
        source="The bounds are Lyrandis's own; the shortening is that of a helix.",
    ),
    j.Rule(
        id="string-strands",
        stage="string",
        title="Strong enough at the shot's peak",
        statement="The most the string is asked for is at brace, full draw, or as the limbs come "
        "home. Its strength, a fifth taken off at loops and servings, over that is the factor of "
        f"safety: {FACTOR_OF_SAFETY:g} and more is Good, to {WEAK_STRING:g} Watch, to "
        f"{DANGEROUS_STRING:g} Mend, under it Stop.",
        school="Mechanics, with assumed fibres",
        source="Static tensions and a spring's energy; half of what the arrow leaves is taken to "
        "stretch the string. Strand figures are assumed: the maker's own word decides.",
    ),
    j.Rule(
        id="string-fibre",
        stage="string",
        title="Low-stretch fibre only on tips built for it",
        statement="On selfbows, straight longbows and static tips low-stretch fibre is Watch: ask "
        "the bowyer before it is shot.",
        school="Practice of the trade",
        source="A stiff string stops the limbs harder: its peak is half again that of polyester.",
    ),
    j.Rule(
        id="string-settling",
        stage="string",
        title="A new string settles first",
        statement="Settled is when less than 1/16 in of brace is still to come with "
        f"{100 * SURE:.0f} %, from {LEAST_READINGS} readings over {LEAST_HOURS:g} h strung, and "
        f"two sittings {APART_H:g} h strung apart agree within 1/16 in. Until then brace and nock "
        "rest on it (Watch). Damp days, a night unstrung and the rule's own step are allowed for.",
        school="Two times, a stretched exponential or a power, weighed together",
        source="Bayes' theorem with assumed priors. " + SETTLING_TRIED,
    ),
    j.Rule(
        id="brace-quiet",
        stage="string",
        title="The quiet brace",
        statement="Noise over brace has a quiet spot, two, or a flat floor; one is said where it "
        "stands out, two or a width where they fit as well. It is found when the chance that it "
        f"lies within 1/8 in reaches {100 * SURE_ENOUGH:.0f} % or next to nothing is left to gain, "
        f"from {LEAST_HEIGHTS} heights, at most {MOST_HEIGHTS}. Nothing is proposed outside the "
        "maker's range.",
        school="Tuning by sound and feel",
        source="Bayes' theorem over quiet spots, curvature and what an evening drifts, sizes "
        "assumed. " + SWEEP_TRIED,
    ),
)

FEWEST_SHOT = 8
"""Assumption: a string of fewer strands is shot on no bow."""
_TURN_TEXTS: dict[TurnsWord, tuple[j.Severity, str]] = {
    "apart": ("stop", "A twisted bundle without turns comes apart. Put turns in before stringing."),
    "loose": ("watch", "{per}: few turns hold this string together."),
    "good": ("good", "{turns} turns are {per}: it holds, and is not spongy."),
    "spongy": ("watch", "{per}: it is spongy and wears."),
    "too_many": ("mend", "{per}: order a shorter string."),
}
SHEET = j.Action(label="See the string", stage="string", control="sheet")
SWEEP = j.Action(label="Try a height", stage="string", control="brace")
SETTLE = j.Action(label="Add a reading", stage="string", control="settling")
_finding = partial(j.found, "string")


def judge(c: Computed) -> list[j.Finding]:
    """Return the findings on the string."""
    return [
        *_judge_length(c),
        *_judge_turns(c),
        *_judge_strands(c),
        *_judge_fibre(c),
        *_judge_settling(c),
        *_judge_quiet(c),
    ]


def _judge_length(c: Computed) -> list[j.Finding]:
    told = c.setup.string.part("string_length_mm")
    if told is None or not c.bow.likeness.known:
        return []
    both = c.string.length
    ways = [both.rule_mm, *([both.computed_mm] if both.computed_mm is not None else [])]
    if min(abs(told - way) for way in ways) <= FAR_OFF_MM:
        return []
    return [
        _finding(
            "string-length",
            "watch",
            phrase(
                "The string is told as {told}; this bow usually takes about {usual}. Measure it "
                "again, on the bow.",
                told=mm(told),
                usual=mm(both.computed_mm or both.rule_mm),
            ),
            (
                phrase("By the trade's habit {rule}.", rule=mm(both.rule_mm)),
                phrase("The computed bow at its brace {own}.", own=mm(ways[-1])),
            ),
            SHEET,
        )
    ]


def _judge_turns(c: Computed) -> list[j.Finding]:
    turns = c.setup.string.turns
    if not turns:
        return []
    now, length = turns[-1].reading.turns, c.string.length_mm
    kind = c.setup.string.kind
    share = per_inch(now, length)
    word = turns_word(share, kind or "endless")
    severity, text = _TURN_TEXTS[word]
    lines = [
        phrase(
            f"{now:g} turns ÷ {{length}} = {{per}}.",
            length=mm(length),
            per=per_length(share),
        )
    ]
    wrong = _wrong_length(c)
    if wrong is not None and word != "apart":
        return [_finding("string-turns", "mend", wrong, tuple(lines), SHEET)]
    sentence = phrase(text.replace("{turns}", f"{now:g}"), per=per_length(share))
    title = "A string without turns" if word == "apart" else None
    return [_finding("string-turns", severity, sentence, tuple(lines),
                     None if word == "good" else SHEET, title)]  # fmt: skip


def _wrong_length(c: Computed) -> Phrase | None:
    """Return what to say where a brace inside the range needs turns no string should have."""
    brace = c.string.sure_brace
    if brace is None or c.string.bundle is None or c.string.gain is None:
        return None
    low, high = c.string.limits
    if low <= brace.value <= high:
        return None
    wished = low if brace.value < low else high
    needed = turns_to(c, wished)
    order = next_order(c, (low + high) / 2)
    if order is None:
        return None
    inch = c.string.length_mm / MM_PER_IN
    if needed is not None and FEWEST_PER_IN * inch <= needed <= MOST_PER_IN * inch:
        return None
    return phrase(
        "Turns alone do not bring the brace to {wished}: this string is the wrong length. Order "
        "one of {length} on the bow.",
        wished=mm(wished),
        length=mm(order.finished_mm),
    )


def _judge_strands(c: Computed) -> list[j.Finding]:
    result, told = strength_of(c), c.setup.string.strands
    if result is None and told is not None and told < FEWEST_SHOT:
        return [
            _finding(
                "string-strands",
                "mend",
                phrase("{strands} strands hold no bow that is shot: count them again.",
                       strands=count(told)),
                (phrase("Fibre or bow is not known: the fewest strands anybody uses stand here."),),
                SHEET,
                before_shooting=True,
            )
        ]  # fmt: skip
    if result is None:
        return []
    factor, strands = result.factor, result.strands
    texts: tuple[tuple[float, j.Severity, str], ...] = (
        (FACTOR_OF_SAFETY, "good", "{strands} strands hold {factor} times the most a shot asks."),
        (WEAK_STRING, "watch", "{strands} strands hold {factor} times the most a shot asks; "
         "{least} would be usual."),
        (DANGEROUS_STRING, "mend", "{strands} strands hold only {factor} times the most a shot "
         "asks. Fit a string of {least}."),
        (0.0, "stop", "{strands} strands hold only {factor} times the most a shot asks. Do not "
         "shoot this string."),
    )  # fmt: skip
    severity, text = next((s, t) for limit, s, t in texts if factor >= limit)
    advised = advice_of(c, result.material)
    tensions = result.tensions
    pound = NEWTONS_PER_LBF
    return [
        _finding(
            "string-strands",
            severity,
            phrase(
                text,
                strands=count(strands),
                factor=ratio(factor),
                least=count(advised.strands if advised else result.least),
            ),
            (
                phrase(
                    "Tension {brace} at brace, {full} at full draw, about {peak} as the limbs come "
                    "home; {dry} if dry-fired.",
                    brace=lbf(tensions.brace_n / pound),
                    full=lbf(tensions.full_n / pound),
                    peak=lbf(tensions.peak_n / pound),
                    dry=lbf(tensions.dry_fire_n / pound),
                ),
                phrase(
                    f"{strands} strands of {STRING_MATERIAL_WORDS[result.material]} hold {{holds}} "
                    "at the loops.",
                    holds=lbf(factor * max(tensions.peak_n, tensions.full_n) / pound),
                ),
            ),
            None if severity == "good" else SHEET,
            "A string too weak for this bow" if severity == "stop" else None,
            before_shooting=severity == "mend",
        )
    ]


def _judge_fibre(c: Computed) -> list[j.Finding]:
    family = c.bow.likeness.shape.family
    told = c.setup.bow.family is not None
    if c.setup.string.material != "low_stretch" or not told or family not in NOT_BUILT:
        return []
    return [
        _finding(
            "string-fibre",
            "watch",
            phrase(
                f"Low-stretch fibre on a {FAMILY_WORDS[family]}: ask the bowyer whether its tips "
                "are built for it."
            ),
            (phrase("A stiff string stops the limbs harder than polyester does."),),
            SHEET,
        )
    ]


def _judge_settling(c: Computed) -> list[j.Finding]:
    settling = c.string.settling
    if settling is None or c.string.settled is None:
        return []
    left = settling.now
    lines = (
        phrase(
            "{readings} readings over {hours} h strung; less than {limit} to come with {sure}.",
            readings=count(settling.count),
            hours=count(round(settling.hours, 1)),
            limit=mm(ENOUGH_MM),
            sure=percent(left.settled),
        ),
    )
    if c.string.settled:
        return [_finding("string-settling", "good", phrase("The string has settled."), lines)]
    if settling.looks_still:
        sentence = phrase(
            "The brace is no longer moving that we can see. Look again after the next two "
            f"sittings: two {APART_H:g} h strung apart must agree."
        )
        return [_finding("string-settling", "watch", sentence, lines, SETTLE)]
    at = settling.settled_at
    when = (
        "when, is not yet to be said"
        if at is None
        else f"settled in about {max(at - settling.hours, 0.5):.0f} h more strung"
    )
    return [
        _finding(
            "string-settling",
            "watch",
            phrase(
                "Up to {left} of brace may still come: " + when + ". Wait before fixing the nock.",
                left=mm(left.p90_mm),
            ),
            lines,
            SETTLE,
        )
    ]


def to_sixteenth(brace_mm: float) -> float:
    """Return a brace to the sixteenth of an inch it is set to [mm]. Source: definition.

    >>> to_sixteenth(190.0)
    190.5
    """
    return round(brace_mm / MM_PER_IN * 16) / 16 * MM_PER_IN


def _judge_quiet(c: Computed) -> list[j.Finding]:
    quiet = c.string.quiet
    if quiet is None or quiet.heights < 2:
        return []
    lines = [
        phrase("{heights} heights tried.", heights=count(quiet.heights)),
        quiet_said(quiet),
    ]
    if not c.string.limits_told:
        low, high = c.string.limits
        lines.append(
            phrase("Maker's range not told: {low} to {high} taken.", low=mm(low), high=mm(high))
        )
    if c.string.settled is False:
        lines.append(phrase("The string is still settling: take it as an estimate."))
    spot = to_sixteenth(quiet.brace_mm)
    severity: j.Severity = "good"
    if quiet.enough and quiet.at_end is not None:
        low, high = c.string.limits
        spot = low if quiet.at_end == "low" else high
        whose = "maker's" if c.string.limits_told else "usual"
        end = "least" if quiet.at_end == "low" else "most"
        text = f"The quiet spot lies at or past the {whose} {end}: stay at {{spot}}."
    elif quiet.other_mm is not None:
        text = (
            "Two heights are as quiet, {first} and {second}: keep the one that feels kinder. One "
            "of the two it is with {near}."
        )
    elif quiet.floor_mm is not None:
        text = "From {low} to {high} nobody hears a difference: stay at {spot}, in its middle."
    elif quiet.enough:
        text = "The quiet brace is {spot}, sure to {1/8 in} with {near}."
    else:
        text = "{heights} heights make the quiet brace sure to {1/8 in} with {near}."
        severity = "watch"
    figures = {"spot": mm(spot), "near": percent(quiet.near), "heights": count(quiet.heights)}
    figures |= {
        name: mm(to_sixteenth(place))
        for names, places in (
            (("first", "second"), quiet.spots_mm if quiet.other_mm is not None else ()),
            (("low", "high"), quiet.floor_mm or ()),
        )
        for name, place in zip(names, places, strict=False)
    }
    reach = out_of_reach(c, spot if quiet.enough else quiet.next_mm)
    if reach is not None:
        text += f" {reach.template}"
        figures |= reach.figures
    return [
        _finding(
            "brace-quiet",
            severity,
            phrase(
                text,
                **{name: figure for name, figure in figures.items() if f"{{{name}}}" in text},
            ),
            tuple(lines),
            None if quiet.enough else SWEEP,
        )
    ]
