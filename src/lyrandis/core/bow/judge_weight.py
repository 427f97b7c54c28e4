"""Judging the bow's weight at the archer's draw: scale, mark, outliers, the weight wished for."""

from functools import partial
from itertools import pairwise

from lyrandis.core import judgement as j
from lyrandis.core.bow.likeness import Likeness
from lyrandis.core.bow.readings import BowWeighed
from lyrandis.core.bow.thrust import USUAL_WEIGHT_LBF
from lyrandis.core.bow.weight import DrawWeight, Point, mark_to_ask_for, points_at_rest
from lyrandis.core.bow.weight_fit import RESIDUAL_IN, RESIDUAL_SD
from lyrandis.core.bow.words import FAMILY_WORDS
from lyrandis.core.computed import Computed
from lyrandis.core.constants import MARKED_DRAW_MM, MM_PER_IN, TRADE_OFFSET_MM
from lyrandis.core.estimate import Estimate
from lyrandis.core.phrase import Figure, Phrase, lbf, lbf_per_in, mm, percent, phrase

FAR_BEYOND_POINTS_MM = 1.5 * MM_PER_IN
GROOVE_WORTH_SAYING_LBF = 0.2

RULES: tuple[j.Rule, ...] = (
    j.Rule(
        id="weight-weighed",
        stage="bow",
        title="Draw weight from weighed points",
        statement="Weighed points take the place of the mark, and go before what the kind of bow "
        "usually does: its computed curve is drawn to them, height, one tilt and what neither "
        "says. The ± grows away from the points, and with what they scatter. Of four points or "
        "more, one between others that is clearly off them is named and left out until it is "
        "weighed again; the first and the last never are: there the ± reaches both. Two readings "
        "of one draw that differ by more than their errors explain are Mend.",
        school="Measuring goes before mechanics",
        source="Gaussian process about the statics of the elastic limb. Scale error ± 0.8 lb, the "
        f"tilt's ± 11 % of the slope, and {100 * RESIDUAL_SD:.0f} % over {RESIDUAL_IN:g} in of "
        "residual are Lyrandis's own assumptions.",
    ),
    j.Rule(
        id="weight-from-mark",
        stage="bow",
        title="Draw weight from the mark",
        statement="Away from the marked draw the weight follows the computed curve of the bow's "
        f"kind, about 2 lb to 3 lb in 1 in on a {USUAL_WEIGHT_LBF:g} lb bow and more when it "
        "stacks. Marks are wrong both ways. This is an estimate until the bow is weighed.",
        school="Mechanics of a typical bow",
        source="Statics of a typical limb of the family: its growth is good to about a fifth "
        "before weighing. Straight bows come out a little steeper than some owners report.",
    ),
    j.Rule(
        id="groove-or-hook",
        stage="bow",
        title="Weigh where the hand holds",
        statement="The string at the hook lies behind the nock groove by the hook's distance "
        "along the string times the tangent of the string's angle. A bow weighed with the groove "
        "at your draw mark reads light by that much draw.",
        school="Geometry of the string",
        source="The string's angle is computed; 3/4 to 1 in along the string for fingers, up to "
        "1.6 in for a thumb, are usual values.",
    ),
    j.Rule(
        id="mark-to-ask",
        stage="bow",
        title="The mark to look for",
        statement="To hold a wished weight at your hook, ask for that weight times the computed "
        f"weight at {MARKED_DRAW_MM / MM_PER_IN:g} in over the computed weight at your hook, for "
        "a bow of the same kind.",
        school="Mechanics of a typical bow",
        source="Force scales with the limb's stiffness at every draw, so the ratio is the bow's "
        "own.",
    ),
    j.Rule(
        id="wished-weight",
        stage="bow",
        title="Weight is chosen for control",
        statement="A bow is as heavy as its archer can hold steadily. More than the wished weight "
        "and its ± is a reason to look for a lighter one, not to draw less.",
        school="Coaching practice",
        source="Trade convention; a coach's or physician's word goes first.",
    ),
)


WEIGH = j.Action(label="Weigh the bow", stage="bow", control="scale")
_POINTS = j.Action(label="Look at the points", stage="bow", control="points")
_finding = partial(j.found, "bow")


def judge(c: Computed) -> list[j.Finding]:
    """Return the findings on the bow's weight."""
    return [
        *_judge_weight(c),
        *_judge_points(c),
        *_judge_groove(c),
        *_judge_mark(c),
        *_judge_wish(c),
    ]


def point_line(point: Point) -> Phrase:
    return phrase(
        "{weight} with the string at {draw}.",
        weight=lbf(point.weight.value),
        draw=mm(point.draw_mm),
    )


