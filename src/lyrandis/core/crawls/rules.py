"""Judging crawls: what does not fit, what the table may be used for, how deep the hand goes."""

from functools import partial

from lyrandis.core import judgement as j
from lyrandis.core.bow.two_limbs import crawl_draw
from lyrandis.core.computed import Computed
from lyrandis.core.constants import M_PER_YD, MM_PER_IN
from lyrandis.core.crawls.fit import LEFT_OUT_Z, NAMED_Z
from lyrandis.core.crawls.marks import MarkLine
from lyrandis.core.crawls.readings import said_distance
from lyrandis.core.crawls.table import APART_SDS
from lyrandis.core.phrase import Phrase, gap, mm, mps, phrase

NEAR_STACK_MM = MM_PER_IN / 2
SHORT_BOW_MM, DEEP_ON_SHORT_MM, DEEP_MM = 58.1 * MM_PER_IN, 45.0, 60.0
"""A bow of 58 in is one, however its length was rounded."""
CUT_A_TAB_MM = 3.0
"""Half of the band from which a table is good enough to mark a tab by: a stitch."""

MARKS = j.Action(label="See the marks", stage="crawls", control="marks")
SHOOT = j.Action(label="Record a crawl", stage="crawls", control="crawl")
_finding = partial(j.found, "crawls")

RULES: tuple[j.Rule, ...] = (
    j.Rule(
        id="crawl-table",
        stage="crawls",
        title="The table and its band",
        statement="Speed, eye over the nock, drag and what deep crawls do besides are believed "
        "from the rig, and drawn to the marks. Nineteen of twenty crawls lie inside the band. "
        "Three millimetres, a stitch, is narrow enough to mark a tab.",
        school="Mechanics and inference, beside the habit of even steps",
        source="Sight over the arrow's tip, flat fire with drag; shot by 500 made-up archers, no "
        "real one was compared.",
    ),
    j.Rule(
        id="crawl-odd",
        stage="crawls",
        title="A crawl that does not fit the others",
        statement=f"From {NAMED_Z:g} standard deviations against the other marks on, a mark is "
        f"named. From {LEFT_OUT_Z:g} on it is left out of the table where four others remain, "
        "and one tap counts it.",
        school="Lyrandis's own",
        source="Leave-one-out residuals. From eight marks nine in ten are found that are 4 sd off, "
        "with one false alarm in ten tables; fewer marks cannot do it.",
    ),
    j.Rule(
        id="crawl-swapped",
        stage="crawls",
        title="Deeper for the longer distance",
        statement="A crawl grows shallower with distance. Where a longer one is deeper by three "
        "standard deviations, the two were swapped or one was misread.",
        school="Geometry",
        source="The sight over the arrow's tip.",
    ),
    j.Rule(
        id="crawl-yards",
        stage="crawls",
        title="Metres or yards",
        statement="Where all distances fit better as yards it is asked, never done: a twelfth of "
        "distance looks like four per cent of speed.",
        school="Lyrandis's own",
        source="Likelihood of the marks either way. Of made-up archers with a chronograph a "
        "quarter to a third in yards were asked, one in ten to one in twenty in metres.",
    ),
    j.Rule(
        id="crawl-distances",
        stage="crawls",
        title="Marks at one distance",
        statement="Marks at one distance say little of others: one near and one far give the "
        "table.",
        school="Lyrandis's own; practitioners shoot inward from the longest",
        source="The posterior's own covariance.",
    ),
    j.Rule(
        id="crawl-depth",
        stage="crawls",
        title="How deep the hand goes",
        statement="A deep crawl bends the lower limb as by more draw: the margin before stack "
        f"must hold it, with the bow held square as the worst case. From {DEEP_ON_SHORT_MM:g} mm "
        f"on bows of {SHORT_BOW_MM / MM_PER_IN:.0f} in and less, else from {DEEP_MM:g} mm, "
        "expect porpoising and noise.",
        school="Mechanics for the margin, habit of the trade for the noise",
        source="Two limbs and one string with the hook anywhere; 0.71 in a mm over the length in.",
    ),
    j.Rule(
        id="crawl-speed",
        stage="crawls",
        title="Marks and speed that disagree",
        statement="The marks ask for a speed. Where it lies beyond both doubts from what bow and "
        "chronograph say, one of them is of another arrow, another draw, or yards.",
        school="Lyrandis's own",
        source="One posterior of all three.",
    ),
)


