"""Judging the bow: its weight at the archer's draw, the mark, the maker's limits, the brace."""

from itertools import pairwise
from math import hypot

from lyrandis.core import judgement as j
from lyrandis.core.archer.draw import BACK_DEPTH_IN, Estimate, grip_depth
from lyrandis.core.bow.weight import Point, mark_to_ask_for
from lyrandis.core.computed import Computed
from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.phrase import Figure, Phrase, lbf, lbf_per_in, mm, phrase

CLOSE_TO_LIMIT_MM = MM_PER_IN / 2
FAR_BEYOND_POINTS_MM = 1.5 * MM_PER_IN
POINT_OFF_LINE = 3.0
"""A weighed point this many standard deviations off the line is named."""

RULES: tuple[j.Rule, ...] = (
    j.Rule(
        id="weight-weighed",
        stage="bow",
        title="Draw weight from weighed points",
        statement="Weighed points take the place of the mark. A straight line is fitted through "
        "them, the nearest to your draw counting most, with the trade's weight per inch as the "
        "expected slope; the ± grows away from the points.",
        school="Measuring practice",
        source="Linear Gaussian inference. Scale error ± 0.8 lb and the curve's bend are "
        "Lyrandis's own assumptions.",
    ),
    j.Rule(
        id="weight-from-mark",
        stage="bow",
        title="Draw weight from the mark",
        statement="Away from the marked draw a bow gains or loses about one eighteenth of its "
        "mark per inch: 2 to 3 lb on a 45 lb bow, more when it stacks. Marks are wrong both ways. "
        "This is an estimate until the bow is weighed.",
        school="Trade rule of thumb",
        source="The trade's “2 to 3 lb per inch”, put in proportion to the mark.",
    ),
    j.Rule(
        id="mark-to-ask",
        stage="bow",
        title="The mark to look for",
        statement="To hold a wished weight with the string at your hook, divide it by "
        "1 + (hook position − 28 in) ÷ 18 in.",
        school="Trade rule of thumb",
        source="The weight-per-inch rule turned round.",
    ),
    j.Rule(
        id="draw-limit",
        stage="bow",
        title="The maker's longest draw",
        statement="Nobody draws past the maker's limit: limbs fail there. Clearly past it is Stop; "
        "past it by less than the ± of your draw is Mend; within half an inch is Watch.",
        school="Maker's limit",
        source="The maker's limit decides. Half an inch of warning is Lyrandis's own convention.",
    ),
    j.Rule(
        id="brace-range",
        stage="bow",
        title="The maker's brace heights",
        statement="Brace height, measured square from the string to the deepest part of the grip, "
        "stays within the maker's range.",
        school="Maker's limit",
        source="The maker's range decides.",
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
_LIMIT = j.Action(label="See the limit", stage="bow", control="limit")


def judge(c: Computed) -> list[j.Finding]:
    """Return the findings on the bow."""
    return [
        *_judge_limit(c),
        *_judge_weight(c),
        *_judge_points(c),
        *_judge_mark(c),
        *_judge_wish(c),
        *_judge_brace(c),
    ]


def point_line(point: Point) -> Phrase:
    return phrase(
        "{weight} with the string at {draw}.",
        weight=lbf(point.weight.value),
        draw=mm(point.draw_mm),
    )


def weight_sum(c: Computed) -> tuple[Phrase, ...]:
    assert c.weight is not None
    weight = c.weight
    nearest = sorted(weight.points, key=lambda point: abs(point.draw_mm - weight.at_mm))
    shown = sorted(nearest[: j.MOST_LINES], key=lambda point: point.draw_mm)
    lines = j.shortened([point_line(point) for point in shown], len(weight.points))
    if weight.basis == "mark":
        lines = tuple(phrase(f"Mark: {line.template}", **line.figures) for line in lines)
    return (
        *lines,
        phrase(
            "{slope} there; string at the hook at {at}.",
            slope=lbf_per_in(weight.slope.value, 2 * weight.slope.sd),
            at=mm(weight.at_mm),
        ),
        phrase("Weight there {weight}.", weight=lbf(weight.weight.value, weight.weight.plus_minus)),
    )


def _judge_weight(c: Computed) -> list[j.Finding]:
    if c.weight is None or not c.weight_is_own:
        return []
    figures = {
        "weight": lbf(c.weight.weight.value, c.weight.weight.plus_minus),
        "at": mm(c.weight.at_mm),
        "beyond": mm(c.weight.beyond_mm),
    }
    count = len(c.weight.points)
    severity: j.Severity = "watch"
    finding, rule, text = (
        "weight-weighed",
        "weight-weighed",
        f"{{weight}} at your draw, from {count} weighed point{'s' * (count > 1)}.",
    )
    if c.weight.basis == "mark":
        finding = rule = "weight-from-mark"
        text = (
            "{weight} at your draw is worked out from the mark. Weigh it with the string at {at}."
        )
    elif c.weight.beyond_mm > FAR_BEYOND_POINTS_MM:
        finding = "weight-beyond-points"
        text = "{weight} is read {beyond} outside the weighed points. Weigh once at {at}."
    else:
        severity = "good"
    return [
        j.Finding(
            id=finding,
            stage="bow",
            severity=severity,
            sentence=phrase(text, **figures),
            sum=weight_sum(c),
            rule=rule,
            action=None if severity == "good" else WEIGH,
        )
    ]


def _judge_points(c: Computed) -> list[j.Finding]:
    """Name weighed points that fall with draw, or stand off the line."""
    if c.weight is None or c.weight.basis != "weighed":
        return []
    points = c.weight.points
    for lower, upper in pairwise(points):
        drop = lower.weight.value - upper.weight.value
        if upper.draw_mm - lower.draw_mm > MM_PER_IN / 4 and drop > 0:
            return [_misread(upper, (point_line(lower), point_line(upper)))]
    if len(points) < 3:
        return []
    worst = max(points, key=lambda point: _off_line(c, point))
    if _off_line(c, worst) <= POINT_OFF_LINE:
        return []
    expected = c.weight.at(worst.draw_mm)
    line = phrase(
        "The others expect {expected}.", expected=lbf(expected.value, expected.plus_minus)
    )
    return [_misread(worst, (point_line(worst), line))]


def _off_line(c: Computed, point: Point) -> float:
    assert c.weight is not None
    expected = c.weight.at(point.draw_mm)
    bend = 0.01 * point.weight.value
    return abs(point.weight.value - expected.value) / hypot(point.weight.sd, bend)


def _misread(point: Point, lines: tuple[Phrase, ...]) -> j.Finding:
    return j.Finding(
        id="weighed-point-off",
        stage="bow",
        severity="mend",
        sentence=phrase(
            "{weight} at {draw} does not go with the other weighed points. Weigh it again, or take "
            "it back.",
            weight=lbf(point.weight.value),
            draw=mm(point.draw_mm),
        ),
        sum=lines,
        rule="weight-weighed",
        action=j.Action(label="Look at the points", stage="bow", control="points"),
    )


def _judge_mark(c: Computed) -> list[j.Finding]:
    """Compare the scale with the mark, where both are there."""
    if c.weight is None or c.weight.basis != "weighed" or c.weight.mark is None:
        return []
    mark = c.weight.mark
    scale = c.weight.at(mark.draw_mm)
    gap = scale.value - mark.weight.value
    if abs(gap) <= max(2 * scale.sd, 1.0):
        return []
    side = "over" if gap > 0 else "under"
    return [
        j.Finding(
            id="mark-differs",
            stage="bow",
            severity="watch",
            sentence=phrase(
                f"The scale says {{gap}} {side} the mark of {{mark}} at {{draw}}. The scale "
                "is believed.",
                gap=lbf(abs(gap)),
                mark=lbf(mark.weight.value),
                draw=mm(mark.draw_mm),
            ),
            sum=(*weight_sum(c), phrase("At the mark's draw {scale}.", scale=weight_figure(scale))),
            rule="weight-weighed",
        )
    ]


def weight_figure(weight: Estimate) -> Figure:
    return lbf(weight.value, weight.plus_minus)


def _judge_limit(c: Computed) -> list[j.Finding]:
    limit = c.setup.bow.draw_limit
    if limit is None or c.draw is None:
        return []
    allowed = limit.reading.draw_length_mm
    over = c.draw.length.value - allowed
    if over < -CLOSE_TO_LIMIT_MM:
        return []
    severity: j.Severity = "watch"
    if over > c.draw.length.plus_minus:
        severity, text = (
            "stop",
            (
                "Your draw of {draw} is {over} past the maker's limit of {limit}. Do not "
                "draw this bow that far."
            ),
        )
    elif over > 0:
        severity, text = (
            "mend",
            (
                "Your draw of {draw} may be {over} past the maker's limit of {limit}. "
                "Measure it again before shooting."
            ),
        )
    else:
        text = "Your draw of {draw} is {over} short of the maker's limit of {limit}."
    return [
        j.Finding(
            id="past-draw-limit",
            stage="bow",
            severity=severity,
            sentence=phrase(
                text,
                draw=mm(c.draw.length.value, c.draw.length.plus_minus),
                over=mm(abs(over)),
                limit=mm(allowed),
            ),
            sum=(
                phrase("Maker's limit {limit}.", limit=mm(allowed)),
                phrase(
                    "Your draw {draw}, so {over} " + ("past it." if over > 0 else "in hand."),
                    draw=mm(c.draw.length.value, c.draw.length.plus_minus),
                    over=mm(abs(over)),
                ),
            ),
            rule="draw-limit",
            action=_LIMIT,
        )
    ]


def _judge_wish(c: Computed) -> list[j.Finding]:
    wished = c.setup.archer.wished_weight
    if wished is None or c.weight is None or c.at_hook is None:
        return []
    hold = wished.reading.draw_weight_lbf
    mark = mark_to_ask_for(hold, c.at_hook)
    gap = c.weight.weight.value - hold
    ask = lbf(mark.value, mark.plus_minus)
    lines = (
        phrase("String at the hook at {at}.", at=mm(c.at_hook.value, c.at_hook.plus_minus)),
        phrase(
            "{hold} ÷ (1 + ({at} − {marked}) ÷ {eighteen}) = {mark} marked at {marked}.",
            hold=lbf(hold),
            at=mm(c.at_hook.value),
            marked=mm(28 * MM_PER_IN),
            eighteen=mm(18 * MM_PER_IN),
            mark=ask,
        ),
    )
    if abs(gap) <= max(c.weight.weight.plus_minus, 1.0):
        return [
            j.Finding(
                id="wished-weight",
                stage="bow",
                severity="good",
                sentence=phrase("This bow holds the {hold} you wish for.", hold=lbf(hold)),
                sum=lines,
                rule="wished-weight",
            )
        ]
    side = "more" if gap > 0 else "less"
    return [
        j.Finding(
            id="wished-weight",
            stage="bow",
            severity="watch",
            sentence=phrase(
                f"At your draw this bow holds {{gap}} {side} than the {{hold}} you wish for. "
                "Look for a bow marked about {mark} at {marked}.",
                gap=lbf(abs(gap)),
                hold=lbf(hold),
                mark=ask,
                marked=mm(28 * MM_PER_IN),
            ),
            sum=lines,
            rule="mark-to-ask",
            action=j.Action(label="Change the wished weight", stage="bow", control="wish"),
        )
    ]


def brace_to_pivot(c: Computed) -> float | None:
    """Return the brace height to the pivot in mm."""
    recorded = c.setup.brace_height
    if recorded is None:
        return None
    height = recorded.reading.brace_height_mm
    if recorded.reading.datum == "back":
        height -= grip_depth(c.setup.bow.back_depth, BACK_DEPTH_IN).value
    return height


def _judge_brace(c: Computed) -> list[j.Finding]:
    brace, allowed = brace_to_pivot(c), c.setup.bow.brace_range
    if brace is None or allowed is None:
        return []
    low, high = allowed.reading.low_mm, allowed.reading.high_mm
    inside = low <= brace <= high
    figures = {"brace": mm(brace), "low": mm(low), "high": mm(high)}
    text = (
        "Brace {brace} is within the maker's {low} to {high}."
        if inside
        else "Brace {brace} is outside the maker's {low} to {high}."
    )
    return [
        j.Finding(
            id="brace-range",
            stage="bow",
            severity="good" if inside else "mend",
            sentence=phrase(text, **figures),
            sum=(phrase("Maker's range {low} to {high}, yours {brace}.", **figures),),
            rule="brace-range",
            action=None
            if inside
            else j.Action(label="Enter the brace again", stage="bow", control="brace"),
        )
    ]