def weight_sum(weight: DrawWeight) -> tuple[Phrase, ...]:
    """Return the lines from the nearest points and the bow's likeness to the weight."""
    nearest = sorted(weight.points, key=lambda point: abs(point.draw_mm - weight.at_mm))
    shown = sorted(nearest[: j.MOST_LINES], key=lambda point: point.draw_mm)
    lines = j.shortened([point_line(point) for point in shown], len(weight.points))
    if weight.basis == "mark":
        lines = tuple(phrase(f"Mark: {line.template}", **line.figures) for line in lines)
    return (
        *lines,
        _likeness_line(weight.likeness),
        phrase(
            "{slope} there; string at the hook at {at}.",
            slope=lbf_per_in(weight.slope.value, 2 * weight.slope.sd),
            at=mm(weight.at_mm),
        ),
        phrase("Weight there {weight}.", weight=lbf(weight.weight.value, weight.weight.plus_minus)),
    )


def _likeness_line(likeness: Likeness) -> Phrase:
    """Say which computed bow stands for this one, and what of it is assumed."""
    shape = likeness.shape
    assumed = [name for name in likeness.assumed if name in ("family", "length", "riser")]
    kind = FAMILY_WORDS[shape.family]
    guess = f" ({' and '.join(assumed)} assumed)" if assumed else ""
    return phrase(
        f"Curve of a {{length}} {kind}, riser {{riser}}, brace {{brace}}{guess}.",
        length=mm(shape.bow_length_mm),
        riser=mm(shape.riser_length_mm),
        brace=mm(shape.brace_height_mm),
    )


def _judge_weight(c: Computed) -> list[j.Finding]:
    if c.bow.weight is None or not c.bow.weight_is_own:
        return []
    figures = {
        "weight": lbf(c.bow.weight.weight.value, c.bow.weight.weight.plus_minus),
        "at": mm(c.bow.weight.at_mm),
        "beyond": mm(c.bow.weight.beyond_mm),
    }
    count = len(c.bow.weight.points)
    severity: j.Severity = "watch"
    finding, rule, text = (
        "weight-weighed",
        "weight-weighed",
        f"{{weight}} at your draw, from {count} weighed point{'s' * (count > 1)}.",
    )
    if c.bow.weight.basis == "mark":
        finding = rule = "weight-from-mark"
        text = (
            "{weight} at your draw is worked out from the mark. Weigh it with the string at {at}."
        )
    elif c.bow.weight.beyond_mm > FAR_BEYOND_POINTS_MM:
        finding = "weight-beyond-points"
        text = "{weight} is read {beyond} outside the weighed points. Weigh once at {at}."
    elif c.bow.weight.apart is None:
        severity = "good"
    return [
        _finding(
            finding,
            severity,
            phrase(text, **figures),
            weight_sum(c.bow.weight),
            None if severity == "good" else WEIGH,
            rule=rule,
        )
    ]


def _judge_points(c: Computed) -> list[j.Finding]:
    """Name weighed points at rest, that fall with draw, or that stand off the curve."""
    bow = c.setup.bow
    resting = (
        c.bow.weight.unusable
        if c.bow.weight
        else points_at_rest(bow, c.setup.archer, c.archer.hook, c.bow.likeness)
    )
    at_rest = [_at_rest(point, c) for point in resting[:1]]
    if c.bow.weight is None or c.bow.weight.basis != "weighed":
        return at_rest
    if c.bow.weight.apart is not None:
        return [*at_rest, _apart(*c.bow.weight.apart)]
    points = c.bow.weight.points
    for lower, upper in pairwise(points):
        drop = lower.weight.value - upper.weight.value
        if upper.draw_mm - lower.draw_mm > MM_PER_IN / 4 and drop > 0:
            worst = c.bow.weight.left_out or upper
            return [*at_rest, _misread(worst, c, (point_line(lower), point_line(upper)))]
    off = c.bow.weight.off
    if off is None:
        return at_rest
    expected = c.bow.weight.at(off.draw_mm)
    others = (
        "The others expect {expected}; it is left out of the curve."
        if off is c.bow.weight.left_out
        else "The curve through all of them gives {expected}, its ± reaching what the others say."
    )
    line = phrase(others, expected=lbf(expected.value, expected.plus_minus))
    return [*at_rest, _misread(off, c, (point_line(off), line))]


def _at_rest(point: Point, c: Computed) -> j.Finding:
    brace = mm(c.bow.likeness.curve.first_mm + TRADE_OFFSET_MM)
    draw = mm(point.draw_mm)
    return _finding(
        "weighed-at-rest",
        "mend",
        phrase(
            "{weight} at {draw} cannot be: the string rests at {brace}. Check the draw and where "
            "it was measured from, then take it back.",
            weight=lbf(point.weight.value),
            draw=draw,
            brace=brace,
        ),
        (phrase("Brace and {1 3/4 in} make {brace}, the string at rest.", brace=brace),),
        _POINTS,
        rule="weight-weighed",
    )


def _apart(one: Point, other: Point) -> j.Finding:
    low, high = sorted((one, other), key=lambda point: point.weight.value)
    return _finding(
        "weighed-apart",
        "mend",
        phrase(
            "{low} and {high} at one draw, {draw}: one of the two is wrong. Weigh again, and take "
            "the wrong one back.",
            low=lbf(low.weight.value),
            high=lbf(high.weight.value),
            draw=mm(one.draw_mm),
        ),
        (point_line(low), point_line(high), phrase("Until then the weight's ± reaches both.")),
        _POINTS,
        rule="weight-weighed",
    )


