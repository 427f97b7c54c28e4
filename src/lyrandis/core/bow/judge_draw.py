"""Judging how far the bow is drawn: maker's limit, stack, finger angle, length against draw."""

import math
from functools import lru_cache, partial

from lyrandis.core import judgement as j
from lyrandis.core.archer.words import HOLD_WORDS, PURPOSE_WORDS
from lyrandis.core.bow.families import FAMILIES
from lyrandis.core.bow.schools import (
    LADDER_OVER_DRAW_IN,
    LIMBS_OVER_RISER_IN,
    MEDIUM_LIMBS_FROM_IN,
    MEDIUM_LIMBS_TO_IN,
    PINCH_DEG,
    SHORT_LIMBS_TO_IN,
    margin_for,
)
from lyrandis.core.bow.stack import ONSET, typical_stack
from lyrandis.core.bow.statics import BowShape
from lyrandis.core.bow.thrust import USUAL_WEIGHT_LBF, typical_thrust
from lyrandis.core.bow.words import FAMILY_WORDS
from lyrandis.core.computed import Computed
from lyrandis.core.constants import M_PER_FT, MARKED_DRAW_MM, MM_PER_IN, TRADE_OFFSET_MM, USUAL_GPP
from lyrandis.core.errors import DomainError
from lyrandis.core.phrase import Figure, Phrase, degrees, joules, lbf, mm, mps, phrase

CLOSE_TO_LIMIT_MM = MM_PER_IN / 2
STACKING_WATCH_MM = MM_PER_IN / 2
STACKING_STOP_MM = MM_PER_IN
LEAST_COST_J, LEAST_COST_MPS = 2.0, 0.9
"""Less than this is no cost worth a word: 2 J of some 50, 3 fps of some 170."""
LEAST_SAID_MPS = 0.3
"""A foot per second: less is as fast."""
_OVER = tuple(LIMBS_OVER_RISER_IN.values())

RULES: tuple[j.Rule, ...] = (
    j.Rule(
        id="draw-limit",
        stage="bow",
        also=("archer",),
        title="The maker's longest draw",
        statement="Nobody draws past the maker's limit: limbs fail there. Clearly past it is Stop; "
        "past it by less than the ± of your draw is Mend; within 1/2 in is Watch.",
        school="Maker's limit",
        source="The maker's limit decides. 1/2 in of warning is Lyrandis's own convention.",
    ),
    j.Rule(
        id="stack-margin",
        stage="bow",
        also=("archer",),
        title="Stack margin",
        statement=f"Stack begins where the growth of weight has become to {ONSET:g} times its "
        "least: where you feel it, else on the curve your scale shows, with four points and more "
        "in the last 5 in, else of the kind's limbs at their usual brace. The margin is how "
        "far your hook stays short of it. Past it is Watch, as hunters accept for a shorter bow; "
        "1 in past it, or 1/2 in beyond doubt, is Mend; 1 in beyond doubt is Stop, "
        "where the kind of bow is told. Inside the maker's told limit it is Watch at most: the "
        "limbs bear it, hand and arrow do not; so are static tips drawn by a thumb until four "
        "points show their stack. A field, indoor or distance bow wants 1 in or more in hand.",
        school="Stack margin, computed",
        source="Slope of the computed curve, fitted to your scale. The factor 1.6 and the lengths "
        "are Lyrandis's own convention, within about 1 in of practitioners' limits. The maker's "
        "limit wins.",
    ),
    j.Rule(
        id="finger-angle",
        stage="bow",
        also=("archer",),
        title="Finger angle",
        statement=f"Under about {PINCH_DEG['three_under']:g}° at the hook the string pinches three "
        "fingers under the arrow; one over and two under take down to about "
        f"{PINCH_DEG['split']:g}°. A thumb ring takes any. The angle at the limb tip is shown "
        "and not judged: a right angle there means stack on straight limbs only.",
        school="Geometry of the string",
        source="Computed angle; the limits are the trade's and Lyrandis's own convention.",
    ),
    j.Rule(
        id="bow-long",
        stage="bow",
        title="Too long for the draw",
        statement="Limbs that are far from stack at full draw weigh more than the work they do: "
        f"more energy stays in bow, string and hand. Said where it costs {LEAST_COST_J:g} J or "
        f"{LEAST_COST_MPS / M_PER_FT:.0f} fps and more.",
        school="Mechanics of a typical bow",
        source="Virtual mass of two typical bows of the family, both made to hold your weight. "
        "How much margin a purpose wants is Lyrandis's own convention.",
    ),
    j.Rule(
        id="choosing-schools",
        stage="bow",
        title="Schools of choosing a bow's length",
        statement=f"Ladder by draw: a target recurve {LADDER_OVER_DRAW_IN:g} in longer than the "
        f"draw, in steps of 2 in, both allowed at its edges. Limb first, then riser: short limbs "
        f"to {SHORT_LIMBS_TO_IN:g} in of draw, medium from {MEDIUM_LIMBS_FROM_IN:g} to "
        f"{MEDIUM_LIMBS_TO_IN:g} in, long from there, adding {_OVER[0]:g}, "
        f"{_OVER[1]:g} or {_OVER[2]:g} in to a riser chosen by purpose. Range by draw: a band "
        f"for each kind of bow at {MARKED_DRAW_MM / MM_PER_IN:g} in, 1 1/2 in longer for each "
        "1 in of draw, the purpose picking the end. Stack margin: the bows that keep the margin "
        "the purpose wants and do not pinch; in cover the shortest of them, elsewhere the one "
        "where most schools meet. We prefer the last: it is computed for "
        "this kind of bow and this draw.",
        school="Four schools, side by side",
        source="The first three are rules of thumb of the trade, put into numbers by Lyrandis: its "
        "own conventions. The fourth is the mechanics of a typical bow.",
    ),
    j.Rule(
        id="bow-shape",
        stage="bow",
        title="What the bow is taken for",
        statement="The mechanics stand on a typical bow of the family with your length, riser and "
        "brace height, both limbs alike. Where these cannot be, the family's usual bow stands in.",
        school="Limits of the mechanics",
        source="Families are typical shapes; the one with large static tips holds for 50 to 62 in.",
    ),
)

