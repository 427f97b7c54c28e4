"""Judging the bow's condition: brace within the maker's range, limbs that match, the look-over."""

from functools import partial

from lyrandis.core import judgement as j
from lyrandis.core.bow.inspection import ITEMS, SEVERITY, looked_over
from lyrandis.core.bow.likeness import (
    FAR_BRACE_IN,
    FAR_FROM_TOLD_IN,
    brace_far_off,
    brace_to_pivot,
    usual_braces,
)
from lyrandis.core.bow.limbs import (
    MARKS_APART_LBF,
    MEND_ABOVE,
    STOP_ABOVE,
    TWO_MAKERS,
    TWO_OF_A_KIND,
    WATCH_ABOVE,
    Mismatch,
    mismatch_of,
)
from lyrandis.core.bow.readings import LimbPair
from lyrandis.core.bow.words import FAMILY_WORDS, INSPECTION_WORDS
from lyrandis.core.computed import Computed
from lyrandis.core.phrase import Phrase, counted, day, lbf, mm, percent, phrase
from lyrandis.core.quantities import within

RULES: tuple[j.Rule, ...] = (
    j.Rule(
        id="brace-range",
        stage="bow",
        title="The maker's brace heights",
        statement="Brace height, measured square from the string to the deepest part of the grip, "
        "stays within the maker's range: outside it is Mend. Where no range is told, more than "
        f"{FAR_BRACE_IN:g} in outside the kind's usual is Mend: it was misread, or the string is "
        f"of the wrong length. From such a brace, and from one {FAR_FROM_TOLD_IN:g} in outside the "
        "maker's, nothing is ordered or reckoned.",
        school="Maker's limit, else the kind's habit",
        source="The maker's range decides. A kind's usual heights are Lyrandis's own assumption.",
    ),
    j.Rule(
        id="limb-pair",
        stage="bow",
        title="Limbs that belong together",
        statement="Both limbs must come home together. Stiffness goes with the mark and with the "
        "inverse cube of length; a mark has the length in it, so the larger counts. "
        f"{100 * WATCH_ABOVE:.0f} % apart is Watch, {100 * MEND_ABOVE:.0f} % and more than "
        f"{MARKS_APART_LBF:g} lb Mend, {100 * STOP_ABOVE:.0f} % Stop; 1 in of length is "
        f"Mend. Two of one kind with the same mark are reckoned {100 * TWO_OF_A_KIND:.0f} % "
        f"apart, of two makers {100 * TWO_MAKERS:.0f} %. A stopgap at short range at best: "
        "replace them soon.",
        school="Mechanics of a cantilever; Lyrandis convention",
        source="Stiffness of a cantilever; half the difference of stiffness is the difference of "
        "time. Where Watch, Mend and Stop begin is Lyrandis's own convention.",
    ),
    j.Rule(
        id="inspection",
        stage="bow",
        title="Look before stringing",
        statement="Limbs, tips, finish, laminations, string and grooves are looked over before "
        "stringing. What can let go at full draw is Stop until it is looked at again and found "
        "good, by a bowyer where in doubt. A stringer, the top limb on top and a twang for rattles "
        "complete it.",
        school="Safety",
        source="Trade practice; the maker's and the range's rules go first.",
    ),
)
_INSPECT = j.Action(label="Look the bow over", stage="bow", control="inspection")
_LIMBS = j.Action(label="Look at the limbs", stage="bow", control="limbs")
_finding = partial(j.found, "bow")


def judge(c: Computed) -> list[j.Finding]:
    """Return the findings on the bow's condition."""
    return [*_judge_inspection(c), *_judge_limbs(c), *_judge_brace(c)]


def _judge_inspection(c: Computed) -> list[j.Finding]:
    result = looked_over(c.setup.bow.inspections)
    if not result:
        return []
    failing = [looked for looked in result.values() if not looked.good]
    lines = tuple(
        phrase(f"{INSPECTION_WORDS[looked.item][not looked.good]}, {{day}}.", day=day(looked.at))
        for looked in sorted(result.values(), key=lambda looked: ITEMS.index(looked.item))
    )
    if not failing:
        missing = len(ITEMS) - len(result)
        rest = f"; {missing} not looked at yet" if missing else ""
        good = counted(len(result), "item")
        return [_inspection("good", f"Looked over: {good} good{rest}.", lines)]
    worst = min((SEVERITY[looked.item] for looked in failing), key=j.SEVERITIES.index)
    what = "; ".join(INSPECTION_WORDS[looked.item][1] for looked in failing)
    what = what[0].upper() + what[1:]
    texts = {
        "stop": f"{what}. Do not string or draw this bow until it is cleared.",
        "mend": f"{what}. Put it right before drawing.",
        "watch": f"{what}. Find what is loose.",
    }
    return [_inspection(worst, texts[worst], lines)]