def judge(c: Computed) -> list[j.Finding]:
    """Return the findings on the crawls; none where nobody walks the string."""
    if not c.crawls.basis.walks or c.crawls.marks.fit is None:
        return []
    return [
        *_judge_odd(c),
        *_judge_swapped(c),
        *_judge_yards(c),
        *_judge_table(c),
        *_judge_depth(c),
        *_judge_speed(c),
    ]


def where(line: MarkLine) -> str:
    """Return the distance of a mark as it is meant now.

    >>> from lyrandis.core.example import rig
    >>> c = rig(["draw 28", "crawl 20yd 34mm"])
    >>> where(c.crawls.lines[0])
    '20 yd'
    """
    return said_distance(line.distance_m, line.unit)


def _table_sum(c: Computed) -> tuple[Phrase, ...]:
    own, fit, count = c.crawls.table.own_sight, c.crawls.marks.fit, len(c.crawls.marks.counting)
    assert own is not None
    assert fit is not None
    lines = [
        phrase(
            f"{count} mark{'' if count == 1 else 's'}: speed {{speed}}, eye {{eye}} over the nock.",
            speed=mps(own.speed_mps), eye=gap(own.eye_mm),
        )
    ]  # fmt: skip
    if fit.point_on is not None:
        half = fit.factor * fit.point_on.sd
        lines.append(phrase(f"Point-on {fit.point_on.value:.0f} ± {half:.0f} m."))
    return tuple(lines)


def _judge_odd(c: Computed) -> list[j.Finding]:
    marks = c.crawls.marks
    odd = marks.odd
    if odd is None or odd.crawl is None or marks.fit is None:
        return []
    row = marks.fit.table([odd.distance_m])[0]
    way = "deeper" if odd.crawl.value > row.crawl_mm else "shallower"
    out = "It is left out until you count it." if marks.dropped else f"{_reason(c, odd)}"
    return [
        _finding(
            "crawl-odd",
            "watch" if marks.dropped else "mend",
            phrase(
                f"The crawl at {where(odd)} is {{off}} {way} than the others say. Shoot it again. "
                f"{out}",
                off=gap(abs(odd.crawl.value - row.crawl_mm)),
            ),
            (phrase(f"{abs(marks.odd_z):.1f} standard deviations against the other marks."),),
            MARKS,
        )
    ]


def _reason(c: Computed, odd: MarkLine) -> str:
    """Return the likeliest reason: the same distance, yards, or another anchor."""
    assert odd.crawl is not None
    assert c.crawls.marks.prior is not None
    others = [mark for mark in c.crawls.marks.counting if mark is not odd]
    if any(abs(other.distance_m - odd.distance_m) < 1 for other in others):
        return "Another mark of that distance disagrees: anchor or hook moved."
    fit = c.crawls.marks.whole
    if fit is not None:
        yards = fit.table([odd.distance_m * M_PER_YD])[0]
        if abs(yards.crawl_mm - odd.crawl.value) < odd.crawl.sd:
            return "It would fit in yards."
    return "Anchor or hook may have moved, or another arrow was shot."


def _judge_swapped(c: Computed) -> list[j.Finding]:
    result = c.crawls.checks.swapped
    if result is None:
        return []
    near, far = result
    assert near.crawl is not None
    assert far.crawl is not None
    return [
        _finding(
            "crawl-swapped",
            "mend",
            phrase(
                f"{{far}} at {where(far)} is deeper than {{near}} at {where(near)}: typed the "
                "wrong way round?",
                far=gap(far.crawl.value), near=gap(near.crawl.value),
            ),
            (phrase("A crawl grows shallower with distance."),),
            MARKS,
        )
    ]  # fmt: skip