_LIMIT = j.Action(label="See the limit", stage="bow", control="limit")
_BOARD = j.Action(label="Compare bow lengths", stage="bow", control="board")
_LENGTH = j.Action(label="Enter the bow's length", stage="bow", control="bow")
_DRAW = j.Action(label="Enter the draw", stage="archer", control="draw")
_finding = partial(j.found, "bow")


def judge(c: Computed) -> list[j.Finding]:
    """Return the findings on how far the bow is drawn."""
    return [
        *_judge_shape(c),
        *_judge_rest(c),
        *_judge_limit(c),
        *_judge_stack(c),
        *_judge_angle(c),
        *_judge_long(c),
    ]


def _judge_shape(c: Computed) -> list[j.Finding]:
    """Say where the mechanics do not hold for what was told."""
    refused, shape = c.bow.likeness.refused, c.bow.likeness.shape
    if refused is not None:
        control = {"brace_height_mm": "brace", "riser_length_mm": "riser"}.get(
            refused.field or "", "bow"
        )
        return [
            _finding(
                "bow-shape",
                "mend",
                refused.sentence(),
                (phrase(f"Until then a usual {FAMILY_WORDS[shape.family]} stands in for it."),),
                j.Action(label="Look at the lengths", stage="bow", control=control),
            )
        ]
    family = FAMILIES[shape.family]
    if not c.bow.likeness.known or family.has_length(shape.bow_length_mm):
        return []
    low, high = family.lengths_mm
    figures = {"length": mm(shape.bow_length_mm), "low": mm(low), "high": mm(high)}
    return [
        _finding(
            "bow-shape",
            "watch",
            phrase(
                f"A {{length}} {FAMILY_WORDS[shape.family]} is outside the {{low}} to {{high}} the "
                "mechanics hold for: stack, energy and floor are indicative.",
                **figures,
            ),
            (phrase("Meant for {low} to {high}, yours {length}.", **figures),),
            _LENGTH,
        )
    ]