def _inspection(severity: j.Severity, text: str, lines: tuple[Phrase, ...]) -> j.Finding:
    return _finding(
        "inspection",
        severity,
        phrase(text),
        lines,
        None if severity == "good" else _INSPECT,
        title="Not to be drawn",
    )


def _judge_limbs(c: Computed) -> list[j.Finding]:
    pair = c.setup.bow.limb_pair
    if pair is None:
        return []
    result = mismatch_of(pair.reading)
    told = pair.reading.say()
    if result.severity == "good":
        sentence = phrase("The limbs match within {share}.", share=percent(abs(result.share)))
    else:
        sentence = _mismatch(result)
    return [
        _finding(
            "limb-pair",
            result.severity,
            sentence,
            (
                phrase(f"{told.template}.", **told.figures),
                *_share_lines(result),
                *_swap_lines(pair.reading, result),
            ),
            None if result.severity == "good" else _LIMBS,
            title="These limbs are no pair",
        )
    ]


def _mismatch(found: Mismatch) -> Phrase:
    way = found.nock_travels
    home = f"is home {found.apart_ms:.1f} ms first"
    what = "Limbs about {share} apart: " + (
        f"the {found.stiffer} one {home}, and the nock travels {way} on its way home. "
        if way
        else f"one {home} and throws the nock. "
    )
    nock = {"up": "a lower nock", "down": "a higher nock", None: "nock height"}[way]
    texts = {
        "watch": f"A stopgap at short range: hide what you can with {nock}, and replace.",
        "mend": "A stopgap only, at close range with a heavy arrow. Replace before farther marks.",
        "stop": "Do not shoot them together: replace.",
    }
    return phrase(what + texts[found.severity], share=percent(abs(found.share)))


def _share_lines(found: Mismatch) -> tuple[Phrase, ...]:
    parts = (
        ("Weight", found.by_weight, "apart"),
        ("Length", found.by_length, "in stiffness, three times the difference"),
        ("Kind", found.by_kind, "assumed for two that are no pair"),
    )
    return tuple(
        phrase(f"{name}: {{share}} {how}.", share=percent(abs(share)))
        for name, share, how in parts
        if share
    )


def _swap_lines(pair: LimbPair, found: Mismatch) -> tuple[Phrase, ...]:
    """Return what a limb from another pair costs: weight, and which end the nock goes to."""
    lines: list[Phrase] = []
    if pair.upper_lbf is not None and pair.lower_lbf is not None and found.by_weight:
        both = (pair.upper_lbf + pair.lower_lbf) / 2
        less = max(pair.upper_lbf, pair.lower_lbf) - both
        text = "Together they hold about {both}, {less} less than a pair like the stiffer one."
        lines.append(phrase(text, both=lbf(both), less=lbf(less)))
    if found.severity != "good" and found.nock_travels:
        lines.append(phrase("Swapped end for end, the nock travels the other way by as much."))
    return tuple(lines)


def _judge_brace(c: Computed) -> list[j.Finding]:
    brace, allowed = brace_to_pivot(c.setup.string, c.setup.archer), c.setup.bow.brace_range
    if brace is None:
        return []
    again = j.Action(label="Enter the brace again", stage="bow", control="brace")
    if allowed is None:
        return _judge_usual_brace(c, brace, again)
    low, high = allowed.reading.low_mm, allowed.reading.high_mm
    inside = within(brace, low, high)
    figures = {"brace": mm(brace), "low": mm(low), "high": mm(high)}
    text = (
        "Brace {brace} is within the maker's {low} to {high}."
        if inside
        else "Brace {brace} is outside the maker's {low} to {high}."
    )
    return [
        _finding(
            "brace-range",
            "good" if inside else "mend",
            phrase(text, **figures),
            (phrase("Maker's range {low} to {high}, yours {brace}.", **figures),),
            None if inside else again,
        )
    ]


def _judge_usual_brace(c: Computed, brace_mm: float, again: j.Action) -> list[j.Finding]:
    """Question a brace no bow of its kind has; nothing is reckoned from it until then."""
    if not brace_far_off(c.setup.bow, brace_mm):
        return []
    low, high = usual_braces(c.setup.bow)
    told = c.setup.bow.family
    kind = f"a {FAMILY_WORDS[told.reading.family]}" if told else "any bow"
    figures = {"brace": mm(brace_mm), "low": mm(low), "high": mm(high)}
    return [
        _finding(
            "brace-range",
            "mend",
            phrase(
                f"A brace of {{brace}} is far from the {{low}} to {{high}} of {kind}: read it "
                "again, or the string is of the wrong length.",
                **figures,
            ),
            (phrase("Until then nothing is reckoned from it."),),
            again,
            before_shooting=True,
        )
    ]