def _judge_yards(c: Computed) -> list[j.Finding]:
    if not c.crawls.checks.ask_yards or c.crawls.marks.odd is not None:
        return []
    return [
        _finding(
            "crawl-yards",
            "watch",
            phrase("The crawls fit better with distances in yards. Were these yards?"),
            (phrase("Marks alone cannot tell: it may be the speed."),),
            MARKS,
        )
    ]


def _judge_table(c: Computed) -> list[j.Finding]:
    half, count = c.crawls.table.half_mm, len(c.crawls.marks.counting)
    if half is None:
        return []
    if not count:
        return [
            _finding(
                "crawl-table",
                "watch",
                phrase("The table is from the rig alone, good to {half}: do not cut a tab to it.",
                       half=gap(half)),
                _table_sum(c),
                SHOOT,
            )
        ]  # fmt: skip
    if c.crawls.checks.one_distance:
        return [
            _finding(
                "crawl-distances",
                "watch",
                phrase("All crawls are of one distance: another distance tells more."),
                _table_sum(c),
                SHOOT,
            )
        ]
    fine = half <= CUT_A_TAB_MM
    return [
        _finding(
            "crawl-table",
            "good" if fine else "watch",
            phrase(
                "The table is good to {half}: mark the tab by it."
                if fine
                else "The table is good to {half} so far.",
                half=gap(half),
            ),
            _table_sum(c),
            None if fine else SHOOT,
        )
    ]


def _judge_depth(c: Computed) -> list[j.Finding]:
    """Warn where the deepest crawl of the table uses up the margin, or makes noise."""
    length, margin = c.setup.bow.length, c.bow.stack_margin_mm
    deepest = max((row.crawl_mm for row in c.crawls.table.rows), default=0.0)
    if length is None or deepest <= 0:
        return []
    bow_mm = length.reading.back_mm
    extra = crawl_draw(bow_mm, deepest)
    sums = (
        phrase("The deepest crawl of the table bends the lower limb as by {extra} more draw.",
               extra=mm(extra)),
    )  # fmt: skip
    if margin is not None and extra > 0 and margin.value - extra < NEAR_STACK_MM:
        left = margin.value - extra
        text = (
            "The deepest crawl, {deepest}, leaves {left} before stack."
            if left >= 0
            else "The deepest crawl, {deepest}, bends the lower limb past the onset of stack."
        )
        return [
            _finding("crawl-depth", "watch" if left >= 0 else "mend",
                     phrase(text, deepest=gap(deepest), left=mm(max(left, 0.0))), sums)
        ]  # fmt: skip
    limit = DEEP_ON_SHORT_MM if bow_mm <= SHORT_BOW_MM else DEEP_MM
    if deepest < limit:
        return []
    return [
        _finding(
            "crawl-depth",
            "watch",
            phrase("The deepest crawl, {deepest}, is one that porpoises and sounds on this length "
                   "of bow.", deepest=gap(deepest)),
            sums,
        )
    ]  # fmt: skip


def _judge_speed(c: Computed) -> list[j.Finding]:
    off, own, said = c.crawls.checks.speed_off, c.crawls.table.own_sight, c.crawls.basis.speed
    if off is None or own is None or said is None or abs(off) < APART_SDS:
        return []
    return [
        _finding(
            "crawl-speed",
            "watch",
            phrase(
                "The crawls ask for {marks}, bow and chronograph say {said}: another arrow, "
                "another draw, or yards?",
                marks=mps(own.speed_mps), said=mps(said.value, said.plus_minus),
            ),
            (phrase(f"{abs(off):.1f} standard deviations of both apart."),),
            MARKS,
        )
    ]  # fmt: skip