def _judge_rest(c: Computed) -> list[j.Finding]:
    """Name a draw that is not past brace."""
    if c.archer.pivot_mm is None or c.archer.pivot_mm > c.bow.likeness.curve.first_mm + MM_PER_IN:
        return []
    figures = {
        "at": mm(c.archer.pivot_mm + TRADE_OFFSET_MM),
        "rest": mm(c.bow.likeness.curve.first_mm + TRADE_OFFSET_MM),
    }
    return [
        _finding(
            "draw-at-rest",
            "mend",
            phrase(
                "At {at} the string would hardly leave its brace, {rest} on the same measure. "
                "Check the draw and its datum.",
                **figures,
            ),
            (phrase("Brace and {1 3/4 in} make {rest}; your hook stands at {at}.", **figures),),
            _DRAW,
            rule="bow-shape",
        )
    ]


def _judge_limit(c: Computed) -> list[j.Finding]:
    limit = c.setup.bow.draw_limit
    if limit is None or c.archer.draw is None:
        return []
    allowed = limit.reading.draw_length_mm
    over = c.archer.draw.length.value - allowed
    if over < -CLOSE_TO_LIMIT_MM:
        return []
    severity: j.Severity = "watch"
    text = "Your draw of {draw} is {over} short of the maker's limit of {limit}."
    if over > c.archer.draw.length.plus_minus:
        severity = "stop"
        text = (
            "Your draw of {draw} is {over} past the maker's limit of {limit}. Do not draw this "
            "bow that far."
        )
    elif over > 0:
        severity = "mend"
        text = (
            "Your draw of {draw} may be {over} past the maker's limit of {limit}. Measure it "
            "again before shooting."
        )
    figures = {
        "draw": mm(c.archer.draw.length.value, c.archer.draw.length.plus_minus),
        "over": mm(abs(over)),
        "limit": mm(allowed),
    }
    which = "past it" if over > 0 else "in hand"
    return [
        _finding(
            "past-draw-limit",
            severity,
            phrase(text, **figures),
            (
                phrase("Maker's limit {limit}.", **figures),
                phrase(f"Your draw {{draw}}, so {{over}} {which}.", **figures),
            ),
            _LIMIT,
            title="Drawn past the maker's limit",
            rule="draw-limit",
            before_shooting=severity == "mend",
        )
    ]


def stack_severity(past_mm: float, plus_minus_mm: float = 0.0) -> j.Severity:
    """Return how far past the onset of stack is judged; Stop only where the ± leaves no doubt.

    >>> [stack_severity(inches * 25.4) for inches in (-1, 0.4, 0.9, 1.5)]
    ['good', 'watch', 'mend', 'stop']
    >>> stack_severity(1.5 * 25.4, 25.4)
    'mend'
    """
    if past_mm - plus_minus_mm > STACKING_STOP_MM:
        return "stop"
    if past_mm > STACKING_STOP_MM or past_mm - plus_minus_mm > STACKING_WATCH_MM:
        return "mend"
    return "watch" if past_mm > 0 else "good"


def _kind_told(c: Computed) -> bool:
    """Return whether anybody said what sort of bow it is: what is supposed says no Stop."""
    return c.setup.bow.family is not None


def _static_by_thumb(c: Computed) -> bool:
    """Return whether a thumb draws static tips whose weight over the draw nobody has shown."""
    hold = c.setup.archer.hold
    known = c.bow.stack.read or c.bow.stack.felt
    thumb = hold is not None and hold.reading.hold == "thumb"
    return thumb and "rigid" in c.bow.likeness.shape.family and not known


def _inside_limit(c: Computed) -> bool:
    """Return whether the maker's limit is told and the draw keeps inside it."""
    limit, draw = c.setup.bow.draw_limit, c.archer.draw
    return (
        limit is not None and draw is not None and draw.length.value <= limit.reading.draw_length_mm
    )