def _misread(point: Point, c: Computed, lines: tuple[Phrase, ...]) -> j.Finding:
    return _finding(
        "weighed-point-off",
        "mend",
        phrase(
            "{weight} at {draw} does not go with the other weighed points"
            + (" and is left out" if c.bow.weight and point is c.bow.weight.left_out else "")
            + ". Weigh it again, or take it back.",
            weight=lbf(point.weight.value),
            draw=mm(point.draw_mm),
        ),
        lines,
        _POINTS,
        rule="weight-weighed",
    )


def _judge_groove(c: Computed) -> list[j.Finding]:
    """Say what weighing at the groove hides, when that is how it was done at the archer's draw."""
    if c.bow.weight is None or c.archer.draw is None or not c.bow.weight_is_own:
        return []
    groove = [
        point
        for point in c.bow.weight.points
        if isinstance(point.recorded.reading, BowWeighed)
        and point.recorded.reading.string_at == "groove"
    ]
    light = c.bow.weight.weight.value - c.bow.weight.curve_at(c.archer.draw.length.value)
    if not groove or light < GROOVE_WORTH_SAYING_LBF:
        return []
    figures = {
        "hook": mm(c.archer.hook.value, c.archer.hook.plus_minus),
        "light": lbf(light),
        "draw": mm(c.archer.draw.length.value),
        "at": mm(c.bow.weight.at_mm),
        "slope": lbf_per_in(c.bow.weight.slope.value),
    }
    count = len(groove)
    return [
        _finding(
            "groove-or-hook",
            "good",
            phrase(
                f"{count} point{'s' * (count > 1)} read at the groove: your hook holds the string "
                "{hook} further back, {light} more than the groove's draw mark says.",
                **figures,
            ),
            (
                phrase("Groove {draw} and hook {hook} make {at}.", **figures),
                phrase("{hook} at {slope} is {light}.", **figures),
            ),
        )
    ]


def _judge_mark(c: Computed) -> list[j.Finding]:
    """Compare the scale with the mark, where both are there."""
    if c.bow.weight is None or c.bow.weight.basis != "weighed" or c.bow.weight.mark is None:
        return []
    mark = c.bow.weight.mark
    scale = c.bow.weight.at(mark.draw_mm)
    gap = scale.value - mark.weight.value
    if abs(gap) <= max(2 * scale.sd, 1.0):
        return []
    side = "over" if gap > 0 else "under"
    return [
        _finding(
            "mark-differs",
            "watch",
            phrase(
                f"The scale says {{gap}} {side} the mark of {{mark}} at {{draw}}. The scale "
                "is believed.",
                gap=lbf(abs(gap)),
                mark=lbf(mark.weight.value),
                draw=mm(mark.draw_mm),
            ),
            (
                *weight_sum(c.bow.weight),
                phrase("At the mark's draw {scale}.", scale=weight_figure(scale)),
            ),
            rule="weight-weighed",
        )
    ]


def weight_figure(weight: Estimate) -> Figure:
    return lbf(weight.value, weight.plus_minus)


def _judge_wish(c: Computed) -> list[j.Finding]:
    wished = c.setup.archer.wished_weight
    if wished is None or c.bow.weight is None or c.archer.at_hook is None:
        return []
    hold = wished.reading.draw_weight_lbf
    mark = mark_to_ask_for(hold, c.archer.at_hook, c.bow.likeness)
    gap = c.bow.weight.weight.value - hold
    ask = lbf(mark.value, mark.plus_minus)
    lines = (
        phrase(
            "String at the hook at {at}.",
            at=mm(c.archer.at_hook.value, c.archer.at_hook.plus_minus),
        ),
        phrase(
            f"A {FAMILY_WORDS[c.bow.likeness.shape.family]} holds {{share}} of that at {{marked}}: "
            "{hold} × {share} = {mark}.",
            hold=lbf(hold),
            share=percent(mark.value / hold),
            marked=mm(MARKED_DRAW_MM),
            mark=ask,
        ),
    )
    if abs(gap) <= max(c.bow.weight.weight.plus_minus, 1.0):
        return [
            _finding(
                "wished-weight",
                "good",
                phrase("This bow holds the {hold} you wish for.", hold=lbf(hold)),
                lines,
            )
        ]
    side = "more" if gap > 0 else "less"
    return [
        _finding(
            "wished-weight",
            "watch",
            phrase(
                f"At your draw this bow holds {{gap}} {side} than the {{hold}} you wish for. "
                "Look for a bow marked about {mark} at {marked}.",
                gap=lbf(abs(gap)),
                hold=lbf(hold),
                mark=ask,
                marked=mm(MARKED_DRAW_MM),
            ),
            lines,
            j.Action(label="Change the wished weight", stage="bow", control="wish"),
            rule="mark-to-ask",
        )
    ]