def _judge_stack(c: Computed) -> list[j.Finding]:
    margin = c.bow.stack_margin_mm
    if margin is None or c.archer.pivot_mm is None or c.bow.stack.onset_mm is None:
        return _judge_spent(c)
    purpose = c.setup.archer.purpose.reading.purpose if c.setup.archer.purpose else None
    family = c.bow.likeness.shape.family
    wanted = margin_for(family, purpose)[0] * MM_PER_IN
    allowed = _inside_limit(c)
    severity = stack_severity(-margin.value, margin.plus_minus)
    if severity == "stop" and not _kind_told(c):
        severity = "mend"
    if severity in ("stop", "mend") and (allowed or _static_by_thumb(c)):
        severity = "watch"
    figures = {
        "margin": mm(abs(margin.value), margin.plus_minus),
        "onset": mm(c.bow.stack.onset_mm + TRADE_OFFSET_MM),
        "at": mm(c.archer.pivot_mm + TRADE_OFFSET_MM),
        "wanted": mm(wanted),
    }
    texts: dict[j.Severity, str] = {
        "stop": "Your hook goes {margin} past {onset}, where stack begins. Limbs fail there: do "
        "not draw this bow so far.",
        "mend": "Your hook goes {margin} past {onset}, where stack begins. A longer bow is the "
        "cure.",
        "watch": "The last {margin} of your draw stack"
        + (
            ": inside the maker's limit, but it stacks and pinches."
            if allowed
            else ": hunters accept {1/2 in} for a shorter bow."
        ),
        "good": "{margin} to spare before stack begins at {onset}.",
    }
    if severity == "good" and margin.value < wanted:
        severity = "watch"
        what_for = f" for {PURPOSE_WORDS[purpose]}" if purpose else ""
        text = f"{{margin}} before stack; {{wanted}} is wanted{what_for}."
    else:
        text = texts[severity]
    return [
        _finding(
            "stack-margin",
            severity,
            phrase(text, **figures),
            _stack_sum(c, figures),
            None if severity == "good" else _BOARD,
            title="Drawn far into stack",
        )
    ]


def _stack_sum(c: Computed, figures: dict[str, Figure]) -> tuple[Phrase, ...]:
    stack, weight = c.bow.stack, c.bow.weight
    if stack.felt:
        return (
            phrase("You feel it from {onset}, and that goes before any curve.", **figures),
            phrase("Your hook stands at {at}.", at=figures["at"]),
        )
    how = "your scale shows" if stack.read else "of its kind"
    # the curve of a kind has no weight of its own: its slopes are said as of yours at the hook
    at = c.archer.pivot_mm or stack.least_at_mm
    own = weight.weight.value if weight else USUAL_WEIGHT_LBF
    unit = 1.0 if stack.read else own / c.bow.likeness.curve.force.at(at)
    least = unit * stack.least_slope * 10 * MM_PER_IN
    return (
        phrase(
            f"On the curve {how}, weight grows least at {{least_at}}, as {{least}} in {{10 in}}.",
            least_at=mm(stack.least_at_mm + TRADE_OFFSET_MM),
            least=lbf(least),
        ),
        phrase(
            f"{ONSET:g} × {{least}} = {{grown}} in {{10 in}}, reached at {{onset}}: stack begins.",
            least=lbf(least),
            grown=lbf(ONSET * least),
            onset=figures["onset"],
        ),
        phrase("Your hook stands at {at}.", at=figures["at"]),
        *_assumed_riser(c),
    )


def _assumed_riser(c: Computed) -> tuple[Phrase, ...]:
    if "riser" not in c.bow.likeness.assumed:
        return ()
    riser = mm(c.bow.likeness.shape.riser_length_mm)
    return (phrase("Riser assumed, as usual for the length: {riser}.", riser=riser),)


def _spent_severity(c: Computed) -> j.Severity:
    if _inside_limit(c):
        return "watch"
    return "stop" if _kind_told(c) else "mend"


def _judge_spent(c: Computed) -> list[j.Finding]:
    """Name a draw past the end of the computed curve: no limb survives there, or nobody knows."""
    curve = c.bow.likeness.curve
    if c.archer.pivot_mm is None or c.archer.pivot_mm <= curve.last_mm or not c.bow.likeness.known:
        return []
    figures = {
        "at": mm(c.archer.pivot_mm + TRADE_OFFSET_MM),
        "end": mm(curve.last_mm + TRADE_OFFSET_MM),
    }
    spent = curve.ends != "asked"
    text = (
        "Such a bow cannot be drawn to {at}: its limbs are spent at {end}."
        if spent
        else "{at} is beyond the {end} to which bows are computed."
    )
    return [
        _finding(
            "stack-margin",
            _spent_severity(c) if spent else "watch",
            phrase(text, **figures),
            (phrase("The computed curve ends at {end}; your hook is at {at}.", **figures),),
            _BOARD,
            title="Drawn far into stack",
        )
    ]


def _judge_angle(c: Computed) -> list[j.Finding]:
    pivot, curve = c.archer.pivot_mm, c.bow.likeness.curve
    if pivot is None or not c.bow.likeness.known:
        return []
    if not curve.first_mm + MM_PER_IN < pivot <= curve.last_mm:
        return []
    hold = c.setup.archer.hold.reading.hold if c.setup.archer.hold else None
    pinch = PINCH_DEG[hold]
    angle = curve.finger_angle(pivot)
    sharp = pinch is not None and math.degrees(angle) < pinch
    figures = {"angle": degrees(angle), "pinch": degrees(math.radians(pinch or 0.0))}
    said = f"for {HOLD_WORDS[hold]}" if hold else "for fingers"
    text = (
        f"{{angle}} at the hook is sharp {said}: under {{pinch}} the string pinches and can pull "
        "the nock off."
        if sharp
        else f"{{angle}} at the hook: no pinch {said}."
    )
    if pinch is None:
        text = "{angle} at the hook, which a thumb ring takes."
    return [
        _finding(
            "finger-angle",
            "watch" if sharp else "good",
            phrase(text, **figures),
            (phrase("180° less twice the string's angle from upright is {angle}.", **figures),),
            _BOARD if sharp else None,
        )
    ]


def _judge_long(c: Computed) -> list[j.Finding]:
    """Say what a bow far too long for the draw costs, beside one that fits."""
    margin = c.bow.stack_margin_mm
    if (
        margin is None
        or c.bow.weight is None
        or c.archer.at_hook is None
        or not c.bow.likeness.known
    ):
        return []
    purpose = c.setup.archer.purpose.reading.purpose if c.setup.archer.purpose else None
    least, most = margin_for(c.bow.likeness.shape.family, purpose)
    if margin.value <= (most + 0.5) * MM_PER_IN:
        return []
    pivot, weight = c.archer.at_hook.value - TRADE_OFFSET_MM, c.bow.weight.weight.value
    shorter = _fitting_length(c.bow.likeness.shape, round(pivot, 1), (least + most) / 2 * MM_PER_IN)
    if shorter is None:
        return []
    own = typical_thrust(c.bow.likeness.shape, pivot, weight)
    other = typical_thrust(shorter, pivot, weight)
    arrow = c.arrow.finished.mass.value if c.arrow.finished else USUAL_GPP * weight
    kept = own.left_behind(arrow) - other.left_behind(arrow)
    lost = other.speed(arrow) - own.speed(arrow)
    if kept < LEAST_COST_J and lost < LEAST_COST_MPS:
        return []
    figures = {
        "margin": mm(margin.value),
        "length": mm(shorter.bow_length_mm),
        "kept": joules(kept),
        "speed": mps(own.speed(arrow)),
        "speed2": mps(other.speed(arrow)),
        "weight": lbf(weight),
        "lost": mps(lost),
    }
    costs = [
        "keeps {kept} more in hand and limbs each shot" if kept >= LEAST_COST_J else "",
        "shoots {lost} slower" if lost >= LEAST_SAID_MPS else "",
        "shoots as fast" if abs(lost) < LEAST_SAID_MPS else "",
    ]
    text = (
        "Long for your draw, {margin} unused. Beside a {length} bow it "
        f"{' and '.join(cost for cost in costs if cost)}."
    )
    return [
        _finding(
            "bow-long",
            "watch",
            phrase(text, **{k: v for k, v in figures.items() if f"{{{k}}}" in text}),
            (
                phrase("Both typical, both holding {weight} at your hook.", weight=lbf(weight)),
                phrase(
                    "The same arrow leaves at {speed}, from {length} at {speed2}.",
                    **{k: figures[k] for k in ("speed", "length", "speed2")},
                ),
            ),
            _BOARD,
        )
    ]


@lru_cache(maxsize=128)
def _fitting_length(shape: BowShape, pivot_mm: float, wanted_mm: float) -> BowShape | None:
    """Return the longest shorter bow, in steps of 2 in, whose margin is no more than wanted."""
    shorter = shape
    while True:
        shorter = shorter._replace(bow_length_mm=shorter.bow_length_mm - 2 * MM_PER_IN)
        try:
            onset = typical_stack(shorter).onset_mm
        except DomainError:
            return None
        if onset is not None and onset - pivot_mm <= wanted_mm:
            return shorter
